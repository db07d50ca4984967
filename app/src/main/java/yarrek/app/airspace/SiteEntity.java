package yarrek.app.airspace;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import java.util.stream.Collectors;
import yarrek.core.geo.Position;

/** A place with a flight area. Invariant: the area is valid. */
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
    String area;
    String jurisdiction;
    String zone;

    @Column(name = "relief_m")
    Double reliefM;

    @Column(name = "built_up_distance_m")
    Double builtUpDistanceM;

    Boolean overWater;
    String notes;

    protected SiteEntity() {} // for JPA only

    SiteEntity(UUID id) {
        this.id = id;
    }

    List<Position> corners() {
        return Arrays.stream(area.split(";"))
                .map(c -> c.strip().split("[ ,]+"))
                .map(c -> new Position(Double.parseDouble(c[0]), Double.parseDouble(c[1])))
                .toList();
    }

    static String text(List<Position> corners) {
        return corners.stream().map(Position::toString).collect(Collectors.joining("; "));
    }
}
