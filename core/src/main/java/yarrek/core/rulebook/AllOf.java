package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** Every one holds; the most pressing answer is the answer. */
public record AllOf(List<Requirement> of) implements Requirement {
    static final Kind<AllOf> KIND = Kind.of(
            "allOf", (n, reading) -> new AllOf(reading.several(n, "allOf", "a requirement", reading::requirement)));

    public AllOf {
        of = List.copyOf(of);
    }

    @Override
    public OverTime overTime(Moments m) {
        return OverTime.all(of, m);
    }

    @Override
    public List<HoldsPaper> papers() {
        return of.stream().flatMap(r -> r.papers().stream()).toList();
    }

    @Override
    public OptionalDouble least(String quantity) {
        return of.stream()
                .map(r -> r.least(quantity))
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .max();
    }

    @Override
    public int failing(Facts facts) {
        return of.stream().mapToInt(r -> r.failing(facts)).sum();
    }

    @Override
    public Outcome judge(Facts facts) {
        return Combined.outcome(of, facts, true);
    }

    @Override
    public Verdict verdict(Facts facts) {
        return Combined.verdict(of, facts, true);
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
        return of.stream().map(Requirement::words).collect(Collectors.joining("; and "));
    }

    @Override
    public boolean heldAtAnotherTime(Facts facts) {
        return of.stream().anyMatch(r -> r.heldAtAnotherTime(facts));
    }

    @Override
    public Set<String> contained(String words) {
        return of.stream().flatMap(r -> r.contained(words).stream()).collect(Collectors.toCollection(TreeSet::new));
    }

    @Override
    public void offer(Offers to) {
        of.stream().filter(r -> !r.verdict(to.facts()).isFine()).forEach(r -> r.offer(to));
    }

    @Override
    public Optional<RuleLines> lines() {
        return RuleLines.together(of.stream().map(Requirement::lines).toList());
    }
}
