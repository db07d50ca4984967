package yarrek.app.papers;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** A scan or photo of a paper; its bytes lie apart, so that lists never load them. */
@Audited
@Entity
@Table(name = "paper_scan")
class ScanEntity {
    @Id
    UUID id;

    UUID paperId;
    String fileName;
    String contentType;
    long sizeBytes;

    @jakarta.persistence.Column(columnDefinition = "char(64)")
    String sha256;

    String addedBy;
    Instant addedAt;

    protected ScanEntity() {} // for JPA only

    ScanEntity(UUID id) {
        this.id = id;
    }
}
