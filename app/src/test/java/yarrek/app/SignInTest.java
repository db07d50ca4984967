package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;

/** Signing in, being shut out, and what nobody can do by spelling an address or a name another way. */
class SignInTest extends RunningApp {
    private static final String PASSWORD = "a long enough one";

    private static int made;

    @Autowired
    Office office;

    @Autowired
    JdbcClient jdbc;

    private String login;
    private UUID id;

    private Visitor visitor() {
        return new Visitor(this::address);
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
        Visitor v = visitor();
        assertThat(v.signIn(login, PASSWORD, "/login")).isEqualTo("/");
        assertThat(v.get("/crew").statusCode()).isEqualTo(200);
        office.setEnabled(id, false);
        HttpResponse<String> after = v.get("/crew");
        assertThat(after.statusCode()).isEqualTo(302);
        assertThat(after.headers().firstValue("Location").orElse("")).endsWith("/login");
        assertThat(v.signIn(login, PASSWORD, "/login")).isEqualTo("/login?wrong");
        office.setEnabled(id, true);
        assertThat(v.get("/crew").statusCode()).isEqualTo(302);
        assertThat(visitor().signIn(login, PASSWORD, "/login")).isEqualTo("/");
    }

    @Test
    void shuttingOneOutShutsNobodyElseOut() throws Exception {
        person();
        Visitor other = visitor();
        assertThat(other.signIn("reader", "reader-demo", "/login")).isEqualTo("/");
        office.setEnabled(id, false);
        assertThat(other.get("/crew").statusCode()).isEqualTo(200);
    }

    /** The eighth wrong one is the last for a while, however the address or the name is spelled. */
    @ParameterizedTest
    @ValueSource(strings = {"/login", "/%6cogin", "/lo%67in"})
    void theLimitHoldsForEverySpellingOfTheAddress(String path) throws Exception {
        person();
        Visitor v = visitor();
        for (int i = 0; i < 8; i++) {
            v.signIn(login, "wrong", "/login");
        }
        assertThat(v.signIn(login, PASSWORD, path)).isNotEqualTo("/");
        assertThat(v.get("/crew").statusCode()).isEqualTo(302);
    }

    @Test
    void theLimitHoldsForEverySpellingOfTheName() throws Exception {
        person();
        Visitor v = visitor();
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
        assertThat(visitor().signIn(login, PASSWORD, "/login")).isEqualTo("/");
    }

    /** However many try a name from elsewhere, its owner comes in, if a little later with each wrong one. */
    @ParameterizedTest
    @CsvSource({"0, 0", "12, 0", "13, 250", "16, 1000", "24, 3000", "500, 3000"})
    void aNameTriedFromManyAddressesIsAnsweredMoreSlowly(int wrong, long millis) {
        person();
        for (int i = 0; i < wrong; i++) {
            jdbc.sql("insert into login_failure (login, address, failed_at) values (?, ?, utc_timestamp(6))")
                    .params(login, "192.0.2." + i)
                    .update();
        }
        assertThat(office.slowness(" " + login.toUpperCase(java.util.Locale.ROOT)))
                .hasMillis(millis);
    }

    /** Closed behind the back of the sessions, as when the sign-in was under way: the next request finds out. */
    @Test
    void aSessionBegunWhileItsLoginWasBeingClosedIsNone() throws Exception {
        person();
        Visitor v = visitor();
        assertThat(v.signIn(login, PASSWORD)).isEqualTo("/");
        jdbc.sql("update app_user set enabled = false where id = ?").param(id).update();
        assertThat(Visitor.leadsTo(v.get("/crew"))).isEqualTo("/login");
        jdbc.sql("update app_user set enabled = true where id = ?").param(id).update();
        assertThat(Visitor.leadsTo(v.get("/crew")))
                .as("the session is over, not asleep")
                .isEqualTo("/login");
    }

    /** What a manager takes from a login is gone at the next click. */
    @Test
    void anotherRoleEndsTheSession() throws Exception {
        person();
        Visitor v = visitor();
        v.signIn(login, PASSWORD);
        office.changeUser(id, office.user(id).version(), "Someone", Viewer.Role.MANAGER, null);
        assertThat(Visitor.leadsTo(v.get("/office"))).isEqualTo("/login");
        v.signIn(login, PASSWORD);
        assertThat(v.get("/office").statusCode()).isEqualTo(200);
        office.changeUser(id, office.user(id).version(), "Someone", Viewer.Role.READER, null);
        assertThat(Visitor.leadsTo(v.get("/office"))).isEqualTo("/login");
        assertThat(v.signIn(login, PASSWORD)).startsWith("/office");
        assertThat(v.get("/office").statusCode()).isEqualTo(403);
    }

    @Test
    void anotherNameEndsNothing() throws Exception {
        person();
        Visitor v = visitor();
        v.signIn(login, PASSWORD);
        office.changeUser(id, office.user(id).version(), "Somebody Else", Viewer.Role.READER, null);
        assertThat(v.get("/crew").statusCode()).isEqualTo(200);
    }

    @Test
    void twoWhoChangeALoginAtOnceAreTold() {
        person();
        long seen = office.user(id).version();
        office.changeUser(id, seen, "One", Viewer.Role.READER, null);
        assertThatThrownBy(() -> office.changeUser(id, seen, "Two", Viewer.Role.READER, null))
                .isInstanceOf(LostUpdateException.class);
        assertThat(office.user(id).name()).isEqualTo("One");
    }

    @Test
    void aPilotsLoginBelongsToSomebody() {
        assertThatThrownBy(() -> office.createUser("nobodys", "N", PASSWORD, Viewer.Role.PILOT, null))
                .hasMessageContaining("say to whom it belongs");
        person();
        assertThatThrownBy(() -> office.changeUser(id, office.user(id).version(), "N", Viewer.Role.PILOT, null))
                .hasMessageContaining("say to whom it belongs");
    }

    @Test
    void oneAddressThatTriesManyNamesWaits() throws Exception {
        person();
        for (int i = 0; i < 40; i++) {
            jdbc.sql("insert into login_failure (login, address, failed_at) values (?, '127.0.0.1', utc_timestamp(6))")
                    .param("name" + i)
                    .update();
        }
        assertThat(visitor().signIn(login, PASSWORD, "/login")).isEqualTo("/login?wait");
    }

    @Test
    void blanksAroundANameAreNoPartOfIt() throws Exception {
        person();
        assertThat(visitor().signIn("  " + login + " ", PASSWORD, "/login")).isEqualTo("/");
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
