package yarrek.core.airspace;

import java.time.LocalDate;
import java.time.MonthDay;
import java.util.List;
import java.util.Optional;
import yarrek.core.geo.Area;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Finite;

/**
 * A zone as published or drawn by the operator.
 *
 * @param kind such as aerodrome, heliport, reserve, harbour, controlled, caution
 * @param lowerM lower limit in metres above ground, included
 * @param upperM upper limit in metres above ground, included; empty when there is none
 * @param seasonFrom first day of the season in which it is in force each year, included; empty when always
 * @param seasonThrough last day of the season, included
 * @param message what the zone asks, in the publisher's words
 */
public record Zone(
        String id,
        String name,
        String kind,
        ZoneMet.Restriction restriction,
        Area area,
        double lowerM,
        Optional<Double> upperM,
        Optional<MonthDay> seasonFrom,
        Optional<MonthDay> seasonThrough,
        String message) {

    /** Kinds that make an area one of caution for aircraft below the lightest class (house rule). */
    public boolean isCaution() {
        return kind.equals("controlled") || kind.equals("caution") || kind.equals("aerodrome");
    }

    public boolean inForceOn(LocalDate day) {
        if (seasonFrom.isEmpty() || seasonThrough.isEmpty()) {
            return true;
        }
        MonthDay d = MonthDay.from(day);
        MonthDay from = seasonFrom.get();
        MonthDay through = seasonThrough.get();
        return from.isAfter(through)
                ? !d.isBefore(from) || !d.isAfter(through)
                : !d.isBefore(from) && !d.isAfter(through);
    }

    public boolean inForceOnAny(List<LocalDate> days) {
        return days.isEmpty() || days.stream().anyMatch(this::inForceOn);
    }

    /**
     * Whether and how a planned area from the ground up to a height meets the zone.
     *
     * @param greatestHeightM above ground; empty when not known, and then any height is taken to be reached
     * @return empty when they do not meet; otherwise true when they only touch
     */
    public Optional<Boolean> touches(Area planned, Optional<Double> greatestHeightM) {
        if (greatestHeightM.map(h -> h < lowerM).orElse(false) || !area.meets(planned)) {
            return Optional.empty();
        }
        boolean edge = area.onlyTouches(planned)
                || (lowerM > 0 && greatestHeightM.map(h -> h == lowerM).orElse(false));
        return Optional.of(edge);
    }

    /** Whether a point at a height above ground is in the zone; the edge and both limits count as in. */
    public boolean contains(double latitudeDeg, double longitudeDeg, double heightM) {
        return heightM >= lowerM
                && upperM.map(u -> heightM <= u).orElse(true)
                && area.locate(latitudeDeg, longitudeDeg) != Area.Side.OUTSIDE;
    }

    /** "always", or "from 1 March through 31 July". */
    public String when() {
        return seasonFrom.isEmpty() || seasonThrough.isEmpty()
                ? "always"
                : "from " + words(seasonFrom.get()) + " through " + words(seasonThrough.get());
    }

    private static String words(MonthDay d) {
        return d.getDayOfMonth() + " "
                + d.getMonth().getDisplayName(java.time.format.TextStyle.FULL, java.util.Locale.UK);
    }

    /** "ground to 120 m", "30 m and up". */
    public String heights() {
        String low = lowerM == 0 ? "ground" : Finite.format(lowerM) + " m";
        return upperM.map(u -> low + " to " + Finite.format(u) + " m").orElse(low + " and up");
    }
}
