package yarrek.core.judging;

import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yarrek.core.airspace.Freshness;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZonesOnFile;
import yarrek.core.approval.Cover;
import yarrek.core.flight.FlightJudge;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.PaperKind;
import yarrek.core.rulebook.PaperKinds;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.TimeWindow;

/**
 * All that judging a flown flight needs besides its trace.
 *
 * @param flown from take-off to landing
 * @param greatestHeightM above take-off, as measured; empty when the log does not tell
 * @param pilotPosition where the pilot stood; empty takes the take-off point and says so
 * @param job the plan of its job, in the hours flown and with the aircraft and the pilot that flew; empty when it belongs to
 *     none
 * @param home what stands in for a plan when it belongs to no job
 */
public record FlightInput(
        TimeWindow flown,
        OptionalDouble greatestHeightM,
        Optional<Position> pilotPosition,
        Optional<PlanInput> job,
        Home home) {
    /**
     * The operator's home, whose law judges a flight of no job.
     *
     * @param category in which it is flown as a matter of course while no authorisation is on file; empty where the law
     *     knows none
     */
    public record Home(
            ZoneId zone,
            String jurisdiction,
            Optional<String> category,
            Optional<Craft> craft,
            Optional<Person> pilot,
            List<Said> answers,
            PaperKinds kinds,
            List<PaperHeld> papers,
            OptionalDouble liabilitySdr,
            ZonesOnFile zones) {}

    /** What the flight is judged with. */
    public FlightJudge.Context context() {
        return job.map(this::ofJob).orElseGet(this::ofNoJob);
    }

    private FlightJudge.Context ofJob(PlanInput in) {
        List<TimeWindow> hours = List.of(flown);
        Place place = in.place();
        OptionalDouble above =
                greatestHeightM.isPresent() ? place.aboveGround(greatestHeightM.getAsDouble()) : greatestHeightM;
        Facts.Builder b = PlanFacts.ofFlight(in, above).measured();
        var day = flown.start().atZone(place.zone()).toLocalDate();
        var first = in.plan()
                .flights()
                .map(f -> f.job().firstDay())
                .orElse(in.plan().firstDay());
        var last =
                in.plan().flights().map(f -> f.job().lastDay()).orElse(in.plan().lastDay());
        b.yesNo("flight.onJobDay", !day.isBefore(first) && !day.isAfter(last), "take-off against the days of the job");
        List<ApprovalOnFile> held = Granted.heldFor(in.requests(), hours, place.zone());
        Granted.hoursAndNames(
                b,
                held,
                hours,
                place.zone(),
                in.craft().map(Craft::serial),
                in.pilot().map(Person::name));
        Facts facts = b.build();
        return new FlightJudge.Context(
                facts,
                place.relief(),
                place.ground().elevationM(),
                pilotPosition,
                zones(in.zones()),
                facts.lifted(),
                Optional.of(place.widened()),
                areas(held));
    }

    /** The areas that it had to stay in. */
    private static List<Area> areas(List<ApprovalOnFile> held) {
        List<Optional<Area>> areas = held.stream()
                .filter(a -> !a.terms().leavesOpen(Cover.Dimension.AREA))
                .map(a -> a.terms().drawnArea())
                .toList();
        // an area that a paper does not say keeps it not known
        return areas.stream().anyMatch(Optional::isEmpty)
                ? List.of()
                : areas.stream().map(Optional::orElseThrow).toList();
    }

    private static Optional<List<Zone>> zones(ZonesOnFile zones) {
        return zones.isAny() ? Optional.of(zones.index().all()) : Optional.empty();
    }

    private FlightJudge.Context ofNoJob() {
        Facts.Builder b = Facts.builder(home.zone()).window(flown);
        // there is no plan: what is generally said of crew and craft stands, figures of a flight's own do not
        home.answers().stream()
                .filter(a ->
                        Vocabulary.define(a.fact()).saidOf() != FactDefinition.SaidOf.OWN && a.holdsFor(List.of(flown)))
                .forEach(a -> b.with(a.fact(), a.value(), a.source()));
        b.word("jurisdiction", home.jurisdiction(), "home of the operator; the flight belongs to no job");
        boolean authorised = home.papers().stream().anyMatch(p -> home.kinds().is(p.kind(), PaperKind::opensCategory));
        if (!authorised) {
            home.category()
                    .ifPresent(c -> b.word(
                            "category", c, "no operational authorisation is on file, so no other category is left"));
        }
        home.craft().ifPresent(c -> {
            c.describe(b);
            c.lightsOfAny(b);
        });
        home.pilot().ifPresent(p -> PlanFacts.person(b, p, flown, home.zone()));
        if (home.pilot().isPresent()) {
            b.papers(home.papers());
        }
        Map<String, String> holders = new HashMap<>(Map.of("operator", "the operator"));
        home.craft().ifPresent(c -> holders.put("aircraft", c.name()));
        home.pilot().ifPresent(p -> holders.put("pilot", p.name()));
        home.kinds().settle(b, home.papers(), List.of(flown), home.jurisdiction(), holders);
        home.liabilitySdr().ifPresent(a -> b.quantity("insurance.amountSdr", a, 0, "liability insurance on file"));
        if (home.zones().freshness(flown.start()) == Freshness.CURRENT) {
            b.yesNo("zoneDataCurrent", true, "every source of zones is within its age limit on the day of the flight");
        }
        return new FlightJudge.Context(
                b.build(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                pilotPosition,
                zones(home.zones()),
                Map.of(),
                Optional.empty(),
                List.of());
    }
}
