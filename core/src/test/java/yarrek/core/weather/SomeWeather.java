package yarrek.core.weather;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.UUID;

/** Reports of which a test says only the wind. */
public final class SomeWeather {
    private SomeWeather() {}

    /** Mean wind 10 m above ground in m/s; nothing else is told. */
    public static Observation wind(Instant at, double mps) {
        return of(at, mps, OptionalDouble.empty(), OptionalDouble.empty());
    }

    /** The same with air and dew point in °C. */
    public static Observation of(Instant at, double mps, OptionalDouble airC, OptionalDouble dewPointC) {
        return new Observation(
                at,
                OptionalDouble.empty(),
                false,
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.of(mps),
                OptionalDouble.empty(),
                10,
                OptionalDouble.empty(),
                List.of(),
                List.of(),
                false,
                airC,
                dewPointC,
                OptionalDouble.empty(),
                Optional.empty(),
                List.of());
    }

    public static Report report(Report.Kind kind, Observation o) {
        return new Report(UUID.randomUUID(), o.at(), kind, "", o, "test", "test", o.at());
    }
}
