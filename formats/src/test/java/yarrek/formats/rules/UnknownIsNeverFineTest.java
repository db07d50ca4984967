package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Comparison;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/** Laws that hold for every shipped pack, whatever the facts: drawn at random, the same each run. */
class UnknownIsNeverFineTest {
    private static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    private static final TimeWindow NOON =
            new TimeWindow(Instant.parse("2027-03-14T12:00:00Z"), Instant.parse("2027-03-14T14:00:00Z"));
    private static final Map<String, String> LAWS =
            Map.of("eu", "EU", "gb", "GB", "ca", "CA", "us", "US", "au", "AU", "nz", "NZ");
    private static final double[] FIGURES = {0, 1, 2, 5, 15, 18, 30, 50, 100, 120, 150, 249, 250, 400, 900, 5000, 30000
    };

    private record Drawn(String pack, long seed) {}

    static Stream<Drawn> drawn() {
        return new TreeSet<>(LAWS.keySet())
                .stream().flatMap(p -> Stream.of(1L, 2L, 3L, 4L).map(s -> new Drawn(p, s)));
    }

    private static List<RulePack> packs(String pack) {
        return List.of(RulePackReader.shipped(pack + ".yaml"), RulePackReader.shipped("house.yaml"));
    }

    private static Facts.Builder empty(String pack) {
        return Facts.builder(ZONE)
                .with("jurisdiction", new FactValue.Word(LAWS.get(pack)), "drawn")
                .window(NOON);
    }

    private static FactValue draw(FactDefinition d, Random r) {
        return switch (d.type()) {
            case QUANTITY -> new FactValue.Quantity(FIGURES[r.nextInt(FIGURES.length)], 0);
            case YES_NO -> new FactValue.YesNo(r.nextBoolean());
            case WORD -> new FactValue.Word(d.words().isEmpty() ? "x" : pick(d.words(), r));
            case WORDS -> new FactValue.Words(d.words().isEmpty() ? Set.of() : Set.of(pick(d.words(), r)));
            case DATE -> new FactValue.Date(LocalDate.of(2019 + r.nextInt(9), 1 + r.nextInt(12), 1 + r.nextInt(28)));
            case INSTANT -> new FactValue.Moment(NOON.start().minusSeconds(r.nextInt(1_000_000)));
        };
    }

    private static String pick(Set<String> words, Random r) {
        return List.copyOf(new TreeSet<>(words)).get(r.nextInt(words.size()));
    }

    private static Facts facts(Drawn drawn) {
        Random r = new Random(drawn.seed());
        Facts.Builder b = empty(drawn.pack());
        for (FactDefinition d : Vocabulary.all()) {
            if (!d.name().equals("jurisdiction") && r.nextInt(5) > 0) {
                b.with(d.name(), draw(d, r), "drawn");
            }
        }
        b.zones(List.of());
        b.papers(List.of(new PaperHeld(
                "pilotCertificate",
                Optional.of("A2"),
                "pilot",
                "T-1",
                LAWS.get(drawn.pack()),
                new Validity(Optional.of(LocalDate.of(2024, 1, 1)), Optional.of(LocalDate.of(2027, 3, 14)), ZONE),
                true)));
        return b.build();
    }

    /** Verdicts by rule and the day it came in force. */
    private static Map<String, Verdict> verdicts(Assessment a) {
        Map<String, Verdict> m = new TreeMap<>();
        a.findings().forEach(f -> m.put(key(f.rule()), f.verdict()));
        return m;
    }

    private static List<String> ids(List<Finding> findings) {
        return findings.stream().map(f -> f.rule().id()).sorted().toList();
    }

    private static String key(Rule r) {
        return r.id() + " " + r.inForceFrom();
    }

    @ParameterizedTest
    @ValueSource(strings = {"eu", "gb", "ca", "us", "au", "nz"})
    void whereNothingIsKnownNothingIsMet(String pack) {
        Assessment a = Assessment.of(empty(pack).build(), packs(pack));
        assertThat(a.findings()).isNotEmpty();
        assertThat(a.findings().stream()
                        .filter(f -> f.verdict() == Verdict.MET || f.verdict() == Verdict.CLOSE)
                        .map(f -> f.rule().id())
                        .toList())
                .isEmpty();
    }

    @ParameterizedTest
    @MethodSource("drawn")
    void forgettingAFactNeverMendsAFinding(Drawn drawn) {
        Facts facts = facts(drawn);
        List<RulePack> packs = packs(drawn.pack());
        Map<String, Verdict> before = verdicts(Assessment.of(facts, packs));
        Set<String> asked = packs.stream()
                .flatMap(p -> p.rules().stream())
                .flatMap(r -> r.factNames().stream())
                .collect(Collectors.toCollection(TreeSet::new));
        asked.retainAll(facts.values().keySet());
        asked.remove("jurisdiction");
        // where no mass is declared the real one stands for it, so one of the two may be left out
        asked.removeAll(List.of("maxTakeoffMassG", "takeoffMassG", "classMassG"));
        for (String fact : asked) {
            Map<String, Verdict> after =
                    verdicts(Assessment.of(facts.toBuilder().without(fact).build(), packs));
            before.forEach((rule, verdict) -> {
                if (verdict == Verdict.BREACHED || verdict == Verdict.NOT_KNOWN) {
                    assertThat(after.get(rule)).as(rule + " without " + fact).isNotIn(Verdict.MET, Verdict.CLOSE);
                }
            });
        }
    }

    @ParameterizedTest
    @MethodSource("drawn")
    void comparingIsSymmetricAndSameIsEmpty(Drawn drawn) {
        List<RulePack> packs = packs(drawn.pack());
        Assessment a = Assessment.of(facts(drawn), packs);
        Assessment b = Assessment.of(facts(new Drawn(drawn.pack(), drawn.seed() + 100)), packs);
        assertThat(Comparison.of(a, a).isEmpty()).isTrue();
        Comparison there = Comparison.of(a, b);
        Comparison back = Comparison.of(b, a);
        assertThat(ids(there.appear())).isEqualTo(ids(back.vanish()));
        assertThat(ids(there.vanish())).isEqualTo(ids(back.appear()));
        assertThat(there.shifted()).hasSameSizeAs(back.shifted());
    }

    @ParameterizedTest
    @MethodSource("drawn")
    void theOrderOfPacksDoesNotDecide(Drawn drawn) {
        List<RulePack> packs = packs(drawn.pack());
        assertThat(verdicts(Assessment.of(facts(drawn), List.of(packs.get(1), packs.get(0)))))
                .isEqualTo(verdicts(Assessment.of(facts(drawn), packs)));
    }

    @ParameterizedTest
    @MethodSource("drawn")
    void everyOpenFindingSaysWhatToDo(Drawn drawn) {
        for (Finding f : Assessment.of(facts(drawn), packs(drawn.pack())).findings()) {
            assertThat(f.says()).as(f.rule().id()).isNotBlank();
            if (f.isOpen()) {
                assertThat(f.rule().remedy()).as(f.rule().id()).isNotBlank();
            }
            if (f.verdict() == Verdict.NOT_KNOWN && f.rule().source().ask().isEmpty()) {
                assertThat(f.missing().isEmpty() && !f.says().contains("not known"))
                        .as(f.rule().id() + ": " + f.says())
                        .isFalse();
            }
        }
    }
}
