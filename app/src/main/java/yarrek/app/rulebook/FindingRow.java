package yarrek.app.rulebook;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import yarrek.core.rulebook.Bound;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.Gauge;
import yarrek.core.rulebook.Interval;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Standing;
import yarrek.core.rulebook.Tier;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;

/** A finding as it is stored with its job or flight, and shown: everything needed to show it a year later. */
public record FindingRow(
        String ruleId,
        String title,
        String layer,
        Severity severity,
        Verdict verdict,
        String says,
        GaugeRow gauge,
        List<String> missing,
        List<IntervalRow> intervals,
        String beatenBy,
        String citation,
        String remedy,
        String requires,
        String appliesWhen,
        LocalDate readOn,
        String confidence,
        String notes,
        boolean onTheDay,
        List<String> missingFacts,
        String tier,
        String phase,
        String coveredBy,
        String waiver,
        boolean otherDay)
        implements Standing {
    /** Stored before some of its parts existed: they are empty then. */
    public FindingRow {
        missingFacts = missingFacts == null ? List.of() : List.copyOf(missingFacts);
        tier = tier == null ? Tier.LAW.name() : tier;
        phase = phase == null ? "" : phase;
        coveredBy = coveredBy == null ? "" : coveredBy;
    }

    /** A stretch of breach in seconds of the trace; {@code worst} is null when the fact is no quantity. */
    public record IntervalRow(double fromS, double toS, double worstS, Double worst) {}

    /** A gauge with everything the drawing needs, in hundredths of its width. */
    public record GaugeRow(
            String fact,
            String unit,
            double value,
            double uncertainty,
            double least,
            double greatest,
            double limit,
            String bound,
            String valueText,
            String limitText,
            String marginText) {

        static GaugeRow of(Gauge g) {
            return new GaugeRow(
                    g.fact(),
                    g.unit(),
                    g.value(),
                    g.uncertainty(),
                    g.least(),
                    g.greatest(),
                    g.limit(),
                    g.bound().name(),
                    g.valueText(),
                    g.limitText(),
                    g.marginText());
        }

        private double low() {
            return Math.min(0, Math.min(least, limit));
        }

        private double high() {
            double top = Math.max(Math.max(greatest, value + uncertainty), limit);
            return top + (top - low()) * 0.12 + (top == low() ? 1 : 0);
        }

        private double at(double v) {
            return Math.round((v - low()) / (high() - low()) * 1000) / 10.0;
        }

        public double valueAt() {
            return at(value);
        }

        public double limitAt() {
            return at(limit);
        }

        public double fromAt() {
            return at(least == greatest ? Math.min(value, Math.max(low(), 0)) : least);
        }

        public double widthTo() {
            return Math.max(0.6, at(greatest) - fromAt());
        }

        /** Where the forbidden side begins and how wide it is. */
        public double forbiddenFrom() {
            return Bound.valueOf(bound).isUpper() ? limitAt() : 0;
        }

        public double forbiddenWidth() {
            return Bound.valueOf(bound).isUpper() ? 100 - limitAt() : limitAt();
        }
    }

    /** What a rule asks and when, in words: worked out once for each rule, and then the very same texts. */
    private record Said(String requires, String appliesWhen) {}

    /** A rule as the thing it is, not by all that it says. */
    private record Same(Rule rule) {
        @Override
        @SuppressWarnings(
                "ReferenceEquality") // the point of it: comparing all that a rule says costs more than its words
        public boolean equals(Object o) {
            return o instanceof Same s && s.rule == rule;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(rule);
        }
    }

    private static final Map<Same, Said> SAID = new ConcurrentHashMap<>();

    /** Rules are read anew when they change; those that are gone are let go in time. */
    private static final int MOST_SAID = 20_000;

    private static Said said(Rule r) {
        if (SAID.size() > MOST_SAID) {
            SAID.clear();
        }
        return SAID.computeIfAbsent(
                new Same(r), s -> new Said(r.requires().words(), r.appliesWhen().words()));
    }

    static FindingRow of(Finding f) {
        var r = f.rule();
        Said said = said(r);
        return new FindingRow(
                r.id(),
                r.title(),
                r.layer() == Layer.LAW && r.tier() == Tier.DEPARTURE
                        ? "guidance"
                        : r.layer().words(),
                r.severity(),
                f.verdict(),
                f.says(),
                f.gauge().map(GaugeRow::of).orElse(null),
                f.missing().stream().map(m -> Vocabulary.define(m).question()).toList(),
                f.intervals().stream().map(FindingRow::row).toList(),
                f.beatenBy().orElse(null),
                r.source().citation(),
                r.remedy(),
                said.requires(),
                said.appliesWhen(),
                r.source().readOn(),
                r.source().confidence(),
                r.source().notes(),
                f.onTheDay(),
                f.missing(),
                r.tier().name(),
                r.phase(),
                r.coveredBy(),
                f.waiver()
                        .map(w -> w.reason() + " (" + w.by() + ", to the end of " + w.until() + ")")
                        .orElse(null),
                f.otherDay());
    }

    private static IntervalRow row(Interval i) {
        return new IntervalRow(i.fromS(), i.toS(), i.worstS(), Double.isNaN(i.worst()) ? null : i.worst());
    }

    @Override
    public boolean departed() {
        return waiver != null;
    }

    @Override
    public boolean beaten() {
        return beatenBy != null;
    }

    /** Whether it is breached, and another day or hour may cure it. */
    public boolean curedByAnotherDay() {
        return verdict == Verdict.BREACHED && otherDay;
    }

    @Override
    public boolean law() {
        return tier.equals(Tier.LAW.name());
    }

    /** The tier in words. */
    public String tierWords() {
        return Tier.valueOf(tier).words();
    }

    /** Name of the status shape: full bar, cut bar, notch or dots. */
    public String shape() {
        return switch (verdict) {
            case MET, DUTY -> "full";
            case CLOSE -> "cut";
            case BREACHED -> "notch";
            case NOT_KNOWN, NOT_APPLICABLE -> "dots";
        };
    }
}
