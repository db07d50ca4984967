package yarrek.app.jobs;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Sites;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.Assessments;
import yarrek.core.geo.Position;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.judging.Shot;
import yarrek.core.rulebook.Tally;
import yarrek.core.time.TimeWindow;

/** The register of planned operations. */
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
            Set<UUID> people,
            int flights,
            String pilotName,
            UUID buildId,
            String buildName,
            String state,
            int breached,
            int notKnown,
            int close,
            int lawBreaches,
            int departures,
            Tally.Go go,
            String reason,
            String changedNote) {
        /** Name of the status shape: as it was planned, of one cancelled nothing. */
        public String shape() {
            return state.equals("CANCELLED") ? "dots" : Tally.shape(breached, notKnown, close);
        }

        public boolean noGo() {
            return go == Tally.Go.NO_GO;
        }

        /** Whether it is a viewer's to see: a pilot's when they are of its crew. */
        public boolean seenBy(Viewer viewer) {
            return viewer.maySee(people.toArray(UUID[]::new));
        }

        /** The line on top of it. */
        public String says() {
            return switch (state) {
                case "FLOWN" -> "Flown. As planned: " + go.says(departures);
                case "CANCELLED" -> "Cancelled";
                default -> go.says(departures);
            };
        }

        /** The same for a list. */
        public String stands() {
            return switch (state) {
                case "FLOWN" -> "flown" + (lawBreaches == 0 ? "" : ", " + lawBreaches + " breached as planned");
                case "CANCELLED" -> "cancelled";
                default -> go.words(departures);
            };
        }

        /** What it becomes by the one button for its state. */
        public String nextState() {
            return state.equals("PLANNED") ? "FLOWN" : "PLANNED";
        }

        public String nextStep() {
            return state.equals("PLANNED") ? "Mark as flown" : "Not flown after all";
        }
    }

    /** Somebody of the crew, with what they do in any of the flights. */
    public record Member(UUID id, String name, Set<FlightsPlanned.Role> roles) {
        public boolean flies() {
            return roles.stream().anyMatch(FlightsPlanned.Role::flies);
        }

        /** "pilot in command, observer". */
        public String does() {
            return roles.stream().map(FlightsPlanned.Role::words).collect(Collectors.joining(", "));
        }
    }

    /**
     * A job whole.
     *
     * @param build that the job has for all its flights; null while none is chosen
     * @param builds that fly, the job's own first
     */
    public record JobView(
            UUID id,
            long version,
            JobDraft draft,
            Row row,
            Sites.SiteView site,
            Fleet.BuildView build,
            List<Fleet.BuildView> builds,
            List<Member> crew,
            AssessmentRow assessment,
            Instant assessedAt) {
        /** Names of whoever is at the controls of any flight. */
        public List<String> pilots() {
            return crew.stream().filter(Member::flies).map(Member::name).toList();
        }

        /** Who is in command of any flight; that nobody is named yet. */
        public String inCommand() {
            List<String> names = crew.stream()
                    .filter(m -> m.roles().contains(FlightsPlanned.Role.COMMAND))
                    .map(Member::name)
                    .toList();
            return names.isEmpty() ? row.pilotName() : String.join(", ", names);
        }

        /** Aircraft that fly, each once. */
        public List<Fleet.AircraftView> aircraft() {
            return builds.stream().map(Fleet.BuildView::aircraft).distinct().toList();
        }

        /** The hours of each day. */
        public List<TimeWindow> windows() {
            return Jobs.windows(draft, site.zone());
        }
    }

    /** A job was said to be flown, cancelled or planned again. */
    public record StateChanged(UUID jobId) {}

    /** A job as it was entered. */
    public record Stored(UUID id, long version, JobDraft draft) {}

    private final EntityManager em;
    private final JobJudging judging;
    private final Assessments assessments;
    private final Sites sites;
    private final Fleet fleet;
    private final Crew crew;
    private final Office office;
    private final ApplicationEventPublisher events;

    Jobs(
            EntityManager em,
            JobJudging judging,
            Assessments assessments,
            Sites sites,
            Fleet fleet,
            Crew crew,
            Office office,
            ApplicationEventPublisher events) {
        this.em = em;
        this.judging = judging;
        this.assessments = assessments;
        this.sites = sites;
        this.fleet = fleet;
        this.crew = crew;
        this.office = office;
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
            throw new LostUpdateException(j.version);
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
        draft.planned().faults().stream().findFirst().ifPresent(f -> {
            throw new IllegalArgumentException("planned flight " + f.number() + ": " + f.words());
        });
        draft.besides().wrong(draft.firstDay(), draft.lastDay()).ifPresent(why -> {
            throw new IllegalArgumentException(why);
        });
        JobDraft before = id == null ? draft : j.draft();
        j.take(draft);
        j.changedNote = "";
        if (id == null) {
            em.persist(j);
        }
        em.flush();
        judging.saved(before, draft, j.id);
        return j.id;
    }

    /** A new job with the shots of another. */
    @Transactional
    UUID repeat(UUID of, JobDraft draft) {
        UUID id = save(null, -1, draft);
        entity(id).shots.addAll(shots(of).stream().map(ShotRow::new).toList());
        return id;
    }

    @Transactional
    public boolean setState(UUID id, String state) {
        JobEntity j = entity(id);
        if (j.state.equals(state)) {
            return false;
        }
        j.state = state;
        em.flush();
        events.publishEvent(new StateChanged(id));
        judging.concerns(j.draft(), j.draft(), id);
        return true;
    }

    /** Every job as it was entered, the newest first. */
    @Transactional(readOnly = true)
    public List<Stored> stored() {
        return em.createQuery("from JobEntity j order by j.firstDay desc, j.name", JobEntity.class)
                .getResultStream()
                .map(j -> new Stored(j.id, j.version, j.draft()))
                .toList();
    }

    /** Some planned jobs as they were entered, the soonest first; those that are no longer planned are left out. */
    @Transactional(readOnly = true)
    public List<Stored> planned(Collection<UUID> ids) {
        return ids.isEmpty()
                ? List.of()
                : em.createQuery(
                                "from JobEntity j where j.id in :ids and j.state = 'PLANNED' order by j.firstDay, j.name, j.id",
                                JobEntity.class)
                        .setParameter("ids", ids)
                        .getResultStream()
                        .map(j -> new Stored(j.id, j.version, j.draft()))
                        .toList();
    }

    /**
     * Stores several jobs, all or none of them, and judges them from one reading.
     *
     * @throws LostUpdateException when somebody else saved one of them since
     * @throws IllegalArgumentException when one cannot be stored so; it names it
     */
    @Transactional
    public void saveAll(Collection<Stored> changed) {
        for (Stored s : changed) {
            try {
                save(s.id(), s.version(), s.draft());
            } catch (IllegalArgumentException e) {
                throw new IllegalArgumentException("“" + s.draft().name() + "”: " + e.getMessage(), e);
            }
        }
    }

    /** What is to be filmed on a job, in its order. */
    @Transactional(readOnly = true)
    public List<Shot> shots(UUID id) {
        return entity(id).shots.stream().map(ShotRow::shot).toList();
    }

    /**
     * @return whether they were not so already
     * @throws LostUpdateException when somebody else saved the job since {@code version}
     */
    @Transactional
    public boolean saveShots(UUID id, long version, List<Shot> shots) {
        JobEntity j = entity(id);
        if (version != j.version) {
            throw new LostUpdateException(j.version);
        }
        List<ShotRow> rows = shots.stream().map(ShotRow::new).toList();
        if (rows.equals(j.shots)) {
            return false;
        }
        j.shots.clear();
        j.shots.addAll(rows);
        em.flush();
        return true;
    }

    /** What a job has that is not asked for with it, were it on other days: it moves with them. */
    @Transactional(readOnly = true)
    JobDraft moved(UUID id, JobDraft typed) {
        JobDraft d = entity(id).draft();
        return typed.flying(d.from(typed.firstDay())).arranged(d.besides(typed.firstDay(), typed.lastDay()));
    }

    /** Names of these jobs, whatever became of them. */
    @Transactional(readOnly = true)
    public Map<UUID, String> names(Collection<UUID> of) {
        return of.isEmpty()
                ? Map.of()
                : names(em.createQuery("select j.id, j.name from JobEntity j where j.id in :of", Object[].class)
                        .setParameter("of", of));
    }

    /** A job by its name and the name of its site. */
    public record NamePlace(String name, String place) {}

    /** Those of these jobs, whatever became of them. */
    @Transactional(readOnly = true)
    public Map<UUID, NamePlace> namesAndPlaces(Collection<UUID> of) {
        Map<UUID, String> places = of.isEmpty() ? Map.of() : sites.names();
        return of.isEmpty()
                ? Map.of()
                : em.createQuery("select j.id, j.name, j.siteId from JobEntity j where j.id in :of", Object[].class)
                        .setParameter("of", of)
                        .getResultStream()
                        .collect(Collectors.toMap(
                                r -> (UUID) r[0],
                                r -> new NamePlace((String) r[1], places.getOrDefault((UUID) r[2], ""))));
    }

    /** The viewer's own person, for a query; somebody who is nowhere while the login has none. */
    static List<UUID> own(Viewer viewer) {
        return List.of(viewer.personId() == null ? new UUID(0, 0) : viewer.personId());
    }

    static Map<UUID, String> names(TypedQuery<Object[]> query) {
        return query.getResultStream()
                .collect(Collectors.toMap(
                        r -> (UUID) r[0], r -> (String) r[1], (a, b) -> a, java.util.LinkedHashMap::new));
    }

    /** Names of the jobs that a viewer may see, the latest first. */
    @Transactional(readOnly = true)
    public Map<UUID, String> namesFor(Viewer viewer) {
        return viewer.isPilot()
                ? names(em.createQuery(
                                "select j.id, j.name from JobEntity j where " + JobJudging.HAS_PERSON
                                        + " order by j.firstDay desc",
                                Object[].class)
                        .setParameter("p", own(viewer)))
                : names();
    }

    /** Jobs that both crew and that are not over before a day. */
    @Transactional(readOnly = true)
    public List<UUID> shared(UUID one, UUID other, LocalDate from) {
        return em.createQuery(
                        "select j.id from JobEntity j where j.lastDay >= :from and j.state <> 'CANCELLED' and "
                                + JobJudging.HAS_PERSON.replace(":p", ":one") + " and "
                                + JobJudging.HAS_PERSON.replace(":p", ":other"),
                        UUID.class)
                .setParameter("from", from)
                .setParameter("one", List.of(one))
                .setParameter("other", List.of(other))
                .getResultList();
    }

    /** @throws NotFoundException when there is none; access is denied when it is not the viewer's to see */
    @Transactional(readOnly = true)
    public JobView job(UUID id, Viewer viewer) {
        JobEntity j = entity(id);
        viewer.requireSight(j.draft().planned().people().toArray(UUID[]::new));
        return jobUnchecked(id);
    }

    /** Its name, for whoever may see it. */
    @Transactional(readOnly = true)
    public String name(UUID id, Viewer viewer) {
        JobEntity j = entity(id);
        viewer.requireSight(j.draft().planned().people().toArray(UUID[]::new));
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
                builds(j),
                crew(j),
                assessment,
                assessment == null ? null : assessment.judgedAt());
    }

    private List<Fleet.BuildView> builds(JobEntity j) {
        return j.draft().planned().builds().stream()
                .map(fleet::build)
                .sorted(Comparator.comparing((Fleet.BuildView b) -> !b.id().equals(j.buildId))
                        .thenComparing(b -> b.aircraft().name())
                        .thenComparing(Fleet.BuildView::name))
                .toList();
    }

    private List<Member> crew(JobEntity j) {
        Map<UUID, String> names = crew.names();
        return j.draft().planned().crew().entrySet().stream()
                .map(e -> new Member(e.getKey(), names.get(e.getKey()), e.getValue()))
                .toList();
    }

    /** The hours of some days of a job, one window for each. */
    public static List<TimeWindow> windows(JobDraft d, LocalDate first, LocalDate last, ZoneId zone) {
        return JobEntity.windows(d, first, last, zone);
    }

    /** The hours of a job, one window for each day. */
    public static List<TimeWindow> windows(JobDraft d, ZoneId zone) {
        return JobEntity.windows(d, zone);
    }

    /**
     * The job of an hour at a place, the nearest where there are several.
     *
     * @param around before and after its hours
     * @param withinM of its area
     */
    @Transactional(readOnly = true)
    public Optional<UUID> jobAt(Instant at, Position place, Duration around, double withinM) {
        LocalDate day = at.atZone(office.operator().zone()).toLocalDate();
        Map<UUID, Double> near = new HashMap<>();
        em.createQuery("from JobEntity j where j.firstDay <= :late and j.lastDay >= :early", JobEntity.class)
                .setParameter("early", day.minusDays(1))
                .setParameter("late", day.plusDays(1))
                .getResultStream()
                .forEach(j -> {
                    Sites.SiteView site = sites.site(j.siteId);
                    boolean then = JobEntity.windows(j.draft(), site.zone()).stream()
                            .anyMatch(w -> !at.isBefore(w.start().minus(around))
                                    && !at.isAfter(w.end().plus(around)));
                    double distance = then ? site.area().distanceM(place) : Double.MAX_VALUE;
                    if (distance <= withinM) {
                        near.put(j.id, distance);
                    }
                });
        return near.entrySet().stream().min(Map.Entry.comparingByValue()).map(Map.Entry::getKey);
    }

    @Transactional(readOnly = true)
    public Map<UUID, String> names() {
        return em.createQuery("select j.id, j.name from JobEntity j order by j.firstDay desc", Object[].class)
                .getResultStream()
                .collect(Collectors.toMap(
                        r -> (UUID) r[0], r -> (String) r[1], (a, b) -> a, java.util.LinkedHashMap::new));
    }

    List<Row> rows(List<JobEntity> jobs) {
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
                j.said.get("subcategory"),
                j.pilotId,
                j.observerId,
                j.draft().planned().people(),
                j.flights.size(),
                j.pilotId == null ? "no pilot yet" : people.get(j.pilotId),
                j.buildId,
                j.buildId == null ? "no build yet" : builds.get(j.buildId),
                j.state,
                j.breached,
                j.notKnown,
                j.closeCount,
                j.lawBreaches,
                j.departures,
                Tally.Go.valueOf(j.go),
                j.reason,
                j.changedNote);
    }

    private JobEntity entity(UUID id) {
        JobEntity j = em.find(JobEntity.class, id);
        if (j == null) {
            throw new NotFoundException("job");
        }
        return j;
    }
}
