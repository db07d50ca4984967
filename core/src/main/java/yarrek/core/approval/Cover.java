package yarrek.core.approval;

import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import yarrek.core.geo.Area;
import yarrek.core.time.TimeWindow;
import yarrek.core.units.Finite;

/** Whether a paper covers a day of a job, dimension by dimension. */
public final class Cover {
    private static final DateTimeFormatter HOUR =
            DateTimeFormatter.ofPattern("d MMM HH:mm 'UTC'", Locale.UK).withZone(ZoneOffset.UTC);

    private Cover() {}

    /** What a paper must cover. */
    public enum Dimension {
        TIME,
        AREA,
        CEILING,
        AIRCRAFT,
        PILOTS,
        PURPOSE,
        QUOTED
    }

    /** Covered, something missing, or the paper does not say. */
    public enum State {
        COVERED,
        MISSING,
        NOT_KNOWN
    }

    /**
     * A day of a job with an aircraft.
     *
     * @param window its hours
     * @param heightM greatest height above ground; empty when not known
     * @param aircraft registration or serial
     * @param pilots who fly
     * @param numbers numbers of other approvals that the paper has to quote
     */
    public record Need(
            TimeWindow window,
            Area area,
            OptionalDouble heightM,
            String aircraft,
            Set<String> pilots,
            Optional<String> purpose,
            Set<String> numbers) {}

    /**
     * A paper as granted; what it does not say is empty, and an empty set names nobody.
     *
     * @param ceilingM above ground
     */
    public record Granted(
            String reference,
            Optional<TimeWindow> window,
            Optional<Area> area,
            OptionalDouble ceilingM,
            Set<String> aircraft,
            Set<String> pilots,
            Optional<String> purpose,
            Set<String> quotes) {}

    /** One dimension of one paper on one day. */
    public record Finding(Dimension dimension, State state, String words) {}

    /**
     * How far an area reaches beyond a paper's.
     *
     * @param outside the ground that is not covered
     * @param share of the area, 0 to 1
     * @param metres greatest distance of a corner of it from the paper's area
     */
    public record Overhang(Area outside, double share, double metres) {}

    /** Empty when the paper contains the whole area. */
    public static Optional<Overhang> overhang(Area area, Area paper) {
        return area.outside(paper)
                .map(out -> new Overhang(
                        out,
                        out.areaM2() / area.areaM2(),
                        out.corners().stream()
                                .mapToDouble(paper::distanceM)
                                .max()
                                .orElse(0)))
                // slivers along a shared edge are rounding, not overhang
                .filter(o -> o.metres() > 0.05);
    }

    /** Every dimension, covered or not. */
    public static List<Finding> of(Need need, Granted paper) {
        List<Finding> found = new ArrayList<>();
        found.add(paper.window()
                .map(w -> !need.window().start().isBefore(w.start())
                                && !need.window().end().isAfter(w.end())
                        ? covered(Dimension.TIME)
                        : missing(Dimension.TIME, "flown " + span(need.window()) + ", granted " + span(w)))
                .orElseGet(() -> unknown(Dimension.TIME, "the paper names no time")));
        found.add(paper.area()
                .map(a -> overhang(need.area(), a)
                        .map(o -> missing(
                                Dimension.AREA,
                                String.format(
                                        Locale.UK,
                                        "%.0f m beyond its edge, %.1f %% of the area outside",
                                        o.metres(),
                                        o.share() * 100)))
                        .orElseGet(() -> covered(Dimension.AREA)))
                .orElseGet(() -> unknown(Dimension.AREA, "the paper names no area")));
        found.add(ceiling(need, paper));
        found.add(
                paper.aircraft().isEmpty()
                        ? unknown(Dimension.AIRCRAFT, "the paper names no aircraft")
                        : paper.aircraft().contains(need.aircraft())
                                ? covered(Dimension.AIRCRAFT)
                                : missing(Dimension.AIRCRAFT, need.aircraft() + " is not on it"));
        Set<String> strangers = new TreeSet<>(need.pilots());
        strangers.removeAll(paper.pilots());
        found.add(
                paper.pilots().isEmpty()
                        ? unknown(Dimension.PILOTS, "the paper names no pilots")
                        : strangers.isEmpty()
                                ? covered(Dimension.PILOTS)
                                : missing(Dimension.PILOTS, String.join(", ", strangers) + " not on it"));
        found.add(
                paper.purpose().isEmpty() || need.purpose().isEmpty()
                        ? unknown(Dimension.PURPOSE, "the purpose is not said on both")
                        : paper.purpose().equals(need.purpose())
                                ? covered(Dimension.PURPOSE)
                                : missing(
                                        Dimension.PURPOSE,
                                        "granted for " + paper.purpose().get() + ", flown for "
                                                + need.purpose().get()));
        Set<String> unquoted = new TreeSet<>(need.numbers());
        unquoted.removeAll(paper.quotes());
        found.add(
                unquoted.isEmpty()
                        ? covered(Dimension.QUOTED)
                        : missing(Dimension.QUOTED, "does not quote " + String.join(", ", unquoted)));
        return found;
    }

    private static Finding ceiling(Need need, Granted paper) {
        if (paper.ceilingM().isEmpty() || need.heightM().isEmpty()) {
            return unknown(
                    Dimension.CEILING,
                    paper.ceilingM().isEmpty() ? "the paper names no ceiling" : "the height of the plan is not known");
        }
        double over = need.heightM().getAsDouble() - paper.ceilingM().getAsDouble();
        return over <= 0
                ? covered(Dimension.CEILING)
                : missing(
                        Dimension.CEILING,
                        Finite.format(over) + " m above its ceiling of "
                                + Finite.format(paper.ceilingM().getAsDouble()) + " m");
    }

    /** A maker's unlock must equal the approval: its dates and, within a tolerance, its area. */
    public static List<Finding> equal(Granted unlock, Granted approval, int toleranceDays, double toleranceM) {
        List<Finding> found = new ArrayList<>();
        if (unlock.window().isEmpty() || approval.window().isEmpty()) {
            found.add(unknown(Dimension.TIME, "one of the two names no time"));
        } else {
            TimeWindow u = unlock.window().get();
            TimeWindow a = approval.window().get();
            long start =
                    Math.abs(java.time.Duration.between(u.start(), a.start()).toSeconds());
            long end = Math.abs(java.time.Duration.between(u.end(), a.end()).toSeconds());
            found.add(
                    Math.max(start, end) <= toleranceDays * 86_400L
                            ? covered(Dimension.TIME)
                            : missing(Dimension.TIME, "unlock " + span(u) + ", approval " + span(a)));
        }
        if (unlock.area().isEmpty() || approval.area().isEmpty()) {
            found.add(unknown(Dimension.AREA, "one of the two names no area"));
        } else {
            double apart = Math.max(
                    farthest(unlock.area().get(), approval.area().get()),
                    farthest(approval.area().get(), unlock.area().get()));
            found.add(
                    apart <= toleranceM
                            ? covered(Dimension.AREA)
                            : missing(
                                    Dimension.AREA,
                                    String.format(
                                            Locale.UK,
                                            "the two areas differ by up to %.0f m, %s m are accepted",
                                            apart,
                                            Finite.format(toleranceM))));
        }
        return found;
    }

    /** The greatest distance of a corner of one area's overhang from the other. */
    private static double farthest(Area one, Area other) {
        return overhang(one, other).map(Overhang::metres).orElse(0.0);
    }

    private static String span(TimeWindow w) {
        return HOUR.format(w.start()) + " to " + HOUR.format(w.end());
    }

    private static Finding covered(Dimension d) {
        return new Finding(d, State.COVERED, "covered");
    }

    private static Finding missing(Dimension d, String words) {
        return new Finding(d, State.MISSING, words);
    }

    private static Finding unknown(Dimension d, String words) {
        return new Finding(d, State.NOT_KNOWN, words);
    }
}
