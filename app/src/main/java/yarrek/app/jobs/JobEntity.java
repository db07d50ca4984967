package yarrek.app.jobs;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.Convert;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.hibernate.annotations.BatchSize;
import org.hibernate.annotations.OptimisticLock;
import org.hibernate.envers.Audited;
import org.hibernate.envers.NotAudited;
import yarrek.app.judging.Judging;
import yarrek.core.judging.Arranged;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.LocalClock;
import yarrek.core.time.TimeWindow;

/** A job. Invariant: the last day is not before the first. */
@Audited
@Entity
@Table(name = "job")
class JobEntity {
    static final String PLANNED = "PLANNED";

    /** Days of one job; more are planned as several jobs. */
    static final int MAX_DAYS = 60;

    private static final int MOST_NOTE = 990;

    @Id
    UUID id;

    @Version
    long version;

    String name;
    UUID siteId;
    LocalDate firstDay;
    LocalDate lastDay;
    LocalTime fromTime;
    LocalTime toTime;

    @Column(name = "height_m")
    Double heightM;

    @Enumerated(EnumType.STRING)
    JobDraft.HeightReference heightReference;

    /** What the plan says by the words of the vocabulary, as stored; words that are no longer known stay. */
    @Convert(converter = SaidConverter.class)
    Map<String, String> said = new TreeMap<>();

    /** Of what is said, that an emergency goes on: other jobs of the site are looked up by it. */
    @Column(insertable = false, updatable = false)
    @NotAudited
    Boolean emergency;

    UUID pilotId;
    UUID observerId;
    UUID buildId;

    /** In their order; none where the whole job is one flight as it says itself. */
    @ElementCollection
    @CollectionTable(name = "planned_flight", joinColumns = @JoinColumn(name = "job_id"))
    @OrderColumn(name = "number")
    @BatchSize(size = 500)
    List<FlightRow> flights = new ArrayList<>();

    /** Hours of days that differ, who is there without a flight, why the builds go. */
    @ElementCollection
    @CollectionTable(name = "job_besides", joinColumns = @JoinColumn(name = "job_id"))
    @OrderColumn(name = "number")
    @BatchSize(size = 500)
    List<BesidesRow> besides = new ArrayList<>();

    /** What is to be filmed, in its order: nothing of it is judged. */
    @ElementCollection
    @CollectionTable(name = "shot", joinColumns = @JoinColumn(name = "job_id"))
    @OrderColumn(name = "number")
    List<ShotRow> shots = new ArrayList<>();

    String state;

    // what judging says of it is nobody's edit: whoever has the job open loses nothing to it

    @OptimisticLock(excluded = true)
    @NotAudited
    int breached;

    @OptimisticLock(excluded = true)
    @NotAudited
    int notKnown;

    @OptimisticLock(excluded = true)
    @NotAudited
    int closeCount;

    @OptimisticLock(excluded = true)
    @NotAudited
    int lawBreaches;

    @OptimisticLock(excluded = true)
    @NotAudited
    int departures;

    @OptimisticLock(excluded = true)
    @NotAudited
    String go;

    @OptimisticLock(excluded = true)
    @NotAudited
    String reason;

    @OptimisticLock(excluded = true)
    @NotAudited
    String changedNote;

    protected JobEntity() {} // for JPA only

    JobEntity(UUID id) {
        this.id = id;
        this.state = PLANNED;
        this.go = "NO_GO";
        this.reason = "not yet assessed";
        this.changedNote = "";
    }

    void take(JobDraft d) {
        if (d.lastDay().isBefore(d.firstDay())) {
            throw new IllegalArgumentException(
                    "the last day (" + d.lastDay() + ") is before the first (" + d.firstDay() + ")");
        }
        if (d.firstDay().plusDays(MAX_DAYS).isBefore(d.lastDay())) {
            throw new IllegalArgumentException("a job has at most " + MAX_DAYS + " days; plan the rest as another job");
        }
        name = d.name();
        siteId = d.siteId();
        firstDay = d.firstDay();
        lastDay = d.lastDay();
        fromTime = d.from();
        toTime = d.to();
        heightM = d.heightM();
        heightReference = d.heightReference();
        Map<String, String> all = new TreeMap<>();
        said.forEach((fact, text) -> {
            if (!Vocabulary.knows(fact)) {
                all.put(fact, text);
            }
        });
        d.said().forEach((fact, value) -> all.put(fact, value.text()));
        said = all;
        pilotId = d.pilotId();
        observerId = d.observerId();
        buildId = d.buildId();
        put(flights, d.flights().stream().map(FlightRow::new).toList());
        put(besides, BesidesRow.of(d.besides()));
    }

    /** Rows that are the same already stay untouched. */
    private static <T> void put(List<T> rows, List<T> now) {
        if (!now.equals(rows)) {
            rows.clear();
            rows.addAll(now);
        }
    }

    /** @param because what had it judged again; empty when nobody is to be told of what changed */
    void judged(Judging.Judgement now, String because) {
        breached = now.tally().breached();
        lawBreaches = now.tally().law();
        departures = now.tally().departures();
        notKnown = now.tally().notKnown();
        closeCount = now.tally().close();
        go = now.tally().go().name();
        reason = now.assessment().reason();
        if (!because.isEmpty() && !now.difference().isEmpty()) {
            String note = because + ": " + now.difference();
            changedNote = note.length() > MOST_NOTE ? note.substring(0, MOST_NOTE) + "…" : note;
        }
    }

    JobDraft draft() {
        return new JobDraft(
                name,
                siteId,
                firstDay,
                lastDay,
                fromTime,
                toTime,
                heightM,
                heightReference,
                pilotId,
                observerId,
                buildId,
                values(said),
                flights.stream().map(FlightRow::flight).toList(),
                BesidesRow.arranged(besides));
    }

    private static Map<String, FactValue> values(Map<String, String> said) {
        return said.entrySet().stream()
                .filter(e -> Vocabulary.knows(e.getKey()))
                .collect(Collectors.toMap(
                        Map.Entry::getKey, e -> FactValue.of(Vocabulary.define(e.getKey()), e.getValue())));
    }

    /** @throws IllegalArgumentException when the clocks skip a beginning or an end */
    static void requireClock(JobDraft d, ZoneId zone) {
        FlightsPlanned.Job job = d.planned().job();
        for (LocalDate day = d.firstDay(); !day.isAfter(d.lastDay()); day = day.plusDays(1)) {
            Arranged.Hours h = job.hours(day);
            for (LocalDateTime t : List.of(day.atTime(h.from()), end(day, h))) {
                if (LocalClock.isSkipped(t, zone)) {
                    throw new IllegalArgumentException(
                            "the clocks change in the night of " + t.toLocalDate() + ": " + t.toLocalTime()
                                    + " does not exist there; choose another hour, or give that day hours of its own");
                }
            }
        }
    }

    private static LocalDateTime end(LocalDate day, Arranged.Hours h) {
        return (h.isPastMidnight() ? day.plusDays(1) : day).atTime(h.to());
    }

    /**
     * One window for each day; one that ends at or before its start runs past midnight. Of an hour that comes twice it
     * holds both.
     */
    static List<TimeWindow> windows(JobDraft d, ZoneId zone) {
        return windows(d, d.firstDay(), d.lastDay(), zone);
    }

    /** The same of some of its days. */
    static List<TimeWindow> windows(JobDraft d, LocalDate first, LocalDate last, ZoneId zone) {
        return windows(first, last, d.planned().job()::hours, zone);
    }

    static List<TimeWindow> windows(
            LocalDate first, LocalDate last, Function<LocalDate, Arranged.Hours> hours, ZoneId zone) {
        return first.datesUntil(last.plusDays(1))
                .map(day -> new TimeWindow(
                        day.atTime(hours.apply(day).from()).atZone(zone).toInstant(),
                        end(day, hours.apply(day))
                                .atZone(zone)
                                .withLaterOffsetAtOverlap()
                                .toInstant()))
                .toList();
    }
}
