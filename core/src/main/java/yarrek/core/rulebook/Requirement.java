package yarrek.core.rulebook;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import yarrek.core.time.TimeWindow;

/** What must hold where a rule applies. Missing facts are never met. */
public sealed interface Requirement {
    Outcome judge(Facts facts);

    Set<String> factNames();

    /** The verdict alone, without the words: the same as that of {@link #judge}, for looking at every moment of a flight. */
    default Verdict verdict(Facts facts) {
        return judge(facts).verdict();
    }

    /** Distance left to the nearest limit, for finding the worst moment; infinite where nothing is measured. */
    default double margin(Facts facts) {
        return Double.POSITIVE_INFINITY;
    }

    /** The same as {@link #verdict} and {@link #margin} at each moment of a flight over which some of its facts change. */
    default OverTime overTime(Moments m) {
        return new OverTime(i -> verdict(m.at(i)), i -> margin(m.at(i)));
    }

    /** How many of its single parts do not comply. */
    default int failing(Facts facts) {
        return verdict(facts).isFine() ? 0 : 1;
    }

    /** Papers that it asks for in every case; those of alternatives are left out, since another may do. */
    default List<HoldsPaper> papers() {
        return List.of();
    }

    /** Whether it is about zones of such a restriction. */
    default boolean isOf(ZoneMet.Restriction restriction) {
        return false;
    }

    /** The least that a quantity must be whatever the case; empty where this asks for none. */
    default OptionalDouble least(String quantity) {
        return OptionalDouble.empty();
    }

    /** In words, for the screen. */
    String words();

    /** How near the limit counts as close. */
    record Closeness(double percentOfLimit, boolean straddling) {
        /** 5 % of the limit or the measuring uncertainty, whichever is greater (house default). */
        public static final Closeness USUAL = new Closeness(5, false);

        /** Nothing certain is close: for what is counted, where the limit itself is the usual case. */
        public static final Closeness NONE = new Closeness(-1, false);

        /** Only the uncertainty counts: reaching over the limit from either side, or standing on it, is close. */
        public static final Closeness UNCERTAINTY = new Closeness(0, true);

        Verdict verdict(FactValue.Quantity q, Limit.Span limit, Bound bound) {
            boolean surely = bound.surely(q, limit);
            if (!surely && (q.isOpen() || Double.isInfinite(limit.greatest()))) {
                return bound.possibly(q, limit) ? Verdict.NOT_KNOWN : Verdict.BREACHED;
            }
            boolean holds = bound.holds(q.value(), limit.at());
            if (straddling) {
                return surely != bound.possibly(q, limit) || (holds && q.value() == limit.at())
                        ? Verdict.CLOSE
                        : holds ? Verdict.MET : Verdict.BREACHED;
            }
            if (!holds) {
                return Verdict.BREACHED;
            }
            double band = Math.max(
                    Math.abs(limit.at()) * percentOfLimit / 100,
                    bound.isUpper() && !q.isOpen() ? q.above() : q.below());
            boolean near = percentOfLimit >= 0 && Math.abs(bound.margin(q.value(), limit.at())) <= band;
            return !surely || near ? Verdict.CLOSE : Verdict.MET;
        }
    }

    /** A quantity on the right side of a limit. */
    record QuantityWithin(String fact, Bound bound, Limit limit, Closeness closeness) implements Requirement {
        @Override
        public Outcome judge(Facts facts) {
            FactValue.Quantity q = facts.quantity(fact);
            Optional<Limit.Span> at = limit.span(facts);
            if (q == null || at.isEmpty()) {
                List<String> missing = new ArrayList<>();
                if (q == null) {
                    missing.add(fact);
                }
                if (at.isEmpty()) {
                    limit.factNames().stream()
                            .filter(f -> facts.get(f).isEmpty())
                            .forEach(missing::add);
                }
                return missing.isEmpty()
                        ? Outcome.unknown(
                                "not known: the limit of " + Outcome.lower(label()) + " for "
                                        + limit.factNames().stream()
                                                .map(f -> Outcome.lower(Vocabulary.define(f)
                                                                .label()) + " "
                                                        + facts.get(f)
                                                                .map(k -> k.value()
                                                                        .show(Vocabulary.define(f)))
                                                                .orElse(""))
                                                .collect(Collectors.joining(", ")),
                                List.of())
                        : Outcome.unknown("not known: " + labels(missing), missing);
            }
            return outcome(q, q.value(), q.value(), at.get());
        }

        private String label() {
            return Vocabulary.define(fact).label();
        }

        @Override
        public OptionalDouble least(String quantity) {
            return !bound.isUpper() && fact.equals(quantity)
                    ? limit.of(Facts.builder(ZoneOffset.UTC).build())
                    : OptionalDouble.empty();
        }

        @Override
        public Verdict verdict(Facts facts) {
            return verdict(facts.quantity(fact), limit.span(facts));
        }

        @Override
        public double margin(Facts facts) {
            return margin(facts.quantity(fact), limit.span(facts));
        }

        @Override
        public OverTime overTime(Moments m) {
            IntFunction<FactValue.Quantity> quantity = m.quantities(fact);
            IntFunction<Optional<Limit.Span>> limits = limit.overTime(m);
            return new OverTime(
                    i -> verdict(quantity.apply(i), limits.apply(i)), i -> margin(quantity.apply(i), limits.apply(i)));
        }

        private Verdict verdict(FactValue.Quantity q, Optional<Limit.Span> at) {
            return q == null || at.isEmpty() ? Verdict.NOT_KNOWN : closeness.verdict(q, at.get(), bound);
        }

        private double margin(FactValue.Quantity q, Optional<Limit.Span> at) {
            return q == null || at.isEmpty()
                    ? Double.POSITIVE_INFINITY
                    : bound.margin(q.value(), at.get().at());
        }

        Outcome outcome(FactValue.Quantity q, double least, double greatest, Limit.Span at) {
            FactDefinition d = Vocabulary.define(fact);
            Verdict verdict = closeness.verdict(q, at, bound);
            Gauge gauge = new Gauge(
                    fact, d.unit(), q.value(), q.uncertainty(), least, greatest, at.at(), bound, limit.stated());
            if (verdict == Verdict.NOT_KNOWN) {
                String settles = Facts.settles(
                        q.isOpen() ? fact : limit.factNames().iterator().next());
                return Outcome.unknown(
                        d.label() + " " + q.show(d) + ", " + gauge.limitText() + ": not known: "
                                + Outcome.lower(Vocabulary.define(settles).label()),
                        List.of(settles));
            }
            boolean open = !q.isOpen() && bound.surely(q, at) != bound.possibly(q, at);
            String says = d.label() + " " + gauge.valueText() + ", " + gauge.limitText() + ": " + gauge.marginText()
                    + (!open
                            ? ""
                            : verdict == Verdict.BREACHED
                                    ? ", within the uncertainty"
                                    : "; the uncertainty reaches over the limit: measure it");
            return new Outcome(verdict, says, Optional.of(gauge), List.of());
        }

        @Override
        public Set<String> factNames() {
            Set<String> names = new TreeSet<>(limit.factNames());
            names.add(fact);
            return names;
        }

        @Override
        public String words() {
            FactDefinition d = Vocabulary.define(fact);
            return d.label() + " " + bound.words() + " " + limit.words(d.unit());
        }
    }

    record YesNoIs(String fact, boolean value) implements Requirement {
        @Override
        public Outcome judge(Facts facts) {
            Optional<Facts.Known> known = facts.get(fact);
            if (known.isEmpty()) {
                return Outcome.unknown(fact);
            }
            boolean is = ((FactValue.YesNo) known.get().value()).value();
            String says = Vocabulary.define(fact).label() + ": " + (is ? "yes" : "no");
            return is == value ? Outcome.met(says) : Outcome.breached(says);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Vocabulary.define(fact).label() + ": " + (value ? "yes" : "no");
        }
    }

    record WordIsOneOf(String fact, Set<String> allowed) implements Requirement {
        public WordIsOneOf {
            allowed = Set.copyOf(allowed);
        }

        @Override
        public Outcome judge(Facts facts) {
            Optional<Facts.Known> known = facts.get(fact);
            if (known.isEmpty()) {
                return Outcome.unknown(fact);
            }
            String is = ((FactValue.Word) known.get().value()).value();
            String says = Vocabulary.define(fact).label() + ": " + word(is) + " (allowed: " + list(allowed) + ")";
            return allowed.contains(is) ? Outcome.met(says) : Outcome.breached(says);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Vocabulary.define(fact).label() + " is " + list(allowed);
        }
    }

    record WordsContain(String fact, String value) implements Requirement {
        @Override
        public Outcome judge(Facts facts) {
            Optional<Facts.Known> known = facts.get(fact);
            if (known.isEmpty()) {
                return Outcome.unknown(fact);
            }
            Set<String> are = ((FactValue.Words) known.get().value()).values();
            String says = Vocabulary.define(fact).label() + ": " + (are.isEmpty() ? "none" : list(are)) + " (needed: "
                    + value + ")";
            return are.contains(value) ? Outcome.met(says) : Outcome.breached(says);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Vocabulary.define(fact).label() + " include " + value;
        }
    }

    /**
     * A paper of a kind and one of the levels, in force for every stretch of the job; several may follow one another.
     *
     * @param jurisdiction the law that asks: a paper counts when it is of that law, or of a state of its union
     * @param namesPlace whether the paper must name the place itself, as a policy its territory; what one state of a union
     *     issued does not count in another then
     */
    record HoldsPaper(
            String kind,
            String kindName,
            Set<String> levels,
            String role,
            Optional<String> jurisdiction,
            boolean namesPlace)
            implements Requirement {
        private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.UK);

        public HoldsPaper {
            levels = Set.copyOf(levels);
        }

        @Override
        public Outcome judge(Facts facts) {
            if (facts.papers().isEmpty() || facts.windows().isEmpty()) {
                return Outcome.unknown(
                        "not known: "
                                + (facts.papers().isEmpty()
                                        ? "which papers the " + role + " holds"
                                        : "days and hours of the flying"),
                        List.of());
            }
            if (facts.isUnnamed(role)) {
                return Outcome.unknown(
                        "not known: who or what is the " + role + ", and so whether it has " + kindName, List.of());
            }
            List<PaperHeld> ofKind = facts.papers().get().stream()
                    .filter(p -> p.kind().equals(kind) && p.role().equals(role))
                    .toList();
            List<PaperHeld> fitting = ofKind.stream()
                    .filter(p -> counts(p, facts))
                    .filter(p ->
                            levels.isEmpty() || p.level().map(levels::contains).orElse(false))
                    .toList();
            String what = kindName + (levels.isEmpty() ? "" : " (" + list(levels) + ")");
            if (fitting.isEmpty()) {
                String elsewhere = ofKind.stream()
                        .filter(p -> !counts(p, facts))
                        .map(p -> p.number() + " of " + p.jurisdiction())
                        .distinct()
                        .collect(Collectors.joining(", "));
                return Outcome.breached("the " + role + " has no " + what + " on record"
                        + (elsewhere.isEmpty() ? "" : " that counts here; " + elsewhere + " does not"));
            }
            Set<String> gaps = new LinkedHashSet<>();
            List<PaperHeld> settled =
                    fitting.stream().filter(HoldsPaper::endSettled).toList();
            boolean doubtful = false;
            boolean lastDay = false;
            for (TimeWindow w : facts.windows()) {
                Optional<Instant> gap = gap(fitting, w);
                if (gap.isPresent()) {
                    gaps.add(DAY.format(gap.get().atZone(facts.zone())));
                } else if (gap(settled, w).isPresent()) {
                    doubtful = true;
                } else {
                    lastDay |= settled.stream()
                            .filter(p -> p.validity().holdsAt(w.end()))
                            .allMatch(p -> p.validity()
                                    .validThrough()
                                    .map(d -> d.equals(
                                            w.end().atZone(p.validity().zone()).toLocalDate()))
                                    .orElse(false));
                }
            }
            PaperHeld shown = fitting.get(fitting.size() - 1);
            String validity = shown.validity()
                    .validThrough()
                    .map(d -> "valid to " + DAY.format(d))
                    .orElse("no end date");
            if (!gaps.isEmpty()) {
                return Outcome.breached(
                        "no " + what + " in force on " + String.join(", ", gaps) + "; " + shown.number() + " is "
                                + shown.validity()
                                        .validFrom()
                                        .map(d -> "valid from " + DAY.format(d) + ", ")
                                        .orElse("") + validity);
            }
            if (doubtful) {
                return Outcome.unknown("not known: when " + what + " " + shown.number() + " ends", List.of());
            }
            String says = what + " " + shown.number() + ", " + validity;
            return lastDay ? Outcome.close(says + ": its last day") : Outcome.met(says);
        }

        private boolean counts(PaperHeld p, Facts facts) {
            return namesPlace
                    ? facts.place().map(p::namesPlace).orElse(p.jurisdiction().isBlank())
                    : p.countsIn(jurisdiction);
        }

        /** The first instant of the window at which none of the papers is in force; empty when there is none. */
        private static Optional<Instant> gap(List<PaperHeld> papers, TimeWindow w) {
            Instant at = w.start();
            while (true) {
                Instant now = at;
                List<PaperHeld> held =
                        papers.stream().filter(p -> p.validity().holdsAt(now)).toList();
                if (held.isEmpty()) {
                    return Optional.of(at);
                }
                if (held.stream().anyMatch(p -> p.validity().endExclusive().isEmpty())) {
                    return Optional.empty();
                }
                at = held.stream()
                        .map(p -> p.validity().endExclusive().orElseThrow())
                        .max(Comparator.naturalOrder())
                        .orElseThrow();
                if (at.isAfter(w.end())) {
                    return Optional.empty();
                }
            }
        }

        /** Whether one on record begins later, or holds on some of the days, so that other days might do. */
        boolean heldAtAnotherTime(Facts facts) {
            return facts.papers().stream()
                    .flatMap(List::stream)
                    .filter(p -> p.kind().equals(kind)
                            && p.role().equals(role)
                            && counts(p, facts)
                            && (levels.isEmpty()
                                    || p.level().map(levels::contains).orElse(false)))
                    .anyMatch(p -> facts.windows().stream()
                            .anyMatch(w -> p.validity().covers(w)
                                    || p.validity()
                                            .start()
                                            .map(s -> s.isAfter(w.start()))
                                            .orElse(false)));
        }

        @Override
        public List<HoldsPaper> papers() {
            return List.of(this);
        }

        private static boolean endSettled(PaperHeld p) {
            return p.endKnown() || p.validity().validThrough().isPresent();
        }

        @Override
        public Set<String> factNames() {
            return Set.of();
        }

        @Override
        public String words() {
            return "the " + role + " holds " + kindName + (levels.isEmpty() ? "" : " " + list(levels))
                    + (namesPlace ? " that names the place" : "") + " for the whole job";
        }
    }

    /** No zone with this restriction is met, unless an approval covers it. */
    record NoZone(ZoneMet.Restriction restriction) implements Requirement {
        @Override
        public Outcome judge(Facts facts) {
            if (facts.zones().isEmpty()) {
                return Outcome.unknown("not known: which zones the area meets", List.of());
            }
            List<ZoneMet> met = facts.zones().get().stream()
                    .filter(z -> z.restriction() == restriction)
                    .toList();
            List<ZoneMet> open =
                    met.stream().filter(z -> z.liftedBy().isEmpty()).toList();
            if (open.isEmpty()) {
                return Outcome.met(
                        met.isEmpty()
                                ? "no such zone among those on file"
                                : met.stream()
                                        .map(z -> z.name() + ": covered by "
                                                + z.liftedBy().orElseThrow())
                                        .collect(Collectors.joining("; ")));
            }
            List<ZoneMet> doubtful =
                    open.stream().filter(z -> z.doubt().isPresent()).toList();
            boolean certain = open.stream().anyMatch(z -> z.doubt().isEmpty() && !z.onlyEdge());
            if (!certain && !doubtful.isEmpty()) {
                return Outcome.unknown(
                        doubtful.stream()
                                .map(z -> "not known whether " + z.name() + " is met: "
                                        + z.doubt().orElseThrow())
                                .collect(Collectors.joining("; ")),
                        List.of());
            }
            String says = open.stream()
                    .map(z -> z.name() + ": " + z.says()
                            + z.doubt().map(d -> " (not known: " + d + ")").orElse(""))
                    .collect(Collectors.joining("; "));
            return !certain ? Outcome.close("only touched at the edge: " + says) : Outcome.breached(says);
        }

        @Override
        public boolean isOf(ZoneMet.Restriction other) {
            return restriction == other;
        }

        /** Whether one of the zones in the way does not hold at all times. */
        boolean someEnd(Facts facts) {
            return facts.zones().stream()
                    .flatMap(List::stream)
                    .anyMatch(z -> z.restriction() == restriction
                            && z.ends()
                            && z.liftedBy().isEmpty());
        }

        @Override
        public Set<String> factNames() {
            return Set.of();
        }

        @Override
        public String words() {
            return "no uncovered zone: "
                    + restriction.name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }
    }

    /** Every one holds; the most pressing answer is the answer. */
    record AllOf(List<Requirement> of) implements Requirement {
        public AllOf {
            of = List.copyOf(of);
        }

        @Override
        public OverTime overTime(Moments m) {
            return OverTime.all(of, m);
        }

        @Override
        public List<HoldsPaper> papers() {
            return of.stream().flatMap(r -> r.papers().stream()).toList();
        }

        @Override
        public OptionalDouble least(String quantity) {
            return of.stream()
                    .map(r -> r.least(quantity))
                    .filter(OptionalDouble::isPresent)
                    .mapToDouble(OptionalDouble::getAsDouble)
                    .max();
        }

        @Override
        public int failing(Facts facts) {
            return of.stream().mapToInt(r -> r.failing(facts)).sum();
        }

        @Override
        public Outcome judge(Facts facts) {
            return combine(of, facts, true);
        }

        @Override
        public Verdict verdict(Facts facts) {
            return combinedVerdict(of, facts, true);
        }

        @Override
        public double margin(Facts facts) {
            return of.stream().mapToDouble(r -> r.margin(facts)).min().orElseThrow();
        }

        @Override
        public Set<String> factNames() {
            return names(of);
        }

        @Override
        public String words() {
            return of.stream().map(Requirement::words).collect(Collectors.joining("; and "));
        }
    }

    /** At least one holds; the least pressing answer is the answer. */
    record AnyOf(List<Requirement> of) implements Requirement {
        public AnyOf {
            of = List.copyOf(of);
        }

        @Override
        public OverTime overTime(Moments m) {
            return OverTime.any(of, m);
        }

        @Override
        public Outcome judge(Facts facts) {
            Outcome o = combine(of, facts, false);
            if (o.verdict() != Verdict.BREACHED || of.size() < 2) {
                return o;
            }
            // of several ways that are all closed, the nearest is the one to hear of
            Outcome nearest = of.stream()
                    .min(Comparator.comparingInt((Requirement r) -> r.failing(facts))
                            .thenComparing(r -> -r.margin(facts)))
                    .orElseThrow()
                    .judge(facts);
            return new Outcome(o.verdict(), nearest.says(), nearest.gauge(), nearest.missing());
        }

        @Override
        public int failing(Facts facts) {
            return of.stream().mapToInt(r -> r.failing(facts)).min().orElse(0);
        }

        @Override
        public Verdict verdict(Facts facts) {
            return combinedVerdict(of, facts, false);
        }

        @Override
        public double margin(Facts facts) {
            return of.stream().mapToDouble(r -> r.margin(facts)).min().orElseThrow();
        }

        @Override
        public Set<String> factNames() {
            return names(of);
        }

        @Override
        public String words() {
            return of.stream().map(Requirement::words).collect(Collectors.joining("; or "));
        }
    }

    /** A matter that the pack cannot settle: always not known, with the question to ask. */
    record Ask(String question) implements Requirement {
        @Override
        public Outcome judge(Facts facts) {
            return Outcome.unknown(question, List.of());
        }

        @Override
        public Set<String> factNames() {
            return Set.of();
        }

        @Override
        public String words() {
            return "to be asked: " + question;
        }
    }

    /** A date before a day, or on or after it. */
    record DateIs(String fact, boolean before, LocalDate day) implements Requirement {
        @Override
        public Outcome judge(Facts facts) {
            Optional<Facts.Known> known = facts.get(fact);
            if (known.isEmpty()) {
                return Outcome.unknown(fact);
            }
            LocalDate is = ((FactValue.Date) known.get().value()).value();
            String says = Vocabulary.define(fact).label() + ": " + Days.show(is) + " (" + side() + ")";
            return is.isBefore(day) == before ? Outcome.met(says) : Outcome.breached(says);
        }

        private String side() {
            return (before ? "before " : "on or after ") + Days.show(day);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Vocabulary.define(fact).label() + " " + side();
        }
    }

    /** A date so recent that the last instant of the flying still lies within so many months of it; its last day is close. */
    record RecentWithin(String fact, int months, Days.Counting counting) implements Requirement {
        @Override
        public Outcome judge(Facts facts) {
            Optional<Facts.Known> known = facts.get(fact);
            if (known.isEmpty()) {
                return Outcome.unknown(fact);
            }
            if (facts.windows().isEmpty()) {
                return Outcome.unknown("not known: days and hours of the flying", List.of());
            }
            LocalDate done = ((FactValue.Date) known.get().value()).value();
            LocalDate last = Days.lastWithin(done, months, counting);
            LocalDate flown = facts.days().stream().max(LocalDate::compareTo).orElseThrow();
            String says =
                    Vocabulary.define(fact).label() + ": " + Days.show(done) + ", counts through " + Days.show(last);
            return flown.isAfter(last)
                    ? Outcome.breached(says + ", flown on " + Days.show(flown))
                    : flown.equals(last) ? Outcome.close(says + ": its last day") : Outcome.met(says);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Vocabulary.define(fact).label() + " within " + months
                    + (counting == Days.Counting.SAME_DAY
                            ? " months, to the day of the same number"
                            : " calendar months");
        }
    }

    /**
     * Something to do, keep or remember: nothing is measured.
     *
     * @param within time for it; zero when it has none
     * @param unit HOURS from the instant, or DAYS through the end of the last one
     * @param from the fact from which the law counts: when one became aware, or when it happened
     */
    record Duty(String text, int within, ChronoUnit unit, String from) implements Requirement {
        private static final DateTimeFormatter HOUR = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm 'UTC'", Locale.UK);

        @Override
        public Outcome judge(Facts facts) {
            return new Outcome(Verdict.DUTY, text.replaceFirst("[.]$", "") + by(facts), Optional.empty(), List.of());
        }

        private String by(Facts facts) {
            Optional<Instant> due = due(facts);
            if (due.isEmpty()) {
                return within == 0
                        ? ""
                        : "; within " + within + (unit == ChronoUnit.HOURS ? " hours" : " days")
                                + " of what is not known: "
                                + Outcome.lower(Vocabulary.define(from).label());
            }
            return unit == ChronoUnit.HOURS
                    ? "; by " + HOUR.format(due.get().atZone(ZoneOffset.UTC))
                    : "; by the end of "
                            + Days.show(
                                    due.get().atZone(facts.zone()).toLocalDate().minusDays(1));
        }

        /** The first instant at which it is late; empty when it has no time, or what it counts from is not known. */
        public Optional<Instant> due(Facts facts) {
            return within == 0
                    ? Optional.empty()
                    : facts.get(from).map(k -> {
                        Instant start = ((FactValue.Moment) k.value()).value();
                        return unit == ChronoUnit.HOURS
                                ? start.plus(within, unit)
                                : start.atZone(facts.zone())
                                        .toLocalDate()
                                        .plusDays(within + 1L)
                                        .atStartOfDay(facts.zone())
                                        .toInstant();
                    });
        }

        @Override
        public Set<String> factNames() {
            return within == 0 ? Set.of() : Set.of(from);
        }

        @Override
        public String words() {
            return text;
        }
    }

    /**
     * Breached in the letter, but close while the other holds: between a figure of the law and the rounded one it prints
     * beside it, or between two readings of a word. What the other does not know leaves the breach as it is.
     *
     * @param note which two figures or readings these are
     */
    record OrClose(Requirement main, Requirement other, String note) implements Requirement {
        @Override
        public Outcome judge(Facts facts) {
            Outcome o = main.judge(facts);
            boolean between =
                    o.verdict() == Verdict.BREACHED && other.verdict(facts).isFine();
            return between ? new Outcome(Verdict.CLOSE, o.says() + "; " + note, o.gauge(), List.of()) : o;
        }

        @Override
        public Verdict verdict(Facts facts) {
            Verdict v = main.verdict(facts);
            return v == Verdict.BREACHED && other.verdict(facts).isFine() ? Verdict.CLOSE : v;
        }

        @Override
        public List<HoldsPaper> papers() {
            return main.papers();
        }

        @Override
        public double margin(Facts facts) {
            return main.margin(facts);
        }

        @Override
        public Set<String> factNames() {
            return names(List.of(main, other));
        }

        @Override
        public String words() {
            return main.words() + "; close only while " + other.words() + " (" + note + ")";
        }
    }

    private static Verdict combinedVerdict(List<Requirement> of, Facts facts, boolean all) {
        Verdict combined = null;
        for (Requirement r : of) {
            Verdict v = r.verdict(facts);
            combined = combined == null || (v.compareTo(combined) < 0) == all ? v : combined;
        }
        return combined;
    }

    private static Outcome combine(List<Requirement> of, Facts facts, boolean all) {
        List<Outcome> outcomes = of.stream().map(r -> r.judge(facts)).toList();
        Verdict verdict = outcomes.stream()
                .map(Outcome::verdict)
                .reduce((a, b) -> (a.compareTo(b) <= 0) == all ? a : b)
                .orElseThrow();
        List<Outcome> deciding =
                outcomes.stream().filter(o -> o.verdict() == verdict).toList();
        List<String> missing = verdict == Verdict.NOT_KNOWN
                ? deciding.stream()
                        .flatMap(o -> o.missing().stream())
                        .distinct()
                        .toList()
                : List.of();
        return new Outcome(
                verdict,
                deciding.stream().map(Outcome::says).collect(Collectors.joining("; ")),
                deciding.stream().flatMap(o -> o.gauge().stream()).findFirst(),
                missing);
    }

    private static Set<String> names(List<Requirement> of) {
        return of.stream().flatMap(r -> r.factNames().stream()).collect(Collectors.toCollection(TreeSet::new));
    }

    /** Words of the vocabulary as people say them: "besidePilot" is "beside pilot"; marks and abbreviations stay. */
    private static String list(Collection<String> words) {
        return new TreeSet<>(words).stream().map(Requirement::word).collect(Collectors.joining(" or "));
    }

    private static String word(String w) {
        return Character.isLowerCase(w.charAt(0))
                ? w.replaceAll("([a-z])([A-Z0-9])", "$1 $2")
                        .replaceAll("([0-9])([A-Z])", "$1 $2")
                        .toLowerCase(Locale.ROOT)
                : w;
    }

    private static String labels(List<String> facts) {
        return facts.stream()
                .map(f -> Outcome.lower(Vocabulary.define(f).label()))
                .collect(Collectors.joining(", "));
    }
}
