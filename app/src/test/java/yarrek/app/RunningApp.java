package yarrek.app;

import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.context.annotation.Import;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.context.ActiveProfiles;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** The whole application on a real database with the sample world; started once for all tests of this kind. */
@SpringBootTest(
        webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT,
        properties = {
            "spring.jpa.properties.hibernate.generate_statistics=true",
            // a desk that is too slow should not be waited for as long as in life
            "yarrek.outside-answer=2s",
            // tests say themselves when time passes
            "yarrek.time-passes=PT24H",
            "yarrek.stand-ins-slow=3s",
            "db-scheduler.polling-interval=500ms",
            "db-scheduler.heartbeat-interval=3s"
        })
@ActiveProfiles("demo")
@Import(TryingWorker.class)
abstract class RunningApp {
    @LocalServerPort
    int port;

    @DynamicPropertySource
    static void database(DynamicPropertyRegistry registry) {
        registry.add("spring.datasource.url", () -> TestDatabase.url() + "?connectionCollation=utf8mb4_unicode_520_ci");
        registry.add("spring.datasource.username", () -> "root");
        registry.add("spring.datasource.password", () -> "");
    }

    String address(String path) {
        return "http://127.0.0.1:" + port + path;
    }

    /** What was changed behind the application's back is said as another node says it. */
    static void changedByAnotherNode(JdbcClient jdbc, String what) {
        jdbc.sql("insert into stamp (name, stamp) values (?, 1) on duplicate key update stamp = stamp + 1")
                .param(what)
                .update();
    }
}
