package yarrek.app.office;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** The organisation that answers for the flying; there is one. */
@Audited
@Entity
@Table(name = "operator")
class OperatorEntity {
    @Id
    UUID id;

    @Version
    long version;

    String name;
    String jurisdiction;
    String zone;
    String phone;

    protected OperatorEntity() {} // for JPA only

    OperatorEntity(UUID id, String name, String jurisdiction, String zone, String phone) {
        this.id = id;
        this.name = name;
        this.jurisdiction = jurisdiction;
        this.zone = zone;
        this.phone = phone;
    }
}
