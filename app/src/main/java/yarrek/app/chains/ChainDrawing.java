package yarrek.app.chains;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import yarrek.core.approval.ChainPlan;
import yarrek.core.approval.WorkDays;

/**
 * A chain along time, in drawing units: rows of {@code ROW} height below the head, days from left to right.
 *
 * @param width of the part in which days are drawn, {@code height} of all
 * @param today where today is; {@code jobFrom} and {@code jobTo} the days of the job
 */
record ChainDrawing(
        double width,
        double height,
        double today,
        double jobFrom,
        double jobTo,
        List<Tick> ticks,
        List<Bar> bars,
        List<String> links) {
    static final int ROW = 26;
    static final int HEAD = 22;
    private static final double WIDTH = 760;
    private static final int LONGEST_NAME = 46;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM", Locale.UK);

    /** A mark of the axis. */
    record Tick(double at, String label, boolean major) {}

    /**
     * A step: work, then waiting as usual, then waiting at worst; slack after it, or how much too late it is.
     *
     * @param slackTo where the slack ends; the same as {@code worst} for none or less
     * @param latest where it must be sent at the latest
     * @param standing as the plan says
     */
    record Bar(
            double y,
            String title,
            double start,
            double send,
            double usual,
            double worst,
            double slackTo,
            double limit,
            double latest,
            boolean critical,
            boolean done,
            String standing,
            String tip) {}

    /** @param label what a reader hears in the place of the drawing */
    public String svg(String label) {
        return ChainSvg.write(this, label);
    }

    static ChainDrawing of(ChainPlan plan, WorkDays calendar, LocalDate today, LocalDate first, LocalDate last) {
        LocalDate from = today;
        LocalDate to = last.plusDays(1);
        for (ChainPlan.Planned p : plan.steps()) {
            from = earlier(from, earlier(p.earliestStart(), p.isDone() ? p.earliestStart() : p.latestSend()));
            to = later(to, p.earliestGrant().plusDays(1));
        }
        // what lies long ago is cut off: the picture is of what is still to come
        from = later(from, today.minusDays(45));
        to = earlier(to, today.plusDays(730));
        Axis axis =
                new Axis(from.minusDays(1), Math.max(8, ChronoUnit.DAYS.between(from.minusDays(1), to.plusDays(1))));
        List<Bar> bars = new ArrayList<>();
        Map<String, Bar> byId = new HashMap<>();
        for (int i = 0; i < plan.steps().size(); i++) {
            ChainPlan.Planned p = plan.steps().get(i);
            Bar b = new Bar(
                    HEAD + i * (double) ROW,
                    shortened(p.step().name()),
                    axis.at(p.earliestStart()),
                    axis.at(p.earliestSend()),
                    axis.at(earlier(p.step().usual().grantedIfSent(p.earliestSend(), calendar), p.earliestGrant())),
                    axis.at(p.earliestGrant()),
                    p.isDone() ? axis.at(p.earliestGrant()) : axis.at(later(p.latestGrant(), p.earliestGrant())),
                    axis.at(p.latestGrant()),
                    axis.at(p.latestSend()),
                    plan.critical().contains(p.step().id()),
                    p.isDone(),
                    p.standing(),
                    p.step().name() + ": "
                            + (p.isDone()
                                    ? "granted " + DAY.format(p.earliestGrant())
                                    : "send by " + DAY.format(p.latestSend()) + ", at worst granted "
                                            + DAY.format(p.earliestGrant()) + ", slack " + p.slackDays() + " days"));
            bars.add(b);
            byId.put(p.step().id(), b);
        }
        List<String> links = new ArrayList<>();
        for (ChainPlan.Planned p : plan.steps()) {
            for (String n : p.step().needs()) {
                links.add(link(byId.get(n), byId.get(p.step().id())));
            }
        }
        return new ChainDrawing(
                WIDTH,
                HEAD + plan.steps().size() * (double) ROW + 22,
                axis.at(today),
                axis.at(first),
                axis.at(last.plusDays(1)),
                axis.ticks(),
                bars,
                links);
    }

    /** Long names lose their middle: which of several it is stands at the end. */
    static String shortened(String name) {
        return name.length() <= LONGEST_NAME
                ? name
                : name.substring(0, LONGEST_NAME - 16) + "… "
                        + name.substring(name.length() - 14).strip();
    }

    /** From the grant of one to the sending of another. */
    private static String link(Bar from, Bar to) {
        double y0 = from.y() + 18;
        double y1 = to.y() + (to.y() > from.y() ? 4 : 19);
        double x = Math.max(from.worst(), to.send());
        return String.format(
                Locale.ROOT,
                "M%.1f %.1f H%.1f V%.1f l-2.5 %d h5 l-2.5 %d",
                from.worst(),
                y0,
                x,
                y1,
                y1 > y0 ? -5 : 5,
                y1 > y0 ? 5 : -5);
    }

    private static LocalDate earlier(LocalDate a, LocalDate b) {
        return a.isBefore(b) ? a : b;
    }

    private static LocalDate later(LocalDate a, LocalDate b) {
        return a.isAfter(b) ? a : b;
    }

    private record Axis(LocalDate from, long days) {
        double at(LocalDate d) {
            double x = ChronoUnit.DAYS.between(from, d) * WIDTH / days;
            return Math.round(Math.max(0, Math.min(WIDTH, x)) * 10) / 10.0;
        }

        List<Tick> ticks() {
            List<Tick> ticks = new ArrayList<>();
            boolean weeks = days <= 130;
            for (long i = 0; i <= days; i++) {
                LocalDate d = from.plusDays(i);
                boolean month = d.getDayOfMonth() == 1;
                if (month || (weeks && d.getDayOfWeek() == DayOfWeek.MONDAY)) {
                    boolean label = weeks
                            ? d.getDayOfWeek() == DayOfWeek.MONDAY && (days <= 75 || d.getDayOfMonth() <= 7)
                            : month;
                    ticks.add(new Tick(at(d), label ? DAY.format(d) : "", month));
                }
            }
            return ticks;
        }
    }
}
