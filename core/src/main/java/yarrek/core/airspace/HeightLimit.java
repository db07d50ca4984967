package yarrek.core.airspace;

import java.util.Optional;
import yarrek.core.units.Finite;
import yarrek.core.units.Length;

/**
 * A lower or upper limit as published.
 *
 * @param value in the unit
 * @param unit of the value; hundreds of feet for a flight level
 * @param reference what it counts from
 */
public record HeightLimit(double value, Unit unit, Reference reference) {
    /** Units of published limits. */
    public enum Unit {
        METRES(1, "m"),
        FEET(Length.METRES_PER_FOOT, "ft"),
        /** Hundreds of feet of pressure altitude. */
        LEVEL(100 * Length.METRES_PER_FOOT, "");

        private final double metres;
        private final String words;

        Unit(double metres, String words) {
            this.metres = metres;
            this.words = words;
        }
    }

    /** What a limit counts from. */
    public enum Reference {
        GROUND("above ground"),
        SEA("above sea level"),
        STANDARD("pressure altitude"),
        NO_LIMIT("no limit");

        private final String words;

        Reference(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** A height of which only a least and a greatest value are known; equal when it is exact. Metres. */
    public record Span(double leastM, double greatestM) {}

    public static final HeightLimit SURFACE = new HeightLimit(0, Unit.METRES, Reference.GROUND);
    public static final HeightLimit UNLIMITED =
            new HeightLimit(Double.POSITIVE_INFINITY, Unit.METRES, Reference.NO_LIMIT);

    /**
     * Bounds of a pressure altitude against the altitude above sea level: mean sea-level pressure from 950 to 1050 hPa at
     * 27 ft for one hPa, and air up to 12 % thinner or denser than the standard atmosphere (house bounds, on ICAO Doc 7488).
     */
    private static final double PRESSURE_LOW_M = (1013.25 - 950) * 27 * Length.METRES_PER_FOOT;

    private static final double PRESSURE_HIGH_M = (1050 - 1013.25) * 27 * Length.METRES_PER_FOOT;
    private static final double THIN = 0.12;

    public static HeightLimit aboveGround(double metres) {
        return new HeightLimit(metres, Unit.METRES, Reference.GROUND);
    }

    public static HeightLimit aboveSea(double metres) {
        return new HeightLimit(metres, Unit.METRES, Reference.SEA);
    }

    public double metres() {
        return value * unit.metres;
    }

    /** Where the limit lies above the ground under a plan; empty when the ground is not known well enough. */
    public Optional<Span> aboveGround(Ground ground) {
        if (reference == Reference.GROUND || reference == Reference.NO_LIMIT) {
            return Optional.of(new Span(metres(), metres()));
        }
        if (ground.elevationM().isEmpty() || ground.reliefM().isEmpty()) {
            return Optional.empty();
        }
        double e = ground.elevationM().getAsDouble();
        double r = ground.reliefM().getAsDouble();
        double low = metres();
        double high = metres();
        if (reference == Reference.STANDARD) {
            low = low * (1 - THIN) - PRESSURE_LOW_M;
            high = high * (1 + THIN) + PRESSURE_HIGH_M;
        }
        return Optional.of(new Span(low - e - r, high - e + r));
    }

    /** As published, with metres beside feet: "1,500 ft (457.2 m) above sea level". */
    public String words() {
        if (reference == Reference.NO_LIMIT) {
            return "no limit";
        }
        if (unit == Unit.LEVEL) {
            return "flight level " + Finite.format(value);
        }
        if (value == 0 && reference == Reference.GROUND) {
            return "ground";
        }
        return Finite.format(value) + " " + unit.words
                + (unit == Unit.FEET ? " (" + Finite.format(Math.round(metres() * 10) / 10.0) + " m)" : "") + " "
                + reference.words;
    }
}
