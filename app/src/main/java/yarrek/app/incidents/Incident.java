package yarrek.app.incidents;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.envers.Audited;
import org.hibernate.envers.NotAudited;

/** An incident. Invariant: it did not happen after it was opened. */
@Audited
@Entity
@Table(name = "incident")
class Incident {
    @Id
    UUID id;

    @Version
    long version;

    String kind;
    String statement;
    Instant happenedAt;
    Double lat;
    Double lon;
    UUID flightId;
    String jurisdiction;
    UUID jobId;
    UUID aircraftId;
    UUID pilotId;
    String ruleId;
    String breach;
    String harm;
    String state;
    String openedBy;

    /** Login of whoever opened it; empty for one from before that was kept. */
    @NotAudited
    UUID openedById;

    Instant openedAt;

    protected Incident() {} // for JPA only

    Incident(UUID id) {
        this.id = id;
    }
}
