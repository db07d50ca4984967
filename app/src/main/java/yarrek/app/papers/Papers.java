package yarrek.app.papers;

import jakarta.persistence.EntityManager;
import java.io.IOException;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.encryption.InvalidPasswordException;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.history.History;
import yarrek.app.page.NotFoundException;
import yarrek.core.paper.Costs;
import yarrek.core.paper.HolderStanding;
import yarrek.core.paper.Paper;
import yarrek.core.paper.PaperState;
import yarrek.core.paper.Weave;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.PaperKind;
import yarrek.core.rulebook.PaperKinds;
import yarrek.core.time.Days;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/** The register of papers. */
@Service
public class Papers {
    /** Who can hold a paper, as a row of the weave. */
    public record Holder(String kind, UUID id, String name) {}

    /** A paper in a list. */
    public record Row(
            UUID id,
            String kind,
            String kindWords,
            String level,
            String number,
            String issuer,
            String holderKind,
            UUID holderId,
            LocalDate validFrom,
            LocalDate validTo,
            LocalDate actBy,
            String actByWhy,
            PaperState state,
            String shape,
            String verifiedWhere,
            Double amountSdr,
            Set<String> lifts,
            String jurisdiction,
            BigDecimal cost,
            String currency,
            LocalDate renewFrom,
            String needs,
            String verifiedBy,
            LocalDate verifiedOn,
            BigDecimal amount,
            String amountCurrency,
            String conditions,
            Validity validity,
            boolean territorial) {
        /** Whether it is in force at every instant of these hours, as the rules see it. */
        public boolean covers(List<TimeWindow> windows) {
            return windows.stream().allMatch(validity::covers);
        }

        /** Whether it counts at a place: an insurance where its territory names it, another paper under the law there. */
        public boolean countsAt(String place) {
            PaperHeld held = new PaperHeld(kind, Optional.empty(), holderKind, number, jurisdiction, validity, true);
            return territorial ? held.namesPlace(place) : held.countsIn(Optional.of(place));
        }

        /** "Certificate of competence A2". */
        public String name() {
            return kindWords + (level == null ? "" : " " + level);
        }

        /** As its holder's standing sees it: papers of one kind, level and place renew one another. */
        public HolderStanding.Held held() {
            return new HolderStanding.Held(
                    String.join("\n", kind, String.valueOf(level), jurisdiction), name(), state, validTo, actBy);
        }

        /** Its level where it has one, since the list names the kind; else the kind. */
        public String shortName() {
            return level == null ? kindWords : level;
        }

        /** Where it holds. */
        public String place() {
            return jurisdiction.isEmpty() ? "everywhere" : jurisdiction;
        }

        /** Who looked at the original and when, where it was looked up, or that nobody did. */
        public String verified() {
            if (verifiedBy.isEmpty()) {
                return verifiedWhere.isEmpty() ? "not yet" : verifiedWhere;
            }
            return verifiedBy + ", " + Days.show(verifiedOn);
        }
    }

    /**
     * A kind of paper.
     *
     * @param holder operator, pilot, aircraft or job
     * @param shown whether an official may ask for it
     * @param meaning what follows from one in force
     */
    public record Kind(
            String code,
            long version,
            String words,
            String holder,
            List<String> levels,
            int leadDays,
            Integer renewEarlyDays,
            BigDecimal cost,
            String currency,
            String needs,
            boolean shown,
            PaperKind meaning) {
        /** Liability, hull or trip; null for what is no insurance. */
        public String insures() {
            return meaning.insures().orElse(null);
        }
    }

    /** A scan or photo in a list. */
    public record Scan(
            UUID id,
            UUID paperId,
            String fileName,
            String contentType,
            long sizeBytes,
            String addedBy,
            Instant addedAt) {
        public boolean isPicture() {
            return contentType.startsWith("image/");
        }
    }

    /** A scan with its bytes. */
    public record ScanFile(Scan scan, byte[] content) {}

    /** What is entered for a paper. */
    public record Entry(
            String kind,
            String level,
            String number,
            String issuer,
            String jurisdiction,
            String holderKind,
            UUID holderId,
            LocalDate issuedOn,
            LocalDate validFrom,
            LocalDate validTo,
            boolean endKnown,
            ZoneId zone,
            int leadDays,
            String conditions,
            String verifiedWhere,
            Double amountSdr,
            String lifts,
            Terms terms) {}

    /**
     * What a paper costs and insures, and who looked at it.
     *
     * @param renewEarlyDays how long before its end it may be renewed; null when not known
     */
    public record Terms(
            BigDecimal cost,
            String currency,
            Integer renewEarlyDays,
            String needs,
            String verifiedBy,
            LocalDate verifiedOn,
            BigDecimal amount,
            String amountCurrency) {
        public static final Terms NONE = new Terms(null, null, null, "", "", null, null, null);
    }

    /** Papers of these holders changed; what rests on them is judged again. */
    public record Changed(String holderKind, UUID holderId) {}

    private final Held<List<Kind>> kinds;
    private final Held<List<PaperEntity>> every;
    private final EntityManager em;
    private final Clock clock;
    private final ApplicationEventPublisher events;

    Papers(EntityManager em, Clock clock, ApplicationEventPublisher events, Stamps stamps) {
        this.every = stamps.holding("papers", this::readEvery);
        this.kinds = stamps.holding("paper kinds", this::readKinds);
        this.em = em;
        this.clock = clock;
        this.events = events;
    }

    /**
     * Stores a paper; a null id makes a new one.
     *
     * @throws IllegalArgumentException when the end is before the start
     * @throws LostUpdateException when somebody else saved it since {@code version}
     */
    @Transactional
    public UUID save(UUID id, long version, Entry e, String by) {
        if (e.validFrom() != null && e.validTo() != null && e.validTo().isBefore(e.validFrom())) {
            throw new IllegalArgumentException("valid to " + e.validTo() + " is before valid from " + e.validFrom());
        }
        PaperEntity p;
        if (id == null) {
            p = new PaperEntity(UUID.randomUUID());
        } else {
            p = entity(id);
            if (version != p.version) {
                throw new LostUpdateException(p.version);
            }
        }
        p.kind = e.kind();
        p.level = e.level();
        p.number = e.number();
        p.issuer = e.issuer();
        p.jurisdiction = e.jurisdiction();
        p.holderKind = e.holderKind();
        p.holderId = e.holderId();
        p.issuedOn = e.issuedOn();
        p.validFrom = e.validFrom();
        p.validTo = e.validTo();
        p.endKnown = e.endKnown();
        p.zone = e.zone().getId();
        p.leadDays = e.leadDays();
        p.conditions = e.conditions();
        p.verifiedWhere = e.verifiedWhere();
        p.amountSdr = e.amountSdr();
        p.lifts = e.lifts();
        p.cost = e.terms().cost();
        p.currency = e.terms().currency();
        p.renewEarlyDays = e.terms().renewEarlyDays();
        p.needs = e.terms().needs();
        p.verifiedBy = e.terms().verifiedBy();
        p.verifiedOn = e.terms().verifiedOn();
        p.amount = e.terms().amount();
        p.amountCurrency = e.terms().amountCurrency();
        p.enteredBy = by;
        p.enteredAt = clock.instant();
        if (id == null) {
            em.persist(p);
        }
        em.flush();
        restored(p);
        return p.id;
    }

    /** What people call it: its kind and number. */
    String called(PaperEntity p) {
        return (kindWords().getOrDefault(p.kind, p.kind) + " " + p.number).strip();
    }

    /** Has what rests on a changed paper follow. */
    void restored(PaperEntity p) {
        every.changed();
        events.publishEvent(new Changed(p.holderKind, p.holderId));
    }

    // --- kinds -------------------------------------------------------------------------------------------------------

    @Transactional(readOnly = true)
    public List<Kind> kinds() {
        return kinds.get();
    }

    private List<Kind> readKinds() {
        return em.createQuery("from PaperKindEntity k order by k.sortOrder, k.words", PaperKindEntity.class)
                .getResultStream()
                .map(Papers::kind)
                .toList();
    }

    @Transactional(readOnly = true)
    public List<Kind> kindsHeldBy(String holder) {
        return kinds().stream().filter(k -> k.holder().equals(holder)).toList();
    }

    /** Kinds that insure something: they count where their territory names the place. */
    private Set<String> insuring() {
        return kinds().stream().filter(k -> k.insures() != null).map(Kind::code).collect(Collectors.toSet());
    }

    private Map<String, String> kindWords() {
        return kinds().stream().collect(Collectors.toMap(Kind::code, Kind::words));
    }

    private static Kind kind(PaperKindEntity k) {
        return new Kind(
                k.code,
                k.version,
                k.words,
                k.holder,
                k.levels.isEmpty() ? List.of() : List.of(k.levels.split(";")),
                k.leadDays,
                k.renewEarlyDays,
                k.cost,
                k.currency,
                k.needs,
                k.shownToOfficials,
                new PaperKind(
                        k.code,
                        k.words,
                        k.holder,
                        Optional.ofNullable(k.settles),
                        k.noneIsNo,
                        k.alsoForJob,
                        Optional.ofNullable(k.home),
                        k.opensCategory,
                        Optional.ofNullable(k.answers),
                        Optional.ofNullable(k.insures)));
    }

    /**
     * Stores a kind; one whose code is new is made.
     *
     * @throws LostUpdateException when somebody else saved it since {@code version}
     */
    @Transactional
    public void saveKind(Kind v, boolean isNew) {
        PaperKindEntity k = em.find(PaperKindEntity.class, v.code());
        if (isNew && k != null) {
            throw new IllegalArgumentException("there is a kind with the code " + v.code() + " already");
        }
        if (!isNew && (k == null || k.version != v.version())) {
            if (k == null) {
                throw new NotFoundException("kind of paper");
            }
            throw new LostUpdateException(k.version);
        }
        boolean make = k == null;
        if (make) {
            k = new PaperKindEntity(v.code());
            k.holder = v.holder();
            k.sortOrder = 500;
        }
        k.words = v.words();
        k.levels = String.join(";", v.levels());
        k.leadDays = v.leadDays();
        k.renewEarlyDays = v.renewEarlyDays();
        k.cost = v.cost();
        k.currency = v.currency();
        k.needs = v.needs();
        PaperKind m = v.meaning();
        boolean means = !make && !kind(k).meaning().equals(m);
        k.settles = m.settles().orElse(null);
        k.noneIsNo = m.noneIsNo();
        k.alsoForJob = m.alsoForJob();
        k.home = m.home().orElse(null);
        k.opensCategory = m.opensCategory();
        k.answers = m.answers().orElse(null);
        k.insures = m.insures().orElse(null);
        k.shownToOfficials = v.shown();
        if (make) {
            em.persist(k);
        }
        em.flush();
        kinds.changed();
        if (means || make) {
            events.publishEvent(new KindsChanged());
        }
    }

    /** Has what rests on a changed kind follow. */
    void restored(PaperKindEntity k) {
        kinds.changed();
        events.publishEvent(new KindsChanged());
    }

    /** What kinds of paper mean has changed, so that facts may follow from others. */
    public record KindsChanged() {}

    /** What the kinds on file mean. */
    @Transactional(readOnly = true)
    public PaperKinds meanings() {
        return new PaperKinds(kinds().stream().map(Kind::meaning).toList());
    }

    // --- scans -------------------------------------------------------------------------------------------------------

    /** Largest scan taken. */
    public static final int MOST_SCAN_BYTES = 20 * 1024 * 1024;

    /**
     * A paper with its scan, both or neither.
     *
     * @param scan null for none
     * @throws IllegalArgumentException when the scan is too large, or neither a PDF nor a picture by its content
     */
    @Transactional
    public UUID save(Supplier<UUID> saving, byte[] scan, String fileName, String by) {
        UUID id = saving.get();
        if (scan != null) {
            addScan(id, fileName, scan, by);
        }
        return id;
    }

    /** Who issued every paper of a kind and level on file, when it was one and the same. */
    @Transactional(readOnly = true)
    public Optional<String> onlyIssuer(String kind, String level) {
        List<String> issuers = em.createQuery(
                        "select distinct p.issuer from PaperEntity p where p.kind = :k and p.level = :l", String.class)
                .setParameter("k", kind)
                .setParameter("l", level)
                .setMaxResults(2)
                .getResultList();
        return issuers.size() == 1 ? Optional.of(issuers.get(0)) : Optional.empty();
    }

    /** @throws IllegalArgumentException when it is too large, or neither a PDF nor a picture by its content */
    @Transactional
    public UUID addScan(UUID paperId, String fileName, byte[] content, String by) {
        PaperEntity p = entity(paperId);
        if (content.length > MOST_SCAN_BYTES) {
            throw new IllegalArgumentException(
                    "a scan may have at most 20 MB; this file has " + content.length / (1024 * 1024) + " MB");
        }
        ScanType type = ScanType.of(content)
                .orElseThrow(() -> new IllegalArgumentException("“" + fileName
                        + "” is neither a PDF nor a JPEG, PNG or WebP picture by its content; nothing was stored"));
        if (type == ScanType.PDF) {
            requireOpens(fileName, content);
        }
        ScanEntity s = new ScanEntity(UUID.randomUUID());
        s.paperId = paperId;
        s.fileName = fileName.replaceAll("[\\\\/\"\\p{Cntrl}]", "_");
        s.contentType = type.mime();
        s.sizeBytes = content.length;
        s.sha256 = sha256(content);
        s.addedBy = by;
        s.addedAt = clock.instant();
        em.persist(s);
        em.persist(new ScanContentEntity(s.id, content));
        em.flush();
        events.publishEvent(new Changed(p.holderKind, p.holderId));
        return s.id;
    }

    private static void requireOpens(String fileName, byte[] content) {
        try (PDDocument d = Loader.loadPDF(content)) {
            if (d.getNumberOfPages() == 0) {
                throw new IllegalArgumentException("“" + fileName + "” is a PDF without pages; nothing was stored");
            }
        } catch (InvalidPasswordException e) {
            throw new IllegalArgumentException(
                    "“" + fileName + "” needs a password to be read; save it without one and add it again", e);
        } catch (IOException e) {
            throw new IllegalArgumentException(
                    "“" + fileName + "” is a damaged PDF that cannot be opened; nothing was stored", e);
        }
    }

    private static String sha256(byte[] content) {
        try {
            return java.util.HexFormat.of()
                    .formatHex(
                            java.security.MessageDigest.getInstance("SHA-256").digest(content));
        } catch (java.security.NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    @Transactional(readOnly = true)
    public List<Scan> scans(Collection<UUID> paperIds) {
        return paperIds.isEmpty()
                ? List.of()
                : em.createQuery("from ScanEntity s where s.paperId in :ids order by s.addedAt", ScanEntity.class)
                        .setParameter("ids", paperIds)
                        .getResultStream()
                        .map(Papers::scan)
                        .toList();
    }

    private static Scan scan(ScanEntity s) {
        return new Scan(s.id, s.paperId, s.fileName, s.contentType, s.sizeBytes, s.addedBy, s.addedAt);
    }

    @Transactional(readOnly = true)
    public ScanFile scanFile(UUID id) {
        ScanEntity s = em.find(ScanEntity.class, id);
        if (s == null) {
            throw new NotFoundException("scan");
        }
        return new ScanFile(scan(s), em.find(ScanContentEntity.class, id).content);
    }

    @Transactional
    public UUID deleteScan(UUID id) {
        ScanEntity s = em.find(ScanEntity.class, id);
        if (s == null) {
            throw new NotFoundException("scan");
        }
        em.remove(s); // its content waits as long as it lies in the bin
        return s.paperId;
    }

    /** Forgets scans that lie in the bin longer than it keeps: of papers taken away, and taken away themselves. */
    @Scheduled(fixedDelay = 6, initialDelay = 1, timeUnit = TimeUnit.HOURS)
    @Transactional
    public void emptyBin() {
        Instant before = clock.instant().minus(History.BIN);
        String gone =
                " where not exists (select 1 from paper p where p.id = s.paper_id) and exists (select 1 from paper_aud a"
                        + " join revision r on r.id = a.rev where a.id = s.paper_id and a.revtype = 2)"
                        + " and not exists (select 1 from paper_aud a join revision r on r.id = a.rev"
                        + " where a.id = s.paper_id and a.revtype = 2 and r.at >= :before)";
        em.createNativeQuery("delete s from paper_scan s" + gone)
                .setParameter("before", before)
                .executeUpdate();
        em.createNativeQuery(
                        "delete c from paper_scan_content c where not exists (select 1 from paper_scan s where s.id = c.scan_id)"
                                + " and not exists (select 1 from paper_scan_aud a join revision r on r.id = a.rev"
                                + " where a.id = c.scan_id and a.revtype = 2 and r.at >= :before)")
                .setParameter("before", before)
                .executeUpdate();
    }

    private PaperEntity entity(UUID id) {
        PaperEntity p = em.find(PaperEntity.class, id);
        if (p == null) {
            throw new NotFoundException("paper");
        }
        return p;
    }

    @Transactional
    public void delete(UUID id) {
        PaperEntity p = entity(id);
        em.remove(p);
        em.flush();
        restored(p);
    }

    /** A paper as entered, with what it takes to change it. */
    public record Stored(UUID id, long version, Entry entry) {}

    /** Every paper as entered. */
    @Transactional(readOnly = true)
    public List<Stored> stored() {
        return em.createQuery("from PaperEntity p order by p.holderKind, p.kind, p.number", PaperEntity.class)
                .getResultStream()
                .map(p -> new Stored(p.id, p.version, entry(p)))
                .toList();
    }

    @Transactional(readOnly = true)
    public Entry entry(UUID id) {
        return entry(entity(id));
    }

    private static Entry entry(PaperEntity p) {
        return new Entry(
                p.kind,
                p.level,
                p.number,
                p.issuer,
                p.jurisdiction,
                p.holderKind,
                p.holderId,
                p.issuedOn,
                p.validFrom,
                p.validTo,
                p.endKnown,
                ZoneId.of(p.zone),
                p.leadDays,
                p.conditions,
                p.verifiedWhere,
                p.amountSdr,
                p.lifts,
                new Terms(
                        p.cost,
                        p.currency,
                        p.renewEarlyDays,
                        p.needs,
                        p.verifiedBy,
                        p.verifiedOn,
                        p.amount,
                        p.amountCurrency));
    }

    @Transactional(readOnly = true)
    public long version(UUID id) {
        return entity(id).version;
    }

    @Transactional(readOnly = true)
    public List<Row> all() {
        Map<String, String> words = kindWords();
        Set<String> insuring = insuring();
        return every().stream()
                .map(p -> row(p, words, insuring))
                .sorted(MOST_PRESSING)
                .toList();
    }

    /** Every paper as it is on file, by its beginning; not to be changed. */
    private List<PaperEntity> every() {
        return every.get();
    }

    private List<PaperEntity> readEvery() {
        return em.createQuery("from PaperEntity p order by p.validFrom", PaperEntity.class)
                .getResultStream()
                .map(PaperEntity::copy)
                .toList();
    }

    /** Papers for whose end something has to be done now, and those whose end is not known; the most pressing first. */
    @Transactional(readOnly = true)
    public List<Row> due() {
        Map<String, String> words = kindWords();
        Set<String> insuring = insuring();
        Instant now = clock.instant();
        return every().stream()
                .filter(p -> DUE.contains(p.paper().state(now, List.of())))
                .map(p -> row(p, words, insuring))
                .sorted(MOST_PRESSING)
                .toList();
    }

    private static final Set<PaperState> DUE = EnumSet.of(PaperState.ACT_SOON, PaperState.RUN_OUT, PaperState.UNKNOWN);

    /** Papers of these kinds, in the same order as {@link #all()}. */
    @Transactional(readOnly = true)
    public List<Row> ofKinds(Collection<String> kinds) {
        Map<String, String> words = kindWords();
        Set<String> insuring = insuring();
        return every().stream()
                .filter(p -> kinds.contains(p.kind))
                .map(p -> row(p, words, insuring))
                .sorted(MOST_PRESSING)
                .toList();
    }

    private static final Comparator<Row> MOST_PRESSING = Comparator.comparing(
                    (Row r) -> r.actBy() == null ? LocalDate.MAX : r.actBy())
            .thenComparing(Row::number);

    @Transactional(readOnly = true)
    public List<Row> of(Collection<UUID> holders) {
        if (holders.isEmpty()) {
            return List.of();
        }
        Map<String, String> words = kindWords();
        Set<String> insuring = insuring();
        return every().stream()
                .filter(p -> holders.contains(p.holderId))
                .sorted(Comparator.comparing((PaperEntity p) -> p.kind))
                .map(p -> row(p, words, insuring))
                .toList();
    }

    /** How each of these stands by its papers. */
    @Transactional(readOnly = true)
    public Map<UUID, HolderStanding> standings(Collection<UUID> holders) {
        Map<UUID, List<HolderStanding.Held>> held = of(holders).stream()
                .collect(Collectors.groupingBy(Row::holderId, Collectors.mapping(Row::held, Collectors.toList())));
        return holders.stream()
                .distinct()
                .collect(Collectors.toMap(h -> h, h -> HolderStanding.of(held.getOrDefault(h, List.of()))));
    }

    private Row row(PaperEntity p, Map<String, String> kindWords, Set<String> insuring) {
        Paper paper = p.paper();
        PaperState state = paper.state(clock.instant(), List.of());
        return new Row(
                p.id,
                p.kind,
                kindWords.getOrDefault(p.kind, p.kind),
                p.level,
                p.number,
                p.issuer,
                p.holderKind,
                p.holderId,
                p.validFrom,
                p.validTo,
                paper.actBy().orElse(null),
                paper.actByWhy(),
                state,
                state.shape(),
                p.verifiedWhere,
                p.amountSdr,
                p.lifts.isBlank() ? Set.of() : Set.of(p.lifts.split("[ ,]+")),
                p.jurisdiction,
                p.cost,
                p.currency,
                p.renewEarlyDays == null || p.validTo == null ? null : p.validTo.minusDays(p.renewEarlyDays),
                p.needs,
                p.verifiedBy,
                p.verifiedOn,
                p.amount,
                p.amountCurrency,
                p.conditions,
                paper.validity(),
                insuring.contains(p.kind));
    }

    /** Papers as facts: each holder under a role. */
    @Transactional(readOnly = true)
    public List<PaperHeld> held(Map<UUID, String> roleByHolder) {
        return onFile(roleByHolder.keySet()).held(roleByHolder);
    }

    /** The papers of these holders. */
    @Transactional(readOnly = true)
    public PapersOnFile onFile(Collection<UUID> holders) {
        Set<UUID> of = Set.copyOf(holders);
        return new PapersOnFile(
                meanings(),
                every().stream().filter(p -> of.contains(p.holderId)).toList());
    }

    /** The weave of these holders, in their order, with the jobs across them. Only rows with papers or needs appear. */
    @Transactional(readOnly = true)
    public Weave weave(LocalDate from, LocalDate through, ZoneId zone, List<Holder> holders, List<Weave.JobSpan> jobs) {
        return weave(from, through, zone, holders, jobs, Optional.empty());
    }

    /** The weave of papers that count under a law; of all when none is given. */
    @Transactional(readOnly = true)
    public Weave weave(
            LocalDate from,
            LocalDate through,
            ZoneId zone,
            List<Holder> holders,
            List<Weave.JobSpan> jobs,
            Optional<String> law) {
        Map<UUID, List<Paper>> byHolder = new HashMap<>();
        Set<UUID> ids = holders.stream().map(Holder::id).collect(Collectors.toSet());
        every().stream()
                .filter(p -> ids.contains(p.holderId) && p.held("").countsIn(law))
                .forEach(p -> byHolder.computeIfAbsent(p.holderId, k -> new ArrayList<>())
                        .add(p.paper()));
        List<Weave.Holding> holdings = holders.stream()
                .map(h -> new Weave.Holding(h.id().toString(), h.name(), byHolder.getOrDefault(h.id(), List.of())))
                .toList();
        return Weave.lay(from, through, clock.instant(), zone, Weave.rows(holdings, kindWords(), jobs), jobs);
    }

    /** The papers of a holder as the core sees them. */
    @Transactional(readOnly = true)
    public List<Paper> papersOf(UUID holder) {
        return every().stream()
                .filter(p -> p.holderId.equals(holder))
                .map(PaperEntity::paper)
                .toList();
    }

    /** Every paper as a cost. */
    @Transactional(readOnly = true)
    public List<Costs.Item> costs() {
        return every().stream()
                .map(p -> new Costs.Item(
                        Optional.ofNullable(p.issuedOn != null ? p.issuedOn : p.validFrom),
                        Optional.ofNullable(p.validTo),
                        Optional.ofNullable(p.cost),
                        p.currency))
                .toList();
    }
}
