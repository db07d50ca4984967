package yarrek.core.rulebook;

import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Optional;
import yarrek.core.time.TimeWindow;

/**
 * What follows from whose the operator, the papers and the place are, and from the local hours. What was said by hand stands
 * before what is worked out here.
 */
public final class StateFacts {
    private static final LocalTime QUIET_FROM = LocalTime.of(22, 0);
    private static final LocalTime QUIET_TO = LocalTime.of(6, 0);

    private StateFacts() {}

    /**
     * @param home the operator's law, such as "EU-DE"; a union without its state leaves open which
     * @param place the law of the place
     * @param held papers of operator, pilot and aircraft
     */
    public static void put(Facts.Builder b, String home, String place, List<PaperHeld> held, PaperKinds kinds) {
        Facts known = b.build();
        boolean union = Places.widest(place).equals("EU");
        boolean homeInUnion = Places.widest(home).equals("EU");
        if (union) {
            yesNo(b, known, "thirdCountryOperator", !homeInUnion, "home of the operator: " + home);
            if (homeInUnion && !home.equals("EU") && !place.equals("EU")) {
                yesNo(b, known, "foreignState", !home.equals(place), "home of the operator: " + home);
            }
        }
        foreign(held, place, kinds)
                .ifPresent(f -> yesNo(b, known, "foreignCrewOrAircraft", f, "certificates and registrations on file"));
    }

    /**
     * Whether pilot or aircraft bring only foreign papers: certain when there are some and none counts here, or when one of
     * each does; a pilot or an aircraft without any paper is no foreigner and no local.
     */
    private static Optional<Boolean> foreign(List<PaperHeld> held, String place, PaperKinds kinds) {
        List<PaperHeld> certificates = held.stream()
                .filter(p -> kinds.is(p.kind(), k -> k.home().equals(Optional.of(PaperKind.Home.CERTIFICATE))))
                .toList();
        List<PaperHeld> registrations = held.stream()
                .filter(p -> kinds.is(p.kind(), k -> k.home().equals(Optional.of(PaperKind.Home.REGISTRATION))))
                .toList();
        boolean strange = (!certificates.isEmpty() && certificates.stream().noneMatch(p -> here(p, place)))
                || (!registrations.isEmpty() && registrations.stream().noneMatch(p -> here(p, place)));
        boolean local = certificates.stream().anyMatch(p -> here(p, place))
                && registrations.stream().anyMatch(p -> here(p, place));
        return strange ? Optional.of(true) : local ? Optional.of(false) : Optional.empty();
    }

    private static boolean here(PaperHeld p, String place) {
        return p.countsIn(Optional.of(Places.widest(place)));
    }

    /** Whether any of the hours lies in the night rest, 22:00 included to 06:00 not included, local time of the place. */
    public static void hours(Facts.Builder b, List<TimeWindow> windows) {
        Facts known = b.build();
        if (!windows.isEmpty()) {
            yesNo(
                    b,
                    known,
                    "quietHours",
                    windows.stream().anyMatch(w -> quiet(w, known)),
                    "local hours of the job against 22:00 to 06:00");
        }
    }

    private static boolean quiet(TimeWindow w, Facts facts) {
        ZonedDateTime from = w.start().atZone(facts.zone());
        ZonedDateTime to = w.end().atZone(facts.zone());
        return from.toLocalTime().isBefore(QUIET_TO)
                || !from.toLocalTime().isBefore(QUIET_FROM)
                || !to.isBefore(from.toLocalDate().atTime(QUIET_FROM).atZone(facts.zone()));
    }

    private static void yesNo(Facts.Builder b, Facts known, String fact, boolean value, String source) {
        if (known.get(fact).isEmpty()) {
            b.yesNo(fact, value, source);
        }
    }
}
