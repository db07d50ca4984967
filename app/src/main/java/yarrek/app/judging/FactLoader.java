package yarrek.app.judging;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
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
import yarrek.app.office.HouseFigures;
import yarrek.app.office.Office;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.judging.Neighbours;
import yarrek.core.time.TimeWindow;
import yarrek.core.weather.Report;

/** Reads what the facts of plans and flights rest on, for one or for thousands, in the same number of statements. */
@Component
public class FactLoader {
    private final Office office;
    private final HouseFigures houseFigures;
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
            Office office,
            HouseFigures houseFigures,
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
        this.office = office;
        this.houseFigures = houseFigures;
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

    /**
     * @param flown hours that are looked at besides those of the plans, such as those of flights
     * @param neighbours reads the planned jobs that share a pilot, a build or a place with these
     */
    public FactSources load(
            Collection<Wanted> wanted, List<TimeWindow> flown, Function<Neighbourhood, Neighbours> neighbours) {
        Office.OperatorView operator = office.operator();
        Map<UUID, Sites.SiteView> places = sites.sites(all(wanted, Wanted::siteId));
        Set<UUID> craft = all(wanted, Wanted::craftId);
        Map<UUID, Fleet.BuildView> builds = fleet.withSiblings(all(wanted, Wanted::buildId), craft);
        Set<UUID> pilots = all(wanted, Wanted::pilotId);
        Set<UUID> jobs = all(wanted, Wanted::jobId);
        Set<UUID> holders = new HashSet<>(pilots);
        holders.add(operator.id());
        builds.values().forEach(b -> holders.add(b.aircraft().id()));
        holders.addAll(craft);
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
        List<TimeWindow> hours = Stream.concat(
                        flown.stream(),
                        wanted.stream()
                                .filter(w -> w.siteId() != null)
                                .flatMap(w ->
                                        w.plan().apply(places.get(w.siteId()).zone()).windows().stream()))
                .sorted(Comparator.comparing(TimeWindow::start))
                .toList();
        Map<UUID, List<Fleet.BuildView>> buildsOf = builds.values().stream()
                .collect(Collectors.groupingBy(b -> b.aircraft().id()));
        Set<UUID> unbuilt = new HashSet<>(craft);
        unbuilt.removeAll(buildsOf.keySet());
        return new FactSources(
                operator,
                places,
                builds,
                buildsOf,
                fleet.aircraftOf(unbuilt),
                crew.people(pilots),
                papers.onFile(holders),
                answers.onFile(about),
                rulebook.waiversHeld(jobs),
                requests,
                approvals.stages(unlocks),
                kindsByCode,
                airspace.onFile(),
                weather(places, hours),
                neighbours.apply(neighbourhood(wanted, places, builds.keySet(), people(wanted), hours)),
                houseFigures.house(),
                rulebook::reading,
                rulebook::recency,
                rulebook::packOf);
    }

    /**
     * Whose other jobs are wanted, and in which days.
     *
     * @param first day on which one may still overlap
     * @param last day on which one may still overlap
     * @param ongoing day on which one that declares an emergency may still go on
     */
    public record Neighbourhood(
            Set<UUID> sites,
            Set<UUID> builds,
            Set<UUID> people,
            LocalDate first,
            LocalDate last,
            LocalDate ongoing,
            Instant now) {}

    private static Set<UUID> people(Collection<Wanted> wanted) {
        return wanted.stream()
                .flatMap(w -> Stream.concat(Stream.ofNullable(w.pilotId()), w.crew().stream()))
                .collect(Collectors.toSet());
    }

    private static Set<UUID> all(Collection<Wanted> wanted, Function<Wanted, UUID> of) {
        return wanted.stream().map(of).filter(Objects::nonNull).collect(Collectors.toSet());
    }

    private Map<UUID, List<Report>> weather(Map<UUID, Sites.SiteView> places, List<TimeWindow> hours) {
        if (hours.isEmpty()) {
            return Map.of();
        }
        Instant last = hours.stream()
                .map(TimeWindow::end)
                .max(Comparator.naturalOrder())
                .orElseThrow();
        return weather.between(places.keySet(), hours.get(0).start(), last);
    }

    private Neighbourhood neighbourhood(
            Collection<Wanted> wanted,
            Map<UUID, Sites.SiteView> places,
            Set<UUID> builds,
            Set<UUID> people,
            List<TimeWindow> hours) {
        LocalDate today = LocalDate.now(clock.withZone(java.time.ZoneOffset.UTC));
        LocalDate first =
                hours.isEmpty() ? today : LocalDate.ofInstant(hours.get(0).start(), java.time.ZoneOffset.UTC);
        LocalDate last = wanted.stream()
                .map(Wanted::through)
                .max(Comparator.naturalOrder())
                .orElse(today);
        // a day more on both sides, since the days of other sites are those of their own zones
        return new Neighbourhood(
                places.keySet(),
                builds,
                people,
                first.minusDays(1),
                last.plusDays(2),
                (first.isBefore(today) ? first : today).minusDays(1),
                clock.instant());
    }
}
