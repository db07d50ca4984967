package yarrek.app.jobs;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
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
import yarrek.app.judging.Wanted;
import yarrek.app.office.Office;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.Assessments;
import yarrek.app.rulebook.FindingRow;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.app.web.LostUpdateException;
import yarrek.app.web.NotFoundException;
import yarrek.app.web.Viewer;
import yarrek.app.work.Work;
import yarrek.core.judging.Neighbours;
import yarrek.core.judging.PlanFacts;
import yarrek.core.judging.PlanInput;
import yarrek.core.paper.Weave;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Requirement;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Tally;
import yarrek.core.rulebook.Verdict;
import yarrek.core.time.TimeWindow;

/** Planned operations. A job is judged whenever it, or anything it rests on, changes. */
@Service
public class Jobs {
    /** A job in a list. */
    public record Row(
            UUID id,
            String name,
            String siteName,
            ZoneId zone,
            LocalDate firstDay,
            LocalDate lastDay,
            Instant start,
            Instant end,
            String subcategory,
            UUID pilotId,
            UUID observerId,
            String pilotName,
            UUID buildId,
            String buildName,
            String state,
            int breached,
            int notKnown,
            int close,
            int lawBreaches,
            int departures,
            String go,
            String reason,
            String changedNote) {
        /** Name of the status shape. */
        public String shape() {
            return breached > 0 ? "notch" : notKnown > 0 ? "dots" : close > 0 ? "cut" : "full";
        }
    }

    /** A job whole. */
    public record JobView(
            UUID id,
            long version,
            JobDraft draft,
            Row row,
            Sites.SiteView site,
            Fleet.BuildView build,
            AssessmentRow assessment,
            Instant assessedAt) {
        /** The hours of each day. */
        public List<TimeWindow> windows() {
            return Jobs.windows(draft, site.zone());
        }
    }

    /** A job was said to be flown, cancelled or planned again. */
    public record StateChanged(UUID jobId) {}

    /** A job as it was judged. */
    public record Done(UUID id, JobDraft draft, String state, Facts facts) {}

    /** Jobs were judged, from these sources; told in the transaction that judged them. */
    public record Judged(List<Done> jobs, FactSources sources) {}

    private final EntityManager em;
    private final Clock clock;
    private final FactLoader loader;
    private final Rulebook rulebook;
    private final Assessments assessments;
    private final Sites sites;
    private final Fleet fleet;
    private final Crew crew;
    private final Office office;
    private final Papers papers;
    private final Work work;
    private final ApplicationEventPublisher events;

    Jobs(
            EntityManager em,
            Clock clock,
            FactLoader loader,
            Rulebook rulebook,
            Assessments assessments,
            Sites sites,
            Fleet fleet,
            Crew crew,
            Office office,
            Papers papers,
            Work work,
            ApplicationEventPublisher events) {
        this.em = em;
        this.clock = clock;
        this.loader = loader;
        this.rulebook = rulebook;
        this.assessments = assessments;
        this.sites = sites;
        this.fleet = fleet;
        this.crew = crew;
        this.office = office;
        this.papers = papers;
        this.work = work;
        this.events = events;
    }

    /**
     * Stores a job and judges it; a null id makes a new one.
     *
     * @throws LostUpdateException when somebody else saved it since {@code version}
     * @throws IllegalArgumentException when the name is taken, or the clocks skip its beginning or end
     */
    @Transactional
    public UUID save(UUID id, long version, JobDraft draft) {
        JobEntity j = id == null ? new JobEntity(UUID.randomUUID()) : entity(id);
        if (id != null && version != j.version) {
            throw new LostUpdateException(JobForm.values(j.draft()), j.version);
        }
        boolean taken = em.createQuery("select count(j) from JobEntity j where j.name = :n and j.id <> :id", Long.class)
                        .setParameter("n", draft.name())
                        .setParameter("id", j.id)
                        .getSingleResult()
                > 0;
        if (taken) {
            throw new IllegalArgumentException("there is a job called “" + draft.name() + "” already");
        }
        if (draft.siteId() != null) {
            JobEntity.requireClock(draft, sites.site(draft.siteId()).zone());
        }
        JobDraft before = id == null ? draft : j.draft();
        j.take(draft);
        j.changedNote = "";
        if (id == null) {
            em.persist(j);
        }
        em.flush();
        concerned().saved.add(j.id);
        concerns(before, draft, j.id);
        return j.id;
    }

    @Transactional
    public void setState(UUID id, String state) {
        JobEntity j = entity(id);
        j.state = state;
        em.flush();
        events.publishEvent(new StateChanged(id));
        concerns(j.draft(), j.draft(), id);
    }

    /** Other jobs of the same pilot, aircraft or site rest on what this one says of them. */
    private void concerns(JobDraft before, JobDraft after, UUID id) {
        Set<UUID> pilots = ids(before.pilotId(), after.pilotId());
        Set<UUID> builds = fleet.siblings(ids(before.buildId(), after.buildId()));
        Near near = new Near(
                id,
                before.firstDay().isBefore(after.firstDay()) ? before.firstDay() : after.firstDay(),
                before.lastDay().isAfter(after.lastDay()) ? before.lastDay() : after.lastDay());
        if (!pilots.isEmpty()) {
            judgeWhere("j.pilotId in :p", pilots, "another job of the pilot changed", near);
        }
        if (!builds.isEmpty()) {
            judgeWhere("j.buildId in :p", builds, "another job of the aircraft changed", near);
        }
        boolean emergency = Boolean.TRUE.equals(before.emergency()) || Boolean.TRUE.equals(after.emergency());
        if (emergency) {
            judgeWhere(
                    "j.siteId in :p",
                    ids(before.siteId(), after.siteId()),
                    "an emergency at the site was said or ended",
                    new Near(id, LocalDate.EPOCH, LocalDate.of(9999, 1, 1)));
        }
    }

    /** Other jobs than one, whose days lie among these or beside them. */
    private record Near(UUID but, LocalDate first, LocalDate last) {}

    private static Set<UUID> ids(UUID... some) {
        Set<UUID> all = new HashSet<>();
        for (UUID u : some) {
            if (u != null) {
                all.add(u);
            }
        }
        return all;
    }

    private FactSources sources(List<JobEntity> jobs) {
        return load(jobs.stream().map(j -> j.draft().wanted(j.id)).toList(), List.of());
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

    /** What is wanted to judge these jobs, by identity. */
    @Transactional(readOnly = true)
    public Map<UUID, Wanted> wanted(Collection<UUID> ids) {
        return em.createQuery("from JobEntity j where j.id in :ids", JobEntity.class)
                .setParameter("ids", ids)
                .getResultStream()
                .collect(Collectors.toMap(j -> j.id, j -> j.draft().wanted(j.id)));
    }

    private PlanInput input(UUID id, JobDraft draft) {
        Wanted w = draft.wanted(id);
        return load(List.of(w), List.of()).input(w);
    }

    private Neighbours neighbours(FactLoader.Neighbourhood near) {
        List<Object[]> planned = em.createQuery(
                        "select j.id, j.name, j.siteId, j.pilotId, j.buildId, j.emergency, j.firstDay, j.lastDay, j.fromTime,"
                                + " j.toTime from JobEntity j where j.state = :planned and ((j.firstDay <= :last and"
                                + " j.lastDay >= :first and (j.pilotId in :pilots or j.buildId in :builds))"
                                + " or (j.emergency = true and j.siteId in :sites and j.lastDay >= :first))",
                        Object[].class)
                .setParameter("planned", JobEntity.PLANNED)
                .setParameter("first", near.first())
                .setParameter("last", near.last())
                .setParameter("pilots", orNobody(near.pilots()))
                .setParameter("builds", orNobody(near.builds()))
                .setParameter("sites", orNobody(near.sites()))
                .getResultList();
        Map<UUID, ZoneId> zones =
                planned.stream().allMatch(j -> near.zones().containsKey((UUID) j[2])) ? near.zones() : sites.zones();
        return new Neighbours(
                planned.stream()
                        .map(j -> new Neighbours.Planned(
                                (UUID) j[0],
                                (String) j[1],
                                (UUID) j[2],
                                (UUID) j[3],
                                (UUID) j[4],
                                Boolean.TRUE.equals(j[5]),
                                (LocalDate) j[7],
                                JobEntity.windows(
                                        (LocalDate) j[6],
                                        (LocalDate) j[7],
                                        (LocalTime) j[8],
                                        (LocalTime) j[9],
                                        zones.get((UUID) j[2]))))
                        .toList(),
                near.now());
    }

    private static Set<UUID> orNobody(Set<UUID> ids) {
        return ids.isEmpty() ? Set.of(new UUID(0, 0)) : ids;
    }

    /** What came of judging, not stored yet. */
    private record Judgement(Facts facts, Assessments.Entry entry) {}

    private static Done done(JobEntity j, Judgement judged) {
        return new Done(j.id, j.draft(), j.state, judged.facts());
    }

    private Judgement judge(JobEntity j, FactSources sources) {
        JobDraft d = j.draft();
        Facts known = PlanFacts.of(sources.input(d.wanted(j.id)));
        Fleet.BuildView build = sources.build(d.buildId());
        List<RulePack> packs = rulebook.packsFor(known, setting(j.id, d, build));
        AssessmentRow a = rulebook.judge(known, packs);
        Tally tally = a.tally();
        j.breached = tally.breached();
        j.lawBreaches = tally.law();
        j.departures = tally.departures();
        j.notKnown = tally.notKnown();
        j.closeCount = tally.close();
        j.go = tally.go().name();
        j.reason = a.reason();
        Map<String, UUID> holders = new HashMap<>();
        holders.put("operator", sources.operator().id());
        holders.put("pilot", j.pilotId);
        holders.put("aircraft", build == null ? null : build.aircraft().id());
        return new Judgement(known, new Assessments.Entry(j.id, a, needs(a, packs, holders)));
    }

    /** What the operator's own rules may be bound to. */
    private OwnRules.Setting setting(UUID jobId, JobDraft d) {
        return setting(jobId, d, d.buildId() == null ? null : fleet.build(d.buildId()));
    }

    private static OwnRules.Setting setting(UUID jobId, JobDraft d, Fleet.BuildView build) {
        return new OwnRules.Setting(
                d.siteId(), build == null ? null : build.aircraft().model().id(), jobId);
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
        Map<UUID, Judgement> judged = new HashMap<>();
        jobs.forEach(j -> judged.put(j.id, judge(j, sources)));
        Map<UUID, Optional<AssessmentRow>> changed = assessments.put(
                Assessments.Kind.JOB,
                judged.values().stream().map(Judgement::entry).toList(),
                clock.instant());
        List<Done> done = new ArrayList<>();
        for (JobEntity j : jobs) {
            Judgement now = judged.get(j.id);
            Optional<AssessmentRow> was = changed.get(j.id);
            if (was != null && !becauseById.apply(j.id).isEmpty()) {
                note(
                        j,
                        becauseById.apply(j.id),
                        was.map(Jobs::open).orElse(Set.of()),
                        open(now.entry().assessment()));
            }
            if (was != null || !onlyChanged) {
                done.add(done(j, now));
            }
        }
        if (!done.isEmpty()) {
            events.publishEvent(new Judged(done, sources));
        }
    }

    /** Jobs as they are, with their facts, for whoever has to do without their being judged. */
    @Transactional(readOnly = true)
    public Judged asTheyAre(Collection<UUID> ids) {
        List<JobEntity> all = em.createQuery("from JobEntity j where j.id in :ids", JobEntity.class)
                .setParameter("ids", ids)
                .getResultList();
        FactSources sources = sources(all);
        return new Judged(
                all.stream()
                        .map(j -> new Done(
                                j.id,
                                j.draft(),
                                j.state,
                                PlanFacts.of(sources.input(j.draft().wanted(j.id)))))
                        .toList(),
                sources);
    }

    private static void note(JobEntity j, String because, Set<String> before, Set<String> after) {
        Set<String> appeared = new HashSet<>(after);
        appeared.removeAll(before);
        Set<String> vanished = new HashSet<>(before);
        vanished.removeAll(after);
        if (!appeared.isEmpty() || !vanished.isEmpty()) {
            String note = because + ": " + (appeared.isEmpty() ? "" : "now " + String.join(", ", appeared))
                    + (appeared.isEmpty() || vanished.isEmpty() ? "" : "; ")
                    + (vanished.isEmpty() ? "" : "gone " + String.join(", ", vanished));
            j.changedNote = note.length() > 990 ? note.substring(0, 990) + "…" : note;
        }
    }

    private static Set<String> open(AssessmentRow a) {
        return named(a.open());
    }

    private static Set<String> named(List<FindingRow> findings) {
        return findings.stream()
                .map(f -> f.title() + " (" + f.verdict().words() + ")")
                .collect(Collectors.toCollection(java.util.TreeSet::new));
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
            TransactionSynchronizationManager.unbindResource(Jobs.this);
        }
    }

    @EventListener
    void rulesChanged(Rulebook.Changed e) {
        judgeWhere("j.state = :p", JobEntity.PLANNED, e.what());
    }

    @EventListener
    void buildChanged(Fleet.BuildChanged e) {
        judgeWhere("j.buildId = :p", e.buildId(), e.what());
    }

    @EventListener
    void said(Answers.Said e) {
        switch (e.about()) {
            case OPERATOR -> judgeWhere("j.state = :p", JobEntity.PLANNED, "a question was answered");
            case SITE -> judgeWhere("j.siteId = :p", e.aboutId(), "a question about the site was answered");
            case AIRCRAFT ->
                judgeWhere(
                        "j.buildId in :p",
                        fleet.buildsOf(e.aboutId()).stream()
                                .map(Fleet.BuildView::id)
                                .toList(),
                        "a question about the aircraft was answered");
            case PILOT -> judgeWhere("j.pilotId = :p", e.aboutId(), "a question about the pilot was answered");
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
    void personChanged(Crew.Changed e) {
        judgeWhere("j.pilotId = :p", e.personId(), "the pilot's particulars changed");
    }

    @EventListener
    void papersChanged(Papers.Changed e) {
        switch (e.holderKind()) {
            case "operator" -> judgeWhere("j.state = :p", JobEntity.PLANNED, "a paper of the operator changed");
            case "pilot" -> judgeWhere("j.pilotId = :p", e.holderId(), "a paper of the pilot changed");
            case "aircraft" ->
                judgeWhere(
                        "j.buildId in :p",
                        fleet.buildsOf(e.holderId()).stream()
                                .map(Fleet.BuildView::id)
                                .toList(),
                        "a paper of the aircraft changed");
            default -> judgeWhere("j.id = :p", e.holderId(), "a paper of the job changed");
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

    /** The operator's own rules that a job may be bound by. */
    @Transactional(readOnly = true)
    public OwnRules.Setting settingOf(UUID id) {
        return setting(id, entity(id).draft());
    }

    /** The facts of a job were it planned so, for looking before saving. */
    @Transactional(readOnly = true)
    public Facts factsOf(UUID id, JobDraft draft) {
        return PlanFacts.of(input(id, draft));
    }

    /** A plan judged without being stored. */
    @Transactional(readOnly = true)
    public AssessmentRow look(Facts facts, UUID id, JobDraft draft) {
        return rulebook.judge(facts, setting(id, draft));
    }

    /** Whom and what answers about a job may be about. */
    @Transactional(readOnly = true)
    public Map<Answers.About, UUID> about(UUID id) {
        JobDraft d = entity(id).draft();
        return FactSources.about(
                d.wanted(id),
                office.operator().id(),
                Optional.ofNullable(d.buildId())
                        .map(b -> fleet.build(b).aircraft().id()));
    }

    /** Open jobs at a site, soonest first. */
    @Transactional(readOnly = true)
    public List<Row> atSite(UUID siteId) {
        return rows(em.createQuery(
                        "from JobEntity j where j.siteId = :s and j.state = 'PLANNED' order by j.firstDay",
                        JobEntity.class)
                .setParameter("s", siteId)
                .getResultList());
    }

    /** Open jobs that use a build, soonest first. */
    @Transactional(readOnly = true)
    public List<Row> usingBuild(UUID buildId) {
        return rows(em.createQuery(
                        "from JobEntity j where j.buildId = :b and j.state = 'PLANNED' order by j.firstDay",
                        JobEntity.class)
                .setParameter("b", buildId)
                .getResultList());
    }

    /** Every job the viewer may see, soonest first. */
    @Transactional(readOnly = true)
    public List<Row> all(Viewer viewer) {
        return rows(em.createQuery("from JobEntity j order by j.firstDay, j.fromTime", JobEntity.class)
                        .getResultList())
                .stream()
                .filter(r -> viewer.maySee(r.pilotId(), r.observerId()))
                .toList();
    }

    /** A page of a list of jobs, and how many there are in all. */
    public record Found(List<Row> rows, long total) {}

    /**
     * Jobs that the viewer may see and in whose name, site or pilot the words stand; those ahead soonest first, those behind
     * newest first.
     *
     * @param words empty for every job
     * @param ahead not over yet, or over
     */
    @Transactional(readOnly = true)
    public Found find(Viewer viewer, String words, boolean ahead, int from, int most) {
        String like = "%" + words.strip().toLowerCase(java.util.Locale.ROOT).replaceAll("([%_!])", "!$1") + "%";
        String where = " from JobEntity j where j.lastDay " + (ahead ? ">=" : "<") + " :today"
                + (viewer.isPilot() ? " and (j.pilotId = :me or j.observerId = :me)" : "")
                + (words.isBlank()
                        ? ""
                        : " and (lower(j.name) like :like escape '!' or j.siteId in :sites or j.pilotId in :pilots)");
        TypedQuery<Long> count = em.createQuery("select count(j)" + where, Long.class);
        TypedQuery<JobEntity> rows = em.createQuery(
                        "select j" + where + " order by j.firstDay" + (ahead ? "" : " desc") + ", j.fromTime, j.name",
                        JobEntity.class)
                .setFirstResult(from)
                .setMaxResults(most);
        for (TypedQuery<?> q : List.of(count, rows)) {
            q.setParameter(
                    "today", LocalDate.now(clock.withZone(office.operator().zone())));
            if (viewer.isPilot()) {
                q.setParameter("me", viewer.personId());
            }
            if (!words.isBlank()) {
                q.setParameter("like", like);
                q.setParameter("sites", named(sites.names(), words));
                q.setParameter("pilots", named(crew.names(), words));
            }
        }
        return new Found(rows(rows.getResultList()), count.getSingleResult());
    }

    private static Set<UUID> named(Map<UUID, String> names, String words) {
        String w = words.strip().toLowerCase(java.util.Locale.ROOT);
        Set<UUID> found = names.entrySet().stream()
                .filter(e -> e.getValue().toLowerCase(java.util.Locale.ROOT).contains(w))
                .map(Map.Entry::getKey)
                .collect(Collectors.toSet());
        return found.isEmpty() ? Set.of(new UUID(0, 0)) : found;
    }

    /** Planned jobs that are not over, soonest first, that the viewer may see. */
    @Transactional(readOnly = true)
    public List<Row> upcoming(Viewer viewer, int most) {
        return rows(open("from JobEntity j", viewer, "", JobEntity.class)
                .setMaxResults(most)
                .getResultList());
    }

    /** Planned jobs that begin by a day, are not over and have open points, soonest first, that the viewer may see. */
    @Transactional(readOnly = true)
    public Found openPoints(Viewer viewer, LocalDate firstDayBy, int most) {
        String which = " and j.firstDay <= :by and (j.breached > 0 or j.notKnown > 0)";
        List<Row> rows = rows(open("from JobEntity j", viewer, which, JobEntity.class)
                .setParameter("by", firstDayBy)
                .setMaxResults(most)
                .getResultList());
        return new Found(
                rows,
                rows.size() < most
                        ? rows.size()
                        : open("select count(j) from JobEntity j", viewer, which, Long.class)
                                .setParameter("by", firstDayBy)
                                .getSingleResult());
    }

    /** Names of planned jobs that are not over and that the viewer may see, by identity, soonest first. */
    @Transactional(readOnly = true)
    public Map<UUID, String> openNames(Viewer viewer, int most) {
        return names(open("select j.id, j.name from JobEntity j", viewer, "", Object[].class)
                .setMaxResults(most));
    }

    /** Those of some. */
    @Transactional(readOnly = true)
    public Map<UUID, String> openNames(Viewer viewer, Collection<UUID> of) {
        return of.isEmpty()
                ? Map.of()
                : names(open("select j.id, j.name from JobEntity j", viewer, " and j.id in :of", Object[].class)
                        .setParameter("of", of));
    }

    /** Names of these jobs, whatever became of them. */
    @Transactional(readOnly = true)
    public Map<UUID, String> names(Collection<UUID> of) {
        return of.isEmpty()
                ? Map.of()
                : names(em.createQuery("select j.id, j.name from JobEntity j where j.id in :of", Object[].class)
                        .setParameter("of", of));
    }

    /** Rows of planned jobs that are not over and that the viewer may see, by identity. */
    @Transactional(readOnly = true)
    public Map<UUID, Row> openRows(Viewer viewer, Collection<UUID> of) {
        return of.isEmpty()
                ? Map.of()
                : rows(open("from JobEntity j", viewer, " and j.id in :of", JobEntity.class)
                                .setParameter("of", of)
                                .getResultList())
                        .stream()
                        .collect(Collectors.toMap(Row::id, Function.identity()));
    }

    private static Map<UUID, String> names(TypedQuery<Object[]> query) {
        return query.getResultStream()
                .collect(Collectors.toMap(
                        r -> (UUID) r[0], r -> (String) r[1], (a, b) -> a, java.util.LinkedHashMap::new));
    }

    private <T> TypedQuery<T> open(String from, Viewer viewer, String and, Class<T> as) {
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        String mine = viewer.isPilot() ? " and (j.pilotId = :me or j.observerId = :me)" : "";
        TypedQuery<T> query = em.createQuery(
                        from + " where j.state = 'PLANNED' and j.lastDay >= :today" + mine + and
                                + " order by j.firstDay, j.fromTime",
                        as)
                .setParameter("today", today);
        return viewer.isPilot() ? query.setParameter("me", viewer.personId()) : query;
    }

    private List<Row> rows(List<JobEntity> jobs) {
        if (jobs.isEmpty()) {
            return List.of();
        }
        Map<UUID, String> places = sites.names();
        Map<UUID, ZoneId> zones = sites.zones();
        Map<UUID, String> people = crew.names();
        Map<UUID, String> builds = fleet.buildNames(jobs.stream()
                .map(j -> j.buildId)
                .filter(java.util.Objects::nonNull)
                .collect(Collectors.toSet()));
        return jobs.stream()
                .map(j -> row(j, places.get(j.siteId), zones.get(j.siteId), people, builds))
                .toList();
    }

    private static Row row(JobEntity j, String site, ZoneId zone, Map<UUID, String> people, Map<UUID, String> builds) {
        List<TimeWindow> windows = JobEntity.windows(j.draft(), zone);
        return new Row(
                j.id,
                j.name,
                site,
                zone,
                j.firstDay,
                j.lastDay,
                windows.get(0).start(),
                windows.get(windows.size() - 1).end(),
                j.subcategory,
                j.pilotId,
                j.observerId,
                j.pilotId == null ? "no pilot yet" : people.get(j.pilotId),
                j.buildId,
                j.buildId == null ? "no build yet" : builds.get(j.buildId),
                j.state,
                j.breached,
                j.notKnown,
                j.closeCount,
                j.lawBreaches,
                j.departures,
                j.go,
                j.reason,
                j.changedNote);
    }

    /** @throws NotFoundException when there is none; access is denied when it is not the viewer's to see */
    @Transactional(readOnly = true)
    public JobView job(UUID id, Viewer viewer) {
        JobEntity j = entity(id);
        viewer.requireSight(j.pilotId, j.observerId);
        return jobUnchecked(id);
    }

    /** Its name, for whoever may see it. */
    @Transactional(readOnly = true)
    public String name(UUID id, Viewer viewer) {
        JobEntity j = entity(id);
        viewer.requireSight(j.pilotId, j.observerId);
        return j.name;
    }

    /** A job for other features' own work, whoever is looking. */
    @Transactional(readOnly = true)
    public JobView jobUnchecked(UUID id) {
        JobEntity j = entity(id);
        AssessmentRow assessment = assessments.of(j.id).orElse(null);
        return new JobView(
                j.id,
                j.version,
                j.draft(),
                rows(List.of(j)).get(0),
                sites.site(j.siteId),
                j.buildId == null ? null : fleet.build(j.buildId),
                assessment,
                assessment == null ? null : assessment.judgedAt());
    }

    /** The hours of a job, one window for each day. */
    public static List<TimeWindow> windows(JobDraft d, ZoneId zone) {
        return JobEntity.windows(d, zone);
    }

    /** The facts of a job as they are now. */
    @Transactional(readOnly = true)
    public Facts factsOf(UUID id) {
        return factsOf(id, entity(id).draft());
    }

    /** What judging a plan in several ways needs, such as on other days or with other builds, read at once. */
    @Transactional(readOnly = true)
    public FactSources sources(UUID id, Collection<JobDraft> drafts) {
        return load(drafts.stream().map(d -> d.wanted(id)).toList(), List.of());
    }

    /** The job of an hour at a place: planned for then, its area with the position or within a kilometre of it. */
    @Transactional(readOnly = true)
    public Optional<UUID> jobAt(Instant at, yarrek.core.geo.Position place) {
        LocalDate day = at.atZone(office.operator().zone()).toLocalDate();
        return em.createQuery("from JobEntity j where j.firstDay <= :late and j.lastDay >= :early", JobEntity.class)
                .setParameter("early", day.minusDays(1))
                .setParameter("late", day.plusDays(1))
                .getResultStream()
                .filter(j -> {
                    Sites.SiteView site = sites.site(j.siteId);
                    boolean then = JobEntity.windows(j.draft(), site.zone()).stream()
                            .anyMatch(w -> !at.isBefore(w.start().minusSeconds(3600))
                                    && !at.isAfter(w.end().plusSeconds(3600)));
                    return then && site.area().distanceM(place) <= 1000;
                })
                .map(j -> j.id)
                .findFirst();
    }

    @Transactional(readOnly = true)
    public Map<UUID, String> names() {
        return em.createQuery("select j.id, j.name from JobEntity j order by j.firstDay desc", Object[].class)
                .getResultStream()
                .collect(Collectors.toMap(
                        r -> (UUID) r[0], r -> (String) r[1], (a, b) -> a, java.util.LinkedHashMap::new));
    }

    /** A paper that a rule asks for, and its standing on each day of a job. */
    public record PaperRow(String holder, String paper, String rule, List<PaperCell> cells) {}

    /** One day: the paper that covers it, or a gap. */
    public record PaperCell(LocalDate day, String shape, String words) {}

    /** Papers in force for each day of a job, by the rules that apply to it; what is missing is a gap for those days only. */
    @Transactional(readOnly = true)
    public List<PaperRow> paperDays(JobView job) {
        Sites.SiteView site = job.site();
        List<TimeWindow> windows = job.windows();
        Facts f = papersAlone(job);
        Map<String, PaperRow> rows = new java.util.LinkedHashMap<>();
        for (FindingRow finding : job.assessment().findings()) {
            if (finding.verdict() == Verdict.NOT_APPLICABLE || finding.verdict() == Verdict.DUTY) {
                continue;
            }
            rulebook.rule(finding.ruleId(), job.draft().firstDay())
                    .map(r -> r.requires().papers())
                    .orElse(List.of())
                    .forEach(p -> {
                        String words =
                                p.kindName() + (p.levels().isEmpty() ? "" : " " + String.join(" or ", p.levels()));
                        rows.putIfAbsent(
                                p.role() + words,
                                new PaperRow(
                                        p.role(),
                                        words,
                                        finding.ruleId(),
                                        windows.stream()
                                                .map(w -> cell(p, f, w, site.zone()))
                                                .toList()));
                    });
        }
        return List.copyOf(rows.values());
    }

    /** Of the facts of a job those that papers are held against. */
    private Facts papersAlone(JobView job) {
        Map<UUID, String> roles = new HashMap<>();
        roles.put(office.operator().id(), "operator");
        roles.put(job.id(), "job");
        Facts.Builder b = Facts.builder(job.site().zone())
                .word(
                        "jurisdiction",
                        job.site().jurisdiction(),
                        "site " + job.site().name());
        if (job.build() == null) {
            b.unnamed("aircraft");
        } else {
            roles.put(job.build().aircraft().id(), "aircraft");
        }
        if (job.draft().pilotId() == null) {
            b.unnamed("pilot");
        } else {
            roles.put(job.draft().pilotId(), "pilot");
        }
        return b.papers(PlanFacts.counted(papers.held(roles))).build();
    }

    private static PaperCell cell(Requirement.HoldsPaper p, Facts facts, TimeWindow window, ZoneId zone) {
        var day = p.judge(facts.toBuilder().windows(List.of(window)).build());
        LocalDate date = window.start().atZone(zone).toLocalDate();
        return switch (day.verdict()) {
            case MET -> new PaperCell(date, "full", "in force");
            case CLOSE -> new PaperCell(date, "cut", "last day");
            case BREACHED -> new PaperCell(date, "notch", "gap");
            default -> new PaperCell(date, "dots", "not known");
        };
    }

    /** Planned jobs as the weave sees them: their windows and the papers each needs of whom. */
    @Transactional(readOnly = true)
    public List<Weave.JobSpan> spans(LocalDate from, LocalDate through) {
        // how often any job was changed, and anything else said of one, tells whether what was read before still holds
        String state = (String) em.createNativeQuery(
                        "select concat((select concat(count(*), ' ', coalesce(sum(version), 0))"
                                + " from job), ' ', (select coalesce(sum(version), 0) from assessment where subject_kind = 'J'))")
                .getSingleResult();
        Map<UUID, ZoneId> zones = sites.zones();
        Spans held = spans;
        if (!held.state.equals(state) || !held.zones.equals(zones) || held.byDays.size() >= MOST_SPANS) {
            held = new Spans(state, zones, new ConcurrentHashMap<>());
            spans = held;
        }
        return held.byDays.computeIfAbsent(List.of(from, through), d -> readSpans(from, through));
    }

    /** Spans read before, by their days: those of Today, of the papers and of wherever somebody leafed to. */
    private record Spans(String state, Map<UUID, ZoneId> zones, Map<List<LocalDate>, List<Weave.JobSpan>> byDays) {}

    private static final int MOST_SPANS = 12;

    private volatile Spans spans = new Spans("", Map.of(), Map.of());

    private List<Weave.JobSpan> readSpans(LocalDate from, LocalDate through) {
        List<Object[]> planned = em.createQuery(
                        "select j.id, j.name, j.siteId, j.firstDay, j.lastDay, j.fromTime, j.toTime from JobEntity j"
                                + " where j.state = 'PLANNED' and j.lastDay >= :from and j.firstDay <= :through order by j.firstDay",
                        Object[].class)
                .setParameter("from", from)
                .setParameter("through", through)
                .getResultList();
        // thousands of jobs want the same few papers of the same few people
        Map<Weave.Need, Weave.Need> one = new HashMap<>();
        Map<UUID, ZoneId> zones = sites.zones();
        Map<UUID, List<Assessments.Need>> needs = assessments.needsOf(
                "select id from job where state = 'PLANNED' and last_day >= :from and first_day <= :through",
                Map.of("from", from, "through", through));
        return planned.stream()
                .map(j -> new Weave.JobSpan(
                        j[0].toString(),
                        (String) j[1],
                        JobEntity.windows(
                                (LocalDate) j[3], (LocalDate) j[4], (LocalTime) j[5], (LocalTime) j[6], zones.get((UUID)
                                        j[2])),
                        needs.getOrDefault((UUID) j[0], List.of()).stream()
                                .map(n -> new Weave.Need(n.holderId().toString(), n.kind(), n.levels(), n.ruleId()))
                                .map(n -> one.computeIfAbsent(n, Function.identity()))
                                .toList()))
                .toList();
    }

    /** The papers that the rules applying to a job ask for, of whom; the mark is a paper whose check is a fact. */
    private static List<Assessments.Need> needs(AssessmentRow a, List<RulePack> packs, Map<String, UUID> holderByRole) {
        Set<String> applying = a.findings().stream()
                .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE)
                .map(FindingRow::ruleId)
                .collect(Collectors.toSet());
        Set<Assessments.Need> needs = new java.util.LinkedHashSet<>();
        packs.stream()
                .flatMap(p -> p.rules().stream())
                .filter(r -> applying.contains(r.id()))
                .forEach(r -> {
                    r.requires().papers().stream()
                            .filter(p -> holderByRole.get(p.role()) != null)
                            .forEach(p -> needs.add(
                                    new Assessments.Need(r.id(), holderByRole.get(p.role()), p.kind(), p.levels())));
                    if (r.requires().factNames().contains("marked") && holderByRole.get("aircraft") != null) {
                        needs.add(
                                new Assessments.Need(r.id(), holderByRole.get("aircraft"), "markOnAircraft", Set.of()));
                    }
                });
        return List.copyOf(needs);
    }

    private JobEntity entity(UUID id) {
        JobEntity j = em.find(JobEntity.class, id);
        if (j == null) {
            throw new NotFoundException("job");
        }
        return j;
    }
}
