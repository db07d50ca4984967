package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** Several planned flights of one job as one ladder. */
class TogetherTest {
    private static final Rule HEIGHT =
            SomeRules.law("HEIGHT", Condition.always(), SomeRules.atMost("heightAboveGroundM", 120));
    private static final Rule WIND = SomeRules.law("WIND", Condition.always(), SomeRules.atMost("weather.windMps", 10));

    private static String which(List<Integer> parts) {
        return "part " + parts.stream().map(i -> String.valueOf(i + 1)).collect(Collectors.joining(" and "));
    }

    private static Assessment part(Double height, Double wind, Rule... rules) {
        Facts.Builder b = Facts.builder(ZoneId.of("UTC"));
        b.word("jurisdiction", "EU", "t");
        if (height != null) {
            b.quantity("heightAboveGroundM", height, 0, "t");
        }
        if (wind != null) {
            b.quantity("weather.windMps", wind, 0, "t");
        }
        return Assessment.of(b.build(), List.of(SomeRules.pack(rules.length == 0 ? new Rule[] {HEIGHT, WIND} : rules)));
    }

    private static Finding of(Assessment a, Rule rule) {
        List<Finding> its = a.findings().stream()
                .filter(f -> f.rule().id().equals(rule.id()))
                .toList();
        assertThat(its).hasSize(1);
        return its.get(0);
    }

    @Test
    void oneAloneIsItself() {
        Assessment one = part(80.0, 5.0);
        assertThat(Together.of(List.of(one), TogetherTest::which)).isSameAs(one);
    }

    @Test
    void whatAllSayStandsOnceAndNamesNobody() {
        Finding f = of(Together.of(List.of(part(80.0, 5.0), part(80.0, 5.0)), TogetherTest::which), HEIGHT);
        assertThat(f.verdict()).isEqualTo(Verdict.MET);
        assertThat(f.concerns()).isEmpty();
        assertThat(f.says()).isEqualTo(of(part(80.0, 5.0), HEIGHT).says());
    }

    @Test
    void theWorstStandsAndNamesWhoseItIs() {
        Assessment a = Together.of(List.of(part(80.0, 5.0), part(150.0, 5.0), part(150.0, 5.0)), TogetherTest::which);
        Finding f = of(a, HEIGHT);
        assertThat(f.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(f.concerns()).isEqualTo("part 2 and 3");
        assertThat(a.noGo()).contains(f);
    }

    @Test
    void twoBreachesOfOneRuleAreToldApartTheWorstFirst() {
        Finding f = of(Together.of(List.of(part(130.0, 5.0), part(150.0, 5.0)), TogetherTest::which), HEIGHT);
        assertThat(f.concerns()).isEmpty();
        assertThat(f.says())
                .startsWith("Height above ground 150 m")
                .contains("(part 2); ")
                .contains("130 m");
        assertThat(f.gauge().orElseThrow().value()).isEqualTo(150);
    }

    @Test
    void whatIsNotKnownOfOneIsAskedForAll() {
        Finding f = of(Together.of(List.of(part(80.0, null), part(80.0, 5.0)), TogetherTest::which), WIND);
        assertThat(f.verdict()).isEqualTo(Verdict.NOT_KNOWN);
        assertThat(f.missing()).containsExactly("weather.windMps");
        assertThat(f.concerns()).isEqualTo("part 1");
    }

    @Test
    void aRuleThatJudgesSomeOnlyNamesThem() {
        Finding f = of(Together.of(List.of(part(80.0, 5.0, HEIGHT), part(80.0, 5.0)), TogetherTest::which), WIND);
        assertThat(f.verdict()).isEqualTo(Verdict.MET);
        assertThat(f.concerns()).isEqualTo("part 2");
    }

    @Test
    void versionsOfARuleStayApart() {
        Rule later = new Rule(
                "HEIGHT",
                "HEIGHT",
                Layer.LAW,
                Optional.of("EU"),
                LocalDate.of(2026, 1, 1),
                Optional.empty(),
                Condition.always(),
                Condition.never(),
                SomeRules.atMost("heightAboveGroundM", 100),
                Severity.STOP,
                "do it",
                HEIGHT.source(),
                Rule.Scope.BOTH,
                false,
                "conduct",
                "",
                "");
        Assessment a = Together.of(List.of(part(80.0, 5.0, HEIGHT), part(80.0, 5.0, later)), TogetherTest::which);
        assertThat(a.findings()).filteredOn(f -> f.rule().id().equals("HEIGHT")).hasSize(2);
    }

    @Test
    void manyAreNotAllSpelledOut() {
        List<Assessment> many = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            many.add(part(130.0 + i, 5.0));
        }
        assertThat(of(Together.of(many, TogetherTest::which), HEIGHT).says()).endsWith("; and 3 more");
    }

    /** Together they are as the worst of them, whatever the order. */
    @Test
    void togetherTheyStandAsTheWorst() {
        Random random = new Random(7);
        for (int n = 0; n < 100; n++) {
            List<Assessment> parts = new ArrayList<>();
            for (int i = 0; i <= random.nextInt(5); i++) {
                parts.add(part(
                        random.nextInt(4) == 0 ? null : 60.0 + random.nextInt(120),
                        random.nextInt(4) == 0 ? null : 1.0 + random.nextInt(15)));
            }
            Tally together = Tally.of(Together.of(parts, TogetherTest::which).findings());
            assertThat(together.go())
                    .isEqualTo(parts.stream()
                            .map(a -> Tally.of(a.findings()).go())
                            .max(Comparator.naturalOrder())
                            .orElseThrow());
            Collections.shuffle(parts, random);
            assertThat(Tally.of(Together.of(parts, TogetherTest::which).findings()))
                    .isEqualTo(together);
        }
    }
}
