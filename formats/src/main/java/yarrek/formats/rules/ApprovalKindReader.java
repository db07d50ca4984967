package yarrek.formats.rules;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.Lead;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Reading;
import yarrek.core.rulebook.Written;
import yarrek.formats.log.BrokenFileException;

/**
 * Reads kinds of approval in YAML: question lists that several share, holidays by jurisdiction, and the kinds. Whatever is
 * unknown, missing or of the wrong kind is refused with its line.
 */
public final class ApprovalKindReader {
    /** A kind and the text of its own condition; empty when it has none. */
    public record Entry(ApprovalKind kind, String when) {}

    /** A whole file: holidays are lines as {@link yarrek.core.approval.Holidays} reads them, by jurisdiction. */
    public record Book(List<Entry> kinds, Map<String, String> holidays) {}

    private static final Set<String> KIND_WORDS = Set.of(
            "code",
            "title",
            "in",
            "granter",
            "answers",
            "zones",
            "makersMap",
            "when",
            "needs",
            "after",
            "hours",
            "copyHours",
            "usual",
            "worst",
            "earliestDays",
            "longestDays",
            "fee",
            "quotes",
            "paper",
            "level",
            "settles",
            "unlock",
            "desk",
            "questions",
            "source");
    private static final Map<String, String> DESKS = Map.of("air", "air", "unlock", "unlock", "none", "");

    private ApprovalKindReader() {}

    /** The kinds that ship with the core. */
    public static Book shipped() {
        try {
            return read(
                    "kinds.yaml",
                    RulePackReader.resource("/approval/kinds.yaml").getBytes(StandardCharsets.UTF_8));
        } catch (BrokenFileException e) {
            throw new IllegalStateException(e.getMessage(), e);
        }
    }

    /** @throws BrokenFileException naming the line and what was expected */
    public static Book read(String file, byte[] yaml) throws BrokenFileException {
        try {
            Written root = YamlText.read(file, yaml);
            root.only(Set.of("lists", "holidays", "kinds"), "the file");
            Map<String, List<ApprovalKind.Question>> lists = new HashMap<>();
            if (root.has("lists")) {
                root.get("lists").children().forEach((name, n) -> lists.put(name, questions(n, Map.of())));
            }
            Map<String, String> holidays = new LinkedHashMap<>();
            if (root.has("holidays")) {
                root.get("holidays").children().forEach((name, n) -> holidays.put(name, n.text()));
            }
            String text = new String(yaml, StandardCharsets.UTF_8);
            List<Entry> kinds = new ArrayList<>();
            Set<String> seen = new HashSet<>();
            for (Written n : root.items("kinds")) {
                ApprovalKind k = kind(n, lists);
                if (!seen.add(k.code())) {
                    throw n.wrong("the code '" + k.code() + "' stands there twice");
                }
                kinds.add(new Entry(k, n.has("when") ? n.get("when").in(text) : ""));
            }
            return new Book(kinds, holidays);
        } catch (Written.Wrong e) {
            throw new BrokenFileException("approvals.word", file + ", line " + e.line() + ": " + e.getMessage(), e);
        }
    }

    /** One kind alone, as the editor keeps it. */
    public static Entry kind(String yaml) throws BrokenFileException {
        try {
            Written n = YamlText.read("kind", yaml.getBytes(StandardCharsets.UTF_8));
            return new Entry(kind(n, Map.of()), n.has("when") ? n.get("when").in(yaml) : "");
        } catch (Written.Wrong e) {
            throw new BrokenFileException("approvals.word", e.getMessage(), e);
        }
    }

    private static ApprovalKind kind(Written n, Map<String, List<ApprovalKind.Question>> lists) {
        n.only(KIND_WORDS, "a kind of approval");
        if (!n.text("code").matches("[a-zA-Z][a-zA-Z0-9-]{2,39}")) {
            throw n.get("code").wrong("a code of letters, figures and hyphens was expected, such as parkPermit");
        }
        double hours = number(n, "hours", 0);
        try {
            return new ApprovalKind(
                    n.text("code"),
                    n.text("title"),
                    words(n, "in"),
                    n.text("granter"),
                    new ApprovalKind.Trigger(
                            words(n, "answers"),
                            zones(n),
                            n.has("makersMap") && n.get("makersMap").yesNo(),
                            n.has("when") ? Reading.of(Optional.empty()).condition(n.get("when")) : Condition.never()),
                    words(n, "needs"),
                    words(n, "after"),
                    hours,
                    number(n, "copyHours", Math.min(hours, 0.5)),
                    lead(n, "usual"),
                    lead(n, "worst"),
                    (int) number(n, "earliestDays", 0),
                    (int) number(n, "longestDays", 0),
                    n.has("fee") ? Optional.of(at(n.get("fee"), ApprovalKindReader::fee)) : Optional.empty(),
                    words(n, "quotes"),
                    gives(n),
                    n.has("unlock") && n.get("unlock").yesNo(),
                    n.has("desk") ? n.get("desk").oneOf(DESKS) : "",
                    n.has("questions") ? questions(n.get("questions"), lists) : List.of(),
                    n.text("source"));
        } catch (IllegalArgumentException e) {
            throw n.wrong(e.getMessage());
        }
    }

    private static ApprovalKind.Gives gives(Written n) {
        Map<String, String> facts = new LinkedHashMap<>();
        if (n.has("settles")) {
            n.get("settles").children().forEach((name, v) -> {
                if (!yarrek.core.rulebook.Vocabulary.knows(name)) {
                    throw v.wrong("there is no fact called '" + name + "'");
                }
                facts.put(name, v.text());
            });
        }
        return new ApprovalKind.Gives(
                n.optional("paper").orElse("approval"), n.optional("level").orElse(""), facts);
    }

    private static Set<String> words(Written n, String word) {
        Set<String> words = new LinkedHashSet<>();
        n.items(word).forEach(i -> words.add(i.text()));
        return words;
    }

    private static Set<ZoneKind> zones(Written n) {
        Set<ZoneKind> kinds = new HashSet<>();
        for (Written i : n.items("zones")) {
            ZoneKind k = ZoneKind.of(i.text());
            if (k == ZoneKind.OTHER && !i.text().equalsIgnoreCase("other")) {
                throw i.wrong("there is no kind of zone called '" + i.text() + "'");
            }
            kinds.add(k);
        }
        return kinds;
    }

    private static double number(Written n, String word, double otherwise) {
        return n.has(word) ? n.get(word).number().doubleValue() : otherwise;
    }

    private static Lead lead(Written n, String word) {
        return at(n.get(word), ApprovalKindReader::lead);
    }

    /** What a parser makes of a node's text; what it refuses is told with the node's line. */
    private static <T> T at(Written n, Function<String, T> parse) {
        try {
            return parse.apply(n.text());
        } catch (IllegalArgumentException e) {
            throw n.wrong(e.getMessage());
        }
    }

    /**
     * "10 days" or "20 working days".
     *
     * @throws IllegalArgumentException when it is neither
     */
    public static Lead lead(String text) {
        if (!text.matches("\\d{1,4} (working )?days?")) {
            throw new IllegalArgumentException(
                    "a lead time such as '10 days' or '20 working days' was expected, got '" + text + "'");
        }
        return new Lead(Integer.parseInt(text.substring(0, text.indexOf(' '))), text.contains("working"));
    }

    /**
     * "120.00 EUR".
     *
     * @throws IllegalArgumentException when it is no amount with a currency
     */
    public static ApprovalKind.Fee fee(String text) {
        if (!text.matches("\\d{1,9}([.]\\d{1,2})? [A-Z]{3}")) {
            throw new IllegalArgumentException("an amount such as '120.00 EUR' was expected, got '" + text + "'");
        }
        return new ApprovalKind.Fee(new java.math.BigDecimal(text.split(" ")[0]), text.split(" ")[1]);
    }

    /** A list by name, or lines "number | section | question | from", a star before the question for a weighty one. */
    private static List<ApprovalKind.Question> questions(Written n, Map<String, List<ApprovalKind.Question>> lists) {
        if (!n.isList()) {
            List<ApprovalKind.Question> named = lists.get(n.text());
            if (named == null) {
                throw n.wrong("there is no list of questions called '" + n.text() + "'");
            }
            return named;
        }
        List<ApprovalKind.Question> all = new ArrayList<>();
        Set<String> numbers = new HashSet<>();
        for (Written i : n.items()) {
            ApprovalKind.Question q = at(i, ApprovalKindReader::question);
            if (!numbers.add(q.number())) {
                throw i.wrong("question " + q.number() + " stands there twice");
            }
            all.add(q);
        }
        return all;
    }

    /**
     * "number | section | question | from", with a star before a question that is weighed most.
     *
     * @throws IllegalArgumentException when it is written otherwise
     */
    public static ApprovalKind.Question question(String line) {
        String[] p = line.split("\\|", -1);
        if (p.length != 4 || p[0].isBlank() || p[2].isBlank()) {
            throw new IllegalArgumentException("a question is written “number | section | question | from”");
        }
        String ask = p[2].strip();
        return new ApprovalKind.Question(
                p[0].strip(),
                p[1].strip(),
                ask.startsWith("*") ? ask.substring(1).strip() : ask,
                p[3].isBlank() ? "typed" : p[3].strip(),
                ask.startsWith("*"));
    }

    /** A kind as {@link #kind(String)} reads it back, but for its own condition. */
    public static Map<String, Object> write(ApprovalKind k) {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("code", k.code());
        m.put("title", k.title());
        m.put("in", List.copyOf(k.jurisdictions()));
        m.put("granter", k.granter());
        m.put("answers", List.copyOf(k.trigger().answers()));
        m.put("zones", k.trigger().zones().stream().map(ZoneKind::words).toList());
        m.put("makersMap", k.trigger().makersMap());
        m.put("needs", List.copyOf(k.needs()));
        m.put("after", List.copyOf(k.after()));
        m.put("hours", k.prepareHours());
        m.put("copyHours", k.copyHours());
        m.put("usual", k.usual().words());
        m.put("worst", k.worst().words());
        m.put("earliestDays", k.earliestDays());
        m.put("longestDays", k.longestDays());
        k.fee().ifPresent(f -> m.put("fee", f.toString()));
        m.put("quotes", List.copyOf(k.quotes()));
        m.put("paper", k.gives().paper());
        if (!k.gives().level().isEmpty()) {
            m.put("level", k.gives().level());
        }
        m.put("settles", k.gives().facts());
        m.put("unlock", k.unlock());
        m.put("desk", k.desk().isEmpty() ? "none" : k.desk());
        m.put(
                "questions",
                k.questions().stream()
                        .map(q -> q.number() + " | " + q.section() + " | " + (q.weighty() ? "* " : "") + q.ask() + " | "
                                + q.from())
                        .toList());
        m.put("source", k.source());
        return m;
    }
}
