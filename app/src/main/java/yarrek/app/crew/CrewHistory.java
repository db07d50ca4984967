package yarrek.app.crew;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class CrewHistory {
    @Bean
    Recorded<Person> personRecorded(Crew crew) {
        return Recorded.of(
                "person", "member of the crew", Person.class, p -> p.name, p -> "/crew/" + p.id, crew::restored);
    }
}
