package yarrek.app.today;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Airspace;
import yarrek.app.chains.Chains;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.flights.Flights;
import yarrek.app.incidents.Incidents;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.JobPapers;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.core.paper.PaperState;
import yarrek.core.paper.Weave;
import yarrek.core.time.Days;

/** Gathers what needs a hand. */
@Service
public class Today {
    private static final int JOB_HORIZON_DAYS = 21;
    private static final int QUEUE = 40;
    private static final int ZONES_AHEAD_DAYS = 3;

    /** The queue shows the most pressing; what is later than so many more is not looked for. */
    private static final int MOST_DUE = 200;

    private static final int WEAVE_DAYS_BEFORE = 3;
    private static final int WEAVE_DAYS_AFTER = 32;
    private static final int WEAVE_ROWS = 14;
    private static final int LOOK_WITHIN_HOURS = 72;

    /**
     * Something to do.
     *
     * @param by until when; overdue when it is past
     * @param shape status shape
     * @param link the exact place
     */
    public record Item(
            Instant by,
            boolean allDay,
            String shape,
            String state,
            String what,
            String why,
            String link,
            String action,
            boolean late) {

        /** The same for somebody who changes nothing. */
        Item toLookAt() {
            return new Item(by, allDay, shape, state, what, why, link, "look", late);
        }

        /** Where it stands on the page: to be done today, late, in the next seven days, or later. */
        public When when(LocalDate today, ZoneId zone) {
            LocalDate day = by.atZone(zone).toLocalDate();
            if (day.equals(today)) {
                return When.TODAY;
            }
            return late || day.isBefore(today) ? When.LATE : day.isAfter(today.plusDays(7)) ? When.LATER : When.WEEK;
        }
    }

    /** Groups of the page, in their order: what is over cannot be helped today by looking at it first. */
    public enum When {
        TODAY("Today"),
        LATE("Late"),
        WEEK("Next seven days"),
        LATER("Later");

        private final String words;

        When(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** The page. */
    public record Page(LocalDate today, ZoneId zone, List<Item> queue, int more, Weave weave, List<Jobs.Row> nextJobs) {
        /** The queue in its groups; those that are empty are left out. */
        public Map<When, List<Item>> groups() {
            Map<When, List<Item>> groups = new java.util.EnumMap<>(When.class);
            queue.forEach(i -> groups.computeIfAbsent(i.when(today, zone), w -> new ArrayList<>())
                    .add(i));
            return groups;
        }
    }

    private final JobPapers jobPapers;
    private final JobLists jobLists;
    private final Papers papers;
    private final Flights flights;
    private final Incidents incidents;
    private final Crew crew;
    private final Fleet fleet;
    private final Airspace airspace;
    private final Chains chains;
    private final Office office;
    private final Clock clock;

    Today(
            JobPapers jobPapers,
            JobLists jobLists,
            Papers papers,
            Flights flights,
            Incidents incidents,
            Crew crew,
            Fleet fleet,
            Airspace airspace,
            Chains chains,
            Office office,
            Clock clock) {
        this.jobPapers = jobPapers;
        this.jobLists = jobLists;
        this.papers = papers;
        this.flights = flights;
        this.incidents = incidents;
        this.crew = crew;
        this.fleet = fleet;
        this.airspace = airspace;
        this.chains = chains;
        this.office = office;
        this.clock = clock;
    }

    /** Sources of zones that are out of date, or will be within days. */
    private void zones(Instant now, ZoneId zone, List<Item> items) {
        for (Airspace.SourceView s : airspace.sources()) {
            if (s.undecided() > 0) {
                items.add(new Item(
                        now.atZone(zone)
                                .toLocalDate()
                                .atTime(23, 59)
                                .atZone(zone)
                                .toInstant(),
                        true,
                        "dots",
                        "not known",
                        "Zones: " + s.name(),
                        (s.undecided() == 1 ? "1 notice was" : s.undecided() + " notices were")
                                + " not understood whole, so more counts than may be meant",
                        "/airspace/sources/" + s.id() + "#decide",
                        "decide",
                        false));
            }
            long left = s.staleDays() - s.ageDays();
            if (left <= Math.min(ZONES_AHEAD_DAYS, s.staleDays() / 7)) {
                items.add(new Item(
                        now.plus(Duration.ofDays(left)),
                        false,
                        s.stale() ? "dots" : "cut",
                        s.stale() ? "not known" : "act soon",
                        "Zones: " + s.name(),
                        s.stale()
                                ? "out of date, so whether its zones still hold is not known; bring a newer edition in"
                                : "out of date in " + left + " days; bring a newer edition in",
                        "/airspace/sources/" + s.id(),
                        "renew",
                        s.stale()));
            }
        }
    }

    @Transactional(readOnly = true)
    public Page page(Viewer viewer) {
        Office.OperatorView operator = office.operator();
        ZoneId zone = operator.zone();
        Instant now = clock.instant();
        LocalDate today = now.atZone(zone).toLocalDate();
        List<Weave.JobSpan> spans = viewer.isPilot()
                ? List.of()
                : jobPapers.spans(today.minusDays(WEAVE_DAYS_BEFORE), today.plusDays(WEAVE_DAYS_AFTER));
        List<Item> items = new ArrayList<>();
        JobLists.Found unsettled = jobLists.openPoints(viewer, today.plusDays(JOB_HORIZON_DAYS), QUEUE);
        for (Jobs.Row j : unsettled.rows()) {
            items.add(new Item(
                    j.start(),
                    false,
                    j.shape(),
                    j.noGo() ? "no-go" : "open points",
                    j.name() + " at " + j.siteName(),
                    j.reason(),
                    "/jobs/" + j.id(),
                    "settle",
                    false));
        }
        papers(viewer, operator, today, zone, spans, items);
        approvals(viewer, today, zone, items);
        if (viewer.isManager()) {
            zones(now, zone, items);
        }
        flights(viewer, now, items);
        for (Incidents.View i : incidents.open(viewer)) {
            items.add(new Item(
                    i.happenedAt().plus(Duration.ofHours(LOOK_WITHIN_HOURS)),
                    false,
                    "notch",
                    "open",
                    "Incident: " + i.kind(),
                    i.statement(),
                    "/incidents/" + i.id(),
                    "carry on",
                    i.happenedAt().plus(Duration.ofHours(LOOK_WITHIN_HOURS)).isBefore(now)));
        }
        // in the order of the page, so that what is due today is never cut off by what has been late for long
        items.sort(Comparator.comparing((Item i) -> i.when(today, zone)).thenComparing(Item::by));
        int more = Math.max(0, items.size() - QUEUE)
                + (int) (unsettled.total() - unsettled.rows().size());
        return new Page(
                today,
                zone,
                items.stream()
                        .limit(QUEUE)
                        .map(i -> viewer.isReader() ? i.toLookAt() : i)
                        .toList(),
                more,
                weave(viewer, operator, today, zone, spans),
                jobLists.upcoming(viewer, 3));
    }

    /** What has to be sent, asked after or tried at base for approvals of jobs. */
    private void approvals(Viewer viewer, LocalDate today, ZoneId zone, List<Item> items) {
        Map<UUID, List<Chains.Due>> perhaps = new java.util.LinkedHashMap<>();
        for (Chains.Due d : chains.due(viewer, null, MOST_DUE).first()) {
            if (!d.known()) {
                perhaps.computeIfAbsent(d.jobId(), k -> new ArrayList<>()).add(d);
                continue;
            }
            if (d.waits() && !d.sendBy().isBefore(today)) {
                continue; // it cannot be sent before another is granted, and that one stands here itself
            }
            boolean late = d.sendBy().isBefore(today);
            items.add(new Item(
                    d.sendBy().atTime(17, 0).atZone(zone).toInstant(),
                    true,
                    late ? "notch" : "cut",
                    late ? "late" : "send",
                    "Send: " + d.title(),
                    "for " + d.jobName() + (late ? "; at worst it would come too late" : ""),
                    "/jobs/" + d.jobId() + "/chain",
                    "send",
                    late));
        }
        perhaps.forEach((job, dues) -> items.add(new Item(
                dues.get(0).sendBy().atTime(17, 0).atZone(zone).toInstant(),
                true,
                "dots",
                "not known",
                "Perhaps to be sent for " + dues.get(0).jobName(),
                "whether it is needed is not known: "
                        + dues.stream().map(Chains.Due::title).collect(Collectors.joining(", ")),
                "/jobs/" + job + "/chain",
                "settle",
                dues.get(0).sendBy().isBefore(today))));
        for (Chains.Nudge n : chains.nudges(viewer)) {
            items.add(new Item(
                    n.on().atTime(17, 0).atZone(zone).toInstant(),
                    true,
                    n.late() ? "notch" : "cut",
                    n.late() ? "late" : "act soon",
                    n.title(),
                    "for " + n.jobName() + "; " + n.why(),
                    "/approvals/" + n.approvalId(),
                    "open",
                    n.late()));
        }
    }

    /** Flights nobody has looked at, one line for each aircraft and day; the line leads to the most pressing of them. */
    private void flights(Viewer viewer, Instant now, List<Item> items) {
        Map<List<Object>, List<Flights.Row>> byDay = flights.notLookedAt(viewer, 300).stream()
                .collect(Collectors.groupingBy(
                        f -> List.of(
                                f.aircraft() == null ? "an unnamed aircraft" : f.aircraft(),
                                f.takeoff().atZone(f.zone()).toLocalDate()),
                        java.util.LinkedHashMap::new,
                        Collectors.toList()));
        byDay.forEach((key, rows) -> {
            Flights.Row worst = rows.stream()
                    .max(Comparator.comparingInt(Flights.Row::breached).thenComparingInt(Flights.Row::notKnown))
                    .orElseThrow();
            Instant by = rows.stream()
                    .map(Flights.Row::takeoff)
                    .min(Comparator.naturalOrder())
                    .orElseThrow()
                    .plus(Duration.ofHours(LOOK_WITHIN_HOURS));
            long breached = rows.stream().filter(f -> f.breached() > 0).count();
            items.add(new Item(
                    by,
                    false,
                    worst.shape(),
                    breached > 0 ? breached + " breached" : "not looked at",
                    (rows.size() == 1 ? "Flight" : rows.size() + " flights") + " of " + key.get(0),
                    worst.worst().isEmpty() ? "brought in and not yet looked at" : worst.worst(),
                    "/flights/" + worst.id() + (breached > 0 ? "#worst" : ""),
                    "look",
                    by.isBefore(now)));
        });
    }

    private void papers(
            Viewer viewer,
            Office.OperatorView operator,
            LocalDate today,
            ZoneId zone,
            List<Weave.JobSpan> spans,
            List<Item> items) {
        Map<UUID, String> names = names(operator);
        List<Papers.Row> due = papers.due();
        Map<UUID, List<Papers.Row>> byHolder =
                papers.of(due.stream().map(Papers.Row::holderId).collect(Collectors.toSet())).stream()
                        .collect(Collectors.groupingBy(Papers.Row::holderId));
        Set<List<String>> wanted = new HashSet<>();
        spans.forEach(s -> s.needs().forEach(n -> wanted.add(List.of(n.holderId(), n.kind()))));
        for (Papers.Row p : due) {
            boolean mine = !viewer.isPilot() || p.holderId().equals(viewer.personId());
            String holder = names.get(p.holderId());
            if (!mine || holder == null || replaced(p, byHolder.get(p.holderId()), today)) {
                continue;
            }
            boolean needed = wanted.contains(List.of(p.holderId().toString(), p.kind()));
            LocalDate by = p.actBy() == null ? today : p.actBy();
            boolean late = by.isBefore(today);
            String end = p.validTo() == null
                    ? "its end is not known"
                    : (p.state() == PaperState.RUN_OUT ? "ran out on " : "runs out on ") + Days.show(p.validTo());
            items.add(new Item(
                    by.atTime(17, 0).atZone(zone).toInstant(),
                    true,
                    p.shape(),
                    p.state().words(),
                    p.kindWords() + " of " + holder,
                    p.number() + " " + end + (needed ? "; a planned job needs it" : ""),
                    viewer.isManager() ? "/papers/" + p.id() + "/renew" : "/papers/" + p.id(),
                    viewer.isManager() ? "renew" : "look",
                    late));
        }
    }

    /** A run-out paper with a newer one of its kind and holder is history, not work. */
    private static boolean replaced(Papers.Row p, List<Papers.Row> ofHolder, LocalDate today) {
        return ofHolder.stream()
                .anyMatch(o -> !o.id().equals(p.id())
                        && o.kind().equals(p.kind())
                        && (o.validTo() == null || o.validTo().isAfter(p.validTo() == null ? today : p.validTo())));
    }

    private Map<UUID, String> names(Office.OperatorView operator) {
        Map<UUID, String> names = new java.util.HashMap<>(fleet.aircraftNames());
        crew.all().forEach(p -> names.put(p.id(), p.name()));
        names.put(operator.id(), "the operator");
        return names;
    }

    /** Holders that a job in the span needs come first; then those with something due. */
    private Weave weave(
            Viewer viewer, Office.OperatorView operator, LocalDate today, ZoneId zone, List<Weave.JobSpan> spans) {
        List<Papers.Holder> holders = new ArrayList<>();
        if (!viewer.isPilot()) {
            holders.add(new Papers.Holder("operator", operator.id(), "Operator"));
        }
        var needed = spans.stream()
                .flatMap(s -> s.needs().stream())
                .map(Weave.Need::holderId)
                .collect(Collectors.toSet());
        crew.all().stream()
                .filter(p -> viewer.maySee(p.id()) && (viewer.isPilot() || needed.contains(p.id().toString())))
                .forEach(p -> holders.add(new Papers.Holder("pilot", p.id(), p.name())));
        if (!viewer.isPilot()) {
            fleet.aircraftNames().entrySet().stream()
                    .filter(a -> needed.contains(a.getKey().toString()))
                    .sorted(Map.Entry.comparingByValue())
                    .forEach(a -> holders.add(new Papers.Holder("aircraft", a.getKey(), a.getValue())));
        }
        Weave w = papers.weave(
                today.minusDays(WEAVE_DAYS_BEFORE), today.plusDays(WEAVE_DAYS_AFTER), zone, holders, spans);
        List<Weave.Row> rows = w.rows().stream()
                .sorted(Comparator.comparing((Weave.Row r) -> r.knots().isEmpty())
                        .thenComparing(Weave.Row::worst, Comparator.reverseOrder()))
                .limit(WEAVE_ROWS)
                .toList();
        return new Weave(w.from(), w.through(), w.now(), rows, w.strands(), w.ticks());
    }
}
