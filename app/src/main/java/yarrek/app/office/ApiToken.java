package yarrek.app.office;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;

/** A bearer token; only its SHA-256 is kept. */
@Entity(name = "api_token")
class ApiToken {
    @Id
    UUID id;

    UUID userId;
    String name;

    @jakarta.persistence.Column(columnDefinition = "char(64)")
    String tokenHash;

    boolean mayWrite;
    Instant createdAt;
    Instant endsAt;
    Instant revokedAt;

    protected ApiToken() {} // for JPA only

    ApiToken(UUID id, UUID userId, String name, boolean mayWrite, String tokenHash, Instant createdAt, Instant endsAt) {
        this.id = id;
        this.userId = userId;
        this.name = name;
        this.tokenHash = tokenHash;
        this.mayWrite = mayWrite;
        this.createdAt = createdAt;
        this.endsAt = endsAt;
    }
}
