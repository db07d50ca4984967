package yarrek.core.airspace;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import yarrek.core.units.Finite;

/**
 * How high a law lets an aircraft fly over open ground and beside a structure. Data, in {@code airspace/allowances.txt};
 * the rules of the packs say the same and judge, and a test holds the two together.
 *
 * @param jurisdiction whose law
 * @param baseM height above ground without a structure in metres
 * @param tallerThanM only a structure above this height raises the limit; 0 for any
 * @param withinM horizontal distance to the structure in metres
 * @param withinIncluded whether the very distance still counts
 * @param aboveTopM metres above the structure's top
 * @param condition what else must hold, in words; empty for nothing
 * @param workOnly not for recreation
 * @param ruleId the rule of the pack
 * @param citation of that rule
 */
public record Allowance(
        String jurisdiction,
        double baseM,
        double tallerThanM,
        double withinM,
        boolean withinIncluded,
        double aboveTopM,
        String condition,
        boolean workOnly,
        String ruleId,
        String citation) {
    private static final List<Allowance> ALL = read();

    private static List<Allowance> read() {
        try (BufferedReader in = new BufferedReader(new InputStreamReader(
                Allowance.class.getResourceAsStream("/airspace/allowances.txt"), StandardCharsets.UTF_8))) {
            return in.lines()
                    .filter(l -> !l.startsWith("#") && !l.isBlank())
                    .map(l -> l.split("\\|", -1))
                    .map(p -> new Allowance(
                            p[0],
                            Double.parseDouble(p[1]),
                            Double.parseDouble(p[2]),
                            Double.parseDouble(p[3]),
                            p[4].equals("included"),
                            Double.parseDouble(p[5]),
                            p[6],
                            p[7].equals("work"),
                            p[8],
                            p[9]))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static List<Allowance> all() {
        return ALL;
    }

    /** For a place; a national overlay such as EU-XX inherits. Empty when the pack sets no height. */
    public static Optional<Allowance> of(String jurisdiction) {
        return ALL.stream()
                .filter(a -> jurisdiction.equals(a.jurisdiction) || jurisdiction.startsWith(a.jurisdiction + "-"))
                .findFirst();
    }

    /**
     * Whether a structure raises the height, how far, and why not, in words.
     *
     * @param work whether it is flown for work, and not for recreation
     */
    public String says(Structure x, boolean work) {
        if (x.heightM().isEmpty()) {
            return x.name() + ": its height is not known, so neither is whether it raises the limit";
        }
        double h = x.heightM().getAsDouble();
        String name = x.name() + ", " + Finite.format(h) + " m: ";
        if (!x.isArtificial()) {
            return name + "not made by people, so it raises nothing";
        }
        if (aboveTopM < 0) {
            return name + "no structure raises the height under " + citation;
        }
        if (workOnly && !work) {
            return name + "raises nothing for recreation (" + citation + ")";
        }
        if (h <= tallerThanM) {
            return name + "not taller than " + Finite.format(tallerThanM) + " m, so it raises nothing";
        }
        double up = h + aboveTopM;
        return up <= baseM
                ? name + "up to " + Finite.format(up) + " m beside it, below the general limit"
                : name + "up to " + Finite.format(up) + " m above ground within " + Finite.format(withinM) + " m of it"
                        + (condition.isEmpty() ? "" : ", " + condition);
    }

    /** Whether a structure at a distance raises the limit for a purpose. */
    boolean counts(double heightM, double distanceM, boolean work) {
        return aboveTopM >= 0
                && heightM > tallerThanM
                && (withinIncluded ? distanceM <= withinM : distanceM < withinM)
                && (work || !workOnly);
    }
}
