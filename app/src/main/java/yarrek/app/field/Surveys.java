package yarrek.app.field;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Directory;
import yarrek.app.airspace.Sites;
import yarrek.app.answers.Answers;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.NotFoundException;
import yarrek.core.airspace.Allowance;
import yarrek.core.airspace.Freshness;
import yarrek.core.airspace.SurveyHeading;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.ShapeText;
import yarrek.core.time.Light;
import yarrek.core.units.Finite;

/** Site surveys: the headings each pack demands, most of them filled from what is on file. */
@Service
public class Surveys {
    /** How an answer is known. */
    public enum Basis {
        COMPUTED("from the data on file"),
        SEEN("seen"),
        TOLD("told"),
        ASSUMED("assumed");

        private final String words;

        Basis(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What a person wrote under a heading; the computed part stands beside it and is made anew until it is signed. */
    public record Answer(String text, Basis basis) {}

    /**
     * A heading with its answers.
     *
     * @param computed lines from the data; empty when only eyes can tell
     * @param answer null when nobody has written anything
     */
    public record Line(SurveyHeading heading, List<String> computed, Answer answer) {
        public boolean isOpen() {
            return computed.isEmpty() && (answer == null || answer.text().isBlank());
        }
    }

    /** Lines of a survey as they stand in a signed one. */
    public record SignedLine(
            String code, String heading, String citation, List<String> computed, String text, String basis) {}

    /**
     * @param changes what is new, changed or gone since the survey it was begun from, or since it was begun
     */
    public record SurveyView(
            UUID id,
            long version,
            Sites.SiteView site,
            UUID jobId,
            String jurisdiction,
            LocalDate visitedOn,
            String madeBy,
            Instant madeAt,
            List<Line> lines,
            List<SignedLine> signed,
            List<String> changes,
            UUID copiedFrom,
            String signedBy,
            Instant signedAt) {
        public long open() {
            return lines.stream().filter(Line::isOpen).count();
        }

        /** Who signed it, or that nobody did. */
        public String signature() {
            return signedAt == null ? "not signed" : "signed by " + signedBy;
        }
    }

    /** A survey in a list. */
    public record Row(UUID id, String madeBy, Instant madeAt, LocalDate visitedOn, String signedBy, Instant signedAt) {

        /** Name of the status shape. */
        public String shape() {
            return signedAt == null ? "dots" : "full";
        }

        public String signature() {
            return signedAt == null ? "not signed" : "signed by " + signedBy;
        }
    }

    private final EntityManager em;
    private final Clock clock;
    private final JsonMapper json;
    private final Sites sites;
    private final Lookout lookout;
    private final Directory directory;
    private final Airspace airspace;
    private final Answers answers;
    private final Jobs jobs;

    Surveys(
            EntityManager em,
            Clock clock,
            JsonMapper json,
            Sites sites,
            Lookout lookout,
            Directory directory,
            Airspace airspace,
            Answers answers,
            Jobs jobs) {
        this.em = em;
        this.clock = clock;
        this.json = json;
        this.sites = sites;
        this.lookout = lookout;
        this.directory = directory;
        this.airspace = airspace;
        this.answers = answers;
        this.jobs = jobs;
    }

    @Transactional(readOnly = true)
    public List<Row> of(UUID siteId) {
        return em.createQuery("from SurveyEntity s where s.siteId = :s order by s.madeAt desc", SurveyEntity.class)
                .setParameter("s", siteId)
                .getResultStream()
                .map(s -> new Row(s.id, s.madeBy, s.madeAt, s.visitedOn, s.signedBy, s.signedAt))
                .toList();
    }

    /** Begins a survey, from the newest of the site when there is one. */
    @Transactional
    public UUID begin(UUID siteId, UUID jobId, String by) {
        Sites.SiteView site = sites.site(siteId);
        SurveyEntity s = new SurveyEntity(UUID.randomUUID());
        s.siteId = siteId;
        s.jobId = jobId;
        s.jurisdiction = site.jurisdiction();
        s.madeBy = by;
        s.madeAt = clock.instant();
        s.answers = "{}";
        s.seenThen = json.writeValueAsString(seen(site));
        em.createQuery("from SurveyEntity o where o.siteId = :s order by o.madeAt desc", SurveyEntity.class)
                .setParameter("s", siteId)
                .setMaxResults(1)
                .getResultStream()
                .findFirst()
                .ifPresent(o -> {
                    s.copiedFrom = o.id;
                    s.answers = o.answers;
                });
        em.persist(s);
        return s.id;
    }

    /** What a survey remembers of zones and things, to tell a later one what changed: identity to words. */
    private Map<String, String> seen(Sites.SiteView site) {
        Map<String, String> seen = new TreeMap<>();
        airspace.index().near(site.area(), 3_000).stream()
                .filter(z -> z.area().distanceM(site.area()) <= 3_000)
                .forEach(z -> seen.put(
                        "zone " + z.id(),
                        z.name() + ", " + z.heights() + ", " + z.times().words()));
        for (Sites.Feature f : site.features()) {
            String name = f.name().isEmpty() ? f.sort() : f.name();
            seen.put(
                    f.kind().words() + " " + name + " " + f.shape(),
                    f.kind().words() + " " + name
                            + (f.heightM() == null ? "" : ", " + Finite.format(f.heightM()) + " m"));
        }
        return seen;
    }

    private List<String> changes(Map<String, String> then, Map<String, String> now) {
        List<String> changes = new ArrayList<>();
        now.forEach((k, v) -> {
            if (!then.containsKey(k)) {
                changes.add("new: " + v);
            } else if (!then.get(k).equals(v)) {
                changes.add("changed: " + then.get(k) + " → " + v);
            }
        });
        then.forEach((k, v) -> {
            if (!now.containsKey(k)) {
                changes.add("gone: " + v);
            }
        });
        return changes;
    }

    @Transactional(readOnly = true)
    public SurveyView survey(UUID id) {
        SurveyEntity s = entity(id);
        Sites.SiteView site = sites.site(s.siteId);
        Map<String, Answer> written = json.readValue(s.answers, new TypeReference<LinkedHashMap<String, Answer>>() {});
        List<Line> lines = new ArrayList<>();
        List<SignedLine> signed = List.of();
        if (s.signedAt == null) {
            Map<String, List<String>> computed = computed(site, s.jobId);
            for (SurveyHeading h : SurveyHeading.of(s.jurisdiction)) {
                lines.add(new Line(h, computed.getOrDefault(h.from(), List.of()), written.get(h.code())));
            }
        } else {
            signed = json.readValue(s.signedContent, new TypeReference<List<SignedLine>>() {});
        }
        SurveyEntity before = s.copiedFrom == null ? null : em.find(SurveyEntity.class, s.copiedFrom);
        Map<String, String> then = json.readValue(
                before == null ? s.seenThen : before.seenThen, new TypeReference<LinkedHashMap<String, String>>() {});
        Map<String, String> now = s.signedAt == null
                ? seen(site)
                : json.readValue(s.seenThen, new TypeReference<LinkedHashMap<String, String>>() {});
        return new SurveyView(
                s.id,
                s.version,
                site,
                s.jobId,
                s.jurisdiction,
                s.visitedOn,
                s.madeBy,
                s.madeAt,
                lines,
                signed,
                changes(then, now),
                s.copiedFrom,
                s.signedBy,
                s.signedAt);
    }

    /** Keeps what was written; a signed survey is refused. */
    @Transactional
    public void write(UUID id, long version, LocalDate visitedOn, Map<String, Answer> written) {
        SurveyEntity s = unsigned(id);
        if (s.version != version) {
            throw new LostUpdateException(s.version);
        }
        s.visitedOn = visitedOn;
        s.answers = json.writeValueAsString(written);
    }

    /**
     * Signs a survey: what it says is kept as it stands.
     *
     * @throws IllegalArgumentException when a heading is still open, or nobody has been there and no reason is written
     */
    @Transactional
    public void sign(UUID id, String by) {
        SurveyEntity s = unsigned(id);
        SurveyView v = survey(id);
        if (v.open() > 0) {
            throw new IllegalArgumentException("still open: "
                    + v.lines().stream()
                            .filter(Line::isOpen)
                            .map(l -> l.heading().heading())
                            .collect(Collectors.joining("; ")));
        }
        s.signedContent = json.writeValueAsString(v.lines().stream()
                .map(l -> new SignedLine(
                        l.heading().code(),
                        l.heading().heading(),
                        l.heading().citation(),
                        l.computed(),
                        l.answer() == null ? "" : l.answer().text(),
                        l.answer() == null || l.answer().text().isBlank()
                                ? Basis.COMPUTED.words()
                                : l.answer().basis().words()))
                .toList());
        s.seenThen = json.writeValueAsString(seen(v.site()));
        s.signedBy = by;
        s.signedAt = clock.instant();
        em.flush();
        answers.say(Answers.About.SITE, s.siteId, Map.of("survey.complete", "yes"), by + ", by signing the survey");
    }

    private SurveyEntity unsigned(UUID id) {
        SurveyEntity s = entity(id);
        if (s.signedAt != null) {
            throw new IllegalArgumentException("this survey is signed and stays as it is; begin another from it");
        }
        return s;
    }

    private SurveyEntity entity(UUID id) {
        SurveyEntity s = em.find(SurveyEntity.class, id);
        if (s == null) {
            throw new NotFoundException("survey");
        }
        return s;
    }

    // --- what the data say -------------------------------------------------------------------------------------------

    private Map<String, List<String>> computed(Sites.SiteView site, UUID jobId) {
        ZoneId zone = site.zone();
        LocalDate today = LocalDate.now(clock.withZone(zone));
        Lookout.Subject subject = jobId == null
                ? lookout.ofSite(
                        site.id(),
                        null,
                        // without a job the survey looks as high as the general limit
                        Allowance.of(site.jurisdiction()).map(Allowance::baseM).orElse(null),
                        today)
                : lookout.ofJob(jobs.jobUnchecked(jobId));
        Lookout.ZoneView zones = lookout.zones(subject);
        Map<String, List<String>> c = new LinkedHashMap<>();
        var f = zones.figures();
        c.put(
                "area",
                List.of(
                        String.format(
                                Locale.UK,
                                "%,.0f m² in %d piece%s, %,.0f m around, greatest extent %,.0f m, buffer %.0f m",
                                f.areaM2(),
                                site.area().patches().size(),
                                site.area().patches().size() == 1 ? "" : "s",
                                f.perimeterM(),
                                f.extentM(),
                                site.bufferM() == null ? 0 : site.bufferM()),
                        "launch point " + site.launch(),
                        String.format(
                                Locale.UK,
                                "farthest corner %,.0f m from the launch point, at %s",
                                zones.farthestM(),
                                zones.farthest())));
        c.put("zones", zoneLines(zones));
        List<String> around = zones.look().around().stream()
                .map(n -> String.format(
                        Locale.UK,
                        "%s (%s): %,.0f m from the area, bearing %.0f° from the launch point",
                        n.zone().name(),
                        n.zone().kind().words(),
                        n.distanceM(),
                        n.bearingDeg()))
                .toList();
        c.put(
                "aerodromes",
                around.isEmpty()
                        ? List.of("none within reach among the zones on file; official tools omit private strips")
                        : around);
        Lookout.HeightView heights = lookout.heights(subject);
        c.put(
                "structures",
                site.of(Sites.FeatureKind.OBSTACLE).isEmpty()
                        ? List.of()
                        : site.of(Sites.FeatureKind.OBSTACLE).stream()
                                .map(x -> thing(x, site))
                                .toList());
        List<String> routes = new ArrayList<>();
        heights.law()
                .ifPresent(l ->
                        routes.add("general limit " + Finite.format(l.baseM()) + " m above ground; " + l.citation()));
        routes.addAll(heights.structures());
        heights.sections()
                .forEach(x -> routes.add(String.format(
                        Locale.UK,
                        "along “%s”: lowest height allowed %.0f m, %s",
                        x.name(),
                        x.lowest().at().heightM(),
                        x.lowest().at().why())));
        c.put("routes", routes);
        c.put("people", lines(site, Sites.FeatureKind.PEOPLE, Sites.FeatureKind.ROAD, Sites.FeatureKind.CREW));
        c.put("ground", ground(site));
        Light.SunDay sun = Light.day(subject.draft().firstDay(), zone, site.launch());
        c.put("light", List.of(subject.draft().firstDay() + ": " + sun.words(zone) + ", local time"));
        c.put("weather", weather(subject));
        Sites.Particulars p = site.particulars();
        c.put("land", p.landowner().isEmpty() ? List.of() : List.of(p.landowner() + ", " + p.landContact()));
        List<String> communication = new ArrayList<>(lines(site, Sites.FeatureKind.EMITTER));
        if (!p.coverage().isEmpty()) {
            communication.add("mobile coverage: " + p.coverage());
        }
        c.put("communication", communication);
        c.put(
                "emergency",
                directory.forArea(site.area(), site.launch()).stream()
                        .filter(n -> n.entry().role().isUrgent())
                        .map(n -> n.entry().role().words() + ": " + n.entry().name() + ", "
                                + n.entry().phone()
                                + (n.entry().radio().isEmpty()
                                        ? ""
                                        : ", radio " + n.entry().radio())
                                + (n.distanceM() == null
                                        ? ""
                                        : String.format(Locale.UK, ", %,.0f m away", n.distanceM())))
                        .toList());
        return c;
    }

    private static List<String> zoneLines(Lookout.ZoneView zones) {
        List<String> lines = new ArrayList<>();
        if (zones.freshness() == Freshness.NONE) {
            return lines;
        }
        zones.rows()
                .forEach(r -> lines.add(
                        r.met().zone().name() + " (" + r.met().zone().kind().words() + ", "
                                + r.met().zone().heights() + "): " + r.stands() + ". " + r.why()));
        if (lines.isEmpty()) {
            lines.add("no zone of the sources on file meets the area; an empty map is not a permission");
        }
        lines.add("sources: "
                + zones.sources().stream()
                        .map(s -> s.name() + ", " + s.ageDays() + " days old" + (s.stale() ? ", out of date" : ""))
                        .collect(Collectors.joining("; ")));
        return lines;
    }

    private List<String> weather(Lookout.Subject s) {
        return lookout.strip(s, s.draft().firstDay()).reports().stream()
                .limit(3)
                .map(r -> r.kind().words() + " of " + r.at() + (r.raw().isEmpty() ? "" : ": " + r.raw()))
                .toList();
    }

    private static List<String> ground(Sites.SiteView site) {
        List<String> lines = new ArrayList<>();
        lines.add("elevation "
                + (site.elevationM() == null ? "not known" : Finite.format(site.elevationM()) + " m above sea level")
                + ", relief " + (site.reliefM() == null ? "not known" : Finite.format(site.reliefM()) + " m"));
        lines.addAll(lines(site, Sites.FeatureKind.ALTERNATE, Sites.FeatureKind.HAZARD, Sites.FeatureKind.NO_RECOVERY));
        return lines;
    }

    private static List<String> lines(Sites.SiteView site, Sites.FeatureKind... kinds) {
        return java.util.Arrays.stream(kinds)
                .flatMap(k -> site.of(k).stream())
                .map(f -> thing(f, site))
                .toList();
    }

    private static String thing(Sites.Feature f, Sites.SiteView site) {
        ShapeText.Shape s = f.drawn();
        var at = s.somewhere();
        return f.kind().words() + " " + (f.name().isEmpty() ? f.sort() : f.name())
                + (f.kind() == Sites.FeatureKind.OBSTACLE
                        ? ", " + (f.heightM() == null ? "height not known" : Finite.format(f.heightM()) + " m")
                        : "")
                + String.format(
                        Locale.UK,
                        ", %,.0f m on bearing %.0f° from the launch point",
                        Geodesy.distanceM(site.launch(), at),
                        Geodesy.bearingDeg(site.launch(), at))
                + (f.known() == null ? "" : " (" + f.known().words() + ")")
                + (f.note().isEmpty() ? "" : ": " + f.note());
    }
}
