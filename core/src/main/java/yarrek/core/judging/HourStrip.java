package yarrek.core.judging;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.SunFacts;
import yarrek.core.rulebook.Verdict;
import yarrek.core.time.Light;
import yarrek.core.time.TimeWindow;
import yarrek.core.units.Finite;
import yarrek.core.weather.Humidity;
import yarrek.core.weather.Observation;
import yarrek.core.weather.Report;
import yarrek.core.weather.WeatherFacts;
import yarrek.core.weather.Wind;

/**
 * A day at a place by the hour: light, wind at the height flown, and what the rules that speak of light or weather say of a
 * plan in that hour.
 *
 * @param heightM above ground at which the wind is reckoned
 * @param terrain what lies to windward; empty when the site does not say, and then no wind aloft is known
 * @param limitMps the maker's wind limit; empty when none is on file
 * @param scaleMps up to which wind is drawn
 * @param notes moisture, change of clocks and the like
 */
public record HourStrip(
        LocalDate day,
        ZoneId zone,
        Light.SunDay sun,
        List<Hour> hours,
        List<Window> windows,
        double heightM,
        Optional<Wind.Terrain> terrain,
        OptionalDouble limitMps,
        double scaleMps,
        List<String> notes,
        List<Report> reports) {
    private static final long HOUR_S = 3600;
    private static final double LOWEST_M = 2;
    private static final double LEAST_SCALE_MPS = 10;
    private static final double HEADROOM = 1.15;

    private static final Set<String> BY_THE_HOUR = Set.of(
            "light",
            "light.halfHour",
            "light.halfHourNight",
            "weather.windMps",
            "weather.gustMps",
            "weather.temperatureC",
            "weather.visibilityM",
            "weather.cloudBelowM",
            "weather.cloudHorizontalM",
            "weather.inCloud",
            "weather.icing");

    /**
     * An hour of the day at the place.
     *
     * @param inJob some of it lies in the hours planned
     * @param report the report that speaks for its middle; empty when none does
     * @param windMps at the height flown; empty when not known
     * @param gustMps at the height flown; empty when not known
     * @param verdict the worst that is said of it
     * @param against titles of what is breached, close or not known
     */
    public record Hour(
            Instant start,
            Light light,
            boolean inJob,
            Optional<Report> report,
            OptionalDouble windMps,
            OptionalDouble gustMps,
            Verdict verdict,
            List<String> against) {}

    /** Hours in a row in which nothing on file speaks against the plan. */
    public record Window(Instant start, Instant end, boolean inJob) {}

    /**
     * What is looked at.
     *
     * @param planned hours of the plan; empty for a place without one
     * @param heightM greatest above ground; empty when not known
     * @param facts of the plan
     * @param packs by which it is judged
     * @param reports on file for the place and the day
     */
    public record Subject(
            ZoneId zone,
            Position launch,
            Optional<Wind.Terrain> terrain,
            List<TimeWindow> planned,
            OptionalDouble heightM,
            Facts facts,
            List<RulePack> packs,
            List<Report> reports) {}

    public static HourStrip of(Subject s, LocalDate day) {
        double height = s.heightM().isEmpty()
                ? WeatherFacts.USUAL_HEIGHT_M
                : Math.max(LOWEST_M, s.heightM().getAsDouble());
        List<RulePack> packs =
                s.packs().stream().map(p -> p.only(HourStrip::byTheHour)).toList();
        Instant end = day.plusDays(1).atStartOfDay(s.zone()).toInstant();
        List<Hour> hours = new ArrayList<>();
        for (Instant h = day.atStartOfDay(s.zone()).toInstant(); h.isBefore(end); h = h.plusSeconds(HOUR_S)) {
            hours.add(hour(h, s, packs, height));
        }
        OptionalDouble limit = s.facts()
                .get("maker.windMps")
                .map(k -> OptionalDouble.of(((FactValue.Quantity) k.value()).value()))
                .orElseGet(OptionalDouble::empty);
        double most = hours.stream()
                .flatMap(h -> Stream.of(h.windMps(), h.gustMps()))
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .max()
                .orElse(0);
        return new HourStrip(
                day,
                s.zone(),
                Light.day(day, s.zone(), s.launch()),
                List.copyOf(hours),
                windows(hours),
                height,
                s.terrain(),
                limit,
                Math.max(LEAST_SCALE_MPS, Math.ceil(Math.max(most, limit.orElse(0)) * HEADROOM)),
                notes(s, hours.size()),
                s.reports());
    }

    private static Hour hour(Instant h, Subject s, List<RulePack> packs, double height) {
        TimeWindow window = new TimeWindow(h, h.plusSeconds(HOUR_S - 1));
        Optional<Report> report = Report.covering(
                        s.reports(), List.of(new TimeWindow(Report.middleOfHour(h), Report.middleOfHour(h))))
                .map(l -> l.get(0));
        List<Finding> found = Assessment.of(facts(window, s, report), packs).findings().stream()
                .filter(f -> f.waiver().isEmpty())
                .toList();
        List<String> breached = titles(found, Verdict.BREACHED);
        List<String> unknown = titles(found, Verdict.NOT_KNOWN);
        List<String> close = titles(found, Verdict.CLOSE);
        boolean known = report.isPresent() && s.terrain().isPresent();
        Verdict verdict = !breached.isEmpty()
                ? Verdict.BREACHED
                : !known || !unknown.isEmpty() ? Verdict.NOT_KNOWN : close.isEmpty() ? Verdict.MET : Verdict.CLOSE;
        return new Hour(
                h,
                Light.darkestIn(window, s.launch()),
                s.planned().stream()
                        .anyMatch(
                                w -> w.start().isBefore(window.end()) && w.end().isAfter(h)),
                report,
                aloft(report.map(Report::observation), Observation::windMps, s, height),
                aloft(report.map(Report::observation), Observation::gustMps, s, height),
                verdict,
                switch (verdict) {
                    case BREACHED -> breached;
                    case CLOSE -> told("close to ", close);
                    case MET -> List.of();
                    default ->
                        report.isEmpty()
                                ? List.of("no weather on file")
                                : s.terrain().isEmpty()
                                        ? List.of("terrain of the site not known")
                                        : told("not known: ", unknown);
                });
    }

    /** The facts of the plan with those that change by the hour as they are in one. */
    private static Facts facts(TimeWindow window, Subject s, Optional<Report> report) {
        Facts.Builder b = s.facts().toBuilder();
        b.windows(List.of(window));
        BY_THE_HOUR.forEach(b::without);
        SunFacts.put(b, List.of(window), s.launch());
        if (report.isPresent() && s.terrain().isPresent()) {
            WeatherFacts.put(
                    b,
                    List.of(report.get().observation()),
                    s.heightM(),
                    s.terrain().get(),
                    report.get().kind().words());
        }
        return b.build();
    }

    private static OptionalDouble aloft(
            Optional<Observation> o, Function<Observation, OptionalDouble> which, Subject s, double height) {
        OptionalDouble measured = o.map(which).orElseGet(OptionalDouble::empty);
        return measured.isEmpty() || s.terrain().isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(Wind.at(
                        measured.getAsDouble(),
                        o.orElseThrow().windHeightM(),
                        height,
                        s.terrain().get()));
    }

    private static List<String> told(String how, List<String> titles) {
        return List.of(how + String.join(", ", titles));
    }

    private static List<String> titles(List<Finding> found, Verdict v) {
        return found.stream()
                .filter(f -> f.verdict() == v)
                .map(f -> f.rule().title())
                .distinct()
                .toList();
    }

    /** Whether a rule speaks of light or weather. */
    private static boolean byTheHour(Rule r) {
        return r.requires().factNames().stream().anyMatch(BY_THE_HOUR::contains)
                || r.appliesWhen().factNames().stream().anyMatch(BY_THE_HOUR::contains);
    }

    private static List<Window> windows(List<Hour> hours) {
        List<Window> found = new ArrayList<>();
        Instant from = null;
        boolean job = false;
        for (int i = 0; i <= hours.size(); i++) {
            Verdict v = i < hours.size() ? hours.get(i).verdict() : Verdict.BREACHED;
            boolean fine = v == Verdict.MET || v == Verdict.CLOSE;
            if (fine) {
                from = from == null ? hours.get(i).start() : from;
                job |= hours.get(i).inJob();
            } else if (from != null) {
                found.add(new Window(from, hours.get(i - 1).start().plusSeconds(HOUR_S), job));
                from = null;
                job = false;
            }
        }
        return List.copyOf(found);
    }

    private static List<String> notes(Subject s, int hours) {
        List<String> notes = new ArrayList<>();
        if (hours != 24) {
            notes.add("The clocks change on this day: it has " + hours + " hours.");
        }
        if (s.terrain().isEmpty()) {
            notes.add("The site does not say what ground lies to windward, so the wind at flight height is not known.");
        }
        if (s.heightM().isEmpty()) {
            notes.add("The height above ground is not known; wind is reckoned at "
                    + Finite.format(WeatherFacts.USUAL_HEIGHT_M) + " m.");
        }
        s.reports().stream()
                .map(Report::observation)
                .filter(o -> o.spreadK().isPresent())
                .min(Comparator.comparingDouble(o -> o.spreadK().getAsDouble()))
                .ifPresent(o -> notes.add(
                        moisture(o.temperatureC().getAsDouble(), o.dewPointC().getAsDouble())));
        return List.copyOf(notes);
    }

    private static String moisture(double temperatureC, double dewPointC) {
        return String.format(
                        Locale.UK,
                        "Least spread %.1f K (%.0f %% humidity, lifted cloud about %.0f m).",
                        temperatureC - dewPointC,
                        Humidity.relativePct(temperatureC, dewPointC),
                        Humidity.cloudBaseM(temperatureC, dewPointC))
                + (Humidity.icingLikely(temperatureC, dewPointC) ? " Moisture may freeze on propellers." : "")
                + (Humidity.fogNear(temperatureC, dewPointC) ? " Fog or a misted lens is near." : "");
    }
}
