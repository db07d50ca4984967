package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;

class CombinedTest {
    private static final Facts NOTHING = Facts.builder(ZoneId.of("UTC")).build();

    private static Facts wind(double mps) {
        return Facts.builder(ZoneId.of("UTC"))
                .quantity("weather.windMps", mps, 0, "t")
                .build();
    }

    @Test
    void whatIsNotKnownIsSaidInOneListAndOnce() {
        AllOf all = new AllOf(List.of(
                SomeRules.atMost("weather.windMps", 10),
                SomeRules.atMost("weather.temperatureC", 40),
                SomeRules.atMost("weather.temperatureC", 35)));
        assertThat(all.judge(NOTHING).says()).isEqualTo("not known: wind at flight height, air temperature");
        assertThat(all.judge(NOTHING).missing()).containsExactly("weather.windMps", "weather.temperatureC");
    }

    @Test
    void aBreachIsSaidAndWhatIsNotKnownBesideItIsNot() {
        AllOf all = new AllOf(
                List.of(SomeRules.atMost("weather.temperatureC", 40), SomeRules.atMost("weather.windMps", 10)));
        Outcome o = all.judge(wind(12));
        assertThat(o.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(o.says()).contains("12 m/s").doesNotContain("not known");
        assertThat(o.missing()).isEmpty();
    }

    @Test
    void twoBreachesAreBothSaid() {
        AllOf all = new AllOf(List.of(
                SomeRules.atMost("weather.windMps", 10),
                new YesNoIs("weather.icing", false),
                SomeRules.atMost("weather.windMps", 11)));
        Facts facts = Facts.builder(ZoneId.of("UTC"))
                .quantity("weather.windMps", 12, 0, "t")
                .yesNo("weather.icing", true, "t")
                .build();
        assertThat(all.judge(facts).says().split("; ")).hasSize(3);
    }

    @Test
    void anAlternativeThatIsMetIsEnough() {
        AnyOf any = new AnyOf(
                List.of(SomeRules.atMost("weather.windMps", 10), SomeRules.atMost("weather.temperatureC", 40)));
        assertThat(any.judge(wind(5)).verdict()).isEqualTo(Verdict.MET);
    }
}
