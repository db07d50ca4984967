package yarrek.app.jobs;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Sites;
import yarrek.app.airspace.Weather;
import yarrek.app.answers.Answers;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.judging.FactLoader;
import yarrek.app.judging.FactSources;
import yarrek.app.judging.Judging;
import yarrek.app.judging.Wanted;
import yarrek.app.office.HouseFigures;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.app.work.Work;
import yarrek.core.geo.Position;
import yarrek.core.judging.Neighbours;
import yarrek.core.judging.PlanFacts;
import yarrek.core.judging.PlanInput;
import yarrek.core.rulebook.Facts;
import yarrek.core.time.TimeWindow;

/** What is said of jobs: their facts, and judging them again whenever they, or anything they rest on, change. */
@Service
public class JobJudging {
    private final EntityManager em;
    private final Clock clock;
    private final FactLoader loader;
    private final Judging judging;
    private final Sites sites;
    private final Fleet fleet;
    private final Office office;
    private final HouseFigures houseFigures;
    private final Aways aways;
    private final Work work;
    private final ApplicationEventPublisher events;

    JobJudging(
            EntityManager em,
            Clock clock,
            FactLoader loader,
            Judging judging,
            Sites sites,
            Fleet fleet,
            Office office,
            HouseFigures houseFigures,
            Aways aways,
            Work work,
            ApplicationEventPublisher events) {
        this.em = em;
        this.clock = clock;
        this.loader = loader;
        this.judging = judging;
        this.sites = sites;
        this.fleet = fleet;
        this.office = office;
        this.houseFigures = houseFigures;
        this.aways = aways;
        this.work = work;
        this.events = events;
    }

    /**
     * A job as it was judged.
     *
     * @param facts of each of its parts
     */
    public record Done(UUID id, JobDraft draft, String state, List<Facts> facts) {}

    /** Jobs were judged, from these sources; told in the transaction that judged them. */
    public record Judged(List<Done> jobs, FactSources sources) {}

    /** Other jobs than one, whose days lie among these or beside them. */
    private record Near(UUID but, LocalDate first, LocalDate last) {}

    /** Which jobs have some people: in command of all of it, watching, in one of the flights planned, or there besides. */
    static final String HAS_PERSON = "(j.pilotId in :p or j.observerId in :p or exists (select 1 from j.flights f"
            + " where f.pilotId in :p or f.supervisedId in :p or f.observerId in :p)"
            + " or exists (select 1 from j.besides c where c.personId in :p))";

    /** Which jobs fly with some builds. */
    static final String HAS_BUILD = "(j.buildId in :p or exists (select 1 from j.flights f where f.buildId in :p))";

    private FactSources sources(List<JobEntity> jobs) {
        return load(jobs.stream().flatMap(j -> j.draft().parts(j.id).stream()).toList(), List.of());
    }

    /**
     * What the facts of some plans, and of flights on them, rest on.
     *
     * @param flown hours looked at besides those of the plans
     */
    @Transactional(readOnly = true)
    public FactSources load(Collection<Wanted> wanted, List<TimeWindow> flown) {
        return loader.load(wanted, flown, this::neighbours);
    }

    /** What is wanted to judge these jobs in their parts, by identity. */
    @Transactional(readOnly = true)
    public Map<UUID, List<Wanted>> wanted(Collection<UUID> ids) {
        return em.createQuery("from JobEntity j where j.id in :ids", JobEntity.class)
                .setParameter("ids", ids)
                .getResultStream()
                .collect(Collectors.toMap(j -> j.id, j -> j.draft().parts(j.id)));
    }

    private static Map<UUID, List<Wanted>> parts(List<JobEntity> jobs) {
        Map<UUID, List<Wanted>> parts = new LinkedHashMap<>();
        jobs.forEach(j -> parts.put(j.id, j.draft().parts(j.id)));
        return parts;
    }

    private PlanInput input(UUID id, JobDraft draft) {
        Wanted w = draft.wanted(id);
        return load(List.of(w), List.of()).input(w);
    }

    private Neighbours neighbours(FactLoader.Neighbourhood near) {
        List<JobEntity> planned = em.createQuery(
                        "from JobEntity j where j.state = :planned and ((j.firstDay <= :last and j.lastDay >= :first and ("
                                + HAS_PERSON + " or " + HAS_BUILD + "))"
                                + " or (j.emergency = true and j.siteId in :sites and j.lastDay >= :ongoing))",
                        JobEntity.class)
                .setParameter("planned", JobEntity.PLANNED)
                .setParameter("first", near.first())
                .setParameter("last", near.last())
                .setParameter("ongoing", near.ongoing())
                .setParameter(
                        "p",
                        orNobody(Stream.concat(near.people().stream(), near.builds().stream())
                                .collect(Collectors.toSet())))
                .setParameter("sites", orNobody(near.sites()))
                .getResultList();
        Map<UUID, ZoneId> zones = sites.zones();
        Map<UUID, Position> launches = sites.launches();
        return new Neighbours(
                Stream.concat(
                                aways.asPlanned(near.first(), near.last()).stream(),
                                planned.stream()
                                        .map(j -> new Neighbours.Planned(
                                                j.id,
                                                j.name,
                                                j.siteId,
                                                launches.get(j.siteId),
                                                j.draft().declaresEmergency(),
                                                j.lastDay,
                                                j.draft().uses(zones.get(j.siteId)))))
                        .toList(),
                near.now(),
                houseFigures.house().way());
    }

    private static Set<UUID> orNobody(Set<UUID> ids) {
        return ids.isEmpty() ? Set.of(new UUID(0, 0)) : ids;
    }

    /** What judging a plan in several ways needs, such as on other days or with other builds, read at once. */
    @Transactional(readOnly = true)
    public FactSources sources(UUID id, Collection<JobDraft> drafts) {
        return load(
                drafts.stream()
                        .flatMap(d -> Stream.concat(d.parts(id).stream(), Stream.of(d.wanted(id))))
                        .toList(),
                List.of());
    }

    /** The facts of a job as they are now. */
    @Transactional(readOnly = true)
    public Facts factsOf(UUID id) {
        return factsOf(id, draft(id));
    }

    /** The facts of a job were it planned so, for looking before saving. */
    @Transactional(readOnly = true)
    public Facts factsOf(UUID id, JobDraft draft) {
        return PlanFacts.of(input(id, draft));
    }

    /**
     * A plan judged in its parts without being stored.
     *
     * @param id of the job; null for none
     * @param with what is changed in the facts to see
     */
    @Transactional(readOnly = true)
    public Judging.Judged look(UUID id, JobDraft draft, UnaryOperator<Facts> with) {
        List<Wanted> parts = draft.parts(id);
        return judging.look(parts, load(parts, List.of()), with);
    }

    /** A plan in several ways, each judged in its parts, all from one reading. */
    @Transactional(readOnly = true)
    public List<Judging.Judged> looks(UUID id, List<JobDraft> drafts) {
        return judging.look(drafts.stream().map(d -> d.parts(id)).toList(), sources(id, drafts));
    }

    /** The operator's own rules that a job may be bound by. */
    @Transactional(readOnly = true)
    public OwnRules.Setting settingOf(UUID id) {
        return settingOf(id, draft(id));
    }

    /** Whom and what answers about a job may be about. */
    @Transactional(readOnly = true)
    public Map<Answers.About, UUID> about(UUID id) {
        JobDraft d = draft(id);
        return FactSources.about(
                d.wanted(id),
                office.operator().id(),
                Optional.ofNullable(d.buildId())
                        .map(b -> fleet.build(b).aircraft().id()));
    }

    /** Jobs as they are, with their facts, for whoever has to do without their being judged. */
    @Transactional(readOnly = true)
    public Judged asTheyAre(Collection<UUID> ids) {
        List<JobEntity> all = em.createQuery(
                        "from JobEntity j where j.id in :ids order by j.firstDay, j.id", JobEntity.class)
                .setParameter("ids", ids)
                .getResultList();
        FactSources sources = sources(all);
        return new Judged(
                all.stream()
                        .map(j -> new Done(
                                j.id,
                                j.draft(),
                                j.state,
                                j.draft().parts(j.id).stream()
                                        .map(w -> PlanFacts.of(sources.input(w)))
                                        .toList()))
                        .toList(),
                sources);
    }

    /** Ids of planned jobs with a day about a moment, in whatever zone theirs lies. */
    @Transactional(readOnly = true)
    public List<UUID> openIdsAbout(Instant now) {
        LocalDate day = LocalDate.ofInstant(now, ZoneOffset.UTC);
        return em.createQuery(
                        "select j.id from JobEntity j where j.state = 'PLANNED' and j.firstDay <= :after and j.lastDay >= :before",
                        UUID.class)
                .setParameter("before", day.minusDays(1))
                .setParameter("after", day.plusDays(1))
                .getResultList();
    }

    /** Judges these jobs again; those no longer there are passed over. */
    @Transactional
    public void judgeAgain(List<UUID> ids, String because) {
        judgeAgain(
                em.createQuery("from JobEntity j where j.id in :ids", JobEntity.class)
                        .setParameter("ids", ids)
                        .getResultList(),
                id -> because,
                true);
    }

    /**
     * Judges again and keeps a note of what appeared and what vanished.
     *
     * @param becauseById why, by job; empty for one that somebody saved and of which no note is kept
     * @param onlyChanged whether those of which the same is said as before are not told of
     */
    private void judgeAgain(List<JobEntity> jobs, Function<UUID, String> becauseById, boolean onlyChanged) {
        if (jobs.isEmpty()) {
            return;
        }
        FactSources sources = sources(jobs);
        Map<UUID, JobEntity> byId = jobs.stream().collect(Collectors.toMap(j -> j.id, Function.identity()));
        List<Done> done = new ArrayList<>();
        for (Judging.Judgement now : judging.plans(parts(jobs), sources)) {
            JobEntity j = byId.get(now.id());
            j.judged(now, becauseById.apply(j.id));
            if (now.differs() || !onlyChanged) {
                done.add(new Done(j.id, j.draft(), j.state, now.facts()));
            }
        }
        if (!done.isEmpty()) {
            events.publishEvent(new Judged(done, sources));
        }
    }

    /** Ids of planned jobs that are not over, soonest first. */
    @Transactional(readOnly = true)
    public List<UUID> openIds() {
        return em.createQuery(
                        "select j.id from JobEntity j where j.state = 'PLANNED' and j.lastDay >= :today order by j.firstDay, j.id",
                        UUID.class)
                .setParameter(
                        "today", LocalDate.now(clock.withZone(office.operator().zone())))
                .getResultList();
    }

    /** Ids of jobs flown or planned on days of a span, whatever became of them but cancelled. */
    @Transactional(readOnly = true)
    public List<UUID> idsBetween(LocalDate from, LocalDate through) {
        return em.createQuery(
                        "select j.id from JobEntity j where j.state <> 'CANCELLED' and j.lastDay >= :f and j.firstDay <= :t order by j.firstDay",
                        UUID.class)
                .setParameter("f", from)
                .setParameter("t", through)
                .getResultList();
    }

    /** Other jobs of the same pilot, aircraft or site rest on what this one says of them. */
    void concerns(JobDraft before, JobDraft after, UUID id) {
        Set<UUID> people = new HashSet<>(before.planned().people());
        people.addAll(after.planned().people());
        Set<UUID> flown = new HashSet<>(before.planned().builds());
        flown.addAll(after.planned().builds());
        Set<UUID> builds = fleet.siblings(flown);
        Near near = new Near(
                id,
                before.firstDay().isBefore(after.firstDay()) ? before.firstDay() : after.firstDay(),
                before.lastDay().isAfter(after.lastDay()) ? before.lastDay() : after.lastDay());
        if (!people.isEmpty()) {
            judgeWhere(HAS_PERSON, people, "another job of the crew changed", near);
        }
        if (!builds.isEmpty()) {
            judgeWhere(HAS_BUILD, builds, "another job of the aircraft changed", near);
        }
        boolean emergency = before.declaresEmergency() || after.declaresEmergency();
        if (emergency) {
            judgeWhere(
                    "j.siteId in :p",
                    ids(before.siteId(), after.siteId()),
                    "an emergency at the site was said or ended",
                    new Near(id, LocalDate.EPOCH, LocalDate.of(9999, 1, 1)));
        }
    }

    private static Set<UUID> ids(UUID... some) {
        Set<UUID> all = new HashSet<>();
        for (UUID u : some) {
            if (u != null) {
                all.add(u);
            }
        }
        return all;
    }

    /** More jobs than these are judged after the change, in the background. */
    static final int AT_ONCE = 100;

    private void judgeWhere(String condition, Object parameter, String because) {
        judgeWhere(condition, parameter, because, null);
    }

    private void judgeWhere(String condition, Object parameter, String because, Near near) {
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        concerned(
                em.createQuery(
                                "select j.id from JobEntity j where j.state = 'PLANNED' and j.lastDay >= :today and "
                                        + "(:near = false or (j.id <> :but and j.firstDay <= :last and j.lastDay >= :first)) and "
                                        + condition,
                                UUID.class)
                        .setParameter("today", today)
                        .setParameter("p", parameter)
                        .setParameter("near", near != null)
                        .setParameter("but", near == null ? new UUID(0, 0) : near.but())
                        .setParameter(
                                "first", near == null ? today : near.first().minusDays(1))
                        .setParameter("last", near == null ? today : near.last().plusDays(1))
                        .getResultList(),
                because);
    }

    /** Has these jobs judged again before the transaction ends, or soon after it when they are many. */
    void concerned(List<UUID> ids, String because) {
        Concerned concerned = concerned();
        for (UUID id : ids) {
            concerned.becauseById.putIfAbsent(id, because);
        }
    }

    /** Has a job judged that somebody saved, and those others that rest on what it says. */
    void saved(JobDraft before, JobDraft after, UUID id) {
        concerned().saved.add(id);
        concerns(before, after, id);
    }

    private Concerned concerned() {
        Concerned concerned = (Concerned) TransactionSynchronizationManager.getResource(this);
        if (concerned == null) {
            concerned = new Concerned();
            TransactionSynchronizationManager.bindResource(this, concerned);
            TransactionSynchronizationManager.registerSynchronization(concerned);
        }
        return concerned;
    }

    /** What the changes of one transaction concern: each job is judged once, all from one reading. */
    private final class Concerned implements TransactionSynchronization {
        /** Those somebody saved: judged with it, and nobody is told what changed about them. */
        private final Set<UUID> saved = new LinkedHashSet<>();

        private final Map<UUID, String> becauseById = new LinkedHashMap<>();

        @Override
        public void beforeCommit(boolean readOnly) {
            becauseById.keySet().removeAll(saved);
            Set<UUID> now = new LinkedHashSet<>(saved);
            if (becauseById.size() <= AT_ONCE) {
                now.addAll(becauseById.keySet());
            } else {
                work.begin(JudgingWork.KIND, becauseById.values().iterator().next(), List.copyOf(becauseById.keySet()));
            }
            if (!now.isEmpty()) {
                judgeAgain(
                        em.createQuery("from JobEntity j where j.id in :ids", JobEntity.class)
                                .setParameter("ids", now)
                                .getResultList(),
                        id -> becauseById.getOrDefault(id, ""),
                        false);
            }
        }

        @Override
        public void beforeCompletion() {
            TransactionSynchronizationManager.unbindResource(JobJudging.this);
        }
    }

    @EventListener
    void rulesChanged(Rulebook.Changed e) {
        judgeWhere("j.state = :p", JobEntity.PLANNED, e.what());
    }

    @EventListener
    void houseChanged(HouseFigures.Changed e) {
        judgeWhere("j.state = :p", JobEntity.PLANNED, "a figure of the house changed");
    }

    @EventListener
    void awayChanged(Aways.Changed e) {
        if (e.personId() != null) {
            judgeWhere(HAS_PERSON, List.of(e.personId()), "who is away changed");
        } else {
            judgeWhere(
                    HAS_BUILD,
                    orNobody(fleet.buildsOf(e.aircraftId()).stream()
                            .map(Fleet.BuildView::id)
                            .collect(Collectors.toSet())),
                    "what is in upkeep changed");
        }
    }

    @EventListener
    void buildChanged(Fleet.BuildChanged e) {
        judgeWhere(HAS_BUILD, List.of(e.buildId()), e.what());
    }

    @EventListener
    void said(Answers.Said e) {
        switch (e.about()) {
            case OPERATOR -> judgeWhere("j.state = :p", JobEntity.PLANNED, "a question was answered");
            case SITE -> judgeWhere("j.siteId = :p", e.aboutId(), "a question about the site was answered");
            case AIRCRAFT ->
                judgeWhere(
                        HAS_BUILD,
                        fleet.buildsOf(e.aboutId()).stream()
                                .map(Fleet.BuildView::id)
                                .toList(),
                        "a question about the aircraft was answered");
            case PILOT -> judgeWhere(HAS_PERSON, List.of(e.aboutId()), "a question about the pilot was answered");
            case JOB -> judgeWhere("j.id = :p", e.aboutId(), "a question was answered");
            case OCCURRENCE -> {
                // no plan rests on what happened
            }
        }
    }

    @EventListener
    void waiversChanged(Rulebook.WaiversChanged e) {
        judgeWhere("j.id = :p", e.jobId(), "a departure was recorded or ended");
    }

    @EventListener
    void siteChanged(Sites.SiteChanged e) {
        judgeWhere("j.siteId = :p", e.siteId(), "the site changed");
    }

    @EventListener
    void zonesChanged(Airspace.ZonesChanged e) {
        judgeWhere("j.state = :p", JobEntity.PLANNED, "zones were brought in");
    }

    @EventListener
    void kindsChanged(Kinds.Changed e) {
        judgeWhere("j.state = :p", JobEntity.PLANNED, "kinds of approval changed");
    }

    @EventListener
    void approvalsChanged(Approvals.Changed e) {
        judgeWhere("j.id = :p", e.jobId(), "an approval changed");
    }

    @EventListener
    void weatherCame(Weather.WeatherCame e) {
        judgeWhere("j.siteId = :p", e.siteId(), "weather came in");
    }

    @EventListener
    void kindsOfPaperChanged(Papers.KindsChanged e) {
        judgeWhere("j.state = :p", JobEntity.PLANNED, "a kind of paper changed");
    }

    @EventListener
    void personChanged(Crew.Changed e) {
        judgeWhere(HAS_PERSON, List.of(e.personId()), "the pilot's particulars changed");
    }

    @EventListener
    void papersChanged(Papers.Changed e) {
        switch (e.holderKind()) {
            case "operator" -> judgeWhere("j.state = :p", JobEntity.PLANNED, "a paper of the operator changed");
            case "pilot" -> judgeWhere(HAS_PERSON, List.of(e.holderId()), "a paper of the pilot changed");
            case "aircraft" ->
                judgeWhere(
                        HAS_BUILD,
                        fleet.buildsOf(e.holderId()).stream()
                                .map(Fleet.BuildView::id)
                                .toList(),
                        "a paper of the aircraft changed");
            default -> judgeWhere("j.id = :p", e.holderId(), "a paper of the job changed");
        }
    }

    private OwnRules.Setting settingOf(UUID jobId, JobDraft d) {
        return new OwnRules.Setting(
                d.siteId(),
                d.buildId() == null
                        ? null
                        : fleet.build(d.buildId()).aircraft().model().id(),
                jobId);
    }

    private JobDraft draft(UUID id) {
        JobEntity j = em.find(JobEntity.class, id);
        if (j == null) {
            throw new NotFoundException("job");
        }
        return j.draft();
    }
}
