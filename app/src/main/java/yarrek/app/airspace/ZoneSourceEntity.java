package yarrek.app.airspace;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.LocalDate;
import java.util.UUID;

/** Where zones come from. Its zones are replaced as a whole. */
@Entity
@Table(name = "zone_source")
class ZoneSourceEntity {
    @Id
    UUID id;

    @Version
    long version;

    String name;
    String format;
    String fileName;

    @Column(columnDefinition = "char(64)")
    String sha256;

    String attribution;
    LocalDate publishedOn;
    int staleDays;
    boolean whole;
    Instant broughtInAt;
    String broughtInBy;
    int zones;
    int added;
    int changed;
    int removed;

    @Column(columnDefinition = "mediumtext")
    String notes;

    @Column(columnDefinition = "mediumtext")
    String whatChanged;

    protected ZoneSourceEntity() {} // for JPA only

    ZoneSourceEntity(UUID id, String name) {
        this.id = id;
        this.name = name;
        this.notes = "";
        this.whatChanged = "";
    }
}
