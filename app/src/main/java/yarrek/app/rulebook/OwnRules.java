package yarrek.app.rulebook;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Rule;

/** The operator's own rules, each with what it holds for. */
public final class OwnRules {
    private OwnRules() {}

    /** What a rule of the operator's own holds for. */
    public enum BoundTo {
        EVERYTHING("every job"),
        SITE("one site"),
        MODEL("one model"),
        JOB("one job");

        private final String words;

        BoundTo(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** What a rule of a layer is usually bound to. */
        public static BoundTo usual(Layer layer) {
            return switch (layer) {
                case BY_LAW, LANDOWNER -> SITE;
                case MAKER -> MODEL;
                case APPROVAL -> JOB;
                default -> EVERYTHING;
            };
        }
    }

    /** A rule with its binding; {@code yaml} is its text as in a pack. */
    public record Row(
            UUID id,
            long version,
            Rule rule,
            BoundTo boundTo,
            UUID boundId,
            String yaml,
            boolean active,
            String madeBy,
            Instant madeAt) {
        boolean holdsFor(Setting s) {
            return active
                    && switch (boundTo) {
                        case EVERYTHING -> true;
                        case SITE -> boundId.equals(s.siteId());
                        case MODEL -> boundId.equals(s.modelId());
                        case JOB -> boundId.equals(s.jobId());
                    };
        }
    }

    /** What is judged: any of them may be null. */
    public record Setting(UUID siteId, UUID modelId, UUID jobId) {
        public static final Setting NONE = new Setting(null, null, null);
    }

    static List<Row> holding(List<Row> all, Setting setting) {
        return all.stream().filter(r -> r.holdsFor(setting)).toList();
    }
}
