package yarrek.app.documents;

import jakarta.persistence.EntityManager;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.crew.Crew;
import yarrek.app.field.SiteDrawing;
import yarrek.app.jobs.JobPapers;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.app.print.Pdf;
import yarrek.app.print.QrCode;
import yarrek.app.rulebook.FindingRow;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.Requirement;
import yarrek.core.rulebook.Verdict;
import yarrek.core.time.TimeWindow;

/** The documents that an official may ask one person for on one job, and the printed binder of the job. */
@Service
public class Documents {
    private static final Duration CHECK_HOLDS_AFTER = Duration.ofDays(1);
    private static final int TOKEN_BYTES = 32;

    /** What the law asks to have at hand in the field. */
    private static final String CARRIED = "documentsCarried";

    /** A paper to be shown, with its standing over the days of the job. */
    public record Doc(Papers.Row paper, String whose, String shape, String standing, List<Papers.Scan> scans) {}

    /**
     * The set of one person for one job.
     *
     * @param asked what the rules that apply ask to be carried, in words
     * @param missing kinds that the rules ask for and that do not hold on every day
     */
    public record DocumentSet(
            Jobs.JobView job,
            Crew.PersonView person,
            String role,
            Office.OperatorView operator,
            List<Doc> docs,
            List<String> asked,
            List<String> missing,
            LocalDate asOf) {}

    private final EntityManager em;
    private final Jobs jobs;
    private final JobPapers jobPapers;
    private final Crew crew;
    private final Papers papers;
    private final Office office;
    private final Rulebook rulebook;
    private final Pdf pdf;
    private final SiteDrawing drawing;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();

    Documents(
            EntityManager em,
            Jobs jobs,
            JobPapers jobPapers,
            Crew crew,
            Papers papers,
            Office office,
            Rulebook rulebook,
            Pdf pdf,
            SiteDrawing drawing,
            Clock clock) {
        this.drawing = drawing;
        this.em = em;
        this.jobs = jobs;
        this.jobPapers = jobPapers;
        this.crew = crew;
        this.papers = papers;
        this.office = office;
        this.rulebook = rulebook;
        this.pdf = pdf;
        this.clock = clock;
    }

    /** @throws NotFoundException when the person is not of the job's crew */
    @Transactional(readOnly = true)
    public DocumentSet set(UUID jobId, UUID personId) {
        Jobs.JobView job = jobs.jobUnchecked(jobId);
        Jobs.Member member = job.crew().stream()
                .filter(m -> m.id().equals(personId))
                .findFirst()
                .orElseThrow(() -> new NotFoundException("member of this job's crew"));
        Office.OperatorView operator = office.operator();
        Crew.PersonView person = crew.person(personId);
        Map<UUID, String> whose = new HashMap<>();
        whose.put(personId, person.name());
        whose.put(operator.id(), operator.name());
        whose.put(jobId, job.draft().name());
        job.aircraft().forEach(a -> whose.put(a.id(), a.name()));
        Set<String> shown = papers.kinds().stream()
                .filter(Papers.Kind::shown)
                .map(Papers.Kind::code)
                .collect(Collectors.toSet());
        List<Papers.Row> rows = papers.of(whose.keySet()).stream()
                .filter(p -> shown.contains(p.kind()))
                .filter(p -> p.countsAt(job.site().jurisdiction()))
                .toList();
        Map<UUID, List<Papers.Scan>> scans = papers
                .scans(rows.stream().map(Papers.Row::id).toList())
                .stream()
                .collect(Collectors.groupingBy(Papers.Scan::paperId));
        List<Doc> docs = rows.stream()
                .map(p -> doc(p, whose.get(p.holderId()), job, scans.getOrDefault(p.id(), List.of())))
                .sorted(Comparator.comparing((Doc d) -> order(d.paper().holderKind())))
                .toList();
        return new DocumentSet(
                job,
                person,
                member.does(),
                operator,
                docs,
                asked(job),
                missing(job),
                LocalDate.now(clock.withZone(job.site().zone())));
    }

    private static int order(String holderKind) {
        return switch (holderKind) {
            case "pilot" -> 0;
            case "operator" -> 1;
            case "aircraft" -> 2;
            default -> 3;
        };
    }

    private static Doc doc(Papers.Row p, String whose, Jobs.JobView job, List<Papers.Scan> scans) {
        List<TimeWindow> windows = job.windows();
        boolean covers = p.covers(windows);
        boolean begins = p.validity().holdsAt(windows.get(0).start());
        String shape = covers ? "full" : "notch";
        String standing = covers
                ? "in force on every day of the job"
                : begins ? "runs out before the end of the job" : "not in force when the job begins";
        return new Doc(p, whose, shape, standing, scans);
    }

    /** What the rules that apply ask to be carried. */
    private List<String> asked(Jobs.JobView job) {
        Set<String> asked = new LinkedHashSet<>();
        for (FindingRow f : job.assessment().findings()) {
            if (f.verdict() == Verdict.NOT_APPLICABLE) {
                continue;
            }
            rulebook.rule(f.ruleId(), job.draft().firstDay())
                    .filter(r -> r.requires().factNames().contains(CARRIED))
                    .ifPresent(r ->
                            asked.add(carried(r.requires()) + " (" + r.source().citation() + ")"));
        }
        return List.copyOf(asked);
    }

    private static String carried(Requirement r) {
        Set<String> words = r.contained(CARRIED);
        return words.isEmpty()
                ? r.words()
                : words.stream()
                        .map(w -> w.replaceAll("([a-z])([A-Z])", "$1 $2").toLowerCase(Locale.ROOT))
                        .collect(Collectors.joining(", "));
    }

    private List<String> missing(Jobs.JobView job) {
        return jobPapers.paperDays(job).stream()
                .filter(r -> r.cells().stream().anyMatch(c -> c.shape().equals("notch")))
                .map(r -> r.paper() + " of the " + r.holder())
                .toList();
    }

    // --- the check page
    // ------------------------------------------------------------------------------------------------

    /** A link for the check page: its secret, and that it was taken back; empty texts for none. */
    public record CheckLink(String token, boolean isRevoked) {
        public boolean isOpen() {
            return !token.isEmpty() && !isRevoked;
        }
    }

    /** The link of this set as it is; looking makes none. */
    @Transactional(readOnly = true)
    public CheckLink checkLink(UUID jobId, UUID personId) {
        return link(jobId, personId)
                .map(c -> new CheckLink(c.token, c.revokedAt != null))
                .orElse(new CheckLink("", false));
    }

    private Optional<CheckLinkEntity> link(UUID jobId, UUID personId) {
        return em.createQuery("from CheckLinkEntity c where c.jobId = :j and c.personId = :p", CheckLinkEntity.class)
                .setParameter("j", jobId)
                .setParameter("p", personId)
                .getResultStream()
                .findFirst();
    }

    /**
     * Makes a link where there is none. One that was taken back stays so until a manager makes another; the old address never
     * opens again.
     *
     * @throws org.springframework.security.access.AccessDeniedException when it was taken back and the viewer is no manager
     * @throws IllegalArgumentException when the job is over or called off
     */
    @Transactional
    public void makeCheck(UUID jobId, UUID personId, Viewer viewer) {
        if (isOver(jobs.jobUnchecked(jobId))) {
            throw new IllegalArgumentException("the job is over; nobody checks its papers on the spot any more");
        }
        Optional<CheckLinkEntity> known = link(jobId, personId);
        if (known.isPresent()) {
            if (known.get().revokedAt == null) {
                return;
            }
            if (!viewer.isManager()) {
                throw new AccessDeniedException("taken back by the manager");
            }
            em.remove(known.get());
            em.flush();
        }
        byte[] bytes = new byte[TOKEN_BYTES];
        random.nextBytes(bytes);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        em.persist(new CheckLinkEntity(token, jobId, personId, clock.instant()));
    }

    /** Called off, or a day after its last hour: until then an official may still be at the gate. */
    private boolean isOver(Jobs.JobView job) {
        return "CANCELLED".equals(job.row().state())
                || job.row().end().plus(CHECK_HOLDS_AFTER).isBefore(clock.instant());
    }

    @Transactional
    public void revokeCheck(UUID jobId, UUID personId) {
        em.createQuery("update CheckLinkEntity c set c.revokedAt = :now where c.jobId = :j and c.personId = :p")
                .setParameter("now", clock.instant())
                .setParameter("j", jobId)
                .setParameter("p", personId)
                .executeUpdate();
    }

    /** The set behind a token; empty when there is none, it was taken back, or the job is over. */
    @Transactional(readOnly = true)
    public Optional<DocumentSet> check(String token) {
        CheckLinkEntity c = token.length() > 43 ? null : em.find(CheckLinkEntity.class, token);
        return c == null || c.revokedAt != null || isOver(jobs.jobUnchecked(c.jobId))
                ? Optional.empty()
                : Optional.of(set(c.jobId, c.personId));
    }

    public Instant now() {
        return clock.instant();
    }

    // --- print
    // ---------------------------------------------------------------------------------------------------------

    /** The set as pages, large, with its QR code. */
    @Transactional(readOnly = true)
    public byte[] print(DocumentSet set, Optional<String> checkAddress, Pdf.Sheet sheet) {
        Map<String, Object> model = new HashMap<>(Map.of("set", set, "size", sheet.size()));
        checkAddress.ifPresent(a -> {
            model.put("qr", QrCode.of(a));
            model.put("check", a);
        });
        return pdf.render("documents/show-pdf", model);
    }

    /** The binder of a job: job sheet, findings, papers and scans, with contents and page numbers. */
    @Transactional(readOnly = true)
    public byte[] binder(UUID jobId, Pdf.Sheet sheet) {
        Jobs.JobView job = jobs.jobUnchecked(jobId);
        List<DocumentSet> sets = new ArrayList<>();
        job.crew().forEach(m -> sets.add(set(jobId, m.id())));
        Map<UUID, Doc> docs = new java.util.LinkedHashMap<>();
        sets.forEach(s -> s.docs().forEach(d -> docs.putIfAbsent(d.paper().id(), d)));
        List<Pdf.Scan> scans = new ArrayList<>();
        for (Doc d : docs.values()) {
            for (Papers.Scan s : d.scans()) {
                scans.add(new Pdf.Scan(
                        d.paper().kindWords() + " " + d.paper().number() + ", " + d.whose(),
                        s.contentType(),
                        papers.scanFile(s.id()).content()));
            }
        }
        Map<String, Object> model = new HashMap<>();
        model.put("job", job);
        model.put("sets", sets);
        model.put("docs", List.copyOf(docs.values()));
        model.put("operator", office.operator());
        model.put("drawn", drawing.draw(job.site(), 640, 400));
        model.put("size", sheet.size());
        model.put("paperDays", jobPapers.paperDays(job));
        model.put("now", clock.instant());
        return pdf.render("documents/binder-pdf", model, scans);
    }
}
