package yarrek.app.fleet;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Set;
import java.util.UUID;
import org.hibernate.envers.Audited;
import yarrek.core.mass.Weighing;
import yarrek.core.units.Mass;

/** A weighing of a whole build; it holds for exactly the parts that lay on the scale. */
@Audited
@Entity
@Table(name = "weighing")
class WeighingEntity {
    @Id
    UUID id;

    UUID buildId;
    LocalDate weighedOn;
    String scale;

    @Column(name = "mass_g")
    BigDecimal massG;

    @Column(name = "resolution_g")
    BigDecimal resolutionG;

    String partIds;

    protected WeighingEntity() {} // for JPA only

    WeighingEntity(UUID id) {
        this.id = id;
    }

    Weighing weighing() {
        return new Weighing(
                weighedOn, scale, Mass.ofGrams(massG), Mass.ofGrams(resolutionG), Set.of(partIds.split(" ")));
    }
}
