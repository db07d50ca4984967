package yarrek.app.documents;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

/** The address by which an official checks the documents of one person for one job. */
@Entity
@Table(name = "check_link")
class CheckLinkEntity {
    @Id
    String token;

    UUID jobId;
    UUID personId;
    Instant createdAt;
    Instant revokedAt;

    protected CheckLinkEntity() {} // for JPA only

    CheckLinkEntity(String token, UUID jobId, UUID personId, Instant createdAt) {
        this.token = token;
        this.jobId = jobId;
        this.personId = personId;
        this.createdAt = createdAt;
    }
}
