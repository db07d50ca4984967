package yarrek.app.chains;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.util.LinkedMultiValueMap;
import yarrek.app.forms.Form;
import yarrek.core.approval.ChainPlan;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Lead;
import yarrek.core.approval.Step;
import yarrek.core.approval.Terms;
import yarrek.core.approval.WorkDays;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.time.TimeWindow;

/** Terms as typed, around clock changes, and what a paper leaves open. */
class TermsFormTest {
    private static final ZoneId AZORES = ZoneId.of("Atlantic/Azores");
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final TimeWindow DAY =
            new TimeWindow(Instant.parse("2027-06-12T09:00:00Z"), Instant.parse("2027-06-12T15:00:00Z"));
    private static final Cover.Need NEED = new Cover.Need(
            DAY,
            Area.circle(new Position(46.6, -17.9), 300),
            OptionalDouble.of(60),
            "S-1",
            Set.of("Ailsa"),
            Optional.of("work"),
            Set.of());

    private static Form typed(String day, String time) {
        LinkedMultiValueMap<String, String> p = new LinkedMultiValueMap<>();
        p.add("fromDay", day);
        p.add("fromTime", time);
        return TermsForm.of("t", "/a", "/b", true, Map.of(), List.of(), Map.of())
                .bind(p);
    }

    /** In the Azores the clocks go on an hour on 28 March 2027 at 0:00 and back on 31 October 2027 at 1:00. */
    @ParameterizedTest
    @CsvSource({
        "12 Jun 2027, 8:00, 2027-06-12T08:00:00Z",
        "12 Jan 2027, 8:00, 2027-01-12T09:00:00Z",
        "12 Jan 2027, 8:00 UTC, 2027-01-12T08:00:00Z",
        "31 Oct 2027, 00:30 utc, 2027-10-31T00:30:00Z",
        "28 Mar 2027, 1:00, 2027-03-28T01:00:00Z"
    })
    void localTimesAndTimesInUtcMeanOneInstant(String day, String time, Instant at) {
        Form f = typed(day, time);
        assertThat(TermsForm.instant(f, "from", AZORES, TODAY)).isEqualTo(at);
        assertThat(f.hasErrors()).isFalse();
    }

    @ParameterizedTest
    @CsvSource({"28 Mar 2027, 0:30, does not exist", "31 Oct 2027, 0:30, comes twice"})
    void aTimeThatTheClocksSkipOrRepeatHasToBeTypedInUtc(String day, String time, String says) {
        Form f = typed(day, time);
        assertThat(TermsForm.instant(f, "from", AZORES, TODAY)).isNull();
        assertThat(f.errorOf("fromTime")).contains(says).contains("01:30 UTC");
    }

    @Test
    void anInstantInTheRepeatedHourIsShownInUtcAndReadBackTheSame() {
        Instant twice = Instant.parse("2027-10-31T00:30:00Z");
        Terms t = new Terms(twice, null, "", null, "", List.of(), List.of(), "", List.of(), Set.of());
        Form shown = TermsForm.fill(TermsForm.of("t", "/a", "/b", true, Map.of(), List.of(), Map.of()), t, AZORES);
        assertThat(shown.raw("fromTime")).endsWith("UTC");
        assertThat(TermsForm.instant(typed(shown.raw("fromDay"), shown.raw("fromTime")), "from", AZORES, TODAY))
                .isEqualTo(twice);
    }

    @ParameterizedTest
    @CsvSource({"'', 8:00, fromDay", "12 Jun 2027, '', fromTime", "12 Jun 2027, noonish, fromTime"})
    void halfATimeIsAnError(String day, String time, String field) {
        Form f = typed(day, time);
        assertThat(TermsForm.instant(f, "from", AZORES, TODAY)).isNull();
        assertThat(f.errorOf(field)).isNotBlank();
    }

    @Test
    void whatAPaperLeavesOpenIsCoveredAndWhatItDoesNotSayIsNot() {
        Terms silent = new Terms(null, null, "", null, "", List.of(), List.of(), "", List.of(), Set.of());
        assertThat(Cover.of(NEED, silent.granted("A", NEED, silent.drawnArea())))
                .filteredOn(f -> f.state() == Cover.State.NOT_KNOWN)
                .hasSize(6);
        Terms open = new Terms(
                null, null, "", null, "", List.of(), List.of(), "", List.of(), Set.of(Cover.Dimension.values()));
        assertThat(Cover.of(NEED, open.granted("A", NEED, open.drawnArea())))
                .allMatch(f -> f.state() == Cover.State.COVERED);
    }

    @Test
    void hoursOfTheWeekCoverOnlyTheHoursTheyName() {
        Terms weekdays = new Terms(
                null,
                null,
                "",
                null,
                "",
                List.of(),
                List.of(),
                "",
                List.of(),
                Set.of(Cover.Dimension.values()),
                null,
                List.of(),
                "mon-sun 00:00-00:01");
        Cover.Overhangs none = new Cover.Overhangs();
        assertThat(weekdays.cover("A", NEED, weekdays.drawnArea(), none, AZORES))
                .filteredOn(f -> f.dimension() == Cover.Dimension.TIME)
                .singleElement()
                .satisfies(f -> {
                    assertThat(f.state()).isEqualTo(Cover.State.MISSING);
                    assertThat(f.words()).contains("outside its hours of the week");
                });
    }

    // --- the drawing -------------------------------------------------------------------------------------------------

    private static ChainDrawing drawn(LocalDate today) {
        LocalDate job = LocalDate.of(2027, 3, 1);
        WorkDays calendar = new WorkDays(Set.of());
        ChainPlan plan = ChainPlan.of(
                List.of(
                        Step.open("a", "a", Set.of(), 12, Lead.ofDays(20), job),
                        Step.open(
                                "b",
                                "a long name of a step, of which the end tells it apart, 2 of 3",
                                Set.of("a"),
                                2,
                                Lead.ofDays(5),
                                job)),
                new ChainPlan.Settings(today, calendar, 6, 3));
        return ChainDrawing.of(plan, calendar, today, job, job);
    }

    @Test
    void barsFollowTimeFromLeftToRightAndStayOnTheSheet() {
        for (LocalDate today : List.of(LocalDate.of(2026, 11, 25), LocalDate.of(2027, 2, 20))) {
            ChainDrawing d = drawn(today);
            for (ChainDrawing.Bar b : d.bars()) {
                assertThat(b.start()).isLessThanOrEqualTo(b.send());
                assertThat(b.send()).isLessThanOrEqualTo(b.usual());
                assertThat(b.usual()).isLessThanOrEqualTo(b.worst());
                assertThat(b.worst()).isLessThanOrEqualTo(b.slackTo()).isBetween(0.0, d.width());
            }
            assertThat(d.today()).isLessThan(d.jobFrom());
            assertThat(d.links()).hasSize(1);
        }
    }

    @Test
    void aLongNameKeepsWhichOfSeveralItIs() {
        assertThat(drawn(LocalDate.of(2026, 11, 25)).bars().get(1).title())
                .hasSizeLessThanOrEqualTo(46)
                .endsWith("2 of 3");
    }
}
