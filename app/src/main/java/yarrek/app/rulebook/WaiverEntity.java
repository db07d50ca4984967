package yarrek.app.rulebook;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.LocalDate;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** A manager's departure from a rule that is not law, for one job. Never deleted, only ended. */
@Audited
@Entity
@Table(name = "waiver")
class WaiverEntity {
    @Id
    UUID id;

    UUID jobId;
    String ruleId;
    String reason;
    String madeBy;
    Instant madeAt;
    LocalDate untilDay;
    Instant endedAt;
    String endedBy;

    protected WaiverEntity() {} // for JPA only

    WaiverEntity(UUID id) {
        this.id = id;
    }
}
