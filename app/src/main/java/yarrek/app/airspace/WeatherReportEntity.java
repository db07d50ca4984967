package yarrek.app.airspace;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

/** The weather of an hour at a site, as it was read or typed. Never changed; a newer one counts before it. */
@Entity
@Table(name = "weather_report")
class WeatherReportEntity {
    @Id
    UUID id;

    UUID siteId;
    Instant at;
    String kind;
    String raw;

    @Column(columnDefinition = "text")
    String observation;

    String source;
    String enteredBy;
    Instant enteredAt;

    protected WeatherReportEntity() {} // for JPA only

    WeatherReportEntity(UUID id) {
        this.id = id;
    }
}
