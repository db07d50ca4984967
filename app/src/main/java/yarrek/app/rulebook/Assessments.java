package yarrek.app.rulebook;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;
import javax.sql.DataSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionOperations;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;

/**
 * Assessments as they are stored: the findings and facts of each packed without the words of its rules, which are kept once
 * for all that were judged by them; beside it, in rows, what is asked of many at once.
 */
@Component
public class Assessments {
    /** What an assessment is of. */
    public enum Kind {
        JOB("J"),
        FLIGHT("F");

        private final String code;

        Kind(String code) {
            this.code = code;
        }
    }

    /**
     * A paper that a rule which applies wants of somebody or of an aircraft.
     *
     * @param levels any of which will do; empty for any
     */
    public record Need(String ruleId, UUID holderId, String kind, Set<String> levels) {}

    /** A finding without its words; names are short, for there are many of them. */
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    private record Said(
            int w,
            Verdict v,
            String s,
            FindingRow.GaugeRow g,
            List<String> m,
            List<FindingRow.IntervalRow> i,
            String b,
            boolean d,
            String x,
            boolean o,
            String c) {}

    private record Seen(String n, String v, String s) {}

    private record Body(List<Said> findings, List<Seen> facts) {}

    private final JdbcTemplate jdbc;
    private final NamedParameterJdbcTemplate named;
    private final JsonMapper json;
    private final TransactionOperations apart;
    private final Map<RuleWords.Same<RuleWords>, Integer> idByWords = new ConcurrentHashMap<>();
    private final Map<String, Integer> idBySha = new ConcurrentHashMap<>();
    private final Map<Integer, String> textById = new ConcurrentHashMap<>();
    private final Map<Integer, RuleWords> wordsById = new ConcurrentHashMap<>();

    @Autowired
    Assessments(JdbcTemplate jdbc, JsonMapper json, PlatformTransactionManager transactions) {
        this(jdbc, json, apart(transactions));
    }

    /** On a database of which nothing else takes care, such as one that is being brought up to date. */
    public static Assessments on(DataSource database, JsonMapper json) {
        return new Assessments(new JdbcTemplate(database), json, TransactionOperations.withoutTransaction());
    }

    /** @param apart in what words are kept, whatever becomes of the transaction that first needed them */
    private Assessments(JdbcTemplate jdbc, JsonMapper json, TransactionOperations apart) {
        this.jdbc = jdbc;
        this.named = new NamedParameterJdbcTemplate(jdbc);
        this.json = json;
        this.apart = apart;
    }

    private static TransactionOperations apart(PlatformTransactionManager transactions) {
        TransactionTemplate apart = new TransactionTemplate(transactions);
        apart.setPropagationBehavior(TransactionDefinition.PROPAGATION_REQUIRES_NEW);
        return apart;
    }

    // --- writing -----------------------------------------------------------------------------------------------------

    /** An assessment to be stored, and the papers that its rules want. */
    public record Entry(UUID subject, AssessmentRow assessment, List<Need> needs) {}

    /** What an entry comes to, before it is packed. */
    private record Ready(Entry entry, int[] ids, int heads, String packs, byte[] body, String sha) {}

    /**
     * Stores assessments in the place of those before; writes nothing anew of one that says the same.
     *
     * @return those that say anything else, with the one before; empty when there was none
     */
    public Map<UUID, Optional<AssessmentRow>> put(Kind kind, Collection<Entry> entries, Instant at) {
        if (entries.isEmpty()) {
            return Map.of();
        }
        Map<UUID, String> before = new HashMap<>();
        named.query(
                "select subject_id, sha256 from assessment where subject_id in (:s) for update",
                Map.of("s", entries.stream().map(Entry::subject).toList()),
                r -> {
                    before.put(r.getObject(1, UUID.class), r.getString(2));
                });
        List<Ready> changed = new ArrayList<>();
        List<UUID> same = new ArrayList<>();
        for (Entry e : entries) {
            Ready r = ready(e);
            if (r.sha().equals(before.get(e.subject()))) {
                same.add(e.subject());
            } else {
                changed.add(r);
            }
        }
        LocalDateTime when = LocalDateTime.ofInstant(at, ZoneOffset.UTC);
        if (!same.isEmpty()) {
            named.update("update assessment set judged_at = :t where subject_id in (:s)", Map.of("t", when, "s", same));
        }
        Map<UUID, AssessmentRow> was = of(changed.stream()
                .map(r -> r.entry().subject())
                .filter(before::containsKey)
                .toList());
        write(kind, changed, before.keySet(), when);
        Map<UUID, Optional<AssessmentRow>> told = new HashMap<>();
        changed.forEach(r -> told.put(
                r.entry().subject(), Optional.ofNullable(was.get(r.entry().subject()))));
        return told;
    }

    private Ready ready(Entry e) {
        AssessmentRow a = e.assessment();
        int[] ids = keep(a.findings());
        int heads = keepText(List.of(Map.entry("", a.heads() == null ? "" : a.heads())))[0];
        byte[] body = json.writeValueAsBytes(body(a, ids));
        String packs = String.join("\n", a.packs());
        return new Ready(e, ids, heads, packs, body, sha256(body, packs + heads + e.needs()));
    }

    private void write(Kind kind, List<Ready> changed, Set<UUID> known, LocalDateTime when) {
        List<Object[]> assessments = new ArrayList<>();
        List<Object[]> again = new ArrayList<>();
        List<Object[]> findings = new ArrayList<>();
        List<Object[]> needs = new ArrayList<>();
        for (Ready r : changed) {
            UUID subject = r.entry().subject();
            assessments.add(new Object[] {subject, kind.code, when, r.packs(), r.heads(), r.sha(), pack(r.body())});
            if (known.contains(subject)) {
                again.add(new Object[] {subject});
            }
            for (int i = 0; i < r.ids().length; i++) {
                FindingRow f = r.entry().assessment().findings().get(i);
                if (f.verdict() != Verdict.NOT_APPLICABLE) {
                    findings.add(new Object[] {subject, r.ids()[i], f.verdict().name(), !f.beaten() && !f.departed()});
                }
            }
            for (Need n : r.entry().needs()) {
                needs.add(new Object[] {
                    subject, n.ruleId(), n.holderId(), n.kind(), String.join(";", new TreeSet<>(n.levels()))
                });
            }
        }
        jdbc.batchUpdate(
                "insert into assessment values (?, ?, 0, ?, ?, ?, ?, ?) on duplicate key update version = version + 1,"
                        + " judged_at = value(judged_at), packs = value(packs), heads_id = value(heads_id),"
                        + " sha256 = value(sha256), body = value(body)",
                assessments);
        jdbc.batchUpdate("delete from finding where subject_id = ?", again);
        jdbc.batchUpdate("delete from need where subject_id = ?", again);
        // a rule that stands twice in the packs is one row
        jdbc.batchUpdate("insert ignore into finding values (?, ?, ?, ?)", findings);
        jdbc.batchUpdate("insert into need values (?, ?, ?, ?, ?)", needs);
    }

    private static Body body(AssessmentRow a, int[] ids) {
        List<Said> said = new ArrayList<>();
        for (int i = 0; i < ids.length; i++) {
            FindingRow f = a.findings().get(i);
            said.add(new Said(
                    ids[i],
                    f.verdict(),
                    f.says(),
                    f.gauge(),
                    f.missingFacts(),
                    f.intervals(),
                    f.beatenBy(),
                    f.onTheDay(),
                    f.waiver(),
                    f.otherDay(),
                    f.concerns().isEmpty() ? null : f.concerns()));
        }
        return new Body(
                said,
                a.facts().stream()
                        .map(f -> new Seen(f.name(), f.value(), f.source()))
                        .toList());
    }

    private int[] keep(List<FindingRow> findings) {
        int[] ids = new int[findings.size()];
        List<RuleWords> fresh = new ArrayList<>();
        List<Integer> at = new ArrayList<>();
        for (int i = 0; i < ids.length; i++) {
            RuleWords w = findings.get(i).rule();
            Integer id = idByWords.get(new RuleWords.Same<>(w));
            if (id == null) {
                fresh.add(w);
                at.add(i);
            } else {
                ids[i] = id;
            }
        }
        if (!fresh.isEmpty()) {
            if (idByWords.size() > RuleWords.MOST_HELD) {
                idByWords.clear();
            }
            int[] kept = keepText(fresh.stream()
                    .map(w -> Map.entry(w.ruleId(), json.writeValueAsString(w)))
                    .toList());
            for (int i = 0; i < kept.length; i++) {
                idByWords.put(new RuleWords.Same<>(fresh.get(i)), kept[i]);
                ids[at.get(i)] = kept[i];
            }
        }
        return ids;
    }

    /** Identities of texts, each with the rule it is of; those not kept yet are kept now. */
    private int[] keepText(List<Map.Entry<String, String>> texts) {
        Map<String, Map.Entry<String, String>> fresh = new LinkedHashMap<>();
        String[] shas = new String[texts.size()];
        for (int i = 0; i < shas.length; i++) {
            shas[i] = sha256(texts.get(i).getValue());
            if (!idBySha.containsKey(shas[i])) {
                fresh.put(shas[i], texts.get(i));
            }
        }
        if (!fresh.isEmpty()) {
            apart.executeWithoutResult(t -> {
                jdbc.batchUpdate(
                        "insert ignore into kept_words (sha256, rule_id, words) values (?, ?, ?)",
                        fresh.entrySet().stream()
                                .map(e -> new Object[] {
                                    e.getKey(),
                                    e.getValue().getKey().isEmpty()
                                            ? null
                                            : e.getValue().getKey(),
                                    e.getValue().getValue()
                                })
                                .toList());
                named.query(
                        "select id, sha256, words from kept_words where sha256 in (:s)",
                        Map.of("s", fresh.keySet()),
                        r -> {
                            idBySha.put(r.getString(2), r.getInt(1));
                            textById.put(r.getInt(1), r.getString(3));
                        });
            });
        }
        int[] ids = new int[shas.length];
        for (int i = 0; i < ids.length; i++) {
            ids[i] = idBySha.get(shas[i]);
        }
        return ids;
    }

    // --- reading -----------------------------------------------------------------------------------------------------

    public Optional<AssessmentRow> of(UUID subject) {
        return Optional.ofNullable(of(List.of(subject)).get(subject));
    }

    /** Assessments by what they are of, in two statements however many. */
    public Map<UUID, AssessmentRow> of(Collection<UUID> subjects) {
        record Stored(UUID subject, Instant at, String packs, int heads, Body body) {}
        if (subjects.isEmpty()) {
            return Map.of();
        }
        List<Stored> stored = named.query(
                "select subject_id, packs, heads_id, body, judged_at from assessment where subject_id in (:s)",
                Map.of("s", subjects),
                (r, i) -> new Stored(
                        r.getObject(1, UUID.class),
                        r.getObject(5, LocalDateTime.class).toInstant(ZoneOffset.UTC),
                        r.getString(2),
                        r.getInt(3),
                        json.readValue(unpack(r.getBytes(4)), Body.class)));
        Set<Integer> wanted = new TreeSet<>();
        stored.forEach(s -> {
            wanted.add(s.heads());
            s.body().findings().forEach(f -> wanted.add(f.w()));
        });
        wanted.removeIf(textById::containsKey);
        if (!wanted.isEmpty()) {
            named.query("select id, words from kept_words where id in (:i)", Map.of("i", wanted), r -> {
                textById.put(r.getInt(1), r.getString(2));
            });
        }
        Map<UUID, AssessmentRow> found = new HashMap<>();
        stored.forEach(s -> found.put(
                s.subject(),
                new AssessmentRow(
                        s.body().findings().stream().map(this::finding).toList(),
                        s.body().facts().stream().map(Assessments::fact).toList(),
                        s.packs().isEmpty() ? List.of() : List.of(s.packs().split("\n")),
                        textById.get(s.heads()),
                        s.at())));
        return found;
    }

    private FindingRow finding(Said f) {
        RuleWords w = wordsById.computeIfAbsent(f.w(), id -> json.readValue(textById.get(id), RuleWords.class));
        List<String> missing = f.m() == null ? List.of() : f.m();
        return new FindingRow(
                w,
                f.v(),
                f.s() == null ? "" : f.s(),
                f.g(),
                missing.stream()
                        .map(m -> Vocabulary.knows(m) ? Vocabulary.define(m).question() : m)
                        .toList(),
                f.i() == null ? List.of() : f.i(),
                f.b(),
                f.d(),
                missing,
                f.x(),
                f.o(),
                f.c());
    }

    private static AssessmentRow.FactRow fact(Seen f) {
        String label = Vocabulary.knows(f.n()) ? Vocabulary.define(f.n()).label() : f.n();
        return new AssessmentRow.FactRow(f.n(), label, f.v(), f.s());
    }

    /** The papers that rules want for each of these, in one statement. */
    public Map<UUID, List<Need>> needs(Collection<UUID> subjects) {
        return subjects.isEmpty() ? Map.of() : needs("subject_id in (:s)", Map.of("s", subjects));
    }

    /**
     * The same for what a question of the subjects' owner finds, without naming each.
     *
     * @param sql a select of identities, with named parameters
     */
    public Map<UUID, List<Need>> needsOf(String sql, Map<String, ?> parameters) {
        return needs("subject_id in (" + sql + ")", parameters);
    }

    private Map<UUID, List<Need>> needs(String which, Map<String, ?> parameters) {
        Map<UUID, List<Need>> needs = new HashMap<>();
        Map<String, Set<String>> levels = new HashMap<>();
        named.query("select subject_id, rule_id, holder_id, kind, levels from need where " + which, parameters, r -> {
            needs.computeIfAbsent(r.getObject(1, UUID.class), k -> new ArrayList<>())
                    .add(new Need(
                            r.getString(2),
                            r.getObject(3, UUID.class),
                            r.getString(4),
                            levels.computeIfAbsent(
                                    r.getString(5), l -> l.isEmpty() ? Set.of() : Set.of(l.split(";")))));
        });
        return needs;
    }

    /**
     * Of what a rule speaks: subjects of a kind to which it applies, with what came of it; the most pressing where two versions
     * of it judged.
     */
    public Map<UUID, Verdict> touchedBy(String ruleId, Kind kind) {
        Map<UUID, Verdict> touched = new HashMap<>();
        jdbc.query(
                "select f.subject_id, f.verdict from finding f join kept_words w on w.id = f.words_id"
                        + " join assessment a on a.subject_id = f.subject_id where w.rule_id = ? and a.subject_kind = ?",
                r -> {
                    touched.merge(
                            r.getObject(1, UUID.class),
                            Verdict.valueOf(r.getString(2)),
                            (a, b) -> a.compareTo(b) <= 0 ? a : b);
                },
                ruleId,
                kind.code);
        return touched;
    }

    /** How many subjects of a kind it applies to, by what came of it, the most pressing first. */
    public Map<Verdict, Long> countTouched(String ruleId, Kind kind) {
        return touchedBy(ruleId, kind).values().stream()
                .collect(Collectors.groupingBy(v -> v, () -> new EnumMap<>(Verdict.class), Collectors.counting()));
    }

    // --- packing -----------------------------------------------------------------------------------------------------

    private static byte[] pack(byte[] plain) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (DeflaterOutputStream out = new DeflaterOutputStream(bytes)) {
            out.write(plain);
        } catch (IOException e) {
            throw new UncheckedIOException("writing to memory", e);
        }
        return bytes.toByteArray();
    }

    private static byte[] unpack(byte[] packed) {
        try (InflaterInputStream in = new InflaterInputStream(new ByteArrayInputStream(packed))) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new IllegalStateException("a stored assessment is damaged: " + e.getMessage(), e);
        }
    }

    private static String sha256(String text) {
        return sha256(text.getBytes(StandardCharsets.UTF_8), "");
    }

    private static String sha256(byte[] bytes, String more) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            digest.update(bytes);
            return HexFormat.of().formatHex(digest.digest(more.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
