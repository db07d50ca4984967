package yarrek.app.flights;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** A flight: summary figures in SI units, its assessment, and what it is counted to. */
@Entity
@Table(name = "flight")
class FlightEntity {
    @Id
    UUID id;

    @Version
    long version;

    UUID logId;
    int numberInLog;

    @Audited
    UUID aircraftId;

    @Audited
    UUID packId;

    @Audited
    UUID pilotId;

    @Audited
    UUID jobId;

    Instant takeoff;
    Instant landing;
    String zone;

    @Column(name = "duration_s")
    double durationS;

    @Column(name = "path_m")
    double pathM;

    @Column(name = "distance_m")
    Double distanceM;

    @Column(name = "height_m")
    Double heightM;

    boolean heightFromAltitude;
    Double speedMps;
    Double chargeMah;
    Double energyWh;
    Double chargeTakeoffPct;
    Double chargeLandingPct;

    @Column(name = "least_cell_v")
    Double leastCellV;

    Double windMps;
    Double takeoffLat;
    Double takeoffLon;
    boolean beginsInAir;
    boolean endsInAir;
    boolean counted;
    boolean lookedAt;
    int breached;
    int notKnown;
    int closeCount;
    String worst;

    Instant assessedAt;

    protected FlightEntity() {} // for JPA only

    FlightEntity(UUID id) {
        this.id = id;
    }
}
