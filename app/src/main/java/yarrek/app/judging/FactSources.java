package yarrek.app.judging;

import java.time.LocalDate;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import yarrek.app.airspace.Sites;
import yarrek.app.answers.Answers;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.papers.PapersOnFile;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.airspace.ZonesOnFile;
import yarrek.core.judging.ApprovalOnFile;
import yarrek.core.judging.Craft;
import yarrek.core.judging.Elsewhere;
import yarrek.core.judging.FlightInput;
import yarrek.core.judging.House;
import yarrek.core.judging.JobPaper;
import yarrek.core.judging.Neighbours;
import yarrek.core.judging.Person;
import yarrek.core.judging.Place;
import yarrek.core.judging.Plan;
import yarrek.core.judging.PlanInput;
import yarrek.core.judging.Said;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.Recency;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.WaiverHeld;
import yarrek.core.time.TimeWindow;
import yarrek.core.weather.Report;

/**
 * All that the facts of some plans and flights rest on, as values: read once, in a number of statements that does not depend
 * on how many they are.
 *
 * @param builds those wanted with every other build of the same aircraft
 * @param buildsOf the same by aircraft
 * @param craft aircraft wanted without a build
 * @param approvals by job, in the order of their days
 * @param stages of unlocks, by approval
 * @param reading of the rules of a state, by jurisdiction
 * @param recency how the law of a jurisdiction counts it
 * @param pack the law of a jurisdiction
 */
public record FactSources(
        Office.OperatorView operator,
        Map<UUID, Sites.SiteView> sites,
        Map<UUID, Fleet.BuildView> builds,
        Map<UUID, List<Fleet.BuildView>> buildsOf,
        Map<UUID, Fleet.AircraftView> craft,
        Map<UUID, Crew.PersonView> people,
        PapersOnFile papers,
        Answers.OnFile answers,
        Map<UUID, List<WaiverHeld>> waivers,
        Map<UUID, List<Approvals.ApprovalView>> approvals,
        Map<UUID, List<Approvals.StageSaid>> stages,
        Map<String, Kinds.Row> kinds,
        ZonesOnFile zones,
        Map<UUID, List<Report>> weather,
        Neighbours neighbours,
        House house,
        Function<String, Optional<Rulebook.Reading>> reading,
        Function<String, Optional<Recency>> recency,
        Function<String, Optional<RulePack>> pack) {
    /** The same as if some jobs were not there. */
    public FactSources without(Set<UUID> jobs) {
        return new FactSources(
                operator,
                sites,
                builds,
                buildsOf,
                craft,
                people,
                papers,
                answers,
                waivers,
                approvals,
                stages,
                kinds,
                zones,
                weather,
                neighbours.without(jobs),
                house,
                reading,
                recency,
                pack);
    }

    /** The build of this identity; null for none. */
    public Fleet.BuildView build(UUID id) {
        return id == null ? null : builds.get(id);
    }

    /** What the operator's own rules may be bound to. */
    public OwnRules.Setting setting(Wanted w) {
        Optional<Fleet.AircraftView> its = Optional.ofNullable(craftIdOf(w)).map(this::aircraft);
        return new OwnRules.Setting(w.siteId(), its.map(a -> a.model().id()).orElse(null), w.jobId());
    }

    /** Who holds the papers that a rule wants, by role; a null holder is not known. */
    public Map<String, UUID> holders(Wanted w) {
        Map<String, UUID> holders = new HashMap<>();
        holders.put("operator", operator.id());
        holders.put("pilot", w.pilotId());
        holders.put("aircraft", craftIdOf(w));
        return holders;
    }

    private UUID craftIdOf(Wanted w) {
        return w.buildId() == null ? w.craftId() : build(w.buildId()).aircraft().id();
    }

    /** The aircraft of a build that was read. */
    public Fleet.AircraftView aircraftOf(UUID buildId) {
        return build(buildId).aircraft();
    }

    private Fleet.AircraftView aircraft(UUID id) {
        List<Fleet.BuildView> its = buildsOf.getOrDefault(id, List.of());
        return its.isEmpty() ? craft.get(id) : its.get(0).aircraft();
    }

    /** What judging a plan needs. */
    public PlanInput input(Wanted w) {
        return input(w, w.plan().apply(sites.get(w.siteId()).zone()), person(w.pilotId()));
    }

    private PlanInput input(Wanted w, Plan plan, Optional<Person> pilot) {
        Place place = sites.get(w.siteId()).place();
        Optional<Fleet.BuildView> build = Optional.ofNullable(build(w.buildId()));
        Optional<UUID> craftId = Optional.ofNullable(craftIdOf(w));
        Optional<Craft> its = craftId.map(this::craftOf);
        Map<UUID, String> roles = roles(w, craftId);
        return new PlanInput(
                operator.jurisdiction(),
                place,
                plan,
                its,
                build.map(b -> b.built(its.orElseThrow())),
                pilot,
                elsewhere(w, plan.windows(), craftId),
                answers.of(about(w, operator.id(), craftId)),
                papers.kinds(),
                papers.held(roles),
                w.jobId() == null ? List.of() : jobPapers(w.jobId()),
                w.jobId() == null
                        ? List.of()
                        : requests(w.jobId()).stream()
                                .filter(a -> a.isFor(craftId))
                                .toList(),
                w.jobId() == null ? List.of() : waivers.getOrDefault(w.jobId(), List.of()),
                liability(
                        plan.windows().isEmpty()
                                ? plan.firstDay()
                                : plan.windows()
                                        .get(0)
                                        .start()
                                        .atZone(place.zone())
                                        .toLocalDate()),
                reading.apply(place.jurisdiction())
                        .map(r -> new Said.RulesRead(r.readOn(), "read by " + r.saidBy() + ": " + r.note())),
                recency.apply(place.jurisdiction()),
                zones,
                weather.getOrDefault(w.siteId(), List.of()),
                house);
    }

    private OptionalDouble liability(LocalDate day) {
        return papers.liabilityAmount(operator.id(), day)
                .map(OptionalDouble::of)
                .orElse(OptionalDouble.empty());
    }

    private Map<UUID, String> roles(Wanted w, Optional<UUID> craftId) {
        Map<UUID, String> roles = new HashMap<>();
        roles.put(operator.id(), "operator");
        craftId.ifPresent(id -> roles.put(id, "aircraft"));
        if (w.pilotId() != null) {
            roles.put(w.pilotId(), "pilot");
        }
        if (w.jobId() != null) {
            roles.put(w.jobId(), "job");
        }
        return roles;
    }

    /** What answers may be about: the job and everything it uses. */
    public static Map<Answers.About, UUID> about(Wanted w, UUID operatorId, Optional<UUID> craftId) {
        Map<Answers.About, UUID> about = new EnumMap<>(Answers.About.class);
        about.put(Answers.About.OPERATOR, operatorId);
        if (w.siteId() != null) {
            about.put(Answers.About.SITE, w.siteId());
        }
        craftId.ifPresent(id -> about.put(Answers.About.AIRCRAFT, id));
        if (w.pilotId() != null) {
            about.put(Answers.About.PILOT, w.pilotId());
        }
        if (w.jobId() != null) {
            about.put(Answers.About.JOB, w.jobId());
        }
        return about;
    }

    private Optional<Person> person(UUID id) {
        return Optional.ofNullable(id).map(people::get).map(p -> new Person(p.name(), p.bornOn(), p.lastFlightOn()));
    }

    private Craft craftOf(UUID id) {
        return aircraft(id)
                .craft(buildsOf.getOrDefault(id, List.of()).stream()
                        .map(Fleet.BuildView::lights)
                        .toList());
    }

    private Elsewhere elsewhere(Wanted w, List<TimeWindow> windows, Optional<UUID> craftId) {
        List<UUID> its = craftId.map(id -> buildsOf.getOrDefault(id, List.of())).orElse(List.of()).stream()
                .map(Fleet.BuildView::id)
                .toList();
        return neighbours.of(
                w.jobId(),
                w.siteId(),
                new Neighbours.Uses(
                        w.pilotId(),
                        w.crew(),
                        its,
                        sites.get(w.siteId()).place().launch()),
                windows);
    }

    private List<JobPaper> jobPapers(UUID jobId) {
        return papers.ofJob(jobId).stream()
                .map(p -> new JobPaper(
                        p.id(),
                        p.number(),
                        p.lifts(),
                        p.lifts().stream()
                                .filter(l -> l.indexOf('=') > 0 && Vocabulary.knows(l.substring(0, l.indexOf('='))))
                                .collect(Collectors.toMap(
                                        Function.identity(),
                                        l -> answers.read(
                                                Vocabulary.define(l.substring(0, l.indexOf('='))),
                                                l.substring(l.indexOf('=') + 1)))),
                        p.validity()))
                .toList();
    }

    /** Requests of a job as judging sees them. */
    public List<ApprovalOnFile> requests(UUID jobId) {
        return approvals.getOrDefault(jobId, List.of()).stream()
                .map(a -> a.onFile(
                        Optional.ofNullable(kinds.get(a.kind())).map(Kinds.Row::kind),
                        stages.getOrDefault(a.id(), List.of())))
                .toList();
    }

    /**
     * What judging a flight of a job needs.
     *
     * @param w the job with the aircraft and the pilot that flew
     * @param flown from take-off to landing
     * @param lastFlightOn the pilot's newest day in the logbook before this flight; null for none
     * @param pilotAsPlanned whether the pilot who was planned flew; else what he said of himself is not the other's
     */
    public PlanInput flown(Wanted w, TimeWindow flown, LocalDate lastFlightOn, boolean pilotAsPlanned) {
        Plan plan = w.plan().apply(sites.get(w.siteId()).zone()).in(List.of(flown));
        return input(
                w,
                pilotAsPlanned ? plan : plan.byAnotherPilot(),
                person(w.pilotId()).map(p -> new Person(p.name(), p.bornOn(), lastFlightOn)));
    }

    /** What stands in for a plan when a flight belongs to no job. */
    public FlightInput.Home home(UUID craftId, UUID pilotId, LocalDate day, LocalDate lastFlightOn) {
        Wanted w = new Wanted(null, null, pilotId, null, craftId, day, zone -> null, List.of(), Set.of());
        Optional<UUID> craft = Optional.ofNullable(craftId);
        List<PaperHeld> held = papers.held(roles(w, craft));
        return new FlightInput.Home(
                operator.zone(),
                operator.jurisdiction(),
                pack.apply(operator.jurisdiction()).flatMap(RulePack::category),
                craft.map(this::craftOf),
                person(pilotId).map(p -> new Person(p.name(), p.bornOn(), lastFlightOn)),
                answers.of(about(w, operator.id(), craft)),
                papers.kinds(),
                held,
                liability(day),
                zones);
    }
}
