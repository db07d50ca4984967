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

/** Something that can be put on: filter, light, guards, card. */
@Audited
@Entity
@Table(name = "accessory")
class Accessory {
    @Id
    UUID id;

    @Version
    long version;

    String name;
    String kind;

    @Column(name = "mass_g")
    BigDecimal massG;

    @Column(name = "tolerance_g")
    BigDecimal toleranceG;

    String light;

    protected Accessory() {} // for JPA only

    Accessory(UUID id) {
        this.id = id;
    }

    Part part() {
        return Parts.part("accessory:" + id, name, massG, toleranceG, Optional.empty());
    }
}
