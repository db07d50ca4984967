package yarrek.app.fleet;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import java.util.Optional;
import java.util.UUID;
import org.hibernate.envers.Audited;
import yarrek.core.mass.Part;

/** A maker's pack. */
@Audited
@Entity
@Table(name = "pack_model")
class PackModel {
    @Id
    UUID id;

    @Version
    long version;

    String name;

    @Column(name = "mass_g")
    BigDecimal massG;

    @Column(name = "tolerance_g")
    BigDecimal toleranceG;

    double capacityMah;
    int cells;

    @Column(name = "nominal_v")
    double nominalV;

    protected PackModel() {} // for JPA only

    PackModel(UUID id) {
        this.id = id;
    }

    Part part() {
        return Parts.part("pack:" + id, name, massG, toleranceG, Optional.empty());
    }
}
