package yarrek.app.approvals;

import jakarta.persistence.EntityManager;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;
import yarrek.app.papers.Papers;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.ApprovalState;
import yarrek.core.approval.Cover;
import yarrek.core.approval.History;
import yarrek.core.approval.Terms;
import yarrek.core.approval.UnlockLife;
import yarrek.core.judging.ApprovalOnFile;
import yarrek.core.units.Finite;

/** The register of requests: state, letters, terms and unlock stages. What is granted becomes a paper and rules. */
@Service
public class Approvals {
    /** Kinds of entries in the correspondence. */
    public enum LetterKind {
        STATE("state"),
        LETTER_IN("came in"),
        LETTER_OUT("went out"),
        CALL("telephone"),
        DESK("desk"),
        NUDGE("asked after it"),
        NOTE("note");

        private final String words;

        LetterKind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** An entry of the correspondence; the file itself is fetched apart. */
    public record Letter(
            UUID id,
            UUID approvalId,
            Instant at,
            LetterKind kind,
            String byWhom,
            String text,
            String fileName,
            String contentType) {}

    /** A file that came with a letter. */
    public record LetterFile(String name, String contentType, byte[] content, UUID approvalId) {}

    /** A stage of an unlock as somebody said it. */
    public record StageSaid(UnlockLife.Stage stage, boolean rehearsal, Instant at, String by, String note) {}

    /** A request as it is begun. */
    public record Draft(
            UUID jobId,
            String kind,
            String zoneId,
            String zoneName,
            int number,
            UUID aircraftId,
            String title,
            String granter,
            LocalDate firstDay,
            LocalDate lastDay,
            Terms request) {}

    /** A request whole. */
    public record ApprovalView(
            UUID id,
            long version,
            UUID jobId,
            String kind,
            String zoneId,
            String zoneName,
            int number,
            UUID aircraftId,
            String title,
            String granter,
            LocalDate firstDay,
            LocalDate lastDay,
            ApprovalState state,
            double hoursSpent,
            Terms request,
            Instant sentAt,
            Instant decidedAt,
            LocalDate nudgedOn,
            String reference,
            Terms terms,
            String conditions,
            String refusal,
            UUID paperId) {
        /** As judging sees it. */
        public ApprovalOnFile onFile(Optional<ApprovalKind> its, List<StageSaid> said) {
            return new ApprovalOnFile(
                    id,
                    kind,
                    its,
                    zoneId,
                    aircraftId,
                    firstDay,
                    lastDay,
                    state.isHeld(),
                    decidedAt == null ? null : LocalDate.ofInstant(decidedAt, ZoneOffset.UTC),
                    reference,
                    granter,
                    terms,
                    conditions,
                    paperId,
                    life(said, false).done());
        }

        /** The state, or that its last day is past. */
        public ApprovalState stateOn(LocalDate today, ZoneId zone) {
            boolean over = state.isHeld()
                    && terms.to() != null
                    && terms.to().atZone(zone).toLocalDate().isBefore(today);
            return over ? ApprovalState.RUN_OUT : state;
        }
    }

    /** What an approval grants, as entered. */
    public record Grant(String reference, Terms terms, String conditions, ZoneId zone) {}

    /** The approvals of a job changed; it is judged again. */
    public record Changed(UUID jobId) {}

    /** Largest file taken with a letter. */
    public static final int MOST_FILE_BYTES = 20 * 1024 * 1024;

    private static final int LONGEST_TEXT = 200_000;

    private final Held<Histories> histories;
    private final EntityManager em;
    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final Kinds kinds;
    private final Papers papers;
    private final Clock clock;
    private final ApplicationEventPublisher events;

    Approvals(
            EntityManager em,
            JdbcClient jdbc,
            JsonMapper json,
            Kinds kinds,
            Papers papers,
            Clock clock,
            ApplicationEventPublisher events,
            Stamps stamps) {
        this.histories = stamps.holding("approval histories", this::readHistories);
        this.em = em;
        this.jdbc = jdbc;
        this.json = json;
        this.kinds = kinds;
        this.papers = papers;
        this.clock = clock;
        this.events = events;
    }

    // --- reading -----------------------------------------------------------------------------------------------------

    private ApprovalEntity entity(UUID id) {
        ApprovalEntity a = em.find(ApprovalEntity.class, id);
        if (a == null) {
            throw new NotFoundException("approval");
        }
        return a;
    }

    private ApprovalView view(ApprovalEntity a) {
        return new ApprovalView(
                a.id,
                a.version,
                a.jobId,
                a.kind,
                a.zoneId,
                a.zoneName,
                a.numberInJob,
                a.aircraftId,
                a.title,
                a.granter,
                a.firstDay,
                a.lastDay,
                a.state,
                a.hoursSpent,
                terms(a.request),
                a.sentAt,
                a.decidedAt,
                a.nudgedOn,
                a.reference,
                terms(a.terms),
                a.conditions,
                a.refusal,
                a.paperId);
    }

    private Terms terms(String stored) {
        return stored.isEmpty() ? Terms.NONE : json.readValue(stored, Terms.class);
    }

    @Transactional(readOnly = true)
    public boolean isThere(UUID id) {
        return em.find(ApprovalEntity.class, id) != null;
    }

    @Transactional(readOnly = true)
    public ApprovalView approval(UUID id) {
        return view(entity(id));
    }

    /** Requests of a job in the order of their days. */
    @Transactional(readOnly = true)
    public List<ApprovalView> of(UUID jobId) {
        return em.createQuery(
                        "from ApprovalEntity a where a.jobId = :j order by a.firstDay, a.title, a.numberInJob",
                        ApprovalEntity.class)
                .setParameter("j", jobId)
                .getResultStream()
                .map(this::view)
                .toList();
    }

    /** Every request of these jobs. */
    @Transactional(readOnly = true)
    public List<ApprovalView> of(Collection<UUID> jobIds) {
        return jobIds.isEmpty()
                ? List.of()
                : em.createQuery(
                                "from ApprovalEntity a where a.jobId in :j order by a.firstDay, a.title, a.numberInJob",
                                ApprovalEntity.class)
                        .setParameter("j", jobIds)
                        .getResultStream()
                        .map(this::view)
                        .toList();
    }

    /** Every request with a day that is not over, in the order of the days. */
    @Transactional(readOnly = true)
    public List<ApprovalView> lasting(LocalDate today) {
        return em.createQuery(
                        "from ApprovalEntity a where a.lastDay >= :today order by a.firstDay, a.title, a.numberInJob",
                        ApprovalEntity.class)
                .setParameter("today", today.minusDays(1))
                .getResultStream()
                .map(this::view)
                .toList();
    }

    /**
     * Requests that a letter about this one may be about as well: of whatever job, day or aircraft, asked of the same granter
     * for the same, and not over.
     *
     * @return of those held only the ones that are held by the same letter
     */
    @Transactional(readOnly = true)
    public List<ApprovalView> besides(UUID id, LocalDate today) {
        ApprovalEntity a = entity(id);
        return em.createQuery(
                        "from ApprovalEntity x where x.kind = :k and x.granter = :g and x.lastDay >= :t and x.id <> :id"
                                + " order by x.firstDay, x.title, x.numberInJob",
                        ApprovalEntity.class)
                .setParameter("k", a.kind)
                .setParameter("g", a.granter)
                .setParameter("t", today)
                .setParameter("id", id)
                .getResultStream()
                .filter(x -> Objects.equals(x.zoneId, a.zoneId))
                .filter(x -> x.state.isHeld() ? sameLetter(x, a) : x.state.may(ApprovalState.GRANTED))
                .map(this::view)
                .toList();
    }

    private static boolean sameLetter(ApprovalEntity a, ApprovalEntity b) {
        return !a.reference.isEmpty() && a.reference.equals(b.reference) && a.granter.equals(b.granter);
    }

    /** Letters on file that were granted for other requests and may answer this one too, the newest first. */
    @Transactional(readOnly = true)
    public List<ApprovalView> lettersFor(UUID id, LocalDate today) {
        ApprovalEntity a = entity(id);
        if (!a.state.may(ApprovalState.GRANTED)) {
            return List.of();
        }
        Map<String, ApprovalView> byNumber = new LinkedHashMap<>();
        em.createQuery(
                        "from ApprovalEntity x where x.kind = :k and x.granter = :g and x.state in :held and x.lastDay >= :t"
                                + " order by x.decidedAt desc",
                        ApprovalEntity.class)
                .setParameter("k", a.kind)
                .setParameter("g", a.granter)
                .setParameter("held", List.of(ApprovalState.GRANTED, ApprovalState.AMENDED))
                .setParameter("t", today.minusYears(1))
                .getResultStream()
                .filter(x -> Objects.equals(x.zoneId, a.zoneId) && !x.reference.isEmpty())
                .map(this::view)
                .filter(x -> x.terms().to() == null
                        || !x.terms()
                                .to()
                                .isBefore(
                                        a.firstDay.atStartOfDay(ZoneOffset.UTC).toInstant()))
                .forEach(x -> byNumber.putIfAbsent(x.reference(), x));
        return List.copyOf(byNumber.values());
    }

    /** Earlier requests of a kind, the newest first, for reuse. */
    @Transactional(readOnly = true)
    public List<ApprovalView> ofKind(String kind) {
        return em.createQuery("from ApprovalEntity a where a.kind = :k order by a.firstDay desc", ApprovalEntity.class)
                .setParameter("k", kind)
                .setMaxResults(50)
                .getResultStream()
                .map(this::view)
                .toList();
    }

    /** How long each granter took for each kind before, in days from sent to decided. */
    public static final class Histories {
        private final Map<List<String>, Optional<History>> byKindAndGranter;

        private Histories(Map<List<String>, Optional<History>> byKindAndGranter) {
            this.byKindAndGranter = byKindAndGranter;
        }

        public Optional<History> of(String kind, String granter) {
            return byKindAndGranter.getOrDefault(List.of(kind, granter), Optional.empty());
        }
    }

    /** Every history. */
    @Transactional(readOnly = true)
    public Histories histories() {
        return histories.get();
    }

    private Histories readHistories() {
        Map<List<String>, List<Integer>> days = em.createQuery(
                        // one letter is one decision, however many days and jobs it answers
                        "select distinct a.kind, a.granter, a.sentAt, a.decidedAt,"
                                + " case when a.reference = '' then cast(a.id as string) else a.reference end"
                                + " from ApprovalEntity a where a.sentAt is not null and a.decidedAt is not null",
                        Object[].class)
                .getResultStream()
                .collect(Collectors.groupingBy(
                        r -> List.of((String) r[0], (String) r[1]),
                        Collectors.mapping(
                                r -> (int) Math.max(0, ChronoUnit.DAYS.between((Instant) r[2], (Instant) r[3])),
                                Collectors.toList())));
        Map<List<String>, Optional<History>> histories = new HashMap<>();
        days.forEach((key, all) -> histories.put(key, History.of(all)));
        return new Histories(histories);
    }

    // --- changing ----------------------------------------------------------------------------------------------------

    /**
     * Has whatever begins requests of a job wait for whoever does so already, on whichever node, so that nothing is begun
     * twice. Before anything else is read in the transaction.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void oneAtATime(UUID jobId) {
        jdbc.sql("select id from job where id = ? for update")
                .param(jobId)
                .query(UUID.class)
                .optional();
    }

    /**
     * What is still to be sent for a job, as its chain was planned last.
     *
     * @param known how many requests
     * @param perhaps how many more where what decides is not known
     * @param late whether one of them should be out by now
     */
    public record ToSend(long known, long perhaps, boolean late) {}

    @Transactional(readOnly = true)
    public ToSend toSend(UUID jobId, LocalDate today) {
        return jdbc.sql(
                        "select coalesce(sum(known), 0), coalesce(sum(not known), 0), coalesce(max(send_by < :today), 0)"
                                + " from chain_due where job_id = :job")
                .param("job", jobId)
                .param("today", today)
                .query((r, i) -> new ToSend(r.getLong(1), r.getLong(2), r.getBoolean(3)))
                .single();
    }

    /**
     * Begins a request.
     *
     * @throws IllegalArgumentException when the job has it already, or its days are in the wrong order
     */
    @Transactional
    public UUID begin(Draft d, String by) {
        if (d.lastDay().isBefore(d.firstDay())) {
            throw new IllegalArgumentException("the last day is before the first");
        }
        boolean there = of(d.jobId()).stream()
                .anyMatch(a -> a.kind().equals(d.kind())
                        && java.util.Objects.equals(a.zoneId(), d.zoneId())
                        && a.number() == d.number()
                        && java.util.Objects.equals(a.aircraftId(), d.aircraftId()));
        if (there) {
            throw new IllegalArgumentException("“" + d.title() + "” is begun already");
        }
        ApprovalEntity a = new ApprovalEntity(UUID.randomUUID());
        a.jobId = d.jobId();
        a.kind = d.kind();
        a.zoneId = d.zoneId();
        a.zoneName = d.zoneName();
        a.numberInJob = d.number();
        a.aircraftId = d.aircraftId();
        a.title = d.title().length() > 300 ? d.title().substring(0, 300) : d.title();
        a.granter = d.granter();
        a.firstDay = d.firstDay();
        a.lastDay = d.lastDay();
        a.request = json.writeValueAsString(d.request());
        em.persist(a);
        em.flush();
        note(a.id, LetterKind.STATE, "begun", by);
        return a.id;
    }

    /** @throws LostUpdateException when somebody else changed it since */
    @Transactional
    public void writeRequest(UUID id, long version, String granter, Terms request) {
        ApprovalEntity a = entity(id);
        if (a.version != version) {
            throw new LostUpdateException(a.version);
        }
        if (a.state != ApprovalState.PREPARING && a.state != ApprovalState.ASKED_BACK) {
            throw new IllegalArgumentException(
                    "it is " + a.state.words() + "; what was asked for stays as it was sent");
        }
        a.granter = granter;
        a.request = json.writeValueAsString(request);
    }

    /** The same for requests that went, or were answered, in one letter; all of them or none. */
    @Transactional
    public void move(Collection<UUID> ids, ApprovalState next, Instant at, String why, String by) {
        ids.forEach(id -> move(id, next, at, why, by));
    }

    /** @throws IllegalArgumentException when it cannot come to that state from where it is */
    @Transactional
    public void move(UUID id, ApprovalState next, Instant at, String why, String by) {
        ApprovalEntity a = entity(id);
        if (next.isHeld()) {
            throw new IllegalArgumentException("say what was granted; its terms are needed");
        }
        a.move(next);
        switch (next) {
            case SENT -> a.sentAt = a.sentAt == null ? at : a.sentAt;
            case REFUSED -> {
                histories.changed();
                a.decidedAt = at;
                a.refusal = cut(why, 2000);
            }
            case PREPARING -> {
                histories.changed();
                a.sentAt = null;
                a.decidedAt = null;
                a.refusal = "";
            }
            case WITHDRAWN -> {
                if (a.paperId != null) {
                    papers.delete(a.paperId);
                    a.paperId = null;
                }
            }
            default -> {
                // asked back: the clock goes on
            }
        }
        em.flush();
        note(id, LetterKind.STATE, next.words() + (why.isBlank() ? "" : ": " + why), by, at);
        if (next == ApprovalState.WITHDRAWN) {
            events.publishEvent(new Changed(a.jobId));
        }
    }

    private static String cut(String s, int most) {
        return s.length() > most ? s.substring(0, most) : s;
    }

    /**
     * Takes what was granted, or how a grant was amended: it becomes a paper of each job, and its conditions become rules. One
     * letter may answer requests of several days, aircraft and jobs.
     *
     * @param ids the requests that the letter answers; all of them or none
     * @throws IllegalArgumentException when one cannot be granted from where it is, or the number stands under a request with
     *     other terms that this letter is not said to answer
     */
    @Transactional
    public void grant(Collection<UUID> ids, Grant g, Instant at, String by) {
        if (g.terms().from() != null
                && g.terms().to() != null
                && g.terms().to().isBefore(g.terms().from())) {
            throw new IllegalArgumentException("it ends before it begins; one of the two times is mistyped");
        }
        List<ApprovalEntity> all = ids.stream().map(this::entity).toList();
        all.forEach(a -> requireOneText(a, ids, g));
        all.forEach(a -> grant(a, g, at, by));
        all.stream().map(a -> a.jobId).distinct().forEach(j -> events.publishEvent(new Changed(j)));
    }

    /** The same, entered on the page of one of them as it stood at that version. */
    @Transactional
    public void grant(UUID on, long version, Collection<UUID> ids, Grant g, Instant at, String by) {
        ApprovalEntity a = entity(on);
        if (a.version != version) {
            throw new LostUpdateException(a.version);
        }
        grant(ids, g, at, by);
    }

    /** The same for a letter that answers one request. */
    @Transactional
    public void grant(UUID id, Grant g, Instant at, String by) {
        grant(List.of(id), g, at, by);
    }

    private void requireOneText(ApprovalEntity a, Collection<UUID> ids, Grant g) {
        em.createQuery(
                        "from ApprovalEntity x where x.reference = :r and x.granter = :g and x.state in :held",
                        ApprovalEntity.class)
                .setParameter("r", g.reference())
                .setParameter("g", a.granter)
                .setParameter("held", List.of(ApprovalState.GRANTED, ApprovalState.AMENDED))
                .getResultStream()
                .filter(o -> !ids.contains(o.id))
                .map(this::view)
                .filter(o -> !o.terms().equals(g.terms()))
                .findFirst()
                .ifPresent(o -> {
                    throw new IllegalArgumentException(
                            "number " + g.reference() + " is on file with other terms under “"
                                    + o.title()
                                    + "”; the two documents contradict each other. Ask the granter, then enter it for both");
                });
    }

    private void grant(ApprovalEntity a, Grant g, Instant at, String by) {
        boolean amended = a.state.isHeld();
        a.move(amended ? ApprovalState.AMENDED : ApprovalState.GRANTED);
        if (!amended) {
            histories.changed();
            a.decidedAt = at;
        }
        a.reference = g.reference();
        a.terms = json.writeValueAsString(g.terms());
        a.conditions = g.conditions();
        a.refusal = "";
        Kinds.Row kind = kinds.row(a.kind);
        a.paperId = papers.save(a.paperId, paperVersion(a), entry(a, kind.kind(), g), by);
        em.flush();
        note(a.id, LetterKind.STATE, (amended ? "amended: " : "granted: ") + g.reference(), by, at);
    }

    private long paperVersion(ApprovalEntity a) {
        return a.paperId == null ? -1 : papers.version(a.paperId);
    }

    private static Papers.Entry entry(ApprovalEntity a, ApprovalKind k, Grant g) {
        LocalDate from = g.terms().from() == null
                ? null
                : g.terms().from().atZone(g.zone()).toLocalDate();
        LocalDate to =
                g.terms().to() == null ? null : g.terms().to().atZone(g.zone()).toLocalDate();
        boolean openTime = g.terms().leavesOpen(Cover.Dimension.TIME);
        return new Papers.Entry(
                k.gives().paper(),
                k.gives().level().isEmpty() ? null : k.gives().level(),
                g.reference(),
                cut(a.granter, 160),
                "",
                "job",
                a.jobId,
                a.decidedAt.atZone(g.zone()).toLocalDate(),
                from,
                to,
                to != null || openTime,
                g.zone(),
                Math.min(1000, k.worst().days()),
                cut(g.conditions(), 2000),
                "terms on the approval's page",
                null,
                cut(lifts(a, k, g), 1000),
                Papers.Terms.NONE);
    }

    /** What it lifts: the zone it is for, else the rules its kind answers; and the facts it settles. */
    private static String lifts(ApprovalEntity a, ApprovalKind k, Grant g) {
        List<String> lifts = new ArrayList<>();
        if (a.zoneId != null && a.zoneId.indexOf(' ') < 0) {
            lifts.add(a.zoneId);
        } else if (!k.unlock() && a.zoneId == null) {
            lifts.addAll(new java.util.TreeSet<>(k.trigger().answers()));
        }
        new java.util.TreeMap<>(k.gives().facts()).forEach((fact, value) -> {
            if (!value.equals("ceiling")) {
                lifts.add(fact + "=" + value);
            } else if (g.terms().ceilingM() != null) {
                lifts.add(fact + "=" + Finite.format(g.terms().ceilingM()));
            }
        });
        return String.join(" ", lifts);
    }

    /** More hours of work on it; never below zero in all. */
    @Transactional
    public void spend(UUID id, double hours, String by) {
        ApprovalEntity a = entity(id);
        if (!(hours >= -1000 && hours <= 1000)) {
            throw new IllegalArgumentException("hours must be from -1,000 to 1,000, got " + hours);
        }
        a.hoursSpent = Math.max(0, a.hoursSpent + hours);
        note(id, LetterKind.NOTE, Finite.format(hours) + " h of work", by);
    }

    // --- letters -----------------------------------------------------------------------------------------------------

    private void note(UUID id, LetterKind kind, String text, String by) {
        note(id, kind, text, by, clock.instant());
    }

    private UUID note(UUID id, LetterKind kind, String text, String by, Instant at) {
        LetterEntity l = new LetterEntity(UUID.randomUUID());
        l.approvalId = id;
        l.at = at;
        l.kind = kind;
        l.byWhom = by;
        l.text = cut(text, LONGEST_TEXT);
        em.persist(l);
        return l.id;
    }

    /** The newest letter that went out to a granter and begins so; empty when none does. */
    @Transactional(readOnly = true)
    public Optional<String> lastTo(String granter, String beginning) {
        return em.createQuery(
                        "select l.text from LetterEntity l, ApprovalEntity a where a.id = l.approvalId and a.granter = :g"
                                + " and l.kind = :k and l.text like :b order by l.at desc",
                        String.class)
                .setParameter("g", granter)
                .setParameter("k", LetterKind.LETTER_OUT)
                .setParameter("b", beginning + "%")
                .setMaxResults(1)
                .getResultStream()
                .findFirst();
    }

    /**
     * Keeps a message as its letter with the message itself, and each of its files apart.
     *
     * @throws IllegalArgumentException when it is too large; nothing is stored then
     */
    @Transactional
    public void keepMessage(
            Collection<UUID> ids,
            LetterKind kind,
            Instant at,
            String text,
            String fileName,
            byte[] message,
            List<Map.Entry<String, byte[]>> files,
            String by) {
        keep(ids, kind, at, text, fileName, message, by);
        files.forEach(f -> keep(ids, kind, at, "", f.getKey(), f.getValue(), by));
    }

    /** Notes that a letter went out for some requests: it is kept, and they are sent; all of it or nothing. */
    @Transactional
    public void wentOut(
            Collection<UUID> ids, Instant at, String text, String fileName, byte[] file, String why, String by) {
        keep(ids, LetterKind.LETTER_OUT, at, text, fileName, file, by);
        move(ids, ApprovalState.SENT, at, why, by);
    }

    /** Keeps what a desk said. */
    @Transactional
    public void deskSaid(UUID id, String text) {
        note(id, LetterKind.DESK, text, "desk");
    }

    /**
     * Keeps a letter, a call or a note, with a file or without.
     *
     * @throws IllegalArgumentException when there is neither text nor a file, or either is too large
     */
    @Transactional
    public void keep(
            Collection<UUID> ids, LetterKind kind, Instant at, String text, String fileName, byte[] file, String by) {
        ids.forEach(id -> keep(id, kind, at, text, fileName, file, by));
    }

    /** The same for one request. */
    @Transactional
    public UUID keep(UUID id, LetterKind kind, Instant at, String text, String fileName, byte[] file, String by) {
        ApprovalEntity a = entity(id);
        boolean withFile = file != null && file.length > 0;
        if (text.isBlank() && !withFile) {
            throw new IllegalArgumentException("there is neither a text nor a file to keep");
        }
        if (text.length() > LONGEST_TEXT || (withFile && file.length > MOST_FILE_BYTES)) {
            throw new IllegalArgumentException(
                    "a letter may have at most 200,000 characters and a file of 20 MB; nothing was stored");
        }
        UUID letter = note(id, kind, text.strip(), by, at);
        if (withFile) {
            LetterEntity l = em.find(LetterEntity.class, letter);
            l.fileName = cut(fileName.replaceAll("[\\\\/\"\\p{Cntrl}]", "_"), 255);
            l.contentType = type(file);
            l.content = file;
        }
        if (kind == LetterKind.NUDGE) {
            a.nudgedOn = at.atZone(ZoneOffset.UTC).toLocalDate();
        }
        return letter;
    }

    /** By its content: what is neither a PDF nor a picture nor plain text is handed out as bytes. */
    private static String type(byte[] b) {
        String head = new String(b, 0, Math.min(8, b.length), StandardCharsets.ISO_8859_1);
        if (head.startsWith("%PDF-")) {
            return "application/pdf";
        }
        if (head.startsWith("\u0089PNG")) {
            return "image/png";
        }
        if (head.startsWith("\u00ff\u00d8\u00ff")) {
            return "image/jpeg";
        }
        for (byte x : b) {
            if (x == 0) {
                return "application/octet-stream";
            }
        }
        return "text/plain";
    }

    /** The correspondence, oldest first, without the files. */
    @Transactional(readOnly = true)
    public List<Letter> letters(UUID id) {
        return em.createQuery(
                        "select l.id, l.at, l.kind, l.byWhom, l.text, l.fileName, l.contentType from LetterEntity l where l.approvalId = :a order by l.at, l.id",
                        Object[].class)
                .setParameter("a", id)
                .getResultStream()
                .map(r -> new Letter(
                        (UUID) r[0],
                        id,
                        (Instant) r[1],
                        (LetterKind) r[2],
                        (String) r[3],
                        (String) r[4],
                        (String) r[5],
                        (String) r[6]))
                .toList();
    }

    @Transactional(readOnly = true)
    public LetterFile file(UUID letterId) {
        LetterEntity l = em.find(LetterEntity.class, letterId);
        if (l == null || l.content == null) {
            throw new NotFoundException("file");
        }
        return new LetterFile(l.fileName, l.contentType, l.content, l.approvalId);
    }

    // --- unlocks -----------------------------------------------------------------------------------------------------

    @Transactional(readOnly = true)
    public Map<UUID, List<StageSaid>> stages(Collection<UUID> ids) {
        return ids.isEmpty()
                ? Map.of()
                : jdbc
                        .sql("select approval_id, stage, rehearsal, done_at, by_whom, note from unlock_stage"
                                + " where approval_id in (:ids) order by done_at")
                        .param("ids", ids)
                        .query((r, i) -> Map.entry(
                                r.getObject(1, UUID.class),
                                new StageSaid(
                                        UnlockLife.Stage.valueOf(r.getString(2)),
                                        r.getBoolean(3),
                                        r.getTimestamp(4).toInstant(),
                                        r.getString(5),
                                        r.getString(6))))
                        .list()
                        .stream()
                        .collect(Collectors.groupingBy(
                                Map.Entry::getKey, Collectors.mapping(Map.Entry::getValue, Collectors.toList())));
    }

    @Transactional(readOnly = true)
    public List<StageSaid> stages(UUID id) {
        return jdbc.sql(
                        "select stage, rehearsal, done_at, by_whom, note from unlock_stage where approval_id = ? order by done_at")
                .param(id)
                .query((r, i) -> new StageSaid(
                        UnlockLife.Stage.valueOf(r.getString(1)),
                        r.getBoolean(2),
                        r.getTimestamp(3).toInstant(),
                        r.getString(4),
                        r.getString(5)))
                .list();
    }

    /** How far an unlock has come, for real or in the rehearsal. */
    public static UnlockLife life(List<StageSaid> said, boolean rehearsal) {
        Map<UnlockLife.Stage, Boolean> done = new EnumMap<>(UnlockLife.Stage.class);
        said.stream().filter(s -> s.rehearsal() == rehearsal).forEach(s -> done.put(s.stage(), true));
        return UnlockLife.of(done.keySet(), true);
    }

    /**
     * Somebody says that a stage is done; said again it counts from then.
     *
     * @throws IllegalArgumentException when an earlier stage has not been said, or nothing is granted yet
     */
    @Transactional
    public void say(UUID id, UnlockLife.Stage stage, boolean rehearsal, String note, String by) {
        ApprovalEntity a = entity(id);
        if (!a.state.isHeld()) {
            throw new IllegalArgumentException(
                    "it is " + a.state.words() + "; nothing can be loaded before it is granted");
        }
        Optional<UnlockLife.Stage> next = life(stages(id), rehearsal).next();
        if (next.isPresent() && stage.compareTo(next.get()) > 0) {
            throw new IllegalArgumentException(
                    "say first that it is " + next.get().words());
        }
        jdbc.sql(
                        "replace into unlock_stage (approval_id, stage, rehearsal, done_at, by_whom, note) values (?, ?, ?, ?, ?, ?)")
                .params(id, stage.name(), rehearsal, java.sql.Timestamp.from(clock.instant()), by, cut(note, 400))
                .update();
        note(
                id,
                LetterKind.NOTE,
                (rehearsal ? "rehearsed: " : "") + stage.words() + (note.isBlank() ? "" : ", " + note),
                by);
    }

    /** Takes a stage, and every later one, back. */
    @Transactional
    public void unsay(UUID id, UnlockLife.Stage stage, boolean rehearsal, String by) {
        for (UnlockLife.Stage s : UnlockLife.Stage.values()) {
            if (s.compareTo(stage) >= 0) {
                jdbc.sql("delete from unlock_stage where approval_id = ? and stage = ? and rehearsal = ?")
                        .params(id, s.name(), rehearsal)
                        .update();
            }
        }
        note(id, LetterKind.NOTE, "taken back: " + stage.words(), by);
    }
}
