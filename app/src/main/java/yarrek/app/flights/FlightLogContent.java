package yarrek.app.flights;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;

/** The original file. */
@Entity
@Table(name = "flight_log_content")
class FlightLogContent {
    @Id
    UUID logId;

    @Column(columnDefinition = "longblob")
    byte[] content;

    protected FlightLogContent() {} // for JPA only

    FlightLogContent(UUID logId, byte[] content) {
        this.logId = logId;
        this.content = content;
    }
}
