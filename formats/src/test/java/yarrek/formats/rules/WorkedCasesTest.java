package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.dataformat.yaml.YAMLMapper;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.ApprovalHeld;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.SunFacts;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/** The worked cases of the six packs, as data. */
class WorkedCasesTest {
    private static final Map<String, RulePack> PACKS = Map.of(
            "EU", RulePackReader.shipped("eu.yaml"),
            "GB", RulePackReader.shipped("gb.yaml"),
            "CA", RulePackReader.shipped("ca.yaml"),
            "US", RulePackReader.shipped("us.yaml"),
            "AU", RulePackReader.shipped("au.yaml"),
            "NZ", RulePackReader.shipped("nz.yaml"));

    static Stream<Arguments> cases() throws IOException {
        try (InputStream in = WorkedCasesTest.class.getResourceAsStream("/rules/worked-cases.yaml")) {
            JsonNode all = YAMLMapper.shared().readTree(in.readAllBytes());
            return StreamSupport.stream(all.spliterator(), false)
                    .map(c -> Arguments.of(c.get("case").asString(), c));
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("cases")
    void caseIsJudgedAsWorked(String name, JsonNode c) {
        List<RulePack> packs = List.of(PACKS.get(c.get("jurisdiction").asString()));
        Facts facts = facts(c);
        Map<String, Finding> findings = new HashMap<>();
        Assessment.of(facts, packs)
                .findings()
                .forEach(f -> findings.put(f.rule().id(), f));
        Assessment.ofOccurrence(facts, packs)
                .findings()
                .forEach(f -> findings.put(f.rule().id(), f));
        c.get("expect").properties().forEach(e -> {
            Finding f = findings.get(e.getKey());
            Set<String> allowed = Set.of(e.getValue().asString().split(" "));
            if (f == null) {
                assertThat(allowed).as(e.getKey() + " is not in force").contains("NOT_APPLICABLE");
                return;
            }
            boolean guidance = allowed.contains("CAUTION")
                    && f.verdict() == Verdict.BREACHED
                    && f.rule().severity() == Severity.CAUTION;
            assertThat(guidance || allowed.contains(f.verdict().name()))
                    .as(e.getKey() + " must be one of " + allowed + " but is " + f.verdict() + ": " + f.says())
                    .isTrue();
        });
        c.get("reject").forEach(r -> {
            Finding f = findings.get(r.asString());
            assertThat(f == null || f.verdict().isFine())
                    .as(r.asString() + " must find no fault"
                            + (f == null ? "" : " but is " + f.verdict() + ": " + f.says()))
                    .isTrue();
        });
        if (c.path("clean").asBoolean(false)) {
            assertThat(findings.values().stream()
                            .filter(f -> f.verdict() == Verdict.BREACHED)
                            .map(f -> f.rule().id() + ": " + f.says()))
                    .isEmpty();
        }
    }

    private static Facts facts(JsonNode c) {
        ZoneId zone = ZoneId.of(c.get("zone").asString());
        Facts.Builder b =
                Facts.builder(zone).word("jurisdiction", c.get("jurisdiction").asString(), "case");
        TimeWindow window;
        if (c.has("start")) {
            window = new TimeWindow(
                    OffsetDateTime.parse(c.get("start").asString()).toInstant(),
                    OffsetDateTime.parse(c.get("end").asString()).toInstant());
        } else {
            LocalDate day = LocalDate.parse(c.get("date").asString());
            window = new TimeWindow(
                    day.atTime(10, 0).atZone(zone).toInstant(),
                    day.atTime(11, 0).atZone(zone).toInstant());
        }
        b.window(window);
        if (c.has("place")) {
            SunFacts.put(
                    b,
                    List.of(window),
                    new Position(
                            c.get("place").get(0).doubleValue(),
                            c.get("place").get(1).doubleValue()));
        }
        c.get("facts").properties().forEach(e -> b.with(e.getKey(), value(e.getKey(), e.getValue()), "case"));
        List<PaperHeld> held = new ArrayList<>();
        c.get("papers")
                .forEach(p -> held.add(new PaperHeld(
                        p.get("kind").asString(),
                        p.has("level") ? Optional.of(p.get("level").asString()) : Optional.empty(),
                        p.get("of").asString(),
                        "N",
                        "",
                        new Validity(
                                Optional.empty(),
                                p.has("validTo")
                                        ? Optional.of(
                                                LocalDate.parse(p.get("validTo").asString()))
                                        : Optional.empty(),
                                zone),
                        true)));
        b.papers(held);
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
        if (c.has("lifts")) {
            Set<String> ids = new HashSet<>();
            c.get("lifts").forEach(l -> ids.add(l.asString()));
            b.approval(new ApprovalHeld("A-1", ids));
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
            case DATE -> new FactValue.Date(LocalDate.parse(v.asString()));
            case INSTANT -> new FactValue.Moment(Instant.parse(v.asString()));
        };
    }
}
