package yarrek.app.jobs;

import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Sites;
import yarrek.app.airspace.Weather;
import yarrek.app.airspace.ZonesOnFile;
import yarrek.app.answers.Answers;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.HeldFacts;
import yarrek.app.approvals.Kinds;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.papers.PapersOnFile;
import yarrek.core.airspace.AirspaceFacts;
import yarrek.core.airspace.SiteLook;
import yarrek.core.approval.Cover;
import yarrek.core.geo.Area;
import yarrek.core.rulebook.ApprovalHeld;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.StateFacts;
import yarrek.core.rulebook.SunFacts;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.TimeWindow;
import yarrek.core.weather.WeatherFacts;

/**
 * Turns a job, its site, build, crew and papers into facts. What nobody has said stays out, and so is not known. Asks nobody
 * anything: all it needs is in the sources.
 */
public final class JobFacts {
    /** Kinds of paper that the operator holds as a rule, and that may be granted for one job. */
    private static final Set<String> OPERATORS = Set.of("operationalAuthorisation", "operatorCertificate");

    private final FactSources sources;

    JobFacts(FactSources sources) {
        this.sources = sources;
    }

    Facts of(UUID jobId, JobDraft d) {
        return of(
                jobId,
                d,
                true,
                JobEntity.windows(d, sources.sites().get(d.siteId()).zone()));
    }

    /**
     * @param granted whether what is granted for the job counts; without it, what would be needed shows
     * @param windows the hours looked at: those of the job, or those of one flight
     */
    Facts of(UUID jobId, JobDraft d, boolean granted, List<TimeWindow> windows) {
        Sites.SiteView site = sources.sites().get(d.siteId());
        Facts.Builder b = Facts.builder(site.zone());
        windows.forEach(b::window);
        Office.OperatorView operator = sources.operator();
        Fleet.BuildView build = d.buildId() == null ? null : sources.builds().get(d.buildId());
        sources.answers().put(b, about(jobId, d, operator.id(), build));
        b.word("jurisdiction", site.jurisdiction(), "site " + site.name());
        sources.reading()
                .apply(site.jurisdiction())
                .ifPresent(r -> b.date("nationalRulesReadOn", r.readOn(), "read by " + r.saidBy() + ": " + r.note()));
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
        sources.neighbours()
                .emergencyAt(d.siteId(), jobId)
                .ifPresent(name -> b.yesNo("emergency.ongoing", true, "said of the job " + name + " at this site"));
        yesNo(b, "dangerousGoodsOrDropping", d.dangerous(), "job");
        yesNo(b, "autoModesAmongObstacles", d.autoModes(), "job");
        quantity(b, "weather.windMps", d.windMps(), 0, "job: forecast as entered");
        quantity(b, "weather.temperatureC", d.temperatureC(), 0, "job: forecast as entered");
        quantity(b, "builtUpDistanceM", site.builtUpDistanceM(), 0, "site " + site.name());
        yesNo(b, "overWater", site.overWater(), "site " + site.name());
        SunFacts.put(b, windows, site.launch());
        StateFacts.hours(b, windows);
        booked(b, jobId, d, windows, build);
        Map<UUID, String> roles = new HashMap<>();
        roles.put(operator.id(), "operator");
        aircraft(b, build, windows, roles);
        pilot(b, jobId, d, windows, site, roles);
        if (build == null) {
            b.unnamed("aircraft");
        }
        if (d.pilotId() == null) {
            b.unnamed("pilot");
        }
        if (d.observerId() != null) {
            b.word("observer", "besidePilot", "job: crew"); // nobody named yet is not the same as nobody
        }
        if (jobId != null) {
            roles.put(jobId, "job");
        }
        List<PaperHeld> held = granted
                ? counted(sources.papers().held(roles))
                : withoutJob(sources.papers().held(roles));
        b.papers(held);
        StateFacts.put(b, operator.jurisdiction(), site.jurisdiction(), held);
        declarations(b, held, windows, site.jurisdiction());
        recency(b, held, site.jurisdiction());
        if (jobId != null) {
            sources.waivers().getOrDefault(jobId, List.of()).forEach(b::waiver);
        }
        sources.papers()
                .liabilityAmount(operator.id(), d.firstDay())
                .ifPresent(a -> b.quantity("insurance.amountSdr", a, 0, "liability insurance on file"));
        zones(b, granted ? approvals(b, jobId, d, site, build, windows) : Map.of(), site, windows);
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
        List<PaperHeld> marks = sources.papers().held(Map.of(aircraftId, "aircraft")).stream()
                .filter(p -> p.kind().equals("markOnAircraft"))
                .toList();
        boolean airworthy = sources.papers().held(Map.of(aircraftId, "aircraft")).stream()
                .filter(p -> p.kind().equals("airworthinessCertificate"))
                .anyMatch(p -> windows.stream().allMatch(w -> p.validity().covers(w)));
        if (airworthy) {
            b.yesNo(
                    "airworthinessCertificate",
                    true,
                    "on file for " + build.aircraft().name());
        }
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
        quantity(b, "maker.heightM", m.maxHeightM(), 0, "maker");
        b.word("remoteId", m.remoteId(), "model " + m.fullName());
        yesNo(b, "remoteIdActive", a.remoteIdActive(), "aircraft " + a.name());
        yesNo(b, "geoAwarenessCurrent", a.geoAwarenessCurrent(), "aircraft " + a.name());
    }

    private void pilot(
            Facts.Builder b,
            UUID jobId,
            JobDraft d,
            List<TimeWindow> windows,
            Sites.SiteView site,
            Map<UUID, String> roles) {
        if (d.pilotId() == null) {
            return;
        }
        Crew.PersonView p = sources.people().get(d.pilotId());
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
        if (jobId != null) {
            // what was said of the job on the day stands before what the plan took for granted
            sources.answers().put(b, Map.of(Answers.About.JOB, jobId));
        }
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
        sources.recency()
                .apply(jurisdiction)
                .flatMap(r -> r.last(held, Optional.of(jurisdiction)))
                .ifPresent(day -> {
                    b.date("pilot.recencyOn", day, "newest qualifying activity on file");
                    if (b.build().get("pilot.nightTrainingOn").isEmpty()) {
                        b.date("pilot.nightTrainingOn", day, "newest qualifying activity on file");
                    }
                });
    }

    private void zones(Facts.Builder b, Map<String, String> approvals, Sites.SiteView site, List<TimeWindow> windows) {
        ZonesOnFile zones = sources.zones();
        Instant flown = windows.isEmpty() ? zones.now() : windows.get(0).start();
        Airspace.Freshness freshness = zones.freshness(flown);
        if (freshness == Airspace.Freshness.NONE) {
            return; // nobody has brought zones in: not known, never "none"
        }
        Facts known = b.build();
        Double top = known.get("heightAboveGroundM")
                .map(k -> ((FactValue.Quantity) k.value()).value())
                .orElse(null);
        // a zone that binds from a mass binds as soon as the build may reach it
        OptionalDouble mass = known.get("takeoffMassG")
                .map(k -> OptionalDouble.of(((FactValue.Quantity) k.value()).high()))
                .orElse(OptionalDouble.empty());
        SiteLook look = zones.look(site.plan(top, windows));
        b.zones(zones.met(look, mass, approvals, site.zone()));
        // a plan looks at the zones as they are known now; a flight at those of its day
        Airspace.Freshness looked = flown.isAfter(zones.now()) ? zones.freshness() : freshness;
        AirspaceFacts.put(b, look, known, looked == Airspace.Freshness.CURRENT && zones.isWhole());
        if (freshness == Airspace.Freshness.CURRENT) {
            b.yesNo("zoneDataCurrent", true, "every source of zones is within its age limit on the day of the flight");
        }
        // out of date on that day: whether the zones still hold is not known
    }

    /** The worst weather on file over the hours; what the job says itself stands only where none covers them. */
    private void weather(Facts.Builder b, Sites.SiteView site, List<TimeWindow> windows) {
        if (windows.isEmpty() || site.terrain() == null) {
            return;
        }
        Weather.covering(sources.weather().getOrDefault(site.id(), List.of()), windows)
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

    /** Whether pilot and aircraft are free: known as soon as they are named. */
    private void booked(Facts.Builder b, UUID jobId, JobDraft d, List<TimeWindow> windows, Fleet.BuildView build) {
        if (d.pilotId() != null) {
            Optional<String> other = sources.neighbours().ofPilot(d.pilotId(), jobId, windows);
            b.yesNo(
                    "pilot.bookedElsewhere",
                    other.isPresent(),
                    other.map(n -> "job " + n).orElse("no other job in these hours"));
        }
        if (build != null) {
            Optional<String> other = sources.neighbours()
                    .ofBuilds(sources.buildsOf(build.aircraft().id()), jobId, windows);
            b.yesNo(
                    "aircraft.bookedElsewhere",
                    other.isPresent(),
                    other.map(n -> "job " + n).orElse("no other job in these hours"));
        }
    }

    private static List<PaperHeld> withoutJob(List<PaperHeld> held) {
        return held.stream().filter(p -> !p.role().equals("job")).toList();
    }

    /** An authorisation granted for one job counts as the operator's for that job. */
    private static List<PaperHeld> counted(List<PaperHeld> held) {
        return held.stream()
                .map(p -> p.role().equals("job") && OPERATORS.contains(p.kind())
                        ? new PaperHeld(
                                p.kind(),
                                p.level(),
                                "operator",
                                p.number(),
                                p.jurisdiction(),
                                p.validity(),
                                p.endKnown())
                        : p)
                .toList();
    }

    /** An approval on file as a paper, and on which of the hours of a job it counts. */
    private record OnFile(String number, Set<String> lifts, List<TimeWindow> covers) {}

    /**
     * What the approvals of the job lift, by zone id; rules that they lift and facts that they settle go into the facts. A
     * rule, zone or fact counts only when every hour of the job is covered by an approval that names it.
     */
    private Map<String, String> approvals(
            Facts.Builder b,
            UUID jobId,
            JobDraft d,
            Sites.SiteView site,
            Fleet.BuildView build,
            List<TimeWindow> windows) {
        Map<String, String> byZone = new HashMap<>();
        if (jobId == null) {
            return byZone;
        }
        List<Approvals.ApprovalView> all = sources.approvals().getOrDefault(jobId, List.of());
        Map<UUID, Approvals.ApprovalView> byPaper = new HashMap<>();
        all.stream().filter(a -> a.state().isHeld() && a.paperId() != null).forEach(a -> byPaper.put(a.paperId(), a));
        List<OnFile> onFile = new java.util.ArrayList<>();
        Cover.Overhangs overhangs = new Cover.Overhangs();
        for (PapersOnFile.OfJob p : sources.papers().ofJob(jobId)) {
            Approvals.ApprovalView a = byPaper.get(p.id());
            Set<String> lifts = new HashSet<>(p.lifts());
            if (a != null && a.zoneId() != null) {
                lifts.add(a.zoneId()); // an id with a space in it cannot stand in the paper's own list
            }
            if (lifts.isEmpty()) {
                continue;
            }
            onFile.add(new OnFile(
                    p.number(),
                    lifts,
                    a == null
                            ? windows.stream()
                                    .filter(w -> p.validity().covers(w))
                                    .toList()
                            : covered(
                                    a,
                                    need(d, site, build, toQuote(a, all, this::kind)),
                                    windows,
                                    overhangs,
                                    site.zone())));
        }
        Set<String> names = new java.util.TreeSet<>();
        onFile.forEach(p -> names.addAll(p.lifts()));
        Map<String, Set<String>> liftedBy = new java.util.TreeMap<>();
        for (String name : names) {
            List<OnFile> its =
                    onFile.stream().filter(p -> p.lifts().contains(name)).toList();
            boolean everyHour = windows.stream()
                    .allMatch(w -> its.stream().anyMatch(p -> p.covers().contains(w)));
            if (everyHour && !windows.isEmpty()) {
                String numbers = its.stream()
                        .filter(p -> !p.covers().isEmpty())
                        .map(OnFile::number)
                        .distinct()
                        .collect(java.util.stream.Collectors.joining(", "));
                settle(b, name, numbers, all);
                byZone.put(name, numbers);
                liftedBy.computeIfAbsent(numbers, k -> new HashSet<>()).add(name);
            }
        }
        liftedBy.forEach((numbers, ids) -> b.approval(new ApprovalHeld(numbers, ids)));
        terms(b, all, d, site, build, windows);
        return byZone;
    }

    /** Sets "fact=value" where every request on file that would settle the fact is granted. */
    private void settle(Facts.Builder b, String name, String numbers, List<Approvals.ApprovalView> all) {
        int at = name.indexOf('=');
        if (at < 0) {
            return;
        }
        String fact = name.substring(0, at);
        boolean outstanding = all.stream()
                .filter(a -> !a.state().isHeld())
                .anyMatch(a -> kind(a.kind())
                        .map(k -> k.kind().gives().facts().containsKey(fact))
                        .orElse(false));
        if (!outstanding && Vocabulary.knows(fact)) {
            FactDefinition f = Vocabulary.define(fact);
            b.with(fact, sources.answers().read(f, name.substring(at + 1)), "approval " + numbers);
        }
    }

    /** Numbers of other approvals held for the same days that one has to quote. */
    static Set<String> toQuote(
            Approvals.ApprovalView a, List<Approvals.ApprovalView> all, Function<String, Optional<Kinds.Row>> kindOf) {
        Set<String> quoted = kindOf.apply(a.kind()).map(k -> k.kind().quotes()).orElse(Set.of());
        return all.stream()
                .filter(o -> o.state().isHeld() && quoted.contains(o.kind()))
                .filter(o -> !o.firstDay().isAfter(a.lastDay()) && !a.firstDay().isAfter(o.lastDay()))
                .map(Approvals.ApprovalView::reference)
                .collect(java.util.stream.Collectors.toSet());
    }

    /** A day of the job as a paper has to cover it; its window and aircraft are put in for each. */
    static Cover.Need need(
            JobDraft d, Sites.SiteView site, Fleet.AircraftView aircraft, Crew.PersonView pilot, Set<String> toQuote) {
        return new Cover.Need(
                JobEntity.windows(d, site.zone()).get(0),
                site.area(),
                greatestHeight(d, site),
                aircraft == null ? "no aircraft chosen yet" : aircraft.serial(),
                pilot == null ? Set.of() : Set.of(pilot.name()),
                Optional.ofNullable(d.purpose()),
                toQuote);
    }

    /** Greatest height above ground as far as the plan tells. */
    public static OptionalDouble greatestHeight(JobDraft d, Sites.SiteView site) {
        if (d.heightM() == null) {
            return OptionalDouble.empty();
        }
        if (d.heightReference() == JobDraft.HeightReference.GROUND) {
            return OptionalDouble.of(d.heightM());
        }
        return site.reliefM() == null ? OptionalDouble.empty() : OptionalDouble.of(d.heightM() + site.reliefM());
    }

    /** The hours that what is granted covers in every dimension. */
    private static List<TimeWindow> covered(
            Approvals.ApprovalView a,
            Cover.Need need,
            List<TimeWindow> windows,
            Cover.Overhangs overhangs,
            ZoneId place) {
        Optional<Area> area = a.terms().drawnArea();
        return windows.stream()
                .filter(w -> {
                    Cover.Need day = need.in(w);
                    return a.terms().cover(a.reference(), day, area, overhangs, place).stream()
                            .allMatch(f -> f.state() == Cover.State.COVERED);
                })
                .toList();
    }

    /** How the plan stands to the terms of what is held: area, hours, aircraft and pilot, the worst of all of them. */
    private void terms(
            Facts.Builder b,
            List<Approvals.ApprovalView> all,
            JobDraft d,
            Sites.SiteView site,
            Fleet.BuildView build,
            List<TimeWindow> windows) {
        List<Approvals.ApprovalView> held = HeldFacts.of(all, windows, site.zone());
        HeldFacts.put(
                b,
                held,
                windows,
                site.zone(),
                build == null ? null : build.aircraft().serial(),
                d.pilotId() == null ? null : sources.people().get(d.pilotId()).name());
        List<Approvals.ApprovalView> limiting = held.stream()
                .filter(a -> !a.terms().leavesOpen(Cover.Dimension.AREA))
                .toList();
        double outside = 0;
        boolean known = true;
        for (Approvals.ApprovalView a : limiting) {
            Optional<Area> area = a.terms().drawnArea();
            known &= area.isPresent();
            outside = Math.max(
                    outside,
                    area.flatMap(x -> Cover.overhang(site.area(), x))
                            .map(Cover.Overhang::metres)
                            .orElse(0.0));
        }
        if (!limiting.isEmpty() && (known || outside > 0)) {
            b.quantity("approval.outsideM", outside, 0, "site against " + HeldFacts.numbers(limiting));
        }
        List<Approvals.ApprovalView> authorisations = held.stream()
                .filter(a -> kind(a.kind())
                        .map(k -> OPERATORS.contains(k.kind().gives().paper()))
                        .orElse(false))
                .toList();
        if (!authorisations.isEmpty()) {
            authorisation(b, authorisations, need(d, site, build, Set.of()), windows, site.zone());
        }
        unlock(b, all, windows, site);
    }

    /** What the authorisations of these days cover, dimension by dimension; what none of them says stays not known. */
    private static void authorisation(
            Facts.Builder b,
            List<Approvals.ApprovalView> held,
            Cover.Need need,
            List<TimeWindow> windows,
            ZoneId place) {
        Map<Cover.Dimension, String> facts = Map.of(
                Cover.Dimension.AREA, "authorisation.placeCovered",
                Cover.Dimension.TIME, "authorisation.timeCovered",
                Cover.Dimension.AIRCRAFT, "authorisation.aircraftCovered",
                Cover.Dimension.PILOTS, "authorisation.pilotCovered");
        String numbers = HeldFacts.numbers(held);
        Cover.Overhangs overhangs = new Cover.Overhangs();
        facts.forEach((dimension, fact) -> {
            List<Cover.State> days = windows.stream()
                    .map(w -> held.stream()
                            .map(a -> {
                                return a
                                        .terms()
                                        .cover(
                                                a.reference(),
                                                need.in(w),
                                                a.terms().drawnArea(),
                                                overhangs,
                                                place)
                                        .stream()
                                        .filter(f -> f.dimension() == dimension)
                                        .map(Cover.Finding::state)
                                        .findFirst()
                                        .orElse(Cover.State.NOT_KNOWN);
                            })
                            .min(java.util.Comparator.comparingInt(
                                    s -> s == Cover.State.COVERED ? 0 : s == Cover.State.NOT_KNOWN ? 1 : 2))
                            .orElse(Cover.State.NOT_KNOWN))
                    .toList();
            if (days.contains(Cover.State.MISSING)) {
                b.yesNo(fact, false, numbers);
            } else if (!days.isEmpty() && !days.contains(Cover.State.NOT_KNOWN)) {
                b.yesNo(fact, true, numbers);
            }
        });
        held.stream()
                .map(a -> a.terms().ceilingM())
                .filter(java.util.Objects::nonNull)
                .min(Double::compare)
                .ifPresent(m -> b.quantity("authorisation.heightM", m, 0, numbers));
        if (held.stream().allMatch(a -> a.terms().allows() != null)) {
            b.with(
                    "authorisation.allows",
                    new FactValue.Words(held.stream()
                            .flatMap(a -> a.terms().allows().stream())
                            .collect(java.util.stream.Collectors.toSet())),
                    numbers);
        }
        Set<String> sections =
                held.stream().flatMap(a -> a.terms().sections().stream()).collect(java.util.stream.Collectors.toSet());
        if (!sections.isEmpty()) {
            b.with("authorisation.sections", new FactValue.Words(sections), numbers);
        }
    }

    /** How far the maker's unlock has come for these days: the last stage said, or which is next. */
    private void unlock(
            Facts.Builder b, List<Approvals.ApprovalView> all, List<TimeWindow> windows, Sites.SiteView site) {
        List<Approvals.ApprovalView> unlocks = all.stream()
                .filter(a -> kind(a.kind()).map(k -> k.kind().unlock()).orElse(false))
                .filter(a -> windows.stream().anyMatch(w -> {
                    LocalDate day = w.start().atZone(site.zone()).toLocalDate();
                    return !day.isBefore(a.firstDay()) && !day.isAfter(a.lastDay());
                }))
                .toList();
        if (unlocks.isEmpty()) {
            return;
        }
        b.yesNo("unlock.needed", true, "an unlock is among the approvals of the job");
        Optional<yarrek.core.approval.UnlockLife.Stage> open = unlocks.stream()
                .map(a -> a.state().isHeld()
                        ? Approvals.life(sources.stages().getOrDefault(a.id(), List.of()), false)
                                .next()
                        : Optional.of(yarrek.core.approval.UnlockLife.Stage.GRANTED))
                .flatMap(Optional::stream)
                .findFirst();
        b.yesNo(
                "unlock.ready",
                open.isEmpty(),
                open.map(s -> "not yet " + s.words()).orElse("every stage said to be done"));
    }

    private Cover.Need need(JobDraft d, Sites.SiteView site, Fleet.BuildView build, Set<String> toQuote) {
        return need(
                d,
                site,
                build == null ? null : build.aircraft(),
                d.pilotId() == null ? null : sources.people().get(d.pilotId()),
                toQuote);
    }

    private Optional<Kinds.Row> kind(String code) {
        return Optional.ofNullable(sources.kinds().get(code));
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
