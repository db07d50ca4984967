package yarrek.core.airspace;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.rulebook.SomeRules.law;
import static yarrek.core.rulebook.SomeRules.pack;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.NoZone;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.WordIsOneOf;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.TimeWindow;

/** What a zone that is met means for a plan: the rules decide, not the map. */
class ZoneStandingTest {
    private static final Position LAUNCH = new Position(46.605, -17.895);
    private static final TimeWindow HOURS =
            new TimeWindow(Instant.parse("2027-06-12T08:00:00Z"), Instant.parse("2027-06-12T09:00:00Z"));
    private static final Rule NO_UNCOVERED =
            law("ZONE", Condition.always(), new NoZone(ZoneMet.Restriction.NEEDS_AUTHORISATION));
    private static final Rule WORK_ONLY = law(
            "ZONE-WORK",
            new WordIsOneOf("purpose", Set.of("work")),
            new NoZone(ZoneMet.Restriction.NEEDS_AUTHORISATION));

    private static SiteLook.Met met(ZoneKind kind, OptionalDouble bindsFromG, HeightLimit from, Timetable times) {
        Zone z = new Zone(
                "Z",
                "Z",
                kind,
                Optional.empty(),
                ZoneMet.Restriction.NEEDS_AUTHORISATION,
                Area.circle(LAUNCH, 100),
                from,
                HeightLimit.aboveGround(600),
                times,
                bindsFromG,
                "",
                "",
                "");
        SiteLook.Plan plan = new SiteLook.Plan(
                ZoneTest.box(46.60, -17.90),
                LAUNCH,
                0,
                OptionalDouble.of(90),
                List.of(HOURS),
                ZoneOffset.UTC,
                Ground.UNKNOWN);
        return SiteLook.of(plan, new ZoneIndex(List.of(z))).met().get(0);
    }

    private static SiteLook.Met met(ZoneKind kind) {
        return met(kind, OptionalDouble.empty(), HeightLimit.SURFACE, Timetable.ALWAYS);
    }

    private static Assessment judged(String purpose, Rule... rules) {
        Facts facts = Facts.builder(ZoneOffset.UTC)
                .word("jurisdiction", "EU", "t")
                .word("purpose", purpose, "t")
                .window(HOURS)
                .build();
        return Assessment.of(facts, List.of(pack(rules)));
    }

    @ParameterizedTest(name = "a {0} g build and a zone that binds from {1} g: {2}")
    @CsvSource({"249.9, 250, NO_CONCERN", "250, 250, BINDS", "900, 250, BINDS"})
    void aZoneBindsFromItsMassOn(double massG, double fromG, ZoneStanding.Stands stands) {
        SiteLook.Met m = met(ZoneKind.RESTRICTED, OptionalDouble.of(fromG), HeightLimit.SURFACE, Timetable.ALWAYS);
        assertThat(ZoneStanding.of(m, OptionalDouble.of(massG), judged("work", NO_UNCOVERED))
                        .stands())
                .isEqualTo(stands);
    }

    @Test
    void anUnknownMassIsNeverBelowTheOneFromWhichItBinds() {
        SiteLook.Met m = met(ZoneKind.RESTRICTED, OptionalDouble.of(250), HeightLimit.SURFACE, Timetable.ALWAYS);
        assertThat(ZoneStanding.of(m, OptionalDouble.empty(), judged("work", NO_UNCOVERED))
                        .stands()
                        .isPressing())
                .isTrue();
    }

    @Test
    void theRuleThatAppliesIsNamed() {
        ZoneStanding s =
                ZoneStanding.of(met(ZoneKind.RESTRICTED), OptionalDouble.of(900), judged("work", NO_UNCOVERED));
        assertThat(s).isEqualTo(new ZoneStanding(ZoneStanding.Stands.BINDS, "ZONE (c)."));
    }

    @Test
    void whereTheOnlyRuleThatSpeaksOfItDoesNotApplyItIsACautionThatSaysWhy() {
        ZoneStanding s =
                ZoneStanding.of(met(ZoneKind.RESTRICTED), OptionalDouble.of(900), judged("recreation", WORK_ONLY));
        assertThat(s.stands()).isEqualTo(ZoneStanding.Stands.CAUTION);
        assertThat(s.why()).startsWith("For this build ZONE-WORK does not apply: it applies when purpose is work.");
    }

    @Test
    void aRuleThatAppliesStandsBeforeOneThatDoesNot() {
        assertThat(ZoneStanding.of(
                                met(ZoneKind.RESTRICTED),
                                OptionalDouble.of(900),
                                judged("recreation", WORK_ONLY, NO_UNCOVERED))
                        .stands())
                .isEqualTo(ZoneStanding.Stands.BINDS);
    }

    @Test
    void aZoneOfWhichNoRuleSpeaksBindsAsPublished() {
        ZoneStanding s = ZoneStanding.of(met(ZoneKind.RESTRICTED), OptionalDouble.of(900), judged("work"));
        assertThat(s.stands()).isEqualTo(ZoneStanding.Stands.BINDS);
        assertThat(s.why()).contains("as published");
    }

    @Test
    void outsideItsHoursOrAboveThePlanItDoesNotConcernIt() {
        Timetable later =
                Timetable.between(Instant.parse("2027-06-12T09:00:01Z"), Instant.parse("2027-06-12T10:00:00Z"));
        for (SiteLook.Met m : List.of(
                met(ZoneKind.RESTRICTED, OptionalDouble.empty(), HeightLimit.SURFACE, later),
                met(ZoneKind.RESTRICTED, OptionalDouble.empty(), HeightLimit.aboveGround(90.1), Timetable.ALWAYS))) {
            ZoneStanding s = ZoneStanding.of(m, OptionalDouble.of(900), judged("work", NO_UNCOVERED));
            assertThat(s.stands()).isEqualTo(ZoneStanding.Stands.NO_CONCERN);
            assertThat(s.why()).isNotEmpty().endsWith(".");
        }
    }

    @Test
    void theMakersMapIsNeverLaw() {
        ZoneStanding s = ZoneStanding.of(met(ZoneKind.MAKER), OptionalDouble.of(900), judged("work", NO_UNCOVERED));
        assertThat(s.stands()).isEqualTo(ZoneStanding.Stands.MAKERS_MAP);
        assertThat(s.stands().isPressing()).isFalse();
        assertThat(s.why()).startsWith("Not law.");
    }
}
