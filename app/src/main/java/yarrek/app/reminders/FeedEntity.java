package yarrek.app.reminders;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

/** A secret address of a calendar; only its hash is kept. */
@Entity
@Table(name = "feed")
class FeedEntity {
    @Id
    UUID id;

    UUID userId;

    @Column(columnDefinition = "char(64)")
    String secretHash;

    Instant createdAt;
    Instant revokedAt;

    protected FeedEntity() {} // for JPA only

    FeedEntity(UUID id, UUID userId, String secretHash, Instant createdAt) {
        this.id = id;
        this.userId = userId;
        this.secretHash = secretHash;
        this.createdAt = createdAt;
    }
}
