package yarrek.core.flight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class WindFlownTest {
    private static final double LEAN = WindFlown.leanOf(0.9, 0.02);

    /** A window of an aircraft that flies at this air velocity in this wind. */
    private static WindFlown.Steady flown(double airEast, double airNorth, double windEast, double windNorth) {
        double speed = Math.hypot(airEast, airNorth);
        double lean = speed * speed / LEAN / LEAN;
        return new WindFlown.Steady(
                windEast + airEast, windNorth + airNorth, lean * airEast / speed, lean * airNorth / speed);
    }

    @Test
    void windAndDragComeBackFromFlightOnManyHeadings() {
        Random random = new Random(31);
        for (int k = 0; k < 50; k++) {
            double east = 8 * random.nextGaussian();
            double north = 8 * random.nextGaussian();
            List<WindFlown.Steady> windows = new ArrayList<>();
            for (int i = 0; i < 12; i++) {
                windows.add(flown(10 * random.nextGaussian(), 10 * random.nextGaussian(), east, north));
            }
            WindFlown w = WindFlown.of(windows, 1.225).orElseThrow();
            assertThat(w.east()).isCloseTo(east, within(1e-6));
            assertThat(w.north()).isCloseTo(north, within(1e-6));
            assertThat(w.dragArea(0.9)).isCloseTo(0.02, within(1e-6));
        }
    }

    @Test
    void standingStillTheWindComesFromWhereItLeans() {
        WindFlown w =
                WindFlown.of(List.of(flown(0, 6, 0, -6)), 1.225, LEAN, true).orElseThrow();
        assertThat(w.speed()).isCloseTo(6, within(1e-9));
        assertThat(w.from()).isCloseTo(0, within(1e-9));
        assertThat(w.sd()).isCloseTo(0.24, within(1e-9));
        WindFlown rough =
                WindFlown.of(List.of(flown(0, 6, 0, -6)), 1.225, LEAN, false).orElseThrow();
        assertThat(rough.sd()).isCloseTo(3, within(1e-9));
    }

    @Test
    void hoverAloneDoesNotTellTheDrag() {
        WindFlown.Steady hover = flown(5, 0, -5, 0);
        assertThat(WindFlown.of(List.of(hover, hover, hover, hover, hover, hover), 1.225))
                .isEmpty();
        assertThat(WindFlown.of(List.of(hover), 1.225)).isEmpty();
        assertThat(WindFlown.of(List.of(), 1.225, LEAN, true)).isEmpty();
    }

    @Test
    void attitudeLeansTheThrust() {
        assertThat(WindFlown.lean(0, -45, 90)).satisfies(l -> {
            assertThat(l[0]).isCloseTo(1, within(1e-9));
            assertThat(l[1]).isCloseTo(0, within(1e-9));
        });
        assertThat(WindFlown.lean(45, 0, 0)).satisfies(l -> assertThat(l[0]).isCloseTo(1, within(1e-9)));
        assertThat(Math.hypot(WindFlown.lean(0, 0, 123)[0], WindFlown.lean(0, 0, 123)[1]))
                .isZero();
    }
}
