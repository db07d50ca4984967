package yarrek.core.rulebook;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Several requirements as one: of all the most pressing answer, of alternatives the least pressing. */
final class Combined {
    private Combined() {}

    static Verdict verdict(List<Requirement> of, Facts facts, boolean all) {
        Verdict combined = null;
        for (Requirement r : of) {
            Verdict v = r.verdict(facts);
            combined = combined == null || (v.compareTo(combined) < 0) == all ? v : combined;
        }
        return combined;
    }

    static Outcome outcome(List<Requirement> of, Facts facts, boolean all) {
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
                said(deciding),
                deciding.stream().flatMap(o -> o.gauge().stream()).findFirst(),
                missing);
    }

    /** What is said of each, once; what only is not known in one list. */
    private static String said(List<Outcome> outcomes) {
        String unknown = outcomes.stream()
                .map(Outcome::says)
                .filter(s -> s.startsWith(Outcome.NOT_KNOWN))
                .map(s -> s.substring(Outcome.NOT_KNOWN.length()))
                .distinct()
                .collect(Collectors.joining(", "));
        return Stream.concat(
                        unknown.isEmpty() ? Stream.of() : Stream.of(Outcome.NOT_KNOWN + unknown),
                        outcomes.stream().map(Outcome::says).filter(s -> !s.startsWith(Outcome.NOT_KNOWN)))
                .distinct()
                .collect(Collectors.joining("; "));
    }

    static Set<String> names(List<Requirement> of) {
        return of.stream().flatMap(r -> r.factNames().stream()).collect(Collectors.toCollection(TreeSet::new));
    }
}
