package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * The planned flights of one job, each judged, as one assessment: what a rule says stands once, as the worst of them have it,
 * with which of them it concerns when not all.
 */
public final class Together {
    private static final int MOST_TOLD_APART = 3;

    /** The worst first: what holds the job up, then what needs a hand, then as a ladder is ordered. */
    private static final Comparator<Finding> WORST = Comparator.comparing((Finding f) -> !f.blocks())
            .thenComparing(f -> !f.waitsForTheDay())
            .thenComparing(f -> !f.isOpen())
            .thenComparing(Assessment.PRESSING)
            .thenComparing(f -> f.gauge().map(Gauge::margin).orElse(Double.POSITIVE_INFINITY));

    private Together() {}

    /** What one part says. */
    private record Said(int part, Finding finding) {
        boolean standsAs(Finding worst) {
            return finding.verdict() == worst.verdict()
                    && finding.departed() == worst.departed()
                    && finding.beaten() == worst.beaten();
        }
    }

    /**
     * @param parts at least one
     * @param which names some of the parts by their places in the list; asked only where it is not all of them
     */
    public static Assessment of(List<Assessment> parts, Function<List<Integer>, String> which) {
        if (parts.size() == 1) {
            return parts.get(0);
        }
        Map<String, List<Said>> byRule = new LinkedHashMap<>();
        Set<String> packs = new LinkedHashSet<>();
        for (int i = 0; i < parts.size(); i++) {
            packs.addAll(parts.get(i).packVersions());
            for (Finding f : parts.get(i).findings()) {
                byRule.computeIfAbsent(key(f.rule()), k -> new ArrayList<>()).add(new Said(i, f));
            }
        }
        List<Finding> together = byRule.values().stream()
                .map(said -> one(said, parts.size(), which))
                .sorted(Assessment.PRESSING)
                .toList();
        return new Assessment(together, List.copyOf(packs));
    }

    /** A rule in one of its versions: two of them judge a job on whose days the one follows the other. */
    private static String key(Rule r) {
        return r.id() + "\n" + r.inForceFrom() + "\n" + r.inForceThrough();
    }

    private static Finding one(List<Said> all, int parts, Function<List<Integer>, String> which) {
        Finding worst = all.stream().map(Said::finding).min(WORST).orElseThrow();
        List<Said> same = all.stream().filter(s -> s.standsAs(worst)).toList();
        Map<String, List<Integer>> bySaying = new LinkedHashMap<>();
        same.forEach(s -> bySaying.computeIfAbsent(s.finding().says(), k -> new ArrayList<>())
                .add(s.part()));
        boolean ofAll = same.size() == parts || worst.verdict() == Verdict.NOT_APPLICABLE;
        return worst.concerning(
                ofAll ? "" : which.apply(same.stream().map(Said::part).toList()),
                bySaying.size() == 1 ? worst.says() : apart(worst, bySaying, which),
                same.stream()
                        .flatMap(s -> s.finding().missing().stream())
                        .distinct()
                        .toList());
    }

    /** What is said of each, the worst first. */
    private static String apart(
            Finding worst, Map<String, List<Integer>> bySaying, Function<List<Integer>, String> which) {
        List<String> told = new ArrayList<>();
        told.add(worst.says() + " (" + which.apply(bySaying.get(worst.says())) + ")");
        bySaying.forEach((says, parts) -> {
            if (!says.equals(worst.says())) {
                told.add(says + " (" + which.apply(parts) + ")");
            }
        });
        int more = told.size() - MOST_TOLD_APART;
        return String.join("; ", told.subList(0, Math.min(told.size(), MOST_TOLD_APART)))
                + (more > 0 ? "; and " + more + " more" : "");
    }
}
