package yarrek.app.chains;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Sites;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.JobJudging;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.judging.FactSources;
import yarrek.app.judging.Wanted;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.airspace.SiteLook;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.ChainPlan;
import yarrek.core.approval.History;
import yarrek.core.approval.Lead;
import yarrek.core.approval.Needed;
import yarrek.core.approval.Request;
import yarrek.core.approval.Step;
import yarrek.core.approval.Terms;
import yarrek.core.approval.Waiting;
import yarrek.core.approval.WorkDays;
import yarrek.core.approval.Workload;
import yarrek.core.geo.ShapeText;
import yarrek.core.judging.PlanFacts;
import yarrek.core.judging.PlanInput;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Tier;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.Days;
import yarrek.core.time.TimeWindow;

/** Which approvals a job needs, and when each must be sent. */
@Service
public class Chains {
    private static final int MOST_BUILDS = 40;
    private static final int MOST_DAYS_COMPARED = 7;
    private static final int TODAY_AHEAD_DAYS = 14;

    /** A request of the chain with what is on file and when it must go. */
    public record Line(
            Request request,
            Approvals.ApprovalView onFile,
            ChainPlan.Planned planned,
            Optional<History> history,
            Waiting waiting,
            String note) {
        public String state() {
            return onFile != null
                    ? onFile.state().words()
                    : planned.isDone() ? "held" : request.needed().known() ? "not begun" : "may be needed";
        }

        public String shape() {
            return onFile != null
                    ? onFile.state().shape()
                    : planned.isDone() ? "full" : request.needed().known() ? "notch" : "dots";
        }
    }

    /**
     * The chain of a job.
     *
     * @param trouble why there is no plan, such as a circle; empty when there is one
     * @param beside requests on file that the job as planned does not ask for
     */
    public record View(
            Jobs.JobView job,
            LocalDate today,
            List<Line> lines,
            ChainPlan plan,
            String trouble,
            List<Approvals.ApprovalView> beside,
            ChainDrawing drawing,
            double hoursLeft,
            Kinds.Settings settings,
            List<String> fees) {
        public long late() {
            return lines.stream()
                    .filter(l -> !l.planned().isDone() && l.planned().slackDays() < 0)
                    .count();
        }

        /** Begun, not sent, and taken by a desk over the network. */
        public long forDesks() {
            return lines.stream()
                    .filter(l -> l.onFile() != null
                            && l.onFile().state() == yarrek.core.approval.ApprovalState.PREPARING
                            && !l.request().needed().kind().desk().isEmpty())
                    .count();
        }

        /** Unlocks of the chain that are to be confirmed at power-on. */
        public boolean unlocks() {
            return lines.stream().anyMatch(l -> l.request().needed().kind().unlock());
        }

        public long held() {
            return lines.stream().filter(l -> l.planned().isDone()).count();
        }
    }

    /**
     * Something changed to see what follows.
     *
     * @param firstDay the first day of the job moved to; null for as planned
     * @param step a step whose lead time is taken to be {@code leadDays}; null for none
     */
    public record WhatIf(LocalDate firstDay, String step, Integer leadDays) {
        public static final WhatIf NOTHING = new WhatIf(null, null, null);

        boolean isNothing() {
            return firstDay == null && (step == null || leadDays == null);
        }
    }

    /** What another aircraft, or another day, would ask for. */
    public record Choice(
            String name,
            UUID buildId,
            LocalDate firstDay,
            List<String> needs,
            double hours,
            LocalDate earliest,
            long days,
            boolean inTime,
            long notKnown,
            List<String> nothingLifts) {

        /** The shape of its standing, as {@code bits :: status} draws it. */
        public String shape() {
            return !nothingLifts.isEmpty() || !inTime ? "notch" : notKnown > 0 ? "dots" : "full";
        }

        public String says() {
            if (!nothingLifts.isEmpty()) {
                return "no approval lifts it";
            }
            return !inTime ? "too late" : notKnown > 0 ? "in time, if" : "in time";
        }
    }

    /** A request to be sent, for Today and the calendar. */
    public record Due(
            UUID jobId, String jobName, String step, String title, LocalDate sendBy, boolean known, boolean waits) {
        public boolean isLateOn(LocalDate today) {
            return sendBy.isBefore(today);
        }

        /** The shape of its standing, as {@code bits :: status} draws it. */
        public String shape(LocalDate today) {
            return isLateOn(today) ? "notch" : known ? "cut" : "dots";
        }

        public String says(LocalDate today) {
            if (isLateOn(today)) {
                return "late";
            }
            return !known ? "may be needed" : waits ? "waits for another" : "to be sent";
        }
    }

    private final JdbcClient jdbc;
    private final JdbcTemplate batch;
    private final Clock clock;
    private final JobJudging jobJudging;
    private final JobLists jobLists;
    private final Fleet fleet;
    private final Rulebook rulebook;
    private final Office office;
    private final Kinds kinds;
    private final Approvals approvals;

    Chains(
            JdbcClient jdbc,
            JdbcTemplate batch,
            Clock clock,
            JobJudging jobJudging,
            JobLists jobLists,
            Fleet fleet,
            Rulebook rulebook,
            Office office,
            Kinds kinds,
            Approvals approvals) {
        this.jdbc = jdbc;
        this.batch = batch;
        this.clock = clock;
        this.jobJudging = jobJudging;
        this.jobLists = jobLists;
        this.fleet = fleet;
        this.rulebook = rulebook;
        this.office = office;
        this.kinds = kinds;
        this.approvals = approvals;
    }

    LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    Instant now() {
        return clock.instant();
    }

    // --- what is needed ----------------------------------------------------------------------------------------------

    /** What one day of a plan needs with a build, and which breaches no approval on the list would lift. */
    private record DayNeeds(List<Needed> needed, List<String> nothingLifts) {}

    /** A plan whose chain is wanted, with what its facts rest on. */
    private record Subject(UUID jobId, JobDraft draft, Sites.SiteView site, FactSources sources) {
        Subject(Jobs.JobView job, JobDraft draft, FactSources sources) {
            this(job.id(), draft, job.site(), sources);
        }
    }

    /** What its flights of a day need, of all of them together; on a day without one nothing. */
    private DayNeeds needsOn(Subject job, LocalDate day, List<ApprovalKind> all) {
        JobDraft then = job.draft().only(day);
        if (then.flights().isEmpty() && !job.draft().flights().isEmpty()) {
            return new DayNeeds(List.of(), List.of());
        }
        Map<String, Needed> needed = new LinkedHashMap<>();
        Set<String> nothing = new LinkedHashSet<>();
        for (Wanted part : then.parts(job.jobId())) {
            DayNeeds its = needsOf(job, part, all);
            Optional<Needed.ForCraft> craft = craft(job, part);
            its.needed().stream()
                    .map(n -> n.kind().unlock() && craft.isPresent() ? n.of(craft.get()) : n)
                    .forEach(n -> needed.merge(n.key(), n, Chains::surer));
            nothing.addAll(its.nothingLifts());
        }
        return new DayNeeds(List.copyOf(needed.values()), List.copyOf(nothing));
    }

    /** The aircraft of a job, as far as they are chosen. */
    private static Set<UUID> craft(Subject job) {
        return job.draft().planned().builds().stream()
                .map(b -> job.sources().aircraftOf(b).id())
                .collect(Collectors.toSet());
    }

    /** The aircraft of a part of a job that has several; whoever has one needs not be told which. */
    private static Optional<Needed.ForCraft> craft(Subject job, Wanted part) {
        return part.buildId() == null || craft(job).size() < 2
                ? Optional.empty()
                : Optional.of(job.sources().aircraftOf(part.buildId())).map(a -> new Needed.ForCraft(a.id(), a.name()));
    }

    /** Identity of a request on file, as the chain of the job names it: of the only aircraft without saying which. */
    private static String key(Approvals.ApprovalView a, Set<UUID> craft) {
        boolean only = craft.isEmpty() || (craft.size() == 1 && craft.contains(a.aircraftId()));
        return Needed.key(a.kind(), a.zoneId(), only ? null : a.aircraftId()) + "#" + a.number();
    }

    private DayNeeds needsOf(Subject job, Wanted part, List<ApprovalKind> all) {
        PlanInput input = job.sources().input(part);
        Facts bare = PlanFacts.of(input.bare());
        OwnRules.Setting setting = job.sources().setting(part);
        Assessment a = Assessment.of(bare, rulebook.packsFor(bare, setting));
        SiteLook look = input.zones()
                .look(input.place()
                        .look(
                                input.plan().greatestHeight(input.place()),
                                input.plan().windows()));
        OptionalDouble mass = input.build().isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(input.build().get().mostG());
        List<Needed.ZoneHit> hits = look.pressing().stream()
                .filter(m -> m.zone().kind() == ZoneKind.MAKER
                        || (m.zone().bindsAt(mass) && m.zone().restriction() != ZoneMet.Restriction.NO_RESTRICTION))
                .map(m -> new Needed.ZoneHit(
                        m.zone().id(), m.zone().name(), m.zone().kind(), m.meeting() == Zone.Meeting.MEETS))
                .toList();
        String jurisdiction = job.site().jurisdiction();
        Set<String> answered = all.stream()
                .filter(k -> k.holdsIn(jurisdiction))
                .flatMap(k -> k.trigger().answers().stream())
                .collect(Collectors.toSet());
        List<Needed> needed = Needed.of(all, jurisdiction, a, bare, hits);
        List<String> nothing = a.findings().stream()
                .filter(f -> f.verdict() == Verdict.BREACHED
                        && f.rule().tier() == Tier.LAW
                        && f.rule().layer() == Layer.LAW
                        // a paper that has run out is renewed, whatever is flown
                        && f.rule().requires().papers().isEmpty()
                        && !answered.contains(f.rule().id())
                        && !askedZoneByZone(f, bare, needed))
                .map(Finding::rule)
                .map(r -> r.title() + " (" + r.id() + ")")
                .distinct()
                .toList();
        return new DayNeeds(needed, nothing);
    }

    /** Whether a finding is of zones for each of which something is asked that lifts it. */
    private static boolean askedZoneByZone(Finding f, Facts bare, List<Needed> needed) {
        Optional<ZoneMet.Restriction> of = f.rule().requires().zones();
        if (of.isEmpty()) {
            return false;
        }
        Set<String> asked = needed.stream().flatMap(x -> x.zoneId().stream()).collect(Collectors.toSet());
        return bare.zones().orElse(List.of()).stream()
                .filter(z -> z.restriction() == of.get())
                .allMatch(z -> asked.contains(z.id()));
    }

    /** The requests of a plan day by day: a need may hold on some of its days only. */
    private List<Request> requests(Subject job, int mostDays, Set<String> nothingLifts) {
        List<ApprovalKind> all = kinds.kinds();
        Map<String, Needed> needed = new LinkedHashMap<>();
        Map<String, List<LocalDate>> days = new HashMap<>();
        List<LocalDate> jobDays = job.draft()
                .firstDay()
                .datesUntil(job.draft().lastDay().plusDays(1))
                .toList();
        DayNeeds last = null;
        for (int i = 0; i < jobDays.size(); i++) {
            if (i < mostDays || last == null) {
                last = needsOn(job, jobDays.get(i), all);
                nothingLifts.addAll(last.nothingLifts());
            }
            for (Needed n : last.needed()) {
                needed.merge(n.key(), n, Chains::surer);
                days.computeIfAbsent(n.key(), k -> new ArrayList<>()).add(jobDays.get(i));
            }
        }
        List<Needed> known = List.copyOf(needed.values());
        return known.stream()
                .sorted(Comparator.comparingInt(n -> all.indexOf(n.kind())))
                .flatMap(n -> Request.of(n, days.get(n.key()), Request.longest(n, known)).stream())
                .toList();
    }

    private static Needed surer(Needed a, Needed b) {
        return a.known() || !b.known() ? a : b;
    }

    // --- the chain ---------------------------------------------------------------------------------------------------

    /** The chain of a plan; {@code plan} is null and {@code trouble} says why when there is none. */
    private record Chain(List<Request> requests, List<Line> lines, ChainPlan plan, String trouble, WorkDays calendar) {}

    @Transactional(readOnly = true)
    public View view(Jobs.JobView job, WhatIf what) {
        JobDraft planned = job.draft();
        long length = ChronoUnit.DAYS.between(planned.firstDay(), planned.lastDay());
        JobDraft draft = what.firstDay() == null
                ? planned
                : planned.on(what.firstDay(), what.firstDay().plusDays(length));
        FactSources sources = jobJudging.sources(job.id(), List.of(draft));
        List<Approvals.ApprovalView> onFile = sources.approvals().getOrDefault(job.id(), List.of());
        // as planned today: a plan moved to other days is covered by nothing on file yet
        Map<String, String> lifted = what.firstDay() == null
                ? lifted(draft.parts(job.id()).stream()
                        .map(w -> PlanFacts.of(sources.input(w)))
                        .toList())
                : Map.of();
        Chain c =
                chain(new Subject(job, draft, sources), onFile, lifted, approvals.histories(), what, beside(job.id()));
        return shown(job, draft, c, onFile);
    }

    /** What is lifted in every flight of a plan: what one of them still lacks is asked for. */
    private static Map<String, String> lifted(List<Facts> parts) {
        Map<String, String> all = new HashMap<>(parts.get(0).lifted());
        parts.forEach(f -> all.keySet().retainAll(f.lifted().keySet()));
        return all;
    }

    private Chain chain(
            Subject job,
            List<Approvals.ApprovalView> onFile,
            Map<String, String> lifted,
            Approvals.Histories histories,
            WhatIf what,
            List<Workload.Task> beside) {
        List<Request> requests = requests(job, Integer.MAX_VALUE, new HashSet<>());
        Kinds.Settings settings = kinds.settings();
        LocalDate today = today();
        WorkDays calendar =
                kinds.workDays(job.site().jurisdiction(), job.draft().firstDay());
        ZoneId zone = office.operator().zone();
        Set<UUID> craft = craft(job);
        Map<String, Approvals.ApprovalView> byKey = new HashMap<>();
        for (Approvals.ApprovalView a : onFile) {
            byKey.merge(key(a, craft), a, (x, y) -> x.state().isHeld() ? x : y);
        }
        Map<String, Request.Standing> standing = new HashMap<>();
        Map<String, Optional<History>> historyOf = new HashMap<>();
        for (Request r : requests) {
            Approvals.ApprovalView a = byKey.get(r.id());
            Optional<History> h = histories.of(r.needed().kind().code(), a == null ? granter(r.needed()) : a.granter());
            historyOf.put(r.id(), h);
            standing.put(
                    r.id(),
                    a == null && paper(r, lifted).isPresent()
                            ? new Request.Standing(
                                    Optional.of(today),
                                    Optional.of(today),
                                    Optional.empty(),
                                    Optional.empty(),
                                    0,
                                    Optional.empty())
                            : standing(job, r, a, h, zone, what));
        }
        List<Step> steps = Request.steps(requests, standing, true);
        ChainPlan plan = null;
        String trouble = "";
        try {
            plan = ChainPlan.of(
                    steps,
                    new ChainPlan.Settings(
                            today,
                            calendar,
                            kinds.workDays(office.operator().jurisdiction(), today),
                            settings.hoursADay(),
                            settings.marginDays(),
                            beside));
        } catch (IllegalArgumentException e) {
            trouble = e.getMessage() + "; change one of these kinds";
        }
        List<Line> lines = new ArrayList<>();
        if (plan != null) {
            Map<String, Request> byId = requests.stream().collect(Collectors.toMap(Request::id, r -> r, (a, b) -> a));
            for (ChainPlan.Planned p : plan.steps()) {
                Request r = byId.get(p.step().id());
                Approvals.ApprovalView a = byKey.get(r.id());
                lines.add(new Line(
                        r,
                        a,
                        p,
                        historyOf.get(r.id()),
                        a == null
                                ? null
                                : waiting(
                                        a,
                                        r.needed().kind(),
                                        calendar(a, job.site().jurisdiction()),
                                        zone,
                                        histories),
                        note(r, a, lifted)));
            }
        }
        return new Chain(requests, lines, plan, trouble, calendar);
    }

    private View shown(Jobs.JobView job, JobDraft draft, Chain c, List<Approvals.ApprovalView> onFile) {
        LocalDate today = today();
        List<Request> requests = c.requests();
        List<Line> lines = c.lines();
        ChainPlan plan = c.plan();
        Set<UUID> inTheChain = lines.stream()
                .flatMap(l -> Stream.ofNullable(l.onFile()))
                .map(a -> a.id())
                .collect(Collectors.toSet());
        return new View(
                job,
                today,
                lines,
                plan,
                c.trouble(),
                plan == null
                        ? List.of()
                        : onFile.stream()
                                .filter(a -> !inTheChain.contains(a.id()))
                                .toList(),
                plan == null ? null : ChainDrawing.of(plan, c.calendar(), today, draft.firstDay(), draft.lastDay()),
                lines.stream()
                        .filter(l -> l.onFile() == null
                                || l.onFile().state() == yarrek.core.approval.ApprovalState.PREPARING)
                        .mapToDouble(l -> Math.max(
                                0,
                                l.request().prepareHours()
                                        - (l.onFile() == null ? 0 : l.onFile().hoursSpent())))
                        .sum(),
                kinds.settings(),
                requests.stream()
                        .flatMap(r -> r.needed().kind().fee().stream()
                                .map(f -> r.needed().kind().title() + " " + f))
                        .distinct()
                        .toList());
    }

    /** Whom to ask: the granter of the kind, and the zone where there is one. */
    static String granter(Needed n) {
        return n.kind().granter() + (n.zoneName().isEmpty() ? "" : ", " + n.zoneName());
    }

    /** Days on which the granter of a request works, by its own hours where they are on file. */
    WorkDays calendar(Approvals.ApprovalView a, String jurisdiction) {
        return kinds.workDays(a.granter(), jurisdiction, today())
                .orElseGet(() -> kinds.workDays(jurisdiction, today()));
    }

    /** The clock of a request that is out; null for one that is not. */
    Waiting waiting(
            Approvals.ApprovalView a, ApprovalKind k, WorkDays calendar, ZoneId zone, Approvals.Histories histories) {
        if (!a.state().isOut() || a.sentAt() == null) {
            return null;
        }
        History.Leads leads = History.leads(k, histories.of(a.kind(), a.granter()));
        return Waiting.of(
                a.sentAt().atZone(zone).toLocalDate(),
                today(),
                leads.usual(),
                leads.worst(),
                a.nudgedOn(),
                kinds.settings().nudgeDays(),
                calendar);
    }

    private Request.Standing standing(
            Subject job, Request r, Approvals.ApprovalView a, Optional<History> h, ZoneId zone, WhatIf what) {
        History.Leads leads = History.leads(r.needed().kind(), h);
        Optional<Lead> usual = Optional.of(leads.usual());
        Optional<Lead> worst = Optional.of(leads.worst());
        if (r.id().equals(what.step()) && what.leadDays() != null) {
            usual = Optional.of(Lead.ofDays(what.leadDays()));
            worst = usual;
        }
        // what was asked for other days than are needed now is still to be asked for
        boolean fits =
                a != null && !a.firstDay().isAfter(r.firstDay()) && !a.lastDay().isBefore(r.lastDay());
        boolean out = fits && (a.state().isOut() || a.state().isHeld());
        return new Request.Standing(
                out && a.sentAt() != null ? Optional.of(a.sentAt().atZone(zone).toLocalDate()) : Optional.empty(),
                fits && a.state().isHeld()
                        ? Optional.of(a.decidedAt().atZone(zone).toLocalDate())
                        : Optional.empty(),
                usual,
                worst,
                a == null ? 0 : a.hoursSpent(),
                kinds.workDays(
                        a == null ? granter(r.needed()) : a.granter(),
                        job.site().jurisdiction(),
                        r.firstDay()));
    }

    /** A paper entered by hand that lifts what the request is for. */
    private static Optional<String> paper(Request r, Map<String, String> lifted) {
        return r.needed().zoneId().isPresent()
                ? Optional.ofNullable(lifted.get(r.needed().zoneId().get()))
                : r.needed().kind().trigger().answers().stream()
                        .filter(lifted::containsKey)
                        .map(lifted::get)
                        .findFirst();
    }

    private static String note(Request r, Approvals.ApprovalView a, Map<String, String> lifted) {
        if (a == null) {
            return paper(r, lifted)
                    .map(n -> "held as paper " + n + ", its terms not on file")
                    .orElse("");
        }
        if (!a.firstDay().equals(r.firstDay()) || !a.lastDay().equals(r.lastDay())) {
            return "asked for " + Days.show(a.firstDay(), a.lastDay()) + "; the job now needs "
                    + Days.show(r.firstDay(), r.lastDay());
        }
        return "";
    }

    // --- beginning ---------------------------------------------------------------------------------------------------

    /** Begins a request of the chain: what is asked for comes from the job. */
    @Transactional
    public UUID begin(Jobs.JobView job, String requestId, String by) {
        approvals.oneAtATime(job.id());
        Line line = view(job, WhatIf.NOTHING).lines().stream()
                .filter(l -> l.request().id().equals(requestId))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("the job as planned does not need that"));
        if (line.onFile() != null) {
            return line.onFile().id();
        }
        Request r = line.request();
        UUID craftId = r.needed()
                .craft()
                .map(Needed.ForCraft::id)
                .orElse(
                        r.needed().kind().unlock() && job.build() != null
                                ? job.build().aircraft().id()
                                : null);
        return approvals.begin(
                new Approvals.Draft(
                        job.id(),
                        r.needed().kind().code(),
                        r.needed().zoneId().orElse(null),
                        r.needed().zoneName(),
                        r.number(),
                        craftId,
                        r.title(),
                        granter(r.needed()),
                        r.firstDay(),
                        r.lastDay(),
                        asked(job, r.needed().kind(), craftId, r.firstDay(), r.lastDay())),
                by);
    }

    /**
     * What a job asks for on some of its days: its hours, area, height, aircraft, pilots, and the numbers to be quoted.
     *
     * @param craftId the one aircraft that it is for; null for all of them
     */
    Terms asked(Jobs.JobView job, ApprovalKind kind, UUID craftId, LocalDate first, LocalDate last) {
        List<TimeWindow> windows =
                Jobs.windows(job.draft(), first, last, job.site().zone());
        OptionalDouble height = job.draft().greatestHeight(job.site());
        List<Approvals.ApprovalView> quoted = approvals.of(job.id()).stream()
                .filter(a -> a.state().isHeld() && kind.quotes().contains(a.kind()))
                .filter(a -> !a.firstDay().isAfter(last) && !first.isAfter(a.lastDay()))
                .toList();
        List<String> numbers = quoted.stream()
                .map(Approvals.ApprovalView::reference)
                .distinct()
                .toList();
        List<String> people = job.pilots();
        List<String> craft = job.aircraft().stream()
                .filter(a -> craftId == null || craftId.equals(a.id()))
                .map(Fleet.AircraftView::serial)
                .toList();
        String purpose = Objects.requireNonNullElse(job.draft().purpose(), "");
        // an unlock has to equal what is granted, even where that falls short of the job
        Optional<Terms> equal = quoted.stream()
                .map(Approvals.ApprovalView::terms)
                .filter(t ->
                        kind.unlock() && t.window().isPresent() && t.drawnArea().isPresent())
                .findFirst();
        if (equal.isPresent()) {
            Terms t = equal.get();
            return new Terms(
                    t.from(),
                    t.to(),
                    t.area(),
                    t.ceilingM(),
                    t.ceilingAsWritten(),
                    craft,
                    people,
                    purpose,
                    numbers,
                    Set.of());
        }
        return new Terms(
                windows.get(0).start(),
                windows.get(windows.size() - 1).end(),
                ShapeText.write(job.site().area()),
                height.isEmpty() ? null : Double.valueOf(height.getAsDouble()),
                height.isEmpty() ? "" : yarrek.core.units.Finite.format(height.getAsDouble()) + " m above ground",
                craft,
                people,
                purpose,
                numbers,
                Set.of());
    }

    // --- comparing ---------------------------------------------------------------------------------------------------

    private Choice choice(Jobs.JobView job, JobDraft draft, FactSources sources, String name) {
        Set<String> nothing = new java.util.TreeSet<>();
        List<Request> requests = requests(new Subject(job, draft, sources), MOST_DAYS_COMPARED, nothing);
        WorkDays calendar = kinds.workDays(job.site().jurisdiction(), draft.firstDay());
        Kinds.Settings s = kinds.settings();
        LocalDate today = today();
        // as if everything were still to be asked for: what is granted is granted for the aircraft planned
        ChainPlan plan = ChainPlan.of(
                Request.steps(requests, Map.of(), false),
                new ChainPlan.Settings(today, calendar, s.hoursADay(), s.marginDays()));
        double hours = requests.stream().mapToDouble(Request::prepareHours).sum();
        LocalDate held = plan.steps().stream()
                .map(ChainPlan.Planned::earliestGrant)
                .max(Comparator.naturalOrder())
                .orElse(today);
        return new Choice(
                name,
                draft.buildId(),
                draft.firstDay(),
                requests.stream().map(Request::title).toList(),
                hours,
                plan.earliestJobDay(),
                ChronoUnit.DAYS.between(today, held),
                plan.steps().stream().allMatch(p -> p.slackDays() >= 0),
                requests.stream().filter(r -> !r.needed().known()).count(),
                List.copyOf(nothing));
    }

    /** The aircraft that could fly the job, the least paper first. */
    @Transactional(readOnly = true)
    public List<Choice> byAircraft(Jobs.JobView job) {
        Map<UUID, Fleet.BuildView> builds = new LinkedHashMap<>();
        if (job.build() != null) {
            builds.put(job.build().id(), job.build());
        }
        fleet.builds().stream().limit(MOST_BUILDS).forEach(b -> builds.putIfAbsent(b.id(), b));
        FactSources sources = jobJudging.sources(
                job.id(), builds.keySet().stream().map(b -> job.draft().with(b)).toList());
        return builds.values().stream()
                .map(b -> choice(
                        job,
                        job.draft().with(b.id()),
                        sources,
                        b.aircraft().name() + ", " + b.name() + " (" + b.mass().mass() + ")"))
                .sorted(Comparator.comparing((Choice c) -> c.nothingLifts().size())
                        .thenComparing(Choice::hours)
                        .thenComparing(Choice::days))
                .toList();
    }

    /** What the job asks for with each of some builds, in their order. */
    @Transactional(readOnly = true)
    public List<Choice> byBuild(Jobs.JobView job, List<UUID> builds) {
        JobDraft plain = job.draft().flying(List.of());
        List<JobDraft> drafts = builds.stream().map(plain::with).toList();
        FactSources sources = jobJudging.sources(job.id(), drafts);
        return drafts.stream().map(d -> choice(job, d, sources, "")).toList();
    }

    /** The same job on other days: as planned, the next weekend or working day, and one to four weeks later. */
    @Transactional(readOnly = true)
    public List<Choice> byDate(Jobs.JobView job) {
        LocalDate first = job.draft().firstDay();
        long length = ChronoUnit.DAYS.between(first, job.draft().lastDay());
        boolean weekend = first.getDayOfWeek().compareTo(DayOfWeek.SATURDAY) >= 0;
        LocalDate other = first;
        while ((other.getDayOfWeek().compareTo(DayOfWeek.SATURDAY) >= 0) == weekend) {
            other = other.plusDays(1);
        }
        TreeMap<LocalDate, String> dates = new TreeMap<>();
        dates.put(first, "as planned");
        dates.put(other, weekend ? "the next working day" : "the next weekend");
        for (int weeks : List.of(1, 2, 4)) {
            dates.putIfAbsent(first.plusWeeks(weeks), weeks + (weeks == 1 ? " week later" : " weeks later"));
        }
        FactSources sources = jobJudging.sources(
                job.id(),
                dates.keySet().stream()
                        .map(d -> job.draft().on(d, d.plusDays(length)))
                        .toList());
        List<Choice> choices = new ArrayList<>();
        dates.forEach((d, words) -> choices.add(choice(job, job.draft().on(d, d.plusDays(length)), sources, words)));
        return choices;
    }

    // --- what is due -------------------------------------------------------------------------------------------------

    /** Plans the chains of jobs anew and stores what is still to be sent. */
    @Transactional
    public void store(List<UUID> jobIds) {
        store(jobJudging.asTheyAre(jobIds));
    }

    /** A step that is still to be sent, as it is stored. */
    private record Sending(
            String step,
            String title,
            LocalDate sendBy,
            boolean known,
            boolean waits,
            LocalDate lastDay,
            double hours) {}

    /** Paper work of other jobs, as far as it is known to be needed. */
    private List<Workload.Task> beside(UUID jobId) {
        return jdbc.sql("select job_id, step, hours, send_by from chain_due"
                        + " where known and hours > 0 and last_day >= :today and job_id <> :job")
                .param("today", today())
                .param("job", jobId)
                .query((r, i) -> new Workload.Task(
                        r.getString(1) + " " + r.getString(2), r.getDouble(3), r.getObject(4, LocalDate.class)))
                .list();
    }

    /** The same for jobs just judged, in their transaction; writes where something else is to be sent than before. */
    void store(JobJudging.Judged judged) {
        Map<UUID, Set<Sending>> before =
                sending(judged.jobs().stream().map(JobJudging.Done::id).toList());
        Approvals.Histories histories = approvals.histories();
        List<Object[]> gone = new ArrayList<>();
        List<Object[]> rows = new ArrayList<>();
        for (JobJudging.Done job : judged.jobs()) {
            Set<Sending> was = before.getOrDefault(job.id(), Set.of());
            Set<Sending> now = sending(job, judged.sources(), histories);
            if (!now.equals(was)) {
                if (!was.isEmpty()) {
                    gone.add(new Object[] {job.id()});
                }
                now.forEach(s -> rows.add(
                        new Object[] {job.id(), s.step, s.title, s.sendBy, s.known, s.waits, s.lastDay, s.hours}));
            }
        }
        batch.batchUpdate("delete from chain_due where job_id = ?", gone);
        batch.batchUpdate(
                "replace into chain_due (job_id, step, title, send_by, known, waits, last_day, hours)"
                        + " values (?, ?, ?, ?, ?, ?, ?, ?)",
                rows);
    }

    private Map<UUID, Set<Sending>> sending(List<UUID> jobIds) {
        Map<UUID, Set<Sending>> byJob = new HashMap<>();
        jdbc.sql(
                        "select job_id, step, title, send_by, known, waits, last_day, hours from chain_due where job_id in (:j)")
                .param("j", jobIds)
                .query(r -> {
                    byJob.computeIfAbsent(r.getObject(1, UUID.class), k -> new LinkedHashSet<>())
                            .add(new Sending(
                                    r.getString(2),
                                    r.getString(3),
                                    r.getObject(4, LocalDate.class),
                                    r.getBoolean(5),
                                    r.getBoolean(6),
                                    r.getObject(7, LocalDate.class),
                                    r.getDouble(8)));
                });
        return byJob;
    }

    private Set<Sending> sending(JobJudging.Done job, FactSources sources, Approvals.Histories histories) {
        Set<Sending> sending = new LinkedHashSet<>();
        if (!job.state().equals("PLANNED") || job.draft().lastDay().isBefore(today())) {
            return sending;
        }
        JobDraft d = job.draft();
        Chain chain = chain(
                new Subject(job.id(), d, sources.sites().get(d.siteId()), sources),
                sources.approvals().getOrDefault(job.id(), List.of()),
                lifted(job.facts()),
                histories,
                WhatIf.NOTHING,
                // what has to be sent by when does not depend on whose turn it is
                List.of());
        Set<String> done = chain.lines().stream()
                .filter(l -> l.planned().isDone())
                .map(l -> l.request().id())
                .collect(Collectors.toSet());
        for (Line l : chain.lines()) {
            if (!l.planned().isDone() && l.planned().step().sentOn().isEmpty()) {
                sending.add(new Sending(
                        cut(l.request().id(), 260),
                        cut(l.request().title(), 400),
                        l.planned().latestSend(),
                        l.request().needed().known(),
                        !done.containsAll(l.planned().step().needs()),
                        d.lastDay(),
                        l.planned().step().prepareHours()));
            }
        }
        return sending;
    }

    private static String cut(String s, int most) {
        return s.length() > most ? s.substring(0, most) : s;
    }

    /** What has to be sent, the first of it, and how much it is in all. */
    public record DueList(List<Due> first, long total) {}

    /** What has to be sent within two weeks, or is late, for jobs that the viewer may see. */
    @Transactional(readOnly = true)
    public DueList due(Viewer viewer, Integer withinDays, int most) {
        LocalDate until = today().plusDays(withinDays == null ? TODAY_AHEAD_DAYS : withinDays);
        // a pilot has few jobs; a manager sees every job, and only the first rows are asked for
        Set<UUID> own =
                viewer.isPilot() ? jobLists.openNames(viewer, Integer.MAX_VALUE).keySet() : Set.of(new UUID(0, 0));
        String where = " from chain_due where send_by <= :until and last_day >= :today"
                + (viewer.isPilot() ? " and job_id in (:own)" : "");
        if (own.isEmpty()) {
            return new DueList(List.of(), 0);
        }
        List<Due> due = jdbc.sql("select job_id, step, title, send_by, known, waits" + where
                        + " order by send_by, title limit " + most)
                .param("until", until)
                .param("today", today())
                .param("own", own)
                .query((r, i) -> new Due(
                        (UUID) r.getObject(1),
                        "",
                        r.getString(2),
                        r.getString(3),
                        r.getObject(4, LocalDate.class),
                        r.getBoolean(5),
                        r.getBoolean(6)))
                .list();
        long total = due.size() < most
                ? due.size()
                : jdbc.sql("select count(*)" + where)
                        .param("until", until)
                        .param("today", today())
                        .param("own", own)
                        .query(Long.class)
                        .single();
        Map<UUID, String> open =
                jobLists.openNames(viewer, due.stream().map(Due::jobId).collect(Collectors.toSet()));
        return new DueList(
                due.stream()
                        .filter(d -> open.containsKey(d.jobId()))
                        .map(d -> new Due(
                                d.jobId(), open.get(d.jobId()), d.step(), d.title(), d.sendBy(), d.known(), d.waits()))
                        .toList(),
                total);
    }

    /**
     * The paper work of everything that is known to be sent, in the hours of the house.
     *
     * @param slots by {@link #slotOf(Due)}
     * @param lastReady the day by which all of it is ready; null when there is none
     * @param late how many are not ready on the last day they may be sent
     */
    public record Load(
            double hours,
            double hoursADay,
            int requests,
            LocalDate lastReady,
            long late,
            Map<String, Workload.Slot> slots) {
        /** Whose turn it is when; null for what needs no work, or may not be needed. */
        public Workload.Slot slotOf(Due d) {
            return slots.get(d.jobId() + " " + d.step());
        }
    }

    @Transactional(readOnly = true)
    public Load load() {
        List<Workload.Task> tasks = beside(new UUID(0, 0));
        double hoursADay = kinds.settings().hoursADay();
        Map<String, Workload.Slot> slots =
                Workload.share(tasks, today(), kinds.workDays(office.operator().jurisdiction(), today()), hoursADay);
        return new Load(
                tasks.stream().mapToDouble(Workload.Task::hours).sum(),
                hoursADay,
                tasks.size(),
                slots.values().stream()
                        .map(Workload.Slot::ready)
                        .max(Comparator.naturalOrder())
                        .orElse(null),
                tasks.stream()
                        .filter(t -> slots.get(t.id()).ready().isAfter(t.due()))
                        .count(),
                slots);
    }

    /** Requests that are out and have to be asked after, and unlocks to be tried at base, by job. */
    public record Nudge(UUID approvalId, String title, String jobName, LocalDate on, String why, boolean late) {}

    @Transactional(readOnly = true)
    public List<Nudge> nudges(Viewer viewer) {
        LocalDate today = today();
        ZoneId zone = office.operator().zone();
        Kinds.Settings settings = kinds.settings();
        List<Approvals.ApprovalView> lasting = approvals.lasting(today);
        Map<UUID, String> open = jobLists.openNames(
                viewer, lasting.stream().map(Approvals.ApprovalView::jobId).collect(Collectors.toSet()));
        Map<String, Kinds.Row> byCode =
                kinds.rows().stream().collect(Collectors.toMap(k -> k.kind().code(), k -> k));
        WorkDays calendar = kinds.workDays(office.operator().jurisdiction(), today);
        Approvals.Histories histories = approvals.histories();
        List<Nudge> nudges = new ArrayList<>();
        for (Approvals.ApprovalView a : lasting) {
            Kinds.Row k = byCode.get(a.kind());
            String job = open.get(a.jobId());
            if (k == null || job == null) {
                continue;
            }
            if (a.state() == yarrek.core.approval.ApprovalState.ASKED_BACK) {
                nudges.add(new Nudge(
                        a.id(), a.title(), job, today, "the granter asks back; it waits for our answer", false));
            } else if (a.state().isOut() && a.sentAt() != null) {
                Waiting w = waiting(
                        a,
                        k.kind(),
                        kinds.workDays(a.granter(), office.operator().jurisdiction(), today)
                                .orElse(calendar),
                        zone,
                        histories);
                if (!w.nudgeOn().isAfter(today.plusDays(2))) {
                    nudges.add(new Nudge(
                            a.id(),
                            a.title(),
                            job,
                            w.nudgeOn(),
                            w.days() + " days with " + a.granter() + "; it usually comes by " + Days.show(w.usualBy()),
                            w.nudgeOn().isBefore(today)));
                }
            }
            if (k.kind().unlock() && !a.state().equals(yarrek.core.approval.ApprovalState.WITHDRAWN)) {
                rehearsal(a, job, settings, calendar, today).ifPresent(nudges::add);
            }
        }
        return nudges;
    }

    private Optional<Nudge> rehearsal(
            Approvals.ApprovalView a, String job, Kinds.Settings settings, WorkDays calendar, LocalDate today) {
        LocalDate by = yarrek.core.approval.UnlockLife.rehearseBy(a.firstDay(), settings.rehearsalDays(), calendar);
        boolean tried = Approvals.life(approvals.stages(a.id()), true).isReady();
        return tried || by.isAfter(today.plusDays(7)) || a.lastDay().isBefore(today)
                ? Optional.empty()
                : Optional.of(new Nudge(
                        a.id(),
                        "Rehearse: " + a.title(),
                        job,
                        by,
                        "load it, switch it on and confirm it once at base, " + settings.rehearsalDays()
                                + " days before the job",
                        by.isBefore(today)));
    }
}
