package yarrek.core.energy;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import yarrek.core.units.Finite;

/**
 * How far a build gets out and back on each bearing in one wind, the middle of what is expected beside the careful figure.
 *
 * @param curve power in that air at that mass, from the maker's minutes
 * @param carefulCurve the same where the minutes are read as the dearer
 * @param all by bearing
 * @param hoverMinutes that the usable charge lasts in hover
 * @param tooNear whether the wind is so near the air speed that no figure may be planned with
 * @param steps how it comes about, line by line
 */
public record Reaches(
        PowerCurve curve,
        PowerCurve carefulCurve,
        List<Bearing> all,
        double hoverMinutes,
        boolean tooNear,
        List<String> steps) {
    /** Said with every reach. */
    public static final List<String> CAUTIONS = List.of(
            "Wind above is stronger than at the ground, and half the pack is not half the way.",
            "A cold pack can fall from 25 % to 5 %: keep packs warm until take-off and look at the volts in a first hover.",
            "Thin air, heat and mass cost power; minutes of a leaflet flatter; a gauge's per cent is an estimate.",
            "Warnings of the aircraft go before these figures. They are computed, not measured; the pilot in command decides.");

    private static final int EVERY_DEG = 2;
    private static final int MOST_STEPS = 50;
    private static final double CLOSE = 1e-9;

    /** Degrees from north, clockwise, of the way out. */
    public record Bearing(double deg, Reach middle, Reach careful) {}

    /**
     * The build, its pack and the air.
     *
     * @param makerMassKg at which the minutes are stated
     * @param minutes of a full pack when new, as the maker states them
     * @param discM2 of all discs
     * @param dragM2 drag area of the airframe; null where nobody measured it
     * @param fitted relative error of energy on own flights; null before a fit
     */
    public record Build(
            double massKg,
            double makerMassKg,
            double minutes,
            Endurance.Stated stated,
            double discM2,
            Double dragM2,
            Double fitted) {
        /** @throws IllegalArgumentException for a figure that is not above 0 */
        public Build {
            if (!(massKg > 0 && makerMassKg > 0 && minutes > 0 && discM2 > 0) || (dragM2 != null && !(dragM2 > 0))) {
                throw new IllegalArgumentException(
                        "mass, maker's mass, minutes, area of the discs and drag area are above 0, got " + massKg
                                + " kg, " + makerMassKg + " kg, " + minutes + " min, " + discM2 + " m², " + dragM2
                                + " m²");
            }
            if (fitted != null && !(fitted >= 0 && fitted <= 1)) {
                throw new IllegalArgumentException("the error of a fit lies from 0 to 1, got " + fitted);
            }
        }
    }

    /**
     * @param airSpeed that is flown out and back, m/s
     * @param wind m/s at the height flown, 0 or more
     * @param windFrom degrees from north from where it blows
     * @param measured whether it was measured at that height within twenty minutes
     * @param work minutes of hovering at the far end, in that wind
     * @param hover minutes of hovering before landing
     */
    public record Flown(double airSpeed, double wind, double windFrom, boolean measured, double work, double hover) {
        /** @throws IllegalArgumentException for a speed that is not above 0, or a wind or minutes below it */
        public Flown {
            if (!(airSpeed > 0 && wind >= 0 && Math.abs(windFrom) <= 360 && work >= 0 && hover >= 0)) {
                throw new IllegalArgumentException(
                        "the air speed is above 0, wind and minutes 0 or more, a direction from 0 to 360, got "
                                + airSpeed + " m/s, " + wind + " m/s, " + work + " and " + hover + " min, " + windFrom
                                + "°");
            }
        }
    }

    /** @param density of the air, kg/m³ */
    public static Reaches of(Build b, Charge charge, Flown f, double density) {
        PowerCurve curve = curve(b, charge.wh(), density, false);
        PowerCurve careful = curve(b, charge.wh(), density, true);
        Reach.Doubt doubt = Reach.Doubt.house(b.fitted(), f.wind(), f.measured());
        Reach.Fixed fixed = fixed(curve, f);
        Reach.Fixed carefulFixed = fixed(careful, f);
        double blowsTo = f.windFrom() + 180;
        List<Bearing> all = IntStream.range(0, 360 / EVERY_DEG)
                .mapToObj(i -> {
                    double deg = i * EVERY_DEG;
                    Track out = new Track(f.airSpeed(), f.wind(), deg - blowsTo);
                    return new Bearing(
                            deg,
                            Reach.of(curve, out, out.back(), charge.usable(), fixed, charge),
                            Reach.careful(
                                    careful, out, out.back(), charge.usableAtLeast(), carefulFixed, charge, doubt));
                })
                .toList();
        List<String> steps = new ArrayList<>();
        steps.add("air " + figure(density, 4) + " kg/m³; hover " + figure(curve.hoverW(), 1) + " W from "
                + figure(b.minutes(), 1)
                + " min " + b.stated().words() + ", at " + figure(1000 * b.massKg(), 1) + " g instead of "
                + figure(1000 * b.makerMassKg(), 1) + " g"
                + (careful.hoverW() > curve.hoverW() ? "; carefully " + figure(careful.hoverW(), 1) + " W" : ""));
        steps.add("at " + figure(f.airSpeed(), 1) + " m/s " + figure(curve.at(f.airSpeed()), 1) + " W"
                + (b.dragM2() == null ? ", drag not measured: taken by mass, 50 % out in either direction" : ""));
        steps.add("usable " + figure(charge.usable(), 2) + " Wh, at least " + figure(charge.usableAtLeast(), 2)
                + " Wh of " + figure(charge.wh() * charge.health(), 2) + " Wh");
        steps.add("besides the way " + figure(fixed.before() + fixed.after(), 2) + " Wh");
        steps.add((b.fitted() == null ? "not fitted on own flights" : "fitted on own flights") + ": power ± "
                + figure(100 * doubt.power(), 0) + " %, energy ± " + figure(100 * doubt.energy(), 0) + " %, wind ± "
                + figure(doubt.wind(), 1) + " m/s and " + figure(doubt.direction(), 0) + "°; one in ten falls short");
        return new Reaches(
                curve,
                careful,
                all,
                Endurance.minutes(charge.usable(), curve.hoverW()),
                Reach.tooNear(f.airSpeed(), f.wind(), doubt),
                steps);
    }

    /** Work at the far end holds a spot in the wind, which is forward flight; the hover before landing is out of it. */
    private static Reach.Fixed fixed(PowerCurve c, Flown f) {
        return new Reach.Fixed(c.at(f.wind()) * f.work() / 60, c.hoverW() * f.hover() / 60);
    }

    /** The curve behind the maker's minutes: where they are not in hover, what hover takes follows from the curve itself. */
    private static PowerCurve curve(Build b, double wh, double density, boolean carefully) {
        double drag = (b.dragM2() == null ? PowerCurve.dragArea(b.massKg()) : b.dragM2()) / PowerCurve.EFFICIENCY;
        double least = 1;
        double hover = 0;
        for (int i = 0; i < MOST_STEPS; i++) {
            double next = Endurance.hoverBehind(wh, b.minutes(), b.stated(), least, carefully);
            if (Math.abs(next - hover) < CLOSE) {
                break;
            }
            hover = next;
            PowerCurve maker =
                    new PowerCurve(b.makerMassKg(), b.discM2(), Air.STANDARD, hover, PowerCurve.INDUCED_SHARE, drag);
            least = Math.min(1, maker.endurance(FASTEST).value() / hover);
        }
        return new PowerCurve(
                b.massKg(),
                b.discM2(),
                density,
                PowerCurve.hoverScaled(hover, b.massKg() / b.makerMassKg(), density, 0),
                PowerCurve.INDUCED_SHARE,
                drag);
    }

    private static final double FASTEST = 30;

    private static String figure(double d, int places) {
        double by = Math.pow(10, places);
        return Finite.format(Math.round(d * by) / by);
    }
}
