package yarrek.app.exchange;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

/** A table that was handed over and waits for its columns to be matched. */
@Entity
@Table(name = "register_upload")
class RegisterUpload {
    @Id
    UUID id;

    String register;
    String fileName;

    @Lob
    byte[] content;

    String uploadedBy;
    Instant uploadedAt;

    protected RegisterUpload() {} // for JPA only

    RegisterUpload(UUID id) {
        this.id = id;
    }
}
