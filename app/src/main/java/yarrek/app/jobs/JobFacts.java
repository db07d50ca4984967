package yarrek.app.jobs;

import java.time.LocalDate;
import java.time.Period;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Sites;
import yarrek.app.airspace.Weather;
import yarrek.app.answers.Answers;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.airspace.AirspaceFacts;
import yarrek.core.airspace.SiteLook;
import yarrek.core.rulebook.ApprovalHeld;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.SunFacts;
import yarrek.core.time.TimeWindow;
import yarrek.core.weather.WeatherFacts;

/** Turns a job, its site, build, crew and papers into facts. What nobody has said stays out, and so is not known. */
@Component
public class JobFacts {
    private final Office office;
    private final Airspace airspace;
    private final Sites sites;
    private final Weather weather;
    private final Fleet fleet;
    private final Crew crew;
    private final Papers papers;
    private final Answers answers;
    private final Rulebook rulebook;

    JobFacts(
            Office office,
            Airspace airspace,
            Sites sites,
            Weather weather,
            Fleet fleet,
            Crew crew,
            Papers papers,
            Answers answers,
            Rulebook rulebook) {
        this.office = office;
        this.answers = answers;
        this.rulebook = rulebook;
        this.airspace = airspace;
        this.sites = sites;
        this.weather = weather;
        this.fleet = fleet;
        this.crew = crew;
        this.papers = papers;
    }

    Facts of(UUID jobId, JobDraft d) {
        Sites.SiteView site = sites.site(d.siteId());
        List<TimeWindow> windows = JobEntity.windows(d, site.zone());
        Facts.Builder b = Facts.builder(site.zone());
        windows.forEach(b::window);
        Office.OperatorView operator = office.operator();
        Fleet.BuildView build = d.buildId() == null ? null : fleet.build(d.buildId());
        answers.put(b, about(jobId, d, operator.id(), build));
        b.word("jurisdiction", site.jurisdiction(), "site " + site.name());
        word(b, "category", d.category(), "job");
        word(b, "subcategory", d.subcategory(), "job");
        word(b, "purpose", d.purpose(), "job");
        heights(b, d, site);
        quantity(b, "pilotDistanceM", d.pilotDistanceM(), 0, "job");
        quantity(b, "peopleDistanceM", d.peopleDistanceM(), 0, "job");
        word(b, "overPeople", d.overPeople(), "job");
        yesNo(b, "assembly", d.assembly(), "job");
        word(b, "sight", d.sight(), "job");
        yesNo(b, "lowSpeedMode", d.lowSpeed(), "job");
        quantity(b, "groundSpeedMps", d.speedMps(), 0, "job");
        quantity(b, "structure.heightM", d.structure().heightM(), 0, "job");
        quantity(b, "structure.distanceM", d.structure().distanceM(), 0, "job");
        yesNo(b, "structure.artificial", d.structure().artificial(), "job");
        yesNo(b, "structure.requestedByOwner", d.structure().requested(), "job");
        yesNo(b, "emergency.ongoing", d.emergency(), "job");
        yesNo(b, "dangerousGoodsOrDropping", d.dangerous(), "job");
        yesNo(b, "autoModesAmongObstacles", d.autoModes(), "job");
        quantity(b, "weather.windMps", d.windMps(), 0, "job: forecast as entered");
        quantity(b, "weather.temperatureC", d.temperatureC(), 0, "job: forecast as entered");
        quantity(b, "builtUpDistanceM", site.builtUpDistanceM(), 0, "site " + site.name());
        yesNo(b, "overWater", site.overWater(), "site " + site.name());
        SunFacts.put(b, windows, site.launch());
        Map<UUID, String> roles = new HashMap<>();
        roles.put(operator.id(), "operator");
        aircraft(b, build, windows, roles);
        pilot(b, d, windows, site, roles);
        b.word("observer", d.observerId() == null ? "none" : "besidePilot", "job: crew");
        if (jobId != null) {
            roles.put(jobId, "job");
        }
        List<PaperHeld> held = papers.held(roles);
        b.papers(held);
        declarations(b, held, windows, site.jurisdiction());
        recency(b, held, site.jurisdiction());
        if (jobId != null) {
            rulebook.waiversHeld(jobId).forEach(b::waiver);
        }
        papers.liabilityAmount(operator.id(), d.firstDay())
                .ifPresent(a -> b.quantity("insurance.amountSdr", a, 0, "liability insurance on file"));
        zones(b, jobId, site, windows);
        weather(b, site, windows);
        return b.build();
    }

    private static void heights(Facts.Builder b, JobDraft d, Sites.SiteView site) {
        if (d.heightM() == null) {
            return;
        }
        if (d.heightReference() == JobDraft.HeightReference.GROUND) {
            b.quantity("heightAboveGroundM", d.heightM(), 0, "job: above ground");
            b.quantity(
                    "heightAboveSurfaceM",
                    d.heightM(),
                    0,
                    "job: above ground, taken as the distance to the closest surface");
            return;
        }
        b.quantity("heightAboveTakeoffM", d.heightM(), 0, "job: above take-off");
        if (site.reliefM() != null) {
            // the ground may lie lower than the launch point by as much as the relief
            double most = d.heightM() + site.reliefM();
            String source = "job: " + d.heightM() + " m above take-off + relief " + site.reliefM() + " m of the site";
            b.quantity("heightAboveGroundM", most, 0, source);
            b.quantity("heightAboveSurfaceM", most, 0, source);
        }
    }

    /** What answers may be about: the job and everything it uses. */
    static Map<Answers.About, UUID> about(UUID jobId, JobDraft d, UUID operatorId, Fleet.BuildView build) {
        Map<Answers.About, UUID> about = new java.util.EnumMap<>(Answers.About.class);
        about.put(Answers.About.OPERATOR, operatorId);
        about.put(Answers.About.SITE, d.siteId());
        if (build != null) {
            about.put(Answers.About.AIRCRAFT, build.aircraft().id());
        }
        if (d.pilotId() != null) {
            about.put(Answers.About.PILOT, d.pilotId());
        }
        if (jobId != null) {
            about.put(Answers.About.JOB, jobId);
        }
        return about;
    }

    private void aircraft(Facts.Builder b, Fleet.BuildView build, List<TimeWindow> windows, Map<UUID, String> roles) {
        if (build == null) {
            return;
        }
        String source = "build " + build.name() + " of " + build.aircraft().name();
        describe(b, build, source);
        UUID aircraftId = build.aircraft().id();
        roles.put(aircraftId, "aircraft");
        List<PaperHeld> marks = papers.held(Map.of(aircraftId, "aircraft")).stream()
                .filter(p -> p.kind().equals("markOnAircraft"))
                .toList();
        boolean marked = windows.stream()
                .allMatch(w -> marks.stream().anyMatch(p -> p.validity().covers(w)));
        b.yesNo(
                "marked",
                marked,
                marks.isEmpty()
                        ? "no check of the mark on file for " + build.aircraft().name()
                        : "check of the mark on " + build.aircraft().name());
    }

    /** The facts that a build alone gives. */
    public static void describe(Facts.Builder b, Fleet.BuildView build, String source) {
        b.quantity(
                "takeoffMassG",
                build.mass().mass().toGrams(),
                build.mass().uncertainty().toGrams(),
                source);
        describeAircraft(b, build.aircraft());
        b.with("lights", new FactValue.Words(build.lights()), source);
    }

    /** The facts that an aircraft gives without its build being known. */
    public static void describeAircraft(Facts.Builder b, Fleet.AircraftView a) {
        Fleet.ModelView m = a.model();
        if (m.maxTakeoffMassG() != null) {
            b.quantity("maxTakeoffMassG", m.maxTakeoffMassG().doubleValue(), 0, "maker of " + m.fullName());
        }
        b.word("classMark", m.classMark(), "label of " + m.fullName());
        b.yesNo("privatelyBuilt", m.privatelyBuilt(), "model " + m.fullName());
        b.yesNo("hasCamera", m.hasCamera(), "model " + m.fullName());
        b.yesNo("isToy", m.isToy(), "model " + m.fullName());
        if (a.marketDate() != null) {
            b.date("marketDate", a.marketDate(), "aircraft " + a.name());
        }
        quantity(b, "maxLevelSpeedMps", m.maxLevelSpeedMps(), 0, "maker");
        quantity(b, "dimensionM", m.dimensionM(), 0, "maker");
        quantity(b, "maker.windMps", m.windLimitMps(), 0, "maker");
        quantity(b, "maker.temperatureMinC", m.temperatureMinC(), 0, "maker");
        quantity(b, "maker.temperatureMaxC", m.temperatureMaxC(), 0, "maker");
        b.word("remoteId", m.remoteId(), "model " + m.fullName());
        yesNo(b, "remoteIdActive", a.remoteIdActive(), "aircraft " + a.name());
        yesNo(b, "geoAwarenessCurrent", a.geoAwarenessCurrent(), "aircraft " + a.name());
    }

    private void pilot(
            Facts.Builder b, JobDraft d, List<TimeWindow> windows, Sites.SiteView site, Map<UUID, String> roles) {
        if (d.pilotId() == null) {
            return;
        }
        Crew.PersonView p = crew.person(d.pilotId());
        roles.put(p.id(), "pilot");
        if (p.bornOn() != null) {
            LocalDate first = windows.get(0).start().atZone(site.zone()).toLocalDate();
            b.quantity(
                    "pilot.ageYears", Period.between(p.bornOn(), first).getYears(), 0, p.name() + ", on the first day");
        }
        if (p.lastFlightOn() != null) {
            b.date("pilot.lastFlightOn", p.lastFlightOn(), "logbook of " + p.name());
        }
        yesNo(b, "pilot.fit", d.pilotFit(), p.name() + " says so");
        quantity(b, "pilot.hoursSinceAlcohol", d.hoursSinceAlcohol(), 0, p.name() + " says so");
    }

    /** What the model is declared for here, by the declarations in force for the whole job. */
    private static void declarations(
            Facts.Builder b, List<PaperHeld> held, List<TimeWindow> windows, String jurisdiction) {
        boolean aircraftChosen = held.stream().anyMatch(p -> p.role().equals("aircraft"))
                || b.build().get("takeoffMassG").isPresent();
        if (!aircraftChosen) {
            return;
        }
        Set<String> declared = held.stream()
                .filter(p -> p.kind().equals("modelDeclaration")
                        && p.countsIn(Optional.of(jurisdiction))
                        && windows.stream().allMatch(w -> p.validity().covers(w)))
                .flatMap(p -> p.level().stream())
                .collect(java.util.stream.Collectors.toSet());
        b.with(
                "modelDeclarations",
                new FactValue.Words(declared),
                "declarations of the model on file for " + jurisdiction);
    }

    /** The last activity that counts for recency under the law of the place. */
    private void recency(Facts.Builder b, List<PaperHeld> held, String jurisdiction) {
        rulebook.recency(jurisdiction)
                .flatMap(r -> r.last(held, Optional.of(jurisdiction)))
                .ifPresent(day -> {
                    b.date("pilot.recencyOn", day, "newest qualifying activity on file");
                    if (b.build().get("pilot.nightTrainingOn").isEmpty()) {
                        b.date("pilot.nightTrainingOn", day, "newest qualifying activity on file");
                    }
                });
    }

    private void zones(Facts.Builder b, UUID jobId, Sites.SiteView site, List<TimeWindow> windows) {
        Map<String, String> approvals = approvals(b, jobId, windows);
        Airspace.Freshness freshness = airspace.freshness();
        if (freshness == Airspace.Freshness.NONE) {
            return; // nobody has brought zones in: not known, never "none"
        }
        Facts known = b.build();
        Double top = known.get("heightAboveGroundM")
                .map(k -> ((FactValue.Quantity) k.value()).value())
                .orElse(null);
        OptionalDouble mass = known.get("takeoffMassG")
                .map(k -> OptionalDouble.of(((FactValue.Quantity) k.value()).value()))
                .orElse(OptionalDouble.empty());
        SiteLook look = airspace.look(site.plan(top, windows));
        b.zones(airspace.met(look, mass, approvals, site.zone()));
        AirspaceFacts.put(b, look, known, freshness == Airspace.Freshness.CURRENT && airspace.isWhole());
        if (freshness == Airspace.Freshness.CURRENT) {
            b.yesNo("zoneDataCurrent", true, "every source of zones is within its age limit");
        }
        // out of date: whether the zones still hold is not known
    }

    /** The worst weather on file over the hours; what the job says itself stands only where none covers them. */
    private void weather(Facts.Builder b, Sites.SiteView site, List<TimeWindow> windows) {
        if (windows.isEmpty() || site.terrain() == null) {
            return;
        }
        Weather.covering(
                        weather.between(
                                site.id(),
                                windows.get(0).start(),
                                windows.get(windows.size() - 1).end()),
                        windows)
                .ifPresent(reports -> {
                    OptionalDouble height = b.build()
                            .get("heightAboveGroundM")
                            .map(k -> OptionalDouble.of(((FactValue.Quantity) k.value()).value()))
                            .orElse(OptionalDouble.empty());
                    WeatherFacts.put(
                            b,
                            reports.stream().map(Weather.Report::observation).toList(),
                            height,
                            site.terrain(),
                            reports.size() + " weather reports on file for the hours");
                });
    }

    /** Approvals of the job in force for all of it: what they lift, by zone id; rule ids go into the facts. */
    private Map<String, String> approvals(Facts.Builder b, UUID jobId, List<TimeWindow> windows) {
        Map<String, String> byZone = new HashMap<>();
        if (jobId == null) {
            return byZone;
        }
        Map<String, Set<String>> lifts = new HashMap<>();
        papers.of(List.of(jobId)).stream()
                .filter(p -> p.kind().equals("approval"))
                .forEach(p ->
                        lifts.computeIfAbsent(p.number(), k -> new HashSet<>()).addAll(p.lifts()));
        for (PaperHeld p : papers.held(Map.of(jobId, "job"))) {
            if (p.kind().equals("approval")
                    && windows.stream().allMatch(w -> p.validity().covers(w))) {
                Set<String> ids = lifts.getOrDefault(p.number(), Set.of());
                ids.forEach(id -> byZone.put(id, p.number()));
                b.approval(new ApprovalHeld(p.number(), ids));
            }
        }
        return byZone;
    }

    private static void quantity(Facts.Builder b, String name, Double value, double uncertainty, String source) {
        if (value != null) {
            b.quantity(name, value, uncertainty, source);
        }
    }

    private static void yesNo(Facts.Builder b, String name, Boolean value, String source) {
        if (value != null) {
            b.yesNo(name, value, source);
        }
    }

    private static void word(Facts.Builder b, String name, String value, String source) {
        if (value != null) {
            b.word(name, value, source);
        }
    }
}
