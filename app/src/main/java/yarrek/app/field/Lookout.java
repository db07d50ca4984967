package yarrek.app.field;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Sites;
import yarrek.app.airspace.Weather;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.JobJudging;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.airspace.Allowance;
import yarrek.core.airspace.Freshness;
import yarrek.core.airspace.HeightAllowed;
import yarrek.core.airspace.MapComparison;
import yarrek.core.airspace.SiteLook;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.airspace.ZoneStanding;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.geo.ShapeText;
import yarrek.core.judging.HourStrip;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.time.TimeWindow;

/** Looks at a place for a plan: zones and what they mean for this build, heights allowed, light and weather by the hour. */
@Service
public class Lookout {
    private final Airspace airspace;
    private final Sites sites;
    private final Weather weather;
    private final JobJudging jobJudging;
    private final Fleet fleet;
    private final Rulebook rulebook;
    private final Office office;

    Lookout(
            Airspace airspace,
            Sites sites,
            Weather weather,
            JobJudging jobJudging,
            Fleet fleet,
            Rulebook rulebook,
            Office office) {
        this.airspace = airspace;
        this.sites = sites;
        this.weather = weather;
        this.jobJudging = jobJudging;
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

    /** A zone and what it means for the build. */
    public record ZoneRow(SiteLook.Met met, String source, ZoneStanding standing, String says) {
        public String stands() {
            return standing.stands().words();
        }

        public String why() {
            return standing.why();
        }

        /** Name of the status shape. */
        public String shape() {
            return switch (standing.stands()) {
                case BINDS -> "notch";
                case CAUTION, MAKERS_MAP -> "cut";
                case NOT_KNOWN -> "dots";
                case MAKERS_MAP_CLEAR, NO_CONCERN -> "full";
            };
        }

        /** How much of the area it takes, or that it only touches. */
        public String overlap() {
            return met.onlyEdge() ? "edge" : String.format(java.util.Locale.UK, "%,.0f m²", met.overlapM2());
        }
    }

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
        Facts facts = jobJudging.factsOf(s.jobId(), s.draft());
        Assessment judged = Assessment.of(facts, rulebook.packsFor(facts, setting(s)));
        List<Zone> zones = look.met().stream().map(SiteLook.Met::zone).toList();
        var sourceOf = airspace.sourceNames(zones);
        List<ZoneRow> rows = new ArrayList<>();
        for (SiteLook.Met m : look.met()) {
            rows.add(new ZoneRow(
                    m,
                    sourceOf.get(m.zone().id()),
                    ZoneStanding.of(m, s.mass(), judged),
                    m.says(s.site().zone()) + airspace.onFile().undecided(m.zone())));
        }
        List<String> law = rows.stream()
                .filter(r -> r.standing().stands().isPressing())
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
                s.site().structures().stream().map(x -> law.get().says(x, work)).toList(),
                sections,
                allowed.at(s.site().launch()),
                airspace.freshness() == Freshness.CURRENT);
    }

    /** The day at the place by the hour. */
    @Transactional(readOnly = true)
    public HourStrip strip(Subject s, LocalDate day) {
        Sites.SiteView site = s.site();
        ZoneId zone = site.zone();
        Facts facts = jobJudging.factsOf(s.jobId(), s.draft());
        return HourStrip.of(
                new HourStrip.Subject(
                        zone,
                        site.launch(),
                        Optional.ofNullable(site.terrain()),
                        s.windows(),
                        s.height(),
                        facts,
                        rulebook.packsFor(facts, setting(s)),
                        weather.between(
                                site.id(),
                                day.atStartOfDay(zone).toInstant(),
                                day.plusDays(1).atStartOfDay(zone).toInstant())),
                day);
    }

    private OwnRules.Setting setting(Subject s) {
        return s.jobId() == null ? new OwnRules.Setting(s.site().id(), null, null) : jobJudging.settingOf(s.jobId());
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
