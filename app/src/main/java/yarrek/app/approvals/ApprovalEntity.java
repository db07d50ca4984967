package yarrek.app.approvals;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.LocalDate;
import java.util.UUID;
import org.hibernate.envers.Audited;
import yarrek.core.approval.ApprovalState;

/** One request for an approval. Invariant: its state changes only as {@link ApprovalState#may} allows. */
@Audited
@Entity
@Table(name = "approval")
class ApprovalEntity {
    @Id
    UUID id;

    @Version
    long version;

    UUID jobId;
    String kind;
    String zoneId;
    String zoneName;
    int numberInJob;
    UUID aircraftId;
    String title;
    String granter;
    LocalDate firstDay;
    LocalDate lastDay;

    @Enumerated(EnumType.STRING)
    ApprovalState state;

    double hoursSpent;

    @Column(columnDefinition = "mediumtext")
    String request;

    Instant sentAt;
    Instant decidedAt;
    LocalDate nudgedOn;
    String reference;

    @Column(columnDefinition = "mediumtext")
    String terms;

    String conditions;
    String refusal;
    UUID paperId;

    protected ApprovalEntity() {} // for JPA only

    ApprovalEntity(UUID id) {
        this.id = id;
        this.state = ApprovalState.PREPARING;
        this.reference = "";
        this.terms = "";
        this.conditions = "";
        this.refusal = "";
    }

    void move(ApprovalState next) {
        if (!state.may(next)) {
            throw new IllegalArgumentException(
                    "it is " + state.words() + ", and cannot become " + next.words() + " from there");
        }
        state = next;
    }
}
