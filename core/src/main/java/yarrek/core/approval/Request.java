package yarrek.core.approval;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A request for an approval: the days of the job that it is for. A kind that grants a window shorter than the job is asked
 * for in several, made by copying.
 *
 * @param number from 1 within its kind and zone
 * @param of how many there are
 */
public record Request(Needed needed, LocalDate firstDay, LocalDate lastDay, int number, int of) {
    /** Identity within the job. */
    public String id() {
        return needed.key() + "#" + number;
    }

    public String title() {
        return needed.title() + (of > 1 ? ", " + number + " of " + of : "");
    }

    public double prepareHours() {
        return number == 1 ? needed.kind().prepareHours() : needed.kind().copyHours();
    }

    /**
     * What stands of a request on file.
     *
     * @param usual what its granter usually took before; empty to go by the kind
     * @param worst what its granter took at worst before, as nine of ten did; empty to go by the kind
     * @param hoursSpent work done on it
     * @param granter days on which its granter works; empty when they are not on file
     */
    public record Standing(
            Optional<LocalDate> sentOn,
            Optional<LocalDate> grantedOn,
            Optional<Lead> usual,
            Optional<Lead> worst,
            double hoursSpent,
            Optional<WorkDays> granter) {
        public static final Standing NONE = new Standing(
                Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), 0, Optional.empty());
    }

    /** Every request of a job all of whose days need the same, each need cut into windows that its kind allows. */
    public static List<Request> of(List<Needed> needs, LocalDate firstDay, LocalDate lastDay) {
        List<LocalDate> days = firstDay.datesUntil(lastDay.plusDays(1)).toList();
        return needs.stream()
                .flatMap(n -> of(n, days, longest(n, needs)).stream())
                .toList();
    }

    /**
     * The requests of one need for the days on which it is needed: each for consecutive days, and for no more than its kind
     * allows.
     *
     * @param days rising
     */
    public static List<Request> of(Needed need, List<LocalDate> days) {
        return of(need, days, need.kind().longestDays());
    }

    /**
     * The longest window of each need on its days: its kind's own, but an unlock has to equal the approvals it rests on, and
     * so is cut as the shortest of those that are needed.
     */
    public static int longest(Needed need, List<Needed> all) {
        int own = need.kind().longestDays();
        return !need.kind().unlock()
                ? own
                : all.stream()
                        .map(Needed::kind)
                        .filter(k -> need.kind().quotes().contains(k.code()) && k.longestDays() > 0)
                        .mapToInt(ApprovalKind::longestDays)
                        .filter(d -> own == 0 || d < own)
                        .min()
                        .orElse(own);
    }

    /** The requests of one need, none for more than {@code longest} days; zero for any number. */
    public static List<Request> of(Needed need, List<LocalDate> days, int longest) {
        List<List<LocalDate>> windows = new ArrayList<>();
        for (LocalDate d : days) {
            List<LocalDate> last = windows.isEmpty() ? List.of() : windows.get(windows.size() - 1);
            boolean goesOn = !last.isEmpty()
                    && last.get(last.size() - 1).plusDays(1).equals(d)
                    && (longest == 0 || last.size() < longest);
            if (!goesOn) {
                last = new ArrayList<>();
                windows.add(last);
            }
            last.add(d);
        }
        List<Request> all = new ArrayList<>();
        for (List<LocalDate> w : windows) {
            all.add(new Request(need, w.get(0), w.get(w.size() - 1), all.size() + 1, windows.size()));
        }
        return all;
    }

    /**
     * The requests as steps of a chain: each waits for those that its kind needs or comes after, on the days they share.
     *
     * @param standing what is on file, by {@link #id()}
     * @param sendEarliest whether the earliest day of sending counts; not when it is asked how soon a job could be at all
     */
    public static List<Step> steps(List<Request> requests, Map<String, Standing> standing, boolean sendEarliest) {
        List<Step> steps = new ArrayList<>();
        for (Request r : requests) {
            ApprovalKind k = r.needed().kind();
            Set<String> waits = new LinkedHashSet<>();
            for (Request o : requests) {
                String code = o.needed().kind().code();
                if (!o.id().equals(r.id())
                        && (k.needs().contains(code) || k.after().contains(code))
                        && o.shares(r)) {
                    waits.add(o.id());
                }
            }
            Standing s = standing.getOrDefault(r.id(), Standing.NONE);
            Lead worst = s.worst().orElse(k.worst());
            Lead usual = s.usual().orElse(k.usual());
            steps.add(new Step(
                    r.id(),
                    r.title(),
                    waits,
                    Math.max(0, r.prepareHours() - s.hoursSpent()),
                    worst,
                    usual,
                    r.firstDay(),
                    !sendEarliest || k.earliestDays() == 0
                            ? Optional.empty()
                            : Optional.of(r.firstDay().minusDays(k.earliestDays())),
                    s.sentOn(),
                    s.grantedOn(),
                    s.granter()));
        }
        return steps;
    }

    private boolean shares(Request o) {
        return !firstDay.isAfter(o.lastDay) && !o.firstDay.isAfter(lastDay);
    }
}
