package yarrek.app.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import yarrek.app.forms.Form;
import yarrek.app.forms.TypedFact;
import yarrek.core.judging.Arranged;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.judging.PlannedFlight;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Vocabulary;

/** A plan comes back as it was typed, from the form, from the database and to judging; what is not said is no fact. */
class PlansTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 28);

    private static FactValue typed(FactDefinition d, String text) {
        return TypedFact.read(d, text, ZoneOffset.UTC, Instant.parse("2026-11-28T08:00:00Z"));
    }

    static Stream<JobDraft> drafts() {
        return IntStream.range(0, 200).mapToObj(i -> draft(new Random(i)));
    }

    private static JobDraft draft(Random r) {
        Map<String, FactValue> said = new TreeMap<>();
        for (FactDefinition d : Vocabulary.ofPlan()) {
            if (r.nextBoolean()) {
                said.put(d.name(), value(d, r));
            }
        }
        LocalDate first = TODAY.plusDays(r.nextInt(60));
        return new JobDraft(
                        "Job " + r.nextInt(),
                        null,
                        first,
                        first.plusDays(r.nextInt(3)),
                        LocalTime.of(r.nextInt(24), r.nextInt(60)),
                        LocalTime.of(r.nextInt(24), r.nextInt(60)),
                        r.nextBoolean() ? null : (double) r.nextInt(120),
                        r.nextBoolean() ? JobDraft.HeightReference.GROUND : JobDraft.HeightReference.TAKEOFF,
                        null,
                        null,
                        null,
                        said)
                .flying(flights(first, r))
                .arranged(besides(first, r));
    }

    private static Arranged besides(LocalDate first, Random r) {
        return new Arranged(
                r.nextBoolean()
                        ? Map.of()
                        : Map.of(
                                first,
                                new Arranged.Hours(LocalTime.of(r.nextInt(24), 5), LocalTime.of(r.nextInt(24), 0))),
                IntStream.range(0, r.nextInt(3))
                        .mapToObj(i -> new Arranged.Helper(
                                PEOPLE.keySet().iterator().next(),
                                List.copyOf(FlightsPlanned.Role.BESIDES).get(i),
                                r.nextBoolean() ? null : first))
                        .toList(),
                r.nextBoolean() ? Map.of() : Map.of(BUILDS.keySet().iterator().next(), "why " + r.nextInt()));
    }

    private static List<PlannedFlight> flights(LocalDate first, Random r) {
        return IntStream.range(0, r.nextInt(4))
                .mapToObj(i -> {
                    Double height = r.nextBoolean() ? null : Double.valueOf(10 + r.nextInt(100));
                    return new PlannedFlight(
                            first,
                            r.nextBoolean() ? null : LocalTime.of(r.nextInt(24), r.nextInt(60)),
                            any(BUILDS, r),
                            any(PEOPLE, r),
                            any(PEOPLE, r),
                            any(PEOPLE, r),
                            height,
                            height == null ? null : r.nextBoolean(),
                            r.nextBoolean() ? null : Double.valueOf(r.nextInt(900)),
                            null,
                            r.nextBoolean() ? null : Double.valueOf(1 + r.nextInt(30)),
                            r.nextBoolean() ? null : PlannedFlight.Mode.GRID,
                            r.nextBoolean() ? "" : "oblique, west face");
                })
                .toList();
    }

    private static UUID any(Map<UUID, String> of, Random r) {
        return r.nextBoolean() ? null : List.copyOf(of.keySet()).get(r.nextInt(of.size()));
    }

    private static final Map<UUID, String> PEOPLE =
            Map.of(new UUID(1, 1), "Hanne", new UUID(1, 2), "Rufus", new UUID(1, 3), "Yara");
    private static final Map<UUID, String> BUILDS =
            Map.of(new UUID(2, 1), "Kite, light", new UUID(2, 2), "Kite, heavy");

    private static FactValue value(FactDefinition d, Random r) {
        List<String> words = List.copyOf(d.words());
        return switch (d.type()) {
            case QUANTITY -> new FactValue.Quantity(r.nextInt(60) + r.nextInt(10) / 10.0, 0);
            case YES_NO -> new FactValue.YesNo(r.nextBoolean());
            case WORD -> new FactValue.Word(words.get(r.nextInt(words.size())));
            case WORDS -> new FactValue.Words(Set.of(words.get(r.nextInt(words.size()))));
            case DATE -> new FactValue.Date(TODAY.minusDays(r.nextInt(90)));
            case INSTANT -> new FactValue.Moment(Instant.EPOCH.plusSeconds(r.nextInt()));
        };
    }

    private static Form form() {
        Form form = new Form("Job", "/jobs/new", "/jobs");
        JobForm.fields(form, Map.of(), Map.of(), Map.of());
        return form;
    }

    @ParameterizedTest
    @MethodSource("drafts")
    void whatIsTypedComesBackFromTheForm(JobDraft d) {
        Form form = form();
        JobForm.values(d).forEach(form::set);
        JobDraft back = JobForm.read(form, TODAY, PlansTest::typed);
        // a site is needed, and none is on file here
        assertThat(form.getErrors()).containsOnlyKeys("siteId");
        assertThat(back).isNull();
        for (FactDefinition q : Vocabulary.ofPlan()) {
            assertThat(Optional.ofNullable(form.fact(q, PlansTest::typed)))
                    .as(q.name())
                    .isEqualTo(Optional.ofNullable(d.said().get(q.name())));
        }
    }

    @ParameterizedTest
    @MethodSource("drafts")
    void takingAndGivingAreInverse(JobDraft d) {
        JobEntity j = new JobEntity(UUID.randomUUID());
        j.take(d);
        j.said = new SaidConverter().convertToEntityAttribute(new SaidConverter().convertToDatabaseColumn(j.said));
        assertThat(j.draft()).isEqualTo(d);
    }

    @ParameterizedTest
    @MethodSource("drafts")
    void whatIsSaidIsAFactAndNothingElseIs(JobDraft d) {
        assertThat(d.plan(ZoneOffset.UTC).said()).isEqualTo(d.said());
    }

    /** Days, crew and reasons as they are typed are those that were shown. */
    @ParameterizedTest
    @MethodSource("drafts")
    void whatIsBesidesComesBackFromItsForm(JobDraft d) {
        int rows = d.besides().crew().size() + BesidesForm.SPARE;
        Form form = BesidesForm.form(view(d), rows, PEOPLE, BUILDS);
        BesidesForm.fill(form, d);
        Arranged back = BesidesForm.read(form, rows, d, BUILDS, TODAY);
        assertThat(form.getErrors()).isEmpty();
        assertThat(back.crew()).isEqualTo(d.besides().crew());
        assertThat(back.reasons()).isEqualTo(d.besides().reasons());
        // a job of one day has the hours of the job
        assertThat(back.hours())
                .isEqualTo(
                        d.firstDay().equals(d.lastDay())
                                ? Map.of()
                                : d.besides().hours());
    }

    /** Each flight as it is typed is the flight that was shown. */
    @ParameterizedTest
    @MethodSource("drafts")
    void flightsTypedAsTheyAreShownComeBack(JobDraft d) {
        JobDraft wide = new JobDraft(
                        d.name(),
                        null,
                        d.firstDay(),
                        d.lastDay(),
                        LocalTime.MIDNIGHT,
                        LocalTime.MIDNIGHT,
                        null,
                        d.heightReference(),
                        null,
                        null,
                        null,
                        Map.of())
                .flying(d.flights());
        Form form = FlightsForm.form(view(wide), wide.flights().size() + FlightsForm.SPARE, PEOPLE, BUILDS);
        FlightsForm.fill(form, wide);
        int rows = FlightsForm.rows(form.typed());
        assertThat(rows).isEqualTo(d.flights().size());
        List<PlannedFlight> back = FlightsForm.read(form, form.typed(), rows, wide, TODAY, ZoneOffset.UTC);
        assertThat(back).isEqualTo(d.flights());
    }

    private static Jobs.JobView view(JobDraft d) {
        return new Jobs.JobView(UUID.randomUUID(), 0, d, null, null, null, List.of(), List.of(), null, null);
    }

    @Test
    void severalAlikeAreOneRow() {
        JobDraft d = draft(new Random(3)).flying(List.of());
        Form form = FlightsForm.form(view(d), 2, PEOPLE, BUILDS)
                .set("day1", d.firstDay())
                .set("minutes1", "12")
                .set("alike1", "9");
        List<PlannedFlight> flights = FlightsForm.read(form, form.typed(), 2, d, TODAY, ZoneOffset.UTC);
        assertThat(form.getErrors()).isEmpty();
        assertThat(flights).hasSize(9).allMatch(f -> f.minutes() == 12);
        form.set("startsAt1", "10:00");
        FlightsForm.read(form, form.typed(), 2, d, TODAY, ZoneOffset.UTC);
        assertThat(form.getErrors()).containsOnlyKeys("alike1");
    }

    @Test
    void whatIsWrongWithAFlightStandsAtItsRow() {
        JobDraft d = draft(new Random(3)).flying(List.of());
        Form form = FlightsForm.form(view(d), 3, PEOPLE, BUILDS)
                .set("day0", d.firstDay())
                .set("alike0", "4")
                .set("day2", d.firstDay().minusDays(1));
        FlightsForm.read(form, form.typed(), 3, d, TODAY, ZoneOffset.UTC);
        assertThat(form.getErrors()).containsOnlyKeys("day2");
        Form many = FlightsForm.form(view(d), 1, PEOPLE, BUILDS)
                .set("day0", d.firstDay())
                .set("alike0", "500");
        FlightsForm.read(many, many.typed(), 1, d, TODAY, ZoneOffset.UTC);
        assertThat(many.getErrors()).containsOnlyKeys("alike0");
    }

    @Test
    void flightsMoveWithTheJob() {
        JobDraft d = draft(new Random(3))
                .flying(List.of(PlannedFlight.on(draft(new Random(3)).firstDay())));
        LocalDate later = d.firstDay().plusDays(10);
        assertThat(d.repeated("again", later).flights())
                .singleElement()
                .satisfies(f -> assertThat(f.day()).isEqualTo(later));
        assertThat(d.on(later, later.plusDays(1)).flights().get(0).day()).isEqualTo(later);
        assertThat(d.only(d.firstDay()).flights()).hasSize(1);
        assertThat(d.only(d.firstDay().plusDays(1)).flights()).isEmpty();
    }

    @Test
    void wordsThatAreNoLongerKnownAreNotLost() {
        JobEntity j = new JobEntity(UUID.randomUUID());
        JobDraft d = draft(new Random(1));
        j.take(d);
        j.said = new TreeMap<>(j.said);
        j.said.put("moonlight", "yes");
        assertThat(j.draft()).isEqualTo(d);
        j.take(d);
        assertThat(j.said).containsEntry("moonlight", "yes");
    }

    @ParameterizedTest(name = "{0} typed as {1}")
    @CsvSource(delimiter = '|', textBlock = """
            pilotDistanceM       | 200001 m  | must be from 0 to 200000 m
            pilotDistanceM       | 350 kg    | not understood
            weather.temperatureC | -61       | must be from -60 to 60 °C
            assembly             | perhaps   | type yes or no
            sight                | blindfold | one of
            groundSpeedMps       | -3 m/s    | Ground speed
            """)
    void whatCannotBeIsRefusedInWordsAtItsField(String fact, String typed, String says) {
        Form form = form().set(fact, typed);
        JobForm.read(form, TODAY, PlansTest::typed);
        assertThat(form.getErrors().get(fact)).contains(says);
    }

    @Test
    void everyQuestionOfAPlanStandsOnceInTheForm() {
        List<String> names = form().fields().stream().map(Form.Field::name).toList();
        assertThat(names).doesNotHaveDuplicates();
        assertThat(names)
                .containsAll(
                        Vocabulary.ofPlan().stream().map(FactDefinition::name).toList());
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("everyFact")
    void aStoredValueComesBack(FactDefinition d) {
        Random r = new Random(d.name().hashCode());
        for (int i = 0; i < 20; i++) {
            if (d.words().isEmpty() && d.type().name().startsWith("WORD")) {
                continue;
            }
            FactValue v = value(d, r);
            assertThat(FactValue.of(d, v.text())).isEqualTo(v);
        }
    }

    static Stream<FactDefinition> everyFact() {
        return Vocabulary.all().stream();
    }
}
