package yarrek.app.api;

import static yarrek.app.api.Said.said;

import java.util.List;
import java.util.Locale;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrek.app.office.HouseFigures;
import yarrek.app.page.OpenTo;
import yarrek.core.energy.Air;
import yarrek.core.energy.Charge;
import yarrek.core.energy.Cold;
import yarrek.core.energy.Endurance;
import yarrek.core.energy.Reach;
import yarrek.core.energy.Reaches;
import yarrek.core.judging.HouseFigure;

/** How far and back a build given as JSON gets in a wind; no record is needed. */
@RestController
@RequestMapping("/api/v1")
class EnergyApi {
    /**
     * What is left out is as usual, where there is a usual figure; all else has to be said.
     *
     * @param massG as flown
     * @param makerMassG at which the minutes are stated
     * @param packWh when new and full
     * @param minutes of such a pack, by the maker
     * @param minutesStated hover, best_speed or not_known, which is usual
     * @param discAreaM2 of all discs
     * @param dragAreaM2 left out: taken by mass
     * @param packC temperature of the pack at take-off; left out: that of the air
     * @param health of the pack, 1 when new
     * @param charge at take-off, 0 to 1; usual 1
     * @param reserve kept for landing, 0 to 1; usual that of the house
     * @param workMin hovering at the far end; usual 0
     * @param hoverMin hovering before landing; usual 2
     * @param fittedError relative error of energy on flights of one's own; left out: not fitted
     */
    record ReachIn(
            Double massG,
            Double makerMassG,
            Double packWh,
            Double minutes,
            String minutesStated,
            Double discAreaM2,
            Double dragAreaM2,
            Double elevationM,
            Double airC,
            Double packC,
            Double health,
            Double charge,
            Double reserve,
            Double airSpeedMps,
            Double windMps,
            Double windFromDeg,
            boolean windMeasured,
            Double workMin,
            Double hoverMin,
            Double fittedError) {}

    /** @param gap why there is none; then the rest is null */
    record WayOut(String gap, Long metres, Double minutesOut, Double minutesBack, Double turnAtPercent) {
        static WayOut of(Reach r) {
            return r.gap() != null
                    ? new WayOut(r.gap().words(), null, null, null, null)
                    : new WayOut(
                            null,
                            (long) Math.floor(r.metres()),
                            tenths(r.minutesOut()),
                            tenths(r.minutesBack()),
                            Math.ceil(r.turnAt() * 1000) / 10);
        }
    }

    record BearingOut(double bearingDeg, WayOut middle, WayOut careful) {}

    record ReachOut(
            double hoverW,
            double hoverMinutes,
            boolean windTooNear,
            List<BearingOut> bearings,
            List<String> steps,
            List<String> cautions) {}

    private final HouseFigures figures;

    EnergyApi(HouseFigures figures) {
        this.figures = figures;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/energy/reach")
    ReachOut reach(@RequestBody ReachIn in) {
        try {
            double airC = said("airC", in.airC());
            Reaches r = Reaches.of(
                    new Reaches.Build(
                            said("massG", in.massG()) / 1000,
                            said("makerMassG", in.makerMassG()) / 1000,
                            said("minutes", in.minutes()),
                            stated(in.minutesStated()),
                            said("discAreaM2", in.discAreaM2()),
                            in.dragAreaM2(),
                            in.fittedError()),
                    new Charge(
                            said("packWh", in.packWh()),
                            said("health", in.health()),
                            or(in.charge(), 1.0),
                            or(in.reserve(), figures.house().share(HouseFigure.PACK_RESERVE)),
                            Cold.HOUSE.factor(or(in.packC(), airC))),
                    new Reaches.Flown(
                            said("airSpeedMps", in.airSpeedMps()),
                            said("windMps", in.windMps()),
                            said("windFromDeg", in.windFromDeg()),
                            in.windMeasured(),
                            or(in.workMin(), 0.0),
                            or(in.hoverMin(), 2.0)),
                    Air.density(Air.pressure(said("elevationM", in.elevationM())), airC));
            return new ReachOut(
                    tenths(r.curve().hoverW()),
                    tenths(r.hoverMinutes()),
                    r.tooNear(),
                    r.all().stream()
                            .map(b -> new BearingOut(b.deg(), WayOut.of(b.middle()), WayOut.of(b.careful())))
                            .toList(),
                    r.steps(),
                    Reaches.CAUTIONS);
        } catch (IllegalArgumentException e) {
            throw new ApiConfig.BadRequestException("energy.invalid", e.getMessage());
        }
    }

    private static Endurance.Stated stated(String words) {
        try {
            return words == null
                    ? Endurance.Stated.NOT_KNOWN
                    : Endurance.Stated.valueOf(words.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(
                    "minutesStated is hover, best_speed or not_known, got '" + words + "'", e);
        }
    }

    private static double or(Double value, double usual) {
        return value == null ? usual : value;
    }

    private static double tenths(double d) {
        return Math.round(d * 10) / 10.0;
    }
}
