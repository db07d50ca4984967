package yarrek.core.pack;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import yarrek.core.pack.Retirement.Ends;
import yarrek.core.pack.Retirement.Limit;
import yarrek.core.pack.Retirement.OnFile;

class RetirementTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 6, 1);

    private static Trend line(double from, double perDay, int n) {
        return Trend.of(IntStream.range(0, n)
                        .mapToObj(i -> new Trend.Point(
                                TODAY.toEpochDay() - 30.0 * (n - 1 - i), from + perDay * 30 * i + 1e-4 * (i % 2)))
                        .toList())
                .orElseThrow();
    }

    @Test
    void theLimitReachedFirstSaysTheDayAndAllOfThemTheRange() {
        Retirement r = Retirement.of(
                new OnFile(
                        220,
                        List.of(10.0, 12.0, 8.0, 10.0),
                        line(0.9, -0.00015, 8),
                        null,
                        null,
                        TODAY.minusYears(1),
                        0),
                TODAY,
                Ends.HOUSE);
        assertThat(r.limits())
                .extracting(Retirement.Reached::limit)
                .containsExactly(Limit.CYCLES, Limit.HEALTH, Limit.AGE);
        // 180 cycles at 10 a month
        assertThat(r.first().orElseThrow().middle()).isEqualTo(LocalDate.of(2027, 11, 30));
        assertThat(r.early()).hasValueSatisfying(d -> assertThat(d).isBefore("2027-11-30"));
        assertThat(r.late()).hasValueSatisfying(d -> assertThat(d).isAfter("2027-11-30"));
        assertThat(r.words(TODAY))
                .startsWith("30 Nov 2027 (cycles), between ")
                .contains(", by what is known; not known: 4 measurements of its cells at rest");
        assertThat(r.missing()).hasSize(2).allMatch(m -> m.startsWith("4 ") && m.endsWith("are needed, 0 on file"));
    }

    @Test
    void aUseThatMayBeNoneLeavesTheLateEndOpen() {
        Retirement r = Retirement.of(new OnFile(390, List.of(0.0, 20.0), null, null, null, null, 0), TODAY, Ends.HOUSE);
        assertThat(r.first().orElseThrow().late()).isEmpty();
        assertThat(r.words(TODAY)).startsWith("1 Jul 2026 (cycles), not before ");
        assertThat(r.missing()).contains("when it was first used or bought");
    }

    @Test
    void whatIsReachedIsSaidSo() {
        Retirement cycles =
                Retirement.of(new OnFile(400, List.of(1.0, 1.0), null, null, null, null, 0), TODAY, Ends.HOUSE);
        assertThat(cycles.words(TODAY)).isEqualTo("reached on 1 Jun 2026 (cycles)");
        Retirement old =
                Retirement.of(new OnFile(0, List.of(), null, null, null, TODAY.minusYears(5), 0), TODAY, Ends.HOUSE);
        assertThat(old.words(TODAY)).isEqualTo("reached on 1 Jun 2026 (age)");
        Retirement weak =
                Retirement.of(new OnFile(0, List.of(), line(0.74, -0.0002, 6), null, null, null, 0), TODAY, Ends.HOUSE);
        assertThat(weak.first().orElseThrow().middle()).isBefore(TODAY);
    }

    @Test
    void aSpreadRisesToItsLimit() {
        Retirement r =
                Retirement.of(new OnFile(0, List.of(), null, line(0.020, 0.0001, 6), null, null, 0), TODAY, Ends.HOUSE);
        assertThat(r.first().orElseThrow().limit()).isEqualTo(Limit.SPREAD);
        assertThat(r.first().orElseThrow().middle()).isAfter(TODAY);
        Retirement never = Retirement.of(
                new OnFile(0, List.of(), null, line(0.020, -0.0001, 6), null, null, 0), TODAY, Ends.HOUSE);
        assertThat(never.limits()).isEmpty();
    }

    @Test
    void nothingKnownIsNotKnownAndFarAwayIsSaidSo() {
        Retirement r = Retirement.of(new OnFile(10, List.of(), null, null, null, null, 0), TODAY, Ends.HOUSE);
        assertThat(r.words(TODAY))
                .startsWith("not known: its use a month: 60 days of flights are needed; 4 measurements");
        Retirement far = Retirement.of(new OnFile(0, List.of(0.5, 0.5), null, null, null, null, 0), TODAY, Ends.HOUSE);
        assertThat(far.words(TODAY))
                .startsWith("not known: 4 measurements of its health are needed, 0 on file; ")
                .endsWith("; by what is known more than 5 years away");
        assertThat(new Retirement(far.limits(), List.of()).words(TODAY)).isEqualTo("more than 5 years away");
        Retirement idle = Retirement.of(new OnFile(0, List.of(0.0, 0.0), null, null, null, null, 0), TODAY, Ends.HOUSE);
        assertThat(idle.limits()).isEmpty();
    }
}
