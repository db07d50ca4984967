package yarrek.app.crew;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.time.LocalDate;
import java.util.UUID;
import org.hibernate.envers.Audited;
import org.hibernate.envers.NotAudited;

/** A member of the crew. Invariant: the name is not blank; hours and landings never fall below zero. */
@Audited
@Entity(name = "person")
class Person {
    @Id
    UUID id;

    @Version
    long version;

    String name;
    LocalDate bornOn;
    String phone;

    @jakarta.persistence.Column(name = "flown_s")
    @NotAudited
    long flownS;

    @NotAudited
    int landings;

    @NotAudited
    LocalDate lastFlightOn;

    protected Person() {} // for JPA only

    Person(UUID id) {
        this.id = id;
    }
}
