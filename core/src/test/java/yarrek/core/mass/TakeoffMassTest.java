package yarrek.core.mass;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.units.Mass;

/** The worked figures of the weighing, and what must hold for any build. */
class TakeoffMassTest {
    private static final MassClass LIGHT =
            new MassClass("below 250 g", Mass.ZERO, Optional.of(Mass.ofGrams(250)), "m", "s");
    private static final MassClass REGISTERED =
            new MassClass("from 250 g", Mass.ofGrams(250), Optional.empty(), "m", "s");
    private static final List<MassClass> CLASSES = List.of(LIGHT, REGISTERED);
    private static final LocalDate DAY = LocalDate.of(2026, 11, 1);

    private static Part part(String id, double grams, double tolerance) {
        return new Part(id, id, Mass.ofGrams(grams), Mass.ofGrams(tolerance), Optional.empty());
    }

    private static final Part CARD = part("card", 0.4, 0);

    @Test
    void airframeAndCardStayBelow250() {
        TakeoffMass mass = TakeoffMass.of(List.of(part("airframe", 249.0, 0.5), CARD), List.of());
        MassClass.Placement placement = MassClass.place(mass, CLASSES);
        assertThat(mass.mass()).isEqualTo(Mass.ofGrams(249.4));
        assertThat(mass.most()).isEqualTo(Mass.ofGrams(249.9));
        assertThat(placement.massClass()).isEqualTo(LIGHT);
        assertThat(placement.headroom()).contains(Mass.ofGrams(0.6));
        assertThat(placement.close()).isFalse();
    }

    /** 900 g ± 2 g against what the maker declares: to the gram on either side of where the word changes. */
    @ParameterizedTest
    @CsvSource({"903, ''", "902, ''", "901.9, perhaps heavier", "898, perhaps heavier", "897.9, heavier", "100, heavier"
    })
    void itIsHeavierThanDeclaredPerhapsOrForCertain(double declaredG, String begins) {
        TakeoffMass mass = TakeoffMass.of(List.of(part("airframe", 900, 2)), List.of());
        assertThat(mass.overDeclared(Optional.of(Mass.ofGrams(declaredG))).orElse(""))
                .startsWith(begins.isEmpty() ? "" : begins + " than its maker declares")
                .matches(s -> s.isEmpty() == begins.isEmpty());
    }

    @Test
    void withoutADeclaredMassItIsNotKnown() {
        TakeoffMass mass = TakeoffMass.of(List.of(part("airframe", 1, 0)), List.of());
        assertThat(mass.overDeclared(Optional.empty()).orElseThrow()).startsWith("not known");
    }

    @Test
    void aFilterTipsItOver() {
        TakeoffMass mass =
                TakeoffMass.of(List.of(part("airframe", 249.0, 0.5), CARD, part("filter", 1.2, 0.1)), List.of());
        assertThat(mass.mass()).isEqualTo(Mass.ofGrams(250.6));
        assertThat(MassClass.place(mass, CLASSES).massClass()).isEqualTo(REGISTERED);
    }

    @Test
    void aToleranceOverTheThresholdAsksForAWeighing() {
        TakeoffMass mass = TakeoffMass.of(List.of(part("airframe", 249.6, 0.5)), List.of());
        MassClass.Placement placement = MassClass.place(mass, CLASSES);
        assertThat(placement.close()).isTrue();
        assertThat(placement.doubtfulThreshold()).contains(Mass.ofGrams(250));
    }

    @Test
    void aWeighingSettlesItAndIsVoidOnceAPartIsGone() {
        Part airframe = part("airframe", 249.6, 0.5);
        Weighing weighing =
                new Weighing(DAY, "scale", Mass.ofGrams(249.7), Mass.ofGrams(0.1), Set.of("airframe", "card"));
        TakeoffMass weighed = TakeoffMass.of(List.of(airframe, CARD), List.of(weighing));
        assertThat(weighed.mass()).isEqualTo(Mass.ofGrams(249.7));
        assertThat(MassClass.place(weighed, CLASSES).close()).isFalse();
        TakeoffMass withoutCard = TakeoffMass.of(List.of(airframe), List.of(weighing));
        assertThat(withoutCard.weighing()).isEmpty();
        assertThat(MassClass.place(withoutCard, CLASSES).close()).isTrue();
    }

    @Test
    void theNewestWeighingOfTheSamePartsCounts() {
        Weighing old = new Weighing(DAY, "scale", Mass.ofGrams(240), Mass.ofGrams(0.1), Set.of("airframe"));
        Weighing fresh =
                new Weighing(DAY.plusDays(1), "scale", Mass.ofGrams(241), Mass.ofGrams(0.1), Set.of("airframe"));
        assertThat(TakeoffMass.of(List.of(part("airframe", 249, 0.5)), List.of(fresh, old))
                        .mass())
                .isEqualTo(Mass.ofGrams(241));
    }

    @ParameterizedTest(name = "{0} g: ± {1} g")
    @CsvSource({"80, 0.5", "500, 0.5", "500.1, 5.001", "1240, 12.4"})
    void unstatedTolerancesAreHalfAGramOrOnePerCentAbove500(double grams, double tolerance) {
        assertThat(Part.defaultTolerance(Mass.ofGrams(grams))).isEqualTo(Mass.ofGrams(tolerance));
    }

    @ParameterizedTest(name = "{0} g is {1}")
    @CsvSource({"249.9, below 250 g", "250.0, from 250 g", "250.1, from 250 g"})
    void thresholdsBelongToTheHeavierClass(double grams, String name) {
        assertThat(MassClass.place(TakeoffMass.of(List.of(part("a", grams, 0)), List.of()), CLASSES)
                        .massClass()
                        .name())
                .isEqualTo(name);
    }

    @Test
    void crossingsAreFoundAloneAndInPairsAndPacksAreNeverPaired() {
        TakeoffMass mass = TakeoffMass.of(List.of(part("airframe", 248.6, 0.1)), List.of());
        List<Headroom.Crossing> crossings = Headroom.crossings(
                mass,
                Optional.of(Mass.ofGrams(250)),
                List.of(
                        new Headroom.Candidate("filter", Mass.ofGrams(1.9), false),
                        new Headroom.Candidate("card", Mass.ofGrams(0.7), false),
                        new Headroom.Candidate("tape", Mass.ofGrams(0.7), false),
                        new Headroom.Candidate("pack A", Mass.ofGrams(0.8), true),
                        new Headroom.Candidate("pack B", Mass.ofGrams(0.9), true)));
        assertThat(crossings)
                .extracting(Headroom.Crossing::names)
                .containsExactly(
                        List.of("filter"),
                        List.of("card", "tape"),
                        List.of("card", "pack A"),
                        List.of("card", "pack B"),
                        List.of("tape", "pack A"),
                        List.of("tape", "pack B"));
        assertThat(crossings.get(1).reaches()).isEqualTo(Mass.ofGrams(250));
    }

    @Test
    void aNegativeMassIsRefusedInWords() {
        assertThatThrownBy(() -> part("airframe", -5, 0))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("mass of airframe must be 0 g or more, got -5.0 g; give the mass in grams, such as 12.5");
    }

    /** Adding a part never makes a build lighter, whatever the parts. */
    @Test
    void massIsMonotonous() {
        Random random = new Random(11);
        for (int i = 0; i < 500; i++) {
            Part a = part("a", random.nextInt(5000) / 10.0, random.nextInt(10) / 10.0);
            Part b = part("b", random.nextInt(5000) / 10.0, random.nextInt(10) / 10.0);
            TakeoffMass one = TakeoffMass.of(List.of(a), List.of());
            TakeoffMass both = TakeoffMass.of(List.of(a, b), List.of());
            assertThat(both.mass()).isGreaterThanOrEqualTo(one.mass());
            assertThat(both.most()).isGreaterThanOrEqualTo(one.most());
            assertThat(both.mass())
                    .isEqualTo(TakeoffMass.of(List.of(b, a), List.of()).mass());
        }
    }
}
