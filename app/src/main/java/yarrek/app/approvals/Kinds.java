package yarrek.app.approvals;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.ChainPlan;
import yarrek.core.approval.Holidays;
import yarrek.core.approval.Lead;
import yarrek.core.approval.Step;
import yarrek.core.approval.WorkDays;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.rules.ApprovalKindReader;

/** Kinds of approval, shipped and the operator's own, and how chains are planned. */
@Service
public class Kinds {
    /** Years for which holidays are counted, before and after a day. */
    private static final int YEARS = 3;

    /** A kind in the list; {@code version} is -1 for one that ships unchanged. */
    public record Row(ApprovalKind kind, String when, long version, boolean shipped, boolean active, String changedBy) {
        public boolean changed() {
            return version >= 0;
        }
    }

    /**
     * Settings of planning.
     *
     * @param hoursADay hours of paper work in a working day
     * @param marginDays days between the last grant and the job
     * @param toleranceDays by which an unlock's dates may differ from the approval's, {@code toleranceM} its area
     * @param rehearsalDays before the job, by which every stage of an unlock has been tried at base
     * @param nudgeDays from one nudge to the next
     * @param confirmMinutes to confirm an unlock at power-on
     * @param holidays the operator's own, as {@link Holidays} reads them
     */
    public record Settings(
            long version,
            double hoursADay,
            int marginDays,
            int toleranceDays,
            double toleranceM,
            int rehearsalDays,
            int nudgeDays,
            double confirmMinutes,
            String holidays) {}

    /** A risk of the operator's register, as every safety plan has it. */
    public record Risk(String risk, String who, String mitigation, String left) {}

    /** Kinds or settings changed; the chains of open jobs are planned anew. */
    public record Changed() {}

    private final Granters granters;
    private final Held<List<Row>> rows;
    private final Held<Settings> settings;
    private final EntityManager em;
    private final ApplicationEventPublisher events;
    private final JsonMapper json;
    private final Clock clock;
    private final ApprovalKindReader.Book shipped = ApprovalKindReader.shipped();

    Kinds(
            Granters granters,
            EntityManager em,
            ApplicationEventPublisher events,
            JsonMapper json,
            Clock clock,
            Stamps stamps) {
        this.granters = granters;
        this.em = em;
        this.rows = stamps.holding("approval kinds", this::read);
        this.settings = stamps.holding("approval settings", this::readSettings);
        this.events = events;
        this.json = json;
        this.clock = clock;
    }

    /** Every kind, shipped ones first in their order, those switched off too. */
    @Transactional(readOnly = true)
    public List<Row> rows() {
        return rows.get();
    }

    private List<Row> read() {
        Map<String, KindEntity> own = new LinkedHashMap<>();
        em.createQuery("from KindEntity k order by k.code", KindEntity.class)
                .getResultList()
                .forEach(k -> own.put(k.code, k));
        List<Row> rows = new ArrayList<>();
        for (ApprovalKindReader.Entry e : shipped.kinds()) {
            KindEntity k = own.remove(e.kind().code());
            rows.add(k == null ? new Row(e.kind(), e.when(), -1, true, true, "shipped") : row(k, true));
        }
        own.values().forEach(k -> rows.add(row(k, false)));
        return rows;
    }

    private static Row row(KindEntity k, boolean ships) {
        try {
            ApprovalKindReader.Entry e = ApprovalKindReader.kind(k.yaml);
            return new Row(e.kind(), e.when(), k.version, ships, k.active, k.changedBy);
        } catch (BrokenFileException e) {
            throw new IllegalStateException("the kind " + k.code + " no longer reads: " + e.getMessage(), e);
        }
    }

    /** Kinds in use. */
    @Transactional(readOnly = true)
    public List<ApprovalKind> kinds() {
        return rows().stream().filter(Row::active).map(Row::kind).toList();
    }

    @Transactional(readOnly = true)
    public Row row(String code) {
        return find(code).orElseThrow(() -> new NotFoundException("kind of approval"));
    }

    @Transactional(readOnly = true)
    public Optional<Row> find(String code) {
        return rows().stream().filter(r -> r.kind().code().equals(code)).findFirst();
    }

    /**
     * Stores a kind in the place of what ships under its code, or a new one.
     *
     * @param when its own condition as a rule writes one; empty for none
     * @throws BrokenFileException when the condition is not understood
     * @throws IllegalArgumentException when a kind that it names is not there, or waits for it in turn
     */
    @Transactional(rollbackFor = Exception.class)
    public void save(ApprovalKind kind, String when, boolean active, long version, String by)
            throws BrokenFileException {
        String text = json.writeValueAsString(ApprovalKindReader.write(kind));
        String yaml =
                when.isBlank() ? text : text.substring(0, text.length() - 1) + ", \"when\": " + when.strip() + "}";
        ApprovalKind read = ApprovalKindReader.kind(yaml).kind();
        requireChain(read);
        KindEntity k = em.find(KindEntity.class, kind.code());
        if (k != null && k.version != version) {
            throw new LostUpdateException(k.version);
        }
        boolean make = k == null;
        if (make) {
            k = new KindEntity(kind.code());
        }
        k.yaml = yaml;
        k.active = active;
        k.changedBy = by;
        k.changedAt = clock.instant();
        if (make) {
            em.persist(k);
        }
        em.flush();
        restored();
    }

    /** Has what rests on a changed kind follow. */
    void restored() {
        rows.changed();
        events.publishEvent(new Changed());
    }

    private void requireChain(ApprovalKind changed) {
        Map<String, ApprovalKind> byCode = new LinkedHashMap<>();
        rows().forEach(r -> byCode.put(r.kind().code(), r.kind()));
        byCode.put(changed.code(), changed);
        for (String named : Stream.of(changed.needs(), changed.after(), changed.quotes())
                .flatMap(Set::stream)
                .toList()) {
            if (!byCode.containsKey(named)) {
                throw new IllegalArgumentException("there is no kind with the code “" + named + "”");
            }
        }
        LocalDate day = LocalDate.EPOCH;
        ChainPlan.of(
                byCode.values().stream()
                        .map(k -> Step.open(
                                k.code(),
                                k.title(),
                                Stream.concat(k.needs().stream(), k.after().stream())
                                        .filter(byCode::containsKey)
                                        .collect(Collectors.toSet()),
                                0,
                                Lead.ofDays(0),
                                day))
                        .toList(),
                new ChainPlan.Settings(day, new WorkDays(Set.of()), 1, 0));
    }

    /**
     * What ships holds again; a kind of the operator's own goes.
     *
     * @throws IllegalArgumentException when requests on file are of a kind that would go
     */
    @Transactional
    public void revert(String code) {
        KindEntity k = em.find(KindEntity.class, code);
        if (k == null) {
            throw new NotFoundException("changed kind of approval");
        }
        boolean ships = shipped.kinds().stream().anyMatch(e -> e.kind().code().equals(code));
        long used = em.createQuery("select count(a) from ApprovalEntity a where a.kind = :k", Long.class)
                .setParameter("k", code)
                .getSingleResult();
        if (!ships && used > 0) {
            throw new IllegalArgumentException(used + (used == 1 ? " request is" : " requests are")
                    + " of this kind; say that it is not in use instead");
        }
        em.remove(k);
        em.flush();
        restored();
    }

    // --- settings ----------------------------------------------------------------------------------------------------

    private SettingEntity entity() {
        return em.find(SettingEntity.class, 1);
    }

    @Transactional(readOnly = true)
    public Settings settings() {
        return settings.get();
    }

    private Settings readSettings() {
        SettingEntity s = entity();
        return new Settings(
                s.version,
                s.hoursADay,
                s.marginDays,
                s.toleranceDays,
                s.toleranceM,
                s.rehearsalDays,
                s.nudgeDays,
                s.confirmMinutes,
                s.holidays);
    }

    /** @throws IllegalArgumentException when a holiday is not understood, with its line */
    @Transactional
    public void save(Settings v) {
        Holidays.of(v.holidays(), 2026, 2026);
        SettingEntity s = entity();
        if (s.version != v.version()) {
            throw new LostUpdateException(s.version);
        }
        s.hoursADay = v.hoursADay();
        s.marginDays = v.marginDays();
        s.toleranceDays = v.toleranceDays();
        s.toleranceM = v.toleranceM();
        s.rehearsalDays = v.rehearsalDays();
        s.nudgeDays = v.nudgeDays();
        s.confirmMinutes = v.confirmMinutes();
        s.holidays = v.holidays();
        em.flush();
        settings.changed();
        events.publishEvent(new Changed());
    }

    /** Working days of the granters of a place around a day: its shipped holidays and the operator's own. */
    @Transactional(readOnly = true)
    public WorkDays workDays(String jurisdiction, LocalDate around) {
        String lines = holidays(jurisdiction) + "\n" + settings().holidays();
        return new WorkDays(Holidays.of(lines, around.getYear() - YEARS, around.getYear() + YEARS));
    }

    /**
     * Working days of one granter of a place around a day; empty when nothing of its own is on file.
     *
     * @param granter as the request names it
     */
    @Transactional(readOnly = true)
    public Optional<WorkDays> workDays(String granter, String jurisdiction, LocalDate around) {
        return granters.of(granter).filter(Granters.Granter::hasDays).map(g -> {
            WorkDays place = workDays(jurisdiction, around);
            Set<LocalDate> closed = new HashSet<>(place.holidays());
            closed.addAll(Holidays.of(g.closed(), around.getYear() - YEARS, around.getYear() + YEARS));
            return new WorkDays(closed, g.off().orElse(place.off()));
        });
    }

    /** Places for which a list of holidays ships. */
    public List<String> placesWithHolidays() {
        return shipped.holidays().keySet().stream().sorted().toList();
    }

    /** What the list that ships for a place says of itself, such as what it leaves out. */
    public String holidayRemark(String jurisdiction) {
        return Holidays.remark(holidays(jurisdiction));
    }

    /** Days of a year left out of working days in a place, the house's own among them. */
    @Transactional(readOnly = true)
    public SortedMap<LocalDate, String> namedHolidays(String jurisdiction, int year) {
        return Holidays.days(holidays(jurisdiction) + "\n" + settings().holidays(), year, year);
    }

    /** Holidays that ship for a place, as written. */
    public String holidays(String jurisdiction) {
        return shipped.holidays()
                .getOrDefault(jurisdiction, shipped.holidays().getOrDefault(jurisdiction.replaceFirst("-.*", ""), ""));
    }

    /** Procedures of the house by name: normal, emergency, lostLink, flyAway. */
    @Transactional(readOnly = true)
    public Map<String, String> procedures() {
        return json.readValue(entity().procedures, new TypeReference<Map<String, String>>() {});
    }

    @Transactional(readOnly = true)
    public List<Risk> risks() {
        return json.readValue(entity().risks, new TypeReference<List<Risk>>() {});
    }

    @Transactional
    public void savePlans(long version, Map<String, String> procedures, List<Risk> risks) {
        SettingEntity s = entity();
        if (s.version != version) {
            throw new LostUpdateException(s.version);
        }
        s.procedures = json.writeValueAsString(procedures);
        s.risks = json.writeValueAsString(risks);
        em.flush();
        settings.changed();
    }
}
