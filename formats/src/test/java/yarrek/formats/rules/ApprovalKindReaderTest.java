package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.ChainPlan;
import yarrek.core.approval.Holidays;
import yarrek.core.approval.Needed;
import yarrek.core.approval.Request;
import yarrek.core.approval.WorkDays;
import yarrek.core.rulebook.RulePack;
import yarrek.formats.log.BrokenFileException;

/** Kinds of approval as data, and how they hang together with the packs. */
class ApprovalKindReaderTest {
    private static final List<ApprovalKind> SHIPPED = ApprovalKindReader.shipped().kinds().stream()
            .map(ApprovalKindReader.Entry::kind)
            .toList();
    private static final String WHOLE =
            "{code: pier, title: pier, granter: the port, hours: 1, usual: 2 days, worst: 5 days, source: letter}";

    @Test
    void everyRuleThatAKindAnswersIsARuleOfAPackWhereItHolds() {
        for (ApprovalKind k : SHIPPED) {
            for (String rule : k.trigger().answers()) {
                String pack =
                        rule.startsWith("UK-") ? "gb" : rule.substring(0, 2).toLowerCase(java.util.Locale.ROOT);
                RulePack p = RulePackReader.shipped(pack + ".yaml");
                assertThat(p.rules()).as(k.code()).anyMatch(r -> r.id().equals(rule));
                assertThat(k.holdsIn(p.jurisdiction().orElseThrow()))
                        .as(k.code())
                        .isTrue();
            }
        }
    }

    @Test
    void everyKindNamedByAnotherIsThere() {
        Set<String> codes = SHIPPED.stream().map(ApprovalKind::code).collect(Collectors.toSet());
        for (ApprovalKind k : SHIPPED) {
            assertThat(codes).containsAll(k.needs()).containsAll(k.after()).containsAll(k.quotes());
        }
    }

    /** All kinds of a place at once, for three days: the longest chain there is has no circle. */
    @ParameterizedTest
    @ValueSource(strings = {"EU", "GB", "CA", "US", "AU", "NZ"})
    void theKindsOfAPlaceMakeAChainWithoutACircle(String jurisdiction) {
        List<Needed> all = SHIPPED.stream()
                .filter(k -> k.holdsIn(jurisdiction))
                .map(k -> new Needed(k, java.util.Optional.empty(), "", true, List.of()))
                .toList();
        LocalDate day = LocalDate.of(2027, 6, 14);
        ChainPlan p = ChainPlan.of(
                Request.steps(Request.of(all, day, day.plusDays(2)), Map.of(), true),
                new ChainPlan.Settings(
                        LocalDate.of(2026, 11, 25),
                        new WorkDays(Holidays.of(
                                ApprovalKindReader.shipped().holidays().get(jurisdiction), 2026, 2028)),
                        6,
                        3));
        assertThat(p.critical()).isNotEmpty();
        assertThat(p.step("unlock#1").orElseThrow().step().needs()).hasSizeGreaterThan(2);
        assertThat(all).anyMatch(n -> n.kind().desk().equals("air"));
    }

    @Test
    void aKindWrittenAndReadBackIsTheSame() throws BrokenFileException {
        JsonMapper json = JsonMapper.builder().build();
        for (ApprovalKindReader.Entry e : ApprovalKindReader.shipped().kinds()) {
            String text = json.writeValueAsString(ApprovalKindReader.write(e.kind()));
            String whole =
                    e.when().isEmpty() ? text : text.substring(0, text.length() - 1) + ", \"when\": " + e.when() + "}";
            ApprovalKindReader.Entry back = ApprovalKindReader.kind(whole);
            assertThat(back.kind()).isEqualTo(e.kind());
            assertThat(back.when()).isEqualTo(e.when());
        }
    }

    @Test
    void questionsAreNumberedOnceAndTheWeightyOnesMarked() {
        Set<String> lists = new HashSet<>();
        for (ApprovalKind k : SHIPPED) {
            assertThat(k.questions().stream().map(ApprovalKind.Question::number))
                    .doesNotHaveDuplicates();
            lists.addAll(k.questions().stream()
                    .filter(ApprovalKind.Question::weighty)
                    .map(ApprovalKind.Question::ask)
                    .toList());
        }
        assertThat(lists).anyMatch(q -> q.startsWith("Safety plan"));
    }

    @Test
    void theLeastThatAKindNeedsIsEnough() {
        assertThatCode(() -> ApprovalKindReader.kind(WHOLE)).doesNotThrowAnyException();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '~',
            value = {
                "code: pier ~ code: a pier ~ a code of letters",
                "worst: 5 days ~ worst: 5 weeks ~ a lead time such as '10 days'",
                "worst: 5 days ~ wurst: 5 days ~ unknown word 'wurst'",
                "hours: 1 ~ hours: -1 ~ hours of work must be 0 to 10,000",
                "hours: 1 ~ hours: 1, copyHours: 2 ~ those of a copy",
                "hours: 1 ~ hours: 1, zones: [volcano] ~ there is no kind of zone called 'volcano'",
                "hours: 1 ~ hours: 1, settles: {magic: 'yes'} ~ there is no fact called 'magic'",
                "hours: 1 ~ hours: 1, fee: cheap ~ an amount such as '120.00 EUR'",
                "hours: 1 ~ hours: 1, questions: nowhere ~ there is no list of questions called 'nowhere'",
                "hours: 1 ~ hours: 1, questions: ['1 | a'] ~ a question is written",
                "hours: 1 ~ hours: 1, questions: ['1 | a | b | c', '1 | a | d | c'] ~ question 1 stands there twice",
                "hours: 1 ~ hours: 1, desk: post ~ one of [air, none, unlock] was expected",
                "hours: 1 ~ hours: 1, when: {fact: event, isOneOf: [party]} ~ party"
            })
    void whatIsWrongIsNamed(String right, String wrong, String says) {
        assertThat(WHOLE).contains(right);
        assertThatThrownBy(() -> ApprovalKindReader.kind(WHOLE.replace(right, wrong)))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining(says);
    }

    @Test
    void aFileSaysItsLine() {
        String file = Stream.of("kinds:", "  - " + WHOLE, "  - " + WHOLE).collect(Collectors.joining("\n"));
        assertThatThrownBy(() ->
                        ApprovalKindReader.read("mine.yaml", file.getBytes(java.nio.charset.StandardCharsets.UTF_8)))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("mine.yaml, line 3: the code 'pier' stands there twice");
    }

    private static List<String> neededInCanada(double massG) {
        yarrek.core.rulebook.Facts f = yarrek.core.rulebook.Facts.builder(java.time.ZoneOffset.UTC)
                .window(new yarrek.core.time.TimeWindow(
                        java.time.Instant.parse("2027-06-14T12:00:00Z"),
                        java.time.Instant.parse("2027-06-14T15:00:00Z")))
                .word("jurisdiction", "CA", "test")
                .quantity("takeoffMassG", massG, 0, "test")
                .yesNo("airspace.controlled", true, "test")
                .yesNo("airspace.authorised", false, "test")
                .yesNo("launchPermission", true, "test")
                .word("event", "none", "test")
                .quantity("heightAboveGroundM", 60, 0, "test")
                .papers(List.of())
                .build();
        return Needed.of(
                        SHIPPED,
                        "CA",
                        yarrek.core.rulebook.Assessment.of(f, List.of(RulePackReader.shipped("ca.yaml"))),
                        f,
                        List.of(
                                new Needed.ZoneHit(
                                        "CTR", "control zone", yarrek.core.airspace.ZoneKind.CONTROL_ZONE, true),
                                new Needed.ZoneHit("M", "maker", yarrek.core.airspace.ZoneKind.MAKER, true)))
                .stream()
                .filter(Needed::known)
                .map(Needed::key)
                .toList();
    }

    /** CAR 900.06 and 901.14: below 250 g no authorisation is asked for, but the motors still stay off without the unlock. */
    @Test
    void aLightBuildNeedsOnlyTheUnlockWhereAHeavierOneNeedsTheTowerToo() {
        assertThat(neededInCanada(249)).containsExactly("unlock");
        assertThat(neededInCanada(900)).containsExactly("zoneCA@CTR", "unlock");
    }
}
