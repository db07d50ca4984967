package yarrek.app.demo;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Weather;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.chains.Chains;
import yarrek.app.flights.Flights;
import yarrek.app.incidents.Incidents;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.FindingRow;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.approval.ApprovalState;
import yarrek.core.approval.Terms;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.geo.ShapeText;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.weather.Observation;
import yarrek.core.weather.Report;
import yarrek.formats.log.BrokenFileException;

/** What has gone on in the sample world: requests on their way, answers of granters, a breach that was written up. */
@Component
class DemoStory {
    private static final String BY = DemoWorld.BY;
    private static final ZoneId ZONE = DemoWorld.ZONE;

    private final DemoTables tables;
    private final Airspace airspace;
    private final Weather weather;
    private final Papers papers;
    private final Jobs jobs;
    private final Flights flights;
    private final Incidents incidents;
    private final Approvals approvals;
    private final Kinds kinds;
    private final Chains chains;
    private final Clock clock;
    private LocalDate today;

    DemoStory(
            DemoTables tables,
            Airspace airspace,
            Weather weather,
            Papers papers,
            Jobs jobs,
            Flights flights,
            Incidents incidents,
            Approvals approvals,
            Kinds kinds,
            Chains chains,
            Clock clock) {
        this.tables = tables;
        this.airspace = airspace;
        this.weather = weather;
        this.papers = papers;
        this.jobs = jobs;
        this.flights = flights;
        this.incidents = incidents;
        this.approvals = approvals;
        this.kinds = kinds;
        this.chains = chains;
        this.clock = clock;
    }

    /** What lies around the jobs: a zone of one's own, the weather ahead. */
    void around(LocalDate day) {
        today = day;
        ownZones();
        weatherAhead();
    }

    /** Before anything is flown. */
    void before(LocalDate day) throws IOException, BrokenFileException {
        around(day);
        jobs.setState(tables.named("JOB", "Harbour wall, monthly"), "FLOWN");
        jobs.setState(tables.named("JOB", "Field edge, spring levels"), "FLOWN");
        approval(
                "Harbour wall, monthly",
                "POR-118",
                "Port Tarrow harbour office",
                -12,
                -8,
                "Keep off berthed ships.",
                "POR-HAR");
        approval(
                "Field edge drainage",
                "TAR-2211",
                "Tarrow Field tower",
                7,
                12,
                "Call the tower before take-off and after landing.",
                "TAR-AD");
        chains();
    }

    /** Once all is flown. */
    void after(Viewer viewer) {
        Instant earlier = today.minusDays(3).atStartOfDay(ZONE).toInstant();
        for (Flights.Row f : flights.newest(viewer, 0, 100)) {
            if (f.takeoff().isBefore(earlier) && f.breached() == 0) {
                flights.lookedAt(f.id());
            }
        }
        openIncident(viewer);
    }

    /** A private pad that no published source holds. */
    private void ownZones() {
        airspace.saveOwn(
                new Zone(
                        "OWN-Brannoch farm strip",
                        "Brannoch farm strip",
                        ZoneKind.AERODROME,
                        Optional.empty(),
                        ZoneMet.Restriction.CONDITIONAL,
                        Area.circle(new Position(46.6335, -17.8895), 250),
                        HeightLimit.SURFACE,
                        HeightLimit.aboveGround(150),
                        Timetable.ALWAYS,
                        java.util.OptionalDouble.empty(),
                        "Unlisted grass strip, used by crop sprayers in spring. Ring the farm.",
                        "Brannoch farm",
                        "+351 000 000 190"),
                BY);
    }

    /** The simulated hours ahead at the site of the next job. */
    private void weatherAhead() {
        Instant hour = clock.instant().truncatedTo(java.time.temporal.ChronoUnit.HOURS);
        List<Observation> hours = new ArrayList<>();
        for (int h = -2; h <= 72; h++) {
            double wave = Math.sin(2 * Math.PI * h / 31.0);
            hours.add(new Observation(
                    hour.plusSeconds(3600L * h),
                    java.util.OptionalDouble.of(230 + ((int) (wave * 3)) * 10),
                    false,
                    java.util.OptionalDouble.empty(),
                    java.util.OptionalDouble.empty(),
                    java.util.OptionalDouble.of(Math.round((4 + wave * 1.4) * 10) / 10.0),
                    java.util.OptionalDouble.of(Math.round((6.2 + wave * 2) * 10) / 10.0),
                    10,
                    java.util.OptionalDouble.of(10_000),
                    List.of(),
                    List.of(new Observation.Layer("cloud", java.util.OptionalDouble.of(520 + ((int) (wave * 90))), "")),
                    false,
                    java.util.OptionalDouble.of(Math.round((11.5 + wave) * 10) / 10.0),
                    java.util.OptionalDouble.of(7.2),
                    java.util.OptionalDouble.empty(),
                    Optional.of(false),
                    List.of()));
        }
        weather.add(
                tables.named("SITE", "Lowmere bog"), Report.Kind.FORECAST, "", hours, "simulated weather station", BY);
    }

    /** A job of three days in the surroundings of an aerodrome, its chain half gone through, and one of last spring. */
    private void chains() throws IOException, BrokenFileException {
        Map<String, String> plans = new LinkedHashMap<>();
        DemoTables.rows("plans.csv").forEach(r -> plans.put(r.get("Plan"), r.get("Text")));
        kinds.savePlans(
                kinds.settings().version(),
                plans,
                DemoTables.rows("risks.csv").stream()
                        .map(r -> new Kinds.Risk(
                                r.get("What"), r.get("To whom"), r.get("What is done"), r.get("What is left")))
                        .toList());
        // decided requests of last spring: how long the tower takes
        Jobs.JobView spring = jobs.jobUnchecked(tables.named("JOB", "Field edge, spring levels"));
        int[] took = {4, 6, 5, 9};
        for (int i = 0; i < took.length; i++) {
            UUID a = chains.begin(spring, "zoneEU@TAR-AD#" + (i + 1), BY);
            approvals.move(a, ApprovalState.SENT, at(-180 + i), "", BY);
            approvals.grant(
                    a,
                    new Approvals.Grant(
                            "TAR-19" + (10 + i), approvals.approval(a).request(), "", ZONE),
                    at(-180 + i + took[i]),
                    BY);
        }
        Jobs.JobView levels = jobs.jobUnchecked(tables.named("JOB", "Field edge, drainage levels"));
        UUID first = chains.begin(levels, "zoneEU@TAR-AD#1", BY);
        approvals.spend(first, 1.5, BY);
        approvals.keep(
                first,
                Approvals.LetterKind.LETTER_OUT,
                at(-9),
                "To the tower of Tarrow Field: three mornings of levels along the drain east of the runway, 60 m above ground at most. Map and corners attached.",
                "",
                null,
                BY);
        approvals.move(first, ApprovalState.SENT, at(-9), "", BY);
        Area wide = levels.site().area();
        Terms asked = approvals.approval(first).request();
        Terms narrower = new Terms(
                asked.from(),
                asked.to(),
                ShapeText.write(Area.circle(wide.middle(), 0.42 * wide.figures().extentM())),
                50.0,
                "50 m above ground",
                asked.aircraft(),
                asked.pilots(),
                asked.purpose(),
                asked.quotes(),
                Set.of());
        approvals.grant(
                first,
                new Approvals.Grant(
                        "TAR-2290",
                        narrower,
                        "Call the tower 15 minutes before take-off and after landing.\nDescend at once when told.",
                        ZONE),
                at(-3),
                BY);
        UUID second = chains.begin(levels, "zoneEU@TAR-AD#2", BY);
        approvals.move(second, ApprovalState.SENT, at(-8), "", BY);
        chains.begin(levels, "zoneEU@TAR-AD#3", BY);
        chains.begin(levels, "unlock#1", BY);
    }

    private Instant at(int days) {
        return today.plusDays(days).atTime(10, 30).atZone(ZONE).toInstant();
    }

    private void approval(
            String job, String number, String issuer, int fromDays, int toDays, String conditions, String lifts) {
        papers.save(
                null,
                -1,
                new Papers.Entry(
                        "approval",
                        null,
                        number,
                        issuer,
                        "EU",
                        "job",
                        tables.named("JOB", job),
                        today.minusDays(15),
                        today.plusDays(fromDays),
                        today.plusDays(toDays),
                        true,
                        ZONE,
                        3,
                        conditions,
                        "by telephone",
                        null,
                        lifts,
                        Papers.Terms.NONE),
                BY);
    }

    private void openIncident(Viewer viewer) {
        for (Flights.Row f : flights.newest(viewer, 0, 100)) {
            Flights.FlightView view = flights.flight(f.id(), viewer);
            for (FindingRow x : view.assessment().with(Verdict.BREACHED.name())) {
                if (x.ruleId().startsWith("EU-HEIGHT") && !x.intervals().isEmpty()) {
                    Incidents.View v = incidents.fromBreach(f.id(), x.ruleId(), 0, viewer);
                    incidents.save(
                            new Incidents.View(
                                    null,
                                    -1,
                                    v.kind(),
                                    "Height set above take-off instead of above ground on the last grid; noticed when the log was brought in.",
                                    v.happenedAt(),
                                    v.lat(),
                                    v.lon(),
                                    v.flightId(),
                                    v.ruleId(),
                                    v.breach(),
                                    "none",
                                    "OPEN",
                                    null,
                                    null,
                                    v.about()),
                            viewer);
                    return;
                }
            }
        }
    }
}
