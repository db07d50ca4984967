package yarrek.app.whatif;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.util.LinkedMultiValueMap;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.rulebook.Rule;
import yarrek.formats.rules.RulePackReader;

/** A rule on the screen and the same rule as a pack writes it. */
class RuleDraftTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);

    static Stream<Rule> plainRules() {
        return Stream.of("eu", "gb", "ca", "us", "au", "nz", "house")
                .flatMap(p -> RulePackReader.shipped(p + ".yaml").rules().stream())
                .filter(r -> RuleDraft.from(r).isPresent());
    }

    private static Rule back(RuleDraft d) throws Exception {
        return RulePackReader.rule(JsonMapper.shared().writeValueAsString(d.toPack(TODAY)), Optional.empty(), TODAY);
    }

    @ParameterizedTest
    @MethodSource("plainRules")
    void aPlainRuleGoesThroughTheScreenUnchanged(Rule rule) throws Exception {
        Rule back = back(RuleDraft.from(rule).orElseThrow());
        assertThat(back.id()).isEqualTo(rule.id());
        assertThat(back.requires().words()).isEqualTo(rule.requires().words());
        assertThat(back.appliesWhen().when()).isEqualTo(rule.appliesWhen().when());
        assertThat(back.severity()).isEqualTo(rule.severity());
        assertThat(back.layer()).isEqualTo(rule.layer());
        assertThat(back.inForceFrom()).isEqualTo(rule.inForceFrom());
        assertThat(back.inForceThrough()).isEqualTo(rule.inForceThrough());
        assertThat(back.onTheDay()).isEqualTo(rule.onTheDay());
        assertThat(back.remedy()).isEqualTo(rule.remedy());
        assertThat(back.source().citation()).isEqualTo(rule.source().citation());
    }

    private static LinkedMultiValueMap<String, String> typed() {
        LinkedMultiValueMap<String, String> p = new LinkedMultiValueMap<>();
        p.set("id", "HOUSE-COAST");
        p.set("title", "Wind at the coast");
        p.set("layer", "house");
        p.set("severity", "act");
        p.set("phase", "weather");
        p.set("cite", "House limit 12");
        p.set("remedy", "Wait for less wind.");
        p.set("whenJoin", "any");
        p.add("w.fact", "siteClosed");
        p.add("w.op", "is");
        p.add("w.value", "no");
        p.add("w.fact", "weather.temperatureC");
        p.add("w.op", "atMost");
        p.add("w.value", "4");
        p.add("r.fact", "weather.windMps");
        p.add("r.op", "atMost");
        p.add("r.value", "8");
        return p;
    }

    @Test
    void linesBecomeARuleInWords() throws Exception {
        Rule r = back(RuleDraft.of(typed()));
        assertThat(r.requires().words()).contains("Wind at flight height").contains("at most 8 m/s");
        assertThat(r.appliesWhen().when()).contains("or");
        assertThat(r.inForceFrom()).isEqualTo(TODAY);
        assertThat(RuleDraft.from(r).orElseThrow().requires())
                .isEqualTo(RuleDraft.of(typed()).requires());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "id|''|the rule needs an id",
                "id|coast wind|capital letters, figures and hyphens",
                "title|''|the rule needs a title",
                "cite|''|the rule needs a source",
                "remedy|''|what to do when it is not met",
                "r.fact|''|say what must hold",
                "r.fact|windAtNoon|there is no fact called “windAtNoon”",
                "r.value|''|say how it is compared, and with what",
                "from|someday|is not a date that is understood"
            })
    void whatIsMissingIsAskedForInWords(String field, String value, String told) {
        LinkedMultiValueMap<String, String> p = typed();
        p.put(field, List.of(value));
        assertThatThrownBy(() -> RuleDraft.of(p).toPack(TODAY))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(told);
    }
}
