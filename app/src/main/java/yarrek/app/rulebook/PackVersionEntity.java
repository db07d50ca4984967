package yarrek.app.rulebook;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.LocalDate;
import java.util.UUID;

/** A version of a pack brought in as a file. Invariant: its content reads as a pack; not in use while not adopted. */
@Entity
@Table(name = "rule_pack")
class PackVersionEntity {
    @Id
    UUID id;

    String pack;
    String version;
    String fileName;

    @Column(columnDefinition = "mediumtext")
    String content;

    LocalDate adoptedFrom;
    String broughtInBy;
    Instant broughtInAt;

    protected PackVersionEntity() {} // for JPA only

    PackVersionEntity(UUID id) {
        this.id = id;
    }
}
