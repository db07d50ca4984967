package yarrek.app.airspace;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** Lines and areas of the map that are no zones: coast, harbour walls. */
@Entity
@Table(name = "scenery")
class Scenery {
    @Id
    int id;

    @Column(columnDefinition = "mediumtext")
    String geojson;

    protected Scenery() {} // for JPA only

    Scenery(int id, String geojson) {
        this.id = id;
        this.geojson = geojson;
    }
}
