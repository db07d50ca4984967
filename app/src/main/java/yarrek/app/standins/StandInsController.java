package yarrek.app.standins;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import org.springframework.context.annotation.Profile;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrek.app.page.OpenTo;
import yarrek.core.units.NamedUnit;

/** A simulated weather station and a simulated feed of notices. The same hour and place always give the same weather. */
@RestController
@Profile("demo")
class StandInsController {
    private static final DateTimeFormatter REPORT =
            DateTimeFormatter.ofPattern("ddHHmm'Z'", Locale.ROOT).withZone(ZoneOffset.UTC);
    private static final DateTimeFormatter NOTICE =
            DateTimeFormatter.ofPattern("yyMMddHHmm", Locale.ROOT).withZone(ZoneOffset.UTC);
    private static final int HOURS_AHEAD = 96;

    private final Clock clock;

    StandInsController(Clock clock) {
        this.clock = clock;
    }

    /** Waves of several periods over the hours since the epoch, moved by the place. */
    private record Sky(Instant at, double shift) {
        private double wave(double hours, double phase) {
            return Math.sin(2 * Math.PI * (at.getEpochSecond() / 3600.0 / hours + shift) + phase);
        }

        private double wind() {
            return 5.2 + 2.1 * wave(37, 0) + 1.2 * wave(24, -1.8) + 0.5 * wave(11, 1);
        }

        private double gust() {
            return wind() * 1.35 + 0.6;
        }

        private int from() {
            return (int) Math.round(250 + 50 * wave(53, 0.4)) / 10 * 10;
        }

        private double temperature() {
            return 12.5 + 3 * wave(24, -2.1) + 1.5 * wave(101, 0);
        }

        private double dew() {
            return Math.min(temperature() - 0.4, 8.5 + 1.8 * wave(61, 0.7));
        }

        private boolean rain() {
            return wave(43, 2) > 0.82;
        }

        private double cloud() {
            return Math.max(90, 125 * (temperature() - dew()));
        }

        private double visibility() {
            return rain() ? 6000 : temperature() - dew() < 1 ? 2500 : 10_000;
        }
    }

    private static Sky sky(Instant at, double lat, double lon) {
        return new Sky(at.truncatedTo(ChronoUnit.HOURS), (lat + lon) / 40);
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping(value = "/stand-ins/weather/report", produces = MediaType.TEXT_PLAIN_VALUE)
    String report(@RequestParam("lat") double lat, @RequestParam("lon") double lon) {
        Instant at = clock.instant().truncatedTo(ChronoUnit.HOURS);
        Sky s = sky(at, lat, lon);
        long knots = Math.round(s.wind() / NamedUnit.KNOT.factor());
        long gusts = Math.round(s.gust() / NamedUnit.KNOT.factor());
        return String.format(
                Locale.ROOT,
                "METAR XSIM %s %03d%02d%sKT %s %s%s %s/%s Q%04.0f RMK SIMULATED STATION%n",
                REPORT.format(at),
                Math.floorMod(s.from(), 360),
                knots,
                gusts >= knots + 10 ? String.format(Locale.ROOT, "G%02d", gusts) : "",
                s.visibility() >= 10_000 ? "9999" : String.format(Locale.ROOT, "%04.0f", s.visibility()),
                s.rain() ? "-RA " : "",
                String.format(Locale.ROOT, "BKN%03.0f", s.cloud() / NamedUnit.FOOT.factor() / 100),
                celsius(s.temperature()),
                celsius(s.dew()),
                1013 + 9 * s.wave(97, 0));
    }

    private static String celsius(double c) {
        return (c < -0.5 ? "M" : "") + String.format(Locale.ROOT, "%02d", Math.abs(Math.round(c)));
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping(value = "/stand-ins/weather/forecast.csv", produces = "text/csv")
    String forecast(@RequestParam("lat") double lat, @RequestParam("lon") double lon) {
        StringBuilder out = new StringBuilder(
                "time,windFromDeg,windMps,gustMps,temperatureC,dewPointC,visibilityM,cloudBaseM,rain\n");
        Instant start = clock.instant().truncatedTo(ChronoUnit.HOURS);
        for (int h = 0; h <= HOURS_AHEAD; h++) {
            Sky s = sky(start.plus(h, ChronoUnit.HOURS), lat, lon);
            out.append(String.format(
                    Locale.ROOT,
                    "%s,%d,%.1f,%.1f,%.1f,%.1f,%.0f,%.0f,%s%n",
                    s.at(),
                    Math.floorMod(s.from(), 360),
                    s.wind(),
                    s.gust(),
                    s.temperature(),
                    s.dew(),
                    s.visibility(),
                    s.cloud(),
                    s.rain() ? "yes" : "no"));
        }
        return out.toString();
    }

    /** Three invented notices around now, one with an estimated end and a schedule. */
    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping(value = "/stand-ins/notices", produces = MediaType.TEXT_PLAIN_VALUE)
    String notices() {
        Instant day = clock.instant().truncatedTo(ChronoUnit.DAYS);
        String year = DateTimeFormatter.ofPattern("yy", Locale.ROOT)
                .withZone(ZoneOffset.UTC)
                .format(day);
        return notice(
                        "A0412/" + year,
                        "QRTCA",
                        "000/005",
                        "4634N01750W002",
                        day.plus(9, ChronoUnit.DAYS),
                        day.plus(11, ChronoUnit.DAYS),
                        "",
                        "DAILY 0900-1700",
                        "SIMULATED NOTICE. TEMPORARY RESTRICTED AREA FOR REGATTA WITHIN 463500N0175100W 463500N0174830W 463245N0174830W 463245N0175100W.",
                        "SFC",
                        "1500FT AMSL")
                + notice(
                        "A0413/" + year,
                        "QWPLW",
                        "000/100",
                        "4637N01754W002",
                        day.minus(2, ChronoUnit.DAYS),
                        day.plus(20, ChronoUnit.DAYS),
                        " EST",
                        "",
                        "SIMULATED NOTICE. PARACHUTE JUMPING RADIUS 1500M CENTRED 463930N0175800W.",
                        "SFC",
                        "FL100")
                + notice(
                        "A0414/" + year,
                        "QOBCE",
                        "000/003",
                        "4637N01753W001",
                        day.minus(6, ChronoUnit.DAYS),
                        null,
                        "",
                        "",
                        "SIMULATED NOTICE. CRANE ERECTED RADIUS 120M CENTRED 463618N0175042W HEIGHT 48M AGL.",
                        "SFC",
                        "160FT AGL");
    }

    private static String notice(
            String id,
            String code,
            String levels,
            String where,
            Instant from,
            Instant to,
            String end,
            String schedule,
            String text,
            String lower,
            String upper) {
        return "%s NOTAMN%nQ) XSIM/%s/IV/BO/W/%s/%s%nA) XSIM B) %s C) %s%n%sE) %s%nF) %s G) %s%n%n"
                .formatted(
                        id,
                        code,
                        levels,
                        where,
                        NOTICE.format(from),
                        to == null ? "PERM" : NOTICE.format(to) + end,
                        schedule.isEmpty() ? "" : "D) " + schedule + "\n",
                        text,
                        lower,
                        upper);
    }
}
