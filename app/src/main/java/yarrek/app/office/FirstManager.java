package yarrek.app.office;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.time.ZoneId;
import java.util.Base64;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.ApplicationRunner;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Profile;

/** On an empty database, makes one manager with a random password, told in a file that only the owner can read. */
@Configuration
@Profile("live")
class FirstManager {
    private static final Logger LOG = LoggerFactory.getLogger(FirstManager.class);

    @Bean
    ApplicationRunner createFirstManager(
            Office office, @Value("${yarrek.home:.}") Path home, @Value("${yarrek.zone}") String zone) {
        return args -> {
            if (!office.isEmpty()) {
                return;
            }
            byte[] bytes = new byte[12];
            new SecureRandom().nextBytes(bytes);
            String password = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
            office.saveOperator(-1, Office.UNNAMED, "EU", ZoneId.of(zone), "");
            office.createFirst("manager", "Operations manager", password);
            tell(file(home), password);
            LOG.info("made the first login, 'manager'; its password is in {}", file(home));
        };
    }

    static Path file(Path home) {
        return home.resolve("first-manager.txt");
    }

    private static void tell(Path file, String password) throws IOException {
        Files.deleteIfExists(file);
        Files.createFile(
                file,
                java.nio.file.attribute.PosixFilePermissions.asFileAttribute(
                        java.nio.file.attribute.PosixFilePermissions.fromString("rw-------")));
        Files.writeString(file, "login manager\npassword " + password + "\n");
    }
}
