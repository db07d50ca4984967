package yarrek.core.judging;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import yarrek.core.airspace.ZoneIndex;
import yarrek.core.airspace.ZonesOnFile;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.mass.TakeoffMass;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.SomePapers;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;
import yarrek.core.units.Mass;
import yarrek.core.weather.Report;
import yarrek.core.weather.Wind;

/** A plan of which nothing is known but place and hours, and what a test adds to it. */
final class Inputs {
    static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    static final LocalDate DAY = LocalDate.of(2027, 6, 12);
    static final Position LAUNCH = new Position(46.59, -17.905);

    Double reliefM;
    Wind.Terrain terrain;
    List<TimeWindow> windows = List.of(hours(DAY));
    OptionalDouble heightM = OptionalDouble.empty();
    boolean aboveTakeoff;
    boolean observer;
    Optional<FlightsPlanned> flights = Optional.empty();
    final Map<String, FactValue> said = new HashMap<>();
    Optional<Craft> craft = Optional.empty();
    Optional<Built> build = Optional.empty();
    Optional<Person> pilot = Optional.empty();
    Elsewhere elsewhere = Elsewhere.NOTHING;
    final List<Said> answers = new ArrayList<>();
    final List<PaperHeld> papers = new ArrayList<>();
    final List<JobPaper> jobPapers = new ArrayList<>();
    final List<ApprovalOnFile> requests = new ArrayList<>();
    ZonesOnFile zones = new ZonesOnFile(
            Instant.parse("2027-06-10T00:00:00Z"), new ZoneIndex(List.of()), List.of(), Set.of(), Set.of(), Set.of());
    List<Report> weather = List.of();

    /** Ten to eleven in the morning by the clock of the place. */
    static TimeWindow hours(LocalDate day) {
        return new TimeWindow(
                day.atTime(10, 0).atZone(ZONE).toInstant(),
                day.atTime(11, 0).atZone(ZONE).toInstant());
    }

    static Craft aCraft(List<Set<String>> lights) {
        return new Craft(
                "Kite",
                "S-1",
                null,
                null,
                null,
                new Craft.Model(
                        "Maker K2",
                        null,
                        "none",
                        false,
                        true,
                        false,
                        null,
                        null,
                        10.0,
                        null,
                        null,
                        null,
                        "none",
                        Set.of("position"),
                        null),
                lights);
    }

    static Built aBuild(double grams) {
        TakeoffMass mass = new TakeoffMass(Mass.ofGrams(grams), Mass.ofGrams(2), Optional.empty(), List.of());
        return new Built("camera", aCraft(List.of(Set.of("position"))), mass, Set.of("position"), 77, 895);
    }

    static PaperHeld paper(String kind, String role, LocalDate from, LocalDate through) {
        return new PaperHeld(
                kind, Optional.empty(), role, "N-" + kind, "", Validity.between(from, through, ZONE), true);
    }

    Inputs flyingWith(Built b) {
        build = Optional.of(b);
        craft = Optional.of(b.craft());
        return this;
    }

    PlanInput input() {
        Place place = new Place(
                "Lowmere", ZONE, "EU", LAUNCH, Area.circle(LAUNCH, 100), null, 12.0, reliefM, terrain, null, null);
        LocalDate last = windows.isEmpty()
                ? DAY
                : windows.get(windows.size() - 1).start().atZone(ZONE).toLocalDate();
        return new PlanInput(
                "EU",
                place,
                new Plan(windows, DAY, last, heightM, aboveTakeoff, observer, said, flights),
                craft,
                build,
                pilot,
                elsewhere,
                answers,
                SomePapers.KINDS,
                papers,
                jobPapers,
                requests,
                List.of(),
                OptionalDouble.empty(),
                Optional.empty(),
                Optional.empty(),
                zones,
                weather,
                House.USUAL);
    }
}
