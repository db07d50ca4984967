package yarrek.app.incidents;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class IncidentHistory {
    @Bean
    Recorded<Incident> incidentRecorded() {
        return Recorded.of("incident", "incident", Incident.class, i -> i.kind, i -> "/incidents/" + i.id, i -> {});
    }
}
