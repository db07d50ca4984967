package yarrek.core.rulebook;

import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Words of the vocabulary as people say them: "besidePilot" is "beside pilot"; marks and abbreviations stay. */
public final class Words {
    private static final Pattern HUMP = Pattern.compile("\\b[A-Z](?=[a-z])");

    private Words() {}

    static String list(Collection<String> words) {
        return new TreeSet<>(words).stream().map(Words::word).collect(Collectors.joining(" or "));
    }

    /** One of them, never empty. */
    public static String word(String w) {
        return Character.isLowerCase(w.charAt(0))
                ? HUMP.matcher(w.replaceAll("([a-z])([A-Z0-9])", "$1 $2").replaceAll("([0-9])([A-Z])", "$1 $2"))
                        .replaceAll(m -> m.group().toLowerCase(Locale.ROOT))
                : w;
    }

    static String labels(List<String> facts) {
        return facts.stream()
                .map(f -> Outcome.lower(Vocabulary.define(f).label()))
                .collect(Collectors.joining(", "));
    }
}
