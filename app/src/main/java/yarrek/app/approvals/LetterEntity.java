package yarrek.app.approvals;

import jakarta.persistence.Basic;
import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

/** Something written, said or decided about a request. Never changed. */
@Entity
@Table(name = "approval_letter")
class LetterEntity {
    @Id
    UUID id;

    UUID approvalId;
    Instant at;

    @Enumerated(EnumType.STRING)
    Approvals.LetterKind kind;

    String byWhom;

    @Column(columnDefinition = "mediumtext")
    String text;

    String fileName;
    String contentType;

    @Basic(fetch = FetchType.LAZY)
    @Column(columnDefinition = "longblob")
    byte[] content;

    protected LetterEntity() {} // for JPA only

    LetterEntity(UUID id) {
        this.id = id;
    }
}
