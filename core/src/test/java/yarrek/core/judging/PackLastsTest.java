package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import yarrek.core.energy.Endurance;
import yarrek.core.mass.TakeoffMass;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.units.Mass;

class PackLastsTest {
    private static Built build(double grams, PackLasts.Leaflet leaflet) {
        Craft c = Inputs.aCraft(List.of(Set.of("position")));
        Craft.Model m = c.model();
        return new Built(
                "light",
                new Craft(
                        c.name(),
                        c.serial(),
                        null,
                        null,
                        null,
                        new Craft.Model(
                                m.fullName(),
                                null,
                                "none",
                                false,
                                true,
                                false,
                                null,
                                null,
                                10.0,
                                -10.0,
                                40.0,
                                null,
                                "none",
                                Set.of(),
                                leaflet),
                        c.lightsOfBuilds()),
                new TakeoffMass(Mass.ofGrams(grams), Mass.ofGrams(2), Optional.empty(), List.of()),
                Set.of(),
                77,
                895);
    }

    private static PackLasts lasts(
            double grams, PackLasts.Leaflet l, Double elevation, OptionalDouble air, double reserve) {
        return PackLasts.of(build(grams, l), new PackLasts.Conditions(elevation, air, -10.0, reserve))
                .orElseThrow();
    }

    private static final PackLasts.Leaflet HOVER = new PackLasts.Leaflet(34, Endurance.Stated.HOVER, null);

    @Test
    void minutesOfTheLeafletScaleWithMassAirAndCold() {
        // 34 min, 935 g of 895 g, 850 m and 4 °C: 30.86 min (worked figure), cold 0.908, a quarter kept
        PackLasts l = lasts(935, HOVER, 850.0, OptionalDouble.of(4), 0.25);
        assertThat(l.minutes()).isCloseTo(30.86 * 0.908 * 0.75, within(0.03));
        assertThat(l.least()).isLessThan(30.86 * 0.85 * (0.908 - 0.25));
        assertThat(l.most()).isGreaterThan(l.minutes());
        assertThat(l.words())
                .contains("34 min by the maker, in hover", "935 g instead of 895 g", "850 m", "4 °C", "25 % kept");
    }

    @ParameterizedTest
    @EnumSource(Endurance.Stated.class)
    void theMiddleLiesBetween(Endurance.Stated stated) {
        PackLasts l = lasts(895, new PackLasts.Leaflet(34, stated, null), null, OptionalDouble.empty(), 0.3);
        assertThat(l.least()).isPositive().isLessThan(l.minutes());
        assertThat(l.minutes()).isLessThan(l.most());
    }

    @Test
    void minutesAtTheBestSpeedArePromisedOnlyInPart() {
        PackLasts hover = lasts(895, HOVER, 0.0, OptionalDouble.of(15), 0.3);
        PackLasts best = lasts(
                895, new PackLasts.Leaflet(34, Endurance.Stated.BEST_SPEED, null), 0.0, OptionalDouble.of(15), 0.3);
        PackLasts unsaid = lasts(
                895, new PackLasts.Leaflet(34, Endurance.Stated.NOT_KNOWN, null), 0.0, OptionalDouble.of(15), 0.3);
        assertThat(best.minutes()).isLessThan(hover.minutes());
        assertThat(best.most()).isEqualTo(hover.most());
        assertThat(unsaid.least()).isEqualTo(best.least()).isLessThan(hover.least());
    }

    @Test
    void aPackOfHalfTheEnergyLastsHalfAsLong() {
        PackLasts l =
                lasts(895, new PackLasts.Leaflet(34, Endurance.Stated.HOVER, 154.0), 0.0, OptionalDouble.of(15), 0.3);
        assertThat(l.minutes() * 2)
                .isCloseTo(lasts(895, HOVER, 0.0, OptionalDouble.of(15), 0.3).minutes(), within(1e-9));
    }

    @ParameterizedTest
    @CsvSource({"895,0,15", "935,850,4", "1000,2000,-8"})
    void heavierHigherAndColderLastsNoLonger(double grams, double elevation, double air) {
        double here =
                lasts(grams, HOVER, elevation, OptionalDouble.of(air), 0.3).minutes();
        assertThat(Stream.of(
                                lasts(grams + 50, HOVER, elevation, OptionalDouble.of(air), 0.3),
                                lasts(grams, HOVER, elevation + 300, OptionalDouble.of(air), 0.3),
                                lasts(grams, HOVER, elevation, OptionalDouble.of(air), 0.4))
                        .map(PackLasts::minutes))
                .allSatisfy(other -> assertThat(other).isLessThan(here));
    }

    @Test
    void whatIsNotKnownOfAirAndPlaceOnlyWidens() {
        PackLasts known = lasts(895, HOVER, 300.0, OptionalDouble.of(10), 0.3);
        PackLasts unknown = lasts(895, HOVER, null, OptionalDouble.empty(), 0.3);
        assertThat(unknown.least()).isLessThan(known.least());
        assertThat(unknown.most()).isGreaterThan(known.most());
    }

    @Test
    void nothingIsLeftWhereTheColdTakesAllButWhatIsKept() {
        assertThat(lasts(895, HOVER, 0.0, OptionalDouble.of(-20), 0.7).least()).isZero();
    }

    @Test
    void withoutMinutesOfTheMakerItIsNotKnown() {
        assertThat(PackLasts.of(build(895, null), new PackLasts.Conditions(0.0, OptionalDouble.of(15), null, 0.3)))
                .isEmpty();
    }

    @Test
    void aFlightLongerThanItsPackIsAFact() {
        Inputs in = new Inputs().flyingWith(build(895, HOVER));
        in.said.put("flight.minutes", new FactValue.Quantity(40, 0));
        Facts f = PlanFacts.of(in.input());
        FactValue.Quantity shortBy =
                (FactValue.Quantity) f.get("pack.shortMin").orElseThrow().value();
        assertThat(shortBy.low()).isPositive();
        assertThat(shortBy.high()).isGreaterThan(shortBy.low());
    }

    @Test
    void aFlightOfUnknownMinutesHasNoSuchFact() {
        assertThat(PlanFacts.of(new Inputs().flyingWith(build(895, HOVER)).input())
                        .get("pack.shortMin"))
                .isEmpty();
    }
}
