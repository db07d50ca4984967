package yarrek.core.flight;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import yarrek.core.airspace.Ground;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.FlightFacts;
import yarrek.core.rulebook.Interval;
import yarrek.core.rulebook.SunFacts;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.Patience;
import yarrek.core.time.TimeWindow;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/** Turns a flown flight into facts over time, for the same rules that judged the plan. */
public final class FlightJudge {
    /** Barometric height holds to about 0.5 m over a flight; horizontal satellite fixes to about 3 m (house figures). */
    private static final double BAROMETER_UNCERTAINTY_M = 0.5;

    private static final double SATELLITE_HEIGHT_UNCERTAINTY_M = 3;
    private static final double POSITION_UNCERTAINTY_M = 3;

    private FlightJudge() {}

    /**
     * What a flight is judged with besides its trace.
     *
     * @param constant facts that do not change over the flight: papers, aircraft, purpose
     * @param reliefM greatest difference of the ground under the flight from the take-off point, in metres; empty when
     *     nobody has said, and then a height above ground that complies is not known
     * @param pilotPosition where the pilot stood; empty takes the take-off point and says so
     * @param elevationM of the take-off point above sea level in metres; empty when not known, and then a zone whose limits
     *     count from sea level is taken to be reached
     * @param zones zones on file near the flight; empty when no zone data was looked at
     * @param approvalOfZone reference of the approval that covers a zone for this flight
     * @param site the area that the flight was planned for, with its buffer; empty when it belongs to no job
     * @param approvedAreas the area of each approval that the flight rests on; empty when none names one
     */
    public record Context(
            Facts constant,
            OptionalDouble reliefM,
            OptionalDouble elevationM,
            Optional<Position> pilotPosition,
            Optional<List<Zone>> zones,
            Map<String, String> approvalOfZone,
            Optional<Area> site,
            List<Area> approvedAreas) {}

    /** The facts of one flight, from take-off to landing; times are seconds of the trace. */
    public static FlightFacts facts(Trace trace, FlightFinder.Span span, Context context) {
        int from = span.takeoff();
        int to = span.landing() + 1;
        double[] times = Arrays.copyOfRange(trace.seconds(), from, to);
        double[] lat = part(trace.column(Channel.LATITUDE_DEG), from, to);
        double[] lon = part(trace.column(Channel.LONGITUDE_DEG), from, to);
        double[] height = part(FlightSummary.heights(trace, span), from, to);
        boolean barometer = trace.has(Channel.HEIGHT_ABOVE_TAKEOFF_M);
        Map<String, FlightFacts.Series> series = new HashMap<>();
        if (height != null) {
            double own = barometer ? BAROMETER_UNCERTAINTY_M : SATELLITE_HEIGHT_UNCERTAINTY_M;
            String source = barometer
                    ? "height above take-off from the log"
                    : "altitude in the log less the altitude at take-off";
            series.put("heightAboveTakeoffM", new FlightFacts.Series(height, own, source));
            double ground =
                    context.reliefM().isPresent() ? own + context.reliefM().getAsDouble() : Double.NaN;
            String level = context.reliefM().isPresent()
                    ? "; ground level with the take-off point to ± "
                            + context.reliefM().getAsDouble() + " m, as the site says"
                    : "; the ground under the flight is not on file";
            series.put("heightAboveGroundM", new FlightFacts.Series(height, ground, source + level));
            series.put("heightAboveSurfaceM", new FlightFacts.Series(height, ground, source + level));
        }
        Facts.Builder constant = context.constant().toBuilder();
        if (lat != null && lon != null) {
            Optional<Position> takeoff = firstPosition(lat, lon);
            Optional<Position> pilot = context.pilotPosition().or(() -> takeoff);
            if (pilot.isPresent()) {
                series.put(
                        "pilotDistanceM",
                        new FlightFacts.Series(
                                distances(lat, lon, pilot.get()),
                                POSITION_UNCERTAINTY_M,
                                context.pilotPosition().isPresent()
                                        ? "geodesic from the pilot's position"
                                        : "geodesic from the take-off point; the pilot's own position is not in the log"));
            }
            if (!context.approvedAreas().isEmpty()) {
                series.put(
                        "approval.outsideM",
                        new FlightFacts.Series(
                                outside(lat, lon, context.approvedAreas()),
                                POSITION_UNCERTAINTY_M,
                                "the trace against the areas of the approvals held"));
            }
            if (context.site().isPresent()) {
                series.put(
                        "flight.outsideSiteM",
                        new FlightFacts.Series(
                                outside(lat, lon, List.of(context.site().get())),
                                POSITION_UNCERTAINTY_M,
                                "the trace against the area of the job's site and its buffer"));
            }
            takeoff.ifPresent(p -> SunFacts.put(
                    constant,
                    List.of(new TimeWindow(trace.instant(times[0]), trace.instant(times[times.length - 1]))),
                    p));
        }
        put(series, trace, Channel.GROUND_SPEED_MPS, "groundSpeedMps", from, to, 0.1);
        put(series, trace, Channel.WIND_MPS, "weather.windMps", from, to, 1);
        put(series, trace, Channel.AIR_TEMPERATURE_C, "weather.temperatureC", from, to, 1);
        put(series, trace, Channel.BATTERY_PCT, "batteryPct", from, to, 1);
        Optional<List<FlightFacts.ZoneSeries>> zones = context.zones()
                .filter(z -> lat != null && lon != null)
                .map(all -> zones(all, times, lat, lon, height, context));
        if (zones.isPresent()) {
            boolean caution = meetsCaution(context.zones().get(), zones.get());
            constant.yesNo("cautionArea", caution, "the trace against the zones on file");
        }
        return new FlightFacts(constant.build(), times, series, zones);
    }

    private static boolean meetsCaution(List<Zone> zones, List<FlightFacts.ZoneSeries> series) {
        Set<String> caution =
                zones.stream().filter(Zone::isCaution).map(Zone::id).collect(java.util.stream.Collectors.toSet());
        return series.stream().anyMatch(s -> caution.contains(s.zone().id()));
    }

    private static List<FlightFacts.ZoneSeries> zones(
            List<Zone> zones, double[] times, double[] lat, double[] lon, double[] height, Context context) {
        List<FlightFacts.ZoneSeries> met = new ArrayList<>();
        Ground ground = new Ground(context.elevationM(), context.reliefM());
        double south = Double.POSITIVE_INFINITY;
        double north = Double.NEGATIVE_INFINITY;
        double west = Double.POSITIVE_INFINITY;
        double east = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < lat.length; i++) {
            if (!Double.isNaN(lat[i]) && !Double.isNaN(lon[i])) {
                south = Math.min(south, lat[i]);
                north = Math.max(north, lat[i]);
                west = Math.min(west, lon[i]);
                east = Math.max(east, lon[i]);
            }
        }
        for (Zone zone : zones) {
            Patience.ask();
            boolean near = zone.area().minLatitudeDeg() <= north
                    && zone.area().maxLatitudeDeg() >= south
                    && zone.area().minLongitudeDeg() <= east
                    && zone.area().maxLongitudeDeg() >= west;
            if (!near || !inForce(zone, context.constant())) {
                continue;
            }
            List<Interval> inside = ZonePassage.of(zone, ground, times, lat, lon, height);
            if (!inside.isEmpty()) {
                met.add(new FlightFacts.ZoneSeries(
                        new ZoneMet(
                                zone.id(),
                                zone.name(),
                                zone.restriction(),
                                false,
                                zone.message(),
                                Optional.ofNullable(context.approvalOfZone().get(zone.id())),
                                Optional.empty(),
                                !zone.times().equals(Timetable.ALWAYS)),
                        inside));
            }
        }
        return met;
    }

    private static boolean inForce(Zone zone, Facts flight) {
        return zone.kind().isLaw()
                && (flight.windows().isEmpty()
                        || flight.windows().stream().anyMatch(w -> zone.times().meets(w, flight.zone())));
    }

    private static void put(
            Map<String, FlightFacts.Series> series,
            Trace trace,
            Channel channel,
            String fact,
            int from,
            int to,
            double uncertainty) {
        double[] column = part(trace.column(channel), from, to);
        if (column != null) {
            series.put(fact, new FlightFacts.Series(column, uncertainty, "the log"));
        }
    }

    private static double[] part(double[] column, int from, int to) {
        if (column == null) {
            return null;
        }
        double[] cut = Arrays.copyOfRange(column, from, to);
        return Arrays.stream(cut).allMatch(Double::isNaN) ? null : cut;
    }

    private static Optional<Position> firstPosition(double[] lat, double[] lon) {
        for (int i = 0; i < lat.length; i++) {
            if (!Double.isNaN(lat[i]) && !Double.isNaN(lon[i])) {
                return Optional.of(new Position(lat[i], lon[i]));
            }
        }
        return Optional.empty();
    }

    /** Metres beyond the area exceeded most at each moment; below zero inside all of them, by the distance to the edge. */
    private static double[] outside(double[] lat, double[] lon, List<Area> areas) {
        double[] d = new double[lat.length];
        for (int i = 0; i < d.length; i++) {
            if (Double.isNaN(lat[i]) || Double.isNaN(lon[i])) {
                d[i] = Double.NaN;
                continue;
            }
            Position at = new Position(lat[i], lon[i]);
            d[i] = Double.NEGATIVE_INFINITY;
            for (Area a : areas) {
                boolean in = a.locate(lat[i], lon[i]) != Area.Side.OUTSIDE;
                d[i] = Math.max(d[i], in ? -a.edgeM(at) : a.edgeM(at));
            }
        }
        return d;
    }

    private static double[] distances(double[] lat, double[] lon, Position from) {
        double[] d = new double[lat.length];
        for (int i = 0; i < d.length; i++) {
            d[i] = Double.isNaN(lat[i]) || Double.isNaN(lon[i])
                    ? Double.NaN
                    : Geodesy.distanceM(from.latitudeDeg(), from.longitudeDeg(), lat[i], lon[i]);
        }
        return d;
    }
}
