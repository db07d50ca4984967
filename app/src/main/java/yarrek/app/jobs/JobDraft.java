package yarrek.app.jobs;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.UUID;
import yarrek.app.airspace.Sites;
import yarrek.app.judging.Wanted;
import yarrek.core.judging.Plan;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Vocabulary;

/**
 * A job as entered: where, when, by whom and with what, and everything else by the words of the vocabulary. A null is not
 * known; so is what is not said. Heights in m with their reference, times local to the site.
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
        Map<String, FactValue> said) {
    public JobDraft {
        said = Map.copyOf(said);
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

    /** Work or recreation; null when nobody has said. */
    public String purpose() {
        return text(PURPOSE);
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

    /** As judging sees it, by the clock of its place. */
    public Plan plan(ZoneId zone) {
        return new Plan(
                JobEntity.windows(this, zone),
                firstDay,
                lastDay,
                heightM == null ? OptionalDouble.empty() : OptionalDouble.of(heightM),
                heightReference == HeightReference.TAKEOFF,
                observerId != null,
                said);
    }

    /** Greatest height above ground as far as the plan tells. */
    public OptionalDouble greatestHeight(Sites.SiteView site) {
        return plan(site.zone()).greatestHeight(site.place());
    }

    /** What is wanted to judge it; the job's identity is null while it is not stored. */
    public Wanted wanted(UUID jobId) {
        return new Wanted(jobId, siteId, pilotId, buildId, null, lastDay, this::plan);
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
                said);
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
        return new JobDraft(
                newName,
                siteId,
                first,
                first.plusDays(ChronoUnit.DAYS.between(firstDay, lastDay)),
                from,
                to,
                heightM,
                heightReference,
                pilotId,
                observerId,
                buildId,
                lasting);
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
        return new JobDraft(
                name, siteId, firstDay, lastDay, from, to, heightM, heightReference, pilotId, observerId, buildId, all);
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
