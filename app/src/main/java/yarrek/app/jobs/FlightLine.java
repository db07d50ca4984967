package yarrek.app.jobs;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.judging.PlannedFlight;
import yarrek.core.units.Finite;

/** A planned flight in words, with what the job has for all where it says nothing itself. */
public record FlightLine(
        int number,
        LocalDate day,
        String at,
        String minutes,
        String build,
        String pilot,
        String supervised,
        String observer,
        String height,
        String distance,
        String flownAs,
        String mode,
        String purpose) {
    private static final String NOTHING = "–";

    static List<FlightLine> of(Jobs.JobView job, Map<UUID, String> names) {
        JobDraft d = job.draft();
        FlightsPlanned planned = d.planned();
        Map<UUID, String> builds = job.builds().stream()
                .collect(Collectors.toMap(b -> b.id(), b -> b.aircraft().name() + ", " + b.name()));
        return IntStream.range(0, d.flights().size())
                .mapToObj(i -> line(i + 1, planned.whole(d.flights().get(i)), d, names, builds))
                .toList();
    }

    private static FlightLine line(
            int number, PlannedFlight f, JobDraft d, Map<UUID, String> names, Map<UUID, String> builds) {
        return new FlightLine(
                number,
                f.day(),
                f.startsAt() == null ? NOTHING : f.startsAt().toString(),
                f.minutes() == null ? "not known" : Finite.format(f.minutes()) + " min",
                f.buildId() == null ? "no build yet" : builds.get(f.buildId()),
                f.pilotId() == null ? "no pilot yet" : names.get(f.pilotId()),
                f.supervisedId() == null ? NOTHING : names.get(f.supervisedId()),
                f.observerId() == null ? NOTHING : names.get(f.observerId()),
                f.heightM() == null
                        ? d.heightWords()
                        : Finite.format(f.heightM()) + " m "
                                + (f.aboveTakeoff()
                                                ? JobDraft.HeightReference.TAKEOFF
                                                : JobDraft.HeightReference.GROUND)
                                        .words(),
                f.distanceM() == null ? d.shows("pilotDistanceM") : Finite.format(f.distanceM()) + " m",
                f.subcategory() == null ? d.shows("subcategory") : f.subcategory(),
                f.mode() == null ? NOTHING : f.mode().words(),
                f.purpose().isEmpty() ? NOTHING : f.purpose());
    }
}
