package yarrek.core.rulebook;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** No zone with this restriction is met, unless an approval covers it. */
public record NoZone(ZoneMet.Restriction restriction) implements Requirement {
    static final Kind<NoZone> KIND = Kind.of(
            "noZone",
            (n, reading) -> new NoZone(
                    n.only(Set.of("noZone"), "a requirement").get("noZone").oneOf(ZoneMet.RESTRICTIONS)));

    @Override
    public Outcome judge(Facts facts) {
        if (facts.zones().isEmpty()) {
            return Outcome.unknown("not known: which zones the area meets", List.of());
        }
        List<ZoneMet> met = facts.zones().get().stream()
                .filter(z -> z.restriction() == restriction)
                .toList();
        List<ZoneMet> open = met.stream().filter(z -> z.liftedBy().isEmpty()).toList();
        if (open.isEmpty()) {
            return Outcome.met(
                    met.isEmpty()
                            ? "no such zone among those on file"
                            : met.stream()
                                    .map(z -> z.name() + ": covered by "
                                            + z.liftedBy().orElseThrow())
                                    .collect(Collectors.joining("; ")));
        }
        List<ZoneMet> doubtful =
                open.stream().filter(z -> z.doubt().isPresent()).toList();
        boolean certain = open.stream().anyMatch(z -> z.doubt().isEmpty() && !z.onlyEdge());
        if (!certain && !doubtful.isEmpty()) {
            return Outcome.unknown(
                    doubtful.stream()
                            .map(z -> "not known whether " + z.name() + " is met: "
                                    + z.doubt().orElseThrow())
                            .collect(Collectors.joining("; ")),
                    List.of());
        }
        String says = open.stream()
                .map(z -> z.name() + ": " + z.says()
                        + z.doubt().map(d -> " (not known: " + d + ")").orElse(""))
                .collect(Collectors.joining("; "));
        return !certain ? Outcome.close("only touched at the edge: " + says) : Outcome.breached(says);
    }

    @Override
    public Optional<ZoneMet.Restriction> zones() {
        return Optional.of(restriction);
    }

    /** Whether one of the zones in the way does not hold at all times. */
    @Override
    public boolean heldAtAnotherTime(Facts facts) {
        return facts.zones().stream()
                .flatMap(List::stream)
                .anyMatch(z -> z.restriction() == restriction
                        && z.ends()
                        && z.liftedBy().isEmpty());
    }

    @Override
    public Set<String> factNames() {
        return Set.of();
    }

    @Override
    public String words() {
        return "no uncovered zone: "
                + restriction.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }
}
