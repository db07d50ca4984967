package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;

import de.focus_shift.jollyday.core.Holiday;
import de.focus_shift.jollyday.core.HolidayManager;
import de.focus_shift.jollyday.core.ManagerParameters;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Year;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import yarrek.core.approval.Holidays;

/** The lists of holidays that ship. */
class ShippedHolidaysTest {
    private static final Map<String, String> SHIPPED =
            ApprovalKindReader.shipped().holidays();

    /** Where lists that ship and the library differ on weekdays, and why that is meant. */
    private static final Map<String, Set<String>> MEANT = Map.of(
            // 5 USC 6103 and Executive Order 11582; the library leaves out New Year observed the year before
            "US", Set.of("+second Monday of October", "+New Year, observed", "-New Year's Day"),
            // days of federal offices, in lieu where they fall on a weekend; the library has those of every province
            // only
            "CA",
                    Set.of(
                            "+Easter Monday",
                            "+Victoria Day",
                            "+civic holiday",
                            "+Truth and Reconciliation",
                            "+in lieu of Truth and Reconciliation",
                            "+Thanksgiving",
                            "+Remembrance Day",
                            "+in lieu of Remembrance Day",
                            "+Boxing Day",
                            "+in lieu of Boxing Day",
                            "+in lieu of Christmas",
                            "+in lieu of New Year",
                            "+in lieu of Canada Day"),
            // most states, not all
            "AU", Set.of("+King's Birthday", "+in lieu of Anzac Day"),
            // England keeps both; the library's list is that of every part
            "GB", Set.of("+Easter Monday", "+summer"),
            // Organisation of Working Time Act 1997: another day off, which offices keep on the next weekday
            "EU-IE",
                    Set.of(
                            "+in lieu of Saint Stephen",
                            "+in lieu of Christmas",
                            "+in lieu of New Year",
                            "+in lieu of Saint Patrick"),
            // kept by banks or in part; the remark of the list says so where offices close
            "EU-AT", Set.of("-Christmas Eve", "-New Year's Eve"),
            "EU-BE", Set.of("-All Souls", "-King's Feast", "-New Year's Eve"),
            "EU-CH", Set.of("-St. Berchtholds day"),
            "EU-PT", Set.of("-Carnival"));

    static Set<String> places() {
        return SHIPPED.keySet().stream().filter(p -> !p.equals("EU")).collect(Collectors.toCollection(TreeSet::new));
    }

    /** Against a library that has them from elsewhere: no other weekday differs in seven years. */
    @ParameterizedTest
    @MethodSource("places")
    void aLibraryHasTheSameWeekdays(String place) {
        HolidayManager library = HolidayManager.getInstance(
                ManagerParameters.create(place.replace("EU-", "").toLowerCase(Locale.ROOT)));
        Set<String> differ = new TreeSet<>();
        for (int year = 2026; year <= 2032; year++) {
            Map<LocalDate, String> ours = Holidays.days(SHIPPED.get(place), year, year);
            Map<LocalDate, String> theirs = library.getHolidays(Year.of(year)).stream()
                    .collect(Collectors.toMap(Holiday::getDate, Holiday::getDescription, (a, b) -> a, TreeMap::new));
            only(ours, theirs).forEach(n -> differ.add("+" + n));
            only(theirs, ours).forEach(n -> differ.add("-" + n));
        }
        assertThat(differ).isEqualTo(new TreeSet<>(MEANT.getOrDefault(place, Set.of())));
    }

    private static Set<String> only(Map<LocalDate, String> here, Map<LocalDate, String> there) {
        return here.entrySet().stream()
                .filter(e ->
                        e.getKey().getDayOfWeek().compareTo(DayOfWeek.FRIDAY) <= 0 && !there.containsKey(e.getKey()))
                .map(Map.Entry::getValue)
                .collect(Collectors.toSet());
    }

    /** Days on which an application would have been thought to be read. */
    @ParameterizedTest
    @CsvSource({
        "GB, 2026, 12-28",
        "GB, 2027, 12-27 12-28",
        "GB, 2028, 01-03",
        "US, 2026, 07-03",
        "US, 2027, 07-05 12-24 12-31",
        "CA, 2026, 05-18 09-30 12-28",
        "NZ, 2026, 06-01 07-10 04-27",
        "AU, 2026, 06-08",
        "EU-IE, 2030, 02-01",
        "EU-NL, 2031, 04-26",
        "EU-FI, 2027, 06-25 06-26 11-06",
        "EU-SE, 2027, 06-25 06-26 11-06",
        "EU-IT, 2026, 10-04"
    })
    void movedDaysAreThere(String place, int year, String days) {
        assertThat(Holidays.of(SHIPPED.get(place), year, year))
                .containsAll(Arrays.stream(days.split(" "))
                        .map(d -> LocalDate.parse(year + "-" + d))
                        .toList());
    }

    @Test
    void aListThatLeavesSomethingOutSaysSo() {
        assertThat(Set.of("EU", "GB", "CA", "US", "AU", "NZ", "EU-DE", "EU-CH", "EU-ES", "EU-PT", "EU-FR"))
                .allSatisfy(p -> assertThat(Holidays.remark(SHIPPED.get(p))).isNotEmpty());
    }
}
