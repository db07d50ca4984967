package yarrek.app.api;

import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;
import yarrek.app.page.OpenTo;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.judging.FlightsPlanned;
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
     * @param flights facts of each planned flight that differ from those of all; null in one of them takes a fact away. Left
     *     out: all is one flight
     */
    record AssessmentIn(
            String zone,
            Map<String, JsonNode> facts,
            List<WindowIn> windows,
            List<PaperIn> papers,
            List<ZoneIn> zones,
            List<ApprovalIn> approvals,
            List<Map<String, JsonNode>> flights) {}

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

    /** Longest job there may be, and so the longest stretch and the most of them. */
    private static final int MOST_DAYS = 60;

    private static final Instant EARLIEST = Instant.parse("1990-01-01T00:00:00Z");
    private static final Instant LATEST = Instant.parse("2200-01-01T00:00:00Z");
    private static final Set<String> QUANTITY_MEMBERS = Set.of("value", "uncertainty", "unit");
    private static final Set<String> ROLES = Set.of("operator", "pilot", "observer", "aircraft", "job");

    private final Rulebook rulebook;
    private final Papers papers;
    private final Clock clock;

    AssessmentApi(Rulebook rulebook, Papers papers, Clock clock) {
        this.rulebook = rulebook;
        this.papers = papers;
        this.clock = clock;
    }

    /** The words that facts may have. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/facts")
    List<FactDefinition> facts() {
        return List.copyOf(Vocabulary.all());
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/assessments")
    AssessmentRow assess(@RequestBody AssessmentIn in) {
        return rulebook.judgeTogether(
                flights(in),
                flights -> flights.size() == 1 ? "flight " + flights.get(0) : "flights " + listed(flights));
    }

    private static String listed(List<Integer> numbers) {
        return numbers.stream().map(String::valueOf).collect(Collectors.joining(", "));
    }

    /** The facts of each flight; of one where none is said by itself. */
    private List<Facts> flights(AssessmentIn in) {
        Facts all = facts(in);
        List<Map<String, JsonNode>> flights = each(in.flights(), "flights");
        if (flights.size() > FlightsPlanned.MOST) {
            throw new ApiConfig.BadRequestException(
                    "facts.flights", "at most " + FlightsPlanned.MOST + " flights, got " + flights.size());
        }
        return flights.isEmpty()
                ? List.of(all)
                : flights.stream().map(f -> changed(all, f)).toList();
    }

    private Facts changed(Facts before, Map<String, JsonNode> changes) {
        Facts.Builder b = before.toBuilder();
        changes.forEach((name, value) -> {
            if (value == null || value.isNull()) {
                b.without(name);
            } else {
                fact(b, name, value, latest(before.windows()));
            }
        });
        return b.build();
    }

    /** Which findings appear and vanish when facts change. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/assessments/what-if")
    ComparisonOut whatIf(@RequestBody WhatIfIn in) {
        if (in.given() == null || in.changes() == null || in.changes().isEmpty()) {
            throw new ApiConfig.BadRequestException(
                    "whatIf", "give {\"given\": the facts, \"changes\": {fact: value}} with at least one change");
        }
        Facts before = facts(in.given());
        Comparison c = Comparison.of(assessment(before), assessment(changed(before, in.changes())));
        return new ComparisonOut(
                c.appear().stream().map(FindingOut::of).toList(),
                c.vanish().stream().map(FindingOut::of).toList(),
                c.shifted().stream()
                        .map(x -> new ShiftOut(FindingOut.of(x.before()), FindingOut.of(x.after())))
                        .toList());
    }

    /** The smallest single changes that would clear each finding. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/assessments/remedies")
    List<RemedyOut> remedies(@RequestBody AssessmentIn in) {
        Facts facts = facts(in);
        List<RulePack> packs = rulebook.packsFor(facts, OwnRules.Setting.NONE);
        return Remedies.of(facts, packs, Assessment.of(facts, packs)).entrySet().stream()
                .map(e -> new RemedyOut(FindingOut.of(e.getKey()), e.getValue()))
                .toList();
    }

    /** Which kinds of operation of a law are open, and what limits each. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/operations")
    List<OperationOut> operations(
            @RequestParam(value = "law", required = false) String law, @RequestBody AssessmentIn in) {
        Facts facts = facts(in);
        String place = law != null
                ? law
                : facts.place()
                        .orElseThrow(() -> new ApiConfig.BadRequestException(
                                "law", "say whose law: ?law=GB, or the fact jurisdiction"));
        return OperationFit.of(facts, pack(place)).stream()
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
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rules")
    List<RuleOut> rules(@RequestParam(value = "law", defaultValue = "EU") String law) {
        return pack(law).rules().stream()
                .map(r -> new RuleOut(
                        r.id(),
                        r.title(),
                        r.layer().words(),
                        r.severity().name().toLowerCase(Locale.ROOT),
                        r.phase(),
                        r.appliesWhen().when(),
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

    private Facts facts(AssessmentIn in) {
        ZoneId zone;
        try {
            zone = in.zone() == null ? ZoneId.of("UTC") : ZoneId.of(in.zone());
        } catch (DateTimeException e) {
            throw new ApiConfig.BadRequestException(
                    "facts.zone", "zone must be a time zone such as Atlantic/Azores, got '" + in.zone() + "'");
        }
        Facts.Builder b = Facts.builder(zone);
        List<TimeWindow> windows = each(in.windows(), "windows").stream()
                .map(AssessmentApi::window)
                .toList();
        if (windows.size() > MOST_DAYS) {
            throw new ApiConfig.BadRequestException(
                    "facts.windows", "at most " + MOST_DAYS + " windows, got " + windows.size());
        }
        windows.forEach(b::window);
        if (in.facts() != null) {
            in.facts().forEach((name, value) -> fact(b, name, value, latest(windows)));
        }
        if (in.papers() != null) {
            Map<String, Papers.Kind> kinds = new HashMap<>();
            papers.kinds().forEach(k -> kinds.put(k.code(), k));
            b.papers(each(in.papers(), "papers").stream()
                    .map(p -> paper(p, kinds, zone))
                    .toList());
        }
        if (in.zones() != null) {
            b.zones(each(in.zones(), "zones").stream().map(AssessmentApi::zone).toList());
        }
        each(in.approvals(), "approvals").forEach(a -> b.approval(approval(a)));
        return b.build();
    }

    /** The members of a list; none of them may be null. */
    private static <T> List<T> each(List<T> list, String name) {
        if (list == null) {
            return List.of();
        }
        int at = list.indexOf(null);
        if (at >= 0) {
            throw new ApiConfig.BadRequestException(
                    "facts." + name, "member " + (at + 1) + " of " + name + " is null; leave it out");
        }
        return list;
    }

    private LocalDate latest(List<TimeWindow> windows) {
        LocalDate today = LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC).plusDays(1);
        return windows.stream()
                .map(w -> LocalDate.ofInstant(w.end(), ZoneOffset.UTC).plusDays(1))
                .filter(d -> d.isAfter(today))
                .max(LocalDate::compareTo)
                .orElse(today);
    }

    private static PaperHeld paper(PaperIn p, Map<String, Papers.Kind> kinds, ZoneId zone) {
        if (p.kind() == null || !kinds.containsKey(p.kind())) {
            throw new ApiConfig.BadRequestException(
                    "facts.papers",
                    "there is no kind of paper called '" + p.kind() + "'; there are " + new TreeSet<>(kinds.keySet()));
        }
        if (p.of() == null || !ROLES.contains(p.of())) {
            throw new ApiConfig.BadRequestException(
                    "facts.papers",
                    "paper " + p.kind() + ": 'of' says whose it is, one of " + new TreeSet<>(ROLES) + ", got '" + p.of()
                            + "'");
        }
        try {
            boolean endKnown = p.endKnown() != null ? p.endKnown() : p.validTo() != null;
            return new PaperHeld(
                    p.kind(),
                    Optional.ofNullable(p.level()),
                    p.of(),
                    p.number() == null ? "" : p.number(),
                    p.jurisdiction() == null ? "" : p.jurisdiction(),
                    new Validity(Optional.ofNullable(p.validFrom()), Optional.ofNullable(p.validTo()), zone),
                    endKnown);
        } catch (IllegalArgumentException e) {
            throw new ApiConfig.BadRequestException("facts.papers", "paper " + p.kind() + ": " + e.getMessage());
        }
    }

    private ApprovalHeld approval(ApprovalIn a) {
        if (a.reference() == null || a.reference().isBlank()) {
            throw new ApiConfig.BadRequestException("facts.approvals", "an approval needs its reference");
        }
        Set<String> lifts = new HashSet<>();
        for (String id : each(a.lifts(), "lifts")) {
            // a rule that no approval may lift stays breached; an id that no rule has is a mistake
            rulebook.whyNotLifted(id)
                    .filter(why -> why.startsWith("there is no rule"))
                    .ifPresent(why -> {
                        throw new ApiConfig.BadRequestException(
                                "facts.approvals", "approval " + a.reference() + ": " + why);
                    });
            lifts.add(id);
        }
        return new ApprovalHeld(a.reference(), lifts);
    }

    private static void fact(Facts.Builder b, String name, JsonNode v, LocalDate latest) {
        if (!Vocabulary.knows(name)) {
            throw new ApiConfig.BadRequestException(
                    "facts.name", "there is no fact called '" + name + "'; GET /api/v1/facts lists them");
        }
        FactDefinition d = Vocabulary.define(name);
        if (v == null || v.isNull()) {
            return;
        }
        try {
            FactValue value = switch (d.type()) {
                case QUANTITY -> quantity(d, v);
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
                    v.forEach(w -> {
                        expect(w.isString());
                        words.add(w.asString());
                    });
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
            };
            d.nonsense(value, latest).ifPresent(why -> {
                throw new ApiConfig.BadRequestException("facts.value", name + ": " + why);
            });
            b.with(name, value, "as given");
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

    private static FactValue quantity(FactDefinition d, JsonNode v) {
        if (!v.isObject()) {
            expect(v.isNumber());
            return new FactValue.Quantity(v.doubleValue(), 0);
        }
        for (String member : v.propertyNames()) {
            if (!QUANTITY_MEMBERS.contains(member)) {
                throw new ApiConfig.BadRequestException(
                        "facts.value",
                        d.name() + ": a quantity has no member '" + member
                                + "'; it takes value, uncertainty and unit, which is " + d.unit());
            }
        }
        if (v.has("unit") && !v.get("unit").asString("").equals(d.unit())) {
            throw new ApiConfig.BadRequestException(
                    "facts.value", d.name() + " is in " + d.unit() + ", not in " + v.get("unit") + "; convert it");
        }
        expect(v.path("value").isNumber()
                && (!v.has("uncertainty") || v.get("uncertainty").isNumber()));
        return new FactValue.Quantity(
                v.get("value").doubleValue(), v.path("uncertainty").asDouble(0));
    }

    private static void expect(boolean holds) {
        if (!holds) {
            throw new IllegalArgumentException("wrong type");
        }
    }

    private static TimeWindow window(WindowIn w) {
        TimeWindow window;
        try {
            window = new TimeWindow(instant(w.start()), instant(w.end()));
        } catch (DateTimeException | IllegalArgumentException | NullPointerException e) {
            throw new ApiConfig.BadRequestException(
                    "facts.windows",
                    "a window is {\"start\", \"end\"} with the end not before the start, each such as 2027-03-14T10:00:00-01:00, got "
                            + w.start() + " and " + w.end());
        }
        if (window.start().isBefore(EARLIEST) || window.end().isAfter(LATEST)) {
            throw new ApiConfig.BadRequestException(
                    "facts.windows", "a window lies between 1990 and 2200, got " + w.start() + " to " + w.end());
        }
        if (Duration.between(window.start(), window.end()).toDays() > MOST_DAYS) {
            throw new ApiConfig.BadRequestException(
                    "facts.windows",
                    "a window is no longer than a job may be, " + MOST_DAYS + " days; give one for each day flown, got "
                            + w.start() + " to " + w.end());
        }
        return window;
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
