package yarrek.core.rulebook;

import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Words of the vocabulary as people say them: "besidePilot" is "beside pilot"; marks and abbreviations stay. */
public final class Words {
    private static final Pattern HUMP = Pattern.compile("\\b[A-Z](?=[a-z])");
    private static final Pattern CAPITAL = Pattern.compile("([a-z])([A-Z0-9])");
    private static final Pattern AFTER_FIGURE = Pattern.compile("([0-9])([A-Z])");

    /** The few hundred words of the vocabulary, said with every finding of every job. */
    private static final Map<String, String> SAID = new ConcurrentHashMap<>();

    private static final int MOST_SAID = 2000;

    private Words() {}

    static String list(Collection<String> words) {
        return new TreeSet<>(words).stream().map(Words::word).collect(Collectors.joining(" or "));
    }

    /** One of them, never empty. */
    public static String word(String w) {
        if (!Character.isLowerCase(w.charAt(0))) {
            return w;
        }
        String said = SAID.get(w);
        if (said == null) {
            said = apart(w);
            if (SAID.size() < MOST_SAID) {
                SAID.put(w, said);
            }
        }
        return said;
    }

    private static String apart(String w) {
        String apart =
                AFTER_FIGURE.matcher(CAPITAL.matcher(w).replaceAll("$1 $2")).replaceAll("$1 $2");
        return HUMP.matcher(apart).replaceAll(m -> m.group().toLowerCase(Locale.ROOT));
    }

    static String labels(List<String> facts) {
        return facts.stream()
                .map(f -> Outcome.lower(Vocabulary.define(f).label()))
                .collect(Collectors.joining(", "));
    }
}
