package yarrek.core.approval;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.time.TimeWindow;

/** Papers against the day they are for. */
class CoverTest {
    private static final Position MIDDLE = new Position(46.6, -17.9);
    private static final TimeWindow DAY = window("2027-06-12T08:00:00Z", "2027-06-12T18:00:00Z");

    private static TimeWindow window(String from, String to) {
        return new TimeWindow(Instant.parse(from), Instant.parse(to));
    }

    private static Cover.Need need() {
        return new Cover.Need(
                window("2027-06-12T09:00:00Z", "2027-06-12T15:00:00Z"),
                Area.circle(MIDDLE, 300),
                OptionalDouble.of(90),
                "TI-0417",
                Set.of("Ailsa", "Tomas"),
                Optional.of("work"),
                Set.of("SP-12"));
    }

    private static Cover.Granted paper(Area area) {
        return new Cover.Granted(
                "A-1",
                Optional.of(DAY),
                Optional.of(area),
                OptionalDouble.of(90),
                Set.of("TI-0417", "TI-0418"),
                Set.of("Ailsa", "Tomas", "Hanne"),
                Optional.of("work"),
                Set.of("SP-12"));
    }

    private static Cover.Finding finding(List<Cover.Finding> all, Cover.Dimension d) {
        return all.stream().filter(f -> f.dimension() == d).findFirst().orElseThrow();
    }

    @Test
    void aPaperThatFitsCoversEveryDimensionAtItsVeryLimits() {
        assertThat(Cover.of(need(), paper(Area.circle(MIDDLE, 300)))).allMatch(f -> f.state() == Cover.State.COVERED);
        Cover.Need whole =
                new Cover.Need(DAY, need().area(), need().heightM(), "TI-0418", Set.of(), need().purpose(), Set.of());
        assertThat(Cover.of(whole, paper(Area.circle(MIDDLE, 400)))).allMatch(f -> f.state() == Cover.State.COVERED);
    }

    @Test
    void anOverhangIsMeasuredInMetresAndShare() {
        Area moved = Area.circle(Geodesy.destination(MIDDLE, 90, 60), 300);
        Cover.Overhang o = Cover.overhang(need().area(), moved).orElseThrow();
        assertThat(o.metres()).isCloseTo(60, within(0.5));
        // the two circles share 2r² acos(d/2r) - d/2 sqrt(4r² - d²)
        double shared = 2 * 300 * 300 * Math.acos(60 / 600.0) - 30 * Math.sqrt(4 * 300 * 300 - 60 * 60);
        assertThat(o.share()).isCloseTo(1 - shared / (Math.PI * 300 * 300), within(0.002));
        assertThat(finding(Cover.of(need(), paper(moved)), Cover.Dimension.AREA).words())
                .startsWith("60 m beyond its edge");
    }

    @ParameterizedTest
    @CsvSource({"TIME", "CEILING", "AIRCRAFT", "PILOTS", "PURPOSE", "QUOTED"})
    void whatIsMissingIsNamed(Cover.Dimension d) {
        Cover.Need n = new Cover.Need(
                d == Cover.Dimension.TIME ? window("2027-06-12T09:00:00Z", "2027-06-12T18:00:01Z") : need().window(),
                need().area(),
                d == Cover.Dimension.CEILING ? OptionalDouble.of(90.1) : need().heightM(),
                d == Cover.Dimension.AIRCRAFT ? "TI-0999" : need().aircraft(),
                d == Cover.Dimension.PILOTS ? Set.of("Ailsa", "Rufus") : need().pilots(),
                d == Cover.Dimension.PURPOSE ? Optional.of("recreation") : need().purpose(),
                d == Cover.Dimension.QUOTED ? Set.of("SP-12", "SP-13") : need().numbers());
        List<Cover.Finding> found = Cover.of(n, paper(Area.circle(MIDDLE, 300)));
        assertThat(found)
                .filteredOn(f -> f.state() != Cover.State.COVERED)
                .singleElement()
                .satisfies(f -> {
                    assertThat(f.dimension()).isEqualTo(d);
                    assertThat(f.state()).isEqualTo(Cover.State.MISSING);
                });
        String words = finding(found, d).words();
        assertThat(words).containsAnyOf("18:00", "0.1 m above", "TI-0999", "Rufus", "recreation", "SP-13");
    }

    @Test
    void whatThePaperDoesNotSayIsNotKnown() {
        Cover.Granted bare = new Cover.Granted(
                "A-2",
                Optional.empty(),
                Optional.empty(),
                OptionalDouble.empty(),
                Set.of(),
                Set.of(),
                Optional.empty(),
                Set.of("SP-12"));
        assertThat(Cover.of(need(), bare))
                .filteredOn(f -> f.dimension() != Cover.Dimension.QUOTED)
                .allMatch(f -> f.state() == Cover.State.NOT_KNOWN);
    }

    @ParameterizedTest(name = "{0} m apart within 25 m: {1}")
    @CsvSource({"0, true", "24, true", "26, false"})
    void anUnlockEqualsItsApprovalWithinTheTolerance(double metres, boolean equal) {
        Cover.Granted approval = paper(Area.circle(MIDDLE, 300));
        Cover.Granted unlock = paper(Area.circle(Geodesy.destination(MIDDLE, 45, metres), 300));
        assertThat(finding(Cover.equal(unlock, approval, 0, 25), Cover.Dimension.AREA)
                                .state()
                        == Cover.State.COVERED)
                .isEqualTo(equal);
    }

    @Test
    void anUnlockThatIsLargerOrOfAnotherDayDoesNotEqualIt() {
        Cover.Granted approval = paper(Area.circle(MIDDLE, 300));
        assertThat(finding(Cover.equal(paper(Area.circle(MIDDLE, 360)), approval, 0, 25), Cover.Dimension.AREA)
                        .words())
                .contains("differ by up to 60 m");
        Cover.Granted late = new Cover.Granted(
                "U",
                Optional.of(window("2027-06-13T08:00:00Z", "2027-06-13T18:00:00Z")),
                approval.area(),
                OptionalDouble.empty(),
                Set.of(),
                Set.of(),
                Optional.empty(),
                Set.of());
        assertThat(finding(Cover.equal(late, approval, 0, 25), Cover.Dimension.TIME)
                        .state())
                .isEqualTo(Cover.State.MISSING);
        assertThat(finding(Cover.equal(late, approval, 1, 25), Cover.Dimension.TIME)
                        .state())
                .isEqualTo(Cover.State.COVERED);
    }

    private static Cover.Granted request(TimeWindow w, double radius, double height, Set<String> quotes) {
        return new Cover.Granted(
                "request",
                Optional.of(w),
                Optional.of(Area.circle(MIDDLE, radius)),
                OptionalDouble.of(height),
                Set.of("TI-0417"),
                Set.of("Ailsa"),
                Optional.of("work"),
                quotes);
    }

    @Test
    void anUnlockRequestThatEqualsItsApprovalFitsInEveryField() {
        assertThat(Cover.compare(request(DAY, 300, 90, Set.of("A-1")), paper(Area.circle(MIDDLE, 300)), 0, 25))
                .hasSize(6)
                .allMatch(Cover.Line::fits);
    }

    /** Refused for each: a day too long, an area 40 m wider, 10 m higher, a number not quoted. */
    @Test
    void everyMismatchIsShownBesideWhatWasGranted() {
        var lines = Cover.compare(
                request(window("2027-06-12T08:00:00Z", "2027-06-13T18:00:00Z"), 340, 100, Set.of()),
                paper(Area.circle(MIDDLE, 300)),
                0,
                25);
        assertThat(lines.stream().filter(l -> !l.fits()).map(Cover.Line::field))
                .containsExactly("Dates and times", "Place and area", "Height above ground", "Approval's number");
        assertThat(lines.get(2).words()).isEqualTo("asks for 10 m more than is granted");
        assertThat(lines.get(5).words()).isEqualTo("does not quote A-1");
    }

    @Test
    void aFieldThatOneOfTheTwoDoesNotSayIsNotKnownAndNeverFits() {
        Cover.Granted silent = new Cover.Granted(
                "A-1",
                Optional.empty(),
                Optional.empty(),
                OptionalDouble.empty(),
                Set.of(),
                Set.of(),
                Optional.empty(),
                Set.of());
        assertThat(Cover.compare(request(DAY, 300, 90, Set.of("A-1")), silent, 0, 25))
                .filteredOn(l -> l.state() == Cover.State.NOT_KNOWN)
                .hasSize(5);
    }

    @Test
    void papersThatContradictEachOtherAreNamed() {
        Cover.Granted one = paper(Area.circle(MIDDLE, 300));
        Position far = new Position(46.7, -17.9);
        Cover.Granted other = new Cover.Granted(
                "B-2",
                Optional.of(window("2027-06-14T08:00:00Z", "2027-06-14T18:00:00Z")),
                Optional.of(Area.circle(far, 300)),
                OptionalDouble.of(60),
                Set.of("TI-0999"),
                Set.of("Ailsa"),
                Optional.of("work"),
                Set.of());
        assertThat(Cover.contradictions(List.of(one, other)))
                .hasSize(4)
                .anyMatch(c -> c.contains("no hour is in both"))
                .anyMatch(c -> c.endsWith("no ground is in both"))
                .anyMatch(c -> c.endsWith("no aircraft is on both"))
                .anyMatch(c -> c.endsWith("90 m and 60 m; the lower holds"));
        assertThat(Cover.contradictions(List.of(one, one))).isEmpty();
    }

    /** Granted from 8 to 18 h UTC. */
    @ParameterizedTest
    @CsvSource({
        "08:00, 18:00, 0",
        "09:00, 10:00, 0",
        "07:30, 09:00, 30",
        "17:00, 18:45, 45",
        "07:00, 19:00, 120",
        "05:00, 06:00, 60",
        "19:00, 20:30, 90"
    })
    void minutesOutsideAreThoseFlownOutsideAndNeverMoreThanFlown(String from, String to, double minutes) {
        TimeWindow flown = window("2027-06-12T" + from + ":00Z", "2027-06-12T" + to + ":00Z");
        assertThat(Cover.minutesOutside(flown, DAY)).isEqualTo(minutes);
    }

    @Test
    void aListThatSaysNothingLeavesItOpenWhetherSomebodyIsNamed() {
        assertThat(Cover.allName("Ailsa", List.of(List.of("Ailsa", "Hanne"), List.of("Ailsa"))))
                .contains(true);
        assertThat(Cover.allName("Ailsa", List.of(List.of("Ailsa"), List.of()))).isEmpty();
        assertThat(Cover.allName("Ailsa", List.of(List.of(), List.of("Hanne")))).contains(false);
        assertThat(Cover.allName("Ailsa", List.of())).contains(true);
    }
}
