package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/** What follows from papers in force, by what their kind says it means. */
class PaperKindsTest {
    private static final LocalDate DAY = LocalDate.of(2026, 12, 4);
    private static final List<TimeWindow> HOURS =
            List.of(new TimeWindow(Instant.parse("2026-12-04T10:00:00Z"), Instant.parse("2026-12-04T12:00:00Z")));
    private static final Map<String, String> KNOWN = Map.of("aircraft", "Kite");

    private static PaperHeld paper(String kind, String role, String level, String where, LocalDate from, LocalDate to) {
        return new PaperHeld(
                kind, Optional.ofNullable(level), role, "N-1", where, Validity.between(from, to, ZoneOffset.UTC), true);
    }

    private static Facts settled(PaperKinds kinds, Map<String, String> holders, PaperHeld... held) {
        Facts.Builder b = Facts.builder(ZoneOffset.UTC);
        kinds.settle(b, List.of(held), HOURS, "EU", holders);
        return b.build();
    }

    private static Optional<Boolean> yesNo(Facts f, String fact) {
        return f.get(fact).map(k -> ((FactValue.YesNo) k.value()).value());
    }

    @ParameterizedTest(name = "{0} from {1} through {2}, counting in {3}")
    @CsvSource(nullValues = "-", textBlock = """
            markOnAircraft,           2026-01-01, 2026-12-04, '',  true
            markOnAircraft,           2026-12-04, 2026-12-04, '',  true
            markOnAircraft,           2026-01-01, 2026-12-03, '',  false
            markOnAircraft,           2026-12-05, 2027-01-01, '',  false
            markOnAircraft,           2026-01-01, 2027-01-01, US,  false
            airworthinessCertificate, 2026-01-01, 2026-12-04, EU,  true
            airworthinessCertificate, 2026-01-01, 2026-12-03, EU,  -
            airworthinessCertificate, 2026-01-01, 2027-01-01, US,  -
            """)
    void oneInForceIsYesAndNoneIsNoOnlyWhereTheKindSaysSo(
            String kind, LocalDate from, LocalDate to, String where, Boolean settles) {
        Facts f = settled(SomePapers.KINDS, KNOWN, paper(kind, "aircraft", null, where, from, to));
        String fact = kind.equals("markOnAircraft") ? "marked" : kind;
        assertThat(yesNo(f, fact)).isEqualTo(Optional.ofNullable(settles));
    }

    /** A paper of which nobody has said when it ends is neither in force for certain nor missing. */
    @Test
    void anEndThatIsNotKnownSettlesNothing() {
        for (String fact : List.of("marked", "airworthinessCertificate")) {
            String kind = fact.equals("marked") ? "markOnAircraft" : fact;
            PaperHeld open = new PaperHeld(
                    kind,
                    Optional.empty(),
                    "aircraft",
                    "N-1",
                    "",
                    new Validity(Optional.of(DAY.minusDays(9)), Optional.empty(), ZoneOffset.UTC),
                    false);
            assertThat(settled(SomePapers.KINDS, KNOWN, open).get(fact)).isEmpty();
            PaperHeld without = new PaperHeld(kind, Optional.empty(), "aircraft", "N-1", "", open.validity(), true);
            assertThat(yesNo(settled(SomePapers.KINDS, KNOWN, without), fact)).contains(true);
            PaperHeld later = new PaperHeld(
                    kind,
                    Optional.empty(),
                    "aircraft",
                    "N-1",
                    "",
                    new Validity(Optional.of(DAY.plusDays(1)), Optional.empty(), ZoneOffset.UTC),
                    false);
            assertThat(yesNo(settled(SomePapers.KINDS, KNOWN, later), fact))
                    .isEqualTo(fact.equals("marked") ? Optional.of(false) : Optional.empty());
        }
        PaperHeld declared = new PaperHeld(
                "modelDeclaration",
                Optional.of("nearPeople"),
                "aircraft",
                "N-1",
                "EU",
                new Validity(Optional.empty(), Optional.empty(), ZoneOffset.UTC),
                false);
        assertThat(settled(SomePapers.KINDS, KNOWN, declared).get("modelDeclarations"))
                .isEmpty();
    }

    @Test
    void nothingFollowsForSomebodyWhoIsNotKnown() {
        Facts f = settled(SomePapers.KINDS, Map.of());
        assertThat(f.get("marked")).isEmpty();
        assertThat(f.get("modelDeclarations")).isEmpty();
    }

    @Test
    void levelsInForceAreTheWords() {
        Facts f = settled(
                SomePapers.KINDS,
                KNOWN,
                paper("modelDeclaration", "aircraft", "nearPeople", "EU", DAY, DAY),
                paper("modelDeclaration", "aircraft", "overPeople", "EU", DAY.minusDays(9), DAY.minusDays(1)),
                paper("modelDeclaration", "aircraft", "category2", "US", DAY, DAY));
        assertThat(f.get("modelDeclarations").orElseThrow().value())
                .isEqualTo(new FactValue.Words(Set.of("nearPeople")));
    }

    @Test
    void noneDeclaredIsAnEmptyListAndKnown() {
        assertThat(settled(SomePapers.KINDS, KNOWN)
                        .get("modelDeclarations")
                        .orElseThrow()
                        .value())
                .isEqualTo(new FactValue.Words(Set.of()));
    }

    @Test
    void ofTwoKindsThatSettleOneFactEitherWillDo() {
        for (List<String> codes : List.of(List.of("a", "b"), List.of("b", "a"))) {
            PaperKinds kinds = new PaperKinds(codes.stream()
                    .map(c -> PaperKind.of(c, c, "aircraft").settling("marked", true))
                    .toList());
            assertThat(yesNo(settled(kinds, KNOWN, paper("a", "aircraft", null, "", DAY, DAY)), "marked"))
                    .contains(true);
            assertThat(yesNo(settled(kinds, KNOWN), "marked")).contains(false);
        }
    }

    @Test
    void onlyWhatMayBeGrantedForAJobCountsAsItsHolders() {
        List<PaperHeld> counted = SomePapers.KINDS.counted(List.of(
                paper("operationalAuthorisation", "job", null, "EU", DAY, DAY),
                paper("operatorRegistration", "job", null, "EU", DAY, DAY),
                paper("unheardOf", "job", null, "EU", DAY, DAY)));
        assertThat(counted).extracting(PaperHeld::role).containsExactly("operator", "job", "job");
    }
}
