package yarrek.app.jobs;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Sites;
import yarrek.app.airspace.Weather;
import yarrek.app.answers.Answers;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.time.TimeWindow;

/** Reads what the facts of jobs rest on, for one job or for thousands, in the same number of statements. */
@Component
class FactLoader {
    /**
     * A plan whose facts are wanted.
     *
     * @param jobId null while it is not stored
     * @param hours looked at; empty for those of the plan
     */
    record Wanted(UUID jobId, JobDraft draft, List<TimeWindow> hours) {
        Wanted(UUID jobId, JobDraft draft) {
            this(jobId, draft, List.of());
        }
    }

    private final EntityManager em;
    private final Office office;
    private final Airspace airspace;
    private final Sites sites;
    private final Weather weather;
    private final Fleet fleet;
    private final Crew crew;
    private final Papers papers;
    private final Answers answers;
    private final Rulebook rulebook;
    private final Approvals approvals;
    private final Kinds kinds;
    private final Clock clock;

    FactLoader(
            EntityManager em,
            Office office,
            Airspace airspace,
            Sites sites,
            Weather weather,
            Fleet fleet,
            Crew crew,
            Papers papers,
            Answers answers,
            Rulebook rulebook,
            Approvals approvals,
            Kinds kinds,
            Clock clock) {
        this.em = em;
        this.office = office;
        this.airspace = airspace;
        this.sites = sites;
        this.weather = weather;
        this.fleet = fleet;
        this.crew = crew;
        this.papers = papers;
        this.answers = answers;
        this.rulebook = rulebook;
        this.approvals = approvals;
        this.kinds = kinds;
        this.clock = clock;
    }

    FactSources load(Collection<Wanted> wanted) {
        Office.OperatorView operator = office.operator();
        Map<UUID, Sites.SiteView> places =
                sites.sites(all(wanted, w -> w.draft().siteId()));
        Map<UUID, Fleet.BuildView> builds =
                fleet.withSiblings(all(wanted, w -> w.draft().buildId()));
        Set<UUID> pilots = all(wanted, w -> w.draft().pilotId());
        Set<UUID> jobs = all(wanted, Wanted::jobId);
        Set<UUID> holders = new HashSet<>(pilots);
        holders.add(operator.id());
        builds.values().forEach(b -> holders.add(b.aircraft().id()));
        holders.addAll(jobs);
        Set<UUID> about = new HashSet<>(holders);
        about.addAll(places.keySet());
        Map<UUID, List<Approvals.ApprovalView>> requests =
                approvals.of(jobs).stream().collect(Collectors.groupingBy(Approvals.ApprovalView::jobId));
        Map<String, Kinds.Row> kindsByCode =
                kinds.rows().stream().collect(Collectors.toMap(k -> k.kind().code(), Function.identity()));
        Set<UUID> unlocks = requests.values().stream()
                .flatMap(List::stream)
                .filter(a -> Optional.ofNullable(kindsByCode.get(a.kind()))
                        .map(k -> k.kind().unlock())
                        .orElse(false))
                .map(Approvals.ApprovalView::id)
                .collect(Collectors.toSet());
        List<TimeWindow> hours = wanted.stream()
                .flatMap(w -> hours(w, places).stream())
                .sorted(Comparator.comparing(TimeWindow::start))
                .toList();
        return new FactSources(
                operator,
                places,
                builds,
                crew.people(pilots),
                papers.onFile(holders),
                answers.onFile(about),
                rulebook.waiversHeld(jobs),
                requests,
                approvals.stages(unlocks),
                kindsByCode,
                airspace.onFile(),
                weather(places, hours),
                neighbours(wanted, places, builds.keySet(), pilots, hours),
                rulebook::reading,
                rulebook::recency);
    }

    private static Set<UUID> all(Collection<Wanted> wanted, Function<Wanted, UUID> of) {
        return wanted.stream().map(of).filter(Objects::nonNull).collect(Collectors.toSet());
    }

    private static List<TimeWindow> hours(Wanted w, Map<UUID, Sites.SiteView> places) {
        return w.hours().isEmpty()
                ? JobEntity.windows(w.draft(), places.get(w.draft().siteId()).zone())
                : w.hours();
    }

    private Map<UUID, List<Weather.Report>> weather(Map<UUID, Sites.SiteView> places, List<TimeWindow> hours) {
        if (hours.isEmpty()) {
            return Map.of();
        }
        Instant last = hours.stream()
                .map(TimeWindow::end)
                .max(Comparator.naturalOrder())
                .orElseThrow();
        return weather.between(places.keySet(), hours.get(0).start(), last);
    }

    private Neighbours neighbours(
            Collection<Wanted> wanted,
            Map<UUID, Sites.SiteView> places,
            Set<UUID> builds,
            Set<UUID> pilots,
            List<TimeWindow> hours) {
        LocalDate today = LocalDate.now(clock.withZone(java.time.ZoneOffset.UTC));
        LocalDate first =
                hours.isEmpty() ? today : LocalDate.ofInstant(hours.get(0).start(), java.time.ZoneOffset.UTC);
        LocalDate last = wanted.stream()
                .map(w -> w.draft().lastDay())
                .max(Comparator.naturalOrder())
                .orElse(today);
        // a day more on both sides, since the days of other sites are those of their own zones
        List<Object[]> planned = em.createQuery(
                        "select j.id, j.name, j.siteId, j.pilotId, j.buildId, j.emergency, j.firstDay, j.lastDay, j.fromTime,"
                                + " j.toTime from JobEntity j where j.state = :planned and ((j.firstDay <= :last and"
                                + " j.lastDay >= :first and (j.pilotId in :pilots or j.buildId in :builds))"
                                + " or (j.emergency = true and j.siteId in :sites and j.lastDay >= :first))",
                        Object[].class)
                .setParameter("planned", JobEntity.PLANNED)
                .setParameter("first", (first.isBefore(today) ? first : today).minusDays(1))
                .setParameter("last", last.plusDays(2))
                .setParameter("pilots", orNobody(pilots))
                .setParameter("builds", orNobody(builds))
                .setParameter("sites", orNobody(places.keySet()))
                .getResultList();
        Map<UUID, ZoneId> zones = planned.stream().allMatch(j -> places.containsKey((UUID) j[2]))
                ? places.values().stream().collect(Collectors.toMap(Sites.SiteView::id, Sites.SiteView::zone))
                : sites.zones();
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
                clock.instant());
    }

    private static Set<UUID> orNobody(Set<UUID> ids) {
        return ids.isEmpty() ? Stream.of(new UUID(0, 0)).collect(Collectors.toSet()) : ids;
    }
}
