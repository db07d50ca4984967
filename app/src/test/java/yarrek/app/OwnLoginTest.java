package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.apache.commons.codec.binary.Base32;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import yarrek.app.office.Office;
import yarrek.app.office.Passwords;
import yarrek.app.office.SecondFactor;
import yarrek.app.office.Tokens;
import yarrek.app.page.Viewer;
import yarrek.app.reminders.StandInMailbox;

/** A login's own password, second factor and tokens, and the way back in for whoever has lost them. */
class OwnLoginTest extends RunningApp {
    private static final String PASSWORD = "heron quarry lantern";
    private static final String OTHER = "gravel otter sundial";

    private static int made;

    @Autowired
    Office office;

    @Autowired
    Passwords passwords;

    @Autowired
    SecondFactor second;

    @Autowired
    Tokens tokens;

    @Autowired
    StandInMailbox mailbox;

    @Autowired
    JdbcClient jdbc;

    private String login;
    private UUID id;

    @BeforeEach
    void someone() {
        login = "owner" + ++made;
        id = office.createUser(login, "Owner " + made, PASSWORD, Viewer.Role.READER, null);
    }

    @AfterEach
    void forgotten() {
        jdbc.sql("delete from login_failure").update();
        office.setEnabled(id, false);
    }

    private Visitor in(String password) throws Exception {
        Visitor v = new Visitor(this::address);
        assertThat(v.signIn(login, password)).isEqualTo("/");
        return v;
    }

    private boolean opens(String password) throws Exception {
        return new Visitor(this::address).signIn(login, password).equals("/");
    }

    // --- password ----------------------------------------------------------------------------------------------------

    @Test
    void aChangedPasswordEndsEveryOtherSessionAndKeepsThisOne() throws Exception {
        Visitor here = in(PASSWORD);
        Visitor elsewhere = in(PASSWORD);
        here.post("/me/password", Map.of("old", PASSWORD, "password", OTHER));
        assertThat(here.get("/me").body()).contains("The password is changed");
        assertThat(Visitor.leadsTo(elsewhere.get("/crew"))).isEqualTo("/login");
        assertThat(opens(PASSWORD)).isFalse();
        assertThat(opens(OTHER)).isTrue();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "not the old one | gravel otter sundial | the present password is not this one",
                "heron quarry lantern | heron quarry lantern | the new password is the present one",
                "heron quarry lantern | short | needs at least 10 characters",
                "heron quarry lantern | aaaaaaaaaa | would be guessed too soon",
                "heron quarry lantern | password123 | would be guessed too soon",
                "heron quarry lantern | qwertyuiop | would be guessed too soon",
                "heron quarry lantern | yarrekyarrek | would be guessed too soon"
            })
    void aPasswordIsNotChangedWithoutTheOldOneOrToOneThatIsGuessed(String old, String fresh, String words)
            throws Exception {
        Visitor v = in(PASSWORD);
        v.post("/me/password", Map.of("old", old, "password", fresh));
        assertThat(v.get("/me").body()).contains(words);
        assertThat(opens(PASSWORD)).isTrue();
    }

    /** The hash looks at 72 bytes: what comes after would not count. */
    @Test
    void aPasswordIsNotLongerThanWhatIsLookedAt() throws Exception {
        String long73 =
                "heron quarry lantern gravel otter sundial meadow ".repeat(2).substring(0, 73);
        assertThatThrownBy(() -> passwords.change(id, PASSWORD, long73)).hasMessageContaining("at most 72 bytes");
        passwords.change(id, PASSWORD, long73.substring(0, 72));
        assertThat(opens(long73.substring(0, 72))).isTrue();
        assertThat(opens(long73.substring(0, 71))).isFalse();
    }

    @Test
    void theNameOfALoginIsNoPassword() {
        assertThatThrownBy(() ->
                        office.createUser("bramblewick", "Odette Hargreaven", "bramblewick1", Viewer.Role.READER, null))
                .hasMessageContaining("guessed too soon");
    }

    /** Somebody at an open screen does not guess the password there either. */
    @Test
    void theOldPasswordIsNotGuessedHere() throws Exception {
        Visitor v = in(PASSWORD);
        for (int i = 0; i < 8; i++) {
            v.post("/me/password", Map.of("old", "guess " + i, "password", OTHER));
            assertThat(v.get("/me").body()).contains("the present password is not this one");
        }
        v.post("/me/password", Map.of("old", PASSWORD, "password", OTHER));
        assertThat(v.get("/me").body()).contains("too many wrong passwords");
        jdbc.sql("delete from login_failure").update();
        assertThat(opens(PASSWORD)).isTrue();
    }

    // --- a way back --------------------------------------------------------------------------------------------------

    private static String secret(String path) {
        return path.substring(path.indexOf('=') + 1);
    }

    @Test
    void aLinkSetsANewPasswordOnceAndEndsWhatWasOpen() throws Exception {
        Visitor old = in(PASSWORD);
        String path = passwords.link(id);
        Visitor v = new Visitor(this::address);
        assertThat(v.get(path).body()).contains("New password for " + login);
        assertThat(v.post("/login/new-password", Map.of("link", secret(path), "password", "aaaaaaaaaa"))
                        .body())
                .contains("guessed too soon")
                .contains("New password for " + login);
        assertThat(Visitor.leadsTo(v.post("/login/new-password", Map.of("link", secret(path), "password", OTHER))))
                .isEqualTo("/login?set");
        assertThat(Visitor.leadsTo(old.get("/crew"))).isEqualTo("/login");
        assertThat(opens(OTHER)).isTrue();
        assertThat(v.get(path).body()).contains("was used or is older than a day");
        assertThat(v.post("/login/new-password", Map.of("link", secret(path), "password", PASSWORD))
                        .statusCode())
                .isEqualTo(422);
        assertThat(opens(OTHER)).isTrue();
    }

    @Test
    void aLinkEndsAfterADayAndWithTheNextAndWithTheLogin() {
        String first = secret(passwords.link(id));
        String next = secret(passwords.link(id));
        assertThat(passwords.loginBehind(first))
                .as("the next has taken its place")
                .isEmpty();
        assertThat(passwords.loginBehind(next)).contains(login);
        office.setEnabled(id, false);
        assertThat(passwords.loginBehind(next)).as("its login is closed").isEmpty();
        office.setEnabled(id, true);
        jdbc.sql("update password_reset set ends_at = timestampadd(second, -1, utc_timestamp(6)) where user_id = ?")
                .param(id)
                .update();
        assertThat(passwords.loginBehind(next)).as("a day is over").isEmpty();
        assertThat(passwords.loginBehind("")).isEmpty();
        assertThat(passwords.loginBehind("x".repeat(5000))).isEmpty();
    }

    /** By mail to the address on file; who asks learns nothing of which logins there are. */
    @Test
    void whoHasForgottenGetsALinkByMail() throws Exception {
        office.saveMailWish(id, login + "@larkmoor.example", false);
        Visitor v = new Visitor(this::address);
        String told = v.get(Visitor.leadsTo(v.post("/login/forgotten", Map.of("login", login))))
                .body();
        String toNobody = v.get(Visitor.leadsTo(v.post("/login/forgotten", Map.of("login", "no-such-login"))))
                .body();
        assertThat(told.replaceAll("value=\"[^\"]*\"", "")).isEqualTo(toNobody.replaceAll("value=\"[^\"]*\"", ""));
        StandInMailbox.Mail mail = mail(login + "@larkmoor.example");
        Matcher link = Pattern.compile("/login/new-password\\?link=3?D?([\\w-]{43})")
                .matcher(mail.content().replace("=\r\n", "").replace("=\n", ""));
        assertThat(link.find()).as(mail.content()).isTrue();
        assertThat(passwords.loginBehind(link.group(1))).contains(login);
        v.post("/login/forgotten", Map.of("login", login));
        assertThat(mailbox.mails().stream().filter(m -> m.to().contains(login)).count())
                .as("no second mail within five minutes")
                .isEqualTo(1);
    }

    private StandInMailbox.Mail mail(String to) {
        Instant end = Instant.now().plus(Duration.ofSeconds(20));
        while (Instant.now().isBefore(end)) {
            var found =
                    mailbox.mails().stream().filter(m -> m.to().contains(to)).findFirst();
            if (found.isPresent()) {
                return found.get();
            }
            Thread.onSpinWait();
        }
        throw new AssertionError("no mail to " + to);
    }

    // --- second factor -----------------------------------------------------------------------------------------------

    /** RFC 6238 once more, from its text: SHA-1, half a minute, six digits. */
    private static String codeAt(String secret, Instant at) throws Exception {
        Mac mac = Mac.getInstance("HmacSHA1");
        mac.init(new SecretKeySpec(new Base32().decode(secret), "RAW"));
        byte[] h = mac.doFinal(
                ByteBuffer.allocate(8).putLong(at.getEpochSecond() / 30).array());
        int o = h[h.length - 1] & 0xf;
        int n = ByteBuffer.wrap(h, o, 4).getInt() & 0x7fffffff;
        return String.format(Locale.ROOT, "%06d", n % 1_000_000);
    }

    private record Factor(String secret, List<String> paper) {}

    private Factor secondFactor() throws Exception {
        second.begin(id);
        String secret = second.pending(id).orElseThrow();
        List<String> paper = second.confirm(id, codeAt(secret, Instant.now()));
        // the code that confirmed is used up; tests go on as if it had been long ago
        jdbc.sql("update app_user set totp_last_step = 0 where id = ?")
                .param(id)
                .update();
        return new Factor(secret, paper);
    }

    @Test
    void theCodeIsAskedForAfterThePasswordAndNothingIsOpenBefore() throws Exception {
        Factor set = secondFactor();
        Visitor v = new Visitor(this::address);
        assertThat(v.signIn(login, PASSWORD)).isEqualTo("/login/code");
        for (String path : List.of("/", "/crew", "/me", "/jobs", "/api/v1/papers")) {
            assertThat(v.get(path).statusCode()).as(path).isNotEqualTo(200);
        }
        assertThat(Visitor.leadsTo(v.get("/crew"))).isEqualTo("/login/code");
        assertThat(Visitor.leadsTo(v.post("/login/code", Map.of("code", "000000"))))
                .isEqualTo("/login/code?wrong");
        assertThat(v.get("/crew").statusCode()).isNotEqualTo(200);
        assertThat(Visitor.leadsTo(v.post("/login/code", Map.of("code", codeAt(set.secret(), Instant.now())))))
                .startsWith("/");
        assertThat(v.get("/crew").statusCode()).isEqualTo(200);
    }

    @Test
    void aWrongPasswordIsNotToldFromAMissingCode() throws Exception {
        secondFactor();
        assertThat(new Visitor(this::address).signIn(login, "wrong")).isEqualTo("/login?wrong");
    }

    @Test
    void aCodeOpensOnceAndOnlyAroundItsHalfMinute() throws Exception {
        Factor set = secondFactor();
        Instant now = Instant.now();
        assertThat(second.opens(id, codeAt(set.secret(), now.minusSeconds(91))))
                .as("long over")
                .isFalse();
        assertThat(second.opens(id, codeAt(set.secret(), now.plusSeconds(91))))
                .as("far ahead")
                .isFalse();
        String code = codeAt(set.secret(), now);
        assertThat(second.opens(id, code.substring(0, 3) + " " + code.substring(3)))
                .isTrue();
        assertThat(second.opens(id, code)).as("the same again").isFalse();
    }

    @Test
    void aCodeOnPaperOpensOnceInAnySpelling() throws Exception {
        Factor set = secondFactor();
        assertThat(set.paper())
                .hasSize(10)
                .doesNotHaveDuplicates()
                .allMatch(c -> c.matches("([a-z2-7]{4}-){3}[a-z2-7]{4}"));
        String one = set.paper().get(3);
        assertThat(second.opens(id, " " + one.toUpperCase(Locale.ROOT).replace("-", " ")))
                .isTrue();
        assertThat(second.opens(id, one)).isFalse();
        assertThat(second.recoveryCodesLeft(id)).isEqualTo(9);
        assertThat(jdbc.sql("select count(*) from recovery_code where code_hash like ?")
                        .param("%" + one.replace("-", "") + "%")
                        .query(Integer.class)
                        .single())
                .as("only hashes are kept")
                .isZero();
    }

    /** Six digits are soon tried through: the limit of passwords holds for codes. */
    @Test
    void codesAreNotGuessed() throws Exception {
        Factor set = secondFactor();
        Visitor v = new Visitor(this::address);
        v.signIn(login, PASSWORD);
        for (int i = 0; i < 8; i++) {
            v.post("/login/code", Map.of("code", "nothing"));
        }
        assertThat(Visitor.leadsTo(
                        v.post("/login/code", Map.of("code", set.paper().get(0)))))
                .isEqualTo("/login/code?wait");
    }

    @Test
    void itIsSetUpByAFirstCodeAndLeftByAnother() throws Exception {
        Visitor v = in(PASSWORD);
        v.post("/me/second-factor", Map.of());
        Matcher shown = Pattern.compile("id=\"secret\">([A-Z2-7 ]+)<")
                .matcher(v.get("/me").body());
        assertThat(shown.find()).isTrue();
        String secret = shown.group(1).replace(" ", "");
        assertThat(second.isOn(id))
                .as("nothing is asked for before a first code")
                .isFalse();
        v.post("/me/second-factor/confirm", Map.of("code", "123"));
        assertThat(v.get("/me").body()).contains("not the code of this moment");
        v.post("/me/second-factor/confirm", Map.of("code", codeAt(secret, Instant.now())));
        assertThat(v.get("/me").body()).contains("recovery-codes");
        assertThat(v.get("/me").body()).as("shown once").doesNotContain("recovery-codes");
        assertThat(second.isOn(id)).isTrue();
        v.post("/me/second-factor", Map.of());
        assertThat(second.isOn(id)).as("an open screen does not set it up anew").isTrue();
        v.post("/me/second-factor/off", Map.of("code", "123"));
        assertThat(second.isOn(id)).isTrue();
        v.post(
                "/me/second-factor/off",
                Map.of("code", codeAt(secret, Instant.now().plusSeconds(30))));
        assertThat(second.isOn(id)).isFalse();
        assertThat(opens(PASSWORD)).isTrue();
    }

    // --- tokens ------------------------------------------------------------------------------------------------------

    private int ask(String method, String path, String token) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address(path)))
                                .header("Authorization", "Bearer " + token)
                                .header("Content-Type", "application/json")
                                .method(method, HttpRequest.BodyPublishers.ofString("{}"))
                                .build(),
                        HttpResponse.BodyHandlers.discarding())
                .statusCode();
    }

    @Test
    void aTokenHoldsUntilItsDayOrUntilItIsRevokedOrItsLoginClosed() throws Exception {
        String token = tokens.make(id, "to look", false, 1);
        assertThat(ask("GET", "/api/v1/papers", token)).isEqualTo(200);
        jdbc.sql("update api_token set ends_at = timestampadd(second, -1, utc_timestamp(6)) where user_id = ?")
                .param(id)
                .update();
        assertThat(ask("GET", "/api/v1/papers", token)).as("its day is over").isEqualTo(401);
        String next = tokens.make(id, "to look again", false, 1);
        Viewer owner = office.viewer(id).orElseThrow();
        UUID row = tokens.of(owner, false).stream()
                .filter(Tokens.Row::isOpen)
                .findFirst()
                .orElseThrow()
                .id();
        tokens.revoke(row, owner);
        assertThat(ask("GET", "/api/v1/papers", next)).as("revoked").isEqualTo(401);
        String last = tokens.make(id, "a third", false, 1);
        office.setEnabled(id, false);
        assertThat(ask("GET", "/api/v1/papers", last)).as("closed").isEqualTo(401);
    }

    /** A manager's token that reads does not write, whatever the manager may. */
    @Test
    void aTokenThatReadsDoesNotWrite() throws Exception {
        office.changeUser(id, office.user(id).version(), "Owner", Viewer.Role.MANAGER, null);
        String reads = tokens.make(id, "reads", false, 1);
        String writes = tokens.make(id, "writes", true, 1);
        assertThat(ask("GET", "/api/v1/papers", reads)).isEqualTo(200);
        assertThat(ask("POST", "/api/v1/registers/aircraft", reads)).isEqualTo(403);
        assertThat(ask("POST", "/api/v1/registers/aircraft", writes))
                .as("refused for what it says, not for who")
                .isNotEqualTo(403);
        assertThat(ask("POST", "/api/v1/assessments", reads))
                .as("reckoning stores nothing")
                .isNotEqualTo(403);
    }

    @ParameterizedTest
    @ValueSource(ints = {0, -1, 367})
    void aTokenHasAnEnd(int days) {
        assertThatThrownBy(() -> tokens.make(id, "x", false, days)).hasMessageContaining("1 to 366 days");
    }

    @Test
    void nobodyRevokesOrSeesTheTokensOfOthers() throws Exception {
        Viewer pilot = (Viewer) office.loadUserByUsername("pilot");
        tokens.make(pilot.userId(), "the pilot's", false, 1);
        Viewer owner = office.viewer(id).orElseThrow();
        assertThat(tokens.of(owner, true))
                .as("no manager")
                .allMatch(t -> t.userId().equals(id));
        UUID theirs = tokens.of(pilot, false).get(0).id();
        Visitor v = in(PASSWORD);
        assertThat(v.post("/me/tokens/" + theirs + "/revoke", Map.of()).statusCode())
                .isEqualTo(404);
        assertThat(tokens.of(pilot, false).stream().filter(t -> t.id().equals(theirs)))
                .allMatch(Tokens.Row::isOpen);
    }
}
