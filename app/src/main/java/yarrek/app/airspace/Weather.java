package yarrek.app.airspace;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.time.TimeWindow;
import yarrek.core.weather.Observation;
import yarrek.formats.weather.Metar;

/** Weather on file for a site: reports read, figures typed, hours forecast. */
@Service
public class Weather {
    /** An observation counts for this long after it; a forecast hour for half an hour around it. */
    static final Duration HOLDS = Duration.ofMinutes(75);

    private static final Duration FORECAST_HOLDS = Duration.ofMinutes(30);

    /** Where a report comes from. */
    public enum Kind {
        METAR("report read"),
        TYPED("typed"),
        FORECAST("forecast");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public record Report(
            UUID id,
            Instant at,
            Kind kind,
            String raw,
            Observation observation,
            String source,
            String enteredBy,
            Instant enteredAt) {
        /** Whether the report speaks for an instant. */
        boolean speaksFor(Instant t) {
            Duration after = Duration.between(at, t);
            return kind == Kind.FORECAST
                    ? after.abs().compareTo(FORECAST_HOLDS) <= 0
                    : !after.isNegative() && after.compareTo(HOLDS) <= 0;
        }
    }

    /** Weather of a site came in; its jobs are judged again. */
    public record WeatherCame(UUID siteId) {}

    private final EntityManager em;
    private final Clock clock;
    private final JsonMapper json;
    private final ApplicationEventPublisher events;

    Weather(EntityManager em, Clock clock, JsonMapper json, ApplicationEventPublisher events) {
        this.em = em;
        this.clock = clock;
        this.json = json;
        this.events = events;
    }

    /** @throws IllegalArgumentException when the text is no report */
    @Transactional
    public Metar.Reading addMetar(UUID siteId, String text, String source, String by) {
        Metar.Reading r = Metar.read(text, clock.instant());
        add(siteId, Kind.METAR, text.strip(), List.of(r.observation()), source, by);
        return r;
    }

    @Transactional
    public void add(UUID siteId, Kind kind, String raw, List<Observation> observations, String source, String by) {
        for (Observation o : observations) {
            WeatherReportEntity w = new WeatherReportEntity(UUID.randomUUID());
            w.siteId = siteId;
            w.at = o.at();
            w.kind = kind.name();
            w.raw = raw.length() > 800 ? raw.substring(0, 800) : raw;
            w.observation = json.writeValueAsString(o);
            w.source = source;
            w.enteredBy = by;
            w.enteredAt = clock.instant();
            em.persist(w);
        }
        em.flush();
        events.publishEvent(new WeatherCame(siteId));
    }

    /** Reports of a site for a stretch of time, the newest entry of the same time and kind alone, in order of time. */
    @Transactional(readOnly = true)
    public List<Report> between(UUID siteId, Instant from, Instant to) {
        return between(List.of(siteId), from, to).getOrDefault(siteId, List.of());
    }

    /** The same for many sites, in one statement. */
    @Transactional(readOnly = true)
    public Map<UUID, List<Report>> between(Collection<UUID> siteIds, Instant from, Instant to) {
        Map<UUID, List<Report>> bySite = new HashMap<>();
        if (siteIds.isEmpty()) {
            return bySite;
        }
        em.createQuery(
                        "from WeatherReportEntity w where w.siteId in :s and w.at >= :f and w.at <= :t order by w.at, w.enteredAt desc",
                        WeatherReportEntity.class)
                .setParameter("s", siteIds)
                .setParameter("f", from.minus(HOLDS))
                .setParameter("t", to.plus(FORECAST_HOLDS))
                .getResultStream()
                .forEach(w -> {
                    List<Report> all = bySite.computeIfAbsent(w.siteId, k -> new ArrayList<>());
                    Kind kind = Kind.valueOf(w.kind);
                    if (all.stream().noneMatch(o -> o.at().equals(w.at) && o.kind() == kind)) {
                        all.add(report(w, kind));
                    }
                });
        return bySite;
    }

    private Report report(WeatherReportEntity w, Kind kind) {
        return new Report(
                w.id,
                w.at,
                kind,
                w.raw,
                json.readValue(w.observation, Observation.class),
                w.source,
                w.enteredBy,
                w.enteredAt);
    }

    /** The instant that stands for an hour: a second before half past, for at half past the next forecast is as near. */
    public static Instant middleOfHour(Instant start) {
        return start.plusSeconds(1799);
    }

    /** The report that speaks for an instant: an observation before a forecast, the newest first. */
    static Optional<Report> at(List<Report> reports, Instant t) {
        return reports.stream()
                .filter(r -> r.speaksFor(t))
                .max(Comparator.<Report, Boolean>comparing(r -> r.kind() != Kind.FORECAST)
                        .thenComparing(Report::at)
                        .thenComparing(Report::enteredAt));
    }

    /** Reports that together speak for every half hour of the windows; empty when some of it has none. */
    public static Optional<List<Report>> covering(List<Report> reports, List<TimeWindow> windows) {
        List<Report> used = new ArrayList<>();
        for (TimeWindow w : windows) {
            for (Instant t = w.start(); !t.isAfter(w.end()); t = t.plus(FORECAST_HOLDS)) {
                Optional<Report> r = at(reports, t);
                if (r.isEmpty()) {
                    return Optional.empty();
                }
                if (!used.contains(r.get())) {
                    used.add(r.get());
                }
            }
        }
        return used.isEmpty() ? Optional.empty() : Optional.of(used);
    }
}
