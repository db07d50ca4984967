package yarrek.app;

import java.time.Clock;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import org.springframework.modulith.Modulithic;

/** The web application. */
@SpringBootApplication
@Modulithic(systemName = "Yarrek")
public class YarrekApplication {
    public static void main(String[] args) {
        SpringApplication.run(YarrekApplication.class, args);
    }

    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }
}
