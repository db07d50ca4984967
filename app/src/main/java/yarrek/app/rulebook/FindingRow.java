package yarrek.app.rulebook;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import java.time.LocalDate;
import java.util.List;
import yarrek.core.rulebook.Bound;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.Gauge;
import yarrek.core.rulebook.Interval;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Spine;
import yarrek.core.rulebook.Tier;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;

/** A finding as it is stored with its job or flight, and shown: everything needed to show it a year later. */
public record FindingRow(
        @JsonUnwrapped RuleWords rule,
        Verdict verdict,
        String says,
        GaugeRow gauge,
        List<String> missing,
        List<IntervalRow> intervals,
        String beatenBy,
        boolean onTheDay,
        List<String> missingFacts,
        String waiver,
        boolean otherDay,
        String concerns)
        implements Spine.Phased {
    public FindingRow {
        missingFacts = missingFacts == null ? List.of() : List.copyOf(missingFacts);
        concerns = concerns == null ? "" : concerns;
    }

    public String ruleId() {
        return rule.ruleId();
    }

    public String title() {
        return rule.title();
    }

    public String layer() {
        return rule.layer();
    }

    @Override
    public Severity severity() {
        return rule.severity();
    }

    public String citation() {
        return rule.citation();
    }

    public String remedy() {
        return rule.remedy();
    }

    public String requires() {
        return rule.requires();
    }

    public String appliesWhen() {
        return rule.appliesWhen();
    }

    public LocalDate readOn() {
        return rule.readOn();
    }

    public String confidence() {
        return rule.confidence();
    }

    public String notes() {
        return rule.notes();
    }

    public String tier() {
        return rule.tier();
    }

    @Override
    public String phase() {
        return rule.phase();
    }

    public String coveredBy() {
        return rule.coveredBy();
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

    static FindingRow of(Finding f) {
        return new FindingRow(
                RuleWords.of(f.rule()),
                f.verdict(),
                f.says(),
                f.gauge().map(GaugeRow::of).orElse(null),
                f.missing().stream().map(m -> Vocabulary.define(m).question()).toList(),
                f.intervals().stream().map(FindingRow::row).toList(),
                f.beatenBy().orElse(null),
                f.onTheDay(),
                f.missing(),
                f.waiver()
                        .map(w -> w.reason() + " (" + w.by() + ", to the end of " + w.until() + ")")
                        .orElse(null),
                f.otherDay(),
                f.concerns());
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
        return tier().equals(Tier.LAW.name());
    }

    /** The tier in words. */
    public String tierWords() {
        return Tier.valueOf(tier()).words();
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

    /** The worst of an interval with its unit; empty where a rule has none. */
    public String worstOf(IntervalRow i) {
        return i.worst() == null
                ? ""
                : String.format(java.util.Locale.ROOT, "%.1f %s", i.worst(), gauge == null ? "" : gauge.unit())
                        .strip();
    }
}
