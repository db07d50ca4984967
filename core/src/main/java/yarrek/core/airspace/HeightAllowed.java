package yarrek.core.airspace;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Finite;

/**
 * To what height above ground one may fly, point by point: the law's height over open ground, raised beside structures,
 * cut off where a zone that prohibits or asks for an authorisation begins. Ground, structures and zones only: what the
 * build, the pilot or the operator's own rules allow may be less.
 */
public final class HeightAllowed {
    /** Points along a line are no farther apart than this, and changes are then found to within {@link #FOUND_M}. */
    private static final double STEP_M = 10;

    private static final double FOUND_M = 0.1;
    private static final int MOST_STEPS = 5_000;

    private final Allowance law;
    private final List<Structure> structures;
    private final List<Zone> zones;
    private final Ground ground;
    private final boolean work;

    /**
     * @param zones those in force, whatever their heights
     * @param work whether it is flown for work, and not for recreation
     */
    public HeightAllowed(Allowance law, List<Structure> structures, List<Zone> zones, Ground ground, boolean work) {
        this.law = law;
        this.structures = structures.stream().filter(Structure::isArtificial).toList();
        this.zones = zones.stream()
                .filter(z -> z.kind().isLaw()
                        && (z.restriction() == ZoneMet.Restriction.PROHIBITED
                                || z.restriction() == ZoneMet.Restriction.NEEDS_AUTHORISATION))
                .toList();
        this.ground = ground;
        this.work = work;
    }

    /**
     * @param heightM above ground, zero or more
     * @param why in words
     * @param unknown what is not known and could change it; empty when nothing
     */
    public record At(double heightM, String why, String unknown) {}

    /** The height allowed at a point. */
    public At at(Position p) {
        double height = law.baseM();
        String why = "over open ground; " + law.citation();
        String unknown = "";
        for (Structure s : structures) {
            double d = s.distanceM(p);
            if (s.heightM().isEmpty()) {
                if (law.counts(Double.MAX_VALUE, d, work)) {
                    unknown = "the height of " + s.name();
                }
                continue;
            }
            double top = s.heightM().getAsDouble();
            if (law.counts(top, d, work) && top + law.aboveTopM() > height) {
                height = top + law.aboveTopM();
                why = Finite.format(law.aboveTopM()) + " m above the top of " + s.name() + ", within "
                        + Finite.format(law.withinM()) + " m of it"
                        + (law.condition().isEmpty() ? "" : ", " + law.condition()) + "; " + law.citation();
            }
        }
        for (Zone z : zones) {
            if (z.area().locate(p.latitudeDeg(), p.longitudeDeg()) == Area.Side.OUTSIDE) {
                continue;
            }
            Optional<HeightLimit.Span> low = z.lower().aboveGround(ground);
            Optional<HeightLimit.Span> high = z.upper().aboveGround(ground);
            if (high.isPresent() && high.get().greatestM() < 0) {
                continue;
            }
            if (low.isEmpty()) {
                unknown = "how high " + z.name() + " begins above the ground: the site's elevation and relief";
                continue;
            }
            double begins = Math.max(0, low.get().leastM());
            if (begins < height) {
                height = begins;
                why = "below " + z.name() + ", which begins at " + z.lower().words()
                        + (z.restriction() == ZoneMet.Restriction.PROHIBITED
                                ? " (prohibited)"
                                : " (needs an authorisation)");
            }
        }
        return new At(height, why, unknown);
    }

    /**
     * A stretch of a line along which the same height holds for the same reason.
     *
     * @param fromM metres along the line
     * @param toM metres along the line, not less than {@code fromM}
     */
    public record Stretch(double fromM, double toM, At at) {}

    /**
     * "Height allowed along this line": stretches in order from its first to its last point; where one ends is right to
     * 0.1 m, but a stretch shorter than 10 m between two looks may be missed.
     *
     * @throws IllegalArgumentException for fewer than two points or a line longer than 50 km
     */
    public List<Stretch> along(List<Position> line) {
        double length = line.size() < 2 ? 0 : Geodesy.lengthM(line);
        if (length == 0 || length > STEP_M * MOST_STEPS) {
            throw new IllegalArgumentException("a section needs a line of at least two points and at most "
                    + Finite.format(STEP_M * MOST_STEPS / 1000) + " km, got " + Finite.format(length / 1000) + " km");
        }
        TreeSet<Double> looks = new TreeSet<>();
        for (double s = 0; s < length; s += STEP_M) {
            looks.add(s);
        }
        looks.add(length);
        List<Stretch> found = new ArrayList<>();
        double start = 0;
        double before = 0;
        At held = at(line.get(0));
        for (double s : looks) {
            At here = at(point(line, s));
            if (!here.equals(held)) {
                double low = before;
                double high = s;
                while (high - low > FOUND_M) {
                    double middle = (low + high) / 2;
                    if (at(point(line, middle)).equals(held)) {
                        low = middle;
                    } else {
                        high = middle;
                    }
                }
                found.add(new Stretch(start, high, held));
                start = high;
                held = here;
            }
            before = s;
        }
        found.add(new Stretch(start, length, held));
        return found;
    }

    /** The lowest height allowed anywhere on the line. */
    public static Stretch lowest(List<Stretch> stretches) {
        return stretches.stream()
                .min(Comparator.comparingDouble(s -> s.at().heightM()))
                .orElseThrow();
    }

    /** The point so many metres along a line. */
    static Position point(List<Position> line, double metres) {
        double left = metres;
        for (int i = 1; i < line.size(); i++) {
            Position a = line.get(i - 1);
            Position b = line.get(i);
            double d = Geodesy.distanceM(a, b);
            if (left <= d && d > 0) {
                return Geodesy.destination(a, Geodesy.bearingDeg(a, b), left);
            }
            left -= d;
        }
        return line.get(line.size() - 1);
    }
}
