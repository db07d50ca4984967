package yarrek.core.flight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Bound;
import yarrek.core.rulebook.Closeness;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.Interval;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Limit;
import yarrek.core.rulebook.QuantityWithin;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Source;
import yarrek.core.rulebook.Verdict;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/** A flown trace against the area of an approval. */
class FlightJudgeTest {
    private static final Position LAUNCH = new Position(46.6, -17.9);

    /** Metres in a degree of latitude there, WGS-84: 111,132.95 - 559.85 cos 2φ + 1.18 cos 4φ. */
    private static final double METRES_PER_DEGREE =
            111_132.954 - 559.822 * Math.cos(2 * Math.toRadians(46.6)) + 1.175 * Math.cos(4 * Math.toRadians(46.6));

    private static final Rule INSIDE = new Rule(
            "APP-AREA",
            "Inside the area approved",
            Layer.APPROVAL,
            Optional.empty(),
            LocalDate.EPOCH,
            Optional.empty(),
            Condition.always(),
            Condition.never(),
            new QuantityWithin("approval.outsideM", Bound.AT_MOST, new Limit.Constant(0.5), Closeness.USUAL),
            Severity.STOP,
            "fly inside it",
            new Source("approval A-1", LocalDate.EPOCH, "high", "", ""),
            Rule.Scope.BOTH,
            false,
            "place",
            "",
            "");

    private static final RulePack PACK = new RulePack(
            "OWN",
            "t",
            Optional.empty(),
            Optional.empty(),
            false,
            "1",
            LocalDate.EPOCH,
            "h",
            List.of(),
            Optional.empty(),
            Optional.empty(),
            List.of(),
            List.of(INSIDE));

    /** Straight north from the launch point, one position a second at these metres; NaN where there is no fix. */
    private static Finding flown(List<Area> approved, double... metresNorth) {
        double[] t = new double[metresNorth.length];
        double[] lat = new double[t.length];
        double[] lon = new double[t.length];
        double[] height = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = i;
            lat[i] = LAUNCH.latitudeDeg() + metresNorth[i] / METRES_PER_DEGREE;
            lon[i] = Double.isNaN(metresNorth[i]) ? Double.NaN : LAUNCH.longitudeDeg();
            height[i] = 50;
        }
        Trace trace = new Trace(
                Instant.parse("2026-05-10T10:00:00Z"),
                t,
                Map.of(Channel.LATITUDE_DEG, lat, Channel.LONGITUDE_DEG, lon, Channel.HEIGHT_ABOVE_TAKEOFF_M, height),
                List.of(),
                List.of());
        FlightJudge.Context c = new FlightJudge.Context(
                Facts.builder(ZoneOffset.UTC).build(),
                OptionalDouble.of(0),
                OptionalDouble.empty(),
                Optional.of(LAUNCH),
                Optional.empty(),
                Map.of(),
                Optional.empty(),
                approved);
        FlightFinder.Span span = new FlightFinder.Span(0, t.length - 1, false, false, 0, t.length - 1);
        return Assessment.of(FlightJudge.facts(trace, span, c), List.of(PACK)).findings().stream()
                .filter(f -> f.rule().equals(INSIDE))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aFlightThatStaysWellInsideIsMet() {
        assertThat(flown(List.of(Area.circle(LAUNCH, 100)), 0, 20, 40, 60).verdict())
                .isEqualTo(Verdict.MET);
    }

    /** The fix holds to 3 m: two metres inside the edge is close. */
    @Test
    void nearTheEdgeIsClose() {
        assertThat(flown(List.of(Area.circle(LAUNCH, 100)), 0, 50, 98).verdict())
                .isEqualTo(Verdict.CLOSE);
    }

    @Test
    void aBreachLastsFromTheEdgeOutAndBackAndSaysHowFar() {
        Finding f = flown(List.of(Area.circle(LAUNCH, 100)), 0, 60, 90, 110, 130, 110, 90, 60);
        assertThat(f.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(f.intervals()).hasSize(1);
        Interval i = f.intervals().get(0);
        // 90 m at 2 s, 110 m at 3 s: the limit of half a metre beyond 100 m is passed at 2.525 s; the circle has
        // corners
        assertThat(i.fromS()).isCloseTo(2.525, within(0.03));
        assertThat(i.toS()).isCloseTo(5.475, within(0.03));
        assertThat(i.worst()).isCloseTo(30, within(0.5));
    }

    /** Two approvals for one flight: it has to stay inside both. */
    @Test
    void theNarrowerOfTwoAreasDecides() {
        assertThat(flown(List.of(Area.circle(LAUNCH, 400), Area.circle(LAUNCH, 80)), 0, 50, 90)
                        .verdict())
                .isEqualTo(Verdict.BREACHED);
    }

    @Test
    void withoutPositionsOrWithoutAnAreaItIsNotKnown() {
        double no = Double.NaN;
        assertThat(flown(List.of(Area.circle(LAUNCH, 100)), 0, no, no, no, no, no, no, no, 10)
                        .verdict())
                .isEqualTo(Verdict.NOT_KNOWN);
        assertThat(flown(List.of(), 0, 20, 40).verdict()).isEqualTo(Verdict.NOT_KNOWN);
    }
}
