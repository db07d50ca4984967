package yarrek.app.chains;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.field.SiteDrawing;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.JobJudging;
import yarrek.app.jobs.Jobs;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;
import yarrek.core.approval.UnlockLife;
import yarrek.core.geo.Area;
import yarrek.core.judging.ApprovalOnFile;
import yarrek.core.judging.Granted;
import yarrek.core.judging.PlanInput;
import yarrek.core.time.TimeWindow;

/** Whether what is granted covers each day of a job with each aircraft, and what is missing. */
@Service
public class Covers {
    /** A paper on a day with an aircraft. */
    public record Cell(UUID approvalId, String shape, String words, List<Cover.Finding> findings) {

        public String standing() {
            return coverWords(shape, "missing");
        }
    }

    /** A day with an aircraft; {@code gaps} are requests of that day for which nothing is held. */
    public record Row(LocalDate day, String aircraft, boolean planned, List<Cell> cells, List<String> gaps) {
        /** Whether nothing is asked for on this day as far as is known, and nothing is held either. */
        public boolean isEmpty() {
            return gaps.isEmpty() && cells.stream().allMatch(c -> c.shape().isEmpty());
        }

        public String shape() {
            return !gaps.isEmpty() || cells.stream().anyMatch(c -> c.shape().equals("notch"))
                    ? "notch"
                    : cells.stream().anyMatch(c -> c.shape().equals("dots")) ? "dots" : "full";
        }

        public String standing() {
            return coverWords(shape(), "not covered");
        }
    }

    private static String coverWords(String shape, String lacking) {
        return switch (shape) {
            case "full" -> "covered";
            case "notch" -> lacking;
            default -> "not known";
        };
    }

    /** An unlock beside an approval that it has to equal. */
    public record UnlockCheck(String unlock, String approval, List<Cover.Finding> findings) {}

    /** How far an area reaches beyond what a paper grants. */
    public record Beyond(String reference, double metres, double share, SiteDrawing.Drawn drawn) {}

    /**
     * @param papers columns
     * @param contradictions what papers say against one another
     * @param unlockChecks each unlock beside the approvals that it has to equal
     * @param beyond areas of the job that reach beyond a paper's
     */
    public record View(
            Jobs.JobView job,
            List<Approvals.ApprovalView> papers,
            List<Row> rows,
            List<String> contradictions,
            List<UnlockCheck> unlockChecks,
            List<Beyond> beyond) {
        /** Days on which something is asked for or held. */
        public List<Row> asking() {
            return rows.stream().filter(r -> !r.isEmpty()).toList();
        }

        public long covered() {
            return rows.stream()
                    .filter(r -> !r.isEmpty() && r.shape().equals("full"))
                    .count();
        }
    }

    private final Jobs jobs;
    private final JobJudging jobJudging;
    private final Fleet fleet;
    private final Approvals approvals;
    private final Kinds kinds;
    private final Chains chains;
    private final SiteDrawing drawing;

    Covers(
            Jobs jobs,
            JobJudging jobJudging,
            Fleet fleet,
            Approvals approvals,
            Kinds kinds,
            Chains chains,
            SiteDrawing drawing) {
        this.jobs = jobs;
        this.jobJudging = jobJudging;
        this.fleet = fleet;
        this.approvals = approvals;
        this.kinds = kinds;
        this.chains = chains;
        this.drawing = drawing;
    }

    @Transactional(readOnly = true)
    public View view(Jobs.JobView job) {
        List<Approvals.ApprovalView> all = approvals.of(job.id());
        List<Approvals.ApprovalView> held =
                all.stream().filter(a -> a.state().isHeld()).toList();
        List<Chains.Line> lines = chains.view(job, Chains.WhatIf.NOTHING).lines();
        PlanInput plan = jobJudging
                .sources(job.id(), List.of(job.draft()))
                .input(job.draft().wanted(job.id()));
        Map<UUID, ApprovalOnFile> onFile =
                plan.requests().stream().collect(Collectors.toMap(ApprovalOnFile::id, Function.identity()));
        List<Paper> papers = held.stream()
                .map(a -> new Paper(
                        a,
                        Granted.need(plan, onFile.get(a.id()).toQuote(plan.requests()))
                                .by(Set.copyOf(job.pilots())),
                        a.terms().drawnArea(),
                        job.site().zone()))
                .toList();
        Cover.Overhangs overhangs = new Cover.Overhangs();
        List<Fleet.BuildView> craft = craft(job, held);
        List<Row> rows = new ArrayList<>();
        for (TimeWindow w : Jobs.windows(job.draft(), job.site().zone())) {
            LocalDate day = w.start().atZone(job.site().zone()).toLocalDate();
            List<String> gaps = lines.stream()
                    .filter(l -> !l.request().firstDay().isAfter(day)
                            && !l.request().lastDay().isBefore(day))
                    .filter(l -> !l.planned().isDone())
                    .map(l -> l.request().title() + (l.request().needed().known() ? "" : " (may be needed)"))
                    .toList();
            for (Fleet.BuildView b : craft) {
                rows.add(new Row(
                        day,
                        b == null ? "no aircraft chosen yet" : b.aircraft().name(),
                        b != null && job.aircraft().contains(b.aircraft()),
                        papers.stream().map(p -> cell(p, b, w, day, overhangs)).toList(),
                        gaps));
            }
        }
        return new View(job, held, rows, contradictions(held), unlocks(held), beyond(job, held));
    }

    /** The planned aircraft, and every other that one of the papers names; each with its first build. */
    private List<Fleet.BuildView> craft(Jobs.JobView job, List<Approvals.ApprovalView> held) {
        List<Fleet.BuildView> craft = new ArrayList<>();
        Set<UUID> seen = new LinkedHashSet<>();
        job.builds().stream().filter(b -> seen.add(b.aircraft().id())).forEach(craft::add);
        if (craft.isEmpty()) {
            craft.add(null);
        }
        Set<String> serials = new LinkedHashSet<>();
        held.forEach(a -> serials.addAll(a.terms().aircraft()));
        if (!serials.isEmpty()) {
            for (Fleet.BuildView b : fleet.builds()) {
                if (serials.contains(b.aircraft().serial())
                        && seen.add(b.aircraft().id())) {
                    craft.add(b);
                }
            }
        }
        return craft;
    }

    /** A paper with what it has to cover and its area, each worked out once. */
    private record Paper(Approvals.ApprovalView approval, Cover.Need need, Optional<Area> area, ZoneId place) {}

    private static Cell cell(Paper p, Fleet.BuildView build, TimeWindow w, LocalDate day, Cover.Overhangs overhangs) {
        Approvals.ApprovalView a = p.approval();
        if (day.isBefore(a.firstDay()) || day.isAfter(a.lastDay())) {
            return new Cell(a.id(), "", "for other days", List.of());
        }
        Cover.Need need = p.need().in(w);
        need = build == null ? need : need.with(build.aircraft().serial());
        List<Cover.Finding> findings = a.terms().cover(a.reference(), need, p.area(), overhangs, p.place());
        List<Cover.Finding> open =
                findings.stream().filter(f -> f.state() != Cover.State.COVERED).toList();
        boolean missing = open.stream().anyMatch(f -> f.state() == Cover.State.MISSING);
        return new Cell(
                a.id(),
                open.isEmpty() ? "full" : missing ? "notch" : "dots",
                open.isEmpty()
                        ? "covered"
                        : open.stream()
                                .map(f -> f.dimension().name().toLowerCase(java.util.Locale.ROOT) + ": " + f.words())
                                .collect(java.util.stream.Collectors.joining("; ")),
                findings);
    }

    private static List<String> contradictions(List<Approvals.ApprovalView> held) {
        // requests for different days of one job name different hours by right
        List<String> found = new ArrayList<>();
        for (int i = 0; i < held.size(); i++) {
            for (int j = i + 1; j < held.size(); j++) {
                Approvals.ApprovalView a = held.get(i);
                Approvals.ApprovalView b = held.get(j);
                boolean sameDays =
                        !a.firstDay().isAfter(b.lastDay()) && !b.firstDay().isAfter(a.lastDay());
                if (sameDays && !a.terms().equals(Terms.NONE) && !b.terms().equals(Terms.NONE)) {
                    found.addAll(Cover.contradictions(
                            List.of(a.terms().plain(a.reference()), b.terms().plain(b.reference()))));
                }
            }
        }
        return found;
    }

    /** Approvals of the same days on which a request rests: those its kind quotes, or else comes after. */
    List<Approvals.ApprovalView> restsOn(Approvals.ApprovalView a) {
        Set<String> codes = kinds.find(a.kind())
                .map(k -> k.kind().quotes().isEmpty()
                        ? k.kind().after()
                        : k.kind().quotes())
                .orElse(Set.of());
        return approvals.of(a.jobId()).stream()
                .filter(o -> o.state().isHeld() && codes.contains(o.kind()))
                .filter(o -> !o.firstDay().isAfter(a.lastDay()) && !a.firstDay().isAfter(o.lastDay()))
                .toList();
    }

    private List<UnlockCheck> unlocks(List<Approvals.ApprovalView> held) {
        Kinds.Settings s = kinds.settings();
        List<UnlockCheck> checks = new ArrayList<>();
        for (Approvals.ApprovalView u : held) {
            if (kinds.find(u.kind()).map(k -> k.kind().unlock()).orElse(false)) {
                for (Approvals.ApprovalView a : restsOn(u)) {
                    checks.add(new UnlockCheck(
                            u.title() + " " + u.reference(),
                            a.title() + " " + a.reference(),
                            Cover.equal(
                                    u.terms().plain(u.reference()),
                                    a.terms().plain(a.reference()),
                                    s.toleranceDays(),
                                    s.toleranceM())));
                }
            }
        }
        return checks;
    }

    private List<Beyond> beyond(Jobs.JobView job, List<Approvals.ApprovalView> held) {
        List<Beyond> beyond = new ArrayList<>();
        for (Approvals.ApprovalView a : held) {
            Optional<Cover.Overhang> over = a.terms()
                    .drawnArea()
                    .flatMap(area -> Cover.overhang(job.site().area(), area));
            over.ifPresent(o -> beyond.add(new Beyond(
                    a.reference(),
                    o.metres(),
                    o.share(),
                    drawing.draw(
                            job.site(),
                            640,
                            380,
                            List.of(
                                    new SiteDrawing.Overlay(
                                            a.terms().drawnArea().orElseThrow(),
                                            "paper",
                                            "granted by " + a.reference()),
                                    new SiteDrawing.Overlay(o.outside(), "overhang", "not covered"))))));
        }
        return beyond;
    }

    /** Every field of an unlock request beside those of each approval on which it rests, for looking before it is sent. */
    @Transactional(readOnly = true)
    public Map<String, List<Cover.Line>> compare(Approvals.ApprovalView unlock) {
        Kinds.Settings s = kinds.settings();
        Map<String, List<Cover.Line>> byApproval = new LinkedHashMap<>();
        for (Approvals.ApprovalView a : restsOn(unlock)) {
            byApproval.put(
                    a.title() + ", " + a.reference(),
                    Cover.compare(
                            unlock.request().plain("request"),
                            a.terms().plain(a.reference()),
                            s.toleranceDays(),
                            s.toleranceM()));
        }
        return byApproval;
    }

    /** An unlock's stages, its standing for the hours of the job, and the minutes it costs. */
    public record Unlock(
            Approvals.ApprovalView approval,
            UnlockLife life,
            UnlockLife rehearsal,
            List<Approvals.StageSaid> said,
            LocalDate rehearseBy,
            UnlockLife.Hour now,
            List<String> hours,
            double minutesADay,
            int packs,
            double confirmMinutes) {}

    /** @param packs flown a day */
    @Transactional(readOnly = true)
    public Unlock unlock(Approvals.ApprovalView a, int packs) {
        Jobs.JobView job = jobs.jobUnchecked(a.jobId());
        Kinds.Settings s = kinds.settings();
        List<Approvals.StageSaid> said = approvals.stages(a.id());
        UnlockLife life = Approvals.life(said, false);
        List<String> hours = new ArrayList<>();
        a.terms().window().ifPresent(g -> {
            for (TimeWindow w : Jobs.windows(job.draft(), job.site().zone())) {
                LocalDate day = w.start().atZone(job.site().zone()).toLocalDate();
                if (day.isBefore(a.firstDay()) || day.isAfter(a.lastDay())) {
                    continue;
                }
                UnlockLife.Hour start = UnlockLife.at(g, w.start());
                UnlockLife.Hour end = UnlockLife.at(g, w.end());
                if (start != UnlockLife.Hour.VALID) {
                    hours.add(day + ": at the first power-on it is " + words(start));
                }
                if (end != UnlockLife.Hour.VALID) {
                    hours.add(day + ": at the last it is " + words(end));
                }
            }
        });
        return new Unlock(
                a,
                life,
                Approvals.life(said, true),
                said,
                UnlockLife.rehearseBy(
                        a.firstDay(),
                        s.rehearsalDays(),
                        kinds.workDays(job.site().jurisdiction(), a.firstDay())),
                a.terms().window().map(g -> UnlockLife.at(g, chains.now())).orElse(null),
                hours,
                life.minutesADay(s.confirmMinutes(), packs),
                packs,
                s.confirmMinutes());
    }

    static String words(UnlockLife.Hour h) {
        return switch (h) {
            case NOT_YET -> "not yet valid";
            case VALID -> "valid";
            case OVER -> "over";
        };
    }
}
