package yarrek.app.fleet;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.hibernate.envers.Audited;
import org.hibernate.envers.NotAudited;
import yarrek.core.mass.Part;
import yarrek.core.mass.Weighing;
import yarrek.core.units.Mass;

/** One airframe with a serial number. */
@Audited
@Entity
@Table(name = "aircraft")
class AircraftEntity {
    @Id
    UUID id;

    @Version
    long version;

    @ManyToOne(fetch = FetchType.EAGER) // fields are read directly, which a lazy proxy would answer with nothing
    @JoinColumn(name = "model_id")
    AircraftModel model;

    String name;
    String serial;

    LocalDate marketDate;
    LocalDate boughtOn;

    @Column(name = "weighed_g")
    BigDecimal weighedG;

    @Column(name = "weighed_resolution_g")
    BigDecimal weighedResolutionG;

    LocalDate weighedOn;
    String weighedScale;
    Boolean remoteIdActive;
    Boolean geoAwarenessCurrent;

    @jakarta.persistence.Column(name = "flown_s")
    @NotAudited
    long flownS;

    @NotAudited
    int landings;

    protected AircraftEntity() {} // for JPA only

    AircraftEntity(UUID id) {
        this.id = id;
    }

    Part part() {
        String partId = "aircraft:" + id;
        Optional<Weighing> weighed = weighedG == null
                ? Optional.empty()
                : Optional.of(new Weighing(
                        weighedOn,
                        weighedScale,
                        Mass.ofGrams(weighedG),
                        Mass.ofGrams(weighedResolutionG),
                        Set.of(partId)));
        return Parts.part(partId, name + " airframe", model.airframeMassG, model.toleranceG, weighed);
    }
}
