package yarrek.app.rulebook;

import java.time.LocalDate;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Tier;

/** The words of a rule as they were when it judged. */
public record RuleWords(
        String ruleId,
        String title,
        String layer,
        Severity severity,
        String citation,
        String remedy,
        String requires,
        String appliesWhen,
        LocalDate readOn,
        String confidence,
        String notes,
        String tier,
        String phase,
        String coveredBy) {
    /** Stored before some of its parts existed: they are empty then. */
    public RuleWords {
        tier = tier == null ? Tier.LAW.name() : tier;
        phase = phase == null ? "" : phase;
        coveredBy = coveredBy == null ? "" : coveredBy;
    }

    /** A thing as the very one it is, not by all that it says, which costs more to compare than to work out. */
    record Same<T>(T thing) {
        @Override
        @SuppressWarnings("ReferenceEquality") // the point of it
        public boolean equals(Object o) {
            return o instanceof Same<?> s && s.thing == thing;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(thing);
        }
    }

    private static final Map<Same<Rule>, RuleWords> WORDS = new ConcurrentHashMap<>();

    /** Rules are read anew when they change; those that are gone are let go in time. */
    static final int MOST_HELD = 20_000;

    /** Worked out once for each rule, and then the very same. */
    static RuleWords of(Rule r) {
        if (WORDS.size() > MOST_HELD) {
            WORDS.clear();
        }
        return WORDS.computeIfAbsent(
                new Same<>(r),
                s -> new RuleWords(
                        r.id(),
                        r.title(),
                        r.layer() == Layer.LAW && r.tier() == Tier.DEPARTURE
                                ? "guidance"
                                : r.layer().words(),
                        r.severity(),
                        r.source().citation(),
                        r.remedy(),
                        r.requires().words(),
                        r.appliesWhen().when(),
                        r.source().readOn(),
                        r.source().confidence(),
                        r.source().notes(),
                        r.tier().name(),
                        r.phase(),
                        r.coveredBy()));
    }
}
