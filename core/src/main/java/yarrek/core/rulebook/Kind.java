package yarrek.core.rulebook;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.stream.Collectors;

/**
 * A kind of requirement or condition: the words by which a pack says it, how it is read, and how the editor offers it.
 *
 * @param words any of which, written in a node, makes it this kind
 * @param compares the type of fact that it compares; empty when it is about something else
 * @param says what a node of this kind must say, for who wrote something else
 * @param ops comparisons as the editor offers them; none where it cannot
 */
public record Kind<T>(
        Set<String> words,
        Optional<FactType> compares,
        String says,
        List<Op> ops,
        BiFunction<Written, Reading, ? extends T> reads) {
    /** What is typed beside a comparison. */
    public enum Takes {
        /** A figure with or without a unit. */
        FIGURE,
        YES_NO,
        /** Words, any of which will do. */
        WORDS,
        WORD,
        DATE,
        /** A whole number. */
        NUMBER
    }

    /**
     * A comparison that a kind of fact can have, as the pack writes it and as people say it.
     *
     * @param beside what the pack says beside it, always the same
     */
    public record Op(String code, String words, Takes takes, Map<String, String> beside) {
        Op(String code, String words, Takes takes) {
            this(code, words, takes, Map.of());
        }
    }

    static <T> Kind<T> of(String word, BiFunction<Written, Reading, T> reads) {
        return new Kind<>(Set.of(word), Optional.empty(), "", List.of(), reads);
    }

    static <T> Kind<T> comparing(FactType type, String says, List<Op> ops, BiFunction<Written, Reading, T> reads) {
        return new Kind<>(
                ops.stream().map(Op::code).collect(Collectors.toUnmodifiableSet()),
                Optional.of(type),
                says,
                ops,
                reads);
    }

    boolean isSaidBy(Written n) {
        return words.stream().anyMatch(n::has);
    }

    /** The word by which a node says it. */
    String word(Written n) {
        return words.stream().filter(n::has).findFirst().orElseThrow();
    }
}
