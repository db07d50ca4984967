package yarrek.app.jobs;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import yarrek.app.airspace.Sites;
import yarrek.app.judging.Wanted;
import yarrek.core.judging.Arranged;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.judging.Plan;
import yarrek.core.judging.PlannedFlight;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.Days;
import yarrek.core.time.TimeWindow;
import yarrek.core.units.Finite;

/**
 * A job as entered: where, when, by whom and with what, and everything else by the words of the vocabulary. A null is not
 * known; so is what is not said. Heights in m with their reference, times local to the site.
 *
 * @param flights planned one by one, which may say otherwise than the job; none where the job is one flight as it says itself
 * @param besides hours of days that differ, who is there without a flight, why the builds go
 */
public record JobDraft(
        String name,
        UUID siteId,
        LocalDate firstDay,
        LocalDate lastDay,
        LocalTime from,
        LocalTime to,
        Double heightM,
        HeightReference heightReference,
        UUID pilotId,
        UUID observerId,
        UUID buildId,
        Map<String, FactValue> said,
        List<PlannedFlight> flights,
        Arranged besides) {
    public JobDraft {
        said = Map.copyOf(said);
        flights = List.copyOf(flights);
    }

    /** One of which no flight is planned by itself. */
    public JobDraft(
            String name,
            UUID siteId,
            LocalDate firstDay,
            LocalDate lastDay,
            LocalTime from,
            LocalTime to,
            Double heightM,
            HeightReference heightReference,
            UUID pilotId,
            UUID observerId,
            UUID buildId,
            Map<String, FactValue> said) {
        this(
                name,
                siteId,
                firstDay,
                lastDay,
                from,
                to,
                heightM,
                heightReference,
                pilotId,
                observerId,
                buildId,
                said,
                List.of(),
                Arranged.NOTHING);
    }

    /** A plan of which only the place, the day and hours, the purpose, the build and the pilot are known; any may be null. */
    public static JobDraft sketch(
            UUID siteId,
            LocalDate day,
            LocalTime from,
            LocalTime to,
            String purpose,
            Double heightM,
            UUID pilotId,
            UUID buildId) {
        return new JobDraft(
                "",
                siteId,
                day,
                day,
                from,
                to,
                heightM,
                HeightReference.GROUND,
                pilotId,
                null,
                buildId,
                purpose == null ? Map.of() : Map.of(PURPOSE, new FactValue.Word(purpose)));
    }

    private static final String PURPOSE = "purpose";
    private static final String SUBCATEGORY = "subcategory";
    private static final String DISTANCE = "pilotDistanceM";
    private static final String MINUTES = "flight.minutes";

    /** Work or recreation; null when nobody has said. */
    public String purpose() {
        return text(PURPOSE);
    }

    /** Its days that have hours of their own, in words. */
    public List<String> ownHours() {
        return besides.hours().entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .map(e -> Days.show(e.getKey()) + " from " + e.getValue().from() + " to "
                        + e.getValue().to())
                .toList();
    }

    /** Whether an emergency response is said to go on at the site, which stops every job there. */
    boolean declaresEmergency() {
        return "yes".equals(text("emergency.ongoing"));
    }

    /** What is said of a fact, as it is stored; null when nothing is. */
    public String text(String fact) {
        FactValue v = said.get(fact);
        return v == null ? null : v.text();
    }

    /** The same as people read it, with its unit; "not known" when nothing is. */
    public String shows(String fact) {
        FactValue v = said.get(fact);
        return v == null ? "not known" : v.show(Vocabulary.define(fact));
    }

    /** The greatest height that is said of the job or of one of its flights, whatever it counts from; null when none is. */
    public Double greatestHeightM() {
        return Stream.concat(
                        Stream.of(Optional.ofNullable(heightM)),
                        flights.stream().map(f -> Optional.ofNullable(f.heightM())))
                .flatMap(Optional::stream)
                .max(Double::compare)
                .orElse(null);
    }

    /** The flights planned, with what the job has for all of them. */
    public FlightsPlanned planned() {
        return new FlightsPlanned(
                flights, new FlightsPlanned.Job(firstDay, lastDay, from, to, buildId, pilotId, observerId, besides));
    }

    /** As judging sees it, by the clock of its place. */
    public Plan plan(ZoneId zone) {
        return plan(zone, planned());
    }

    private Plan plan(ZoneId zone, FlightsPlanned all) {
        return new Plan(
                JobEntity.windows(this, zone),
                firstDay,
                lastDay,
                heightM == null ? OptionalDouble.empty() : OptionalDouble.of(heightM),
                heightReference == HeightReference.TAKEOFF,
                observerId != null || besides.isWatched(firstDay, lastDay),
                said,
                Optional.of(all));
    }

    /** Greatest height above ground of any of its flights, as far as the plan tells of all of them. */
    public OptionalDouble greatestHeight(Sites.SiteView site) {
        List<OptionalDouble> each = parts(null).stream()
                .map(w -> w.plan().apply(site.zone()).greatestHeight(site.place()))
                .toList();
        return each.stream().allMatch(OptionalDouble::isPresent)
                ? each.stream().mapToDouble(OptionalDouble::getAsDouble).max()
                : OptionalDouble.empty();
    }

    /** What the job says for all its flights, to be judged; its identity is null while it is not stored. */
    public Wanted wanted(UUID jobId) {
        return wanted(
                jobId,
                planned(),
                List.of(),
                Stream.concat(Stream.ofNullable(observerId), helpers(firstDay, lastDay))
                        .collect(Collectors.toSet()));
    }

    private Wanted wanted(UUID jobId, FlightsPlanned all, List<Integer> numbers, Set<UUID> crew) {
        return new Wanted(jobId, siteId, pilotId, buildId, null, lastDay, zone -> plan(zone, all), numbers, crew);
    }

    /**
     * What is judged one by one: flights alike together, whoever flies supervised apart; the whole job where none is planned.
     */
    public List<Wanted> parts(UUID jobId) {
        if (flights.isEmpty()) {
            return List.of(wanted(jobId));
        }
        FlightsPlanned all = planned();
        return all.parts().stream()
                .map(p -> as(p).wanted(jobId, all, p.flights(), others(p)))
                .toList();
    }

    /** Who else is needed for a part besides whoever is judged as its pilot. */
    private Set<UUID> others(FlightsPlanned.Part p) {
        return Stream.concat(
                        Stream.of(p.as().pilotId(), p.as().supervisedId(), p.as().observerId()),
                        helpers(p.first(), p.last()))
                .filter(u -> u != null && !u.equals(p.atControls()))
                .collect(Collectors.toSet());
    }

    /** Who is there without a flight on one of these days. */
    private Stream<UUID> helpers(LocalDate first, LocalDate last) {
        return besides.within(first, last).crew().stream().map(Arranged.Helper::personId);
    }

    /** The job as if a part were all of it. */
    private JobDraft as(FlightsPlanned.Part p) {
        PlannedFlight f = p.as();
        Map<String, FactValue> its = new TreeMap<>(said);
        if (f.distanceM() != null) {
            its.put(DISTANCE, FactValue.of(Vocabulary.define(DISTANCE), Finite.format(f.distanceM())));
        }
        if (f.subcategory() != null) {
            its.put(SUBCATEGORY, new FactValue.Word(f.subcategory()));
        }
        if (!Objects.equals(p.atControls(), pilotId)) {
            its.keySet().removeIf(fact -> fact.startsWith("pilot.")); // said by another
        }
        if (p.supervised()) {
            its.put("pilot.supervised", new FactValue.YesNo(true));
        }
        p.flights().stream()
                .map(n -> flights.get(n - 1).minutes())
                .filter(Objects::nonNull)
                .max(Double::compare)
                .ifPresent(most -> its.put(MINUTES, new FactValue.Quantity(most, 0)));
        return new JobDraft(
                name,
                siteId,
                p.first(),
                p.last(),
                from,
                to,
                or(f.heightM(), heightM),
                f.aboveTakeoff() == null
                        ? heightReference
                        : f.aboveTakeoff() ? HeightReference.TAKEOFF : HeightReference.GROUND,
                p.atControls(),
                f.observerId(),
                f.buildId(),
                its,
                List.of(),
                besides.within(p.first(), p.last()));
    }

    /** When it has whom and what: hours by person or build, by the clock of its place. */
    public Map<UUID, List<TimeWindow>> uses(ZoneId zone) {
        Map<UUID, Set<LocalDate>> days = new HashMap<>();
        if (flights.isEmpty()) {
            Set<LocalDate> all = firstDay.datesUntil(lastDay.plusDays(1)).collect(Collectors.toSet());
            Stream.of(pilotId, observerId, buildId)
                    .filter(Objects::nonNull)
                    .forEach(u -> days.put(u, new TreeSet<>(all)));
        } else {
            FlightsPlanned planned = planned();
            flights.stream()
                    .map(planned::whole)
                    .forEach(f -> Stream.of(f.pilotId(), f.supervisedId(), f.observerId(), f.buildId())
                            .filter(Objects::nonNull)
                            .forEach(u -> days.computeIfAbsent(u, k -> new TreeSet<>())
                                    .add(f.day())));
        }
        besides.crew()
                .forEach(c -> days.computeIfAbsent(c.personId(), k -> new TreeSet<>())
                        .addAll(firstDay.datesUntil(lastDay.plusDays(1))
                                .filter(c::isThere)
                                .toList()));
        Map<UUID, List<TimeWindow>> uses = new HashMap<>();
        days.forEach((u, its) -> uses.put(
                u,
                its.stream()
                        .sorted()
                        .flatMap(d -> JobEntity.windows(this, d, d, zone).stream())
                        .toList()));
        return uses;
    }

    /** The same under a name, on some days, with what is said and with these flights. */
    private JobDraft on(
            LocalDate first,
            LocalDate last,
            String called,
            Map<String, FactValue> saying,
            List<PlannedFlight> flying,
            Arranged arranged) {
        return new JobDraft(
                called,
                siteId,
                first,
                last,
                from,
                to,
                heightM,
                heightReference,
                pilotId,
                observerId,
                buildId,
                saying,
                flying,
                arranged);
    }

    /** Of its days one, with the flights of that day. */
    public JobDraft only(LocalDate day) {
        return on(
                day,
                day,
                name,
                said,
                flights.stream().filter(f -> f.day().equals(day)).toList(),
                besides.within(day, day));
    }

    /** The same with other flights. */
    public JobDraft flying(List<PlannedFlight> others) {
        return on(firstDay, lastDay, name, said, others, besides);
    }

    /** The same with other hours of its days, people besides and reasons. */
    public JobDraft arranged(Arranged other) {
        return on(firstDay, lastDay, name, said, flights, other);
    }

    /** Its flights on days that begin on another. */
    List<PlannedFlight> from(LocalDate first) {
        long later = ChronoUnit.DAYS.between(firstDay, first);
        return flights.stream().map(f -> f.later(later)).toList();
    }

    /** What it has besides, on days that begin on another; what is for days after the last is dropped. */
    Arranged besides(LocalDate first, LocalDate last) {
        return besides.later(ChronoUnit.DAYS.between(firstDay, first)).within(first, last);
    }

    /** What is put anew in a plan; what is null stays as it is. */
    public record Anew(
            String name,
            LocalDate firstDay,
            LocalDate lastDay,
            LocalTime from,
            LocalTime to,
            Double heightM,
            UUID pilotId,
            UUID buildId) {}

    public JobDraft with(Anew a) {
        return new JobDraft(
                or(a.name, name),
                siteId,
                or(a.firstDay, firstDay),
                or(a.lastDay, lastDay),
                or(a.from, from),
                or(a.to, to),
                or(a.heightM, heightM),
                heightReference,
                or(a.pilotId, pilotId),
                observerId,
                or(a.buildId, buildId),
                said,
                from(or(a.firstDay, firstDay)),
                besides(or(a.firstDay, firstDay), or(a.lastDay, lastDay)));
    }

    private static <T> T or(T anew, T old) {
        return anew == null ? old : anew;
    }

    /** The same on other days. */
    public JobDraft on(LocalDate first, LocalDate last) {
        return with(new Anew(null, first, last, null, null, null, null, null));
    }

    /** The same again from another day on; what was said for the days of this one alone is left out. */
    public JobDraft repeated(String newName, LocalDate first) {
        Map<String, FactValue> lasting = new TreeMap<>(said);
        lasting.keySet().removeIf(f -> Vocabulary.define(f).holdsHours().isPresent());
        LocalDate last = first.plusDays(ChronoUnit.DAYS.between(firstDay, lastDay));
        return on(first, last, newName, lasting, from(first), besides(first, last));
    }

    /** The same with another build. */
    public JobDraft with(UUID build) {
        return with(new Anew(null, null, null, null, null, null, null, build));
    }

    /** The same with something else said of a fact; null takes it back. */
    public JobDraft saying(String fact, FactValue value) {
        Map<String, FactValue> all = new TreeMap<>(said);
        if (value == null) {
            all.remove(fact);
        } else {
            all.put(fact, value);
        }
        return on(firstDay, lastDay, name, all, flights, besides);
    }

    /** What a height counts from. */
    public enum HeightReference {
        GROUND("above ground"),
        TAKEOFF("above take-off");

        private final String words;

        HeightReference(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** "80 m above ground"; that it is not known when nobody said. */
    public String heightWords() {
        return heightM == null
                ? "not known"
                : String.format(java.util.Locale.ROOT, "%.0f m %s", heightM, heightReference.words());
    }
}
