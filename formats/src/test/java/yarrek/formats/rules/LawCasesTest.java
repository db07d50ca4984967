package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/**
 * Worked cases of law, each a clean scenario with a few facts changed, judged with every shipped pack. {@code expect} is a
 * rule's id with its verdict, or one of several; {@code LAW: breach | clean | alarm}, {@code ANY: alarm}, {@code BREACH},
 * {@code OPEN} and {@code LAWOPEN} speak of all rules; an alarm is a breach or a not known that the clean scenario lacks.
 */
class LawCasesTest {
    private static final JsonMapper JSON = JsonMapper.shared();
    private static final JsonNode SCENARIOS = json("/rules/law-bases.json");
    private static final List<RulePack> PACKS =
            RulePackReader.shippedNames().stream().map(RulePackReader::shipped).toList();

    private static JsonNode json(String path) {
        return JSON.readTree(text(path));
    }

    private static String text(String path) {
        try (InputStream in = LawCasesTest.class.getResourceAsStream(path)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    static Stream<Arguments> cases() {
        return Stream.of("law", "state", "more")
                .flatMap(f -> text("/rules/" + f + "-cases.jsonl").lines())
                .map(JSON::readTree)
                .map(c -> Arguments.of(
                        c.get("base").asString() + " " + c.get("changed") + " " + c.get("expect") + " "
                                + c.get("reason").asString(),
                        c));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("cases")
    void theCaseIsJudgedAsTheLawWants(String name, JsonNode c) {
        Map<String, Finding> base = judge(facts(c.get("base").asString(), null));
        Map<String, Finding> found = judge(facts(c.get("base").asString(), c));
        c.get("expect").properties().forEach(e -> expect(e.getKey(), e.getValue(), base, found));
    }

    private static void expect(String what, JsonNode wanted, Map<String, Finding> base, Map<String, Finding> found) {
        switch (what) {
            case "LAW" -> law(wanted.asString(), base, found);
            case "ANY" -> assertThat(alarms(base, found, false)).isNotEmpty();
            case "BREACH" ->
                assertThat(found.values().stream()
                                .filter(f -> f.verdict() == Verdict.BREACHED
                                        && f.rule().severity() != Severity.CAUTION))
                        .isNotEmpty();
            case "OPEN" ->
                assertThat(found.values().stream().filter(f -> !f.verdict().isFine()))
                        .isNotEmpty();
            case "LAWOPEN" ->
                assertThat(found.values().stream()
                                .filter(f -> f.rule().layer() == Layer.LAW
                                        && !f.verdict().isFine()))
                        .isNotEmpty();
            default -> {
                Set<String> allowed = new HashSet<>();
                if (wanted.isArray()) {
                    wanted.forEach(w -> allowed.add(w.asString()));
                } else {
                    allowed.add(wanted.asString());
                }
                Finding f = found.get(what);
                String is = f == null ? "NOT_APPLICABLE" : f.verdict().name();
                assertThat(allowed.contains(is))
                        .as(what + " must be " + allowed + " but is " + is + (f == null ? "" : ": " + f.says()))
                        .isTrue();
            }
        }
    }

    private static void law(String wanted, Map<String, Finding> base, Map<String, Finding> found) {
        List<String> breached = found.values().stream()
                .filter(f -> f.rule().layer() == Layer.LAW
                        && f.rule().severity() != Severity.CAUTION
                        && f.verdict() == Verdict.BREACHED)
                .map(f -> f.rule().id() + ": " + f.says())
                .toList();
        switch (wanted) {
            case "breach" -> assertThat(breached).isNotEmpty();
            case "clean" -> assertThat(breached).isEmpty();
            default -> assertThat(alarms(base, found, true)).isNotEmpty();
        }
    }

    private static Set<String> alarms(Map<String, Finding> base, Map<String, Finding> found, boolean law) {
        return found.values().stream()
                .filter(f -> !law || f.rule().layer() == Layer.LAW)
                .filter(f -> !f.verdict().isFine())
                .filter(f -> {
                    Finding was = base.get(f.rule().id());
                    return was == null || was.verdict() != f.verdict();
                })
                .map(f -> f.rule().id())
                .collect(Collectors.toSet());
    }

    private static Map<String, Finding> judge(Facts facts) {
        Map<String, Finding> found = new LinkedHashMap<>();
        Assessment.of(facts, PACKS).findings().forEach(f -> found.put(f.rule().id(), f));
        return found;
    }

    private static Facts facts(String base, JsonNode c) {
        JsonNode common = SCENARIOS.get("common");
        JsonNode scenario = SCENARIOS.get("bases").get(base);
        ZoneId zone = ZoneId.of(common.get("zone").asString());
        Map<String, JsonNode> values = new LinkedHashMap<>();
        common.get("facts").properties().forEach(e -> values.put(e.getKey(), e.getValue()));
        scenario.get("facts").properties().forEach(e -> values.put(e.getKey(), e.getValue()));
        if (c != null) {
            c.get("changed").properties().forEach(e -> values.put(e.getKey(), e.getValue()));
        }
        Facts.Builder b = Facts.builder(zone);
        values.forEach((name, v) -> {
            if (!v.isNull()) {
                b.with(name, value(name, v), "case");
            }
        });
        JsonNode windows = c != null && c.has("windows") ? c.get("windows") : common.get("windows");
        windows.forEach(w -> b.window(new TimeWindow(
                OffsetDateTime.parse(w.get("start").asString()).toInstant(),
                OffsetDateTime.parse(w.get("end").asString()).toInstant())));
        if (c == null || !c.has("papers") || !c.get("papers").isNull()) {
            List<PaperHeld> held = new ArrayList<>();
            (c != null && c.has("papers") ? c.get("papers") : scenario.get("papers"))
                    .forEach(p -> held.add(paper(p, zone)));
            b.papers(held);
        } else {
            b.papers(List.of());
        }
        List<ZoneMet> met = new ArrayList<>();
        (c != null && c.has("zones") ? c.get("zones") : scenario.get("zones")).forEach(z -> met.add(zone(z)));
        b.zones(met);
        return b.build();
    }

    private static PaperHeld paper(JsonNode p, ZoneId zone) {
        return new PaperHeld(
                p.get("kind").asString(),
                Optional.ofNullable(p.get("level")).map(JsonNode::asString),
                p.get("of").asString(),
                p.get("number").asString(),
                p.get("jurisdiction").asString(),
                new Validity(
                        Optional.of(LocalDate.parse(p.get("validFrom").asString())),
                        Optional.of(LocalDate.parse(p.get("validTo").asString())),
                        zone),
                true);
    }

    private static ZoneMet zone(JsonNode z) {
        return new ZoneMet(
                z.get("id").asString(),
                z.get("name").asString(),
                ZoneMet.Restriction.valueOf(z.get("restriction")
                        .asString()
                        .replaceAll("([A-Z])", "_$1")
                        .toUpperCase(Locale.ROOT)),
                false,
                z.path("says").asString(""),
                Optional.empty());
    }

    static FactValue value(String name, JsonNode v) {
        return switch (Vocabulary.define(name).type()) {
            case QUANTITY ->
                v.isObject()
                        ? new FactValue.Quantity(
                                v.get("value").doubleValue(),
                                v.get("uncertainty").doubleValue())
                        : new FactValue.Quantity(v.doubleValue(), 0);
            case YES_NO -> new FactValue.YesNo(v.booleanValue());
            case WORD -> new FactValue.Word(v.asString());
            case WORDS -> {
                Set<String> words = new HashSet<>();
                v.forEach(w -> words.add(w.asString()));
                yield new FactValue.Words(words);
            }
            case DATE -> new FactValue.Date(LocalDate.parse(v.asString()));
            case INSTANT ->
                new FactValue.Moment(OffsetDateTime.parse(v.asString()).toInstant());
        };
    }
}
