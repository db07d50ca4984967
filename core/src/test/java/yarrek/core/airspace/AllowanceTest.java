package yarrek.core.airspace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Position;

/** What a structure does to the height allowed beside it, law by law. */
class AllowanceTest {
    private static Structure structure(Double heightM, boolean artificial) {
        return new Structure(
                "Mast",
                artificial ? "mast" : "tree",
                List.of(new Position(46.6, -17.9)),
                Optional.empty(),
                heightM == null ? OptionalDouble.empty() : OptionalDouble.of(heightM));
    }

    @ParameterizedTest(name = "{0}: {1} m, work {2}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "EU|105|true|Mast, 105 m: not taller than 105 m, so it raises nothing",
                "EU|105.1|true|Mast, 105.1 m: up to 120.1 m above ground within 50 m of it, at the request of the entity responsible for it",
                "GB|140|false|Mast, 140 m: up to 155 m above ground within 50 m of it, at the request of the entity responsible for it",
                "CA|91.44|true|Mast, 91.44 m: up to 121.92 m beside it, below the general limit",
                "CA|100|true|Mast, 100 m: up to 130.48 m above ground within 60.96 m of it",
                "US|100|true|Mast, 100 m: up to 221.92 m above ground within 121.92 m of it",
                "US|100|false|Mast, 100 m: raises nothing for recreation (14 CFR 107.51(b))",
                "AU|200|true|Mast, 200 m: no structure raises the height under CASR 101.085",
                "NZ|200|true|Mast, 200 m: no structure raises the height under CAR 101.207"
            })
    void aStructureRaisesTheHeightAsTheLawSays(String law, double heightM, boolean work, String says) {
        assertThat(Allowance.of(law).orElseThrow().says(structure(heightM, true), work))
                .isEqualTo(says);
    }

    @ParameterizedTest
    @CsvSource({"EU", "GB", "CA", "US", "AU", "NZ"})
    void whatIsNotMadeByPeopleRaisesNothingAndAnUnknownHeightIsSaidToBeUnknown(String law) {
        Allowance a = Allowance.of(law).orElseThrow();
        assertThat(a.says(structure(150.0, false), true)).endsWith("not made by people, so it raises nothing");
        assertThat(a.says(structure(null, true), true)).contains("not known");
    }
}
