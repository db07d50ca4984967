package yarrek.app.airspace;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;

/** A zone as our own GeoJSON feature. */
@Entity
@Table(name = "zone")
class ZoneEntity {
    @Id
    String id;

    String name;

    @Column(columnDefinition = "mediumtext")
    String geojson;

    UUID sourceId;

    protected ZoneEntity() {} // for JPA only

    ZoneEntity(String id, String name, String geojson, UUID sourceId) {
        this.id = id;
        this.name = name;
        this.geojson = geojson;
        this.sourceId = sourceId;
    }
}
