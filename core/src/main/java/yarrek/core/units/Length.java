package yarrek.core.units;

/** A length, height or distance, held in metres. Finite; may be negative (below a reference). Immutable. */
public final class Length implements Comparable<Length> {
    /** Metres in a foot: 0.3048 exactly (international yard and pound agreement, 1959). */
    public static final double METRES_PER_FOOT = NamedUnit.FOOT.factor();

    /** Metres in a nautical mile: 1852 exactly (SI brochure, 9th edition, table 8 of the 8th). */
    public static final double METRES_PER_NAUTICAL_MILE = NamedUnit.NAUTICAL_MILE.factor();

    private final double metres;

    private Length(double metres) {
        this.metres = Finite.require("length", metres, "m");
    }

    public static Length ofMetres(double metres) {
        return new Length(metres);
    }

    public static Length ofFeet(double feet) {
        return new Length(feet * METRES_PER_FOOT);
    }

    public double toMetres() {
        return metres;
    }

    public double toFeet() {
        return metres / METRES_PER_FOOT;
    }

    @Override
    public int compareTo(Length other) {
        return Double.compare(metres, other.metres);
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof Length l && Double.compare(metres, l.metres) == 0;
    }

    @Override
    public int hashCode() {
        return Double.hashCode(metres);
    }

    @Override
    public String toString() {
        return Finite.format(metres) + " m";
    }
}
