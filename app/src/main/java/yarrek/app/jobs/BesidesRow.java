package yarrek.app.jobs;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.stream.Stream;
import yarrek.core.judging.Arranged;
import yarrek.core.judging.FlightsPlanned;

/**
 * Something that a job has besides its flights, as stored with it: hours of a day, somebody without a flight, or why a build
 * goes. One table for the three, since it is read with every job.
 */
@Embeddable
class BesidesRow {
    LocalDate day;
    LocalTime fromTime;
    LocalTime toTime;
    UUID personId;

    @Enumerated(EnumType.STRING)
    FlightsPlanned.Role role;

    UUID buildId;
    String why;

    protected BesidesRow() {} // for JPA only

    private static BesidesRow of(Map.Entry<LocalDate, Arranged.Hours> hours) {
        BesidesRow row = new BesidesRow();
        row.day = hours.getKey();
        row.fromTime = hours.getValue().from();
        row.toTime = hours.getValue().to();
        return row;
    }

    private static BesidesRow of(Arranged.Helper helper) {
        BesidesRow row = new BesidesRow();
        row.personId = helper.personId();
        row.role = helper.role();
        row.day = helper.day();
        return row;
    }

    private static BesidesRow reason(Map.Entry<UUID, String> reason) {
        BesidesRow row = new BesidesRow();
        row.buildId = reason.getKey();
        row.why = reason.getValue();
        return row;
    }

    static List<BesidesRow> of(Arranged a) {
        return Stream.of(
                        a.hours().entrySet().stream()
                                .sorted(Map.Entry.comparingByKey())
                                .map(BesidesRow::of),
                        a.crew().stream().map(BesidesRow::of),
                        a.reasons().entrySet().stream()
                                .sorted(Map.Entry.comparingByKey())
                                .map(BesidesRow::reason))
                .flatMap(s -> s)
                .toList();
    }

    static Arranged arranged(List<BesidesRow> rows) {
        if (rows.isEmpty()) {
            return Arranged.NOTHING;
        }
        Map<LocalDate, Arranged.Hours> hours = new HashMap<>();
        Map<UUID, String> reasons = new HashMap<>();
        for (BesidesRow r : rows) {
            if (r.fromTime != null) {
                hours.put(r.day, new Arranged.Hours(r.fromTime, r.toTime));
            } else if (r.buildId != null) {
                reasons.put(r.buildId, r.why);
            }
        }
        return new Arranged(
                hours,
                rows.stream()
                        .filter(r -> r.personId != null)
                        .map(r -> new Arranged.Helper(r.personId, r.role, r.day))
                        .toList(),
                reasons);
    }

    private List<Object> all() {
        return Arrays.asList(day, fromTime, toTime, personId, role, buildId, why);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof BesidesRow row && all().equals(row.all());
    }

    @Override
    public int hashCode() {
        return Objects.hash(all());
    }
}
