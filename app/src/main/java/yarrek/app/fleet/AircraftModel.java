package yarrek.app.fleet;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.JoinTable;
import jakarta.persistence.ManyToMany;
import jakarta.persistence.OrderBy;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import java.util.LinkedHashSet;
import java.util.Set;
import java.util.UUID;
import org.hibernate.envers.Audited;
import yarrek.core.energy.Endurance;

/** A maker's model. Its figures are the maker's limits. */
@Audited
@Entity
@Table(name = "aircraft_model")
class AircraftModel {
    @Id
    UUID id;

    @Version
    long version;

    String maker;
    String name;

    @Column(name = "airframe_mass_g")
    BigDecimal airframeMassG;

    @Column(name = "tolerance_g")
    BigDecimal toleranceG;

    @Column(name = "max_takeoff_mass_g")
    BigDecimal maxTakeoffMassG;

    String classMark;
    boolean privatelyBuilt;
    boolean hasCamera;
    boolean isToy;
    Double maxLevelSpeedMps;

    @Column(name = "dimension_m")
    Double dimensionM;

    Double windLimitMps;

    @Column(name = "temperature_min_c")
    Double temperatureMinC;

    @Column(name = "temperature_max_c")
    Double temperatureMaxC;

    @Column(name = "max_height_m")
    Double maxHeightM;

    String remoteId;
    String lights;

    /** Of a full pack, by the maker; with it, how it is stated. */
    Double flightMinutes;

    @Enumerated(EnumType.STRING)
    Endurance.Stated flightMinutesStated;

    Double flightMinutesWh;

    @ManyToMany(fetch = FetchType.LAZY)
    @JoinTable(
            name = "pack_fit",
            joinColumns = @JoinColumn(name = "aircraft_model_id"),
            inverseJoinColumns = @JoinColumn(name = "pack_model_id"))
    @OrderBy("name")
    Set<PackModel> packs = new LinkedHashSet<>();

    protected AircraftModel() {} // for JPA only

    AircraftModel(UUID id) {
        this.id = id;
    }
}
