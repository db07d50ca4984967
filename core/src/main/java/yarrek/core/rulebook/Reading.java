package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Reads requirements and conditions of one law. Nothing is guessed: what is missing, unknown or of the wrong kind is refused
 * at its line.
 *
 * @param jurisdiction the law whose pack it is; empty for what is under no one law
 * @param isRequired whether a requirement is being read, not a condition
 */
public record Reading(Optional<String> jurisdiction, boolean isRequired) {
    /** Every kind of requirement there is. */
    public static final List<Kind<? extends Requirement>> REQUIREMENTS = List.of(
            AllOf.KIND,
            AnyOf.KIND,
            OrClose.KIND,
            HoldsPaper.KIND,
            NoZone.KIND,
            Ask.KIND,
            Duty.KIND,
            QuantityWithin.KIND,
            WordIsOneOf.KIND,
            YesNoIs.KIND,
            WordsContain.KIND,
            ContainsAnyOf.KIND,
            RecentWithin.KIND,
            DateIs.KIND);

    /** Every kind of condition there is. */
    public static final List<Kind<? extends Condition>> CONDITIONS = List.of(
            All.KIND,
            Any.KIND,
            Not.KIND,
            IsKnown.KIND,
            QuantityWithin.KIND,
            WordIsOneOf.KIND,
            YesNoIs.KIND,
            WordsContain.KIND,
            ContainsAnyOf.KIND,
            DateIs.KIND);

    public static Reading of(Optional<String> jurisdiction) {
        return new Reading(jurisdiction, false);
    }

    /** @throws Written.Wrong naming the line and what was expected */
    public Requirement requirement(Written n) {
        return read(REQUIREMENTS, n, new Reading(jurisdiction, true));
    }

    /** @throws Written.Wrong naming the line and what was expected */
    public Condition condition(Written n) {
        return read(CONDITIONS, n, new Reading(jurisdiction, false));
    }

    private static <T> T read(List<Kind<? extends T>> kinds, Written n, Reading reading) {
        for (Kind<? extends T> k : kinds) {
            if (k.isSaidBy(n)) {
                return k.reads().apply(n, reading);
            }
        }
        FactDefinition d = fact(n);
        throw n.wrong(reading.what() + " on " + d.name() + " must say " + sides(kinds, d.type()));
    }

    private static <T> String sides(List<Kind<? extends T>> kinds, FactType type) {
        String says = kinds.stream()
                .filter(k -> k.compares().equals(Optional.of(type)))
                .map(Kind::says)
                .collect(Collectors.joining(", or "));
        return says.isEmpty() ? "nothing: instants only start the clock of duties" : says;
    }

    /** Comparisons that the editor offers for a type of fact. */
    public static List<Kind.Op> ops(FactType type, boolean required) {
        Stream<? extends Kind<?>> kinds = required ? REQUIREMENTS.stream() : CONDITIONS.stream();
        return kinds.filter(k -> k.compares().equals(Optional.of(type)))
                .flatMap(k -> k.ops().stream())
                .toList();
    }

    String what() {
        return isRequired ? "a requirement" : "a condition";
    }

    /** The parts of what is made of several. */
    <T> List<T> several(Written n, String word, String what, Function<Written, T> part) {
        List<T> of = new ArrayList<>();
        n.only(Set.of(word), what).get(word).items().forEach(c -> of.add(part.apply(c)));
        if (of.isEmpty() && isRequired) {
            throw n.wrong("an empty list of requirements asks for nothing");
        }
        return of;
    }

    /** The fact that a node compares, of the type that this can be compared so. */
    FactDefinition fact(Written n, FactType wanted) {
        FactDefinition d = fact(n);
        if (d.type() != wanted) {
            throw n.wrong(d.name() + " cannot be compared so; it must say "
                    + (isRequired ? sides(REQUIREMENTS, d.type()) : sides(CONDITIONS, d.type())));
        }
        return d;
    }

    private static FactDefinition fact(Written n) {
        if (!n.has("fact")) {
            throw n.wrong("'fact' is missing");
        }
        return define(n.get("fact"));
    }

    static FactDefinition define(Written name) {
        if (!Vocabulary.knows(name.text())) {
            throw name.wrong("there is no fact called '" + name.text() + "'; the words are listed under Rulebook");
        }
        return Vocabulary.define(name.text());
    }

    Set<String> words(Written list, FactDefinition d) {
        Set<String> words = new LinkedHashSet<>();
        list.items().forEach(w -> words.add(word(w, d)));
        if (words.isEmpty()) {
            throw list.wrong("an empty list of words allows nothing");
        }
        return words;
    }

    String word(Written w, FactDefinition d) {
        if (!d.words().isEmpty() && !d.words().contains(w.text())) {
            throw w.wrong(d.name() + " cannot be '" + w.text() + "'; it is one of " + d.words());
        }
        return w.text();
    }
}
