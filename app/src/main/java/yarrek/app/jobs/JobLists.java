package yarrek.app.jobs;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Clock;
import java.time.LocalDate;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Sites;
import yarrek.app.crew.Crew;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;

/** Lists of jobs, each for whoever looks. */
@Service
public class JobLists {
    private final EntityManager em;
    private final Clock clock;
    private final Jobs jobs;
    private final Sites sites;
    private final Crew crew;
    private final Office office;

    JobLists(EntityManager em, Clock clock, Jobs jobs, Sites sites, Crew crew, Office office) {
        this.em = em;
        this.clock = clock;
        this.jobs = jobs;
        this.sites = sites;
        this.crew = crew;
        this.office = office;
    }

    /** Open jobs at a site, soonest first. */
    @Transactional(readOnly = true)
    public List<Jobs.Row> atSite(UUID siteId) {
        return jobs.rows(em.createQuery(
                        "from JobEntity j where j.siteId = :s and j.state = 'PLANNED' order by j.firstDay",
                        JobEntity.class)
                .setParameter("s", siteId)
                .getResultList());
    }

    /** Open jobs that use a build, soonest first. */
    @Transactional(readOnly = true)
    public List<Jobs.Row> usingBuild(UUID buildId) {
        return jobs.rows(em.createQuery(
                        "from JobEntity j where " + JobJudging.HAS_BUILD
                                + " and j.state = 'PLANNED' order by j.firstDay",
                        JobEntity.class)
                .setParameter("p", List.of(buildId))
                .getResultList());
    }

    /** Every job the viewer may see, soonest first. */
    @Transactional(readOnly = true)
    public List<Jobs.Row> all(Viewer viewer) {
        return jobs
                .rows(em.createQuery("from JobEntity j order by j.firstDay, j.fromTime", JobEntity.class)
                        .getResultList())
                .stream()
                .filter(r -> r.seenBy(viewer))
                .toList();
    }

    /** A page of a list of jobs, and how many there are in all. */
    public record Found(List<Jobs.Row> rows, long total) {}

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
                + (viewer.isPilot() ? " and " + JobJudging.HAS_PERSON : "")
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
                q.setParameter("p", Jobs.own(viewer));
            }
            if (!words.isBlank()) {
                q.setParameter("like", like);
                q.setParameter("sites", named(sites.names(), words));
                q.setParameter("pilots", named(crew.names(), words));
            }
        }
        return new Found(jobs.rows(rows.getResultList()), count.getSingleResult());
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
    public List<Jobs.Row> upcoming(Viewer viewer, int most) {
        return jobs.rows(open("from JobEntity j", viewer, "", JobEntity.class)
                .setMaxResults(most)
                .getResultList());
    }

    /** Planned jobs that begin by a day, are not over and have open points, soonest first, that the viewer may see. */
    @Transactional(readOnly = true)
    public Found openPoints(Viewer viewer, LocalDate firstDayBy, int most) {
        String which = " and j.firstDay <= :by and (j.breached > 0 or j.notKnown > 0)";
        List<Jobs.Row> rows = jobs.rows(open("from JobEntity j", viewer, which, JobEntity.class)
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
        return Jobs.names(open("select j.id, j.name from JobEntity j", viewer, "", Object[].class)
                .setMaxResults(most));
    }

    /** Those of some. */
    @Transactional(readOnly = true)
    public Map<UUID, String> openNames(Viewer viewer, Collection<UUID> of) {
        return of.isEmpty()
                ? Map.of()
                : Jobs.names(open("select j.id, j.name from JobEntity j", viewer, " and j.id in :of", Object[].class)
                        .setParameter("of", of));
    }

    /** Rows of those with a day in a span, by identity, soonest first. */
    @Transactional(readOnly = true)
    public Map<UUID, Jobs.Row> openBetween(Viewer viewer, LocalDate first, LocalDate through, int most) {
        Map<UUID, Jobs.Row> rows = new LinkedHashMap<>();
        jobs.rows(open(
                                "from JobEntity j",
                                viewer,
                                " and j.firstDay <= :through and j.lastDay >= :first",
                                JobEntity.class)
                        .setParameter("first", first)
                        .setParameter("through", through)
                        .setMaxResults(most)
                        .getResultList())
                .forEach(r -> rows.put(r.id(), r));
        return rows;
    }

    /** Rows of planned jobs that are not over and that the viewer may see, by identity. */
    @Transactional(readOnly = true)
    public Map<UUID, Jobs.Row> openRows(Viewer viewer, Collection<UUID> of) {
        return of.isEmpty()
                ? Map.of()
                : jobs
                        .rows(open("from JobEntity j", viewer, " and j.id in :of", JobEntity.class)
                                .setParameter("of", of)
                                .getResultList())
                        .stream()
                        .collect(Collectors.toMap(Jobs.Row::id, Function.identity()));
    }

    private <T> TypedQuery<T> open(String from, Viewer viewer, String and, Class<T> as) {
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        String mine = viewer.isPilot() ? " and " + JobJudging.HAS_PERSON : "";
        TypedQuery<T> query = em.createQuery(
                        from + " where j.state = 'PLANNED' and j.lastDay >= :today" + mine + and
                                + " order by j.firstDay, j.fromTime",
                        as)
                .setParameter("today", today);
        return viewer.isPilot() ? query.setParameter("p", Jobs.own(viewer)) : query;
    }
}
