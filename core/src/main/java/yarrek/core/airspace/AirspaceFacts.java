package yarrek.core.airspace;

import java.util.Locale;
import java.util.Optional;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.ZoneMet;

/**
 * What a look at the zones says in the words of the rules. What is met is a fact; that nothing is met is one only when a
 * current source says that it holds every zone. What a person answered about an aerodrome stands before what is measured
 * here, for a source seldom says whether an aerodrome is certified or controlled.
 */
public final class AirspaceFacts {
    private AirspaceFacts() {}

    /**
     * @param known facts there already
     * @param whole a current source says that it holds every zone and aerodrome of the place
     */
    public static void put(Facts.Builder b, SiteLook look, Facts known, boolean whole) {
        boolean caution = met(look, m -> m.zone().isCaution()).isPresent();
        b.yesNo("cautionArea", caution, "the area against the zones on file");
        flag(b, known, whole, "airspace.controlled", met(look, m -> m.zone().isControlled()));
        flag(
                b,
                known,
                whole,
                "airspace.restricted",
                met(
                        look,
                        m -> m.zone().kind() == ZoneKind.RESTRICTED
                                || m.zone().kind() == ZoneKind.PROHIBITED
                                || m.zone().kind() == ZoneKind.DANGER));
        flag(b, known, whole, "airspace.notice", met(look, m -> m.zone().kind() == ZoneKind.TEMPORARY));
        met(look, m -> m.zone().airspaceClass().isPresent() && m.zone().isControlled())
                .filter(m -> known.get("airspace.class").isEmpty())
                .ifPresent(m -> b.word(
                        "airspace.class",
                        m.zone()
                                .airspaceClass()
                                .orElseThrow()
                                .toUpperCase(Locale.ROOT)
                                .substring(0, 1),
                        "zone " + m.zone().name()));
        distance(
                b,
                look,
                known,
                whole,
                ZoneKind.AERODROME,
                "airport",
                "military",
                "listed",
                "controlled",
                "uncontrolled");
        distance(b, look, known, whole, ZoneKind.HELIPORT, "heliport");
        Optional.ofNullable(look.nearest().get(ZoneKind.EMERGENCY))
                .ifPresent(n -> b.quantity(
                        "fireDistanceM",
                        n.distanceM(),
                        0,
                        "nearest emergency on file: " + n.zone().name()));
        Optional.ofNullable(look.nearest().get(ZoneKind.BUILT_UP))
                .filter(n -> known.get("builtUpDistanceM").isEmpty())
                .ifPresent(n -> b.quantity(
                        "builtUpDistanceM",
                        n.distanceM(),
                        0,
                        "nearest built-up area on file: " + n.zone().name()));
    }

    private static Optional<SiteLook.Met> met(SiteLook look, java.util.function.Predicate<SiteLook.Met> which) {
        return look.pressing().stream()
                .filter(m -> m.zone().kind().isLaw())
                .filter(which)
                .findFirst();
    }

    private static void flag(Facts.Builder b, Facts known, boolean whole, String fact, Optional<SiteLook.Met> met) {
        if (met.isPresent() && met.get().meeting() != Zone.Meeting.NOT_KNOWN) {
            b.yesNo(fact, true, "zone " + met.get().zone().name());
        } else if (met.isEmpty() && whole && known.get(fact).isEmpty()) {
            b.yesNo(fact, false, "no such zone in a current source that holds them all");
        }
    }

    /** The nearest of any sort is the least that the nearest of a certain sort can be. */
    private static void distance(
            Facts.Builder b, SiteLook look, Facts known, boolean whole, ZoneKind kind, String... sorts) {
        SiteLook.Neighbour n = look.nearest().get(kind);
        if (n == null || !whole) {
            return;
        }
        for (String sort : sorts) {
            String fact = "aerodrome." + sort + "DistanceM";
            if (known.get(fact).isEmpty()) {
                b.quantity(
                        fact,
                        n.distanceM(),
                        0,
                        "edge of the nearest " + kind.words() + " of any sort on file, "
                                + n.zone().name() + ": the least it can be");
            }
        }
    }

    /** Whether a zone asks anything of anybody who flies. */
    public static boolean asks(Zone z) {
        return z.kind().isLaw() && z.restriction() != ZoneMet.Restriction.NO_RESTRICTION;
    }
}
