package yarrek.core.pack;

import static java.util.Arrays.asList;
import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.WorkedCases.d;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.hipparchus.stat.regression.SimpleRegression;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import yarrek.core.WorkedCases;
import yarrek.core.charging.ChargePlan;
import yarrek.core.charging.FaultyPart;
import yarrek.core.charging.Filling;
import yarrek.core.charging.Sharing;
import yarrek.core.charging.Storing;
import yarrek.core.energy.Cold;
import yarrek.core.energy.Endurance;
import yarrek.core.flight.WindFlown;
import yarrek.core.weather.Wind;

/** Worked figures of packs: health, choice, charging, storage, the part at fault; and the wind that a flight shows. */
class PackCasesTest {
    private static final String LETTERS = "HNPGFSV";
    private static final double YEAR = Trend.DAYS_A_YEAR;

    private static List<Double> list(JsonNode n) {
        return StreamSupport.stream(n.spliterator(), false)
                .map(JsonNode::asDouble)
                .toList();
    }

    private static double[] array(JsonNode n) {
        return list(n).stream().mapToDouble(v -> v).toArray();
    }

    private static List<Trend.Point> points(JsonNode g) {
        List<Double> day = list(g.get("day"));
        List<Double> health = list(g.get("health"));
        return IntStream.range(0, day.size())
                .mapToObj(i -> new Trend.Point(day.get(i), health.get(i)))
                .toList();
    }

    private static Trend trend(JsonNode g) {
        return Trend.of(points(g)).orElseThrow();
    }

    private static Double yearly(java.util.OptionalDouble perDay) {
        return perDay.isEmpty() ? null : perDay.getAsDouble() * YEAR;
    }

    private static List<Object> slopes(JsonNode g) {
        Trend t = trend(g);
        return asList(t.perDay() * YEAR, yearly(t.low()), yearly(t.high()));
    }

    private static List<Cold.Rest> table(JsonNode n) {
        List<Cold.Rest> all = new ArrayList<>();
        n.forEach(p -> all.add(new Cold.Rest(p.get(0).asDouble(), p.get(1).asDouble())));
        return all;
    }

    private static Double meets(Trend t, double limit, double slope) {
        return t.meets(limit, slope).orElse(Double.POSITIVE_INFINITY);
    }

    private static List<Rotation.Candidate> packs(JsonNode g) {
        List<Rotation.Candidate> all = new ArrayList<>();
        g.get("packs")
                .forEach(p -> all.add(new Rotation.Candidate(
                        p.get("label").asString(),
                        d(p, "efc"),
                        d(p, "e"),
                        d(p, "rest"),
                        false,
                        p.get("fw").asBoolean()
                                ? "in service".equals(p.get("state").asString())
                                        ? null
                                        : p.get("state").asString()
                                : "its firmware is out of step")));
        return all;
    }

    private static Object rotation(JsonNode g) {
        List<Double> minutes = new ArrayList<>();
        g.get("flights").forEach(f -> minutes.add(f.isNumber() ? f.asDouble() : d(f, "min")));
        Rotation.Choice c = Rotation.choose(minutes, packs(g), Rotation.Weights.house(0.25));
        return c.packs().isEmpty()
                ? null
                : List.of(c.packs().stream().map(Rotation.Candidate::label).toList(), c.cost());
    }

    private static Filling filling(JsonNode g) {
        return Filling.of(d(g, "pack_Wh_now"), d(g, "hours_0_100"));
    }

    private static List<Double> starts(ChargePlan p) {
        return p.places().stream().map(ChargePlan.Place::start).toList();
    }

    private static List<Object> evenly(JsonNode g, boolean searched) {
        List<Double> minutes = list(g.get("minutes"));
        ChargePlan p = ChargePlan.evenly(minutes, g.get("slots").asInt(), 0);
        return searched
                ? List.of(
                        starts(p),
                        p.waiting(0),
                        leastWaiting(minutes, g.get("slots").asInt()))
                : List.of(starts(p), p.waiting(0));
    }

    /** Over all ways to part them on equal places; on each place the shortest stands next to the hour. */
    private static double leastWaiting(List<Double> minutes, int slots) {
        double least = Double.MAX_VALUE;
        List<Double> sorted = minutes.stream().sorted().toList();
        for (int way = 0; way < Math.pow(slots, sorted.size()); way++) {
            double[] load = new double[slots];
            double sum = 0;
            int rest = way;
            for (double m : sorted) {
                sum += load[rest % slots];
                load[rest % slots] += m;
                rest /= slots;
            }
            least = Math.min(least, sum);
        }
        return least;
    }

    private static List<Object> unevenly(JsonNode g) {
        List<List<Double>> minutes = StreamSupport.stream(
                        g.get("minutes_by_charger").get(0).isArray()
                                        && g.get("minutes_by_charger")
                                                .get(0)
                                                .get(0)
                                                .isArray()
                                ? g.get("minutes_by_charger").get(0).spliterator()
                                : g.get("minutes_by_charger").spliterator(),
                        false)
                .map(PackCasesTest::list)
                .toList();
        ChargePlan p = ChargePlan.unevenly(minutes, 0);
        return List.of(
                p.places().stream().map(x -> List.of(x.slot(), x.start())).toList(), p.waiting(0), p.waiting(0));
    }

    private static List<Double> zeros(int n) {
        return IntStream.range(0, n).mapToObj(i -> 0.0).toList();
    }

    private static List<Object> spans(JsonNode g, boolean least) {
        List<Double> m = list(g.get("minutes"));
        int slots = g.get("slots").asInt();
        List<Object> all = new ArrayList<>(List.of(
                ChargePlan.listed(m, zeros(m.size()), slots, 0).span(),
                ChargePlan.soonest(m, zeros(m.size()), slots, 0).span()));
        if (least) {
            all.add(ChargePlan.evenly(m, slots, 0).span());
        }
        return all;
    }

    private static List<Object> byHour(JsonNode g) {
        List<Double> minutes = new ArrayList<>();
        List<Double> hours = new ArrayList<>();
        g.get("minutes_deadline").forEach(n -> {
            minutes.add(n.get(0).asDouble());
            hours.add(n.get(1).asDouble());
        });
        return ChargePlan.byHour(minutes, hours, g.get("slots").asInt()).places().stream()
                .map(p -> (Object) List.of(p.start(), p.end()))
                .toList();
    }

    private static List<Object> faulty(JsonNode g) {
        List<FaultyPart.Charge> all = new ArrayList<>();
        g.get("cable_port_pack_ratio")
                .forEach(n -> all.add(new FaultyPart.Charge(
                        n.get(0).asString(),
                        n.get(1).asString(),
                        n.get(2).asString(),
                        n.get(3).asDouble())));
        FaultyPart f = FaultyPart.of(all);
        return asList(f.faulty() ? f.part() : null, f.factor(), f.t(), f.freedom());
    }

    private static Object alwaysTogether(JsonNode g) {
        List<FaultyPart.Charge> all = IntStream.range(0, g.get("rows").asInt())
                .mapToObj(i -> new FaultyPart.Charge("C" + i % 2, "S" + i % 2, "K" + i % 3, 1 + i * 0.01))
                .toList();
        assertThat(FaultyPart.of(all).words()).isEqualTo("not known: swap cables between ports");
        return FaultyPart.of(all).part();
    }

    private static Object storing(JsonNode g) {
        Storing s = "self".equals(g.get("kind").asString()) ? Storing.SELF_MANAGING : Storing.MANUAL;
        return s.advice(d(g, "charge"), d(g, "days_to_next_use"), d(g, "days_since_flown"))
                .words();
    }

    private static List<Double> windAndDrag(JsonNode g) {
        List<WindFlown.Steady> all = new ArrayList<>();
        g.get("ve_vn_tanE_tanN")
                .forEach(n -> all.add(new WindFlown.Steady(
                        n.get(0).asDouble(),
                        n.get(1).asDouble(),
                        n.get(2).asDouble(),
                        n.get(3).asDouble())));
        WindFlown w = WindFlown.of(all, d(g, "rho")).orElseThrow();
        return List.of(w.east(), w.north(), w.dragArea(d(g, "mass_kg")));
    }

    /** Too fast by this when the drag area is taken too small. */
    private static double wrongDrag(JsonNode g) {
        List<WindFlown.Steady> hover = List.of(new WindFlown.Steady(0, 0, 0.1, 0));
        double wrong = WindFlown.of(hover, 1.225, WindFlown.leanOf(1, d(g, "used_CdA")), false)
                .orElseThrow()
                .speed();
        double right = WindFlown.of(hover, 1.225, WindFlown.leanOf(1, d(g, "true_CdA")), true)
                .orElseThrow()
                .speed();
        return 100 * (wrong / right - 1);
    }

    private static final Map<String, Function<JsonNode, Object>> ANSWERS = Map.ofEntries(
            Map.entry("equivalent full cycles", g -> {
                double cycles = Health.cycles(array(g.get("discharged_mAh")), d(g, "design_mAh"));
                return List.of(cycles, 100 * (d(g, "pack_count") / cycles - 1));
            }),
            Map.entry("health from counted charge and two rest points", g -> {
                Health h = Health.counted(
                                d(g, "mAh"),
                                d(g, "charge_before"),
                                d(g, "charge_after"),
                                d(g, "design_mAh"),
                                d(g, "sd_charge"),
                                Health.Way.REST)
                        .health()
                        .orElseThrow();
                return List.of(h.value(), h.sd());
            }),
            Map.entry("rest voltage in the flat part of a LiPo curve", g -> Health.sdOfVolts(d(g, "slope_V_per_1"))),
            Map.entry("span between 4.10 V and 3.45 V, lithium-ion table of the reference", g -> {
                List<Double> c = list(g.get("cell_V")).stream()
                        .map(v -> Health.chargeAtRest(table(g.get("table")), v))
                        .toList();
                return List.of(c.get(0), c.get(1), c.get(0) - c.get(1));
            }),
            Map.entry("Theil-Sen slope with exact 90 % interval, n = 6", PackCasesTest::slopes),
            Map.entry("n = 3: no interval", PackCasesTest::slopes),
            Map.entry("ties in day and value, n = 12", g -> {
                List<Object> all = new ArrayList<>(slopes(g));
                all.add(trend(g).pairs());
                return all;
            }),
            Map.entry("one gross outlier", g -> {
                SimpleRegression squares = new SimpleRegression();
                points(g).forEach(p -> squares.addData(p.day(), p.value()));
                return List.of(trend(g).perDay() * YEAR, squares.getSlope() * YEAR);
            }),
            Map.entry(
                    "date health reaches 75 %",
                    g -> {
                        Trend t = trend(g);
                        double limit = d(g, "limit");
                        return List.of(
                                meets(t, limit, t.perDay()),
                                meets(t, limit, t.low().orElseThrow()),
                                meets(t, limit, t.high().orElseThrow()));
                    }),
            Map.entry("spread not at rest", g -> {
                var s = CellSpread.atRest(
                        array(g.get("cells_V")), d(g, "current_A"), d(g, "capacity_Ah"), d(g, "minutes_at_rest"));
                return s.isEmpty() ? null : s.getAsDouble();
            }),
            Map.entry("inner resistance by regression with a straight drift", g -> {
                Resistance r = Resistance.regress(
                                List.of(new Resistance.Stretch(array(g.get("A")), array(g.get("cell_V")))), 1)
                        .orElseThrow();
                return List.of(1000 * r.ohms(), 1000 * r.se());
            }),
            Map.entry("resistance brought to 25 C", g -> new Resistance(d(g, "mohm"), 0).at25(d(g, "pack_C"))),
            Map.entry("not enough swing of current", g -> {
                double swing = d(g, "sd_current_A");
                double[] ampere = IntStream.range(0, g.get("n").asInt())
                        .mapToDouble(i -> d(g, "design_A") + (i % 2 == 0 ? swing : -swing))
                        .toArray();
                double[] volts = IntStream.range(0, ampere.length)
                        .mapToDouble(i -> 4 - 0.01 * ampere[i])
                        .toArray();
                return Resistance.regress(List.of(new Resistance.Stretch(ampere, volts)), 1)
                        .orElse(null);
            }),
            Map.entry(
                    "lowest charge the cold allows (cell volts)",
                    g -> list(g.get("pack_C")).stream()
                            .map(t -> Cold.lowestCharge(
                                    table(g.get("ocv_table")),
                                    d(g, "power_W"),
                                    g.get("cells").asInt(),
                                    d(g, "R25_mohm") / 1000,
                                    d(g, "extra_slow_factor"),
                                    t,
                                    d(g, "V_min_cell")))
                            .toList()),
            Map.entry(
                    "health by age alone",
                    g -> list(g.get("store_C")).stream()
                            .map(c -> Health.byAge(d(g, "years"), c, d(g, "store_factor")))
                            .toList()),
            Map.entry(
                    "a self-managing pack at 50 % does not fall",
                    g -> new Storing(true, d(g, "hold_d"), d(g, "fall_d"), d(g, "floor"), 0.5, 60)
                            .after(d(g, "start"), d(g, "days"))),
            Map.entry("resistance verdict", g -> {
                Resistance.Against a = Resistance.against(array(g.get("R25_mohm")), d(g, "new_mohm"));
                return List.of(a.worst(), a.mean(), a.verdict().name().toLowerCase(java.util.Locale.ROOT));
            }),
            Map.entry("pooling of two health values by weight", g -> {
                List<Double> sd = list(g.get("sd"));
                List<Double> value = list(g.get("health"));
                Health h = Health.pooled(IntStream.range(0, sd.size())
                        .mapToObj(i -> new Health(value.get(i), sd.get(i), Health.Way.GAUGE))
                        .toList());
                return List.of(h.value(), h.sd());
            }),
            Map.entry("loss against new", g -> {
                Endurance.Loss l = Endurance.loss(
                        d(g, "Wh"),
                        d(g, "reserve"),
                        d(g, "health"),
                        d(g, "sd_health"),
                        d(g, "P_ref_new_W"),
                        d(g, "P_ref_now_W"),
                        d(g, "rel_sd_P"));
                return List.of(l.whenNew(), l.now(), l.lost(), l.within());
            }),
            Map.entry(
                    "mass and height effect on hover minutes",
                    g -> Endurance.scaled(d(g, "minutes"), d(g, "m_ratio"), d(g, "rho"))),
            Map.entry("charges without recharging, order kept", g -> {
                Rotation.Needed n = Rotation.inOrder(list(g.get("flights_min")), d(g, "endurance_min"))
                        .orElseThrow();
                return List.of(n.packs(), n.atLeast());
            }),
            Map.entry("steady state", g -> {
                Rotation.Steady s = Rotation.steady(
                        d(g, "flight_min"),
                        new Rotation.Times(d(g, "turn_min"), d(g, "unlock_min"), d(g, "cool_min"), d(g, "charge_min")));
                return List.of(s.packs(), s.slots());
            }),
            Map.entry("rotation, 3 flights", PackCasesTest::rotation),
            Map.entry("rotation, the long flight forces the strong pack", PackCasesTest::rotation),
            Map.entry("rotation infeasible", PackCasesTest::rotation),
            Map.entry(
                    "assignment against brute force",
                    g -> AssignmentTest.differences(g.get("random_cases").asInt())),
            Map.entry(
                    "20 to 100 %, strong charger",
                    g -> new Filling(
                                    d(g, "pack_Wh_now"),
                                    d(g, "hours_0_100"),
                                    Filling.CORNER,
                                    Filling.CORNER_TIME,
                                    d(g, "eff"))
                            .minutes(d(g, "watts"), 0.2, 1)),
            Map.entry("low supply volts", g -> {
                double w = Filling.watts(d(g, "charger_W"), d(g, "input_A_max"), d(g, "supply_V"));
                return List.of(w, filling(g).minutes(w, 0.2, 1));
            }),
            Map.entry("storage 100 to 50 % : no charging", g -> filling(g).minutes(120, d(g, "s0"), d(g, "s1"))),
            Map.entry("30 to 50 % for storage of a manual pack", g -> filling(g).minutes(d(g, "watts"), 0.3, 0.5)),
            Map.entry("one after another, three packs, leave at 0", g -> evenly(g, false)),
            Map.entry("two equal slots, seven packs", g -> evenly(g, true)),
            Map.entry("two unequal chargers, five packs", PackCasesTest::unevenly),
            Map.entry(
                    "power not binding: same as alone",
                    g -> Sharing.minutes(
                            IntStream.range(0, g.get("packs").asInt())
                                    .mapToObj(i -> new Sharing.Taker(filling(g), 0.2, 1))
                                    .toList(),
                            d(g, "W_total"),
                            d(g, "W_slot"))),
            Map.entry("does it fit 105 minutes?", g -> spans(g, true)),
            Map.entry("longest-first is not always best", g -> spans(g, false)),
            Map.entry("two jobs and a later one, two slots", PackCasesTest::byHour),
            Map.entry(
                    "cold and hot packs",
                    g -> list(g.get("pack_C")).stream()
                            .map(c -> Filling.mayCharge(
                                    c, g.get("cool_min_per_hot").asInt()))
                            .toList()),
            Map.entry("crossed trial: a worn cable", PackCasesTest::faulty),
            Map.entry("crossed trial: a weak port", PackCasesTest::faulty),
            Map.entry("crossed trial: nothing wrong", PackCasesTest::faulty),
            Map.entry("cable always in the same port", PackCasesTest::alwaysTogether),
            Map.entry("wrong drag area", PackCasesTest::wrongDrag),
            Map.entry("wind and drag area together from four legs and a hover", PackCasesTest::windAndDrag),
            Map.entry("gust and mean from height", g -> Wind.at(d(g, "wind30_mps"), 30, d(g, "to_m"), d(g, "alpha"))),
            Map.entry("storage policy", PackCasesTest::storing),
            Map.entry(
                    "spares", // one for every five begun
                    g -> list(g.get("packs_needed")).stream()
                            .map(n -> Rotation.withSpares(n.intValue()))
                            .toList()));

    private static final WorkedCases CASES = new WorkedCases("/cases/packs-energy.json", ANSWERS);

    static Stream<String> answered() {
        return CASES.answered(LETTERS);
    }

    @ParameterizedTest
    @MethodSource("answered")
    void worked(String id) {
        CASES.check(id);
    }

    /**
     * P04 leans on a case that is not in the file; the circle of V05 would answer 0 for an aircraft that holds its place; in
     * G16 the list takes the longest of one hour first and is not late at all, see ChargePlanTest.
     */
    @Test
    void whatNothingAnswersIsNamed() {
        assertThat(CASES.unanswered(LETTERS))
                .containsExactly(
                        "P04 same with 4 packs: the wait",
                        "G16 earliest deadline list against the optimum, two slots",
                        "V05 ground-speed circle at constant air speed");
    }
}
