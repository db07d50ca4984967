package yarrek.app.forms;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.util.LinkedMultiValueMap;

/** What people type is understood with its unit, or refused with what would be. */
class TypedInputTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 24);

    @ParameterizedTest
    @CsvSource({
        "120, 120",
        "120 m, 120",
        "400 ft, 121.92",
        "0.5km, 500",
        "'1,5 m', 1.5",
        "3 NM, 5556",
        "'1,500,000.5', 1500000.5",
        "'0,500', 0.5",
        "'120,5', 120.5",
        "'12,0005', 12.0005"
    })
    void lengths(String typed, double metres) {
        assertThat(TypedInput.metres(typed)).isCloseTo(metres, within(1e-9));
    }

    /** Twelve thousand or twelve: nobody can tell, and the two are a thousandfold apart. */
    @ParameterizedTest
    @CsvSource({"'12,000', 12000 or 12.000", "'1,500 m', 1500 or 1.500", "'-12,345 km', 12345 or 12.345"})
    void aCommaThatMayBeEitherIsAskedAbout(String typed, String choice) {
        assertThatThrownBy(() -> TypedInput.metres(typed))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("two ways")
                .hasMessageContaining(choice);
    }

    @ParameterizedTest
    @CsvSource({"249.4, 249.4", "0.9 kg, 900", "0.55 lb, 249.4758035"})
    void masses(String typed, double grams) {
        assertThat(TypedInput.grams(typed)).isCloseTo(grams, within(1e-6));
    }

    @ParameterizedTest
    @CsvSource({"8, 8", "36 km/h, 10", "10 kn, 5.144444"})
    void speeds(String typed, double metresPerSecond) {
        assertThat(TypedInput.metresPerSecond(typed)).isCloseTo(metresPerSecond, within(1e-6));
    }

    @ParameterizedTest
    @ValueSource(strings = {"tall", "12abc", "NaN", "1e3", "12 lb", "--5", "1.2.3"})
    void whatIsNoLengthIsRefusedWithAnExample(String typed) {
        assertThatThrownBy(() -> TypedInput.metres(typed))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("“" + typed + "”")
                .hasMessageContaining("400 ft");
    }

    @ParameterizedTest
    @CsvSource({
        "2027-03-14, 2027-03-14",
        "14.3.2027, 2027-03-14",
        "14/3/2027, 2027-03-14",
        "14 mar 2027, 2027-03-14",
        "14 March 2027, 2027-03-14",
        "Tomorrow, 2026-11-25",
        "+3 weeks, 2026-12-15",
        "-10 days, 2026-11-14",
        "+1 month, 2026-12-24"
    })
    void dates(String typed, LocalDate date) {
        assertThat(TypedInput.date(typed, TODAY)).isEqualTo(date);
    }

    @ParameterizedTest
    @ValueSource(strings = {"31.2.2027", "the day after", "13/13/2027", "2027"})
    void whatIsNoDateIsRefused(String typed) {
        assertThatThrownBy(() -> TypedInput.date(typed, TODAY))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("14 Mar 2027");
    }

    @ParameterizedTest
    @CsvSource({"9:30, 09:30", "14, 14:00", "0930, 09:30"})
    void times(String typed, LocalTime time) {
        assertThat(TypedInput.time(typed)).isEqualTo(time);
    }

    @Test
    void aFormKeepsWhatWasTypedAndRefusesWhatIsNotAmongTheChoices() {
        Form form = new Form("t", "/t", "/")
                .text("mass", "Mass", "")
                .select("kind", "Kind", "", Form.words("choose", "a", "b"));
        form.bind(new LinkedMultiValueMap<>(
                Map.of("mass", List.of("-5 g"), "kind", List.of("c"), "version", List.of("7"))));
        assertThat(form.mass("mass", true)).isNull();
        assertThat(form.choice("kind", true)).isNull();
        assertThat(form.raw("mass")).isEqualTo("-5 g");
        assertThat(form.getVersion()).isEqualTo(7);
        assertThat(form.errorOf("mass")).isEqualTo("must be a mass of 0 g or more, got -5");
        assertThat(form.errorOf("kind")).isEqualTo("that is not among the choices");
        assertThat(form.store(() -> "stored")).isEmpty();
    }

    @Test
    void aLostUpdateShowsWhatIsStoredBesideWhatWasTyped() {
        Form form = new Form("t", "/t", "/").text("name", "Name", "").text("serial", "Serial", "");
        form.bind(new LinkedMultiValueMap<>(Map.of("name", List.of("same"), "serial", List.of("mine"))));
        Form now = form.again().set("name", "same").set("serial", "theirs").version(4);
        assertThat(form.store(
                        () -> {
                            throw new LostUpdateException(4);
                        },
                        () -> now))
                .isEmpty();
        assertThat(form.storedOf("serial")).isEqualTo("theirs");
        assertThat(form.storedOf("name")).isNull();
        assertThat(form.raw("serial")).isEqualTo("mine");
        assertThat(form.getVersion()).isEqualTo(4);
    }
}
