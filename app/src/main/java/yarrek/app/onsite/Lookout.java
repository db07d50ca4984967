package yarrek.app.onsite;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Sites;
import yarrek.app.airspace.Weather;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.FindingRow;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.airspace.AirspaceFacts;
import yarrek.core.airspace.Allowance;
import yarrek.core.airspace.Freshness;
import yarrek.core.airspace.HeightAllowed;
import yarrek.core.airspace.MapComparison;
import yarrek.core.airspace.SiteLook;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.geo.ShapeText;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Requirement;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Verdict;
import yarrek.core.time.Light;
import yarrek.core.time.TimeWindow;
import yarrek.core.units.Finite;
import yarrek.core.weather.Humidity;
import yarrek.core.weather.Observation;
import yarrek.core.weather.Report;
import yarrek.core.weather.WeatherFacts;
import yarrek.core.weather.Wind;

/** Looks at a place for a plan: zones and what they mean for this build, heights allowed, light and weather by the hour. */
@Service
public class Lookout {
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

    private final Airspace airspace;
    private final Sites sites;
    private final Weather weather;
    private final Jobs jobs;
    private final Fleet fleet;
    private final Rulebook rulebook;
    private final Office office;

    Lookout(Airspace airspace, Sites sites, Weather weather, Jobs jobs, Fleet fleet, Rulebook rulebook, Office office) {
        this.airspace = airspace;
        this.sites = sites;
        this.weather = weather;
        this.jobs = jobs;
        this.fleet = fleet;
        this.rulebook = rulebook;
        this.office = office;
    }

    /**
     * What is looked at.
     *
     * @param jobId null for a site without a job
     */
    public record Subject(
            UUID jobId, Sites.SiteView site, JobDraft draft, Fleet.BuildView build, List<TimeWindow> windows) {
        OptionalDouble mass() {
            return build == null
                    ? OptionalDouble.empty()
                    : OptionalDouble.of(build.built().mostG());
        }

        /** Greatest height above ground as far as the plan tells. */
        public OptionalDouble height() {
            return draft.greatestHeight(site);
        }
    }

    @Transactional(readOnly = true)
    public Subject ofJob(Jobs.JobView job) {
        return new Subject(
                job.id(),
                job.site(),
                job.draft(),
                job.build(),
                Jobs.windows(job.draft(), job.site().zone()));
    }

    /** A site with a build and a height, at any time. */
    @Transactional(readOnly = true)
    public Subject ofSite(UUID siteId, UUID buildId, Double heightM, LocalDate day) {
        Sites.SiteView site = sites.site(siteId);
        JobDraft draft = JobDraft.sketch(
                siteId, day, java.time.LocalTime.MIN, java.time.LocalTime.of(23, 59), "work", heightM, null, buildId);
        return new Subject(
                null, site, draft, buildId == null ? null : fleet.build(buildId), Jobs.windows(draft, site.zone()));
    }

    // --- zones -------------------------------------------------------------------------------------------------------

    /**
     * A zone and what it means for the build.
     *
     * @param stands binds, caution, maker's map, or does not concern it
     * @param shape of the four
     * @param why in words, with the rule where there is one
     */
    public record ZoneRow(SiteLook.Met met, String source, String stands, String shape, String why, String says) {}

    /**
     * @param look everything near
     * @param law names of zones of law that bind in place, height and hours
     * @param maker names of the maker's zones that bind
     */
    public record ZoneView(
            SiteLook look,
            List<ZoneRow> rows,
            MapComparison comparison,
            List<String> law,
            List<String> maker,
            Freshness freshness,
            List<Airspace.SourceView> sources,
            Area.Figures figures,
            Position farthest,
            double farthestM) {}

    @Transactional(readOnly = true)
    public ZoneView zones(Subject s) {
        SiteLook look = airspace.look(s.site().plan(s.height(), s.windows()));
        AssessmentRow judged = rulebook.judge(
                jobs.factsOf(s.jobId(), s.draft()),
                s.jobId() == null ? new OwnRules.Setting(s.site().id(), null, null) : jobs.settingOf(s.jobId()));
        List<Zone> zones = look.met().stream().map(SiteLook.Met::zone).toList();
        var sourceOf = airspace.sourceNames(zones);
        List<ZoneRow> rows = new ArrayList<>();
        for (SiteLook.Met m : look.met()) {
            String[] stands = stands(m, s, judged);
            rows.add(new ZoneRow(
                    m,
                    sourceOf.get(m.zone().id()),
                    stands[0],
                    stands[1],
                    stands[2],
                    m.says(s.site().zone()) + airspace.onFile().undecided(m.zone())));
        }
        List<String> law = rows.stream()
                .filter(r -> r.stands().equals("binds") || r.stands().equals("not known"))
                .map(r -> r.met().zone().name())
                .toList();
        List<String> maker = look.pressing().stream()
                .filter(m -> m.zone().kind() == ZoneKind.MAKER)
                .map(m -> m.zone().name())
                .toList();
        Freshness freshness = airspace.freshness();
        Position farthest = s.site().area().farthestCorner(s.site().launch());
        return new ZoneView(
                look,
                rows,
                MapComparison.of(
                        bound(law, freshness == Freshness.CURRENT),
                        bound(maker, airspace.onFile().isMakerCurrent())),
                law,
                maker,
                freshness,
                airspace.sources(),
                s.site().area().figures(),
                farthest,
                s.site().area().farthestCornerM(s.site().launch()));
    }

    /** Something met binds; nothing met is clear only by a current map. */
    private static Optional<Boolean> bound(List<String> met, boolean current) {
        return met.isEmpty() && !current ? Optional.empty() : Optional.of(!met.isEmpty());
    }

    /** What it stands for, its shape and why. */
    private String[] stands(SiteLook.Met m, Subject s, AssessmentRow judged) {
        Zone z = m.zone();
        if (!z.kind().isLaw()) {
            return new String[] {
                "maker's map",
                m.meeting() == Zone.Meeting.CLEAR ? "full" : "cut",
                "Not law. The motors may refuse without an unlock."
            };
        }
        if (m.inForce().isEmpty()) {
            return none("Not in force in these hours: " + z.times().words() + ".");
        }
        if (m.height() == Zone.Meeting.CLEAR) {
            return none(sentence(m.whyHeight()));
        }
        if (!AirspaceFacts.asks(z) && !z.isControlled()) {
            return none("It asks nothing of unmanned aircraft, as published.");
        }
        if (!z.bindsAt(s.mass())) {
            return none("Binds from " + Finite.format(z.bindsFromG().getAsDouble()) + " g; this build weighs "
                    + Finite.format(s.mass().getAsDouble()) + " g.");
        }
        if (m.meeting() == Zone.Meeting.NOT_KNOWN) {
            return new String[] {"not known", "dots", sentence(m.whyHeight())};
        }
        return byRule(z, judged, s.draft().firstDay());
    }

    private static String sentence(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1) + ".";
    }

    /** The rules of the packs that speak of such a zone: binding when one of them applies to this build. */
    private String[] byRule(Zone z, AssessmentRow judged, LocalDate day) {
        List<FindingRow> speaking = judged.findings().stream()
                .filter(f -> rulebook.rule(f.ruleId(), day)
                        .map(r -> speaksOf(r.requires(), z)
                                || r.appliesWhen().factNames().stream()
                                        .anyMatch(n -> factOf(z).contains(n))
                                || r.requires().factNames().stream()
                                        .anyMatch(n -> factOf(z).contains(n)))
                        .orElse(false))
                .toList();
        Optional<FindingRow> applies = speaking.stream()
                .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE)
                .findFirst();
        if (applies.isPresent()) {
            return new String[] {
                "binds", "notch", applies.get().title() + " (" + applies.get().citation() + ")."
            };
        }
        if (speaking.isEmpty()) {
            return new String[] {
                "binds", "notch", "No rule of the packs speaks of it by kind; the zone itself binds as published."
            };
        }
        FindingRow f = speaking.get(0);
        return new String[] {
            "caution",
            "cut",
            "For this build " + f.ruleId() + " does not apply: it applies when " + f.appliesWhen()
                    + ". Crewed aircraft may still be there; keep low and ready to land."
        };
    }

    private static boolean speaksOf(Requirement r, Zone z) {
        return r instanceof Requirement.NoZone n && n.restriction() == z.restriction();
    }

    private static Set<String> factOf(Zone z) {
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

    private static String[] none(String why) {
        return new String[] {"does not concern it", "full", why};
    }

    // --- heights -----------------------------------------------------------------------------------------------------

    /** A section along a measuring line, lengths and heights in metres. */
    public record Section(
            String name,
            double lengthM,
            List<HeightAllowed.Stretch> stretches,
            HeightAllowed.Stretch lowest,
            double topM) {}

    /**
     * @param law empty when no pack sets a height here
     * @param structures each structure that raises the height, in words
     * @param zonesKnown zones on file are current; else one that begins lower may be missing
     */
    public record HeightView(
            Optional<Allowance> law,
            List<String> structures,
            List<Section> sections,
            HeightAllowed.At atLaunch,
            boolean zonesKnown) {}

    @Transactional(readOnly = true)
    public HeightView heights(Subject s) {
        Optional<Allowance> law = Allowance.of(s.site().jurisdiction());
        if (law.isEmpty()) {
            return new HeightView(law, List.of(), List.of(), null, false);
        }
        boolean work = !"recreation".equals(s.draft().purpose());
        List<Zone> inForce = airspace.index().near(s.site().area(), 2_000).stream()
                .filter(z -> s.windows().isEmpty()
                        || s.windows().stream()
                                .anyMatch(w -> z.times().meets(w, s.site().zone())))
                .filter(z -> z.bindsAt(s.mass()))
                .toList();
        HeightAllowed allowed = new HeightAllowed(
                law.get(), s.site().structures(), inForce, s.site().ground(), work);
        List<Section> sections = new ArrayList<>();
        for (Sites.Feature f : s.site().of(Sites.FeatureKind.MEASURE)) {
            ShapeText.Shape shape = f.drawn();
            if (shape.points().size() > 1) {
                List<HeightAllowed.Stretch> stretches = allowed.along(shape.points());
                sections.add(new Section(
                        f.name().isEmpty() ? "measuring line" : f.name(),
                        stretches.get(stretches.size() - 1).toM(),
                        stretches,
                        HeightAllowed.lowest(stretches),
                        stretches.stream()
                                .mapToDouble(x -> x.at().heightM())
                                .max()
                                .orElseThrow()));
            }
        }
        return new HeightView(
                law,
                s.site().structures().stream()
                        .map(x -> structure(x, law.get(), work))
                        .toList(),
                sections,
                allowed.at(s.site().launch()),
                airspace.freshness() == Freshness.CURRENT);
    }

    private static String structure(yarrek.core.airspace.Structure x, Allowance law, boolean work) {
        if (x.heightM().isEmpty()) {
            return x.name() + ": its height is not known, so neither is whether it raises the limit";
        }
        double h = x.heightM().getAsDouble();
        String name = x.name() + ", " + Finite.format(h) + " m: ";
        if (!x.isArtificial()) {
            return name + "not made by people, so it raises nothing";
        }
        if (law.aboveTopM() < 0) {
            return name + "no structure raises the height under " + law.citation();
        }
        if (law.workOnly() && !work) {
            return name + "raises nothing for recreation (" + law.citation() + ")";
        }
        if (h <= law.tallerThanM()) {
            return name + "not taller than " + Finite.format(law.tallerThanM()) + " m, so it raises nothing";
        }
        double up = h + law.aboveTopM();
        return up <= law.baseM()
                ? name + "up to " + Finite.format(up) + " m beside it, below the general limit"
                : String.format(
                        Locale.UK,
                        "%sup to %s m above ground within %s m of it%s",
                        name,
                        Finite.format(up),
                        Finite.format(law.withinM()),
                        law.condition().isEmpty() ? "" : ", " + law.condition());
    }

    // --- the day by the hour -----------------------------------------------------------------------------------------

    /**
     * An hour of the day at the place.
     *
     * @param inJob some of it lies in the job's hours
     * @param report the report that speaks for its middle; null when none does
     * @param windAtHeightMps at the height flown; null when not known
     * @param shape of the four: full nothing against it, cut close, notch breached, dots not known
     * @param against titles of what is breached, or not known
     */
    public record Hour(
            Instant start,
            Light light,
            boolean inJob,
            Report report,
            Double windAtHeightMps,
            Double gustAtHeightMps,
            String shape,
            List<String> against) {}

    /** Hours in a row in which nothing on file speaks against the job. */
    public record Window(Instant start, Instant end, boolean inJob) {}

    /**
     * @param heightM at which the wind is reckoned
     * @param limitMps the maker's wind limit; null when none is on file
     * @param notes moisture, change of clocks and the like
     */
    public record Strip(
            LocalDate day,
            ZoneId zone,
            Light.SunDay sun,
            List<Hour> hours,
            List<Window> windows,
            double heightM,
            Wind.Terrain terrain,
            Double limitMps,
            double scaleMps,
            List<String> notes,
            List<Report> reports) {}

    @Transactional(readOnly = true)
    public Strip strip(Subject s, LocalDate day) {
        Sites.SiteView site = s.site();
        ZoneId zone = site.zone();
        Instant start = day.atStartOfDay(zone).toInstant();
        Instant end = day.plusDays(1).atStartOfDay(zone).toInstant();
        List<Report> reports = weather.between(site.id(), start, end);
        double height = s.height().isEmpty()
                ? WeatherFacts.USUAL_HEIGHT_M
                : Math.max(2, s.height().getAsDouble());
        Wind.Terrain terrain = site.terrain();
        Facts base = jobs.factsOf(s.jobId(), s.draft());
        OwnRules.Setting setting =
                s.jobId() == null ? new OwnRules.Setting(site.id(), null, null) : jobs.settingOf(s.jobId());
        List<RulePack> packs = rulebook.packsFor(base, setting).stream()
                .map(p -> p.only(Lookout::byTheHour))
                .toList();
        List<Hour> hours = new ArrayList<>();
        for (Instant h = start; h.isBefore(end); h = h.plusSeconds(3600)) {
            hours.add(hour(h, s, base, packs, reports, height, terrain));
        }
        Double limit = base.get("maker.windMps")
                .map(k -> ((yarrek.core.rulebook.FactValue.Quantity) k.value()).value())
                .orElse(null);
        double most = hours.stream()
                .flatMap(h -> java.util.stream.Stream.of(h.windAtHeightMps(), h.gustAtHeightMps()))
                .filter(java.util.Objects::nonNull)
                .mapToDouble(Double::doubleValue)
                .max()
                .orElse(0);
        return new Strip(
                day,
                zone,
                Light.day(day, zone, site.launch()),
                hours,
                windows(hours),
                height,
                terrain,
                limit,
                Math.max(10, Math.ceil(Math.max(most, limit == null ? 0 : limit) * 1.15)),
                notes(s, hours, reports),
                reports);
    }

    private Hour hour(
            Instant h,
            Subject s,
            Facts base,
            List<RulePack> packs,
            List<Report> reports,
            double height,
            Wind.Terrain terrain) {
        TimeWindow window = new TimeWindow(h, h.plusSeconds(3599));
        boolean inJob = s.windows().stream()
                .anyMatch(w -> w.start().isBefore(window.end()) && w.end().isAfter(h));
        Optional<Report> report = Report.covering(
                        reports, List.of(new TimeWindow(Report.middleOfHour(h), Report.middleOfHour(h))))
                .map(l -> l.get(0));
        Facts.Builder b = base.toBuilder();
        b.windows(List.of(window));
        BY_THE_HOUR.forEach(b::without);
        yarrek.core.rulebook.SunFacts.put(b, List.of(window), s.site().launch());
        if (report.isPresent() && terrain != null) {
            WeatherFacts.put(
                    b,
                    List.of(report.get().observation()),
                    s.height(),
                    terrain,
                    report.get().kind().words());
        }
        List<FindingRow> found = rulebook.judge(b.build(), packs).findings().stream()
                .filter(f -> f.verdict() == Verdict.BREACHED
                        || f.verdict() == Verdict.CLOSE
                        || f.verdict() == Verdict.NOT_KNOWN)
                .filter(f -> f.waiver() == null)
                .toList();
        List<String> breached = titles(found, Verdict.BREACHED);
        List<String> unknown = titles(found, Verdict.NOT_KNOWN);
        String shape = !breached.isEmpty()
                ? "notch"
                : report.isEmpty() || terrain == null || !unknown.isEmpty()
                        ? "dots"
                        : titles(found, Verdict.CLOSE).isEmpty() ? "full" : "cut";
        List<String> against = !breached.isEmpty()
                ? breached
                : report.isEmpty()
                        ? List.of("no weather on file")
                        : terrain == null
                                ? List.of("terrain of the site not known")
                                : shape.equals("cut")
                                        ? told("close to ", titles(found, Verdict.CLOSE))
                                        : told("not known: ", unknown);
        Observation o = report.map(Report::observation).orElse(null);
        return new Hour(
                h,
                Light.darkestIn(window, s.site().launch()),
                inJob,
                report.orElse(null),
                o == null || terrain == null || o.windMps().isEmpty()
                        ? null
                        : Double.valueOf(Wind.at(o.windMps().getAsDouble(), o.windHeightM(), height, terrain)),
                o == null || terrain == null || o.gustMps().isEmpty()
                        ? null
                        : Double.valueOf(Wind.at(o.gustMps().getAsDouble(), o.windHeightM(), height, terrain)),
                shape,
                against);
    }

    private static List<String> told(String how, List<String> titles) {
        return titles.isEmpty() ? titles : List.of(how + String.join(", ", titles));
    }

    private static List<String> titles(List<FindingRow> found, Verdict v) {
        return found.stream()
                .filter(f -> f.verdict() == v)
                .map(FindingRow::title)
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
            boolean open = i < hours.size()
                    && (hours.get(i).shape().equals("full")
                            || hours.get(i).shape().equals("cut"));
            if (open) {
                from = from == null ? hours.get(i).start() : from;
                job |= hours.get(i).inJob();
            } else if (from != null) {
                found.add(new Window(from, hours.get(i - 1).start().plusSeconds(3600), job));
                from = null;
                job = false;
            }
        }
        return found;
    }

    private static List<String> notes(Subject s, List<Hour> hours, List<Report> reports) {
        List<String> notes = new ArrayList<>();
        if (hours.size() != 24) {
            notes.add("The clocks change on this day: it has " + hours.size() + " hours.");
        }
        if (s.site().terrain() == null) {
            notes.add("The site does not say what ground lies to windward, so the wind at flight height is not known.");
        }
        if (s.height().isEmpty()) {
            notes.add("The height above ground is not known; wind is reckoned at 100 m.");
        }
        reports.stream()
                .map(Report::observation)
                .filter(o -> o.spreadK().isPresent())
                .min(java.util.Comparator.comparingDouble(o -> o.spreadK().getAsDouble()))
                .ifPresent(o -> {
                    double t = o.temperatureC().getAsDouble();
                    double d = o.dewPointC().getAsDouble();
                    String figures = String.format(
                            Locale.UK,
                            "Least spread %.1f K (%.0f %% humidity, lifted cloud about %.0f m).",
                            t - d,
                            Humidity.relativePct(t, d),
                            Humidity.cloudBaseM(t, d));
                    notes.add(figures
                            + (Humidity.icingLikely(t, d) ? " Moisture may freeze on propellers." : "")
                            + (Humidity.fogNear(t, d) ? " Fog or a misted lens is near." : ""));
                });
        return notes;
    }

    /** Days for which a strip is of use: those of the job, or the day asked for. */
    public List<LocalDate> days(Subject s) {
        List<LocalDate> days = new ArrayList<>();
        for (LocalDate d = s.draft().firstDay(); !d.isAfter(s.draft().lastDay()); d = d.plusDays(1)) {
            days.add(d);
        }
        return days;
    }

    ZoneId home() {
        return office.operator().zone();
    }
}
