package yarrek.core.rulebook;

import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/**
 * A paper of a kind and one of the levels, in force for every stretch of the job; several may follow one another.
 *
 * @param jurisdiction the law that asks: a paper counts when it is of that law, or of a state of its union
 * @param namesPlace whether the paper must name the place itself, as a policy its territory; what one state of a union
 *     issued does not count in another then
 */
public record HoldsPaper(
        String kind,
        String kindName,
        Set<String> levels,
        String role,
        Optional<String> jurisdiction,
        boolean namesPlace)
        implements Requirement {
    static final Kind<HoldsPaper> KIND = Kind.of("paper", HoldsPaper::read);
    private static final Map<String, String> ROLES = Map.of(
            "operator", "operator", "pilot", "pilot", "observer", "observer", "aircraft", "aircraft", "job", "job");

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.UK);

    public HoldsPaper {
        levels = Set.copyOf(levels);
    }

    private static HoldsPaper read(Written n, Reading reading) {
        n.only(Set.of("paper", "name", "levels", "of", "namesPlace"), "a required paper");
        Set<String> levels = new LinkedHashSet<>();
        n.items("levels").forEach(l -> levels.add(l.text()));
        return new HoldsPaper(
                n.text("paper"),
                n.text("name"),
                levels,
                n.get("of").oneOf(ROLES),
                reading.jurisdiction(),
                n.has("namesPlace") && n.get("namesPlace").yesNo());
    }

    @Override
    public Outcome judge(Facts facts) {
        if (facts.papers().isEmpty() || facts.windows().isEmpty()) {
            return Outcome.unknown(
                    "not known: "
                            + (facts.papers().isEmpty()
                                    ? "which papers the " + role + " holds"
                                    : "days and hours of the flying"),
                    List.of());
        }
        if (facts.isUnnamed(role)) {
            return Outcome.unknown(
                    "not known: who or what is the " + role + ", and so whether it has " + kindName, List.of());
        }
        List<PaperHeld> ofKind = facts.papers().get().stream()
                .filter(p -> p.kind().equals(kind) && p.role().equals(role))
                .toList();
        List<PaperHeld> fitting = ofKind.stream()
                .filter(p -> counts(p, facts))
                .filter(p -> levels.isEmpty() || p.level().map(levels::contains).orElse(false))
                .toList();
        String what = kindName + (levels.isEmpty() ? "" : " (" + Words.list(levels) + ")");
        if (fitting.isEmpty()) {
            String elsewhere = ofKind.stream()
                    .filter(p -> !counts(p, facts))
                    .map(p -> p.number() + " of " + p.jurisdiction())
                    .distinct()
                    .collect(Collectors.joining(", "));
            return Outcome.breached("the " + role + " has no " + what + " on record"
                    + (elsewhere.isEmpty() ? "" : " that counts here; " + elsewhere + " does not"));
        }
        Set<String> gaps = new LinkedHashSet<>();
        List<PaperHeld> settled =
                fitting.stream().filter(PaperHeld::isEndSettled).toList();
        boolean doubtful = false;
        boolean lastDay = false;
        for (TimeWindow w : facts.windows()) {
            Optional<Instant> gap = gap(fitting, w);
            if (gap.isPresent()) {
                gaps.add(DAY.format(gap.get().atZone(facts.zone())));
            } else if (gap(settled, w).isPresent()) {
                doubtful = true;
            } else {
                lastDay |= settled.stream()
                        .filter(p -> p.validity().holdsAt(w.end()))
                        .allMatch(p -> p.validity()
                                .validThrough()
                                .map(d -> d.equals(
                                        w.end().atZone(p.validity().zone()).toLocalDate()))
                                .orElse(false));
            }
        }
        PaperHeld shown = fitting.get(fitting.size() - 1);
        String validity = shown.validity()
                .validThrough()
                .map(d -> "valid to " + DAY.format(d))
                .orElse("no end date");
        if (!gaps.isEmpty()) {
            return Outcome.breached(
                    "no " + what + " in force on " + String.join(", ", gaps) + "; " + shown.number() + " is "
                            + shown.validity()
                                    .validFrom()
                                    .map(d -> "valid from " + DAY.format(d) + ", ")
                                    .orElse("") + validity);
        }
        if (doubtful) {
            return Outcome.unknown("not known: when " + what + " " + shown.number() + " ends", List.of());
        }
        String says = what + " " + shown.number() + ", " + validity;
        return lastDay ? Outcome.close(says + ": its last day") : Outcome.met(says);
    }

    private boolean counts(PaperHeld p, Facts facts) {
        return namesPlace
                ? facts.place().map(p::namesPlace).orElse(p.jurisdiction().isBlank())
                : p.countsIn(jurisdiction);
    }

    /** The first instant of the window at which none of the papers is in force; empty when there is none. */
    private static Optional<Instant> gap(List<PaperHeld> papers, TimeWindow w) {
        Instant at = w.start();
        while (true) {
            Instant now = at;
            List<PaperHeld> held =
                    papers.stream().filter(p -> p.validity().holdsAt(now)).toList();
            if (held.isEmpty()) {
                return Optional.of(at);
            }
            if (held.stream().anyMatch(p -> p.validity().endExclusive().isEmpty())) {
                return Optional.empty();
            }
            at = held.stream()
                    .map(p -> p.validity().endExclusive().orElseThrow())
                    .max(Comparator.naturalOrder())
                    .orElseThrow();
            if (at.isAfter(w.end())) {
                return Optional.empty();
            }
        }
    }

    /** Whether one on record begins later, or holds on some of the days, so that other days might do. */
    @Override
    public boolean heldAtAnotherTime(Facts facts) {
        return facts.papers().stream()
                .flatMap(List::stream)
                .filter(p -> p.kind().equals(kind)
                        && p.role().equals(role)
                        && counts(p, facts)
                        && (levels.isEmpty() || p.level().map(levels::contains).orElse(false)))
                .anyMatch(p -> facts.windows().stream()
                        .anyMatch(w -> p.validity().covers(w)
                                || p.validity()
                                        .start()
                                        .map(s -> s.isAfter(w.start()))
                                        .orElse(false)));
    }

    @Override
    public List<HoldsPaper> papers() {
        return List.of(this);
    }

    @Override
    public Set<String> factNames() {
        return Set.of();
    }

    @Override
    public String words() {
        return "the " + role + " holds " + kindName + (levels.isEmpty() ? "" : " " + Words.list(levels))
                + (namesPlace ? " that names the place" : "") + " for the whole job";
    }

    @Override
    public void offer(Offers to) {
        if (to.facts().papers().isEmpty()) {
            return;
        }
        Optional<String> level = levels.stream().sorted().findFirst();
        to.paper(
                new PaperHeld(
                        kind,
                        level,
                        role,
                        "to be had",
                        jurisdiction.orElse(""),
                        new Validity(
                                Optional.empty(), Optional.empty(), to.facts().zone()),
                        true),
                kindName + level.map(l -> " " + l).orElse("") + " of the " + role + " in force for the whole job");
    }
}
