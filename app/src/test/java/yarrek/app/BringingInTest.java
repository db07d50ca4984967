package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import yarrek.app.fleet.Fleet;
import yarrek.app.flights.Flights;
import yarrek.app.flights.Logs;
import yarrek.app.incidents.Incidents;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.FindingRow;
import yarrek.core.rulebook.Tally;
import yarrek.core.rulebook.Verdict;
import yarrek.core.trace.Trace;
import yarrek.formats.log.BrokenFileException;

/** Logs through the real service and database: stored whole or not at all, judged, found again. */
class BringingInTest extends RunningApp {
    @Autowired
    Flights flights;

    @Autowired
    Logs logs;

    @Autowired
    Jobs jobs;

    @Autowired
    JobLists jobLists;

    @Autowired
    Fleet fleet;

    @Autowired
    Incidents incidents;

    @Autowired
    Office office;

    @Autowired
    JdbcClient jdbc;

    private Viewer manager() {
        return (Viewer) office.loadUserByUsername("manager");
    }

    private static byte[] sample(String name) throws IOException {
        try (InputStream in = BringingInTest.class.getResourceAsStream("/logs/" + name)) {
            return in.readAllBytes();
        }
    }

    private long stored() {
        return jdbc.sql(
                        "select (select count(*) from flight_log) + (select count(*) from flight_log_content) + (select count(*) from flight) + (select count(*) from flight_trace) + (select count(*) from upload)")
                .query(Long.class)
                .single();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "nothing here",
                "a,b,c\n1,2,3\n",
                "<html></html>",
                "<gpx/>",
                "time_ms,lat,lon\n1789554000000,46.6,-17.9\n1789554000100,46.6,-17.9\n",
                "PK\u0003\u0004\0\0\0\0"
            })
    void whatHoldsNoFlightLeavesNothingBehind(String content) {
        long before = stored();
        assertThatThrownBy(() -> logs.bringInDirectly(
                        "x",
                        content.getBytes(StandardCharsets.ISO_8859_1),
                        Optional.empty(),
                        Flights.Attribution.NONE,
                        "test"))
                .isInstanceOf(BrokenFileException.class);
        assertThat(stored()).isEqualTo(before);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "truncated.csv",
                "truncated.gpx",
                "nan-position.csv",
                "time-backwards.csv",
                "zero-before-fix.gpx",
                "latin1.csv",
                "formula-cells.csv"
            })
    void damagedLogsAreStoredWithWhatWasMended(String name) throws Exception {
        Logs.Outcome o = logs.bringInDirectly(
                name, sample("malformed/" + name), Optional.empty(), Flights.Attribution.NONE, "test");
        assertThat(o.flights()).hasSize(1);
        Flights.FlightView f = flights.flight(o.flights().get(0), manager());
        assertThat(f.log().truncated()).isEqualTo(name.startsWith("truncated"));
        assertThat(f.figures().endsInTheAir()).isEqualTo(name.startsWith("truncated"));
        if (!name.equals("formula-cells.csv")) {
            assertThat(f.log().notes()).isNotEmpty();
        }
        Trace trace = flights.trace(f.id(), manager());
        assertThat(trace.size()).isEqualTo(f.figures().samples() + standing(trace, f));
        assertThat(flights.original(f.id(), manager()).getValue()).isEqualTo(sample("malformed/" + name));
    }

    /** Samples of the stored share that lie before take-off or after landing. */
    private static int standing(Trace trace, Flights.FlightView f) {
        double from = java.time.Duration.between(trace.start(), f.figures().takeoffUtc())
                        .toNanos()
                / 1e9;
        double to = java.time.Duration.between(trace.start(), f.figures().landingUtc())
                        .toNanos()
                / 1e9;
        int n = 0;
        for (double t : trace.seconds()) {
            n += t < from - 1e-3 || t > to + 1e-3 ? 1 : 0;
        }
        return n;
    }

    @Test
    void twoFlightsInOneFileAreTwoFlightsOfOneLog() throws Exception {
        Logs.Outcome o = logs.bringInDirectly(
                "two.csv", sample("two-flights.csv"), Optional.empty(), Flights.Attribution.NONE, "test");
        assertThat(o.flights()).hasSize(2);
        assertThat(o.flights())
                .extracting(id -> flights.flight(id, manager()).log().id())
                .containsOnly(o.logId());
    }

    @Test
    void aFlightWithoutAJobIsStillJudgedByTheLawOfTheHomeAndWhatIsNotKnownIsSaid() throws Exception {
        Logs.Outcome o = logs.bringInDirectly(
                "h.gpx", sample("height-breach.gpx"), Optional.empty(), Flights.Attribution.NONE, "test");
        AssessmentRow a = flights.flight(o.flights().get(0), manager()).assessment();
        FindingRow height = a.findings().stream()
                .filter(f -> f.ruleId().equals("EU-HEIGHT-120"))
                .findFirst()
                .orElseThrow();
        assertThat(height.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(height.intervals()).hasSize(1);
        assertThat(height.intervals().get(0).worst()).isBetween(136.0, 138.0);
        assertThat(a.with("NOT_KNOWN")).isNotEmpty();
        assertThat(a.packs()).anySatisfy(p -> assertThat(p).startsWith("EU 2026-"));
    }

    /** Up for a minute over a place of its own, at a time and with rows of one's own. */
    private static byte[] log(String start, String more, double latitude, int stepS) {
        StringBuilder s = new StringBuilder("utc,lat,lon,height_m\n");
        java.time.Instant at = java.time.Instant.parse(start);
        for (int i = 0; i <= 100; i++) {
            int height = Math.max(0, Math.min(30, Math.min(2 * (i - 10), 2 * (90 - i))));
            s.append(String.format(
                    java.util.Locale.ROOT,
                    "%s,%.6f,-17.95,%d%n",
                    at.plusSeconds((long) i * stepS),
                    latitude + 1e-6 * height,
                    height));
        }
        return (s + more).getBytes(StandardCharsets.UTF_8);
    }

    private double hours(UUID aircraft) {
        return jdbc.sql("select flown_s from aircraft where id = ?")
                .param(aircraft)
                .query(Double.class)
                .single();
    }

    @Test
    void theSameFlightFromTwoFilesIsToldAndCountedOnce() throws Exception {
        UUID aircraft = fleet.aircraft().get(0).id();
        var mine = new Flights.Attribution(aircraft, null, null, null);
        double before = hours(aircraft);
        logs.bringInDirectly("one.csv", log("2026-03-01T10:00:00Z", "", 46.9, 1), Optional.empty(), mine, "test");
        double once = hours(aircraft);
        assertThat(once).isGreaterThan(before + 60);
        Logs.Outcome again = logs.bringInDirectly(
                "two.csv",
                log("2026-03-01T10:00:00Z", "2026-03-01T10:02:00Z,46.9,-17.95,0\n", 46.9, 1),
                Optional.empty(),
                mine,
                "test");
        assertThat(again.notes()).anyMatch(n -> n.contains("overlaps one on file from one.csv"));
        assertThat(hours(aircraft)).isEqualTo(once);
        Flights.FlightView f = flights.flight(again.flights().get(0), manager());
        assertThat(f.counted()).isFalse();
        // somebody says that it is another flight
        flights.change(f.id(), f.version(), mine);
        assertThat(hours(aircraft)).isGreaterThan(once + 60);
        Logs.Outcome later = logs.bringInDirectly(
                "three.csv", log("2026-03-01T10:05:00Z", "", 46.9, 1), Optional.empty(), mine, "test");
        assertThat(later.notes()).noneMatch(n -> n.contains("overlaps"));
    }

    @Test
    void aFlightOfMoreThanADayIsRefusedAndNothingIsStored() {
        StringBuilder rows = new StringBuilder("utc,lat,lon,height_m\n");
        java.time.Instant at = java.time.Instant.parse("2024-01-01T00:00:00Z");
        for (int i = 0; i <= 400; i++) {
            rows.append(at.plusSeconds(300L * i))
                    .append(",46.9,-17.95,")
                    .append(i % 7)
                    .append('\n');
        }
        long before = stored();
        assertThatThrownBy(() -> logs.bringInDirectly(
                        "long.csv",
                        rows.toString().getBytes(StandardCharsets.UTF_8),
                        Optional.empty(),
                        Flights.Attribution.NONE,
                        "test"))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("would last 33 h");
        assertThat(stored()).isEqualTo(before);
    }

    @Test
    void aFlightOffItsJobIsAFinding() throws Exception {
        Jobs.Row job = jobLists.all(manager()).get(0);
        Logs.Outcome o = logs.bringInDirectly(
                "off.csv",
                log("2026-03-02T10:00:00Z", "", 46.95, 1),
                Optional.empty(),
                new Flights.Attribution(null, null, null, job.id()),
                "test");
        AssessmentRow a = flights.flight(o.flights().get(0), manager()).assessment();
        assertThat(a.findings().stream().filter(f -> f.ruleId().startsWith("HOUSE-FLOWN-")))
                .hasSize(2)
                .allMatch(f -> f.verdict() == Verdict.BREACHED);
        // figures of the plan are none of the flight
        assertThat(a.facts()).extracting(AssessmentRow.FactRow::name).doesNotContain("peopleDistanceM");
    }

    @Test
    void figuresFindingsAndTraceOfALaterFlightHaveOneClock() throws Exception {
        Logs.Outcome o = logs.bringInDirectly(
                "two.csv", sample("two-flights.csv"), Optional.empty(), Flights.Attribution.NONE, "test");
        Flights.FlightView second = flights.flight(o.flights().get(1), manager());
        Trace trace = flights.trace(second.id(), manager());
        assertThat(trace.instant(second.figures().takeoffS()))
                .isCloseTo(
                        second.figures().takeoffUtc(),
                        org.assertj.core.api.Assertions.within(1, java.time.temporal.ChronoUnit.MILLIS));
    }

    @Test
    void aChangedModelJudgesTheOpenJobsThatUseItAndSaysWhatChanged() {
        UUID job = UUID.fromString(jdbc.sql("select id from job where name = 'Cliff faces, autumn count'")
                .query(String.class)
                .single());
        UUID build = jobs.job(job, manager()).build().id();
        Fleet.BuildView b = fleet.build(build);
        UUID filter = fleet.accessories().stream()
                .filter(x -> x.name().equals("propeller guards"))
                .findFirst()
                .orElseThrow()
                .id();
        fleet.changeBuild(
                build,
                b.version(),
                b.pack().id(),
                java.util.stream.Stream.concat(b.accessoryIds().stream(), java.util.stream.Stream.of(filter))
                        .toList());
        Jobs.JobView heavier = jobs.job(job, manager());
        assertThat(heavier.build().mass().mass().toGrams()).isEqualTo(271.9);
        assertThat(heavier.assessment().with("BREACHED"))
                .extracting(FindingRow::ruleId)
                .contains("EU-CLASS-MASS", "EU-PAYLOAD");
        assertThat(heavier.row().go()).isEqualTo(Tally.Go.NO_GO);
        assertThat(heavier.row().changedNote()).contains("Mass limit of the class mark (breached)");
        fleet.changeBuild(build, fleet.build(build).version(), b.pack().id(), b.accessoryIds());
        assertThat(jobs.job(job, manager()).assessment().with("BREACHED"))
                .extracting(FindingRow::ruleId)
                .doesNotContain("EU-CLASS-MASS", "EU-PAYLOAD");
    }

    @Test
    void anAssessmentStaysAsItWasStored() {
        UUID flight = UUID.fromString(jdbc.sql("select id from flight where breached > 0 limit 1")
                .query(String.class)
                .single());
        AssessmentRow first = flights.flight(flight, manager()).assessment();
        assertThat(flights.flight(flight, manager()).assessment()).isEqualTo(first);
        assertThat(first.facts())
                .isNotEmpty()
                .allSatisfy(f -> assertThat(f.source()).isNotBlank());
    }

    @Test
    void anIncidentOpensOnlyFromABreachThatIsThere() {
        UUID flight = UUID.fromString(jdbc.sql("select id from flight where breached = 0 limit 1")
                .query(String.class)
                .single());
        assertThatThrownBy(() -> incidents.fromBreach(flight, "EU-HEIGHT-120", 0, manager()))
                .isInstanceOf(NotFoundException.class);
    }

    @Test
    void aTakenSerialNumberIsRefusedInWords() {
        Fleet.AircraftView a = fleet.aircraft().get(0);
        Fleet.AircraftView copy = new Fleet.AircraftView(
                null,
                -1,
                "Another",
                a.serial(),
                null,
                null,
                null,
                new BigDecimal("10"),
                new BigDecimal("0.1"),
                java.time.LocalDate.EPOCH,
                "s",
                null,
                null,
                0,
                0);
        assertThatThrownBy(() -> fleet.save(copy, a.model().id()))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("serial number “" + a.serial() + "” already");
    }
}
