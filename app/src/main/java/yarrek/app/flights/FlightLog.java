package yarrek.app.flights;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

/** A log that was brought in. Its content is kept apart, unchanged. */
@Entity
@Table(name = "flight_log")
class FlightLog {
    @Id
    UUID id;

    String fileName;

    @Column(columnDefinition = "char(64)")
    String sha256;

    long sizeBytes;
    String format;

    @Column(columnDefinition = "mediumtext")
    String notes;

    boolean truncated;
    String broughtInBy;
    Instant broughtInAt;

    protected FlightLog() {} // for JPA only

    FlightLog(UUID id) {
        this.id = id;
    }
}
