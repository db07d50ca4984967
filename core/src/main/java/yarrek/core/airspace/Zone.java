package yarrek.core.airspace;

import java.util.Optional;
import java.util.OptionalDouble;
import yarrek.core.geo.Area;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Finite;

/**
 * A zone as published or drawn by the operator.
 *
 * @param id its identity among all zones on file
 * @param airspaceClass A to G as published; empty when it has none
 * @param area the ground it stands on, its own buffer included
 * @param bindsFromG take-off mass in grams from which it binds, included; empty for every mass
 * @param message what the zone asks, in the publisher's words
 * @param authority who answers for it; empty when the publisher does not say
 * @param contact telephone, mail or radio of the authority
 */
public record Zone(
        String id,
        String name,
        ZoneKind kind,
        Optional<String> airspaceClass,
        ZoneMet.Restriction restriction,
        Area area,
        HeightLimit lower,
        HeightLimit upper,
        Timetable times,
        OptionalDouble bindsFromG,
        String message,
        String authority,
        String contact) {

    /** How a plan meets a zone, the most pressing first. */
    public enum Meeting {
        MEETS,
        NOT_KNOWN,
        TOUCHES,
        CLEAR
    }

    /** The same zone on other ground. */
    public Zone on(Area ground) {
        return new Zone(
                id,
                name,
                kind,
                airspaceClass,
                restriction,
                ground,
                lower,
                upper,
                times,
                bindsFromG,
                message,
                authority,
                contact);
    }

    /** Whether it binds an aircraft of this take-off mass; one that binds from a mass binds while the mass is not known. */
    public boolean bindsAt(OptionalDouble takeoffMassG) {
        return bindsFromG.isEmpty() || takeoffMassG.isEmpty() || takeoffMassG.getAsDouble() >= bindsFromG.getAsDouble();
    }

    public boolean isCaution() {
        return kind.isCaution();
    }

    /** Classes A to E are controlled; so is a control zone whose class is not published. */
    public boolean isControlled() {
        return airspaceClass.map(c -> "ABCDE".contains(c.substring(0, 1))).orElse(kind == ZoneKind.CONTROL_ZONE);
    }

    /**
     * Whether a plan from the ground up to a height reaches the zone's heights.
     *
     * @param greatestHeightM above ground in metres; empty when not known, and then any height is taken to be reached
     */
    public Meeting heights(OptionalDouble greatestHeightM, Ground ground) {
        Optional<HeightLimit.Span> top = upper.aboveGround(ground);
        if (top.isPresent() && top.get().greatestM() < 0) {
            return Meeting.CLEAR;
        }
        boolean groundLevel = lower.reference() == HeightLimit.Reference.GROUND && lower.value() <= 0;
        Optional<HeightLimit.Span> bottom = lower.aboveGround(ground);
        if (bottom.isEmpty()) {
            return Meeting.NOT_KNOWN;
        }
        boolean below = greatestHeightM.isPresent()
                && !groundLevel
                && greatestHeightM.getAsDouble() < bottom.get().leastM();
        if (below) {
            return Meeting.CLEAR;
        }
        if (top.isEmpty() || top.get().leastM() < 0) {
            // an upper limit near or below the ground counts only once the ground is known
            return groundLevel && top.isEmpty() && upper.metres() > LOFTY_M ? Meeting.MEETS : Meeting.NOT_KNOWN;
        }
        if (greatestHeightM.isEmpty() || groundLevel || bottom.get().greatestM() < 0) {
            return Meeting.MEETS;
        }
        double h = greatestHeightM.getAsDouble();
        if (h > bottom.get().greatestM()) {
            return Meeting.MEETS;
        }
        return bottom.get().leastM() == bottom.get().greatestM() ? Meeting.TOUCHES : Meeting.NOT_KNOWN;
    }

    /**
     * Why a plan is clear of the zone's heights, or why that is not known; for people.
     *
     * @param meeting what {@link #heights} says of the same plan
     */
    public String why(Meeting meeting, OptionalDouble greatestHeightM, Ground ground) {
        if (meeting == Meeting.CLEAR) {
            boolean ends =
                    upper.aboveGround(ground).filter(s -> s.greatestM() < 0).isPresent();
            return ends
                    ? "it ends at " + upper.words() + ", below the ground here"
                    : "it begins at " + lower.words() + "; the plan stays "
                            + (greatestHeightM.isEmpty()
                                    ? "below"
                                    : "at or below " + Finite.format(greatestHeightM.getAsDouble())
                                            + " m above ground");
        }
        if (meeting != Meeting.NOT_KNOWN) {
            return "";
        }
        String limits = "its limits (" + heights() + ") count from sea level or a pressure level, and ";
        if (ground.elevationM().isEmpty() || ground.reliefM().isEmpty()) {
            return limits + "the site's "
                    + (ground.elevationM().isPresent()
                            ? "relief is"
                            : ground.reliefM().isPresent() ? "elevation is" : "elevation and relief are")
                    + " not on file";
        }
        return limits + "they lie so near the ground or the plan's greatest height that elevation "
                + Finite.format(ground.elevationM().getAsDouble()) + " m ± "
                + Finite.format(ground.reliefM().getAsDouble())
                + " m, or the pressure of the day, decides";
    }

    /** An upper limit above the highest ground on earth (8,849 m) is above the ground wherever it is. */
    private static final double LOFTY_M = 8_849;

    /** Whether a point at a height above ground may be in the zone; the edge and both limits count as in. */
    public boolean mayContain(double latitudeDeg, double longitudeDeg, double heightM, Ground ground) {
        return reaches(heightM, ground) && area.locate(latitudeDeg, longitudeDeg) != Area.Side.OUTSIDE;
    }

    /** Whether a height above the take-off point in metres may lie between the zone's limits. */
    public boolean reaches(double heightM, Ground ground) {
        return lower.aboveGround(ground).map(s -> heightM >= s.leastM()).orElse(true)
                && upper.aboveGround(ground).map(s -> heightM <= s.greatestM()).orElse(true);
    }

    /** "ground to 120 m above ground". */
    public String heights() {
        return upper.reference() == HeightLimit.Reference.NO_LIMIT
                ? lower.words() + " and up"
                : lower.words() + " to " + upper.words();
    }

    /** "Control zone, class D". */
    public String sort() {
        return kind.words() + airspaceClass.map(c -> ", class " + c).orElse("");
    }
}
