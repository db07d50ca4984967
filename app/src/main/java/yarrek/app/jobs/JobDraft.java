package yarrek.app.jobs;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.UUID;
import java.util.function.Function;
import yarrek.app.airspace.Sites;
import yarrek.app.judging.Wanted;
import yarrek.core.judging.Plan;
import yarrek.core.rulebook.FactValue;

/**
 * A job as entered. A null is not known. Heights in m with their reference, distances in m, speeds in m/s, times local to
 * the site.
 */
public record JobDraft(
        String name,
        UUID siteId,
        String purpose,
        String category,
        String subcategory,
        LocalDate firstDay,
        LocalDate lastDay,
        LocalTime from,
        LocalTime to,
        Double heightM,
        HeightReference heightReference,
        Double pilotDistanceM,
        Double peopleDistanceM,
        String overPeople,
        Boolean assembly,
        String sight,
        Boolean lowSpeed,
        Double speedMps,
        Structure structure,
        Boolean emergency,
        Boolean dangerous,
        Boolean autoModes,
        Double windMps,
        Double temperatureC,
        Boolean pilotFit,
        Double hoursSinceAlcohol,
        UUID pilotId,
        UUID observerId,
        UUID buildId) {

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
                purpose,
                null,
                null,
                day,
                day,
                from,
                to,
                heightM,
                HeightReference.GROUND,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                new Structure(null, null, null, null),
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                pilotId,
                null,
                buildId);
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
                said());
    }

    /** Greatest height above ground as far as the plan tells. */
    public OptionalDouble greatestHeight(Sites.SiteView site) {
        return plan(site.zone()).greatestHeight(site.place());
    }

    /** What is wanted to judge it; the job's identity is null while it is not stored. */
    public Wanted wanted(UUID jobId) {
        return new Wanted(jobId, siteId, pilotId, buildId, null, lastDay, this::plan);
    }

    /** What it says, by the words of the vocabulary; what is not known stays out. */
    private Map<String, FactValue> said() {
        Map<String, FactValue> said = new LinkedHashMap<>();
        put(said, "category", category, FactValue.Word::new);
        put(said, "subcategory", subcategory, FactValue.Word::new);
        put(said, "purpose", purpose, FactValue.Word::new);
        put(said, "pilotDistanceM", pilotDistanceM, v -> new FactValue.Quantity(v, 0));
        put(said, "peopleDistanceM", peopleDistanceM, v -> new FactValue.Quantity(v, 0));
        put(said, "overPeople", overPeople, FactValue.Word::new);
        put(said, "assembly", assembly, FactValue.YesNo::new);
        put(said, "sight", sight, FactValue.Word::new);
        put(said, "lowSpeedMode", lowSpeed, FactValue.YesNo::new);
        put(said, "groundSpeedMps", speedMps, v -> new FactValue.Quantity(v, 0));
        put(said, "structure.heightM", structure.heightM(), v -> new FactValue.Quantity(v, 0));
        put(said, "structure.distanceM", structure.distanceM(), v -> new FactValue.Quantity(v, 0));
        put(said, "structure.artificial", structure.artificial(), FactValue.YesNo::new);
        put(said, "structure.requestedByOwner", structure.requested(), FactValue.YesNo::new);
        put(said, "emergency.ongoing", emergency, FactValue.YesNo::new);
        put(said, "dangerousGoodsOrDropping", dangerous, FactValue.YesNo::new);
        put(said, "autoModesAmongObstacles", autoModes, FactValue.YesNo::new);
        put(said, "weather.windMps", windMps, v -> new FactValue.Quantity(v, 0));
        put(said, "weather.temperatureC", temperatureC, v -> new FactValue.Quantity(v, 0));
        put(said, "pilot.fit", pilotFit, FactValue.YesNo::new);
        put(said, "pilot.hoursSinceAlcohol", hoursSinceAlcohol, v -> new FactValue.Quantity(v, 0));
        return said;
    }

    private static <T> void put(Map<String, FactValue> said, String fact, T value, Function<T, FactValue> as) {
        if (value != null) {
            said.put(fact, as.apply(value));
        }
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
                purpose,
                category,
                subcategory,
                or(a.firstDay, firstDay),
                or(a.lastDay, lastDay),
                or(a.from, from),
                or(a.to, to),
                or(a.heightM, heightM),
                heightReference,
                pilotDistanceM,
                peopleDistanceM,
                overPeople,
                assembly,
                sight,
                lowSpeed,
                speedMps,
                structure,
                emergency,
                dangerous,
                autoModes,
                windMps,
                temperatureC,
                pilotFit,
                hoursSinceAlcohol,
                or(a.pilotId, pilotId),
                observerId,
                or(a.buildId, buildId));
    }

    private static <T> T or(T anew, T old) {
        return anew == null ? old : anew;
    }

    /** The same on other days. */
    public JobDraft on(LocalDate first, LocalDate last) {
        return with(new Anew(null, first, last, null, null, null, null, null));
    }

    /** The same with another build. */
    public JobDraft with(UUID build) {
        return with(new Anew(null, null, null, null, null, null, null, build));
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

    /** A structure flown at; all null when there is none or nothing is known. */
    public record Structure(Double heightM, Double distanceM, Boolean artificial, Boolean requested) {}
}
