package yarrek.core.approval;

import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
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
        COVERED("full"),
        MISSING("notch"),
        NOT_KNOWN("dots");

        private final String shape;

        State(String shape) {
            this.shape = shape;
        }

        /** Name of the status shape. */
        public String shape() {
            return shape;
        }
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
            Set<String> numbers) {
        /** The same in other hours. */
        public Need in(TimeWindow hours) {
            return new Need(hours, area, heightM, aircraft, pilots, purpose, numbers);
        }

        /** The same flown by others. */
        public Need by(Set<String> others) {
            return new Need(window, area, heightM, aircraft, others, purpose, numbers);
        }

        /** The same with another aircraft. */
        public Need with(String other) {
            return new Need(window, area, heightM, other, pilots, purpose, numbers);
        }
    }

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

    /** Overhangs worked out once for each pair of areas; for tables of many days with the same areas. Not for several threads. */
    public static final class Overhangs {
        // areas are compared by identity: the same object again is the common case, and equal ones only cost time
        private final Map<List<Area>, Optional<Overhang>> known = new HashMap<>();

        Optional<Overhang> of(Area area, Area paper) {
            return known.computeIfAbsent(List.of(area, paper), k -> overhang(area, paper));
        }
    }

    /** Minutes of a stretch that lie outside the hours granted; zero when it lies within them, ends included. */
    public static double minutesOutside(TimeWindow flown, TimeWindow granted) {
        java.time.Instant from = flown.start().isAfter(granted.start()) ? flown.start() : granted.start();
        java.time.Instant to = flown.end().isBefore(granted.end()) ? flown.end() : granted.end();
        long whole = java.time.Duration.between(flown.start(), flown.end()).toSeconds();
        long inside = Math.max(0, java.time.Duration.between(from, to).toSeconds());
        return (whole - inside) / 60.0;
    }

    /**
     * Whether every one of several lists names somebody: false when one names only others, empty when one says nothing.
     *
     * @param lists those that limit; an empty list says nothing
     */
    public static Optional<Boolean> allName(String who, List<List<String>> lists) {
        if (lists.stream().anyMatch(l -> !l.isEmpty() && !l.contains(who))) {
            return Optional.of(false);
        }
        return lists.stream().anyMatch(List::isEmpty) ? Optional.empty() : Optional.of(true);
    }

    /** Every dimension, covered or not. */
    public static List<Finding> of(Need need, Granted paper) {
        return of(need, paper, new Overhangs());
    }

    /** Every dimension, covered or not; overhangs that are known are not worked out again. */
    public static List<Finding> of(Need need, Granted paper, Overhangs overhangs) {
        List<Finding> found = new ArrayList<>();
        found.add(paper.window()
                .map(w -> !need.window().start().isBefore(w.start())
                                && !need.window().end().isAfter(w.end())
                        ? covered(Dimension.TIME)
                        : missing(Dimension.TIME, "flown " + span(need.window()) + ", granted " + span(w)))
                .orElseGet(() -> unknown(Dimension.TIME, "the paper names no time")));
        found.add(paper.area()
                .map(a -> overhangs
                        .of(need.area(), a)
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

    /** One field of a request beside the same of the approval it rests on. */
    public record Line(String field, String request, String approval, State state, String words) {
        public boolean fits() {
            return state == State.COVERED;
        }

        public String standing() {
            return switch (state) {
                case COVERED -> "fits";
                case MISSING -> "differs";
                case NOT_KNOWN -> "not known";
            };
        }
    }

    /**
     * An unlock request against the approval it rests on, field by field, before it is sent: dates and area must be equal
     * within the tolerances, height, aircraft and pilots must be covered, and the approval's number must be quoted.
     *
     * @param toleranceDays by which a start or an end may differ, zero or more
     * @param toleranceM by which the areas may differ
     */
    public static List<Line> compare(Granted request, Granted approval, int toleranceDays, double toleranceM) {
        List<Line> lines = new ArrayList<>();
        List<Finding> equal = equal(request, approval, toleranceDays, toleranceM);
        lines.add(line(
                "Dates and times",
                request.window().map(Cover::span),
                approval.window().map(Cover::span),
                equal.get(0)));
        lines.add(line(
                "Place and area",
                request.area().map(Cover::place),
                approval.area().map(Cover::place),
                equal.get(1)));
        lines.add(line(
                "Height above ground",
                metres(request.ceilingM()),
                metres(approval.ceilingM()),
                request.ceilingM().isEmpty() || approval.ceilingM().isEmpty()
                        ? unknown(Dimension.CEILING, "one of the two names no height")
                        : request.ceilingM().getAsDouble()
                                        <= approval.ceilingM().getAsDouble()
                                ? covered(Dimension.CEILING)
                                : missing(
                                        Dimension.CEILING,
                                        "asks for "
                                                + Finite.format(request.ceilingM()
                                                                .getAsDouble()
                                                        - approval.ceilingM().getAsDouble())
                                                + " m more than is granted")));
        lines.add(line(
                "Aircraft",
                names(request.aircraft()),
                names(approval.aircraft()),
                among(Dimension.AIRCRAFT, request.aircraft(), approval.aircraft(), "aircraft")));
        lines.add(line(
                "Pilots",
                names(request.pilots()),
                names(approval.pilots()),
                among(Dimension.PILOTS, request.pilots(), approval.pilots(), "pilots")));
        lines.add(line(
                "Approval's number",
                names(request.quotes()),
                Optional.of(approval.reference()),
                request.quotes().contains(approval.reference())
                        ? covered(Dimension.QUOTED)
                        : missing(Dimension.QUOTED, "does not quote " + approval.reference())));
        return lines;
    }

    private static Finding among(Dimension d, Set<String> asked, Set<String> granted, String what) {
        if (asked.isEmpty() || granted.isEmpty()) {
            return unknown(d, "one of the two names no " + what);
        }
        Set<String> strangers = new TreeSet<>(asked);
        strangers.removeAll(granted);
        return strangers.isEmpty() ? covered(d) : missing(d, String.join(", ", strangers) + " not on the approval");
    }

    private static Line line(String field, Optional<String> request, Optional<String> approval, Finding f) {
        return new Line(field, request.orElse("not said"), approval.orElse("not said"), f.state(), f.words());
    }

    private static Optional<String> metres(OptionalDouble m) {
        return m.isEmpty() ? Optional.empty() : Optional.of(Finite.format(m.getAsDouble()) + " m");
    }

    private static Optional<String> names(Set<String> names) {
        return names.isEmpty() ? Optional.empty() : Optional.of(String.join(", ", new TreeSet<>(names)));
    }

    private static String place(Area a) {
        return yarrek.core.geo.PositionText.format(a.middle(), yarrek.core.geo.PositionText.Notation.MINUTES)
                + String.format(Locale.UK, ", %,.0f m²", a.areaM2());
    }

    /** Papers that say different things of the same matter, each contradiction in words. */
    public static List<String> contradictions(List<Granted> papers) {
        List<String> found = new ArrayList<>();
        for (int i = 0; i < papers.size(); i++) {
            for (int j = i + 1; j < papers.size(); j++) {
                Granted a = papers.get(i);
                Granted b = papers.get(j);
                String both = a.reference() + " and " + b.reference() + ": ";
                if (a.reference().equals(b.reference()) && !a.equals(b)) {
                    found.add(a.reference() + " is on file twice with different content");
                }
                if (a.window().isPresent()
                        && b.window().isPresent()
                        && !a.window().get().meets(b.window().get())) {
                    found.add(both + "no hour is in both (" + span(a.window().get()) + "; "
                            + span(b.window().get()) + ")");
                }
                if (a.area().isPresent()
                        && b.area().isPresent()
                        && a.area().get().overlap(b.area().get()).isEmpty()) {
                    found.add(both + "no ground is in both");
                }
                apart(both, a.aircraft(), b.aircraft(), "aircraft", found);
                apart(both, a.pilots(), b.pilots(), "pilot", found);
                if (a.ceilingM().isPresent()
                        && b.ceilingM().isPresent()
                        && !a.ceilingM().equals(b.ceilingM())) {
                    found.add(both + "different ceilings, "
                            + Finite.format(a.ceilingM().getAsDouble()) + " m and "
                            + Finite.format(b.ceilingM().getAsDouble()) + " m; the lower holds");
                }
            }
        }
        return found;
    }

    private static void apart(String both, Set<String> a, Set<String> b, String what, List<String> found) {
        if (!a.isEmpty() && !b.isEmpty() && a.stream().noneMatch(b::contains)) {
            found.add(both + "no " + what + " is on both");
        }
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
