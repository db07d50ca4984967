package yarrek.core.judging;

import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yarrek.core.airspace.AirspaceFacts;
import yarrek.core.airspace.Freshness;
import yarrek.core.airspace.SiteLook;
import yarrek.core.airspace.ZonesOnFile;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.StateFacts;
import yarrek.core.rulebook.SunFacts;
import yarrek.core.time.Days;
import yarrek.core.time.TimeWindow;
import yarrek.core.weather.Report;
import yarrek.core.weather.WeatherFacts;

/**
 * Turns a plan, its place, build, crew and papers into facts. What nobody has said stays out, and so is not known.
 */
public final class PlanFacts {
    private final PlanInput in;
    private final Facts.Builder b;
    private final Place place;
    private final List<TimeWindow> windows;

    private PlanFacts(PlanInput in, Facts.Builder b) {
        this.in = in;
        this.b = b;
        this.place = in.place();
        this.windows = in.plan().windows();
    }

    /** The facts of a plan. */
    public static Facts of(PlanInput in) {
        PlanFacts f = new PlanFacts(in, Facts.builder(in.place().zone()));
        f.heights();
        f.put(in.plan().greatestHeight(in.place()));
        return f.b.build();
    }

    /**
     * What a flight takes over from its plan; its windows are the hours flown, its aircraft and pilot those that flew.
     *
     * @param greatestHeightM above ground, as flown; empty when not known
     */
    static Facts.Builder ofFlight(PlanInput in, OptionalDouble greatestHeightM) {
        PlanFacts f = new PlanFacts(in, Facts.ofFlight(in.place().zone()));
        f.put(greatestHeightM);
        return f.b;
    }

    private void put(OptionalDouble greatestHeightM) {
        windows.forEach(b::window);
        in.answers().stream().filter(a -> a.holdsFor(windows)).forEach(a -> b.with(a.fact(), a.value(), a.source()));
        b.word("jurisdiction", place.jurisdiction(), "site " + place.name());
        in.rulesRead().ifPresent(r -> b.date("nationalRulesReadOn", r.on(), r.source()));
        in.plan().said().forEach((fact, value) -> {
            if (!fact.startsWith(Plan.PILOTS)) {
                b.with(fact, value, fact.startsWith("weather.") ? "job: forecast as entered" : "job");
            }
        });
        in.elsewhere()
                .emergency()
                .ifPresent(name -> b.yesNo("emergency.ongoing", true, "said of the job " + name + " at this site"));
        Put.quantity(b, "builtUpDistanceM", place.builtUpDistanceM(), "site " + place.name());
        Put.yesNo(b, "overWater", place.overWater(), "site " + place.name());
        SunFacts.put(b, windows, place.launch());
        StateFacts.hours(b, windows);
        crewAndCraft();
        if (in.plan().observer()) {
            b.word("observer", "besidePilot", "job: crew"); // nobody named yet is not the same as nobody
        }
        List<PaperHeld> held = in.kinds().counted(in.papers());
        b.papers(held);
        StateFacts.put(b, in.operatorJurisdiction(), place.jurisdiction(), held, in.kinds());
        in.kinds().settle(b, held, windows, place.jurisdiction(), holders());
        recency(held);
        in.waivers().forEach(b::waiver);
        b.granted(TermRules.of(in.requests()));
        in.liabilitySdr().ifPresent(a -> b.quantity("insurance.amountSdr", a, 0, "liability insurance on file"));
        zones(new Granted(in, b).put(), greatestHeightM);
        schedule();
        weather(greatestHeightM);
        pack();
    }

    private void heights() {
        if (in.plan().heightM().isEmpty()) {
            return;
        }
        double height = in.plan().heightM().getAsDouble();
        if (!in.plan().aboveTakeoff()) {
            b.quantity("heightAboveGroundM", height, 0, "job: above ground");
            b.quantity(
                    "heightAboveSurfaceM",
                    height,
                    0,
                    "job: above ground, taken as the distance to the closest surface");
            return;
        }
        b.quantity("heightAboveTakeoffM", height, 0, "job: above take-off");
        // the ground may lie lower than the launch point by as much as the relief
        in.plan().greatestHeight(place).ifPresent(most -> {
            String source = "job: " + height + " m above take-off + relief " + place.reliefM() + " m of the site";
            b.quantity("heightAboveGroundM", most, 0, source);
            b.quantity("heightAboveSurfaceM", most, 0, source);
        });
    }

    private void crewAndCraft() {
        if (in.pilot().isPresent()) {
            Person p = in.pilot().get();
            free("pilot.bookedElsewhere", in.elsewhere().ofPilot());
            person(b, p, windows.get(0), place.zone());
            in.plan().said().forEach((fact, value) -> {
                if (fact.startsWith(Plan.PILOTS)) {
                    b.with(fact, value, p.name() + " says so");
                }
            });
            // what was said of the job on the day stands before what the plan took for granted
            in.answers().stream()
                    .filter(a -> a.ofJob() && a.holdsFor(windows))
                    .forEach(a -> b.with(a.fact(), a.value(), a.source()));
        } else {
            b.unnamed("pilot");
        }
        boolean others = in.plan().observer()
                || in.plan().flights().map(f -> f.people().size() > 1).orElse(false);
        if (others) {
            free("crew.bookedElsewhere", in.elsewhere().ofCrew());
        }
        if (others || in.pilot().isPresent()) {
            b.quantity(
                    "crew.travelShortMin",
                    in.elsewhere()
                            .late()
                            .map(l -> (double) Math.round(l.shortMin()))
                            .orElse(0.0),
                    0,
                    in.elsewhere()
                            .late()
                            .map(l -> "job " + l.job() + ": " + Math.round(l.gapMin()) + " min between, "
                                    + Math.round(l.needsMin()) + " needed")
                            .orElse("no other job of theirs too near in time"));
        }
        if (in.craft().isPresent()) {
            free("aircraft.bookedElsewhere", in.elsewhere().ofCraft());
            craft(in.craft().get());
        } else {
            b.unnamed("aircraft");
        }
    }

    /** Puts what the crew list says of somebody who flies in these hours. */
    static void person(Facts.Builder b, Person p, TimeWindow first, ZoneId zone) {
        if (p.bornOn() != null) {
            LocalDate day = first.start().atZone(zone).toLocalDate();
            b.quantity(
                    "pilot.ageYears", Period.between(p.bornOn(), day).getYears(), 0, p.name() + ", on the first day");
        }
        if (p.lastFlightOn() != null) {
            b.date("pilot.lastFlightOn", p.lastFlightOn(), "logbook of " + p.name());
        }
    }

    /** Whether the flights planned fit the hours of their days, the worst of them. */
    private void schedule() {
        List<PlannedFlight> planned =
                in.plan().flights().map(FlightsPlanned::all).orElse(List.of());
        b.quantity("plan.flights", planned.size(), 0, "job");
        if (planned.isEmpty()) {
            return;
        }
        boolean unlock = b.build()
                .get("unlock.needed")
                .map(k -> ((FactValue.YesNo) k.value()).value())
                .orElse(false);
        DayClock.of(in.plan().flights().orElseThrow(), in.house().clock(), unlock).stream()
                .flatMap(List::stream)
                .max(Comparator.comparingDouble(d -> d.needed() - d.hours()))
                .ifPresent(d -> b.quantity(
                        "schedule.shortMin",
                        (double) Math.round(d.shortBy()),
                        0,
                        Days.show(d.day()) + ": " + Math.round(d.needed()) + " min of " + Math.round(d.hours()) + ": "
                                + String.join(", ", d.steps())));
    }

    /** Whether a flight lasts longer than its pack. */
    private void pack() {
        Optional<Double> minutes = quantity("flight.minutes").map(FactValue.Quantity::value);
        if (minutes.isEmpty() || in.build().isEmpty()) {
            return;
        }
        Built build = in.build().get();
        PackLasts.of(
                        build,
                        new PackLasts.Conditions(
                                place.elevationM(),
                                quantity("weather.temperatureC")
                                        .map(q -> OptionalDouble.of(q.low()))
                                        .orElse(OptionalDouble.empty()),
                                build.craft().model().temperatureMinC(),
                                in.house().share(HouseFigure.PACK_RESERVE)))
                .ifPresent(l -> b.with(
                        "pack.shortMin",
                        new FactValue.Quantity(
                                tenths(minutes.get() - l.minutes()),
                                tenths(l.most() - l.minutes()),
                                tenths(l.minutes() - l.least())),
                        l.words()));
    }

    private static double tenths(double d) {
        return Math.round(d * 10) / 10.0;
    }

    private Optional<FactValue.Quantity> quantity(String fact) {
        return b.build().get(fact).map(k -> (FactValue.Quantity) k.value());
    }

    /** Whether somebody or something is free: known as soon as they are named. */
    private void free(String fact, Optional<String> other) {
        b.yesNo(fact, other.isPresent(), other.map(n -> "job " + n).orElse("no other job in these hours"));
    }

    private void craft(Craft craft) {
        if (in.build().isPresent()) {
            Built build = in.build().get();
            build.describe(b, "build " + build.name() + " of " + craft.name());
        } else {
            craft.describe(b);
            craft.lightsOfAny(b);
        }
    }

    /** Of whom papers settle facts: the operator always, the others as soon as it is said who they are. */
    private Map<String, String> holders() {
        Map<String, String> holders = new HashMap<>(Map.of("operator", "the operator", "job", "the job"));
        in.craft().ifPresent(c -> holders.put("aircraft", c.name()));
        in.pilot().ifPresent(p -> holders.put("pilot", p.name()));
        return holders;
    }

    /** The last activity that counts for recency under the law of the place. */
    private void recency(List<PaperHeld> held) {
        in.recency()
                .flatMap(r -> r.last(held, Optional.of(place.jurisdiction())))
                .ifPresent(day -> {
                    b.date("pilot.recencyOn", day, "newest qualifying activity on file");
                    if (b.build().get("pilot.nightTrainingOn").isEmpty()) {
                        b.date("pilot.nightTrainingOn", day, "newest qualifying activity on file");
                    }
                });
    }

    private void zones(Map<String, String> approvals, OptionalDouble greatestHeightM) {
        ZonesOnFile zones = in.zones();
        Instant flown = windows.isEmpty() ? zones.now() : windows.get(0).start();
        Freshness freshness = zones.freshness(flown);
        if (freshness == Freshness.NONE) {
            return; // nobody has brought zones in: not known, never "none"
        }
        Facts known = b.build();
        // a zone that binds from a mass binds as soon as the build may reach it
        OptionalDouble mass = known.get("takeoffMassG")
                .map(k -> OptionalDouble.of(((FactValue.Quantity) k.value()).high()))
                .orElse(OptionalDouble.empty());
        SiteLook look = zones.look(place.look(greatestHeightM, windows));
        b.zones(zones.met(look, mass, approvals, place.zone()));
        // a plan looks at the zones as they are known now; a flight at those of its day
        Freshness looked = flown.isAfter(zones.now()) ? zones.freshness() : freshness;
        AirspaceFacts.put(b, look, known, looked == Freshness.CURRENT && zones.isWhole());
        if (freshness == Freshness.CURRENT) {
            b.yesNo("zoneDataCurrent", true, "every source of zones is within its age limit on the day of the flight");
        }
        // out of date on that day: whether the zones still hold is not known
    }

    /** The worst weather on file over the hours; what the plan says itself stands only where none covers them. */
    private void weather(OptionalDouble greatestHeightM) {
        if (windows.isEmpty() || place.terrain() == null) {
            return;
        }
        Report.covering(in.weather(), windows)
                .ifPresent(reports -> WeatherFacts.put(
                        b,
                        reports.stream().map(Report::observation).toList(),
                        greatestHeightM,
                        place.terrain(),
                        reports.size() + " weather reports on file for the hours"));
    }
}
