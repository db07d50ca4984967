package yarrek.app.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import yarrek.core.geo.Position;

/** The simulated grid of ceilings. */
class DesksTest {
    @Test
    void aCellHasOneCeilingEverywhereInItAndNeighboursDiffer() {
        Set<Double> seen = new HashSet<>();
        for (int x = -20; x < 20; x++) {
            for (int y = -20; y < 20; y++) {
                double south = 46 + y * 0.02;
                double west = -17 + x * 0.02;
                double inside = Desks.ceilingM(new Position(south + 0.003, west + 0.003));
                assertThat(Desks.ceilingM(new Position(south + 0.017, west + 0.017)))
                        .isEqualTo(inside);
                seen.add(inside);
            }
        }
        assertThat(seen).containsExactlyInAnyOrder(0.0, 30.0, 60.0, 90.0, 120.0);
    }
}
