package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.ActiveProfiles;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** The whole application on a database that is taken away under it. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
@ActiveProfiles("live")
@DirtiesContext
@Timeout(value = 3, unit = TimeUnit.MINUTES)
class DatabaseGoneTest {
    /** A statement's 8 s, and twice the wait for a connection; the rest is for a machine with other things to do. */
    private static final Duration PATIENCE = Duration.ofSeconds(40);

    private static Wire wire;

    @TempDir
    static Path home;

    @LocalServerPort
    int port;

    @Autowired
    JdbcClient jdbc;

    /** What can be wrong with a database. */
    enum Fault {
        SILENT,
        GONE;

        void begin() throws IOException {
            if (this == SILENT) {
                wire.stall();
            } else {
                wire.cut();
            }
        }
    }

    @BeforeAll
    static void ownDatabase() throws Exception {
        try (var c = DriverManager.getConnection(
                        "jdbc:mariadb://127.0.0.1:" + TestDatabase.port() + "/mysql?user=root");
                var s = c.createStatement()) {
            s.execute("create database yarrek_wire");
        }
    }

    @DynamicPropertySource
    static void database(DynamicPropertyRegistry registry) throws IOException {
        wire = new Wire(TestDatabase.port());
        registry.add(
                "spring.datasource.url",
                () -> "jdbc:mariadb://127.0.0.1:" + wire.port()
                        + "/yarrek_wire?connectionCollation=utf8mb4_unicode_520_ci");
        registry.add("spring.datasource.username", () -> "root");
        registry.add("spring.datasource.password", () -> "");
        registry.add("yarrek.home", () -> home.toString());
    }

    @AfterAll
    static void closed() throws IOException {
        wire.close();
    }

    @BeforeEach
    void mended() throws Exception {
        wire.mend();
        untilItAnswers("/login", 200);
    }

    private String address(String path) {
        return "http://127.0.0.1:" + port + path;
    }

    private HttpResponse<String> ask(String path, Duration patience) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address(path)))
                                .timeout(patience)
                                .header("Accept", "text/html, */*")
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }

    private void untilItAnswers(String path, int status) throws Exception {
        int now;
        do {
            now = ask(path, PATIENCE).statusCode();
        } while (now != status);
    }

    private Visitor manager() throws Exception {
        Visitor v = new Visitor(this::address);
        String password =
                Files.readString(home.resolve("first-manager.txt")).replaceAll("(?s).*password (\\S+)\\s*", "$1");
        v.signIn("manager", password);
        return v;
    }

    @ParameterizedTest
    @EnumSource(Fault.class)
    void whatWasTypedIsKeptAndStoredOnceItIsBack(Fault fault) throws Exception {
        Visitor v = manager();
        String name = "Typed while " + fault;
        Typed form = v.form("/crew/new").with("name", name).with("phone", "+00 77");
        String token = v.token();
        fault.begin();
        HttpResponse<String> answer = v.postWith(token, "/crew/new", form);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(503);
        assertThat(answer.body())
                .contains("The database does not answer")
                .contains("What you typed is still here")
                .contains(name)
                .contains("+00 77");
        wire.mend();
        untilItAnswers("/login", 200);
        assertThat(v.post("/crew/new", form).statusCode()).isIn(302, 200);
        assertThat(jdbc.sql("select count(*) from person where name = ?")
                        .param(name)
                        .query(Integer.class)
                        .single())
                .isEqualTo(1);
    }

    /** A connection that breaks in the middle of storing is no visitor who went away: nothing is said to be done. */
    @Test
    void whatBreaksOffInTheMiddleIsNotSaidToBeDone() throws Exception {
        Visitor v = manager();
        Typed form = v.form("/crew/new").with("name", "Broken off");
        String token = v.token();
        try (var c = DriverManager.getConnection(
                        "jdbc:mariadb://127.0.0.1:" + TestDatabase.port() + "/yarrek_wire?user=root");
                var s = c.createStatement()) {
            s.execute("lock tables person write");
            var answer = CompletableFuture.supplyAsync(() -> {
                try {
                    return v.postWith(token, "/crew/new", form);
                } catch (Exception e) {
                    throw new IllegalStateException(e);
                }
            });
            boolean waiting;
            do {
                var r = s.executeQuery("select count(*) from information_schema.processlist"
                        + " where db = 'yarrek_wire' and state like 'Waiting for table%'");
                r.next();
                waiting = r.getInt(1) > 0;
            } while (!waiting);
            wire.cut();
            assertThat(answer.get().statusCode()).isEqualTo(503);
            assertThat(answer.get().body())
                    .contains("What you typed is still here")
                    .contains("Broken off");
            s.execute("unlock tables");
        }
        wire.mend();
        untilItAnswers("/login", 200);
        assertThat(jdbc.sql("select count(*) from person where name = 'Broken off'")
                        .query(Integer.class)
                        .single())
                .isZero();
    }

    /** Whoever asks then has an answer in words, also where readiness is asked. */
    @ParameterizedTest
    @EnumSource(Fault.class)
    void everyPageAnswersInWords(Fault fault) throws Exception {
        Visitor v = manager();
        fault.begin();
        untilItAnswers("/login", 503);
        for (String path : new String[] {"/", "/login", "/jobs"}) {
            HttpResponse<String> a = ask(path, PATIENCE);
            assertThat(a.statusCode()).as(path).isEqualTo(503);
            assertThat(a.body()).as(path).contains("The database does not answer");
        }
        assertThat(ask("/css/page.css", PATIENCE).statusCode()).isEqualTo(200);
        assertThat(ask("/actuator/health/readiness", PATIENCE).statusCode()).isEqualTo(503);
        wire.mend();
        untilItAnswers("/actuator/health/readiness", 200);
        untilItAnswers("/login", 200);
        assertThat(v.get("/crew").statusCode()).as("still signed in").isEqualTo(200);
    }

    /** One statement that takes too long is ended by the server, and the page says so instead of hanging. */
    @Test
    void aStatementThatTakesTooLongIsEnded() throws Exception {
        Visitor v = manager();
        try (var c = DriverManager.getConnection(
                        "jdbc:mariadb://127.0.0.1:" + TestDatabase.port() + "/yarrek_wire?user=root");
                var s = c.createStatement()) {
            c.setAutoCommit(false);
            s.execute("lock tables person write");
            HttpResponse<String> a = v.get("/crew");
            assertThat(a.statusCode()).isEqualTo(503);
            s.execute("unlock tables");
        }
        assertThat(v.get("/crew").statusCode()).isEqualTo(200);
    }
}
