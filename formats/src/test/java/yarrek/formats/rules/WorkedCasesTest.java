package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.dataformat.yaml.YAMLMapper;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/** The worked cases of the pack, as data. */
class WorkedCasesTest {
    private static final RulePack EU = RulePackReader.shipped("eu.yaml");

    static Stream<Arguments> cases() throws IOException {
        try (InputStream in = WorkedCasesTest.class.getResourceAsStream("/rules/worked-cases-eu.yaml")) {
            JsonNode all = YAMLMapper.shared().readTree(in.readAllBytes());
            return StreamSupport.stream(all.spliterator(), false)
                    .map(c -> Arguments.of(c.get("case").asString(), c));
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("cases")
    void caseIsJudgedAsWorked(String name, JsonNode c) {
        Map<String, Finding> findings = Assessment.of(facts(c), List.of(EU)).findings().stream()
                .collect(Collectors.toMap(f -> f.rule().id(), Function.identity()));
        c.get("expect")
                .properties()
                .forEach(e -> assertThat(findings.get(e.getKey()).verdict())
                        .as(e.getKey())
                        .isEqualTo(Verdict.valueOf(e.getValue().asString())));
        c.get("reject")
                .forEach(r -> assertThat(findings.get(r.asString()).verdict())
                        .as(r.asString() + " must find no fault")
                        .isIn(Verdict.MET, Verdict.CLOSE, Verdict.NOT_APPLICABLE));
    }

    private static Facts facts(JsonNode c) {
        ZoneId zone = ZoneId.of(c.path("zone").asString("UTC"));
        Facts.Builder b = Facts.builder(zone).word("jurisdiction", "EU", "case");
        if (c.has("start")) {
            b.window(new TimeWindow(
                    OffsetDateTime.parse(c.get("start").asString()).toInstant(),
                    OffsetDateTime.parse(c.get("end").asString()).toInstant()));
        } else {
            LocalDate day = LocalDate.parse(c.get("date").asString());
            b.window(new TimeWindow(
                    day.atTime(10, 0).atZone(zone).toInstant(),
                    day.atTime(11, 0).atZone(zone).toInstant()));
        }
        c.get("facts").properties().forEach(e -> b.with(e.getKey(), value(e.getKey(), e.getValue()), "case"));
        if (c.has("papers")) {
            List<PaperHeld> held = new ArrayList<>();
            c.get("papers")
                    .forEach(p -> held.add(new PaperHeld(
                            p.get("kind").asString(),
                            p.has("level") ? Optional.of(p.get("level").asString()) : Optional.empty(),
                            p.get("of").asString(),
                            "N",
                            new Validity(
                                    Optional.empty(),
                                    p.has("validTo")
                                            ? Optional.of(LocalDate.parse(
                                                    p.get("validTo").asString()))
                                            : Optional.empty(),
                                    zone),
                            true)));
            b.papers(held);
        }
        if (c.has("zones")) {
            List<ZoneMet> met = new ArrayList<>();
            c.get("zones")
                    .forEach(z -> met.add(new ZoneMet(
                            "Z",
                            "Zone",
                            ZoneMet.Restriction.valueOf(z.get("restriction").asString()),
                            false,
                            "says",
                            Optional.empty())));
            b.zones(met);
        }
        return b.build();
    }

    private static FactValue value(String name, JsonNode v) {
        return switch (Vocabulary.define(name).type()) {
            case QUANTITY -> new FactValue.Quantity(v.doubleValue(), 0);
            case YES_NO -> new FactValue.YesNo(v.booleanValue());
            case WORD -> new FactValue.Word(v.asString());
            case WORDS -> {
                Set<String> words = new HashSet<>();
                v.forEach(w -> words.add(w.asString()));
                yield new FactValue.Words(words);
            }
        };
    }
}
