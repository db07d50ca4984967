package yarrek.app.office;

import jakarta.persistence.EntityManager;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Timestamp;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.task.TaskExecutor;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.mail.MailException;
import org.springframework.mail.SimpleMailMessage;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;

/** Passwords changed by whom they are of, and set anew by a link that a manager hands over or that comes by mail. */
@Service
public class Passwords {
    /** What a new one must be, for whoever is about to type it. */
    public static final String HINT = PasswordRules.HINT;

    private static final Logger LOG = LoggerFactory.getLogger(Passwords.class);
    private static final Duration LINK_HOLDS = Duration.ofHours(24);
    /** Asked for more often, no further mail goes out. */
    private static final Duration BETWEEN_MAILS = Duration.ofMinutes(5);

    private final EntityManager em;
    private final JdbcClient jdbc;
    private final Clock clock;
    private final PasswordEncoder encoder;
    private final PasswordRules rules;
    private final Office office;
    private final JavaMailSender mail;
    private final TaskExecutor background;
    private final String from;
    private final String base;
    private final Path home;

    Passwords(
            EntityManager em,
            JdbcClient jdbc,
            Clock clock,
            PasswordEncoder encoder,
            PasswordRules rules,
            Office office,
            JavaMailSender mail,
            TaskExecutor background,
            @Value("${yarrek.mail.from}") String from,
            @Value("${yarrek.address}") String base,
            @Value("${yarrek.home:.}") Path home) {
        this.em = em;
        this.jdbc = jdbc;
        this.clock = clock;
        this.encoder = encoder;
        this.rules = rules;
        this.office = office;
        this.mail = mail;
        this.background = background;
        this.from = from;
        this.base = base;
        this.home = home;
    }

    /**
     * Every other session of the login ends.
     *
     * @return the login as it is now
     * @throws IllegalArgumentException when the old one is wrong or the new one too easy
     */
    @Transactional
    public Viewer change(UUID userId, String old, String fresh) {
        AppUser u = em.find(AppUser.class, userId);
        if (!encoder.matches(old, u.passwordHash)) {
            throw new WrongPasswordException();
        }
        if (old.equals(fresh)) {
            throw new IllegalArgumentException("the new password is the present one");
        }
        return set(u, fresh);
    }

    /** Whether the password of a login was made by the program and not changed since. */
    @Transactional(readOnly = true)
    public boolean isFromProgram(UUID userId) {
        return em.find(AppUser.class, userId).passwordFromProgram;
    }

    private Viewer set(AppUser u, String fresh) {
        rules.check(fresh, u.login, u.name);
        u.passwordHash = encoder.encode(fresh);
        office.endSessions(u);
        if (u.passwordFromProgram) {
            u.passwordFromProgram = false;
            forgetFile();
        }
        jdbc.sql("update password_reset set used_at = ? where user_id = ? and used_at is null")
                .params(Timestamp.from(clock.instant()), u.id)
                .update();
        return u.viewer();
    }

    /** The password in it opens nothing any more. */
    private void forgetFile() {
        try {
            Files.deleteIfExists(FirstManager.file(home));
        } catch (IOException e) {
            LOG.warn("{} could not be deleted", FirstManager.file(home), e);
        }
    }

    /**
     * A link by which a new password is set, once, within a day. The links before it hold no more.
     *
     * @return the path with the secret in it, the only time it is seen
     */
    @Transactional
    public String link(UUID userId) {
        AppUser u = em.find(AppUser.class, userId);
        if (u == null) {
            throw new NotFoundException("login");
        }
        Instant now = clock.instant();
        jdbc.sql("delete from password_reset where user_id = ?").param(userId).update();
        String secret = Secret.text();
        jdbc.sql("insert into password_reset (token_hash, user_id, made_at, ends_at) values (?, ?, ?, ?)")
                .params(Secret.hash(secret), userId, Timestamp.from(now), Timestamp.from(now.plus(LINK_HOLDS)))
                .update();
        return "/login/new-password?link=" + secret;
    }

    /** Login behind a link that still holds. */
    @Transactional(readOnly = true)
    public Optional<String> loginBehind(String secret) {
        return userBehind(secret).map(u -> u.login);
    }

    private Optional<AppUser> userBehind(String secret) {
        return jdbc.sql("select user_id from password_reset where token_hash = ? and used_at is null and ends_at > ?")
                .params(Secret.hash(secret), Timestamp.from(clock.instant()))
                .query(UUID.class)
                .optional()
                .map(id -> em.find(AppUser.class, id))
                .filter(u -> u.enabled);
    }

    /** @throws IllegalArgumentException when the link does not hold or the password is too easy */
    @Transactional
    public void setBy(String secret, String fresh) {
        AppUser u = userBehind(secret)
                .orElseThrow(() ->
                        new IllegalArgumentException("this link was used or is older than a day; ask for another"));
        set(u, fresh);
    }

    /**
     * Mails a link to the address of a login, when there is such a login, it is open and has an address. Who asks is told the
     * same whatever comes of it.
     */
    public void forgotten(String login) {
        // how long it takes must not tell whether there is such a login
        background.execute(() -> mailLink(login));
    }

    private void mailLink(String login) {
        Optional<AppUser> user = em
                .createQuery("from app_user u where u.login = :l and u.enabled and u.email is not null", AppUser.class)
                .setParameter("l", login.strip())
                .getResultList()
                .stream()
                .findFirst();
        boolean lately = user.isPresent()
                && jdbc.sql("select count(*) from password_reset where user_id = ? and made_at > ?")
                                .params(
                                        user.get().id,
                                        Timestamp.from(clock.instant().minus(BETWEEN_MAILS)))
                                .query(Integer.class)
                                .single()
                        > 0;
        if (user.isEmpty() || lately) {
            return;
        }
        SimpleMailMessage m = new SimpleMailMessage();
        m.setFrom(from);
        m.setTo(user.get().email);
        m.setSubject("Yarrek: a new password");
        m.setText("Somebody, you as it may be, asked for a new password for the login " + user.get().login
                + ".\n\nSet it within a day here:\n" + base + link(user.get().id)
                + "\n\nIf it was not you, do nothing: the present password holds.\n");
        try {
            mail.send(m);
        } catch (MailException e) {
            LOG.warn("the mail with a link for a new password did not leave", e);
        }
    }
}
