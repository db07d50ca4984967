package yarrek.app.flights;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;

/** The trace of a flight, compressed. */
@Entity
@Table(name = "flight_trace")
class FlightTrace {
    @Id
    UUID flightId;

    @Column(columnDefinition = "char(64)")
    String sha256;

    @Column(columnDefinition = "longblob")
    byte[] content;

    protected FlightTrace() {} // for JPA only

    FlightTrace(UUID flightId, String sha256, byte[] content) {
        this.flightId = flightId;
        this.sha256 = sha256;
        this.content = content;
    }
}
