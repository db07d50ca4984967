package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import yarrek.core.time.Days;

/**
 * How long a pilot's last qualifying activity counts under a law.
 *
 * @param months months for which it counts
 * @param activities kinds of paper that prove one; flights never do where a law says so
 * @param least the least that would renew it, in words
 */
public record Recency(int months, Days.Counting counting, Set<String> activities, String least, String citation) {
    public Recency {
        activities = Set.copyOf(activities);
    }

    /** The activity that counts longest. */
    public Optional<LocalDate> last(List<PaperHeld> papers, Optional<String> law) {
        return papers.stream()
                .filter(p -> activities.contains(p.kind()) && p.role().equals("pilot") && p.countsIn(law))
                .flatMap(p -> p.validity().validFrom().stream())
                .max(LocalDate::compareTo);
    }

    /** Last day, included, on which an activity of that day still counts. */
    public LocalDate through(LocalDate activity) {
        return Days.lastWithin(activity, months, counting);
    }
}
