package yarrek.core.airspace;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;

/**
 * A heading of a site survey. Data, in {@code airspace/survey.txt}.
 *
 * @param packs codes of the packs that demand it or whose duties it serves
 * @param from what of the data on file fills it; "none" for what only eyes can tell
 */
public record SurveyHeading(String code, Set<String> packs, String heading, String from, String citation) {
    private static final List<SurveyHeading> ALL = read();

    private static List<SurveyHeading> read() {
        try (BufferedReader in = new BufferedReader(new InputStreamReader(
                SurveyHeading.class.getResourceAsStream("/airspace/survey.txt"), StandardCharsets.UTF_8))) {
            return in.lines()
                    .filter(l -> !l.startsWith("#") && !l.isBlank())
                    .map(l -> l.split("\\|", -1))
                    .map(p -> new SurveyHeading(p[0], Set.of(p[1].split(" ")), p[2], p[3], p[4]))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Headings for a place, in order; a national overlay such as EU-XX inherits. */
    public static List<SurveyHeading> of(String jurisdiction) {
        String pack = jurisdiction.replaceFirst("-.*", "");
        return ALL.stream().filter(h -> h.packs.contains(pack)).toList();
    }
}
