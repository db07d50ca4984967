package yarrek.core.airspace;

import java.util.Locale;
import java.util.Optional;
import java.util.Set;
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
        airspaceClass(b, look, known);
        met(look, m -> m.zone().kind() == ZoneKind.EMERGENCY && m.meeting() != Zone.Meeting.NOT_KNOWN)
                .ifPresent(m ->
                        b.yesNo("emergency.ongoing", true, "zone " + m.zone().name()));
        unlock(b, look, known);
        if (whole
                && met(
                                look,
                                m -> m.zone().kind() == ZoneKind.AERODROME
                                        || m.zone().isControlled())
                        .isEmpty()) {
            flag(b, known, true, "airspace.flightRestrictionZone", Optional.empty());
        }
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

    /** Facts that a zone of this kind settles, by which a rule speaks of it. */
    static Set<String> namesOf(Zone z) {
        if (z.isControlled()) {
            return Set.of("airspace.controlled", "airspace.class");
        }
        return switch (z.kind()) {
            case RESTRICTED, PROHIBITED, DANGER -> Set.of("airspace.restricted");
            case TEMPORARY -> Set.of("airspace.notice");
            case EMERGENCY -> Set.of("fireDistanceM");
            default -> Set.of();
        };
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

    /** The nearest of any sort is the least that the nearest of a certain sort can be: which sort it is nobody guesses. */
    private static void distance(
            Facts.Builder b, SiteLook look, Facts known, boolean whole, ZoneKind kind, String... sorts) {
        SiteLook.Neighbour n = look.nearest().get(kind);
        if (n == null || !whole) {
            return;
        }
        for (String sort : sorts) {
            String fact = "aerodrome." + sort + "DistanceM";
            if (known.get(fact).isEmpty()) {
                b.atLeast(
                        fact,
                        n.distanceM(),
                        "edge of the nearest " + kind.words() + " of any sort on file, "
                                + n.zone().name() + ": the least it can be");
            }
        }
    }

    /** The class of controlled airspace met, the strictest first; class E that reaches the ground is a surface area. */
    private static void airspaceClass(Facts.Builder b, SiteLook look, Facts known) {
        if (known.get("airspace.class").isPresent()) {
            return;
        }
        look.pressing().stream()
                .filter(m -> m.zone().kind().isLaw() && m.zone().isControlled())
                .filter(m -> m.meeting() != Zone.Meeting.NOT_KNOWN)
                .map(SiteLook.Met::zone)
                .filter(z -> z.airspaceClass().isPresent())
                .min(java.util.Comparator.comparing(AirspaceFacts::classOf))
                .ifPresent(z -> b.word("airspace.class", classOf(z), "zone " + z.name()));
    }

    private static String classOf(Zone z) {
        String letter = z.airspaceClass().orElseThrow().toUpperCase(Locale.ROOT).substring(0, 1);
        boolean surface = z.kind() == ZoneKind.CONTROL_ZONE
                || (z.lower().reference() == HeightLimit.Reference.GROUND
                        && z.lower().value() <= 0);
        return letter.equals("E") && surface ? "ESurface" : letter;
    }

    /** The maker's map says whether the aircraft takes off at all; it is technical and no matter of law. */
    private static void unlock(Facts.Builder b, SiteLook look, Facts known) {
        if (known.get("unlock.needed").isEmpty()) {
            look.pressing().stream()
                    .filter(m -> m.zone().kind() == ZoneKind.MAKER && m.meeting() != Zone.Meeting.NOT_KNOWN)
                    .filter(m -> m.zone().restriction() == ZoneMet.Restriction.PROHIBITED
                            || m.zone().restriction() == ZoneMet.Restriction.NEEDS_AUTHORISATION)
                    .findFirst()
                    .ifPresent(m -> b.yesNo(
                            "unlock.needed",
                            true,
                            "the maker's map: " + m.zone().name()));
        }
    }

    /** Whether a zone asks anything of anybody who flies. */
    public static boolean asks(Zone z) {
        return z.kind().isLaw() && z.restriction() != ZoneMet.Restriction.NO_RESTRICTION;
    }
}
