package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import yarrek.core.trace.Trace;
import yarrek.core.units.Finite;

/**
 * The facts of a flown flight: some hold throughout, some are functions of time. A rule that speaks only of constant
 * facts is judged once; the others over time, and a breach is a set of intervals.
 */
public final class FlightFacts {
    private static final double IN_MINUTES_FROM_S = 90;
    /** Seconds without a figure after which a quantity no longer counts as known throughout. */
    public static final double LONGEST_HOLE_S = Trace.LONGEST_HOLE_S;

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
     * @param inside the stretches in it, on the clock of the times
     */
    public record ZoneSeries(ZoneMet zone, List<Interval> inside) {
        public ZoneSeries {
            inside = List.copyOf(inside);
        }
    }

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

    /** The same flight with other facts throughout. */
    FlightFacts with(Facts other) {
        return new FlightFacts(other, times, series, zones);
    }

    /** The facts that hold throughout the flight. */
    public Facts constant() {
        return constant;
    }

    Finding judge(Rule rule) {
        Finding f = flown(rule);
        boolean planned = (f.verdict() == Verdict.MET || f.verdict() == Verdict.CLOSE)
                && rule.factNames().stream()
                        .filter(n -> !series.containsKey(n))
                        .anyMatch(n -> constant.get(n)
                                .filter(k -> k.source().startsWith(Facts.AS_PLANNED))
                                .isPresent());
        return planned ? f.saying(f.says() + "; as planned, how it was flown is not on record") : f;
    }

    private Finding flown(Rule rule) {
        Optional<ZoneMet.Restriction> zonesOf = rule.requires().zones();
        if (zonesOf.isPresent()) {
            return judgeZones(rule, zonesOf.get());
        }
        Set<String> moving = new HashSet<>(rule.factNames());
        moving.retainAll(series.keySet());
        if (moving.isEmpty() || times.length == 0) {
            return rule.judge(constant);
        }
        boolean conditionMoves = java.util.stream.Stream.concat(
                        rule.appliesWhen().factNames().stream(), rule.exceptWhen().factNames().stream())
                .anyMatch(series::containsKey);
        return rule.requires()
                .quantity()
                .filter(q -> !conditionMoves
                        && series.containsKey(q.fact())
                        && q.limit().factNames().stream().noneMatch(series::containsKey))
                .map(q -> judgeQuantity(rule, q))
                .orElseGet(() -> judgeMomentByMoment(rule));
    }

    private Finding judgeQuantity(Rule rule, QuantityWithin q) {
        Truth applies = rule.applies(constant);
        if (applies == Truth.NO) {
            return Finding.of(rule, rule.notApplicable());
        }
        Optional<Limit.Span> limit = q.limit().span(constant);
        if (limit.isEmpty()) {
            // the log may well have the figure though nobody has said the limit
            Series s = series.get(q.fact());
            Breaches found = new Breaches(s, q.bound(), Double.NaN);
            Facts flown = found.isBlind()
                    ? constant
                    : constant.toBuilder()
                            .quantity(
                                    q.fact(),
                                    found.worst(),
                                    Double.isNaN(s.uncertainty()) ? 0 : s.uncertainty(),
                                    s.source())
                            .build();
            return rule.finding(applies, q.judge(flown), constant, List.of());
        }
        return quantityFinding(rule, q, applies, limit.get());
    }

    private Finding quantityFinding(Rule rule, QuantityWithin q, Truth applies, Limit.Span span) {
        Series s = series.get(q.fact());
        Breaches found = new Breaches(s, q.bound(), span.at());
        if (found.isBlind()) {
            return rule.finding(applies, Outcome.unknown(q.fact()), constant, List.of());
        }
        boolean vague = Double.isNaN(s.uncertainty());
        Outcome o = q.outcome(
                new FactValue.Quantity(found.worst(), vague ? 0 : s.uncertainty()), found.least, found.greatest, span);
        String says = o.says();
        Verdict verdict = o.verdict();
        if (verdict != Verdict.BREACHED && vague) {
            verdict = Verdict.NOT_KNOWN;
            says += "; but it rests on what is not known: " + s.source();
        } else if (verdict != Verdict.BREACHED && found.holes > 0) {
            verdict = Verdict.NOT_KNOWN;
            says += "; but there are no figures for " + lasting(found.holes);
        } else if (verdict == Verdict.BREACHED) {
            double total =
                    found.intervals.stream().mapToDouble(Interval::durationS).sum();
            int times = found.intervals.size();
            says += "; " + (times == 1 ? "once" : times + " times") + ", " + lasting(total) + " in all"
                    + (found.onlySingles ? "; it rests on single figures, those beside them comply" : "");
        }
        List<String> missing = verdict == Verdict.NOT_KNOWN ? List.of(q.fact()) : List.of();
        return rule.finding(applies, new Outcome(verdict, says, o.gauge(), missing), constant, found.intervals);
    }

    /** "27.5 s", and from a minute and a half on "5 min 17 s". */
    static String lasting(double seconds) {
        long whole = Math.round(seconds);
        return seconds < IN_MINUTES_FROM_S
                ? Finite.format(Math.round(seconds * 10) / 10.0) + " s"
                : whole / 60 + " min " + whole % 60 + " s";
    }

    /** Where one series is beyond one limit; what comes back within the uncertainty only is the same breach. */
    private final class Breaches {
        private final double[] v;
        private final double limit;
        private final Bound bound;
        private final List<Interval> intervals = new ArrayList<>();
        private double least = Double.POSITIVE_INFINITY;
        private double greatest = Double.NEGATIVE_INFINITY;
        private double holes;
        private boolean onlySingles = true;

        Breaches(Series s, Bound bound, double limit) {
            this.v = s.values();
            this.limit = limit;
            this.bound = bound;
            double flicker = Double.isNaN(s.uncertainty()) ? 0 : s.uncertainty();
            double best = Double.NEGATIVE_INFINITY; // margin since the last breach ended
            boolean apart = true;
            int open = -1;
            int worst = -1;
            int previous = -1;
            int in = 0;
            for (int i = 0; i < v.length; i++) {
                if (Double.isNaN(v[i])) {
                    continue;
                }
                double gap = times[i] - (previous < 0 ? times[0] : times[previous]);
                boolean hole = gap > LONGEST_HOLE_S;
                if (hole) {
                    holes += gap;
                    if (open >= 0) {
                        add(open, previous, worst, -1, apart, in);
                        open = -1;
                    }
                    apart = true;
                }
                least = Math.min(least, v[i]);
                greatest = Math.max(greatest, v[i]);
                if (!bound.holds(v[i], limit)) {
                    if (open < 0) {
                        apart |= best >= flicker;
                        open = i;
                        worst = i;
                        in = 0;
                    } else if (bound.margin(v[i], limit) < bound.margin(v[worst], limit)) {
                        worst = i;
                    }
                    in++;
                } else {
                    if (open >= 0) {
                        add(open, previous, worst, i, apart, in);
                        open = -1;
                        best = Double.NEGATIVE_INFINITY;
                        apart = false;
                    }
                    best = Math.max(best, bound.margin(v[i], limit));
                }
                previous = i;
            }
            if (previous >= 0) {
                double tail = times[times.length - 1] - times[previous];
                holes += tail > LONGEST_HOLE_S ? tail : 0;
            }
            if (open >= 0) {
                add(open, previous, worst, -1, apart, in);
            }
        }

        boolean isBlind() {
            return greatest < least;
        }

        double worst() {
            return bound.isUpper() ? greatest : least;
        }

        /** Ends where the value crosses the limit, by straight lines between samples; at the samples beside a hole. */
        private void add(int first, int last, int worst, int after, boolean apart, int in) {
            int before = before(v, first);
            boolean known = before >= 0 && times[first] - times[before] <= LONGEST_HOLE_S;
            double from = known ? crossing(v, before, first, limit) : times[first];
            double to = after < 0 ? times[last] : crossing(v, last, after, limit);
            onlySingles &= in == 1 && known && after >= 0;
            Interval now = new Interval(from, to, times[worst], v[worst]);
            if (apart || intervals.isEmpty()) {
                intervals.add(now);
                return;
            }
            Interval earlier = intervals.remove(intervals.size() - 1);
            boolean worse = bound.margin(now.worst(), limit) < bound.margin(earlier.worst(), limit);
            intervals.add(new Interval(
                    earlier.fromS(),
                    to,
                    worse ? now.worstS() : earlier.worstS(),
                    worse ? now.worst() : earlier.worst()));
        }
    }

    private static int before(double[] v, int i) {
        int k = i - 1;
        while (k >= 0 && Double.isNaN(v[k])) {
            k--;
        }
        return k;
    }

    private double crossing(double[] v, int a, int b, double limit) {
        double span = v[b] - v[a];
        double share = span == 0 ? 0 : (limit - v[a]) / span;
        return times[a] + Math.max(0, Math.min(1, share)) * (times[b] - times[a]);
    }

    private Finding judgeZones(Rule rule, ZoneMet.Restriction restriction) {
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
            if (z.zone().restriction() != restriction) {
                continue;
            }
            if (!z.inside().isEmpty()) {
                met.add(z.zone());
                if (z.zone().liftedBy().isEmpty()) {
                    intervals.addAll(z.inside());
                }
            }
        }
        Facts flown = constant.toBuilder().zones(met).build();
        Outcome outcome = rule.requires().judge(flown);
        double blind = longestHole("pilotDistanceM");
        if (outcome.verdict() != Verdict.BREACHED && blind > LONGEST_HOLE_S) {
            outcome = Outcome.unknown(outcome.says() + "; but there are no positions for " + lasting(blind), List.of());
        }
        return rule.finding(applies, outcome, constant, intervals);
    }

    /** Longest stretch in seconds between two figures, the ends counted; zero when the series is not there at all. */
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
                longest = Math.max(longest, times[i] - last);
            }
            last = known ? times[i] : last;
        }
        return longest;
    }

    /** The general way: the rule on the facts of each moment; the most pressing answer of the flight is the answer. */
    private Finding judgeMomentByMoment(Rule rule) {
        Moments moments = new Moments(constant, series);
        IntFunction<Truth> appliesAt = OverTime.applies(rule, moments);
        OverTime required = OverTime.of(rule.requires(), moments);
        boolean[] breached = new boolean[times.length];
        double[] margins = new double[times.length];
        Verdict worst = null;
        double least = Double.POSITIVE_INFINITY;
        int worstAt = 0;
        for (int i = 0; i < times.length; i++) {
            Truth applies = appliesAt.apply(i);
            Verdict v = applies == Truth.NO
                    ? Verdict.NOT_APPLICABLE
                    : required.verdict().apply(i);
            if (applies == Truth.UNKNOWN && v != Verdict.MET) {
                v = Verdict.NOT_KNOWN;
            }
            breached[i] = v == Verdict.BREACHED;
            double margin = applies == Truth.NO
                    ? Double.POSITIVE_INFINITY
                    : required.margin().applyAsDouble(i);
            margins[i] = margin;
            if (worst == null || v.compareTo(worst) < 0 || (v == worst && margin < least)) {
                worst = v;
                least = margin;
                worstAt = i;
            }
        }
        Facts moment = moments.at(worstAt);
        Truth applies = rule.applies(moment);
        if (applies == Truth.NO) {
            return Finding.of(rule, rule.notApplicable());
        }
        Outcome judged = rule.requires().judge(moment);
        double blind =
                rule.factNames().stream().mapToDouble(this::longestHole).max().orElse(0);
        if (judged.verdict() != Verdict.BREACHED && worst != Verdict.BREACHED && blind > LONGEST_HOLE_S) {
            judged = Outcome.unknown(
                    judged.says() + "; but there are no figures for " + lasting(blind), judged.missing());
        }
        Finding found = rule.finding(applies, judged, moment, List.of());
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
                int at = open;
                for (int k = open; k < i; k++) {
                    at = margins[k] < margins[at] ? k : at;
                }
                Optional<Gauge> gauge = rule.requires().judge(moments.at(at)).gauge();
                intervals.add(new Interval(
                        times[open],
                        times[i - 1],
                        times[at],
                        gauge.map(Gauge::value).orElse(Double.NaN)));
                open = -1;
            }
        }
        moment = moments.at(worstAt);
        return rule.finding(applies, rule.requires().judge(moment), moment, intervals);
    }
}
