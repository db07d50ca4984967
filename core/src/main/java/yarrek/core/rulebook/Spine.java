package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** The findings of a job by the parts of the work, in the order in which it is done. */
public final class Spine {
    /** A part of the work. */
    public enum Part {
        PLAN("How it is flown"),
        AIRCRAFT("Aircraft and build"),
        SITE("Site and airspace"),
        WEATHER("Light and weather"),
        PEOPLE("Crew"),
        PAPERS("Papers");

        private final String words;

        Part(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** The part of which rules of a phase speak; what no part names is how it is flown. */
        static Part of(String phase) {
            return switch (phase) {
                case "aircraft", "equipment" -> AIRCRAFT;
                case "place", "airspace" -> SITE;
                case "weather" -> WEATHER;
                case "people" -> PEOPLE;
                case "papers" -> PAPERS;
                default -> PLAN;
            };
        }
    }

    /**
     * How a part stands.
     *
     * @param shape of the worst that stands open
     * @param says what stands open, counted; that nothing does
     * @param rules how many apply
     */
    public record Vertebra(Part part, String shape, String says, int rules) {}

    /** A finding with the phase of its rule. */
    public interface Phased extends Standing {
        String phase();
    }

    private Spine() {}

    /** Every part, also one of which no rule speaks. */
    public static List<Vertebra> of(Collection<? extends Phased> findings) {
        List<Vertebra> spine = new ArrayList<>();
        for (Part part : Part.values()) {
            List<? extends Phased> its = findings.stream()
                    .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE && Part.of(f.phase()) == part)
                    .toList();
            List<? extends Phased> open = its.stream().filter(Standing::isOpen).toList();
            Optional<Verdict> worst = open.stream().map(Standing::verdict).min(Comparator.naturalOrder());
            spine.add(new Vertebra(
                    part,
                    worst.map(Verdict::shape).orElse(its.isEmpty() ? "dots" : "full"),
                    says(its, open),
                    its.size()));
        }
        return spine;
    }

    private static String says(List<? extends Phased> its, List<? extends Phased> open) {
        if (open.isEmpty()) {
            return its.isEmpty() ? "no rule speaks of it" : "nothing open";
        }
        List<String> counts = new ArrayList<>();
        for (Verdict v : List.of(Verdict.BREACHED, Verdict.NOT_KNOWN, Verdict.CLOSE)) {
            long n = open.stream().filter(f -> f.verdict() == v).count();
            if (n > 0) {
                counts.add(n + " " + v.words());
            }
        }
        return String.join(", ", counts);
    }
}
