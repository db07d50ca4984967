package yarrek.core.rulebook;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;

/**
 * The facts that rules may speak of. One name for one thing; the unit stands last in the name. The words themselves are
 * data, in {@code rulebook/vocabulary.txt}: one line for each, its parts with a bar between.
 */
public final class Vocabulary {
    private static final Map<String, FactDefinition> FACTS = read();

    private Vocabulary() {}

    private static Map<String, FactDefinition> read() {
        Map<String, FactDefinition> facts = new LinkedHashMap<>();
        try (BufferedReader in = new BufferedReader(new InputStreamReader(
                Vocabulary.class.getResourceAsStream("/rulebook/vocabulary.txt"), StandardCharsets.UTF_8))) {
            in.lines().filter(l -> !l.startsWith("#")).forEach(l -> {
                String[] p = l.split("\\|", -1);
                FactType type = switch (p[1]) {
                    case "quantity" -> FactType.QUANTITY;
                    case "yesNo" -> FactType.YES_NO;
                    case "word" -> FactType.WORD;
                    case "words" -> FactType.WORDS;
                    case "date" -> FactType.DATE;
                    case "instant" -> FactType.INSTANT;
                    default -> throw new IllegalStateException("vocabulary.txt: no such type in '" + l + "'");
                };
                boolean listed = (type == FactType.WORD || type == FactType.WORDS) && !p[2].isEmpty();
                facts.put(
                        p[0],
                        new FactDefinition(
                                p[0],
                                type,
                                type == FactType.QUANTITY ? p[2] : "",
                                p[3],
                                p[4],
                                listed ? new LinkedHashSet<>(List.of(p[2].split(" "))) : Set.of(),
                                p[5],
                                p[6].isEmpty()
                                        ? FactDefinition.Change.NOT
                                        : FactDefinition.Change.valueOf(p[6].toUpperCase(java.util.Locale.ROOT)),
                                FactDefinition.SaidOf.valueOf(p[7].toUpperCase(java.util.Locale.ROOT)),
                                p[8],
                                p[9].isEmpty() ? OptionalInt.empty() : OptionalInt.of(Integer.parseInt(p[9])),
                                plan(p[10])));
            });
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return Collections.unmodifiableMap(facts);
    }

    private static Optional<FactDefinition.InPlan> plan(String text) {
        if (text.isEmpty()) {
            return Optional.empty();
        }
        String[] p = text.split("; ?", -1);
        return Optional.of(
                new FactDefinition.InPlan(Integer.parseInt(p[0]), p[1], p[2], p[3], bound(p[4]), bound(p[5])));
    }

    private static OptionalDouble bound(String text) {
        return text.isEmpty() ? OptionalDouble.empty() : OptionalDouble.of(Double.parseDouble(text));
    }

    /** Facts that the form of a plan asks, in its order. */
    public static List<FactDefinition> ofPlan() {
        return FACTS.values().stream()
                .filter(d -> d.plan().isPresent())
                .sorted(Comparator.comparingInt(d -> d.plan().orElseThrow().place()))
                .toList();
    }

    /** @throws IllegalArgumentException if there is no such word */
    public static FactDefinition define(String name) {
        FactDefinition definition = FACTS.get(name);
        if (definition == null) {
            throw new IllegalArgumentException(
                    "no fact called '" + name + "'; the vocabulary is listed at /rulebook/words");
        }
        return definition;
    }

    public static boolean knows(String name) {
        return FACTS.containsKey(name);
    }

    public static Collection<FactDefinition> all() {
        return FACTS.values();
    }
}
