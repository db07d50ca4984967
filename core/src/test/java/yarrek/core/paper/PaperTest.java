package yarrek.core.paper;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/** States and act-by dates, on the last day and around it. */
class PaperTest {
    private static final ZoneId HOME = ZoneId.of("Atlantic/Azores");
    private static final LocalDate END = LocalDate.of(2027, 3, 14);

    private static Paper paper(LocalDate from, LocalDate to, boolean endKnown, int lead) {
        return new Paper(
                "id",
                "pilotCertificate",
                Optional.of("A2"),
                "N-1",
                "pilot",
                "p",
                new Validity(Optional.ofNullable(from), Optional.ofNullable(to), HOME),
                endKnown,
                lead);
    }

    private static Instant at(String local) {
        return java.time.LocalDateTime.parse(local).atZone(HOME).toInstant();
    }

    /** Act by = 14 March less 20 days lead less 14 days margin = 8 February; the 30 days before the end begin on 12 February. */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "2026-12-31T23:59:59, NOT_YET_VALID",
        "2027-01-01T00:00:00, IN_FORCE",
        "2027-02-07T23:59:59, IN_FORCE",
        "2027-02-08T00:00:00, ACT_SOON",
        "2027-03-14T23:59:59, ACT_SOON",
        "2027-03-15T00:00:00, RUN_OUT"
    })
    void stateFollowsTheDay(String now, PaperState state) {
        assertThat(paper(LocalDate.of(2027, 1, 1), END, true, 20).state(at(now), List.of()))
                .isEqualTo(state);
    }

    @Test
    void actByIsEndLessLeadLessMargin() {
        assertThat(paper(null, END, true, 20).actBy()).contains(LocalDate.of(2027, 2, 8));
    }

    @Test
    void aShortLeadStillWarnsThirtyDaysAhead() {
        Paper p = paper(null, END, true, 0);
        assertThat(p.state(at("2027-02-11T12:00:00"), List.of())).isEqualTo(PaperState.IN_FORCE);
        assertThat(p.state(at("2027-02-12T12:00:00"), List.of())).isEqualTo(PaperState.ACT_SOON);
    }

    @Test
    void aJobBeyondTheEndIsAGap() {
        TimeWindow within = new TimeWindow(at("2027-03-14T23:00:00"), at("2027-03-14T23:30:00"));
        TimeWindow beyond = new TimeWindow(at("2027-03-14T23:00:00"), at("2027-03-15T00:10:00"));
        Paper p = paper(null, END, true, 0);
        assertThat(p.state(at("2027-01-01T12:00:00"), List.of(within))).isEqualTo(PaperState.IN_FORCE);
        assertThat(p.state(at("2027-01-01T12:00:00"), List.of(beyond))).isEqualTo(PaperState.GAP);
    }

    @Test
    void anEndNobodyKnowsIsNotKnownAndAnOpenEndIsInForce() {
        assertThat(paper(null, null, false, 0).state(at("2027-01-01T12:00:00"), List.of()))
                .isEqualTo(PaperState.UNKNOWN);
        assertThat(paper(null, null, true, 0).state(at("2027-01-01T12:00:00"), List.of()))
                .isEqualTo(PaperState.IN_FORCE);
    }

    @Test
    void anEndBeforeTheStartIsRefused() {
        assertThatThrownBy(() -> paper(END, END.minusDays(1), true, 0))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("valid to 2027-03-13 is before valid from 2027-03-14");
    }

    /** Clocks in this zone go forward on 28 March 2027 at 00:00: that day has no midnight, and lasts 23 hours. */
    @Test
    void aDayWithoutAMidnightStillBeginsAndEnds() {
        Validity day = Validity.between(LocalDate.of(2027, 3, 28), LocalDate.of(2027, 3, 28), HOME);
        Instant start = day.start().orElseThrow();
        assertThat(java.time.Duration.between(start, day.endExclusive().orElseThrow())
                        .toHours())
                .isEqualTo(23);
        assertThat(day.holdsAt(start)).isTrue();
        assertThat(day.holdsAt(day.endExclusive().orElseThrow())).isFalse();
    }

    /** Thousands of jobs draw no more strands than there are places for them, and each says how many it stands for. */
    @Test
    void jobsUponOneAnotherAreOneStrandAndOneKnot() {
        Weave.Need need = new Weave.Need("p", "pilotCertificate", Set.of("A2"), "R");
        List<Weave.JobSpan> jobs = new java.util.ArrayList<>();
        for (int i = 0; i < 3000; i++) {
            TimeWindow day = new TimeWindow(
                    at("2027-03-%02dT10:00:00".formatted(1 + i % 30)),
                    at("2027-03-%02dT12:00:00".formatted(1 + i % 30)));
            jobs.add(new Weave.JobSpan("j" + i, "Job " + i, List.of(day), List.of(need)));
        }
        Weave weave = Weave.lay(
                LocalDate.of(2027, 3, 1),
                LocalDate.of(2027, 3, 31),
                at("2027-02-05T12:00:00"),
                HOME,
                List.of(new Weave.RowInput(
                        "p", "Pilot", "pilotCertificate", "certificate A2", Optional.of("A2"), List.of(), List.of())),
                jobs);
        assertThat(weave.strands()).hasSize(30);
        assertThat(weave.strands().get(0).name()).isEqualTo("100 jobs, the first Job 0");
        assertThat(weave.rows().get(0).knots()).hasSize(30);
        assertThat(weave.rows().get(0).knots().get(0).says()).endsWith("in force for Job 0 and 99 more");
        assertThat(weave.rows().get(0).gap()).contains(new Weave.Gap(0, 1, "Pilot, certificate A2: none in force"));
    }

    @Test
    void aStrandWithoutAPaperInForceMakesAKnot() {
        Paper a2 = paper(LocalDate.of(2022, 3, 15), END, true, 0);
        TimeWindow before = new TimeWindow(at("2027-03-10T10:00:00"), at("2027-03-10T12:00:00"));
        TimeWindow after = new TimeWindow(at("2027-03-16T10:00:00"), at("2027-03-16T12:00:00"));
        Weave.Need need = new Weave.Need("p", "pilotCertificate", Set.of("A2"), "R");
        Weave weave = Weave.lay(
                LocalDate.of(2027, 3, 1),
                LocalDate.of(2027, 3, 31),
                at("2027-03-05T12:00:00"),
                HOME,
                List.of(new Weave.RowInput(
                        "p",
                        "Pilot",
                        "pilotCertificate",
                        "certificate A2",
                        Optional.of("A2"),
                        List.of(a2),
                        List.of(a2))),
                List.of(new Weave.JobSpan("j", "Job", List.of(before, after), List.of(need))));
        assertThat(weave.strands()).hasSize(2);
        assertThat(weave.rows().get(0).knots()).hasSize(1);
        assertThat(weave.rows().get(0).knots().get(0).at()).isBetween(15.0 / 31, 16.0 / 31);
        assertThat(weave.rows().get(0).worst()).isEqualTo(PaperState.GAP);
        assertThat(weave.rows().get(0).bars().get(0).start()).isZero();
        assertThat(weave.rows().get(0).bars().get(0).end())
                .isCloseTo(14.0 / 31, org.assertj.core.api.Assertions.within(0.002));
    }

    private static Optional<Weave.Gap> gap(String now, Paper... papers) {
        return Weave.lay(
                        LocalDate.of(2027, 3, 1),
                        LocalDate.of(2027, 3, 31),
                        at(now),
                        HOME,
                        List.of(new Weave.RowInput(
                                "p",
                                "Pilot",
                                "medical",
                                "medical",
                                Optional.empty(),
                                List.of(papers),
                                List.of(papers))),
                        List.of())
                .rows()
                .get(0)
                .gap();
    }

    @Test
    void fromTheEndOfOnePaperToTheBeginOfTheNextIsAGap() {
        Paper old = paper(LocalDate.of(2022, 3, 15), END, true, 0);
        Paper next = paper(LocalDate.of(2027, 3, 21), LocalDate.of(2029, 3, 21), true, 0);
        assertThat(gap("2027-03-14T23:59:59", old)).isEmpty();
        Weave.Gap open = gap("2027-03-16T12:00:00", old).orElseThrow();
        assertThat(open.end()).isEqualTo(1);
        assertThat(open.says()).isEqualTo("Pilot, medical: none in force since 15 Mar 2027");
        Weave.Gap closed = gap("2027-03-16T12:00:00", old, next).orElseThrow();
        assertThat(closed.start()).isEqualTo(open.start());
        assertThat(closed.end()).isCloseTo(20.0 / 31, org.assertj.core.api.Assertions.within(0.002));
        assertThat(closed.says()).endsWith("the next from 21 Mar 2027");
    }

    /** A paper whose end is not known may hold: no gap is claimed. */
    @Test
    void whatMayHoldIsNoGap() {
        assertThat(gap("2027-03-16T12:00:00", paper(LocalDate.of(2022, 3, 15), null, false, 0)))
                .isEmpty();
    }

    @Test
    void midnightOfTheLastDayIsStillCovered() {
        Instant lastSecond = ZonedDateTime.of(2027, 3, 14, 23, 59, 59, 0, HOME).toInstant();
        assertThat(Validity.between(END, END, HOME).holdsAt(lastSecond)).isTrue();
        assertThat(Validity.between(END, END, HOME).holdsAt(lastSecond.plusSeconds(1)))
                .isFalse();
    }
}
