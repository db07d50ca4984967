package yarrek.app.airspace;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A zone as brought in; the feature is kept whole. */
@Entity
@Table(name = "zone")
class ZoneEntity {
    @Id
    String id;

    String name;

    @Column(columnDefinition = "mediumtext")
    String geojson;

    String source;
    Instant broughtInAt;

    protected ZoneEntity() {} // for JPA only

    ZoneEntity(String id, String name, String geojson, String source, Instant broughtInAt) {
        this.id = id;
        this.name = name;
        this.geojson = geojson;
        this.source = source;
        this.broughtInAt = broughtInAt;
    }
}
