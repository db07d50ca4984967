package yarrek.core.airspace;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.time.TimeWindow;

/**
 * What a planned area, widened by a buffer, meets among the zones, and what lies around it.
 *
 * @param met zones whose ground the widened area meets, the most pressing first
 * @param nearest for each kind with a zone within about 10 km the one nearest to the area itself
 * @param around every aerodrome, heliport and seaplane area within 10 km of the area, and the nearest of each at any
 *     distance, nearest first
 */
public record SiteLook(List<Met> met, Map<ZoneKind, Neighbour> nearest, List<Neighbour> around) {
    /** Places are listed out to here. */
    public static final double AROUND_M = 10_000;

    /** Kinds whose nearest is named however far it is. */
    private static final List<ZoneKind> ALWAYS_SOUGHT =
            List.of(ZoneKind.AERODROME, ZoneKind.HELIPORT, ZoneKind.SEAPLANE);

    /**
     * What is planned.
     *
     * @param buffer metres by which the area is widened, zero or more
     * @param greatestHeightM above ground; empty when not known
     * @param windows hours in which it is flown; empty for any time
     * @param place time zone of the place
     */
    public record Plan(
            Area area,
            Position launch,
            double buffer,
            OptionalDouble greatestHeightM,
            List<TimeWindow> windows,
            ZoneId place,
            Ground ground) {
        /** The same for any time. */
        Plan atAnyTime() {
            return new Plan(area, launch, buffer, greatestHeightM, List.of(), place, ground);
        }
    }

    /**
     * A zone whose ground the widened area meets.
     *
     * @param overlapM2 of the widened area, square metres
     * @param share of the widened area, 0 to 1
     * @param height how the plan's heights meet the zone's
     * @param whyHeight why they do not, or why that is not known; else empty
     * @param inForce parts of the hours in which it is in force; empty when at none of them
     * @param overlapHeights the metres above ground that plan and zone share; empty when they share none or it is not known
     * @param onlyEdge they share an edge on the ground and no inside
     * @param onlyInBuffer the area itself, without the buffer, does not meet it
     */
    public record Met(
            Zone zone,
            double overlapM2,
            double share,
            Zone.Meeting height,
            String whyHeight,
            List<TimeWindow> inForce,
            Optional<HeightLimit.Span> overlapHeights,
            boolean onlyEdge,
            boolean onlyInBuffer) {
        /** Clear when the heights or the hours do not meet; not known when the heights are not. */
        public Zone.Meeting meeting() {
            return inForce.isEmpty() || height == Zone.Meeting.CLEAR
                    ? Zone.Meeting.CLEAR
                    : height == Zone.Meeting.NOT_KNOWN
                            ? Zone.Meeting.NOT_KNOWN
                            : onlyEdge || height == Zone.Meeting.TOUCHES ? Zone.Meeting.TOUCHES : Zone.Meeting.MEETS;
        }

        /** "Ask the tower. Overlap 12,345 m², 34 % of the area; from 0 to 90 m above ground; in force 08:00 to 09:00." */
        public String says(ZoneId place) {
            StringBuilder s = new StringBuilder(zone.message());
            if (s.length() > 0 && s.charAt(s.length() - 1) != '.') {
                s.append('.');
            }
            s.append(s.length() > 0 ? " " : "");
            s.append(
                    onlyEdge
                            ? "Only its edge is touched"
                            : String.format(
                                    Locale.UK, "Overlap %,.0f m², %.0f %% of the area", overlapM2, share * 100));
            if (onlyInBuffer) {
                s.append(", in the buffer around it only");
            }
            overlapHeights.ifPresent(h -> s.append(
                    String.format(Locale.UK, "; from %.0f to %.0f m above ground", h.leastM(), h.greatestM())));
            s.append("; ").append(hours(place)).append('.');
            return s.toString();
        }

        /** "in force 26 Nov 08:00 to 09:00" in local time; for any time: its timetable is beside. */
        private String hours(ZoneId place) {
            if (inForce.isEmpty()) {
                return "not in force in these hours";
            }
            if (inForce.get(0).start().equals(Instant.MIN)) {
                return "whatever the hour";
            }
            var day = DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.UK);
            var hour = DateTimeFormatter.ofPattern("HH:mm", Locale.UK);
            return "in force "
                    + inForce.stream()
                            .limit(5)
                            .map(w -> w.start().atZone(place).format(day) + " to "
                                    + w.end()
                                            .atZone(place)
                                            .format(
                                                    w.end()
                                                                    .atZone(place)
                                                                    .toLocalDate()
                                                                    .equals(w.start()
                                                                            .atZone(place)
                                                                            .toLocalDate())
                                                            ? hour
                                                            : day))
                            .collect(Collectors.joining(", "))
                    + (inForce.size() > 5 ? " and " + (inForce.size() - 5) + " more" : "") + " local";
        }
    }

    private static final Comparator<Met> PRESSING = Comparator.comparing(Met::meeting)
            .thenComparing(m -> m.zone().restriction())
            .thenComparing(m -> -m.overlapM2())
            .thenComparing(m -> m.zone().id());

    /**
     * @param distanceM from the area's nearest edge; zero when they meet
     * @param bearingDeg from the launch point to the zone's middle, true, 0 to below 360
     * @param fromLaunchM from the launch point to the zone's nearest point
     */
    public record Neighbour(Zone zone, double distanceM, double bearingDeg, double fromLaunchM) {}

    public static SiteLook of(Plan plan, ZoneIndex index) {
        Area wide = plan.area().widened(plan.buffer());
        double wideM2 = wide.areaM2();
        List<Met> met = new ArrayList<>();
        for (Zone z : index.near(wide, 0)) {
            if (z.area().meets(wide)) {
                met.add(met(z, plan, wide, wideM2));
            }
        }
        met.sort(PRESSING);
        Map<ZoneKind, Zone> best = new EnumMap<>(ZoneKind.class);
        Map<ZoneKind, Double> distance = new EnumMap<>(ZoneKind.class);
        List<Neighbour> around = new ArrayList<>();
        for (Zone z : index.near(plan.area(), AROUND_M)) {
            double d = z.area().distanceM(plan.area());
            if (d < distance.getOrDefault(z.kind(), Double.MAX_VALUE)) {
                distance.put(z.kind(), d);
                best.put(z.kind(), z);
            }
            if (ALWAYS_SOUGHT.contains(z.kind()) && d <= AROUND_M) {
                around.add(neighbour(z, d, plan));
            }
        }
        Map<ZoneKind, Neighbour> nearest = new EnumMap<>(ZoneKind.class);
        best.forEach((kind, z) -> nearest.put(kind, neighbour(z, distance.get(kind), plan)));
        for (ZoneKind kind : ALWAYS_SOUGHT) {
            if (distance.getOrDefault(kind, Double.MAX_VALUE) > AROUND_M) {
                index.nearest(plan.area(), kind).ifPresent(z -> {
                    Neighbour n = neighbour(z, z.area().distanceM(plan.area()), plan);
                    nearest.put(kind, n);
                    around.add(n);
                });
            }
        }
        around.sort(Comparator.comparingDouble(Neighbour::distanceM));
        return new SiteLook(List.copyOf(met), nearest, List.copyOf(around));
    }

    private static Met met(Zone z, Plan plan, Area wide, double wideM2) {
        Optional<Area> shared = z.area().overlap(wide);
        double m2 = shared.map(Area::areaM2).orElse(0.0);
        Zone.Meeting height = height(z, plan);
        return new Met(
                z,
                m2,
                wideM2 == 0 ? 0 : m2 / wideM2,
                height,
                z.why(height, plan.greatestHeightM(), plan.ground()),
                inForce(z, plan),
                shared(z, plan),
                shared.isEmpty(),
                plan.buffer() > 0 && !z.area().meets(plan.area()));
    }

    private static List<TimeWindow> inForce(Zone z, Plan plan) {
        return plan.windows().isEmpty()
                ? List.of(new TimeWindow(Instant.MIN, Instant.MAX))
                : plan.windows().stream()
                        .flatMap(w -> z.times().within(w, plan.place()).stream())
                        .toList();
    }

    /**
     * This look in the hours of a plan: what lies where does not change with them.
     *
     * @param plan the one that was looked at, in any hours
     */
    SiteLook inHoursOf(Plan plan) {
        return new SiteLook(
                met.stream()
                        .map(m -> new Met(
                                m.zone,
                                m.overlapM2,
                                m.share,
                                m.height,
                                m.whyHeight,
                                inForce(m.zone, plan),
                                m.overlapHeights,
                                m.onlyEdge,
                                m.onlyInBuffer))
                        .sorted(PRESSING)
                        .toList(),
                nearest,
                around);
    }

    /** What is not known over the whole area may be certain at the launch point, whose elevation has no spread. */
    private static Zone.Meeting height(Zone z, Plan plan) {
        Zone.Meeting all = z.heights(plan.greatestHeightM(), plan.ground());
        boolean launchIn = all == Zone.Meeting.NOT_KNOWN
                && z.area().locate(plan.launch().latitudeDeg(), plan.launch().longitudeDeg()) != Area.Side.OUTSIDE;
        Ground atLaunch = new Ground(plan.ground().elevationM(), OptionalDouble.of(0));
        return launchIn && z.heights(plan.greatestHeightM(), atLaunch) == Zone.Meeting.MEETS ? Zone.Meeting.MEETS : all;
    }

    private static Optional<HeightLimit.Span> shared(Zone z, Plan plan) {
        Optional<HeightLimit.Span> low = z.lower().aboveGround(plan.ground());
        Optional<HeightLimit.Span> high = z.upper().aboveGround(plan.ground());
        if (low.isEmpty() || high.isEmpty() || plan.greatestHeightM().isEmpty()) {
            return Optional.empty();
        }
        double from = Math.max(0, low.get().leastM());
        double to = Math.min(plan.greatestHeightM().getAsDouble(), high.get().greatestM());
        return to >= from ? Optional.of(new HeightLimit.Span(from, to)) : Optional.empty();
    }

    private static Neighbour neighbour(Zone z, double distanceM, Plan plan) {
        return new Neighbour(
                z,
                distanceM,
                Geodesy.bearingDeg(plan.launch(), z.area().middle()),
                z.area().distanceM(plan.launch()));
    }

    /** Everything met that is not clear, for the rules. */
    public List<Met> pressing() {
        return met.stream().filter(m -> m.meeting() != Zone.Meeting.CLEAR).toList();
    }
}
