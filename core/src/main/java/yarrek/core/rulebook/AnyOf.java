package yarrek.core.rulebook;

import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** At least one holds; the least pressing answer is the answer. */
public record AnyOf(List<Requirement> of) implements Requirement {
    static final Kind<AnyOf> KIND = Kind.of(
            "anyOf", (n, reading) -> new AnyOf(reading.several(n, "anyOf", "a requirement", reading::requirement)));

    public AnyOf {
        of = List.copyOf(of);
    }

    @Override
    public OverTime overTime(Moments m) {
        return OverTime.any(of, m);
    }

    @Override
    public Outcome judge(Facts facts) {
        Outcome o = Combined.outcome(of, facts, false);
        if (o.verdict() != Verdict.BREACHED || of.size() < 2) {
            return o;
        }
        // of several ways that are all closed, the nearest is the one to hear of
        Outcome nearest = of.stream()
                .min(Comparator.comparingInt((Requirement r) -> r.failing(facts))
                        .thenComparing(r -> -r.margin(facts)))
                .orElseThrow()
                .judge(facts);
        return new Outcome(o.verdict(), nearest.says(), nearest.gauge(), nearest.missing());
    }

    @Override
    public int failing(Facts facts) {
        return of.stream().mapToInt(r -> r.failing(facts)).min().orElse(0);
    }

    @Override
    public Verdict verdict(Facts facts) {
        return Combined.verdict(of, facts, false);
    }

    @Override
    public double margin(Facts facts) {
        return of.stream().mapToDouble(r -> r.margin(facts)).min().orElseThrow();
    }

    @Override
    public Set<String> factNames() {
        return Combined.names(of);
    }

    @Override
    public String words() {
        return of.stream().map(Requirement::words).collect(Collectors.joining("; or "));
    }

    @Override
    public void offer(Offers to) {
        of.forEach(r -> r.offer(to));
    }
}
