package yarrek.app.airspace;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** A place with a flight area. Invariant: the area is valid. */
@Audited
@Entity
@Table(name = "site")
class SiteEntity {
    @Id
    UUID id;

    @Version
    long version;

    String name;
    double launchLat;
    double launchLon;

    /** As {@link yarrek.core.geo.ShapeText} writes it. */
    @Column(columnDefinition = "mediumtext")
    String area;

    String jurisdiction;
    String zone;

    @Column(name = "elevation_m")
    Double elevationM;

    @Column(name = "relief_m")
    Double reliefM;

    @Column(name = "buffer_m")
    Double bufferM;

    String terrain;

    @Column(name = "built_up_distance_m")
    Double builtUpDistanceM;

    Boolean overWater;

    @Column(columnDefinition = "mediumtext")
    String features;

    @Column(columnDefinition = "mediumtext")
    String particulars;

    String notes;

    protected SiteEntity() {} // for JPA only

    SiteEntity(UUID id) {
        this.id = id;
    }
}
