package yarrek.app.airspace;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.weather.Observation;
import yarrek.core.weather.Report;
import yarrek.formats.weather.Metar;

/** Weather on file for a site: reports read, figures typed, hours forecast. */
@Service
public class Weather {
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
        add(siteId, Report.Kind.METAR, text.strip(), List.of(r.observation()), source, by);
        return r;
    }

    @Transactional
    public void add(
            UUID siteId, Report.Kind kind, String raw, List<Observation> observations, String source, String by) {
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
                .setParameter("f", from.minus(Report.HOLDS))
                .setParameter("t", to.plus(Report.FORECAST_HOLDS))
                .getResultStream()
                .forEach(w -> {
                    List<Report> all = bySite.computeIfAbsent(w.siteId, k -> new ArrayList<>());
                    Report.Kind kind = Report.Kind.valueOf(w.kind);
                    if (all.stream().noneMatch(o -> o.at().equals(w.at) && o.kind() == kind)) {
                        all.add(report(w, kind));
                    }
                });
        return bySite;
    }

    private Report report(WeatherReportEntity w, Report.Kind kind) {
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
}
