package yarrek.app.jobs;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDate;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** Days on which a person or an aircraft is not to be had. Invariant: one of the two is named, and the last day is not before the first. */
@Audited
@Entity
@Table(name = "away")
class AwayEntity {
    @Id
    UUID id;

    UUID personId;
    UUID aircraftId;
    LocalDate firstDay;
    LocalDate lastDay;
    String why;

    protected AwayEntity() {} // for JPA only

    AwayEntity(UUID personId, UUID aircraftId, LocalDate firstDay, LocalDate lastDay, String why) {
        this.id = UUID.randomUUID();
        this.personId = personId;
        this.aircraftId = aircraftId;
        this.firstDay = firstDay;
        this.lastDay = lastDay;
        this.why = why;
    }
}
