package yarrek.app.forms;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.util.LinkedMultiValueMap;

class FormTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);

    private static Form form(String... typed) {
        LinkedMultiValueMap<String, String> p = new LinkedMultiValueMap<>();
        for (int i = 0; i + 1 < typed.length; i += 2) {
            p.add(typed[i], typed[i + 1]);
        }
        return blank().bind(p);
    }

    private static Form blank() {
        return new Form("t", "/t", "/")
                .text("name", "Name", "")
                .text("mass", "Mass", "such as 12 g")
                .text("cells", "Cells", "a whole number")
                .text("on", "On", "a date")
                .select("kind", "Kind", "", Form.words("choose", "card", "light"))
                .ticks("lights", "Lights", "", List.of(new Form.Option("a", "a"), new Form.Option("b", "b")));
    }

    @ParameterizedTest
    @CsvSource({
        "mass, -1, 'must be a mass of 0 g or more, got -1'",
        "mass, heavy, '“heavy” is not understood; type a mass such as 249.4, 249.4 g or 0.9 kg'",
        "mass, '', this is needed",
        "mass, 20000 kg, 'must be a mass of 0 g or more, got 20000000'"
    })
    void aWrongMassIsToldBesideItsField(String field, String typed, String told) {
        Form f = form(field, typed);
        assertThat(f.mass("mass", true)).isNull();
        assertThat(f.errorOf("mass")).isEqualTo(told);
        assertThat(f.raw("mass")).isEqualTo(typed);
    }

    @ParameterizedTest
    @CsvSource({"14, 14", "14.0, 14", "'1,0', 1"})
    void wholeNumbersMayBeTypedAsPeopleDo(String typed, int whole) {
        assertThat(form("cells", typed).whole("cells", 1, 24, true)).isEqualTo(whole);
    }

    @ParameterizedTest
    @CsvSource({"3.5, whole number", "25, from 1 to 24", "0, from 1 to 24"})
    void aWholeNumberHasItsRange(String typed, String told) {
        Form f = form("cells", typed);
        assertThat(f.whole("cells", 1, 24, true)).isNull();
        assertThat(f.errorOf("cells")).contains(told);
    }

    @Test
    void onlyChoicesOnOfferAreTaken() {
        Form f = form("kind", "anchor", "lights", "a", "lights", "c");
        assertThat(f.choice("kind", true)).isNull();
        assertThat(f.errorOf("kind")).isEqualTo("that is not among the choices");
        assertThat(form("kind", "card").choice("kind", true)).isEqualTo("card");
        Form none = form("kind", "");
        assertThat(none.choice("kind", true)).isNull();
        assertThat(none.errorOf("kind")).isEqualTo("choose one");
    }

    @Test
    void theFirstErrorOfAFieldStays() {
        Form f = form("on", "someday");
        f.date("on", true, TODAY);
        f.error("on", "second");
        assertThat(f.errorOf("on")).contains("someday");
    }

    @Test
    void aTextTooLongIsToldWithItsLength() {
        Form f = form("name", "x".repeat(21));
        f.requiredText("name", 20);
        assertThat(f.errorOf("name")).isEqualTo("at most 20 characters, got 21");
        assertThat(f.raw("name")).hasSize(21);
    }

    @Test
    void nothingIsStoredWhileAnythingIsWrong() {
        Form f = form("name", "");
        f.requiredText("name", 20);
        assertThat(f.store(() -> {
                    throw new AssertionError("stored");
                }))
                .isEmpty();
    }

    @Test
    void aRefusalIsToldOnTheForm() {
        Form f = form("name", "Low");
        Optional<String> next = f.store(() -> {
            throw new IllegalArgumentException("there is a lamp “Low” already");
        });
        assertThat(next).isEmpty();
        assertThat(f.getProblem()).isEqualTo("there is a lamp “Low” already");
    }

    @Test
    void aLostUpdateShowsWhatDiffersAndTheNextSaveOverwrites() {
        Form f = form("name", "Low", "mass", "12 g", "version", "3");
        assertThat(f.getVersion()).isEqualTo(3);
        Form now = f.again().set("name", "Low").set("mass", "").version(4);
        assertThat(f.store(
                        () -> {
                            throw new LostUpdateException(4);
                        },
                        () -> now))
                .isEmpty();
        assertThat(f.storedOf("name")).isNull();
        assertThat(f.storedOf("mass")).isEqualTo("(empty)");
        assertThat(f.raw("mass")).isEqualTo("12 g");
        assertThat(f.getVersion()).isEqualTo(4);
    }

    @Test
    void aFormAgainHasTheSameFieldsAndNothingInThem() {
        Form again = form("name", "Low").again();
        assertThat(again.fields()).isEqualTo(blank().fields());
        assertThat(again.raw("name")).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"yes, true", "no, false"})
    void yesAndNo(String typed, boolean meant) {
        assertThat(form("kind", typed).yesNo("kind")).isEqualTo(meant);
        assertThat(form("kind", "").yesNo("kind")).isNull();
    }
}
