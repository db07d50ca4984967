package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.CookieManager;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;

/** Signing in, being shut out, and what nobody can do by spelling an address or a name another way. */
class SignInTest extends RunningApp {
    private static final Pattern CSRF = Pattern.compile("name=\"_csrf\"[^>]*value=\"([^\"]+)\"");
    private static final String PASSWORD = "a long enough one";

    private static int made;

    @Autowired
    Office office;

    @Autowired
    JdbcClient jdbc;

    private String login;
    private UUID id;

    /** A browser without a screen. */
    private final class Visitor {
        private final HttpClient http =
                HttpClient.newBuilder().cookieHandler(new CookieManager()).build();

        HttpResponse<String> get(String path) throws Exception {
            return http.send(
                    HttpRequest.newBuilder(URI.create(address(path))).build(), HttpResponse.BodyHandlers.ofString());
        }

        HttpResponse<String> post(String path, String form) throws Exception {
            Matcher token = CSRF.matcher(get("/login").body());
            assertThat(token.find()).isTrue();
            return http.send(
                    HttpRequest.newBuilder(URI.create(address(path)))
                            .header("Content-Type", "application/x-www-form-urlencoded")
                            .POST(HttpRequest.BodyPublishers.ofString(
                                    form + "&_csrf=" + URLEncoder.encode(token.group(1), StandardCharsets.UTF_8)))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
        }

        /** Where it leads, without the host. */
        String signIn(String name, String password, String path) throws Exception {
            return post(
                            path,
                            "username=" + URLEncoder.encode(name, StandardCharsets.UTF_8) + "&password="
                                    + URLEncoder.encode(password, StandardCharsets.UTF_8))
                    .headers()
                    .firstValue("Location")
                    .orElse("")
                    .replaceFirst("^https?://[^/]+", "");
        }
    }

    private void person() {
        login = "someone" + ++made;
        id = office.createUser(login, "Someone " + made, PASSWORD, Viewer.Role.READER, null);
    }

    @AfterEach
    void forgotten() {
        jdbc.sql("delete from login_failure").update();
        if (id != null) {
            office.setEnabled(id, false);
        }
    }

    @Test
    void whoeverIsShutOutIsShutOutAtOnceAndNotOnlyAtTheNextSignIn() throws Exception {
        person();
        Visitor v = new Visitor();
        assertThat(v.signIn(login, PASSWORD, "/login")).isEqualTo("/");
        assertThat(v.get("/crew").statusCode()).isEqualTo(200);
        office.setEnabled(id, false);
        HttpResponse<String> after = v.get("/crew");
        assertThat(after.statusCode()).isEqualTo(302);
        assertThat(after.headers().firstValue("Location").orElse("")).endsWith("/login");
        assertThat(v.signIn(login, PASSWORD, "/login")).isEqualTo("/login?wrong");
        office.setEnabled(id, true);
        assertThat(v.get("/crew").statusCode()).isEqualTo(302);
        assertThat(new Visitor().signIn(login, PASSWORD, "/login")).isEqualTo("/");
    }

    @Test
    void shuttingOneOutShutsNobodyElseOut() throws Exception {
        person();
        Visitor other = new Visitor();
        assertThat(other.signIn("reader", "reader-demo", "/login")).isEqualTo("/");
        office.setEnabled(id, false);
        assertThat(other.get("/crew").statusCode()).isEqualTo(200);
    }

    /** The eighth wrong one is the last for a while, however the address or the name is spelled. */
    @ParameterizedTest
    @ValueSource(strings = {"/login", "/%6cogin", "/lo%67in"})
    void theLimitHoldsForEverySpellingOfTheAddress(String path) throws Exception {
        person();
        Visitor v = new Visitor();
        for (int i = 0; i < 8; i++) {
            v.signIn(login, "wrong", "/login");
        }
        assertThat(v.signIn(login, PASSWORD, path)).isNotEqualTo("/");
        assertThat(v.get("/crew").statusCode()).isEqualTo(302);
    }

    @Test
    void theLimitHoldsForEverySpellingOfTheName() throws Exception {
        person();
        Visitor v = new Visitor();
        String[] spellings = {login, " " + login, login + "  ", "\t" + login, login.toUpperCase(java.util.Locale.ROOT)};
        for (int i = 0; i < 8; i++) {
            assertThat(v.signIn(spellings[i % spellings.length], "wrong", "/login"))
                    .isEqualTo("/login?wrong");
        }
        for (String s : spellings) {
            assertThat(v.signIn(s, PASSWORD, "/login")).as("“" + s + "”").isEqualTo("/login?wait");
        }
    }

    /** Wrong passwords from elsewhere keep nobody out of their own desk. */
    @Test
    void nobodyIsLockedOutByWrongPasswordsFromAnotherAddress() throws Exception {
        person();
        for (int i = 0; i < 20; i++) {
            jdbc.sql("insert into login_failure (login, address, failed_at) values (?, '192.0.2.7', utc_timestamp(6))")
                    .param(login)
                    .update();
        }
        assertThat(new Visitor().signIn(login, PASSWORD, "/login")).isEqualTo("/");
    }

    @Test
    void oneAddressThatTriesManyNamesWaits() throws Exception {
        person();
        for (int i = 0; i < 40; i++) {
            jdbc.sql("insert into login_failure (login, address, failed_at) values (?, '127.0.0.1', utc_timestamp(6))")
                    .param("name" + i)
                    .update();
        }
        assertThat(new Visitor().signIn(login, PASSWORD, "/login")).isEqualTo("/login?wait");
    }

    @Test
    void blanksAroundANameAreNoPartOfIt() throws Exception {
        person();
        assertThat(new Visitor().signIn("  " + login + " ", PASSWORD, "/login")).isEqualTo("/");
    }

    /** What anybody may write into a request says neither who asks nor where the program lives. */
    @Test
    void forwardedHeadersOfAnybodyAreNotBelieved() throws IOException {
        String answer = raw("GET /crew HTTP/1.1\r\nHost: 127.0.0.1:" + port
                + "\r\nX-Forwarded-Host: evil.example\r\nX-Forwarded-Proto: https\r\nForwarded: host=evil.example\r\n"
                + "X-Forwarded-For: 192.0.2.9\r\nConnection: close\r\n\r\n");
        assertThat(answer)
                .startsWith("HTTP/1.1 302")
                .doesNotContain("evil.example")
                .doesNotContain("https://");
    }

    private String raw(String request) throws IOException {
        try (Socket s = new Socket(InetAddress.getLoopbackAddress(), port)) {
            OutputStream out = s.getOutputStream();
            out.write(request.getBytes(StandardCharsets.US_ASCII));
            out.flush();
            StringBuilder answer = new StringBuilder();
            try (var in = new BufferedReader(new InputStreamReader(s.getInputStream(), StandardCharsets.UTF_8))) {
                for (String line = in.readLine(); line != null; line = in.readLine()) {
                    answer.append(line).append('\n');
                }
            }
            return answer.toString();
        }
    }
}
