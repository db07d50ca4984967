package yarrek.app.flights;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class FlightHistory {
    /** Of a flight only whose it is changes; that is taken back by attributing it again, so that it is counted right. */
    @Bean
    Recorded<FlightEntity> flightRecorded() {
        return Recorded.shown("flight", "flight", FlightEntity.class, f -> "flight", f -> "/flights/" + f.id);
    }
}
