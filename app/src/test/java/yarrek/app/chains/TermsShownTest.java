package yarrek.app.chains;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import yarrek.app.page.Show;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;

class TermsShownTest {
    private static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    private static final Instant FROM = Instant.parse("2027-03-14T09:00:00Z");
    private static final Instant TO = Instant.parse("2027-03-14T12:00:00Z");
    private static final String NORTH = "circle 46.61, -17.89 radius 200 m";

    private static Terms terms(
            String area, String ceiling, List<String> aircraft, Set<Cover.Dimension> open, String weekly) {
        return new Terms(
                FROM,
                TO,
                area,
                60.0,
                ceiling,
                aircraft,
                List.of("Hanne Loxby"),
                "work",
                List.of("A-1"),
                open,
                null,
                List.of(),
                weekly);
    }

    private static Map<String, TermsShown> shown(Terms asked, Terms granted) {
        return TermsShown.of("TAR-1", asked, granted, !granted.equals(Terms.NONE), ZONE, new Show()).stream()
                .collect(Collectors.toMap(TermsShown::name, Function.identity()));
    }

    private final Terms asked = terms(NORTH, "60 m above ground", List.of("SN-1", "SN-2"), Set.of(), "");

    @Test
    void whileNothingIsGrantedNothingDiffers() {
        assertThat(shown(asked, Terms.NONE).values()).allSatisfy(t -> {
            assertThat(t.differs()).isFalse();
            assertThat(t.granted()).isIn("", "TAR-1");
        });
        assertThat(shown(asked, Terms.NONE).get("Ceiling").asked()).isEqualTo("60 m above ground");
    }

    @Test
    void whatIsGrantedAsAskedDoesNotDiffer() {
        assertThat(shown(asked, asked).values()).noneMatch(TermsShown::differs);
    }

    @Test
    void aLowerCeilingAnotherPlaceAndHoursOfTheWeekDiffer() {
        Map<String, TermsShown> t = shown(
                asked,
                terms(
                        "circle 46.63, -17.89 radius 200 m",
                        "50 m above ground",
                        List.of("SN-1", "SN-2"),
                        Set.of(),
                        "mon-fri 08:00-18:00"));
        assertThat(t.get("Ceiling").differs()).isTrue();
        // as far across, somewhere else
        assertThat(t.get("Area").granted()).isEqualTo(t.get("Area").asked());
        assertThat(t.get("Area").differs()).isTrue();
        assertThat(t.get("Hours of the week"))
                .isEqualTo(new TermsShown("Hours of the week", "all hours", "mon-fri 08:00-18:00", true));
        assertThat(t.get("From").differs()).isFalse();
    }

    @Test
    void anAircraftThatIsNotNamedDiffersAndOneMoreDoesNot() {
        Terms fewer = terms(NORTH, "60 m above ground", List.of("SN-1"), Set.of(), "");
        assertThat(shown(asked, fewer).get("Aircraft").differs()).isTrue();
        Terms more = terms(NORTH, "60 m above ground", List.of("SN-3", "SN-2", "SN-1"), Set.of(), "");
        assertThat(shown(asked, more).get("Aircraft").differs()).isFalse();
    }

    @Test
    void whatIsExpresslyLeftOpenSaysSo() {
        Terms open = terms(
                "", "", List.of(), Set.of(Cover.Dimension.AREA, Cover.Dimension.CEILING, Cover.Dimension.AIRCRAFT), "");
        Map<String, TermsShown> t = shown(asked, open);
        assertThat(t.get("Area")).isEqualTo(new TermsShown("Area", t.get("Area").asked(), "left open", false));
        assertThat(t.get("Ceiling").differs()).isFalse();
        assertThat(t.get("Aircraft").granted()).isEqualTo("any");
    }

    /** Silence of a letter is not the same as leaving open. */
    @Test
    void whatIsNotSaidDiffers() {
        Map<String, TermsShown> t = shown(asked, terms("", "", List.of(), Set.of(), ""));
        assertThat(t.get("Area").granted()).isEqualTo("not said");
        assertThat(List.of("Area", "Ceiling", "Aircraft"))
                .allSatisfy(n -> assertThat(t.get(n).differs()).isTrue());
    }
}
