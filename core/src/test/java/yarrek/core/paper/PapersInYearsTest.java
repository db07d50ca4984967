package yarrek.core.paper;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.time.Validity;

/** Costs of a year, from purchase to first flight, and labels. */
class PapersInYearsTest {
    private static final ZoneId UTC = ZoneOffset.UTC;
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);

    private static Costs.Item item(String begins, String ends, String cost, String currency) {
        return new Costs.Item(
                Optional.ofNullable(begins).map(LocalDate::parse),
                Optional.ofNullable(ends).map(LocalDate::parse),
                Optional.ofNullable(cost).map(BigDecimal::new),
                currency);
    }

    @Test
    void whatBeganInAYearWasSpentAndWhatEndsInItIsToComeEachInItsCurrency() {
        Costs c = Costs.of(
                2026,
                List.of(
                        item("2026-01-01", "2026-12-31", "412.00", "EUR"),
                        item("2025-06-01", "2026-05-31", "31.50", "EUR"),
                        item("2026-03-01", null, "5.00", "USD"),
                        item("2024-01-01", "2029-01-01", "25.00", "EUR"),
                        item("2026-02-02", null, null, null)));
        assertThat(c.spent()).isEqualTo(Map.of("EUR", new BigDecimal("412.00"), "USD", new BigDecimal("5.00")));
        assertThat(c.toCome()).isEqualTo(Map.of("EUR", new BigDecimal("443.50")));
        assertThat(c.withoutCost()).isEqualTo(1);
    }

    private static Paper paper(String from, String to) {
        return new Paper(
                "p",
                "k",
                Optional.empty(),
                "N",
                "aircraft",
                "a",
                new Validity(
                        Optional.ofNullable(from).map(LocalDate::parse),
                        Optional.ofNullable(to).map(LocalDate::parse),
                        UTC),
                true,
                0);
    }

    @Test
    void theLastPaperToComeDecidesFromWhenItMayFly() {
        Purchase p = Purchase.of(
                Optional.of(LocalDate.of(2026, 11, 1)),
                TODAY,
                UTC,
                List.of(
                        new Purchase.Duty("registration", List.of(paper("2026-11-09", null))),
                        new Purchase.Duty("mark", List.of(paper("2026-11-20", null)))));
        assertThat(p.mayFlyFrom()).contains(LocalDate.of(2026, 11, 20));
        assertThat(p.heldUpBy()).contains("mark");
        assertThat(p.days()).hasValue(19);
        assertThat(p.waitingFor()).isEmpty();
    }

    @Test
    void aPaperThatIsMissingOrHasRunOutLeavesTheDayOpen() {
        Purchase p = Purchase.of(
                Optional.of(LocalDate.of(2026, 11, 1)),
                TODAY,
                UTC,
                List.of(
                        new Purchase.Duty("registration", List.of(paper("2025-11-09", "2026-11-24"))),
                        new Purchase.Duty("mark", List.of(paper("2026-12-01", null)))));
        assertThat(p.mayFlyFrom()).isEmpty();
        assertThat(p.waitingFor())
                .containsExactly("registration, none on record that holds", "mark, in force from 2026-12-01");
    }

    @ParameterizedTest
    @CsvSource({
        "FIN87astrdge12k8-xyz, EU, FIN87astrdge12k8",
        "FIN87astrdge12k8-xyz, GB, FIN87astrdge12k8-xyz",
        "FIN87astrdge12k8, EU, FIN87astrdge12k8",
        "TI-114, EU, TI-114"
    })
    void theSecretCharactersStayOffTheAircraft(String number, String law, String visible) {
        assertThat(MarkLabel.visible(number, law)).isEqualTo(visible);
    }

    @Test
    void lettersThatAreTooSmallForTheLawAreToldAndALargerLabelMendsIt() {
        OptionalDouble least = MarkLabel.leastLetterMm("GB");
        MarkLabel small = MarkLabel.lay("GBR-OP-123456789ABC", 30, 8, least);
        assertThat(small.fits()).isFalse();
        assertThat(small.says()).contains("the law asks for more than 3.0 mm");
        MarkLabel large = MarkLabel.lay("GBR-OP-123456789ABC", 70, 20, least);
        assertThat(large.fits()).isTrue();
        assertThat(large.letterMm()).isGreaterThan(small.letterMm());
    }

    @Test
    void aLabelOutsideItsBoundsIsRefused() {
        assertThatThrownBy(() -> MarkLabel.lay("X", Double.NaN, 10, OptionalDouble.empty()))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> MarkLabel.lay(" ", 30, 10, OptionalDouble.empty()))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @CsvSource({
        "+351 210 000 000, , +351 210 000 000",
        "00351 210 000 000, , +351 210 000 000",
        "0210-000-000, +351, +351 210 000 000",
        "210 000 000, , ",
        "call me, +351, "
    })
    void telephoneNumbersAreGivenInInternationalForm(String typed, String code, String expected) {
        assertThat(MarkLabel.international(typed, code == null ? "" : code)).isEqualTo(Optional.ofNullable(expected));
    }
}
