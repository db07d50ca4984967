package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import yarrek.core.units.Finite;

/**
 * The facts of a flown flight: some hold throughout, some are functions of time. A rule that speaks only of constant
 * facts is judged once; the others over time, and a breach is a set of intervals.
 */
public final class FlightFacts {
    /** Seconds without a figure after which a quantity no longer counts as known throughout. */
    public static final double LONGEST_HOLE_S = 5.0;

    /**
     * A quantity over time.
     *
     * @param values one for each time, NaN where not known
     * @param uncertainty plus or minus; NaN when nobody can say, and then a value that complies is still not known
     * @param source where it came from and what was taken for granted
     */
    public record Series(double[] values, double uncertainty, String source) {}

    /**
     * A zone over time.
     *
     * @param inside whether the aircraft was in it, one for each time
     */
    public record ZoneSeries(ZoneMet zone, boolean[] inside) {}

    private final Facts constant;
    private final double[] times;
    private final Map<String, Series> series;
    private final Optional<List<ZoneSeries>> zones;

    /**
     * @param times seconds from the start of the trace, rising
     * @param zones zones that the trace may have met; empty when no zone data was looked at
     */
    public FlightFacts(Facts constant, double[] times, Map<String, Series> series, Optional<List<ZoneSeries>> zones) {
        for (Map.Entry<String, Series> s : series.entrySet()) {
            Vocabulary.define(s.getKey());
            if (s.getValue().values().length != times.length) {
                throw new IllegalArgumentException("series " + s.getKey() + " has "
                        + s.getValue().values().length + " values for " + times.length + " times");
            }
        }
        this.constant = constant;
        this.times = times;
        this.series = Map.copyOf(series);
        this.zones = zones.map(List::copyOf);
    }

    /** The facts that hold throughout the flight. */
    public Facts constant() {
        return constant;
    }

    Finding judge(Rule rule) {
        if (rule.requires() instanceof Requirement.NoZone z) {
            return judgeZones(rule, z);
        }
        Set<String> moving = new HashSet<>(rule.factNames());
        moving.retainAll(series.keySet());
        if (moving.isEmpty() || times.length == 0) {
            return rule.judge(constant);
        }
        boolean conditionMoves = java.util.stream.Stream.concat(
                        rule.appliesWhen().factNames().stream(), rule.exceptWhen().factNames().stream())
                .anyMatch(series::containsKey);
        if (!conditionMoves
                && rule.requires() instanceof Requirement.QuantityWithin q
                && series.containsKey(q.fact())
                && q.limit().factNames().stream().noneMatch(series::containsKey)) {
            return judgeQuantity(rule, q);
        }
        return judgeMomentByMoment(rule);
    }

    private Finding judgeQuantity(Rule rule, Requirement.QuantityWithin q) {
        Truth applies = rule.applies(constant);
        if (applies == Truth.NO) {
            return Finding.of(rule, rule.notApplicable());
        }
        Optional<Limit.Span> limit = q.limit().span(constant);
        if (limit.isEmpty()) {
            return rule.finding(applies, q.judge(constant), constant, List.of());
        }
        return quantityFinding(rule, q, applies, limit.get());
    }

    private Finding quantityFinding(Rule rule, Requirement.QuantityWithin q, Truth applies, Limit.Span span) {
        double limit = span.at();
        Series s = series.get(q.fact());
        double[] v = s.values();
        Bound bound = q.bound();
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        double hole = 0;
        double holes = 0;
        double lastKnown = times[0];
        List<Interval> breaches = new ArrayList<>();
        int open = -1;
        int worst = -1;
        int previous = -1;
        for (int i = 0; i < v.length; i++) {
            double x = v[i];
            if (Double.isNaN(x)) {
                continue;
            }
            double gap = times[i] - lastKnown;
            if (gap > LONGEST_HOLE_S && (previous < i - 1)) {
                hole = Math.max(hole, gap);
                holes += gap;
                if (open >= 0) {
                    breaches.add(interval(v, open, previous, worst, -1, -1, limit));
                    open = -1;
                }
            }
            lastKnown = times[i];
            least = Math.min(least, x);
            greatest = Math.max(greatest, x);
            if (!bound.holds(x, limit)) {
                if (open < 0) {
                    open = i;
                    worst = i;
                } else if (bound.margin(x, limit) < bound.margin(v[worst], limit)) {
                    worst = i;
                }
            } else if (open >= 0) {
                breaches.add(interval(v, open, previous, worst, before(v, open), i, limit));
                open = -1;
            }
            previous = i;
        }
        if (previous < 0) {
            return rule.finding(applies, Outcome.unknown(q.fact()), constant, List.of());
        }
        double tail = times[times.length - 1] - lastKnown;
        if (tail > LONGEST_HOLE_S) {
            holes += tail;
        }
        if (open >= 0) {
            breaches.add(interval(v, open, previous, worst, before(v, open), -1, limit));
        }
        double value = bound.isUpper() ? greatest : least;
        boolean vague = Double.isNaN(s.uncertainty());
        Outcome o = q.outcome(new FactValue.Quantity(value, vague ? 0 : s.uncertainty()), least, greatest, span);
        String says = o.says();
        Verdict verdict = o.verdict();
        if (verdict != Verdict.BREACHED && vague) {
            verdict = Verdict.NOT_KNOWN;
            says += "; but it rests on what is not known: " + s.source();
        } else if (verdict != Verdict.BREACHED && holes > 0) {
            verdict = Verdict.NOT_KNOWN;
            says += "; but there are no figures for " + Finite.format(holes) + " s";
        } else if (verdict == Verdict.BREACHED) {
            double total = breaches.stream().mapToDouble(Interval::durationS).sum();
            says += "; " + (breaches.size() == 1 ? "once" : breaches.size() + " times") + ", "
                    + Finite.format(Math.round(total * 10) / 10.0) + " s in all";
        }
        List<String> missing = verdict == Verdict.NOT_KNOWN ? List.of(q.fact()) : List.of();
        return rule.finding(applies, new Outcome(verdict, says, o.gauge(), missing), constant, breaches);
    }

    private static int before(double[] v, int i) {
        int k = i - 1;
        while (k >= 0 && Double.isNaN(v[k])) {
            k--;
        }
        return k;
    }

    /** Ends where the value crosses the limit, by straight lines between samples; at the samples where there is no neighbour. */
    private Interval interval(double[] v, int first, int last, int worst, int before, int after, double limit) {
        double from = before < 0 ? times[first] : crossing(v, before, first, limit);
        double to = after < 0 ? times[last] : crossing(v, last, after, limit);
        return new Interval(from, to, times[worst], v[worst]);
    }

    private double crossing(double[] v, int a, int b, double limit) {
        double span = v[b] - v[a];
        double share = span == 0 ? 0 : (limit - v[a]) / span;
        return times[a] + Math.max(0, Math.min(1, share)) * (times[b] - times[a]);
    }

    private Finding judgeZones(Rule rule, Requirement.NoZone required) {
        Truth applies = rule.applies(constant);
        if (applies == Truth.NO) {
            return Finding.of(rule, rule.notApplicable());
        }
        if (zones.isEmpty()) {
            // zones of a plan say nothing of where it was flown
            return rule.finding(
                    applies, Outcome.unknown("not known: which zones the flight met", List.of()), constant, List.of());
        }
        List<ZoneMet> met = new ArrayList<>();
        List<Interval> intervals = new ArrayList<>();
        for (ZoneSeries z : zones.get()) {
            if (z.zone().restriction() != required.restriction()) {
                continue;
            }
            int before = intervals.size();
            runs(z.inside(), intervals);
            if (intervals.size() > before) {
                met.add(z.zone());
                if (z.zone().liftedBy().isPresent()) {
                    intervals.subList(before, intervals.size()).clear();
                }
            }
        }
        Facts flown = constant.toBuilder().zones(met).build();
        Outcome outcome = required.judge(flown);
        double blind = longestHole("pilotDistanceM");
        if (outcome.verdict() != Verdict.BREACHED && blind > LONGEST_HOLE_S) {
            outcome = Outcome.unknown(
                    outcome.says() + "; but there are no positions for " + Finite.format(blind) + " s", List.of());
        }
        return rule.finding(applies, outcome, constant, intervals);
    }

    /** Longest stretch in seconds without a figure, the ends counted; zero when the series is not there at all. */
    private double longestHole(String fact) {
        Series s = series.get(fact);
        if (s == null || times.length == 0) {
            return 0;
        }
        double longest = 0;
        double last = times[0];
        for (int i = 0; i < times.length; i++) {
            boolean known = !Double.isNaN(s.values()[i]);
            if (known || i == times.length - 1) {
                boolean missed = !known || (i > 0 && Double.isNaN(s.values()[i - 1]));
                longest = missed ? Math.max(longest, times[i] - last) : longest;
            }
            last = known ? times[i] : last;
        }
        return longest;
    }

    private void runs(boolean[] inside, List<Interval> into) {
        int open = -1;
        for (int i = 0; i <= inside.length; i++) {
            boolean in = i < inside.length && inside[i];
            if (in && open < 0) {
                open = i;
            } else if (!in && open >= 0) {
                into.add(new Interval(times[open], times[i - 1], times[open], Double.NaN));
                open = -1;
            }
        }
    }

    /** The general way: the rule on the facts of each moment; the most pressing answer of the flight is the answer. */
    private Finding judgeMomentByMoment(Rule rule) {
        Moment moment = new Moment();
        boolean[] breached = new boolean[times.length];
        Verdict worst = null;
        double least = Double.POSITIVE_INFINITY;
        int worstAt = 0;
        for (int i = 0; i < times.length; i++) {
            moment.index = i;
            Truth applies = rule.applies(moment);
            Verdict v = applies == Truth.NO
                    ? Verdict.NOT_APPLICABLE
                    : rule.requires().verdict(moment);
            if (applies == Truth.UNKNOWN && v != Verdict.MET) {
                v = Verdict.NOT_KNOWN;
            }
            breached[i] = v == Verdict.BREACHED;
            double margin = applies == Truth.NO
                    ? Double.POSITIVE_INFINITY
                    : rule.requires().margin(moment);
            if (worst == null || v.compareTo(worst) < 0 || (v == worst && margin < least)) {
                worst = v;
                least = margin;
                worstAt = i;
            }
        }
        moment.index = worstAt;
        Truth applies = rule.applies(moment);
        if (applies == Truth.NO) {
            return Finding.of(rule, rule.notApplicable());
        }
        Finding found = rule.finding(applies, rule.requires().judge(moment), moment, List.of());
        if (found.verdict() != Verdict.BREACHED) {
            return found; // nothing to show over time, or an approval covers it
        }
        List<Interval> intervals = new ArrayList<>();
        int open = -1;
        for (int i = 0; i <= times.length; i++) {
            boolean in = i < times.length && breached[i];
            if (in && open < 0) {
                open = i;
            } else if (!in && open >= 0) {
                double at = worstAt >= open && worstAt < i ? times[worstAt] : times[open];
                intervals.add(new Interval(
                        times[open],
                        times[i - 1],
                        at,
                        found.gauge().map(Gauge::value).orElse(Double.NaN)));
                open = -1;
            }
        }
        return rule.finding(applies, rule.requires().judge(moment), moment, intervals);
    }

    /** The facts at one moment: series at an index over the constant ones. */
    private final class Moment extends Facts {
        private int index;

        private Moment() {
            super(constant);
        }

        @Override
        public Optional<Known> get(String name) {
            Series s = series.get(name);
            if (s == null) {
                return super.get(name);
            }
            FactValue.Quantity q = quantity(name);
            return q == null ? Optional.empty() : Optional.of(new Known(q, s.source()));
        }

        @Override
        FactValue.Quantity quantity(String name) {
            Series s = series.get(name);
            if (s == null) {
                return super.quantity(name);
            }
            double v = s.values()[index];
            return Double.isNaN(v)
                    ? null
                    : new FactValue.Quantity(v, Double.isNaN(s.uncertainty()) ? 0 : s.uncertainty());
        }
    }
}
