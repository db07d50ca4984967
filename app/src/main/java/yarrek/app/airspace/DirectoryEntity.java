package yarrek.app.airspace;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.LocalDate;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** Somebody to call, and where. */
@Audited
@Entity
@Table(name = "directory_entry")
class DirectoryEntity {
    @Id
    UUID id;

    @Version
    long version;

    String name;
    String role;
    String phone;
    String radio;
    String hours;

    @Column(columnDefinition = "mediumtext")
    String area;

    Double placeLat;
    Double placeLon;
    LocalDate confirmedOn;
    String confirmedBy;
    String note;

    protected DirectoryEntity() {} // for JPA only

    DirectoryEntity(UUID id) {
        this.id = id;
    }
}
