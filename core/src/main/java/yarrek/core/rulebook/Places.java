package yarrek.core.rulebook;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/**
 * The places whose law a job, an operator or a paper may be of. The words are data, in {@code rulebook/places.txt}; a place
 * may be listed without a pack on file, and its law is then not known.
 */
public final class Places {
    /** How a place stands to the union whose prefix it bears. */
    public enum Standing {
        STATE,
        UNION,
        MEMBER,
        /** Follows the union's law by agreement without being a member. */
        ASSOCIATED,
        INVENTED
    }

    /** @param code as in packs, "EU-DE" */
    public record Place(String code, String name, Standing standing) {}

    private static final Map<String, Place> ALL = read();

    private Places() {}

    private static Map<String, Place> read() {
        Map<String, Place> all = new LinkedHashMap<>();
        try (BufferedReader in = new BufferedReader(new InputStreamReader(
                Places.class.getResourceAsStream("/rulebook/places.txt"), StandardCharsets.UTF_8))) {
            in.lines().filter(l -> !l.startsWith("#")).forEach(l -> {
                String[] p = l.split("\\|", -1);
                all.put(p[0], new Place(p[0], p[1], Standing.valueOf(p[2].toUpperCase(java.util.Locale.ROOT))));
            });
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return Collections.unmodifiableMap(all);
    }

    /** Every place listed, by code. */
    public static Map<String, Place> all() {
        return ALL;
    }

    public static Optional<Place> find(String code) {
        return Optional.ofNullable(ALL.get(code));
    }

    static boolean isAssociated(String code) {
        return find(code).map(p -> p.standing() == Standing.ASSOCIATED).orElse(false);
    }

    /** The union or state that a code begins with: "EU" of "EU-DE", "US" of "US". */
    public static String widest(String code) {
        int dash = code.indexOf('-');
        return dash < 0 ? code : code.substring(0, dash);
    }
}
