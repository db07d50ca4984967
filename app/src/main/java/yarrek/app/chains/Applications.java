package yarrek.app.chains;

import java.sql.Timestamp;
import java.time.Clock;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Sites;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.crew.Crew;
import yarrek.app.field.SiteDrawing;
import yarrek.app.field.Surveys;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Show;
import yarrek.app.papers.Papers;
import yarrek.app.print.Pdf;
import yarrek.core.airspace.Freshness;
import yarrek.core.airspace.SiteLook;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.geo.Position;
import yarrek.core.geo.PositionText;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.time.Days;
import yarrek.core.time.TimeWindow;
import yarrek.core.units.Finite;
import yarrek.formats.document.DocumentWriter;

/** The application for an approval: its questions answered from the job, each with its source, and made into documents. */
@Service
public class Applications {
    /**
     * A question with its answer.
     *
     * @param filled what the job says, line by line
     * @param source what that was taken from
     * @param missing what the job does not say; empty when it says all
     * @param typed what a person wrote; it stands in the place of what is missing
     * @param reusedFrom the earlier application from which it was taken and not yet looked at; empty otherwise
     * @param toChange words of the earlier job that are still in it
     */
    public record Answer(
            ApprovalKind.Question question,
            List<String> filled,
            String source,
            String missing,
            String typed,
            String reusedFrom,
            List<String> toChange) {
        public boolean isOpen() {
            return (!missing.isEmpty() && typed.isBlank()) || !reusedFrom.isEmpty();
        }

        /** Name of the status shape. */
        public String shape() {
            return !isOpen() ? "full" : reusedFrom.isEmpty() ? "notch" : "cut";
        }

        public String standing() {
            return !isOpen() ? "answered" : reusedFrom.isEmpty() ? "open" : "look at it";
        }
    }

    /** A version as made; its documents never change. */
    public record Version(
            UUID id, int number, String madeBy, Instant madeAt, int openQuestions, long pdfBytes, long documentBytes) {}

    /** Answers kept with a version. */
    public record Kept(String number, String section, String ask, List<String> lines, String source) {}

    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final Clock clock;
    private final Approvals approvals;
    private final Kinds kinds;
    private final Jobs jobs;
    private final Crew crew;
    private final Papers papers;
    private final Office office;
    private final Airspace airspace;
    private final Sites sites;
    private final Surveys surveys;
    private final SiteDrawing drawing;
    private final Show show;
    private final Pdf pdf;

    Applications(
            JdbcClient jdbc,
            JsonMapper json,
            Clock clock,
            Approvals approvals,
            Kinds kinds,
            Jobs jobs,
            Crew crew,
            Papers papers,
            Office office,
            Airspace airspace,
            Sites sites,
            Surveys surveys,
            SiteDrawing drawing,
            Show show,
            Pdf pdf) {
        this.jdbc = jdbc;
        this.json = json;
        this.clock = clock;
        this.approvals = approvals;
        this.kinds = kinds;
        this.jobs = jobs;
        this.crew = crew;
        this.papers = papers;
        this.office = office;
        this.airspace = airspace;
        this.sites = sites;
        this.surveys = surveys;
        this.drawing = drawing;
        this.show = show;
        this.pdf = pdf;
    }

    // --- answers -----------------------------------------------------------------------------------------------------

    private record Typed(String text, String reusedFrom) {}

    /** Every question of the kind, in the granter's order. */
    @Transactional(readOnly = true)
    public List<Answer> answers(Approvals.ApprovalView a) {
        Jobs.JobView job = jobs.jobUnchecked(a.jobId());
        Map<String, Typed> typed = new LinkedHashMap<>();
        jdbc.sql("select question, text, reused_from from application_answer where approval_id = ?")
                .param(a.id())
                .query((r, i) -> typed.put(r.getString(1), new Typed(r.getString(2), r.getString(3))))
                .list();
        List<Answer> all = new ArrayList<>();
        for (ApprovalKind.Question q : kinds.row(a.kind()).kind().questions()) {
            Filled f = fill(q.from(), a, job);
            Typed t = typed.getOrDefault(q.number(), new Typed("", ""));
            all.add(new Answer(
                    q,
                    f.lines(),
                    f.source(),
                    f.missing(),
                    t.text(),
                    t.reusedFrom(),
                    t.reusedFrom().isEmpty() ? List.of() : leftOver(t, job)));
        }
        return all;
    }

    /** @throws IllegalArgumentException when the kind has no such question or the text is too long */
    @Transactional
    public void type(UUID approvalId, String question, String text, String by) {
        Approvals.ApprovalView a = approvals.approval(approvalId);
        if (kinds.row(a.kind()).kind().questions().stream()
                .noneMatch(q -> q.number().equals(question))) {
            throw new IllegalArgumentException("there is no question " + question);
        }
        if (text.length() > 20_000) {
            throw new IllegalArgumentException(
                    "an answer may have at most 20,000 characters, this has " + text.length());
        }
        if (text.isBlank()) {
            jdbc.sql("delete from application_answer where approval_id = ? and question = ?")
                    .params(approvalId, question)
                    .update();
            return;
        }
        put(approvalId, question, text.strip(), by, "");
    }

    private void put(UUID approvalId, String question, String text, String by, String reusedFrom) {
        jdbc.sql(
                        "replace into application_answer (approval_id, question, text, said_by, said_at, reused_from) values (?, ?, ?, ?, ?, ?)")
                .params(approvalId, question, text, by, Timestamp.from(clock.instant()), reusedFrom)
                .update();
    }

    /** Takes typed answers over from an earlier application; each must be looked at before it counts. */
    @Transactional
    public int reuse(UUID approvalId, UUID earlier, String by) {
        Approvals.ApprovalView from = approvals.approval(earlier);
        Jobs.JobView job = jobs.jobUnchecked(from.jobId());
        Set<String> mine = answers(approvals.approval(approvalId)).stream()
                .filter(x -> x.typed().isBlank())
                .map(x -> x.question().number())
                .collect(Collectors.toSet());
        int[] n = {0};
        jdbc
                .sql("select question, text from application_answer where approval_id = ?")
                .param(earlier)
                .query((r, i) -> List.of(r.getString(1), r.getString(2)))
                .list()
                .stream()
                .filter(x -> mine.contains(x.get(0)))
                .forEach(x -> {
                    put(
                            approvalId,
                            x.get(0),
                            x.get(1),
                            by,
                            from.id() + " " + cut(job.draft().name()));
                    n[0]++;
                });
        return n[0];
    }

    private static String cut(String s) {
        return s.length() > 200 ? s.substring(0, 200) : s;
    }

    /** Words of the earlier job that this job does not share: names, places, people, days, numbers. */
    private List<String> leftOver(Typed t, Jobs.JobView now) {
        int space = t.reusedFrom().indexOf(' ');
        Jobs.JobView then;
        try {
            then = jobs.jobUnchecked(approvals
                    .approval(UUID.fromString(t.reusedFrom().substring(0, space)))
                    .jobId());
        } catch (NotFoundException e) {
            return List.of();
        }
        Set<String> theirs = words(then);
        theirs.removeAll(words(now));
        return theirs.stream().filter(w -> t.text().contains(w)).toList();
    }

    private Set<String> words(Jobs.JobView job) {
        Set<String> words = new LinkedHashSet<>();
        words.add(job.draft().name());
        words.add(job.site().name());
        words.addAll(job.pilots());
        job.aircraft().forEach(a -> {
            words.add(a.name());
            words.add(a.serial());
        });
        job.draft().firstDay().datesUntil(job.draft().lastDay().plusDays(1)).forEach(d -> {
            words.add(d.toString());
            words.add(Days.show(d));
            words.add(DateTimeFormatter.ofPattern("d MMMM", Locale.UK).format(d));
        });
        if (job.draft().heightM() != null) {
            words.add(Finite.format(job.draft().heightM()) + " m");
        }
        approvals.of(job.id()).stream()
                .map(Approvals.ApprovalView::reference)
                .filter(r -> !r.isEmpty())
                .forEach(words::add);
        return words;
    }

    // --- what the job says -------------------------------------------------------------------------------------------

    private record Filled(List<String> lines, String source, String missing) {
        static Filled of(String source, String... lines) {
            return new Filled(List.of(lines), source, "");
        }
    }

    private Filled fill(String from, Approvals.ApprovalView a, Jobs.JobView job) {
        JobDraft d = job.draft();
        return switch (from) {
            case "operator" -> {
                Office.OperatorView o = office.operator();
                yield new Filled(
                        List.of(o.name(), o.phone() == null ? "" : "telephone " + o.phone()),
                        "office",
                        "postal address");
            }
            case "registration" ->
                papersOf(
                        List.of(office.operator().id()),
                        answering("registration"),
                        d,
                        "no registration or certificate of the operator on file for these days");
            case "responsible" -> responsible(d, job);
            case "insurance" ->
                papersOf(
                        List.of(office.operator().id()),
                        answering("insurance"),
                        d,
                        "no liability insurance on file that covers these days");
            case "purpose" -> purpose(job);
            case "days" ->
                new Filled(
                        windows(a, job).stream()
                                .map(w -> show.stretch(
                                        w.start(), w.end(), job.site().zone()))
                                .toList(),
                        "job",
                        "");
            case "place" -> place(job.site());
            case "map" -> Filled.of("site", "Map in annex A, with scale, north and coordinates.");
            case "heights" -> heights(a, job);
            case "airspace" -> airspace(job);
            case "invitation" ->
                papersOf(
                        List.of(job.id()),
                        answering("invitation"),
                        d,
                        "no invitation and no landowner's permission on file for this job");
            case "aircraft" -> aircraft(job, d);
            case "maintenance" -> maintenance(job, d);
            case "crew" -> crew(d);
            case "people" -> people(job);
            case "safetyPlan" -> safetyPlan(job);
            case "survey" -> survey(job);
            case "weather" -> weather(job);
            case "quotes" -> quotes(a);
            default ->
                from.startsWith("procedures.")
                        ? procedure(from)
                        : new Filled(List.of(), "", "only a person can say it");
        };
    }

    private static List<TimeWindow> windows(Approvals.ApprovalView a, Jobs.JobView job) {
        return Jobs.windows(job.draft(), a.firstDay(), a.lastDay(), job.site().zone());
    }

    private Filled responsible(JobDraft d, Jobs.JobView job) {
        if (d.pilotId() == null) {
            return new Filled(List.of(), "", "no pilot in command chosen yet");
        }
        Crew.PersonView p = crew.person(d.pilotId());
        return new Filled(
                List.of(p.name() + ", pilot in command" + (p.phone() == null ? "" : ", telephone " + p.phone())),
                "job " + job.draft().name() + ", crew",
                p.phone() == null ? "telephone of " + p.name() : "");
    }

    /** Papers of some kinds in force on every day, in words. */
    /** Kinds of paper that a question rests on, by what answers it. */
    private Set<String> answering(String question) {
        return papers.meanings().codes(k -> k.answers().equals(Optional.of(question)));
    }

    private Filled papersOf(List<UUID> holders, Set<String> wanted, JobDraft d, String none) {
        List<String> lines = new ArrayList<>();
        String missing = none;
        Sites.SiteView site = sites.site(d.siteId());
        List<TimeWindow> hours = Jobs.windows(d, site.zone());
        String here = site.jurisdiction();
        for (Papers.Row p : papers.of(holders)) {
            if (!wanted.contains(p.kind()) || !p.countsAt(here)) {
                continue;
            }
            boolean covers = p.covers(hours);
            lines.add(p.kindWords() + (p.level() == null ? "" : " " + p.level()) + " " + p.number() + ", " + p.issuer()
                    + (p.amount() == null ? "" : ", sum " + show.money(p.amount(), p.amountCurrency()))
                    + (p.validTo() == null ? "" : ", valid to " + show.day(p.validTo()))
                    + (covers ? "" : " (does not cover every day)"));
            missing = covers ? "" : missing;
        }
        return new Filled(lines, "papers", missing);
    }

    private Filled purpose(Jobs.JobView job) {
        List<String> lines = new ArrayList<>();
        List<String> missing = new ArrayList<>();
        lines.add(job.draft().name() + " at " + job.site().name()
                + (job.draft().purpose() == null ? "" : ", " + job.draft().purpose()));
        for (String label : List.of(
                "Event",
                "Closed site, everybody told",
                "In controlled airspace",
                "In a prohibited or restricted area")) {
            Optional<String> value = job.assessment().facts().stream()
                    .filter(f -> f.label().equals(label))
                    .map(f -> f.value())
                    .findFirst();
            value.ifPresentOrElse(v -> lines.add(label + ": " + v), () -> missing.add(label.toLowerCase(Locale.ROOT)));
        }
        missing.add("expected attendance");
        return new Filled(lines, "job, its facts", String.join(", ", missing));
    }

    private static Filled place(Sites.SiteView site) {
        List<String> lines = new ArrayList<>();
        lines.add(site.name() + ", launch " + PositionText.format(site.launch(), PositionText.Notation.MINUTES));
        lines.add(String.format(
                Locale.UK,
                "Area %,.0f m², perimeter %,.0f m",
                site.area().figures().areaM2(),
                site.area().figures().perimeterM()));
        int n = 1;
        for (Position p : site.area().corners()) {
            if (n > 60) {
                lines.add("and " + (site.area().corners().size() - 60) + " more corners, in the annex's file");
                break;
            }
            lines.add("corner " + n++ + ": " + PositionText.format(p, PositionText.Notation.SECONDS));
        }
        return new Filled(lines, "site " + site.name(), "");
    }

    private static Filled heights(Approvals.ApprovalView a, Jobs.JobView job) {
        var h = job.draft().greatestHeight(job.site());
        if (h.isEmpty()) {
            return new Filled(List.of(), "", "the greatest height above ground");
        }
        return new Filled(
                List.of("At most " + Finite.format(h.getAsDouble()) + " m above ground"
                        + (a.request().ceilingM() != null
                                        && Math.abs(a.request().ceilingM() - h.getAsDouble()) > 0.05
                                ? "; asked for " + a.request().ceilingAsWritten()
                                : "")),
                "job",
                a.kind().startsWith("zone") ? "" : "why no lower height does");
    }

    private Filled airspace(Jobs.JobView job) {
        var h = job.draft().greatestHeight(job.site());
        SiteLook look = airspace.look(
                job.site().plan(h, Jobs.windows(job.draft(), job.site().zone())));
        List<String> lines = new ArrayList<>();
        look.met().stream()
                .filter(m -> m.zone().kind().isLaw())
                .forEach(m -> lines.add(m.zone().name() + ", " + m.zone().kind().words() + ", "
                        + m.zone().heights()));
        look.around().stream()
                .limit(8)
                .forEach(
                        n -> lines.add("near: " + n.zone().name() + ", " + show.far(n.distanceM()) + " from the area"));
        return new Filled(
                lines.isEmpty() ? List.of("No zone on file meets the area.") : lines,
                "zones on file",
                airspace.freshness() == Freshness.CURRENT ? "" : "zones on file are out of date or missing");
    }

    private Filled aircraft(Jobs.JobView job, JobDraft d) {
        if (job.builds().isEmpty()) {
            return new Filled(List.of(), "", "no aircraft chosen yet");
        }
        List<String> lines = new ArrayList<>();
        for (Fleet.AircraftView c : job.aircraft()) {
            lines.add(c.model().fullName() + ", serial " + c.serial() + ", “" + c.name() + "”, class mark "
                    + c.model().classMark());
            job.builds().stream()
                    .filter(b -> b.aircraft().equals(c))
                    .forEach(b -> lines.add("Take-off mass " + b.mass().mass() + " as build “" + b.name() + "”"));
            lines.addAll(papersOf(List.of(c.id()), answering("aircraft"), d, "").lines());
        }
        return new Filled(lines, "fleet, weighing, papers", "");
    }

    private Filled maintenance(Jobs.JobView job, JobDraft d) {
        if (job.builds().isEmpty()) {
            return new Filled(List.of(), "", "no aircraft chosen yet");
        }
        List<String> lines = new ArrayList<>();
        Set<String> missing = new LinkedHashSet<>();
        boolean several = job.aircraft().size() > 1;
        for (Fleet.AircraftView c : job.aircraft()) {
            Filled released = papersOf(
                    List.of(c.id()),
                    answering("maintenance"),
                    d,
                    "no maintenance release " + (several ? "of " + c.name() + " " : "")
                            + "on file that covers these days");
            lines.addAll(released.lines());
            lines.add((several ? c.name() + ": flown" : "Flown")
                    + String.format(Locale.UK, " %.1f h, %d landings", c.flownHours(), c.landings()));
            missing.add(released.missing());
        }
        missing.remove("");
        return new Filled(lines, "fleet, papers", String.join("; ", missing));
    }

    private Filled crew(JobDraft d) {
        if (d.pilotId() == null) {
            return new Filled(List.of(), "", "no pilot in command chosen yet");
        }
        List<String> lines = new ArrayList<>();
        String missing = "";
        for (Map.Entry<UUID, Set<FlightsPlanned.Role>> of : d.planned().crew().entrySet()) {
            UUID id = of.getKey();
            Crew.PersonView p = crew.person(id);
            lines.add(p.name() + ", "
                    + of.getValue().stream().map(FlightsPlanned.Role::words).collect(Collectors.joining(", "))
                    + (p.lastFlightOn() == null ? "" : ", last flew on " + show.day(p.lastFlightOn())));
            Filled held = papersOf(
                    List.of(id), answering("crew"), d, "a certificate of " + p.name() + " that covers these days");
            held.lines().forEach(l -> lines.add("    " + l));
            if (missing.isEmpty() && of.getValue().stream().anyMatch(FlightsPlanned.Role::flies)) {
                missing = held.missing();
            }
        }
        return new Filled(lines, "crew, papers", missing);
    }

    private static Filled people(Jobs.JobView job) {
        List<String> lines = new ArrayList<>();
        JobDraft d = job.draft();
        String nearest = "peopleDistanceM";
        if (d.text(nearest) != null) {
            lines.add("Nearest people not involved: " + d.shows(nearest));
        }
        if (d.text("overPeople") != null) {
            lines.add("Flight over people not involved: " + d.shows("overPeople"));
        }
        for (Sites.Feature f : job.site().features()) {
            if (f.kind() == Sites.FeatureKind.PEOPLE
                    || f.kind() == Sites.FeatureKind.ROAD
                    || f.kind() == Sites.FeatureKind.CREW) {
                lines.add(f.kind().words() + ": " + f.name() + (f.note().isEmpty() ? "" : ", " + f.note()) + " ("
                        + f.known().words() + ")");
            }
        }
        return new Filled(
                lines, "job, site", d.text(nearest) == null ? "the distance to people not involved" : "how it is kept");
    }

    private Filled safetyPlan(Jobs.JobView job) {
        List<String> lines = new ArrayList<>();
        for (Kinds.Risk r : kinds.risks()) {
            lines.add(r.risk() + " (" + r.who() + "): " + r.mitigation() + " Left: " + r.left());
        }
        // what the job itself breaches is mended before anything goes out; it is no part of what is sent
        long breaches = job.assessment().open().stream()
                .filter(f -> f.verdict() == yarrek.core.rulebook.Verdict.BREACHED)
                .count();
        return new Filled(
                lines,
                "risk register of the house",
                kinds.risks().isEmpty()
                        ? "the house has no risk register yet"
                        : breaches == 0
                                ? ""
                                : "the job breaches " + breaches + (breaches == 1 ? " rule" : " rules")
                                        + " as planned: mend it, or say how it is dealt with");
    }

    private Filled survey(Jobs.JobView job) {
        List<Surveys.Row> all = surveys.of(job.site().id());
        if (all.isEmpty()) {
            return new Filled(List.of(), "", "no survey of the site yet");
        }
        Surveys.Row newest = all.get(0);
        return new Filled(
                List.of("Survey of " + job.site().name() + " begun "
                        + show.moment(newest.madeAt(), job.site().zone())
                        + " by " + newest.madeBy()
                        + (newest.visitedOn() == null
                                ? ", place not visited"
                                : ", visited on " + show.day(newest.visitedOn()))
                        + (newest.signedAt() == null ? "" : ", signed by " + newest.signedBy())
                        + ". In annex B."),
                "surveys",
                newest.signedAt() == null ? "the survey is not signed" : "");
    }

    private static Filled weather(Jobs.JobView job) {
        List<String> lines = job.assessment().findings().stream()
                .filter(f -> f.phase().equals("weather") || f.phase().equals("time"))
                .filter(f -> f.verdict() != yarrek.core.rulebook.Verdict.NOT_APPLICABLE)
                .map(f -> f.title() + ": " + f.requires() + " (" + f.citation() + ")")
                .distinct()
                .toList();
        return new Filled(lines, "rules of law, maker and house", lines.isEmpty() ? "no limits on file" : "");
    }

    private Filled quotes(Approvals.ApprovalView a) {
        Set<String> quoted = kinds.row(a.kind()).kind().quotes();
        List<String> lines = approvals.of(a.jobId()).stream()
                .filter(o -> o.state().isHeld() && quoted.contains(o.kind()))
                .filter(o -> !o.firstDay().isAfter(a.lastDay()) && !a.firstDay().isAfter(o.lastDay()))
                .map(o -> o.title() + ": " + o.reference())
                .toList();
        List<String> waited = approvals.of(a.jobId()).stream()
                .filter(o -> !o.state().isHeld() && quoted.contains(o.kind()))
                .map(o -> "the number of " + o.title())
                .toList();
        return new Filled(
                lines.isEmpty() && waited.isEmpty() ? List.of("None.") : lines,
                "approvals of the job",
                String.join(", ", waited));
    }

    private Filled procedure(String from) {
        String text = kinds.procedures().getOrDefault(from.substring("procedures.".length()), "");
        return text.isBlank()
                ? new Filled(List.of(), "", "the house has no such procedure on file")
                : new Filled(List.of(text.split("\\R")), "procedures of the house", "");
    }

    // --- documents ---------------------------------------------------------------------------------------------------

    /** Makes a version: a PDF numbered as the granter asks, and the same as an editable document. */
    @Transactional
    public UUID make(UUID approvalId, Pdf.Sheet sheet, String by) {
        Approvals.ApprovalView a = approvals.approval(approvalId);
        Jobs.JobView job = jobs.jobUnchecked(a.jobId());
        List<Answer> answers = answers(a);
        Map<String, List<Kept>> sections = new LinkedHashMap<>();
        for (Answer x : answers) {
            List<String> lines = new ArrayList<>(x.filled());
            if (!x.typed().isBlank()) {
                lines.addAll(List.of(x.typed().split("\\R")));
            }
            if (x.isOpen()) {
                lines.add("[open: "
                        + (x.reusedFrom().isEmpty()
                                ? x.missing()
                                : "taken from an earlier application, not yet looked at")
                        + "]");
            }
            ApprovalKind.Question q = x.question();
            sections.computeIfAbsent(q.section(), k -> new ArrayList<>())
                    .add(new Kept(
                            q.number(),
                            q.section(),
                            q.ask(),
                            lines,
                            x.typed().isBlank()
                                    ? x.source()
                                    : x.source().isEmpty() ? "typed" : x.source() + ", typed"));
        }
        int number = jdbc.sql("select coalesce(max(number), 0) + 1 from application_version where approval_id = ?")
                .param(approvalId)
                .query(Integer.class)
                .single();
        Instant now = clock.instant();
        int open = (int) answers.stream().filter(Answer::isOpen).count();
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("size", sheet.size());
        m.put("approval", a);
        m.put("job", job);
        m.put("operator", office.operator());
        m.put("sections", sections);
        m.put("number", number);
        m.put("madeBy", by);
        m.put("madeAt", now);
        m.put("open", open);
        m.put("drawn", drawing.draw(job.site(), 640, 400));
        m.put("survey", newestSurvey(job));
        m.put("risks", kinds.risks());
        UUID id = UUID.randomUUID();
        List<Pdf.Scan> scans = scans(a, job);
        byte[] page = pdf.render("chains/application-pdf", m, scans);
        byte[] document = document(a, job, sections, scans, number, by, now, sheet);
        jdbc.sql(
                        "insert into application_version (id, approval_id, number, made_by, made_at, open_questions, content, pdf, document) values (?, ?, ?, ?, ?, ?, ?, ?, ?)")
                .params(
                        id,
                        approvalId,
                        number,
                        by,
                        Timestamp.from(now),
                        open,
                        json.writeValueAsString(sections),
                        page,
                        document)
                .update();
        return id;
    }

    private Surveys.SurveyView newestSurvey(Jobs.JobView job) {
        List<Surveys.Row> all = surveys.of(job.site().id());
        return all.isEmpty() ? null : surveys.survey(all.get(0).id());
    }

    private byte[] document(
            Approvals.ApprovalView a,
            Jobs.JobView job,
            Map<String, List<Kept>> sections,
            List<Pdf.Scan> scans,
            int number,
            String by,
            Instant at,
            Pdf.Sheet sheet) {
        DocumentWriter w = new DocumentWriter(sheet == Pdf.Sheet.LETTER);
        w.title("Application: " + a.title());
        w.line("To: " + a.granter());
        w.line("From: " + office.operator().name());
        w.line(job.draft().name() + ", " + job.site().name() + ", " + show.date(a.firstDay())
                + (a.lastDay().equals(a.firstDay()) ? "" : " to " + show.date(a.lastDay())));
        w.line("Version " + number + ", " + show.moment(at, job.site().zone()) + ", made by " + by);
        sections.forEach((section, kept) -> {
            w.heading(1, section);
            for (Kept k : kept) {
                w.heading(2, k.number() + " " + k.ask());
                k.lines().forEach(w::line);
                if (!k.source().isEmpty()) {
                    w.note("From: " + k.source());
                }
            }
        });
        if (!kinds.risks().isEmpty()) {
            w.heading(1, "Safety plan as a table");
            List<List<String>> rows = new ArrayList<>();
            rows.add(List.of("Risk", "Who", "What is done", "What is left"));
            kinds.risks().forEach(r -> rows.add(List.of(r.risk(), r.who(), r.mitigation(), r.left())));
            w.table(rows);
        }
        w.heading(1, "Annex A: map");
        w.picture(
                pdf.picture("chains/map-svg", Map.of("drawn", drawing.draw(job.site(), 640, 400)), 1280, 800),
                "map.png",
                160,
                100);
        w.note(
                "North up. Cross-hatch: prohibited; diagonal: needs an authorisation; dots: condition; dashes: maker's map,"
                        + " not law. Not for navigation.");
        if (!scans.isEmpty()) {
            w.heading(1, "Annex D: papers");
            scans.forEach(x -> w.line(x.caption()));
            w.note("Their scans are bound into the PDF of the same version.");
        }
        return w.toBytes();
    }

    /** Scans of the papers that the answers rest on. */
    private List<Pdf.Scan> scans(Approvals.ApprovalView a, Jobs.JobView job) {
        Set<String> wanted = kinds.row(a.kind()).kind().questions().stream()
                .flatMap(q -> answering(q.from()).stream())
                .collect(Collectors.toSet());
        List<UUID> holders = new ArrayList<>(List.of(office.operator().id(), job.id()));
        job.aircraft().forEach(c -> holders.add(c.id()));
        job.crew().forEach(m -> holders.add(m.id()));
        Map<UUID, String> captions = new LinkedHashMap<>();
        papers.of(holders).stream()
                .filter(p -> wanted.contains(p.kind()) && p.countsAt(job.site().jurisdiction()))
                .forEach(p -> captions.put(p.id(), p.kindWords() + " " + p.number()));
        return papers.scans(captions.keySet()).stream()
                .map(x -> new Pdf.Scan(
                        captions.get(x.paperId()),
                        x.contentType(),
                        papers.scanFile(x.id()).content()))
                .toList();
    }

    @Transactional(readOnly = true)
    public List<Version> versions(UUID approvalId) {
        return jdbc.sql(
                        "select id, number, made_by, made_at, open_questions, octet_length(pdf), octet_length(document) from application_version where approval_id = ? order by number desc")
                .param(approvalId)
                .query((r, i) -> new Version(
                        (UUID) r.getObject(1),
                        r.getInt(2),
                        r.getString(3),
                        r.getTimestamp(4).toInstant(),
                        r.getInt(5),
                        r.getLong(6),
                        r.getLong(7)))
                .list();
    }

    /** A document of a version, with whose approval it is. */
    public record Made(UUID approvalId, int number, byte[] content) {}

    @Transactional(readOnly = true)
    public Made made(UUID versionId, boolean asPdf) {
        return jdbc.sql("select approval_id, number, " + (asPdf ? "pdf" : "document")
                        + " from application_version where id = ?")
                .param(versionId)
                .query((r, i) -> new Made((UUID) r.getObject(1), r.getInt(2), r.getBytes(3)))
                .optional()
                .orElseThrow(() -> new NotFoundException("version"));
    }

    /** What differs between a version and the one before it, question by question. */
    @Transactional(readOnly = true)
    public List<String> changes(UUID versionId) {
        Made m = made(versionId, true);
        Map<String, Kept> now = content(m.approvalId(), m.number());
        Map<String, Kept> before = content(m.approvalId(), m.number() - 1);
        List<String> changes = new ArrayList<>();
        now.forEach((q, k) -> {
            if (!before.containsKey(q)) {
                changes.add(q + " is new");
            } else if (!before.get(q).lines().equals(k.lines())) {
                changes.add(q + " " + k.ask() + ": changed");
            }
        });
        before.keySet().stream().filter(q -> !now.containsKey(q)).forEach(q -> changes.add(q + " is no longer asked"));
        return before.isEmpty() ? List.of() : changes;
    }

    private Map<String, Kept> content(UUID approvalId, int number) {
        return jdbc.sql("select content from application_version where approval_id = ? and number = ?")
                .params(approvalId, number)
                .query(String.class)
                .optional()
                .map(c -> json.readValue(c, new TypeReference<Map<String, List<Kept>>>() {}).values().stream()
                        .flatMap(List::stream)
                        .collect(Collectors.toMap(Kept::number, k -> k, (x, y) -> x, LinkedHashMap::new)))
                .orElse(new LinkedHashMap<>());
    }

    /** Applications of the same kind with typed answers, for reuse. */
    @Transactional(readOnly = true)
    public List<Approvals.ApprovalView> earlier(Approvals.ApprovalView a) {
        Set<UUID> answered = new LinkedHashSet<>(jdbc.sql("select distinct approval_id from application_answer")
                .query((r, i) -> (UUID) r.getObject(1))
                .list());
        return approvals.ofKind(a.kind()).stream()
                .filter(o -> !o.id().equals(a.id()) && answered.contains(o.id()))
                .limit(10)
                .toList();
    }
}
