package yarrek.app.flights;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;

/** All figures of a flight, beside those in its row that lists show. */
@Entity
@Table(name = "flight_figures")
class FlightFiguresText {
    @Id
    UUID flightId;

    @Column(columnDefinition = "mediumtext")
    String figures;

    protected FlightFiguresText() {} // for JPA only

    FlightFiguresText(UUID flightId, String figures) {
        this.flightId = flightId;
        this.figures = figures;
    }
}
