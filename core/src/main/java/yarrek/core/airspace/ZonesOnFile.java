package yarrek.core.airspace;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import yarrek.core.rulebook.ZoneMet;

/**
 * The zones on file at a moment, and how far their sources can be trusted. Read once for however many questions.
 *
 * @param now the moment
 * @param ofLaw sources that hold a zone of law
 * @param undecided zones of which more was taken than is certain
 * @param looks what was looked at already
 */
public record ZonesOnFile(
        Instant now,
        ZoneIndex index,
        List<Source> sources,
        Set<UUID> ofLaw,
        Set<UUID> ofMaker,
        Set<String> undecided,
        Map<SiteLook.Plan, SiteLook> looks) {
    public ZonesOnFile(
            Instant now,
            ZoneIndex index,
            List<Source> sources,
            Set<UUID> ofLaw,
            Set<UUID> ofMaker,
            Set<String> undecided) {
        this(now, index, sources, ofLaw, ofMaker, undecided, new ConcurrentHashMap<>());
    }

    /**
     * @param edition when it was published, or else brought in
     * @param own the operator's own observations, which do not go out of date
     * @param whole it says that it holds every zone and aerodrome of its ground
     */
    public record Source(UUID id, Instant edition, int staleDays, boolean own, boolean whole) {
        boolean isStale(Instant on) {
            return Math.abs(Duration.between(edition, on).toDays()) > staleDays;
        }
    }

    private static final String UNDECIDED =
            " The notice was not understood whole, so more may be taken than it means: decide it under its source.";

    /** Stale when any source of law is out of date now; the operator's own zones and the maker's map do not count. */
    public Freshness freshness() {
        return freshness(now);
    }

    /** The same on another day, such as that of a flight: stale when an edition lies further from it than its age limit. */
    public Freshness freshness(Instant on) {
        List<Source> law =
                sources.stream().filter(s -> ofLaw.contains(s.id()) && !s.own()).toList();
        return law.isEmpty()
                ? Freshness.NONE
                : law.stream().anyMatch(s -> s.isStale(on)) ? Freshness.STALE : Freshness.CURRENT;
    }

    /** Whether anything was brought in at all. */
    public boolean isAny() {
        return !sources.isEmpty();
    }

    /** Whether a maker's map is on file and none of them is out of date. */
    public boolean isMakerCurrent() {
        return !ofMaker.isEmpty()
                && sources.stream().filter(s -> ofMaker.contains(s.id())).noneMatch(s -> s.isStale(now));
    }

    /** Whether a current source says that it holds every zone and aerodrome. */
    public boolean isWhole() {
        return sources.stream().anyMatch(s -> s.whole() && !s.isStale(now));
    }

    /** What a plan meets and what lies around it. */
    public SiteLook look(SiteLook.Plan plan) {
        SiteLook any = looks.computeIfAbsent(plan.atAnyTime(), p -> SiteLook.of(p, index));
        return looks.computeIfAbsent(plan, any::inHoursOf);
    }

    /** What to say of a zone of which more was taken than is certain; empty for any other. */
    public String undecided(Zone z) {
        return undecided.contains(z.id()) ? UNDECIDED : "";
    }

    /**
     * Zones that a plan meets, as the rules want them; the maker's map is left out, and so is a zone that binds only from
     * a mass which the build does not reach.
     *
     * @param takeoffMassG of the build in grams; empty when not known, and then every zone binds
     * @param approvalOfZone reference of the approval that lifts a zone, by the zone's id
     */
    public List<ZoneMet> met(
            SiteLook look, OptionalDouble takeoffMassG, Map<String, String> approvalOfZone, ZoneId place) {
        return look.pressing().stream()
                .filter(m -> m.zone().kind().isLaw())
                .filter(m -> m.zone().bindsAt(takeoffMassG))
                .map(m -> new ZoneMet(
                        m.zone().id(),
                        m.zone().name() + " (" + m.zone().heights() + ")",
                        m.zone().restriction(),
                        m.meeting() == Zone.Meeting.TOUCHES,
                        m.says(place) + undecided(m.zone()),
                        Optional.ofNullable(approvalOfZone.get(m.zone().id())),
                        m.meeting() == Zone.Meeting.NOT_KNOWN ? Optional.of(m.whyHeight()) : Optional.empty(),
                        !m.zone().times().equals(Timetable.ALWAYS)))
                .toList();
    }
}
