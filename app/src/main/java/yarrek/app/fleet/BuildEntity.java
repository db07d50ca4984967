package yarrek.app.fleet;

import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.JoinTable;
import jakarta.persistence.ManyToMany;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.OrderBy;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.util.LinkedHashSet;
import java.util.Set;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** An aircraft as it will take off. */
@Audited
@Entity
@Table(name = "build")
class BuildEntity {
    @Id
    UUID id;

    @Version
    long version;

    @ManyToOne(fetch = FetchType.EAGER) // fields are read directly, which a lazy proxy would answer with nothing
    @JoinColumn(name = "aircraft_id")
    AircraftEntity aircraft;

    String name;

    @ManyToOne(fetch = FetchType.EAGER) // fields are read directly, which a lazy proxy would answer with nothing
    @JoinColumn(name = "pack_model_id")
    PackModel pack;

    @ManyToMany(fetch = FetchType.LAZY)
    @JoinTable(
            name = "build_accessory",
            joinColumns = @JoinColumn(name = "build_id"),
            inverseJoinColumns = @JoinColumn(name = "accessory_id"))
    @OrderBy("name")
    Set<Accessory> accessories = new LinkedHashSet<>();

    protected BuildEntity() {} // for JPA only

    BuildEntity(UUID id) {
        this.id = id;
    }
}
