package yarrek.app.flights;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.OptionalDouble;
import yarrek.core.flight.FlightSummary;

/**
 * The figures of a flight as stored and given out; a null is not known. Heights above take-off, distances in the
 * horizontal from take-off, times UTC and in seconds of the log.
 */
public record FlightFigures(
        Instant takeoffUtc,
        Instant landingUtc,
        double takeoffS,
        double landingS,
        double durationS,
        boolean beginsInTheAir,
        boolean endsInTheAir,
        Double takeoffLatitudeDeg,
        Double takeoffLongitudeDeg,
        double pathLengthM,
        Double greatestDistanceM,
        Double greatestDistanceFromFirstTakeoffM,
        Double greatestHeightM,
        boolean heightFromAltitude,
        Double greatestAltitudeMslM,
        Double greatestSpeedMps,
        Double chargeAtTakeoffPct,
        Double chargeAtLandingPct,
        Double leastChargePct,
        Double chargeMah,
        Double energyWh,
        Double leastCellV,
        Double greatestCellSpreadV,
        Double greatestWindMps,
        int samples,
        int samplesWithoutPosition) {
    private static final DateTimeFormatter CLOCK =
            DateTimeFormatter.ofPattern("HH:mm:ss", Locale.UK).withZone(ZoneOffset.UTC);

    static FlightFigures of(FlightSummary s, OptionalDouble fromFirstTakeoff) {
        return new FlightFigures(
                s.takeoff(),
                s.landing(),
                s.takeoffS(),
                s.landingS(),
                s.duration().toNanos() / 1e9,
                s.beginsInTheAir(),
                s.endsInTheAir(),
                s.takeoffPosition().map(p -> p.latitudeDeg()).orElse(null),
                s.takeoffPosition().map(p -> p.longitudeDeg()).orElse(null),
                s.pathM(),
                value(s.greatestDistanceM()),
                value(fromFirstTakeoff),
                value(s.greatestHeightM()),
                s.heightFromAltitude(),
                value(s.greatestAltitudeMslM()),
                value(s.greatestSpeedMps()),
                value(s.chargeAtTakeoffPct()),
                value(s.chargeAtLandingPct()),
                value(s.leastChargePct()),
                value(s.chargeMah()),
                value(s.energyWh()),
                value(s.leastCellV()),
                value(s.greatestCellSpreadV()),
                value(s.greatestWindMps()),
                s.samples(),
                s.positionsMissing());
    }

    private static Double value(OptionalDouble v) {
        return v.isPresent() ? v.getAsDouble() : null;
    }

    public String takeoffWords() {
        return CLOCK.format(takeoffUtc) + " UTC" + (beginsInTheAir ? " (log begins in the air)" : "");
    }

    public String landingWords() {
        return endsInTheAir ? "log ends in the air" : CLOCK.format(landingUtc) + " UTC";
    }

    /** Charge from take-off to landing. */
    public String chargeWords() {
        return chargeAtTakeoffPct == null
                ? "not in the log"
                : String.format(Locale.ROOT, "%.0f %% to ", chargeAtTakeoffPct)
                        + (chargeAtLandingPct == null
                                ? "not known"
                                : String.format(Locale.ROOT, "%.0f %%", chargeAtLandingPct));
    }
}
