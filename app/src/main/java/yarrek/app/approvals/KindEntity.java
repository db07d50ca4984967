package yarrek.app.approvals;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import org.hibernate.envers.Audited;

/** A kind of approval that the operator changed or added; its text reads as a kind. */
@Audited
@Entity
@Table(name = "approval_kind")
class KindEntity {
    @Id
    String code;

    @Version
    long version;

    @Column(columnDefinition = "mediumtext")
    String yaml;

    boolean active;
    String changedBy;
    Instant changedAt;

    protected KindEntity() {} // for JPA only

    KindEntity(String code) {
        this.code = code;
    }
}
