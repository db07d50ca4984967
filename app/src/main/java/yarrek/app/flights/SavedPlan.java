package yarrek.app.flights;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

/** A saved reading plan, found again by the headers of a file. */
@Entity
@Table(name = "reading_plan")
class SavedPlan {
    @Id
    UUID id;

    @Column(columnDefinition = "char(64)")
    String signature;

    String name;

    @Column(columnDefinition = "text")
    String plan;

    Instant savedAt;

    protected SavedPlan() {} // for JPA only

    SavedPlan(UUID id, String signature) {
        this.id = id;
        this.signature = signature;
    }
}
