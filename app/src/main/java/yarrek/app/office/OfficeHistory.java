package yarrek.app.office;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class OfficeHistory {
    @Bean
    Recorded<OperatorEntity> operatorRecorded(Office office) {
        return Recorded.of(
                "operator", "operator", OperatorEntity.class, o -> o.name, o -> "/office", o -> office.restored());
    }

    @Bean
    Recorded<AppUser> loginRecorded() {
        return Recorded.of("login", "login", AppUser.class, u -> u.name, u -> "/office", u -> {})
                .forTheManager();
    }
}
