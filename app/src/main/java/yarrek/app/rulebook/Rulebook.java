package yarrek.app.rulebook;

import jakarta.persistence.EntityManager;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;
import yarrek.core.mass.MassClass;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.FlightFacts;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Recency;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Together;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.WaiverHeld;
import yarrek.core.time.Days;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.rules.RulePackReader;

/**
 * The packs in use, the operator's own rules and departures, and judging by them. A day is judged by the version of each
 * pack that is adopted for it.
 */
@Service
public class Rulebook {
    /** Shipped packs of law, in the order in which they are shown. */
    private static final List<String> SHIPPED = RulePackReader.shippedNames();

    /** A version of a pack; shipped ones have no id and hold since ever. */
    public record Version(
            UUID id, RulePack pack, LocalDate adoptedFrom, String fileName, String broughtInBy, Instant broughtInAt) {
        public boolean isShipped() {
            return id == null;
        }

        public boolean isAdopted() {
            return adoptedFrom != null;
        }

        public String standing() {
            return isShipped()
                    ? "shipped, in use"
                    : isAdopted() ? "adopted from " + Days.show(adoptedFrom) : "not adopted yet";
        }
    }

    /** A departure as recorded. */
    public record Waiver(
            UUID id,
            UUID jobId,
            String ruleId,
            String reason,
            String madeBy,
            Instant madeAt,
            LocalDate untilDay,
            Instant endedAt,
            String endedBy) {}

    /** The rules changed; every open job is judged again. */
    public record Changed(String what) {}

    /** The departures of a job changed. */
    public record WaiversChanged(UUID jobId) {}

    /**
     * What is stored.
     *
     * @param byDay the packs that judge a day, worked out once
     * @param rules rules by their id as they are today, worked out once a day
     */
    private record Cache(
            List<Version> versions,
            List<OwnRules.Row> own,
            Map<String, Reading> readings,
            Map<LocalDate, List<RulePack>> byDay,
            Map<LocalDate, Map<String, Rule>> rules) {
        private static final int MOST_DAYS = 2_000;

        Cache(List<Version> versions, List<OwnRules.Row> own, Map<String, Reading> readings) {
            this(versions, own, readings, new ConcurrentHashMap<>(), new ConcurrentHashMap<>());
        }

        static <V> V worked(Map<LocalDate, V> byDay, LocalDate day, Function<LocalDate, V> work) {
            if (byDay.size() > MOST_DAYS) {
                byDay.clear();
            }
            return byDay.computeIfAbsent(day, work);
        }
    }

    /** A pack of the operator's own rules is called after the moment of its last change. */
    private static final DateTimeFormatter VERSION =
            DateTimeFormatter.ofPattern("d MMM yyyy HH:mm:ss 'UTC'", Locale.UK).withZone(ZoneOffset.UTC);

    private final EntityManager em;
    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final Clock clock;
    private final ApplicationEventPublisher events;
    private final List<Version> shipped = SHIPPED.stream()
            .map(name -> new Version(null, RulePackReader.shipped(name), LocalDate.EPOCH, name, "shipped", null))
            .toList();
    private final Held<Cache> held;

    Rulebook(
            EntityManager em,
            JdbcClient jdbc,
            JsonMapper json,
            Clock clock,
            ApplicationEventPublisher events,
            Stamps stamps) {
        this.em = em;
        this.jdbc = jdbc;
        this.json = json;
        this.clock = clock;
        this.events = events;
        this.held = stamps.holding("rules", this::read);
    }

    // --- packs -------------------------------------------------------------------------------------------------------

    private Cache current() {
        return held.get();
    }

    private Cache read() {
        List<Version> versions = em.createQuery("from PackVersionEntity p", PackVersionEntity.class)
                .getResultStream()
                .map(Rulebook::version)
                .toList();
        List<OwnRules.Row> own = em.createQuery("from OwnRuleEntity r order by r.ruleId", OwnRuleEntity.class)
                .getResultStream()
                .map(Rulebook::ownRule)
                .toList();
        Map<String, Reading> readings = new LinkedHashMap<>();
        jdbc.sql("select jurisdiction, read_on, note, said_by from law_reading")
                .query((r, i) ->
                        new Reading(r.getString(1), "", r.getDate(2).toLocalDate(), r.getString(3), r.getString(4)))
                .list()
                .forEach(r -> readings.put(r.jurisdiction(), r));
        return new Cache(versions, own, readings);
    }

    private void stamp() {
        em.flush();
        held.changed();
    }

    private static Version version(PackVersionEntity p) {
        try {
            RulePack pack = RulePackReader.read(p.fileName, p.content.getBytes(StandardCharsets.UTF_8));
            return new Version(p.id, pack, p.adoptedFrom, p.fileName, p.broughtInBy, p.broughtInAt);
        } catch (BrokenFileException e) {
            throw new IllegalStateException("a stored pack no longer reads: " + e.getMessage(), e);
        }
    }

    private static OwnRules.Row ownRule(OwnRuleEntity r) {
        try {
            Rule rule = RulePackReader.rule(
                    r.yaml, Optional.empty(), LocalDate.ofInstant(r.madeAt, java.time.ZoneOffset.UTC));
            return new OwnRules.Row(r.id, r.version, rule, r.boundTo, r.boundId, r.yaml, r.active, r.madeBy, r.madeAt);
        } catch (BrokenFileException e) {
            throw new IllegalStateException("rule " + r.ruleId + " no longer reads: " + e.getMessage(), e);
        }
    }

    /** Every version on file, shipped and brought in, by pack and then newest adoption first. */
    @Transactional(readOnly = true)
    public List<Version> versions() {
        return Stream.concat(shipped.stream(), current().versions().stream())
                .sorted(Comparator.comparing((Version v) -> order(v.pack().id()))
                        .thenComparing(v -> v.pack().id())
                        .thenComparing(
                                Version::adoptedFrom, Comparator.nullsFirst(Comparator.<LocalDate>reverseOrder())))
                .toList();
    }

    private static int order(String pack) {
        int at = SHIPPED.indexOf(pack.toLowerCase(java.util.Locale.ROOT) + ".yaml");
        return at < 0 ? SHIPPED.size() : at;
    }

    /** The packs of law and house that judge a day, each in the version adopted for it. */
    @Transactional(readOnly = true)
    public List<RulePack> packsOn(LocalDate day) {
        Cache now = current();
        return Cache.worked(now.byDay(), day, d -> packsOn(d, now));
    }

    private List<RulePack> packsOn(LocalDate day, Cache now) {
        Map<String, Version> byPack = new LinkedHashMap<>();
        for (Version v :
                Stream.concat(shipped.stream(), now.versions().stream()).toList()) {
            if (v.isAdopted() && !v.adoptedFrom().isAfter(day)) {
                byPack.merge(v.pack().id(), v, (a, b) -> b.adoptedFrom().isBefore(a.adoptedFrom()) ? a : b);
            }
        }
        return byPack.values().stream().map(Version::pack).toList();
    }

    /** The packs of today with their versions, in words that change when any of them does. */
    @Transactional(readOnly = true)
    public String versionsInForce() {
        return packs().stream().map(p -> p.id() + " " + p.version()).sorted().collect(Collectors.joining(", "));
    }

    /** The packs of today. */
    @Transactional(readOnly = true)
    public List<RulePack> packs() {
        return packsOn(today());
    }

    private LocalDate today() {
        return LocalDate.now(clock);
    }

    /** Mass classes of a jurisdiction in rising order; empty when no pack covers it. */
    @Transactional(readOnly = true)
    public List<MassClass> massClasses(String jurisdiction) {
        return packOf(jurisdiction).map(RulePack::massClasses).orElse(List.of());
    }

    /** The pack of law that holds in a jurisdiction today: for a state of a union the union's own. */
    @Transactional(readOnly = true)
    public Optional<RulePack> packOf(String jurisdiction) {
        return packs().stream()
                .filter(p -> p.jurisdiction().isPresent() && p.overlays().isEmpty() && p.holdsIn(jurisdiction))
                .findFirst();
    }

    /** How recency is counted in a jurisdiction; empty where its law sets none or no pack covers it. */
    @Transactional(readOnly = true)
    public Optional<Recency> recency(String jurisdiction) {
        return packOf(jurisdiction).flatMap(RulePack::recency);
    }

    /** Laws that stand on their own, as code and title: overlays of states belong to that of their union. */
    @Transactional(readOnly = true)
    public Map<String, String> jurisdictions() {
        Map<String, String> all = new LinkedHashMap<>();
        packs().stream()
                .filter(p -> p.jurisdiction().isPresent()
                        && p.overlays().isEmpty()
                        && !p.rules().isEmpty())
                .forEach(p -> all.put(p.jurisdiction().get(), p.title()));
        return all;
    }

    /** Places that may be chosen, as code and name: those listed, and those of packs brought in; one without a pack says so. */
    @Transactional(readOnly = true)
    public Map<String, String> places() {
        List<RulePack> packs = packs();
        Map<String, String> all = new LinkedHashMap<>();
        yarrek.core.rulebook.Places.all().values().forEach(p -> {
            boolean held = packs.stream().anyMatch(x -> x.jurisdiction().equals(Optional.of(p.code())));
            all.put(p.code(), p.name() + (held ? "" : " (no rules of its own on file)"));
        });
        packs.stream()
                .filter(p -> p.jurisdiction().isPresent())
                .forEach(p -> all.putIfAbsent(p.jurisdiction().get(), p.title()));
        return all;
    }

    /** Overlays of states on file, with the day on which the state's own text was last read. */
    public record Reading(String jurisdiction, String title, LocalDate readOn, String note, String saidBy) {}

    @Transactional(readOnly = true)
    public List<Reading> readings() {
        Map<String, Reading> said = current().readings();
        return packs().stream()
                .filter(p -> p.overlays().isPresent())
                .map(p -> {
                    Reading r = said.get(p.jurisdiction().orElseThrow());
                    return new Reading(
                            p.jurisdiction().get(),
                            p.title(),
                            r == null ? null : r.readOn(),
                            r == null ? "" : r.note(),
                            r == null ? "" : r.saidBy());
                })
                .sorted(Comparator.comparing(Reading::title))
                .toList();
    }

    /** On which day the own rules of a state were last read; empty when nobody has said. */
    @Transactional(readOnly = true)
    public Optional<Reading> reading(String jurisdiction) {
        return readings().stream()
                .filter(r -> r.jurisdiction().equals(jurisdiction) && r.readOn() != null)
                .findFirst();
    }

    /**
     * Says when the own rules of a state were read, and what was read.
     *
     * @throws IllegalArgumentException when the day has not come yet, or nothing is said of what was read
     */
    @Transactional
    public void sayRead(String jurisdiction, LocalDate readOn, String note, String by) {
        if (readOn.isAfter(today().plusDays(1))) {
            throw new IllegalArgumentException("it cannot have been read on " + readOn + ", which has not come yet");
        }
        if (note.isBlank()) {
            throw new IllegalArgumentException(
                    "say what was read: which text, where, and what it changed in the rules");
        }
        if (readings().stream().noneMatch(r -> r.jurisdiction().equals(jurisdiction))) {
            throw new NotFoundException("rules of the state " + jurisdiction);
        }
        jdbc.sql("delete from law_reading where jurisdiction = ?")
                .param(jurisdiction)
                .update();
        jdbc.sql("insert into law_reading values (?, ?, ?, ?, ?)")
                .params(jurisdiction, readOn, note.strip(), by, java.sql.Timestamp.from(clock.instant()))
                .update();
        stamp();
        events.publishEvent(new Changed("the reading of the rules of " + jurisdiction));
    }

    private static final String HOUSE_PAPER = "HOUSE-PAPER-";

    /** Whether the house asks for a kind of paper on every job. */
    @Transactional(readOnly = true)
    public boolean houseNeeds(String kind) {
        return ownRules().stream().anyMatch(r -> r.active() && r.rule().id().equals(HOUSE_PAPER + kind));
    }

    /** Has the house ask for a kind of paper on every job, or no longer; the rule stands among the operator's own. */
    @Transactional
    public void houseNeeds(String kind, String words, String role, boolean needed, String by) {
        String id = HOUSE_PAPER + kind;
        Optional<OwnRules.Row> there =
                ownRules().stream().filter(r -> r.rule().id().equals(id)).findFirst();
        if (!needed) {
            there.ifPresent(r -> deleteOwnRule(r.id()));
            return;
        }
        if (there.isPresent()) {
            return;
        }
        String yaml = json.writeValueAsString(new java.util.TreeMap<>(Map.of(
                "id", id,
                "title", words.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + words.substring(1) + " in force",
                "layer", "house",
                "severity", "stop",
                "phase", "papers",
                "requires", Map.of("paper", kind, "name", words, "of", role),
                "cite", "House: this paper is needed for every job",
                "from", "2020-01-01",
                "confidence", "high",
                "remedy", "Renew it and enter the new one under Papers, or take another aircraft or person.")));
        try {
            saveOwnRule(null, 0, yaml, OwnRules.BoundTo.EVERYTHING, null, true, by);
        } catch (BrokenFileException e) {
            throw new IllegalStateException("the rule of a paper no longer reads: " + e.getMessage(), e);
        }
    }

    /**
     * Why an approval cannot lift this: there is no such rule, or nothing may lift it.
     *
     * @return empty when it may be lifted
     */
    @Transactional(readOnly = true)
    public Optional<String> whyNotLifted(String ruleId) {
        List<Rule> versions = Stream.concat(
                        packs().stream().flatMap(p -> p.rules().stream()),
                        current().own().stream().map(OwnRules.Row::rule))
                .filter(r -> r.id().equals(ruleId))
                .toList();
        if (versions.isEmpty()) {
            return Optional.of("there is no rule with the id " + ruleId);
        }
        return versions.stream().anyMatch(Rule::isCoverable)
                ? Optional.empty()
                : Optional.of(versions.get(0).title() + " (" + ruleId + ") is no rule that an approval may lift");
    }

    /** A rule of today's packs or of the operator's own; empty when it is no longer among them. */
    @Transactional(readOnly = true)
    public Optional<Rule> rule(String id) {
        return rule(id, today());
    }

    /** The same in the version that judges a day. */
    @Transactional(readOnly = true)
    public Optional<Rule> rule(String id, LocalDate on) {
        Cache now = current();
        return Optional.ofNullable(
                Cache.worked(now.rules(), on, day -> byId(day, now)).get(id));
    }

    /** Of versions of one rule the one in force on the day, the first when several or none are. */
    private Map<String, Rule> byId(LocalDate day, Cache now) {
        Map<String, Rule> all = new java.util.HashMap<>();
        Stream.concat(
                        packsOn(day, now).stream().flatMap(p -> p.rules().stream()),
                        now.own().stream().map(OwnRules.Row::rule))
                .forEach(r -> all.merge(r.id(), r, (a, b) -> b.inForceOn(day) && !a.inForceOn(day) ? b : a));
        return all;
    }

    /**
     * Takes a version of a pack in; nothing is judged by it until it is adopted.
     *
     * @throws BrokenFileException with line, rule and what was expected; then nothing is stored
     * @throws IllegalArgumentException when this version is on file already
     */
    @Transactional(rollbackFor = Exception.class)
    public UUID bringIn(String fileName, byte[] content, String by) throws BrokenFileException {
        RulePack pack = RulePackReader.read(fileName, content);
        boolean known = versions().stream()
                .anyMatch(v ->
                        v.pack().id().equals(pack.id()) && v.pack().version().equals(pack.version()));
        if (known) {
            throw new IllegalArgumentException("version " + pack.version() + " of the pack " + pack.id()
                    + " is on file already; a changed file needs a version of its own");
        }
        PackVersionEntity p = new PackVersionEntity(UUID.randomUUID());
        p.pack = pack.id();
        p.version = pack.version();
        p.fileName = fileName;
        p.content = new String(content, StandardCharsets.UTF_8);
        p.broughtInBy = by;
        p.broughtInAt = clock.instant();
        em.persist(p);
        stamp();
        return p.id;
    }

    /** Has a version judge every day from this one on. */
    @Transactional
    public void adopt(UUID id, LocalDate from) {
        PackVersionEntity p = pack(id);
        p.adoptedFrom = from;
        stamp();
        events.publishEvent(new Changed("the pack " + p.pack + " in version " + p.version + " from " + from));
    }

    /** Forgets a version that has not been adopted. */
    @Transactional
    public void discard(UUID id) {
        PackVersionEntity p = pack(id);
        if (p.adoptedFrom != null) {
            throw new IllegalArgumentException("an adopted version stays on file: jobs were judged by it");
        }
        em.remove(p);
        stamp();
    }

    private PackVersionEntity pack(UUID id) {
        PackVersionEntity p = em.find(PackVersionEntity.class, id);
        if (p == null) {
            throw new NotFoundException("version of a pack");
        }
        return p;
    }

    // --- the operator's own rules
    // --------------------------------------------------------------------------------------

    /** The operator's own rules, those not in use too. */
    @Transactional(readOnly = true)
    public List<OwnRules.Row> ownRules() {
        return current().own();
    }

    /** The shipped rules of house and maker that no rule of the operator's own stands in for. */
    @Transactional(readOnly = true)
    public List<Rule> shippedHouseRules() {
        Set<String> own = current().own().stream().map(r -> r.rule().id()).collect(Collectors.toSet());
        return packs().stream()
                .filter(p -> p.jurisdiction().isEmpty())
                .flatMap(p -> p.rules().stream())
                .filter(r -> !own.contains(r.id()))
                .toList();
    }

    /**
     * Stores a rule of the operator's own; a null id makes a new one.
     *
     * @throws BrokenFileException when the text is no rule
     * @throws IllegalArgumentException when the layer is law, or the id belongs to another rule
     */
    @Transactional(rollbackFor = Exception.class)
    public UUID saveOwnRule(
            UUID id, long version, String yaml, OwnRules.BoundTo boundTo, UUID boundId, boolean active, String by)
            throws BrokenFileException {
        Rule rule = RulePackReader.rule(yaml, Optional.empty(), today());
        if (rule.layer() == Layer.LAW) {
            throw new IllegalArgumentException("law comes in packs; a rule of your own is of another layer");
        }
        if (boundTo != OwnRules.BoundTo.EVERYTHING && boundId == null) {
            throw new IllegalArgumentException("choose which " + boundTo.words().replace("one ", "") + " it holds for");
        }
        OwnRuleEntity r = id == null ? new OwnRuleEntity(UUID.randomUUID()) : em.find(OwnRuleEntity.class, id);
        if (r == null) {
            throw new NotFoundException("rule");
        }
        if (id != null && r.version != version) {
            throw new LostUpdateException(r.version);
        }
        boolean taken = packs().stream()
                        .filter(p -> p.jurisdiction().isPresent())
                        .flatMap(p -> p.rules().stream())
                        .anyMatch(x -> x.id().equals(rule.id()))
                || ownRules().stream().anyMatch(x -> x.rule().id().equals(rule.id()) && !x.id().equals(id));
        if (taken) {
            throw new IllegalArgumentException("the id " + rule.id() + " belongs to another rule");
        }
        r.ruleId = rule.id();
        r.layer = rule.layer();
        r.boundTo = boundTo;
        r.boundId = boundTo == OwnRules.BoundTo.EVERYTHING ? null : boundId;
        r.yaml = yaml;
        r.active = active;
        r.madeBy = by;
        r.madeAt = clock.instant();
        if (id == null) {
            em.persist(r);
        }
        stamp();
        events.publishEvent(new Changed("the rule " + rule.title()));
        return r.id;
    }

    /** Takes a rule of the operator's own away; a shipped one that it stood in for holds again. */
    @Transactional
    public void deleteOwnRule(UUID id) {
        OwnRuleEntity r = em.find(OwnRuleEntity.class, id);
        if (r == null) {
            throw new NotFoundException("rule");
        }
        em.remove(r);
        stamp();
        events.publishEvent(new Changed("the rule " + r.ruleId + " was taken away"));
    }

    /** Has what rests on a changed rule follow. */
    void restored(OwnRuleEntity r) {
        stamp();
        events.publishEvent(new Changed("a change of the rule " + r.ruleId + " was taken back"));
    }

    void restored(WaiverEntity w) {
        events.publishEvent(new WaiversChanged(w.jobId));
    }

    // --- departures
    // ----------------------------------------------------------------------------------------------------

    /**
     * Records a departure from a rule of the house or the maker, or from guidance, for one job.
     *
     * @throws IllegalArgumentException when the rule binds from outside: it can only be covered by an approval
     */
    @Transactional
    public void waive(UUID jobId, String ruleId, String reason, LocalDate until, String by) {
        Rule rule = rule(ruleId).orElseThrow(() -> new NotFoundException("rule " + ruleId));
        if (rule.tier() == yarrek.core.rulebook.Tier.LAW) {
            throw new IllegalArgumentException(rule.title() + " is "
                    + rule.layer().words() + " and cannot be departed from; only an approval covers it");
        }
        WaiverEntity w = new WaiverEntity(UUID.randomUUID());
        w.jobId = jobId;
        w.ruleId = ruleId;
        w.reason = reason;
        w.madeBy = by;
        w.madeAt = clock.instant();
        w.untilDay = until;
        em.persist(w);
        em.flush();
        events.publishEvent(new WaiversChanged(jobId));
    }

    @Transactional
    public UUID endWaiver(UUID id, String by) {
        WaiverEntity w = em.find(WaiverEntity.class, id);
        if (w == null) {
            throw new NotFoundException("departure");
        }
        if (w.endedAt == null) {
            w.endedAt = clock.instant();
            w.endedBy = by;
            em.flush();
            events.publishEvent(new WaiversChanged(w.jobId));
        }
        return w.jobId;
    }

    /** Departures of a job, the ended ones too. */
    @Transactional(readOnly = true)
    public List<Waiver> waivers(UUID jobId) {
        return em.createQuery("from WaiverEntity w where w.jobId = :j order by w.madeAt", WaiverEntity.class)
                .setParameter("j", jobId)
                .getResultStream()
                .map(w -> new Waiver(
                        w.id, w.jobId, w.ruleId, w.reason, w.madeBy, w.madeAt, w.untilDay, w.endedAt, w.endedBy))
                .toList();
    }

    /** Departures of jobs that hold, as facts, by job. */
    @Transactional(readOnly = true)
    public Map<UUID, List<WaiverHeld>> waiversHeld(Collection<UUID> jobIds) {
        return jobIds.isEmpty()
                ? Map.of()
                : em.createQuery(
                                "from WaiverEntity w where w.jobId in :j and w.endedAt is null order by w.madeAt",
                                WaiverEntity.class)
                        .setParameter("j", jobIds)
                        .getResultStream()
                        .collect(Collectors.groupingBy(
                                w -> w.jobId,
                                Collectors.mapping(
                                        w -> new WaiverHeld(w.ruleId, w.reason, w.madeBy, w.untilDay),
                                        Collectors.toList())));
    }

    // --- judging
    // -------------------------------------------------------------------------------------------------------

    /**
     * The rules that judge these facts: the packs of their days, and the operator's own that hold there. Over the day on which
     * a version is adopted the older and the newer both judge.
     */
    @Transactional(readOnly = true)
    public List<RulePack> packsFor(Facts facts, OwnRules.Setting setting) {
        return with(packsOn(facts.days()), setting, facts.granted());
    }

    private List<RulePack> packsOn(List<LocalDate> days) {
        List<RulePack> first =
                packsOn(days.stream().min(Comparator.naturalOrder()).orElseGet(this::today));
        List<RulePack> last =
                packsOn(days.stream().max(Comparator.naturalOrder()).orElseGet(this::today));
        if (first.equals(last)) {
            return first;
        }
        Set<Rule> judging = first.stream().flatMap(p -> p.rules().stream()).collect(Collectors.toSet());
        List<RulePack> all = new ArrayList<>(first);
        Set<String> seen = first.stream().map(Rulebook::named).collect(Collectors.toSet());
        days.stream()
                .sorted()
                .forEach(d -> packsOn(d).stream()
                        .filter(p -> seen.add(named(p)))
                        .forEach(p -> {
                            RulePack more = p.only(r -> !judging.contains(r));
                            judging.addAll(more.rules());
                            all.add(more);
                        }));
        return all;
    }

    private static String named(RulePack p) {
        return p.id() + " " + p.version();
    }

    /** These packs with the operator's own rules in the place of shipped ones of the same id, and beside them. */
    private List<RulePack> with(List<RulePack> packs, OwnRules.Setting setting, List<Rule> granted) {
        List<OwnRules.Row> own = current().own();
        if (own.isEmpty() && granted.isEmpty()) {
            return packs;
        }
        Set<String> replaced = own.stream().map(r -> r.rule().id()).collect(Collectors.toSet());
        List<Rule> holding = Stream.concat(
                        OwnRules.holding(own, setting).stream().map(OwnRules.Row::rule), granted.stream())
                .toList();
        // the terms of the approvals of a job are rules of their own and say which approval; then the general one is
        // silent
        boolean terms = holding.stream().anyMatch(r -> r.layer() == Layer.APPROVAL);
        List<RulePack> all = new ArrayList<>();
        for (RulePack p : packs) {
            all.add(
                    p.jurisdiction().isPresent()
                            ? p
                            : p.only(r -> !replaced.contains(r.id()) && !(terms && r.layer() == Layer.APPROVAL)));
        }
        if (!holding.isEmpty()) {
            all.add(new RulePack(
                    "OWN",
                    "The operator's own rules",
                    Optional.empty(),
                    Optional.empty(),
                    false,
                    own.stream()
                            .map(OwnRules.Row::madeAt)
                            .max(Comparator.naturalOrder())
                            .map(VERSION::format)
                            .orElse(""),
                    today(),
                    "Entered by the operator; none of them weakens the law.",
                    List.of(),
                    Optional.empty(),
                    Optional.empty(),
                    List.of(),
                    holding));
        }
        return all;
    }

    /** The packs that would judge a day were this version adopted. */
    @Transactional(readOnly = true)
    public List<RulePack> packsWith(RulePack version, Facts facts, OwnRules.Setting setting) {
        LocalDate day = facts.days().stream().min(Comparator.naturalOrder()).orElseGet(this::today);
        List<RulePack> packs = new ArrayList<>(packsOn(day));
        packs.removeIf(p -> p.id().equals(version.id()));
        packs.add(version);
        return with(packs, setting, facts.granted());
    }

    /** Judges a plan. */
    @Transactional(readOnly = true)
    public AssessmentRow judge(Facts facts, OwnRules.Setting setting) {
        return judge(facts, packsFor(facts, setting));
    }

    /** Judges a plan by given packs. */
    public AssessmentRow judge(Facts facts, List<RulePack> packs) {
        return row(Assessment.of(facts, packs), facts, packs);
    }

    /**
     * Judges flights of one plan, each finding once.
     *
     * @param flights the facts of each, at least one
     * @param which names some of them by their numbers, from 1
     */
    @Transactional(readOnly = true)
    public AssessmentRow judgeTogether(List<Facts> flights, Function<List<Integer>, String> which) {
        List<List<RulePack>> packs =
                flights.stream().map(f -> packsFor(f, OwnRules.Setting.NONE)).toList();
        List<Assessment> each = IntStream.range(0, flights.size())
                .mapToObj(i -> Assessment.of(flights.get(i), packs.get(i)))
                .toList();
        Map<String, RulePack> all = new LinkedHashMap<>();
        packs.forEach(its -> its.forEach(k -> all.putIfAbsent(k.id() + " " + k.version(), k)));
        Function<List<Integer>, String> from1 =
                places -> which.apply(places.stream().map(i -> i + 1).toList());
        return row(Together.of(each, from1), flights, List.copyOf(all.values()), from1);
    }

    /** The duties that follow from an occurrence. */
    @Transactional(readOnly = true)
    public AssessmentRow judgeOccurrence(Facts facts) {
        List<RulePack> packs = packsFor(facts, OwnRules.Setting.NONE);
        return row(Assessment.ofOccurrence(facts, packs), facts, packs);
    }

    /** Judges a flown flight over time. */
    @Transactional(readOnly = true)
    public AssessmentRow judge(FlightFacts flight, Facts constant, OwnRules.Setting setting) {
        List<RulePack> packs = packsFor(constant, setting);
        return row(Assessment.of(flight, packs), constant, packs);
    }

    private static AssessmentRow row(Assessment a, Facts facts, List<RulePack> packs) {
        return row(a, shown(facts), packs);
    }

    private static List<AssessmentRow.FactRow> shown(Facts facts) {
        return facts.values().entrySet().stream()
                .map(e -> {
                    var d = Vocabulary.define(e.getKey());
                    return new AssessmentRow.FactRow(
                            d.name(),
                            d.label(),
                            e.getValue().value().show(d),
                            e.getValue().source());
                })
                .toList();
    }

    /**
     * What is said of a plan, as it is stored and shown.
     *
     * @param facts of each of its parts
     * @param which names some of the parts by their places in the list
     */
    public static AssessmentRow row(
            Assessment a, List<Facts> facts, List<RulePack> packs, Function<List<Integer>, String> which) {
        return row(a, facts.size() == 1 ? shown(facts.get(0)) : shown(facts, which), packs);
    }

    /** Facts of several parts, each once; where they differ, whose each is. */
    private static List<AssessmentRow.FactRow> shown(List<Facts> parts, Function<List<Integer>, String> which) {
        Map<String, Map<AssessmentRow.FactRow, List<Integer>>> byName = new LinkedHashMap<>();
        for (int i = 0; i < parts.size(); i++) {
            for (AssessmentRow.FactRow f : shown(parts.get(i))) {
                byName.computeIfAbsent(f.name(), k -> new LinkedHashMap<>())
                        .computeIfAbsent(f, k -> new ArrayList<>())
                        .add(i);
            }
        }
        return byName.values().stream()
                .map(its -> {
                    AssessmentRow.FactRow any = its.keySet().iterator().next();
                    boolean ofAll = its.size() == 1 && its.get(any).size() == parts.size();
                    return ofAll
                            ? any
                            : new AssessmentRow.FactRow(
                                    any.name(),
                                    any.label(),
                                    told(its, which, f -> f.value()),
                                    told(its, which, f -> f.source()));
                })
                .toList();
    }

    private static String told(
            Map<AssessmentRow.FactRow, List<Integer>> its,
            Function<List<Integer>, String> which,
            Function<AssessmentRow.FactRow, String> what) {
        Map<String, List<Integer>> byWords = new LinkedHashMap<>();
        its.forEach((f, parts) ->
                byWords.computeIfAbsent(what.apply(f), k -> new ArrayList<>()).addAll(parts));
        return byWords.entrySet().stream()
                .map(e -> e.getKey() + " (" + which.apply(e.getValue()) + ")")
                .collect(Collectors.joining("; "));
    }

    private static AssessmentRow row(Assessment a, List<AssessmentRow.FactRow> rows, List<RulePack> packs) {
        String heads = packs.stream()
                .filter(p -> a.packVersions().contains(p.id() + " " + p.version()))
                .map(p -> p.title() + ", as read on " + Days.show(p.readOn()) + ": " + p.head())
                .collect(Collectors.joining(" "));
        return new AssessmentRow(a.findings().stream().map(FindingRow::of).toList(), rows, a.packVersions(), heads);
    }
}
