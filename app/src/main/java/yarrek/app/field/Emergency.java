package yarrek.app.field;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Directory;
import yarrek.app.airspace.Sites;
import yarrek.app.airspace.Weather;
import yarrek.app.approvals.Kinds;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.core.airspace.FlyAway;
import yarrek.core.geo.Position;
import yarrek.core.geo.PositionText;
import yarrek.core.units.Finite;
import yarrek.core.units.Length;
import yarrek.core.weather.Observation;
import yarrek.core.weather.Report;
import yarrek.core.weather.Wind;

/** The emergency card of a job: whom to call, what to say, where it can be. */
@Service
public class Emergency {
    private static final String[] WINDS = {
        "north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"
    };

    /** What helps whatever happened, in this order: people first, then the aircraft, then the record. */
    private static final List<String> FIRST = List.of(
            "Call out. Everybody looks up; clear the ground under it.",
            "Let go of the sticks; press return once, and give it some seconds. Leave the controller switched on.",
            "No answer: turn the antennas to it, go higher, go nearer, if the ground allows.",
            "Stop the motors only to keep it from hitting somebody; it comes down where it is.",
            "Note the time, where it was last seen, how high, and where it was heading.",
            "Then call. Keep one person looking.");

    /** One direction of the card that is made without a heading: where it is after some minutes. */
    public record Direction(String words, double headingDeg, List<FlyAway.Minute> minutes) {}

    /** The same hour in local time and UTC. */
    public record Clock(String local, String utc, boolean otherDay) {}

    /**
     * @param first what to do before anybody is called, in order
     * @param firstFrom whose words these are
     * @param urgent whom to call, in order
     * @param others land, maker and the like
     * @param help the nearest of each kind of help with a place on file
     * @param typed the position in each notation
     * @param spoken the position as it is spoken on the radio
     * @param say sentences to say, blanks to fill as "…"
     * @param windKnown the reach has the wind in it
     * @param assumed what was assumed for want of a figure
     */
    public record Card(
            Jobs.JobView job,
            List<String> first,
            String firstFrom,
            List<Directory.Nearby> urgent,
            List<Directory.Nearby> others,
            List<Directory.Nearby> help,
            List<String> typed,
            String spoken,
            List<String> say,
            FlyAway.Asked asked,
            List<FlyAway.Minute> onHeading,
            List<Direction> directions,
            List<FlyAway.Above> above,
            String wind,
            boolean windKnown,
            List<Clock> clocks,
            List<String> assumed,
            Instant asOf) {}

    private final Airspace airspace;
    private final Directory directory;
    private final Weather weather;
    private final Office office;
    private final Kinds kinds;
    private final java.time.Clock clock;

    Emergency(
            Airspace airspace,
            Directory directory,
            Weather weather,
            Office office,
            Kinds kinds,
            java.time.Clock clock) {
        this.kinds = kinds;
        this.airspace = airspace;
        this.directory = directory;
        this.weather = weather;
        this.office = office;
        this.clock = clock;
    }

    /** What was typed; null parts take the job's own figures or the usual ones. */
    public record Given(Position from, Double headingDeg, Double speedMps, Double heightM, Integer minutes) {
        FlyAway.Given core() {
            return new FlyAway.Given(
                    Optional.ofNullable(from),
                    optional(headingDeg),
                    optional(speedMps),
                    optional(heightM),
                    minutes == null ? OptionalInt.empty() : OptionalInt.of(minutes));
        }
    }

    private static OptionalDouble optional(Double d) {
        return d == null ? OptionalDouble.empty() : OptionalDouble.of(d);
    }

    @Transactional(readOnly = true)
    public Card card(Jobs.JobView job, Given given) {
        Sites.SiteView site = job.site();
        // whichever of them it is that is gone
        OptionalDouble greatestSpeed = FlyAway.greatest(
                job.aircraft().stream().map(a -> a.model().maxLevelSpeedMps()).toList());
        Double planned = job.draft().greatestHeightM();
        FlyAway.Asked asked = FlyAway.asked(given.core(), site.launch(), greatestSpeed, optional(planned));
        List<String> assumed = new ArrayList<>(asked.assumed());
        Observation o = weatherNow(site);
        OptionalDouble from = o == null ? OptionalDouble.empty() : o.windFromDeg();
        double wind = o == null || o.windMps().isEmpty()
                ? 0
                : Wind.at(
                        o.windMps().getAsDouble(),
                        o.windHeightM(),
                        asked.windHeightM(),
                        site.terrain() == null ? Wind.Terrain.OPEN_LAND : site.terrain());
        if (o != null && o.windMps().isPresent() && site.terrain() == null) {
            assumed.add("open land to windward: the site does not say");
        }
        String windWords = o == null || o.windMps().isEmpty()
                ? "Wind not known: the figures are for still air, and it can be farther away than they say."
                : String.format(
                        Locale.UK,
                        "Wind %s, %.1f m/s at %.0f m, from the report of %s.",
                        from.isPresent()
                                ? String.format(Locale.UK, "from %03.0f°", from.getAsDouble())
                                : "of variable direction",
                        wind,
                        asked.windHeightM(),
                        DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.UK)
                                .withZone(site.zone())
                                .format(o.at()));
        List<Directory.Nearby> all = directory.forArea(site.area(), site.launch());
        List<Direction> directions = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            directions.add(new Direction(
                    WINDS[i],
                    i * 45,
                    FlyAway.sideways(
                                    asked.from(),
                                    i * 45,
                                    asked.speedMps(),
                                    from,
                                    wind,
                                    asked.minutes(),
                                    airspace.index())
                            .stream()
                            .filter(m -> m.minute() == 1 || m.minute() % 5 == 0)
                            .toList()));
        }
        Optional<List<String>> own = ownSteps();
        return new Card(
                job,
                own.orElse(FIRST),
                own.isPresent()
                        ? "procedures of the house"
                        : "general; the maker's manual and the pilot have the last word",
                all.stream().filter(n -> n.entry().role().isUrgent()).toList(),
                all.stream().filter(n -> !n.entry().role().isUrgent()).toList(),
                all.stream()
                        .filter(n -> n.distanceM() != null)
                        .sorted(java.util.Comparator.comparing(Directory.Nearby::distanceM))
                        .toList(),
                java.util.Arrays.stream(PositionText.Notation.values())
                        .map(n -> PositionText.format(asked.from(), n))
                        .toList(),
                spoken(asked.from()),
                say(job, asked, given, planned != null),
                asked,
                given.headingDeg() == null
                        ? List.of()
                        : FlyAway.sideways(
                                asked.from(),
                                asked.headingDeg(),
                                asked.speedMps(),
                                from,
                                wind,
                                asked.minutes(),
                                airspace.index()),
                directions,
                FlyAway.upwards(
                        asked.from(),
                        asked.heightM(),
                        asked.climbMps(),
                        asked.minutes(),
                        site.ground(),
                        airspace.index()),
                windWords,
                o != null && o.windMps().isPresent(),
                clocks(job, site.zone()),
                assumed,
                clock.instant());
    }

    /** What the house wrote for a lost link and a fly-away, a step a line; empty when it wrote nothing. */
    private Optional<List<String>> ownSteps() {
        Map<String, String> p = kinds.procedures();
        List<String> lines = Stream.of("lostLink", "flyAway")
                .flatMap(k -> p.getOrDefault(k, "").lines())
                .map(String::strip)
                .filter(l -> !l.isEmpty())
                .toList();
        return lines.isEmpty() ? Optional.empty() : Optional.of(lines);
    }

    private Observation weatherNow(Sites.SiteView site) {
        Instant now = clock.instant();
        return Report.covering(weather.between(site.id(), now, now), List.of(new yarrek.core.time.TimeWindow(now, now)))
                .map(l -> l.get(0).observation())
                .orElse(null);
    }

    /** What nobody has said stands as "…": an assumed figure is never told to a controller as a fact. */
    private List<String> say(Jobs.JobView job, FlyAway.Asked a, Given given, boolean heightPlanned) {
        String description = "an unmanned aircraft"
                + (job.builds().isEmpty() ? "" : ", ")
                + job.builds().stream()
                        .map(b -> b.aircraft().model().fullName() + ", "
                                + b.mass().mass() + " at take-off, called "
                                + b.aircraft().name())
                        .collect(Collectors.joining("; or "));
        return List.of(
                "This is " + office.operator().name() + ", telephone "
                        + office.operator().phone() + ".",
                "I have lost control of " + description + ".",
                "Launched from " + PositionText.format(job.site().launch(), PositionText.Notation.MINUTES)
                        + ", that is at " + job.site().name() + ".",
                "Last seen "
                        + (given.from() == null
                                ? "…"
                                : "at " + PositionText.format(given.from(), PositionText.Notation.MINUTES))
                        + ", at … local, … UTC.",
                given.heightM() == null && !heightPlanned
                        ? "Height … metres above …."
                        : "Height about " + Finite.format(a.heightM()) + " metres, " + feet(a.heightM())
                                + " feet, above "
                                + job.draft().heightReference().words().replace("above ", "") + ".",
                given.headingDeg() != null
                        ? String.format(
                                Locale.UK,
                                "Heading %03.0f degrees, about %s metres a second.",
                                a.headingDeg(),
                                Finite.format(a.speedMps()))
                        : "Heading … degrees.",
                "It can fly for another " + (given.minutes() == null ? "…" : a.minutes()) + " minutes at most.",
                "I am at the launch point and can be reached on this number.");
    }

    private static long feet(double metres) {
        return Math.round(Length.ofMetres(metres).toFeet());
    }

    /** Each figure by itself: "four six degrees three six decimal seven minutes north". */
    static String spoken(Position p) {
        return half(p.latitudeDeg(), 2, "north", "south") + ", " + half(p.longitudeDeg(), 3, "east", "west");
    }

    private static String half(double deg, int figures, String plus, String minus) {
        long tenths = Math.round(Math.abs(deg) * 600);
        String degrees = String.format(Locale.ROOT, "%0" + figures + "d", tenths / 600);
        String minutes = String.format(Locale.ROOT, "%02d", tenths % 600 / 10);
        return figures(degrees) + " degrees " + figures(minutes) + " decimal " + figures(String.valueOf(tenths % 10))
                + " minutes " + (deg < 0 ? minus : plus);
    }

    private static String figures(String s) {
        String[] words = {"zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"};
        List<String> spoken = new ArrayList<>();
        s.chars().forEach(c -> spoken.add(words[c - '0']));
        return String.join(" ", spoken);
    }

    private static List<Clock> clocks(Jobs.JobView job, ZoneId zone) {
        List<Clock> clocks = new ArrayList<>();
        DateTimeFormatter f = DateTimeFormatter.ofPattern("EEE HH:mm", Locale.UK);
        Instant first = job.row().start().truncatedTo(java.time.temporal.ChronoUnit.HOURS);
        Instant end = Jobs.windows(job.draft(), zone).get(0).end();
        for (Instant t = first; !t.isAfter(end.plusSeconds(3600)) && clocks.size() < 14; t = t.plusSeconds(3600)) {
            clocks.add(new Clock(
                    f.format(t.atZone(zone)),
                    f.format(t.atZone(ZoneOffset.UTC)),
                    !t.atZone(zone)
                            .toLocalDate()
                            .equals(t.atZone(ZoneOffset.UTC).toLocalDate())));
        }
        return clocks;
    }
}
