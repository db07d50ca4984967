package yarrek.app.jobs;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Objects;
import java.util.UUID;
import yarrek.core.judging.PlannedFlight;

/** A planned flight as it is stored with its job. */
@Embeddable
class FlightRow {
    LocalDate day;
    LocalTime startsAt;
    UUID buildId;
    UUID pilotId;
    UUID supervisedId;
    UUID observerId;

    @Column(name = "height_m")
    Double heightM;

    @Enumerated(EnumType.STRING)
    JobDraft.HeightReference heightReference;

    @Column(name = "distance_m")
    Double distanceM;

    String subcategory;
    Double minutes;

    @Enumerated(EnumType.STRING)
    PlannedFlight.Mode mode;

    String purpose;

    protected FlightRow() {} // for JPA only

    FlightRow(PlannedFlight f) {
        day = f.day();
        startsAt = f.startsAt();
        buildId = f.buildId();
        pilotId = f.pilotId();
        supervisedId = f.supervisedId();
        observerId = f.observerId();
        heightM = f.heightM();
        heightReference = f.aboveTakeoff() == null
                ? null
                : f.aboveTakeoff() ? JobDraft.HeightReference.TAKEOFF : JobDraft.HeightReference.GROUND;
        distanceM = f.distanceM();
        subcategory = f.subcategory();
        minutes = f.minutes();
        mode = f.mode();
        purpose = f.purpose();
    }

    PlannedFlight flight() {
        return new PlannedFlight(
                day,
                startsAt,
                buildId,
                pilotId,
                supervisedId,
                observerId,
                heightM,
                heightReference == null ? null : heightReference == JobDraft.HeightReference.TAKEOFF,
                distanceM,
                subcategory,
                minutes,
                mode,
                purpose);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof FlightRow row && flight().equals(row.flight());
    }

    @Override
    public int hashCode() {
        return Objects.hash(flight());
    }
}
