package yarrek.app.airspace;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class AirspaceHistory {
    @Bean
    Recorded<SiteEntity> siteRecorded(Sites sites) {
        return Recorded.of(
                "site", "site", SiteEntity.class, s -> s.name, s -> "/airspace/sites/" + s.id, sites::restored);
    }

    @Bean
    Recorded<DirectoryEntity> directoryRecorded() {
        return Recorded.of(
                "directory",
                "entry of the directory",
                DirectoryEntity.class,
                d -> d.name,
                d -> "/airspace/directory/" + d.id,
                d -> {});
    }
}
