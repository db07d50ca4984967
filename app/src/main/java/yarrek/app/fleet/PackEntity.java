package yarrek.app.fleet;

import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.LocalDate;
import java.util.UUID;
import org.hibernate.envers.Audited;
import org.hibernate.envers.NotAudited;

/** One battery. */
@Audited
@Entity
@Table(name = "pack")
class PackEntity {
    @Id
    UUID id;

    @Version
    long version;

    @ManyToOne(fetch = FetchType.EAGER) // fields are read directly, which a lazy proxy would answer with nothing
    @JoinColumn(name = "model_id")
    PackModel model;

    String label;
    String serial;
    LocalDate boughtOn;

    @NotAudited
    double drawnMah;

    @NotAudited
    double equivalentCycles;

    @NotAudited
    int flights;

    @NotAudited
    int flightsWithoutCharge;

    protected PackEntity() {} // for JPA only

    PackEntity(UUID id) {
        this.id = id;
    }
}
