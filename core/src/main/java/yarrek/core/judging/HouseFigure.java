package yarrek.core.judging;

import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/** A figure that a house chooses for itself: no law gives it, and practitioners differ. */
public enum HouseFigure {
    SET_UP(
            "day.setUp",
            Group.DAY,
            "Setting up",
            "min",
            20,
            0,
            480,
            "from arriving to the first power-on, site walked and people briefed"),
    TURN_ROUND(
            "day.turnRound",
            Group.DAY,
            "Change of pack",
            "min",
            5,
            0,
            120,
            "landing, another pack, home point again, hover"),
    RECONFIRM(
            "day.reconfirm",
            Group.DAY,
            "More where an unlock is confirmed again",
            "min",
            2,
            0,
            60,
            "an unlock lapses with the power; with a slow connection it takes longer"),
    BREAK_EVERY(
            "day.breakEvery",
            Group.DAY,
            "A break at the latest after",
            "min",
            120,
            15,
            480,
            "attention falls off before a pilot feels it"),
    BREAK_FOR("day.breakFor", Group.DAY, "Length of a break", "min", 15, 0, 120, "away from the controls"),
    PACK_UP("day.packUp", Group.DAY, "Packing up", "min", 15, 0, 480, "with everything counted back in"),
    KEEP_FREE(
            "day.keepFree",
            Group.DAY,
            "Kept free",
            "%",
            10,
            0,
            90,
            "of the sum, for what comes up: people walking in, a gust, a retake"),
    WAY_SPEED(
            "way.speed",
            Group.WAY,
            "Speed over the straight line",
            "km/h",
            45,
            5,
            130,
            "roads are longer than the line between two places"),
    WAY_SETTLE("way.settle", Group.WAY, "Besides the drive", "min", 30, 0, 240, "loading, parking, a rest"),
    WAY_SAME("way.same", Group.WAY, "The same place within", "m", 500, 0, 10_000, "nearer than this nobody drives"),
    WAY_NIGHT("way.night", Group.WAY, "A night lies between after", "h", 10, 1, 24, "then the way is not reckoned"),
    PACK_RESERVE(
            "shots.reserve",
            Group.SHOTS,
            "Charge kept for landing",
            "%",
            30,
            10,
            70,
            "of the minutes of a pack; some houses land at 20 %, over water none should"),
    TRANSIT("shots.transit", Group.SHOTS, "To the first shot and back", "min", 2.4, 0, 30, "of each pack, not filmed");

    /** What a figure belongs to. */
    public enum Group {
        DAY("A day at the place"),
        WAY("From one job to the next"),
        SHOTS("Shots and packs");

        private final String words;

        Group(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private static final Map<String, HouseFigure> BY_CODE =
            Arrays.stream(values()).collect(Collectors.toMap(HouseFigure::code, Function.identity()));

    private final String code;
    private final Group group;
    private final String label;
    private final String unit;
    private final double usual;
    private final double least;
    private final double most;
    private final String why;

    HouseFigure(
            String code, Group group, String label, String unit, double usual, double least, double most, String why) {
        this.code = code;
        this.group = group;
        this.label = label;
        this.unit = unit;
        this.usual = usual;
        this.least = least;
        this.most = most;
        this.why = why;
    }

    /** Empty for a code that is none. */
    public static Optional<HouseFigure> of(String code) {
        return Optional.ofNullable(BY_CODE.get(code));
    }

    public String code() {
        return code;
    }

    public Group group() {
        return group;
    }

    public String label() {
        return label;
    }

    /** "min", "%", "km/h", "m" or "h"; empty for a number. */
    public String unit() {
        return unit;
    }

    /** In its unit, while the house has not chosen. */
    public double usual() {
        return usual;
    }

    public double least() {
        return least;
    }

    public double most() {
        return most;
    }

    /** Why it is so while the house has not chosen. */
    public String why() {
        return why;
    }
}
