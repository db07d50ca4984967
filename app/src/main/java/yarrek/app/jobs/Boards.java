package yarrek.app.jobs;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Sites;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.core.board.Board;
import yarrek.core.rulebook.Tally;
import yarrek.core.time.TimeWindow;

/** Some weeks of jobs: who, what and where is spoken for. */
@Service
public class Boards {
    private final EntityManager em;
    private final Sites sites;
    private final Crew crew;
    private final Fleet fleet;
    private final Office office;
    private final Aways aways;

    Boards(EntityManager em, Sites sites, Crew crew, Fleet fleet, Office office, Aways aways) {
        this.em = em;
        this.sites = sites;
        this.crew = crew;
        this.fleet = fleet;
        this.office = office;
        this.aways = aways;
    }

    /**
     * The jobs of some weeks that a viewer may see, by whom and what they have.
     *
     * @param kinds what the strands are of; a pilot sees the own strand alone among the crew's
     */
    @Transactional(readOnly = true)
    public Board board(Viewer viewer, LocalDate from, int weeks, Set<Board.Kind> kinds) {
        String state = state();
        Held now = held;
        if (!now.state.equals(state) || now.boards.size() >= MOST_HELD) {
            now = new Held(state, new ConcurrentHashMap<>());
            held = now;
        }
        return now.boards.computeIfAbsent(
                List.of(viewer.isPilot(), Jobs.own(viewer), from, weeks, kinds),
                k -> board(viewer, from, weeks, kinds, Map.of()));
    }

    /** Boards drawn before, by who looks at which weeks: whoever plans looks at the same ones again and again. */
    private record Held(String state, Map<List<Object>, Board> boards) {}

    private static final int MOST_HELD = 6;

    private volatile Held held = new Held("", Map.of());

    /** Moves when a record of anything is changed, or something else is said of a job. */
    private String state() {
        return (String) em.createNativeQuery(
                        "select concat_ws(' ', (select max(id) from revision), (select concat(count(*), ' ', sum(version), ' ',"
                                + " sum(state = 'CANCELLED')) from job),"
                                + " (select sum(version) from assessment where subject_kind = 'J'))")
                .getSingleResult();
    }

    /** How a job would stand, planned otherwise. */
    public record Instead(JobDraft draft, Tally tally) {}

    /** The same with some jobs planned otherwise. */
    @Transactional(readOnly = true)
    public Board board(Viewer viewer, LocalDate from, int weeks, Set<Board.Kind> kinds, Map<UUID, Instead> instead) {
        LocalDate through = from.plusWeeks(weeks).minusDays(1);
        TypedQuery<JobEntity> query = em.createQuery(
                        "from JobEntity j where j.state <> 'CANCELLED' and j.firstDay <= :through and j.lastDay >= :from"
                                + (viewer.isPilot() ? " and " + JobJudging.HAS_PERSON : ""),
                        JobEntity.class)
                .setParameter("from", from.minusDays(1))
                .setParameter("through", through.plusDays(1));
        if (viewer.isPilot()) {
            query.setParameter("p", Jobs.own(viewer));
        }
        List<JobEntity> jobs = query.getResultList();
        Map<UUID, JobDraft> drafts = jobs.stream()
                .collect(Collectors.toMap(
                        j -> j.id,
                        j -> instead.containsKey(j.id) ? instead.get(j.id).draft() : j.draft()));
        Map<UUID, UUID> craft = fleet.aircraftByBuild(drafts.values().stream()
                .flatMap(d -> d.planned().builds().stream())
                .collect(Collectors.toSet()));
        Map<UUID, ZoneId> zones = sites.zones();
        return Board.of(
                from,
                through,
                office.operator().zone(),
                rows(viewer, kinds),
                jobs.stream()
                        .map(j -> job(j, drafts.get(j.id), zones.get(j.siteId), craft, instead.get(j.id)))
                        .toList(),
                aways.between(from, through).stream()
                        .map(a -> new Board.Away(a.whose(), a.first(), a.last(), a.words()))
                        .toList());
    }

    private List<Board.Row> rows(Viewer viewer, Set<Board.Kind> kinds) {
        List<Board.Row> rows = new ArrayList<>();
        if (kinds.contains(Board.Kind.CREW)) {
            crew.all().stream()
                    .filter(p -> viewer.maySee(p.id()))
                    .forEach(p -> rows.add(new Board.Row(p.id(), Board.Kind.CREW, p.name())));
        }
        if (kinds.contains(Board.Kind.AIRCRAFT)) {
            fleet.aircraftNames().entrySet().stream()
                    .sorted(Map.Entry.comparingByValue())
                    .forEach(a -> rows.add(new Board.Row(a.getKey(), Board.Kind.AIRCRAFT, a.getValue())));
        }
        if (kinds.contains(Board.Kind.SITE)) {
            sites.names().forEach((id, name) -> rows.add(new Board.Row(id, Board.Kind.SITE, name)));
        }
        return rows;
    }

    private static Board.Job job(JobEntity j, JobDraft draft, ZoneId zone, Map<UUID, UUID> craft, Instead instead) {
        Map<UUID, List<TimeWindow>> uses = new HashMap<>();
        draft.uses(zone).forEach((who, windows) -> uses.merge(craft.getOrDefault(who, who), windows, Boards::both));
        uses.put(j.siteId, JobEntity.windows(draft, zone));
        if (instead != null) {
            Tally t = instead.tally();
            return new Board.Job(
                    j.id, j.name, shape(t.go(), t.close()), t.go().words(t.departures()), !t.isNoGo(), uses);
        }
        boolean flown = j.state.equals("FLOWN");
        Tally.Go go = Tally.Go.valueOf(j.go);
        return new Board.Job(
                j.id,
                j.name,
                flown ? Tally.shape(j.breached, j.notKnown, j.closeCount) : shape(go, j.closeCount),
                flown ? "flown" : go.words(j.departures),
                flown || go != Tally.Go.NO_GO,
                uses);
    }

    private static String shape(Tally.Go go, int close) {
        return switch (go) {
            case NO_GO -> "notch";
            case ON_THE_DAY -> "dots";
            case GO -> close > 0 ? "cut" : "full";
        };
    }

    /** Hours of two builds of one aircraft, each once. */
    private static List<TimeWindow> both(List<TimeWindow> a, List<TimeWindow> b) {
        List<TimeWindow> all = new ArrayList<>(a);
        b.stream().filter(w -> !all.contains(w)).forEach(all::add);
        return all;
    }
}
