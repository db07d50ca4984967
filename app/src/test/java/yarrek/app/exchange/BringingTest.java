package yarrek.app.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.app.forms.Register;
import yarrek.core.units.Mass;
import yarrek.formats.table.Table;

/** Rows against a small register in memory. */
class BringingTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);

    private record Lamp(UUID id, String name, String serial, String mass, String bought) {}

    private final Map<UUID, Lamp> store = new LinkedHashMap<>();

    private final Register<Lamp> lamps = new Register<>(
            "lamps",
            "lamps",
            List.of(List.of("serial"), List.of("name")),
            List.of("serial", "name"),
            () -> List.copyOf(store.values()),
            Lamp::id,
            f -> f.text("name", "Name", "")
                    .text("serial", "Serial number", "")
                    .text("mass", "Mass", "such as 12.5 g")
                    .text("boughtOn", "Bought on", "a date"),
            (f, l) -> f.set("name", l.name())
                    .set("serial", l.serial())
                    .set("mass", l.mass())
                    .set("boughtOn", l.bought()),
            (f, id) -> {
                String name = f.requiredText("name", 20);
                String serial = f.optionalText("serial", 20);
                Mass mass = f.mass("mass", true);
                LocalDate bought = f.date("boughtOn", false, TODAY);
                return () -> {
                    UUID key = id == null ? UUID.randomUUID() : id;
                    store.put(
                            key,
                            new Lamp(
                                    key,
                                    name,
                                    serial,
                                    String.valueOf(mass.toGrams()),
                                    bought == null ? "" : bought.toString()));
                    return key;
                };
            });

    private final Bringing<Lamp> bringing = new Bringing<>(lamps);

    private void keep(String name, String serial, String mass, String bought) {
        UUID id = UUID.randomUUID();
        store.put(id, new Lamp(id, name, serial, mass, bought));
    }

    private List<Bringing.RowPlan> plan(boolean clearing, String header, String... rows) {
        Table t = Table.of(
                List.of(header.split(";", -1)),
                Arrays.stream(rows).map(r -> List.of(r.split(";", -1))).toList());
        return bringing.plan(t, bringing.suggest(t.header()), clearing, TODAY);
    }

    private Bringing.Outcome one(String header, String row) {
        return plan(false, header, row).get(0).outcome();
    }

    @ParameterizedTest
    @CsvSource({
        "S/N, serial", "serial no., serial", "Serial number, serial", "SERIAL, serial", "Mass (kg), mass",
                "weight, mass",
        "purchase date, boughtOn", "bought, boughtOn", "Lamp name, name", "colour, ''", "n, ''", "'', ''"
    })
    void columnsAreToldByTheirNames(String column, String field) {
        assertThat(bringing.suggest(List.of(column))).containsExactly(field);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void noFieldIsSuggestedTwice(long seed) {
        List<String> columns = new ArrayList<>(List.of(
                "name",
                "Name",
                "lamp name",
                "serial",
                "s/n",
                "serialno",
                "mass",
                "mass g",
                "bought",
                "purchased",
                "x"));
        Collections.shuffle(columns, new Random(seed));
        List<String> given =
                bringing.suggest(columns).stream().filter(f -> !f.isEmpty()).toList();
        assertThat(given).doesNotHaveDuplicates().contains("name", "serial", "mass", "boughtOn");
    }

    @Test
    void theSameMeaningIsNoChange() {
        keep("Low", "L-1", "12.5", "2026-09-03");
        assertThat(one("name;serial;mass;bought", "Low;L-1;12.50;3 Sep 2026")).isEqualTo(Bringing.Outcome.SAME);
        assertThat(one("serial;mass", "L-1;12.5 g")).isEqualTo(Bringing.Outcome.SAME);
        assertThat(one("serial;mass (kg)", "L-1;0.0125")).isEqualTo(Bringing.Outcome.SAME);
        assertThat(one("serial;mass (kg)", "L-1;12.5")).isEqualTo(Bringing.Outcome.CHANGED);
        assertThat(one("serial;bought", "L-1;4 Sep 2026")).isEqualTo(Bringing.Outcome.CHANGED);
    }

    @Test
    void aRowFindsItsRecordBySerialElseByNameWhereOneHasNone() {
        keep("Low", "L-1", "12.5", "");
        keep("High", "", "30", "");
        assertThat(plan(false, "name;serial;mass", "Lower;L-1;12.5").get(0).changes())
                .containsExactly(new Bringing.Change("Name", "Low", "Lower"));
        assertThat(plan(false, "name;serial;mass", "High;L-2;30").get(0).changes())
                .containsExactly(new Bringing.Change("Serial number", "", "L-2"));
        Bringing.RowPlan other = plan(false, "name;serial;mass", "Low;L-9;12.5").get(0);
        assertThat(other.outcome()).isEqualTo(Bringing.Outcome.WRONG);
        assertThat(other.problems())
                .singleElement()
                .satisfies(p -> assertThat(p.message()).contains("another record"));
    }

    @Test
    void emptyCellsEmptyOnlyWhenWanted() {
        keep("Low", "L-1", "12.5", "2026-09-03");
        assertThat(plan(false, "serial;bought", "L-1;").get(0).outcome()).isEqualTo(Bringing.Outcome.SAME);
        assertThat(plan(true, "serial;bought", "L-1;").get(0).changes())
                .containsExactly(new Bringing.Change("Bought on", "2026-09-03", ""));
    }

    @Test
    void wrongRowsNameColumnValueAndReason() {
        List<Bringing.RowPlan> plans = plan(
                false, "S/N;What weight;name;mass", "L-1;;Low;heavy", "L-1;;Low two;3 g", "L-2;;;3 g", "L-3;;Low;4 g");
        assertThat(plans)
                .extracting(Bringing.RowPlan::outcome)
                .containsExactly(
                        Bringing.Outcome.WRONG, Bringing.Outcome.WRONG, Bringing.Outcome.WRONG, Bringing.Outcome.WRONG);
        assertThat(plans.get(0).problems().get(0).column()).isEqualTo("mass");
        assertThat(plans.get(0).problems().get(0).message()).contains("“heavy” is not understood");
        assertThat(plans.get(1).problems().get(0).message()).isEqualTo("line 2 has the same");
        assertThat(plans.get(2).problems().get(0).message()).isEqualTo("this is needed");
        assertThat(plans.get(3).problems().get(0).message()).isEqualTo("line 2 has the same");
        assertThat(plans).allSatisfy(p -> assertThat(p.saving()).isNull());
    }

    @Test
    void storingEveryRowMakesTheNextLookAllTheSame() {
        String header = "name;serial;mass;bought";
        String[] rows = {"Low;L-1;12.5;2026-09-03", "High;;30;", "Third;L-3;0.5;2020-02-29"};
        plan(false, header, rows).forEach(p -> assertThat(p.saving().get()).isNotNull());
        assertThat(plan(false, header, rows))
                .allSatisfy(p -> assertThat(p.outcome()).isEqualTo(Bringing.Outcome.SAME));
        Table out = bringing.table();
        assertThat(bringing.plan(out, bringing.suggest(out.header()), true, TODAY))
                .allSatisfy(p -> assertThat(p.outcome()).isEqualTo(Bringing.Outcome.SAME));
    }

    @Test
    void anUnmatchedNeededColumnIsNamedAsMissing() {
        Bringing.RowPlan p = plan(false, "name", "Low").get(0);
        assertThat(p.problems()).containsExactly(new Bringing.Problem("", "Mass (g)", "", "this is needed"));
    }
}
