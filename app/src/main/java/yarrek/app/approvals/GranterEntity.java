package yarrek.app.approvals;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** An office that grants. */
@Audited
@Entity
@Table(name = "granter")
class GranterEntity {
    @Id
    UUID id;

    @Version
    long version;

    String name;
    String email;
    String phone;
    String hours;

    @Column(columnDefinition = "mediumtext")
    String closed;

    String note;

    protected GranterEntity() {} // for JPA only

    GranterEntity(UUID id) {
        this.id = id;
    }
}
