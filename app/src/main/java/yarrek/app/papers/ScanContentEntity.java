package yarrek.app.papers;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;

/** The bytes of a scan. */
@Entity
@Table(name = "paper_scan_content")
class ScanContentEntity {
    @Id
    UUID scanId;

    @Column(columnDefinition = "longblob")
    byte[] content;

    protected ScanContentEntity() {} // for JPA only

    ScanContentEntity(UUID scanId, byte[] content) {
        this.scanId = scanId;
        this.content = content;
    }
}
