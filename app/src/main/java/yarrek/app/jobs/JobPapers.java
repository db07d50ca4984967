package yarrek.app.jobs;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Sites;
import yarrek.app.office.Office;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.Assessments;
import yarrek.app.rulebook.FindingRow;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.judging.Arranged;
import yarrek.core.paper.Weave;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.HoldsPaper;
import yarrek.core.rulebook.Verdict;
import yarrek.core.time.TimeWindow;

/** Papers that rules want for jobs: for each day of one, and for all of a stretch of days. */
@Service
public class JobPapers {
    private final EntityManager em;
    private final Rulebook rulebook;
    private final Assessments assessments;
    private final Sites sites;
    private final Office office;
    private final Papers papers;

    JobPapers(EntityManager em, Rulebook rulebook, Assessments assessments, Sites sites, Office office, Papers papers) {
        this.em = em;
        this.rulebook = rulebook;
        this.assessments = assessments;
        this.sites = sites;
        this.office = office;
        this.papers = papers;
    }

    /** A paper that a rule asks for, and its standing on each day of a job. */
    public record PaperRow(String holder, String paper, String rule, List<PaperCell> cells) {}

    /** One day: the paper that covers it, or a gap. */
    public record PaperCell(LocalDate day, String shape, String words) {}

    /** Papers in force for each day of a job, by the rules that apply to it; what is missing is a gap for those days only. */
    @Transactional(readOnly = true)
    public List<PaperRow> paperDays(Jobs.JobView job) {
        Sites.SiteView site = job.site();
        List<TimeWindow> windows = job.windows();
        Map<Holder, Facts> facts = new HashMap<>();
        Map<String, PaperRow> rows = new java.util.LinkedHashMap<>();
        for (FindingRow finding : job.assessment().findings()) {
            if (finding.verdict() == Verdict.NOT_APPLICABLE || finding.verdict() == Verdict.DUTY) {
                continue;
            }
            rulebook.rule(finding.ruleId(), job.draft().firstDay())
                    .map(r -> r.requires().papers())
                    .orElse(List.of())
                    .forEach(p -> {
                        String words =
                                p.kindName() + (p.levels().isEmpty() ? "" : " " + String.join(" or ", p.levels()));
                        List<Holder> holders = holders(p.role(), job);
                        for (Holder h : holders) {
                            rows.putIfAbsent(
                                    p.role() + h.id() + words,
                                    new PaperRow(
                                            holders.size() > 1 ? h.name() : p.role(),
                                            words,
                                            finding.ruleId(),
                                            windows.stream()
                                                    .map(w -> cell(
                                                            p,
                                                            facts.computeIfAbsent(h, k -> papersAlone(job, k)),
                                                            w,
                                                            site.zone()))
                                                    .toList()));
                        }
                    });
        }
        return List.copyOf(rows.values());
    }

    /** Whoever or whatever holds papers of a role; the identity is null while nobody is named. */
    private record Holder(String role, UUID id, String name) {}

    /** Everybody and everything of the job in a role: one of it may lack what another has. */
    private static List<Holder> holders(String role, Jobs.JobView job) {
        List<Holder> named = switch (role) {
            case "pilot" ->
                job.crew().stream()
                        .filter(Jobs.Member::flies)
                        .map(m -> new Holder(role, m.id(), m.name()))
                        .toList();
            case "aircraft" ->
                job.aircraft().stream()
                        .map(a -> new Holder(role, a.id(), a.name()))
                        .toList();
            default -> List.of();
        };
        return named.isEmpty() ? List.of(new Holder(role, null, "")) : named;
    }

    /** Of the facts of a job those that papers of one holder are held against. */
    private Facts papersAlone(Jobs.JobView job, Holder holder) {
        Map<UUID, String> roles = new HashMap<>();
        roles.put(office.operator().id(), "operator");
        roles.put(job.id(), "job");
        Facts.Builder b = Facts.builder(job.site().zone())
                .word(
                        "jurisdiction",
                        job.site().jurisdiction(),
                        "site " + job.site().name());
        if (holder.id() != null) {
            roles.put(holder.id(), holder.role());
        } else if (holder.role().equals("pilot") || holder.role().equals("aircraft")) {
            b.unnamed(holder.role());
        }
        return b.papers(papers.meanings().counted(papers.held(roles))).build();
    }

    private static PaperCell cell(HoldsPaper p, Facts facts, TimeWindow window, ZoneId zone) {
        var day = p.judge(facts.toBuilder().windows(List.of(window)).build());
        LocalDate date = window.start().atZone(zone).toLocalDate();
        return switch (day.verdict()) {
            case MET -> new PaperCell(date, "full", "in force");
            case CLOSE -> new PaperCell(date, "cut", "last day");
            case BREACHED -> new PaperCell(date, "notch", "gap");
            default -> new PaperCell(date, "dots", "not known");
        };
    }

    /** Planned jobs as the weave sees them: their windows and the papers each needs of whom. */
    @Transactional(readOnly = true)
    public List<Weave.JobSpan> spans(LocalDate from, LocalDate through) {
        // how often any job was changed, and anything else said of one, tells whether what was read before still holds
        String state = (String) em.createNativeQuery(
                        "select concat((select concat(count(*), ' ', coalesce(sum(version), 0))"
                                + " from job), ' ', (select coalesce(sum(version), 0) from assessment where subject_kind = 'J'))")
                .getSingleResult();
        Map<UUID, ZoneId> zones = sites.zones();
        Spans held = spans;
        if (!held.state.equals(state) || !held.zones.equals(zones) || held.byDays.size() >= MOST_SPANS) {
            held = new Spans(state, zones, new ConcurrentHashMap<>());
            spans = held;
        }
        return held.byDays.computeIfAbsent(List.of(from, through), d -> readSpans(from, through));
    }

    /** Spans read before, by their days: those of Today, of the papers and of wherever somebody leafed to. */
    private record Spans(String state, Map<UUID, ZoneId> zones, Map<List<LocalDate>, List<Weave.JobSpan>> byDays) {}

    private static final int MOST_SPANS = 12;

    private volatile Spans spans = new Spans("", Map.of(), Map.of());

    private List<Weave.JobSpan> readSpans(LocalDate from, LocalDate through) {
        List<Object[]> planned = em.createQuery(
                        "select j.id, j.name, j.siteId, j.firstDay, j.lastDay, j.fromTime, j.toTime from JobEntity j"
                                + " where j.state = 'PLANNED' and j.lastDay >= :from and j.firstDay <= :through order by j.firstDay",
                        Object[].class)
                .setParameter("from", from)
                .setParameter("through", through)
                .getResultList();
        Map<UUID, Map<LocalDate, Arranged.Hours>> own = em.createQuery(
                        "select j.id, h.day, h.fromTime, h.toTime from JobEntity j join j.besides h where h.fromTime is not null and j.state = 'PLANNED'"
                                + " and j.lastDay >= :from and j.firstDay <= :through",
                        Object[].class)
                .setParameter("from", from)
                .setParameter("through", through)
                .getResultStream()
                .collect(Collectors.groupingBy(
                        h -> (UUID) h[0],
                        Collectors.toMap(
                                h -> (LocalDate) h[1], h -> new Arranged.Hours((LocalTime) h[2], (LocalTime) h[3]))));
        // thousands of jobs want the same few papers of the same few people
        Map<Weave.Need, Weave.Need> one = new HashMap<>();
        Map<UUID, ZoneId> zones = sites.zones();
        Map<UUID, List<Assessments.Need>> needs = assessments.needsOf(
                "select id from job where state = 'PLANNED' and last_day >= :from and first_day <= :through",
                Map.of("from", from, "through", through));
        return planned.stream()
                .map(j -> new Weave.JobSpan(
                        j[0].toString(),
                        (String) j[1],
                        windows(j, own.getOrDefault((UUID) j[0], Map.of()), zones.get((UUID) j[2])),
                        needs.getOrDefault((UUID) j[0], List.of()).stream()
                                .map(n -> new Weave.Need(n.holderId().toString(), n.kind(), n.levels(), n.ruleId()))
                                .map(n -> one.computeIfAbsent(n, Function.identity()))
                                .toList()))
                .toList();
    }

    private static List<TimeWindow> windows(Object[] job, Map<LocalDate, Arranged.Hours> own, ZoneId zone) {
        Arranged.Hours usual = new Arranged.Hours((LocalTime) job[5], (LocalTime) job[6]);
        return JobEntity.windows((LocalDate) job[3], (LocalDate) job[4], day -> own.getOrDefault(day, usual), zone);
    }
}
