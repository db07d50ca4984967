package yarrek.core.airspace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import yarrek.core.geo.Position;

/** What a fly-away is reckoned with, and that every figure nobody said is named. */
class FlyAwayAskedTest {
    private static final Position LAUNCH = new Position(46.605, -17.895);
    private static final FlyAway.Given NOTHING = new FlyAway.Given(
            Optional.empty(),
            OptionalDouble.empty(),
            OptionalDouble.empty(),
            OptionalDouble.empty(),
            OptionalInt.empty());

    @Test
    void withNothingSaidTheUsualFiguresStandAndEachIsNamed() {
        FlyAway.Asked a = FlyAway.asked(NOTHING, LAUNCH, OptionalDouble.empty(), OptionalDouble.empty());
        assertThat(a.from()).isEqualTo(LAUNCH);
        assertThat(a.speedMps()).isEqualTo(15);
        assertThat(a.heightM()).isZero();
        assertThat(a.windHeightM()).isEqualTo(10);
        assertThat(a.minutes()).isEqualTo(20);
        assertThat(a.assumed())
                .containsExactly(
                        "airspeed 15 m/s: usual, the model's is not on file",
                        "height not known, reckoned from the ground",
                        "flying time left 20 min: nobody has said",
                        "climb 4 m/s: usual");
    }

    @Test
    void theModelAndThePlanStandBeforeWhatIsUsual() {
        FlyAway.Asked a = FlyAway.asked(NOTHING, LAUNCH, OptionalDouble.of(21), OptionalDouble.of(90));
        assertThat(a.speedMps()).isEqualTo(21);
        assertThat(a.windHeightM()).isEqualTo(90);
        assertThat(a.assumed())
                .contains(
                        "airspeed 21 m/s: the greatest level speed of the model",
                        "height 90 m: the greatest of the plan");
    }

    @Test
    void whatSomebodySaidIsNotAssumed() {
        Position last = new Position(46.61, -17.9);
        FlyAway.Given all = new FlyAway.Given(
                Optional.of(last),
                OptionalDouble.of(270),
                OptionalDouble.of(12),
                OptionalDouble.of(60),
                OptionalInt.of(8));
        FlyAway.Asked a = FlyAway.asked(all, LAUNCH, OptionalDouble.of(21), OptionalDouble.of(90));
        assertThat(a)
                .extracting(FlyAway.Asked::from, FlyAway.Asked::headingDeg, FlyAway.Asked::speedMps)
                .containsExactly(last, 270.0, 12.0);
        assertThat(a.heightM()).isEqualTo(60);
        assertThat(a.minutes()).isEqualTo(8);
        assertThat(a.assumed()).containsExactly("climb 4 m/s: usual");
    }

    @Test
    void ofSeveralAircraftTheFastestCountsAndOneNotKnownLeavesItNotKnown() {
        assertThat(FlyAway.greatest(List.of(12.0, 19.0, 15.0))).hasValue(19);
        assertThat(FlyAway.greatest(Arrays.asList(12.0, null))).isEmpty();
        assertThat(FlyAway.greatest(Arrays.asList((Double) null))).isEmpty();
        assertThat(FlyAway.greatest(List.of())).isEmpty();
    }
}
