package yarrek.app.flights;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

/** A file waiting for its columns to be matched. */
@Entity
@Table(name = "upload")
class Upload {
    @Id
    UUID id;

    String fileName;

    @Column(columnDefinition = "char(64)")
    String sha256;

    @Column(columnDefinition = "longblob")
    byte[] content;

    String uploadedBy;
    UUID uploadedById;
    Instant uploadedAt;

    protected Upload() {} // for JPA only

    Upload(
            UUID id,
            String fileName,
            String sha256,
            byte[] content,
            String uploadedBy,
            UUID uploadedById,
            Instant uploadedAt) {
        this.id = id;
        this.fileName = fileName;
        this.sha256 = sha256;
        this.content = content;
        this.uploadedBy = uploadedBy;
        this.uploadedById = uploadedById;
        this.uploadedAt = uploadedAt;
    }
}
