package yarrek.core.energy;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.WorkedCases.d;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import yarrek.core.WorkedCases;
import yarrek.core.weather.Wind;

/** Worked figures of energy: each case of the file by the method that answers its kind. */
class WorkedCasesTest {
    private static double density(JsonNode g) {
        return Air.density(Air.pressure(d(g, "elevation_m")), d(g, "air_C"));
    }

    private static PowerCurve curve(JsonNode g) {
        double hover = PowerCurve.hoverScaled(
                d(g, "pack_Wh") * 60 / d(g, "hover_min"),
                d(g, "mass_g") / d(g, "maker_mass_g"),
                density(g),
                g.path("electronics_W").asDouble(0));
        return new PowerCurve(
                d(g, "mass_g") / 1000,
                d(g, "disc_area_m2"),
                density(g),
                hover,
                d(g, "k"),
                d(g, "CdA_m2") / d(g, "eta"));
    }

    private static Charge charge(JsonNode g) {
        return new Charge(
                d(g, "pack_Wh"), d(g, "health"), d(g, "charge"), d(g, "reserve"), Cold.HOUSE.factor(d(g, "air_C")));
    }

    private static List<Double> reach(JsonNode g, Reach.Fixed fixed) {
        Track out = new Track(
                d(g, "v_mps"),
                d(g, "wind_mps"),
                g.path("bearing_to_downwind_deg").asDouble(0));
        Track back = new Track(g.path("v_back_mps").asDouble(d(g, "v_mps")), d(g, "wind_mps"), out.offDownwind() + 180);
        Reach r = Reach.of(curve(g), out, back, charge(g).usable(), fixed, charge(g));
        return List.of(r.metres(), 100 * r.turnAt());
    }

    private static Track shear(JsonNode g, boolean back) {
        double off = d(g, "bearing_to_downwind_deg");
        return new Track(
                d(g, "v_mps"),
                d(g, back ? "wind_back_mps" : "wind_out_mps"),
                back ? off - g.path("veer_deg").asDouble(0) + 180 : off);
    }

    private static double sheared(JsonNode g) {
        return Reach.of(
                        curve(g),
                        shear(g, false),
                        shear(g, true),
                        d(g, "energy_for_distance_Wh"),
                        new Reach.Fixed(0, 0),
                        charge(g))
                .metres();
    }

    private static List<Double> carefully(JsonNode g) {
        Track out = new Track(d(g, "v_mps"), d(g, "wind_mps"), d(g, "bearing_to_downwind_deg"));
        Reach.Fixed fixed = new Reach.Fixed(0, d(g, "fixed_Wh"));
        Reach.Doubt doubt = new Reach.Doubt(
                d(g, "sd_power"), d(g, "sd_energy"), d(g, "sd_wind_mps"), d(g, "sd_dir_deg"), d(g, "z"));
        double wh = charge(g).usable();
        return List.of(
                Reach.of(curve(g), out, out.back(), wh, fixed, charge(g)).metres(),
                Reach.careful(curve(g), out, out.back(), wh, fixed, charge(g), doubt)
                        .metres());
    }

    private static List<Double> each(JsonNode list, Function<Double, Double> f) {
        List<Double> all = new ArrayList<>();
        list.forEach(n -> all.add(f.apply(n.asDouble())));
        return all;
    }

    private static List<Double> closedForm(JsonNode g) {
        // a curve whose power at that speed is the one given: all of it drag of nothing but hover
        double v = d(g, "v_mps");
        PowerCurve flat = new PowerCurve(1, 1, 1.225, d(g, "P_W"), 0, 1e-12);
        return each(g.get("beta_deg"), b -> {
            Track out = new Track(v, d(g, "wind_mps"), b);
            return Reach.of(flat, out, out.back(), d(g, "E_Wh"), new Reach.Fixed(0, 0), new Charge(77, 1, 1, 0.25, 1))
                    .metres();
        });
    }

    private static List<Double> roundTrip(JsonNode g) {
        Track out = new Track(d(g, "v_mps"), d(g, "wind_mps"), d(g, "bearing_to_downwind_deg"));
        double usable = charge(g).usable();
        double needed = Reach.needed(
                        curve(g), out, out.back(), d(g, "distance_m"), new Reach.Fixed(0, d(g, "fixed_Wh")))
                .orElseThrow();
        return List.of(needed, 100 * (1 - needed / usable));
    }

    private static final Map<String, Function<JsonNode, Object>> ANSWERS = Map.ofEntries(
            Map.entry(
                    "air density with moist air",
                    g -> Air.density(Air.pressure(d(g, "elevation_m")), d(g, "air_C"), d(g, "rel_humidity"))),
            Map.entry("hover power, scaled", g -> curve(g).hoverW()),
            Map.entry("hover power with 9 W electronics kept apart", g -> curve(g).hoverW()),
            Map.entry("induced speed at 12 m/s, level disc", g -> Induced.level(d(g, "vh_mps"), d(g, "v_mps"))),
            Map.entry("induced speed at 12 m/s, tilted disc", g -> {
                double tilt = Math.toRadians(d(g, "tilt_deg"));
                return Induced.tilted(
                        Induced.hover(d(g, "T_N"), d(g, "rho"), d(g, "disc_area_m2")),
                        d(g, "v_mps") * Math.cos(tilt),
                        d(g, "v_mps") * Math.sin(tilt));
            }),
            Map.entry("power at air speed", g -> curve(g).at(d(g, "v_mps"))),
            Map.entry("best air speed into a head wind", g -> {
                PowerCurve.Best b = curve(g).range(d(g, "head_wind_mps"), 30);
                return List.of(b.airSpeed(), b.value());
            }),
            Map.entry(
                    "energy per metre into head wind: 12 m/s against 16 m/s",
                    g -> Stream.of(12.0, 16.0)
                            .map(v -> curve(g).at(v) / (v - d(g, "head_wind_mps")))
                            .toList()),
            Map.entry("cold factor at the ends of the table", g -> each(g.get("air_C"), Cold.HOUSE::factor)),
            Map.entry("usable energy, cold as a factor", g -> charge(g).usable()),
            Map.entry(
                    "usable energy, cold as loss at the bottom (conservative)",
                    g -> charge(g).usableAtLeast()),
            Map.entry(
                    "same at -15 C", g -> List.of(charge(g).usable(), charge(g).usableAtLeast())),
            Map.entry("reach and turn-back charge", g -> reach(g, new Reach.Fixed(d(g, "fixed_Wh"), 0))),
            Map.entry(
                    "turn-back charge when the 2 minutes hover come at the end",
                    g -> reach(g, new Reach.Fixed(0, d(g, "fixed_Wh"))).get(1)),
            Map.entry(
                    "reach out downwind at 12, back at 16 m/s",
                    g -> reach(g, new Reach.Fixed(d(g, "fixed_Wh"), 0)).get(0)),
            Map.entry("identity of ground speeds", g -> {
                Track out = new Track(d(g, "v_mps"), d(g, "wind_mps"), d(g, "bearing_to_downwind_deg"));
                return out.groundSpeed().orElseThrow()
                        * out.back().groundSpeed().orElseThrow();
            }),
            Map.entry("crab angle and ground speed, cross wind 10.49", g -> {
                Track t = new Track(d(g, "v_mps"), d(g, "wind_mps"), d(g, "bearing_to_downwind_deg"));
                return List.of(t.crab(), t.groundSpeed().orElseThrow());
            }),
            Map.entry("reach with wind shear: out at 100 m downwind, back at 30 m", WorkedCasesTest::sheared),
            Map.entry("reach with wind shear: out at 30 m, back at 100 m", WorkedCasesTest::sheared),
            Map.entry("reach with wind shear: both at 100 m", WorkedCasesTest::sheared),
            Map.entry("reach with veer: wind back turned by 20 degrees", WorkedCasesTest::sheared),
            Map.entry(
                    "induced speed in a 2 m/s climb, hover otherwise",
                    g -> Induced.climbing(d(g, "vh_mps"), d(g, "climb_mps"))),
            Map.entry("steep descent caution", g -> {
                List<Boolean> all = new ArrayList<>();
                g.get("descent_mps").forEach(n -> all.add(Induced.steepDescent(d(g, "vh_mps"), n.asDouble())));
                return all;
            }),
            Map.entry(
                    "holding a spot in 10.49 m/s wind against hover out of the wind",
                    g -> List.of(curve(g).at(d(g, "wind_mps")), curve(g).at(0))),
            Map.entry("reserve by minutes", g -> charge(g).reserveOf(d(g, "reserve_min"), curve(g).hoverW())),
            Map.entry("conservative reach (1 in 10) beside the middle one", WorkedCasesTest::carefully),
            Map.entry("reach closed form on all bearings", WorkedCasesTest::closedForm),
            Map.entry("energy needed for a given round trip and the margin", WorkedCasesTest::roundTrip),
            Map.entry(
                    "wind by height, power law",
                    g -> each(g.get("heights_m"), h -> Wind.at(d(g, "wind10_mps"), 10, h, d(g, "alpha")))),
            Map.entry(
                    "distance before the point of no return along a line, 10 minutes of hover work at the far end",
                    g -> reach(
                                    g,
                                    new Reach.Fixed(
                                            curve(g).at(d(g, "wind_mps")) * d(g, "work_min") / 60, d(g, "fixed_Wh")))
                            .get(0)));

    private static final WorkedCases CASES = new WorkedCases("/cases/packs-energy.json", ANSWERS);

    static Stream<String> answered() {
        return CASES.answered("E");
    }

    @ParameterizedTest
    @MethodSource("answered")
    void worked(String id) {
        CASES.check(id);
    }

    @Test
    void casesOfEnergyThatNothingAnswersAreNone() {
        assertThat(CASES.unanswered("E")).isEmpty();
    }
}
