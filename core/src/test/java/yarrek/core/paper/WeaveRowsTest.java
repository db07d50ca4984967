package yarrek.core.paper;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/** The lines of the weave: one for each kind and level held, and one for what is needed and not held. */
class WeaveRowsTest {
    private static Paper paper(String kind, String level) {
        return new Paper(
                kind + level,
                kind,
                Optional.ofNullable(level),
                "N",
                "pilot",
                "p",
                Validity.between(LocalDate.of(2027, 1, 1), LocalDate.of(2027, 12, 31), ZoneOffset.UTC),
                true,
                0);
    }

    private static Weave.JobSpan job(String holder, String kind, String... levels) {
        return new Weave.JobSpan(
                "j",
                "Job",
                List.of(new TimeWindow(Instant.parse("2027-06-12T10:00:00Z"), Instant.parse("2027-06-12T11:00:00Z"))),
                List.of(new Weave.Need(holder, kind, Set.of(levels), "R")));
    }

    private static List<Weave.RowInput> rows(List<Paper> held, Weave.JobSpan... jobs) {
        return Weave.rows(List.of(new Weave.Holding("p", "Hanne", held)), Map.of("cert", "certificate"), List.of(jobs));
    }

    @Test
    void aLineForEachKindAndLevelWithItsName() {
        List<Weave.RowInput> rows = rows(List.of(paper("cert", "A1"), paper("cert", "A2"), paper("medical", null)));
        assertThat(rows)
                .extracting(Weave.RowInput::kindName)
                .containsExactly("certificate A1", "certificate A2", "medical");
        assertThat(rows.get(0).allOfKind()).hasSize(2);
        assertThat(rows.get(2).level()).isEmpty();
    }

    @Test
    void whatIsNeededAndNotHeldHasALineOfItsOwn() {
        assertThat(rows(List.of(), job("p", "cert", "A2")))
                .singleElement()
                .matches(
                        r -> r.kindName().equals("certificate A2") && r.papers().isEmpty());
        // either of two levels would do, so it stands for none of them
        assertThat(rows(List.of(), job("p", "cert", "A2", "A3")))
                .singleElement()
                .matches(r -> r.level().isEmpty());
    }

    @Test
    void whatIsNeededAndHeldInALevelThatWillDoHasNone() {
        assertThat(rows(List.of(paper("cert", "A2")), job("p", "cert", "A2", "A3")))
                .hasSize(1);
        assertThat(rows(List.of(paper("cert", "A2")), job("p", "cert"))).hasSize(1);
        assertThat(rows(List.of(paper("cert", "A1")), job("p", "cert", "A2"))).hasSize(2);
    }

    @Test
    void theNeedsOfOthersMakeNoLine() {
        assertThat(rows(List.of(), job("somebody else", "cert", "A2"))).isEmpty();
    }
}
