package yarrek.app.api;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.ApprovalHeld;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Comparison;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.OperationFit;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.Remedies;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/** Assessments of a job given as facts; no record is needed. */
@RestController
@RequestMapping("/api/v1")
class AssessmentApi {
    /** A stretch of flying, ends included; instants with their offset. */
    record WindowIn(String start, String end) {}

    /**
     * @param of operator, pilot, aircraft or job
     * @param validTo last day, to its end; left out: open when {@code endKnown}, else not known
     */
    record PaperIn(
            String kind,
            String level,
            String of,
            String number,
            String jurisdiction,
            LocalDate validFrom,
            LocalDate validTo,
            Boolean endKnown) {}

    /** @param restriction prohibited, needsAuthorisation, conditional or noRestriction */
    record ZoneIn(String id, String name, String restriction, String says, boolean onlyEdge, String liftedBy) {}

    record ApprovalIn(String reference, List<String> lifts) {}

    /**
     * @param facts by name as in the vocabulary: a number, {"value": …, "uncertainty": …}, true/false, a word, or a list of words
     * @param papers left out: not known which are held
     * @param zones left out: not known which are met
     */
    record AssessmentIn(
            String zone,
            Map<String, JsonNode> facts,
            List<WindowIn> windows,
            List<PaperIn> papers,
            List<ZoneIn> zones,
            List<ApprovalIn> approvals) {}

    /** @param changes facts put in the place of those given; null takes one away */
    record WhatIfIn(AssessmentIn given, Map<String, JsonNode> changes) {}

    record FindingOut(String rule, String title, String layer, String verdict, String says, String citation) {
        static FindingOut of(Finding f) {
            return new FindingOut(
                    f.rule().id(),
                    f.rule().title(),
                    f.rule().layer().words(),
                    f.verdict().words(),
                    f.says(),
                    f.rule().source().citation());
        }
    }

    record ShiftOut(FindingOut before, FindingOut after) {}

    record ComparisonOut(List<FindingOut> appear, List<FindingOut> vanish, List<ShiftOut> shifted) {}

    /** The smallest single changes that clear a finding; none when no single fact does. */
    record RemedyOut(FindingOut finding, List<Remedies.Change> changes) {}

    record OperationOut(
            String id,
            String title,
            String gives,
            String verdict,
            String aircraft,
            String pilot,
            String operator,
            List<String> limitedBy,
            String citation) {}

    record RuleOut(
            String id,
            String title,
            String layer,
            String severity,
            String phase,
            String appliesWhen,
            String requires,
            String remedy,
            LocalDate from,
            LocalDate through,
            String citation,
            LocalDate readOn,
            String confidence) {}

    private final Rulebook rulebook;

    AssessmentApi(Rulebook rulebook) {
        this.rulebook = rulebook;
    }

    /** The words that facts may have. */
    @GetMapping("/facts")
    List<FactDefinition> facts() {
        return List.copyOf(Vocabulary.all());
    }

    @PostMapping("/assessments")
    AssessmentRow assess(@RequestBody AssessmentIn in) {
        return rulebook.judge(facts(in), OwnRules.Setting.NONE);
    }

    /** Which findings appear and vanish when facts change. */
    @PostMapping("/assessments/what-if")
    ComparisonOut whatIf(@RequestBody WhatIfIn in) {
        if (in.given() == null || in.changes() == null || in.changes().isEmpty()) {
            throw new ApiConfig.BadRequestException(
                    "whatIf", "give {\"given\": the facts, \"changes\": {fact: value}} with at least one change");
        }
        Facts before = facts(in.given());
        Facts.Builder b = before.toBuilder();
        in.changes().forEach((name, value) -> {
            if (value == null || value.isNull()) {
                b.without(name);
            } else {
                fact(b, name, value);
            }
        });
        Comparison c = Comparison.of(assessment(before), assessment(b.build()));
        return new ComparisonOut(
                c.appear().stream().map(FindingOut::of).toList(),
                c.vanish().stream().map(FindingOut::of).toList(),
                c.shifted().stream()
                        .map(x -> new ShiftOut(FindingOut.of(x.before()), FindingOut.of(x.after())))
                        .toList());
    }

    /** The smallest single changes that would clear each finding. */
    @PostMapping("/assessments/remedies")
    List<RemedyOut> remedies(@RequestBody AssessmentIn in) {
        Facts facts = facts(in);
        List<RulePack> packs = rulebook.packsFor(facts, OwnRules.Setting.NONE);
        return Remedies.of(facts, packs, Assessment.of(facts, packs)).entrySet().stream()
                .map(e -> new RemedyOut(FindingOut.of(e.getKey()), e.getValue()))
                .toList();
    }

    /** Which kinds of operation of a law are open, and what limits each. */
    @PostMapping("/operations")
    List<OperationOut> operations(
            @RequestParam(value = "law", defaultValue = "EU") String law, @RequestBody AssessmentIn in) {
        return OperationFit.of(facts(in), pack(law)).stream()
                .map(f -> new OperationOut(
                        f.operation().id(),
                        f.operation().title(),
                        f.operation().gives(),
                        f.verdict().words(),
                        f.aircraft().says(),
                        f.pilot().says(),
                        f.operator().says(),
                        f.limits(),
                        f.operation().citation()))
                .toList();
    }

    /** Every rule of a law as it stands in the pack in use, of all dates. */
    @GetMapping("/rules")
    List<RuleOut> rules(@RequestParam(value = "law", defaultValue = "EU") String law) {
        return pack(law).rules().stream()
                .map(r -> new RuleOut(
                        r.id(),
                        r.title(),
                        r.layer().words(),
                        r.severity().name().toLowerCase(Locale.ROOT),
                        r.phase(),
                        r.appliesWhen().words(),
                        r.requires().words(),
                        r.remedy(),
                        r.inForceFrom(),
                        r.inForceThrough().orElse(null),
                        r.source().citation(),
                        r.source().readOn(),
                        r.source().confidence()))
                .toList();
    }

    private RulePack pack(String law) {
        return rulebook.packOf(law)
                .orElseThrow(() -> new ApiConfig.BadRequestException(
                        "law",
                        "there is no rule pack for '" + law + "'; there is one for "
                                + String.join(
                                        ", ",
                                        new TreeSet<>(rulebook.jurisdictions().keySet()))));
    }

    private Assessment assessment(Facts facts) {
        return Assessment.of(facts, rulebook.packsFor(facts, OwnRules.Setting.NONE));
    }

    private static Facts facts(AssessmentIn in) {
        ZoneId zone;
        try {
            zone = in.zone() == null ? ZoneId.of("UTC") : ZoneId.of(in.zone());
        } catch (DateTimeException e) {
            throw new ApiConfig.BadRequestException(
                    "facts.zone", "zone must be a time zone such as Atlantic/Azores, got '" + in.zone() + "'");
        }
        Facts.Builder b = Facts.builder(zone);
        if (in.facts() != null) {
            in.facts().forEach((name, value) -> fact(b, name, value));
        }
        if (in.windows() != null) {
            in.windows().forEach(w -> b.window(window(w)));
        }
        if (in.papers() != null) {
            List<PaperHeld> held = new ArrayList<>();
            for (PaperIn p : in.papers()) {
                try {
                    boolean endKnown = p.endKnown() != null ? p.endKnown() : p.validTo() != null;
                    held.add(new PaperHeld(
                            p.kind(),
                            Optional.ofNullable(p.level()),
                            p.of(),
                            p.number() == null ? "" : p.number(),
                            p.jurisdiction() == null ? "" : p.jurisdiction(),
                            new Validity(Optional.ofNullable(p.validFrom()), Optional.ofNullable(p.validTo()), zone),
                            endKnown));
                } catch (IllegalArgumentException e) {
                    throw new ApiConfig.BadRequestException(
                            "facts.papers", "paper " + p.kind() + ": " + e.getMessage());
                }
            }
            b.papers(held);
        }
        if (in.zones() != null) {
            b.zones(in.zones().stream().map(AssessmentApi::zone).toList());
        }
        if (in.approvals() != null) {
            in.approvals()
                    .forEach(a -> b.approval(
                            new ApprovalHeld(a.reference(), a.lifts() == null ? Set.of() : Set.copyOf(a.lifts()))));
        }
        return b.build();
    }

    private static void fact(Facts.Builder b, String name, JsonNode v) {
        if (!Vocabulary.knows(name)) {
            throw new ApiConfig.BadRequestException(
                    "facts.name", "there is no fact called '" + name + "'; GET /api/v1/facts lists them");
        }
        FactDefinition d = Vocabulary.define(name);
        if (v == null || v.isNull()) {
            return;
        }
        try {
            b.with(
                    name,
                    switch (d.type()) {
                        case QUANTITY -> quantity(v);
                        case YES_NO -> {
                            expect(v.isBoolean());
                            yield new FactValue.YesNo(v.booleanValue());
                        }
                        case WORD -> {
                            expect(v.isString());
                            yield new FactValue.Word(v.asString());
                        }
                        case WORDS -> {
                            expect(v.isArray());
                            Set<String> words = new HashSet<>();
                            v.forEach(w -> words.add(w.asString()));
                            yield new FactValue.Words(words);
                        }
                        case DATE -> {
                            expect(v.isString());
                            yield new FactValue.Date(LocalDate.parse(v.asString()));
                        }
                        case INSTANT -> {
                            expect(v.isString());
                            yield new FactValue.Moment(instant(v.asString()));
                        }
                    },
                    "as given");
        } catch (IllegalArgumentException | DateTimeException e) {
            String wanted = switch (d.type()) {
                case QUANTITY -> "a number in " + d.unit() + ", or {\"value\": …, \"uncertainty\": …}";
                case YES_NO -> "true or false";
                case WORD -> d.words().isEmpty() ? "a word" : "one of " + d.words();
                case WORDS -> d.words().isEmpty() ? "a list of words" : "a list of words of " + d.words();
                case DATE -> "a date such as \"2027-03-14\"";
                case INSTANT -> "an instant such as \"2027-03-14T10:00:00-01:00\"";
            };
            throw new ApiConfig.BadRequestException("facts.value", name + " must be " + wanted + ", got " + v);
        }
    }

    private static FactValue quantity(JsonNode v) {
        if (v.isObject()) {
            expect(v.path("value").isNumber()
                    && (!v.has("uncertainty") || v.get("uncertainty").isNumber()));
            return new FactValue.Quantity(
                    v.get("value").doubleValue(), v.path("uncertainty").asDouble(0));
        }
        expect(v.isNumber());
        return new FactValue.Quantity(v.doubleValue(), 0);
    }

    private static void expect(boolean holds) {
        if (!holds) {
            throw new IllegalArgumentException("wrong type");
        }
    }

    private static TimeWindow window(WindowIn w) {
        try {
            return new TimeWindow(instant(w.start()), instant(w.end()));
        } catch (DateTimeException | IllegalArgumentException | NullPointerException e) {
            throw new ApiConfig.BadRequestException(
                    "facts.windows",
                    "a window is {\"start\", \"end\"} with the end not before the start, each such as 2027-03-14T10:00:00-01:00, got "
                            + w.start() + " and " + w.end());
        }
    }

    private static Instant instant(String s) {
        return OffsetDateTime.parse(s).toInstant();
    }

    private static ZoneMet zone(ZoneIn z) {
        try {
            String restriction =
                    String.valueOf(z.restriction()).replaceAll("([A-Z])", "_$1").toUpperCase(Locale.ROOT);
            return new ZoneMet(
                    z.id() == null ? "" : z.id(),
                    z.name() == null ? "zone" : z.name(),
                    ZoneMet.Restriction.valueOf(restriction),
                    z.onlyEdge(),
                    z.says() == null ? "" : z.says(),
                    Optional.ofNullable(z.liftedBy()));
        } catch (IllegalArgumentException e) {
            throw new ApiConfig.BadRequestException(
                    "facts.zones",
                    "restriction must be prohibited, needsAuthorisation, conditional or noRestriction, got '"
                            + z.restriction() + "'");
        }
    }
}
