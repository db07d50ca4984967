package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.time.TimeWindow;

/** A version that is adopted on a day judges from that day on, and beside the older one what lies over it. */
class AdoptionTest extends RunningApp {
    private static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    private static final LocalDate ADOPTED = LocalDate.of(2031, 5, 10);

    @Autowired
    Rulebook rulebook;

    @Autowired
    JdbcClient jdbc;

    private static final String PACK = """
            pack: MEADOW
            title: Rules of a meadow
            version: %s
            readOn: 2026-11-01
            head: Made up.
            rules:
              - id: MEADOW-HEIGHT
                title: Height over the meadow
                layer: house
                severity: act
                requires: {fact: heightAboveGroundM, atMost: %d}
                cite: Meadow 1
                from: 2020-01-01
                confidence: high
                remedy: Fly lower.
              - id: MEADOW-SAME
                title: Water
                layer: house
                severity: act
                requires: {fact: overWater, is: false}
                cite: Meadow 2
                from: 2020-01-01
                confidence: high
                remedy: Stay over land.
            """;

    private UUID bringIn(String version, int height, LocalDate from) throws Exception {
        UUID id = rulebook.bringIn(
                "meadow.yaml", PACK.formatted(version, height).getBytes(StandardCharsets.UTF_8), "test");
        rulebook.adopt(id, from);
        return id;
    }

    @AfterEach
    void forget() {
        jdbc.sql("delete from rule_pack where pack = 'MEADOW'").update();
        changedByAnotherNode(jdbc, "rules");
    }

    private static Facts on(LocalDate first, LocalDate last) {
        Facts.Builder b = Facts.builder(ZONE);
        first.datesUntil(last.plusDays(1))
                .forEach(d -> b.window(new TimeWindow(
                        d.atTime(LocalTime.of(9, 0)).atZone(ZONE).toInstant(),
                        d.atTime(LocalTime.of(10, 0)).atZone(ZONE).toInstant())));
        return b.build();
    }

    private List<String> rules(LocalDate first, LocalDate last) {
        return rulebook.packsFor(on(first, last), OwnRules.Setting.NONE).stream()
                .filter(p -> p.id().equals("MEADOW"))
                .flatMap(p -> p.rules().stream()
                        .map(r ->
                                p.version() + " " + r.id() + " " + r.requires().words()))
                .sorted()
                .toList();
    }

    @Test
    void aJobOverAnAdoptionMeetsBothVersions() throws Exception {
        bringIn("1", 50, ADOPTED.minusYears(1));
        bringIn("2", 40, ADOPTED);
        List<String> before = rules(ADOPTED.minusDays(2), ADOPTED.minusDays(1));
        List<String> after = rules(ADOPTED, ADOPTED.plusDays(1));
        assertThat(before).hasSize(2).allMatch(r -> r.startsWith("1 "));
        assertThat(after).hasSize(2).allMatch(r -> r.startsWith("2 "));
        // both heights, and once what is the same in both
        assertThat(rules(ADOPTED.minusDays(1), ADOPTED))
                .hasSize(3)
                .contains(before.get(0), before.get(1), after.get(0));
    }

    @Test
    void aRuleIsFoundInTheVersionThatJudgesTheDay() throws Exception {
        bringIn("1", 50, ADOPTED.minusYears(1));
        bringIn("2", 40, ADOPTED);
        Rule old = rulebook.rule("MEADOW-HEIGHT", ADOPTED.minusDays(1)).orElseThrow();
        Rule young = rulebook.rule("MEADOW-HEIGHT", ADOPTED).orElseThrow();
        assertThat(old.requires().words()).contains("50");
        assertThat(young.requires().words()).contains("40");
        assertThat(rulebook.rule("MEADOW-HEIGHT", ADOPTED.minusYears(2))).isEmpty();
    }

    @Test
    void theLawSaysIntoWhichCategoryFallsWhatIsFlownWithoutAnAuthorisation() {
        assertThat(rulebook.packOf("EU-XT").flatMap(RulePack::category)).contains("open");
        assertThat(rulebook.packOf("GB").flatMap(RulePack::category)).contains("open");
        assertThat(rulebook.packOf("CA").flatMap(RulePack::category)).isEmpty();
    }
}
