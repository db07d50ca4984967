package yarrek.app.approvals;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import yarrek.core.approval.Cover;
import yarrek.core.rulebook.Facts;
import yarrek.core.time.TimeWindow;

/** How hours, aircraft and pilot stand to the terms of what is held, for a plan and for a flight alike. */
public final class HeldFacts {
    private HeldFacts() {}

    /** Those with terms that are for a day of these hours. */
    public static List<Approvals.ApprovalView> of(
            List<Approvals.ApprovalView> all, List<TimeWindow> windows, ZoneId zone) {
        return all.stream()
                .filter(a -> a.state().isHeld() && !a.terms().equals(Terms.NONE))
                .filter(a -> windows.stream().anyMatch(w -> isFor(a, w, zone)))
                .toList();
    }

    private static boolean isFor(Approvals.ApprovalView a, TimeWindow w, ZoneId zone) {
        LocalDate day = w.start().atZone(zone).toLocalDate();
        return !day.isBefore(a.firstDay()) && !day.isAfter(a.lastDay());
    }

    /** Numbers of approvals, each once. */
    public static String numbers(List<Approvals.ApprovalView> held) {
        return held.stream().map(Approvals.ApprovalView::reference).distinct().collect(Collectors.joining(", "));
    }

    /**
     * Puts what is known; what a paper does not say stays not known unless another paper is departed from already.
     *
     * @param serial of the aircraft; null when it is not known which flies
     * @param pilot name; null likewise
     */
    public static void put(
            Facts.Builder b,
            List<Approvals.ApprovalView> held,
            List<TimeWindow> windows,
            ZoneId zone,
            String serial,
            String pilot) {
        if (held.isEmpty()) {
            return;
        }
        String numbers = numbers(held);
        double minutes = 0;
        boolean known = true;
        for (Approvals.ApprovalView a : held) {
            double week = windows.stream()
                    .filter(w -> isFor(a, w, zone))
                    .mapToDouble(w -> a.terms().outsideWeek(w, zone))
                    .sum();
            minutes = Math.max(minutes, week);
            if (a.terms().leavesOpen(Cover.Dimension.TIME)) {
                continue;
            }
            known &= a.terms().window().isPresent();
            minutes = Math.max(
                    minutes,
                    a.terms()
                            .window()
                            .map(g -> windows.stream()
                                    .filter(w -> isFor(a, w, zone))
                                    .mapToDouble(w -> Cover.minutesOutside(w, g))
                                    .sum())
                            .orElse(0.0));
        }
        if (known || minutes > 0) {
            b.quantity("approval.outsideMinutes", minutes, 0, "the hours against " + numbers);
        }
        named(b, "approval.aircraftNamed", serial, held, Cover.Dimension.AIRCRAFT, Terms::aircraft);
        named(b, "approval.pilotNamed", pilot, held, Cover.Dimension.PILOTS, Terms::pilots);
    }

    private static void named(
            Facts.Builder b,
            String fact,
            String who,
            List<Approvals.ApprovalView> held,
            Cover.Dimension dimension,
            Function<Terms, List<String>> list) {
        if (who != null) {
            Cover.allName(
                            who,
                            held.stream()
                                    .map(Approvals.ApprovalView::terms)
                                    .filter(t -> !t.leavesOpen(dimension))
                                    .map(list)
                                    .toList())
                    .ifPresent(yes -> b.yesNo(fact, yes, who + " against " + numbers(held)));
        }
    }
}
