package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import yarrek.core.rulebook.FactType;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Kind;
import yarrek.core.rulebook.Reading;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RuleLines;
import yarrek.core.rulebook.Truth;
import yarrek.core.rulebook.Verdict;
import yarrek.formats.log.BrokenFileException;

/** Every kind of requirement and condition: read as it is written, refused in words, and on the editor's lines and back. */
class KindsTest {
    /** A fact of each type, and what may stand beside a comparison. */
    private static final Map<FactType, String> FACTS = Map.of(
            FactType.QUANTITY, "heightAboveGroundM",
            FactType.YES_NO, "overWater",
            FactType.WORD, "sight",
            FactType.WORDS, "lights",
            FactType.DATE, "pilot.lastFlightOn");

    private static final Map<Kind.Takes, String> VALUES = Map.of(
            Kind.Takes.FIGURE, "400 ft",
            Kind.Takes.YES_NO, "yes",
            Kind.Takes.WORD, "position",
            Kind.Takes.DATE, "2026-05-01",
            Kind.Takes.NUMBER, "24");

    private static Rule rule(String requires, String when) throws BrokenFileException {
        return RulePackReader.rule(
                "{id: R-1, title: t, severity: stop, cite: c, from: 2020-01-01, confidence: high, remedy: r, requires: "
                        + requires + ", appliesWhen: " + when + "}",
                Optional.of("EU"),
                LocalDate.EPOCH);
    }

    record Typed(boolean required, FactType type, Kind.Op op) {
        String value() {
            return op.takes() != Kind.Takes.WORDS
                    ? VALUES.get(op.takes())
                    : type == FactType.WORD ? "BVLOS VLOS" : "greenFlashing position";
        }

        /** As the editor puts it into a pack. */
        String written() {
            Map<String, String> parts = new LinkedHashMap<>();
            parts.put("fact", FACTS.get(type));
            parts.put(op.code(), op.takes() == Kind.Takes.WORDS ? Arrays.toString(value().split(" ")) : value());
            parts.putAll(op.beside());
            return parts.entrySet().stream()
                    .map(e -> e.getKey() + ": " + e.getValue())
                    .collect(Collectors.joining(", ", "{", "}"));
        }
    }

    static Stream<Typed> typed() {
        return Stream.of(true, false)
                .flatMap(required -> new TreeMap<>(FACTS)
                        .keySet().stream()
                                .flatMap(t -> Reading.ops(t, required).stream().map(o -> new Typed(required, t, o))));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("typed")
    void whatIsTypedComesBackOnItsLine(Typed t) throws BrokenFileException {
        Rule r = t.required()
                ? rule(t.written(), "{fact: overWater, is: true}")
                : rule("{fact: overWater, is: true}", t.written());
        Optional<RuleLines> lines =
                t.required() ? r.requires().lines() : r.appliesWhen().lines();
        assertThat(lines.orElseThrow().lines())
                .containsExactly(new RuleLines.RuleLine(FACTS.get(t.type()), t.op().code(), t.value()));
        assertThat(lines.orElseThrow().any()).isFalse();
        assertThat(r.factNames()).contains(FACTS.get(t.type()));
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '~', textBlock = """
            {fact: lights, containsAnyOf: [position, greenFlashing]} ~ position      ~ MET
            {fact: lights, containsAnyOf: [position, greenFlashing]} ~ greenFlashing ~ MET
            {fact: lights, containsAnyOf: [position, greenFlashing]} ~ antiCollision3SM ~ BREACHED
            {fact: lights, containsAnyOf: [position, greenFlashing]} ~ ''            ~ BREACHED
            {fact: lights, contains: position}                       ~ position      ~ MET
            {fact: lights, contains: position}                       ~ greenFlashing ~ BREACHED
            """)
    void aListOfWordsIsLookedThrough(String written, String has, Verdict verdict) throws BrokenFileException {
        Set<String> words = has.isEmpty() ? Set.of() : Set.of(has);
        Facts facts = Facts.builder(ZoneOffset.UTC)
                .with("lights", new FactValue.Words(words), "t")
                .build();
        Facts nothing = Facts.builder(ZoneOffset.UTC).build();
        Rule r = rule(written, written);
        assertThat(r.requires().judge(facts).verdict()).isEqualTo(verdict);
        assertThat(r.appliesWhen().test(facts)).isEqualTo(verdict == Verdict.MET ? Truth.YES : Truth.NO);
        assertThat(r.requires().judge(nothing).verdict()).isEqualTo(Verdict.NOT_KNOWN);
        assertThat(r.requires().judge(nothing).missing()).containsExactly("lights");
        assertThat(r.appliesWhen().test(nothing)).isEqualTo(Truth.UNKNOWN);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '~', textBlock = """
            {fact: lights, is: true} ~ lights cannot be compared so; it must say contains: a word, or containsAnyOf: [words]
            {fact: lights} ~ a requirement on lights must say contains: a word, or containsAnyOf: [words]
            {fact: pilot.lastFlightOn} ~ must say withinMonths a number, or before or onOrAfter a date
            {fact: lights, containsAnyOf: []} ~ an empty list of words allows nothing
            {fact: lights, containsAnyOf: [purple]} ~ lights cannot be 'purple'
            {allOf: []} ~ an empty list of requirements asks for nothing
            {lights: position} ~ line 1: 'fact' is missing
            {fact: lamps, contains: position} ~ there is no fact called 'lamps'
            {fact: overWater, is: true, closeness: none} ~ unknown word 'closeness' in a requirement
            {paper: p, name: n, of: nobody} ~ was expected, got 'nobody'
            """)
    void whatIsNoRequirementIsRefusedInWords(String written, String says) {
        assertThatThrownBy(() -> rule(written, "{fact: overWater, is: true}"))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining(says);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '~', textBlock = """
            {any: [{fact: overWater, is: true}, {fact: lights, contains: position}]} ~ true
            {all: [{fact: overWater, is: true}, {fact: lights, contains: position}]} ~ false
            """)
    void linesSayWhetherAnyWillDo(String when, boolean any) throws BrokenFileException {
        RuleLines lines =
                rule("{fact: overWater, is: true}", when).appliesWhen().lines().orElseThrow();
        assertThat(lines.any()).isEqualTo(any);
        assertThat(lines.lines()).hasSize(2);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '~', textBlock = """
            {all: [{fact: overWater, is: true}, {any: [{fact: assembly, is: true}, {fact: siteClosed, is: true}]}]}
            {not: {fact: overWater, is: true}}
            {fact: heightAboveGroundM, below: {ofFact: pilotDistanceM}}
            """)
    void whatIsMoreThanLinesIsNotOffered(String when) throws BrokenFileException {
        assertThat(rule("{fact: overWater, is: true}", when).appliesWhen().lines())
                .isEmpty();
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '~', textBlock = """
            pack: a\\npack: b ~ mine.yaml, line 2: 'pack' stands there twice
            ? [a] : b ~ mine.yaml, line 1: a name must be plain text
            """)
    void namesAreLookedAtInEveryFile(String yaml, String says) {
        byte[] bytes = yaml.replace("\\n", "\n").getBytes(StandardCharsets.UTF_8);
        assertThatThrownBy(() -> RulePackReader.read("mine.yaml", bytes))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining(says);
        assertThatThrownBy(() -> ApprovalKindReader.read("mine.yaml", bytes))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining(says);
    }
}
