package yarrek.app.office;

import jakarta.persistence.EntityManager;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;

/** Logins, tokens and the operator. */
@Service
public class Office implements UserDetailsService {
    private static final int TOKEN_BYTES = 32;
    private static final Duration FAILURE_WINDOW = Duration.ofMinutes(5);
    private static final int FAILURES_PER_LOGIN = 8;
    private static final int FAILURES_PER_ADDRESS = 40;

    /** The operator as others see it. */
    public record OperatorView(UUID id, String name, String jurisdiction, ZoneId zone, String phone) {}

    /** A login in a list. */
    public record UserRow(UUID id, String login, String name, String role, boolean enabled) {

        public String standing() {
            return enabled ? "open" : "closed";
        }
    }

    /** A token in a list; the token itself is shown once and not kept. */
    public record TokenRow(UUID id, String name, String owner, Instant createdAt, Instant revokedAt) {}

    private final EntityManager em;
    private final PasswordEncoder encoder;
    private final Clock clock;
    private final JdbcClient jdbc;
    private final Held<OperatorView> operator;
    private final SecureRandom random = new SecureRandom();

    Office(EntityManager em, PasswordEncoder encoder, Clock clock, JdbcClient jdbc, Stamps stamps) {
        this.em = em;
        this.encoder = encoder;
        this.clock = clock;
        this.jdbc = jdbc;
        this.operator = stamps.holding("operator", this::readOperator);
    }

    @Override
    @Transactional(readOnly = true)
    public UserDetails loadUserByUsername(String login) {
        return em.createQuery("from app_user u where u.login = :login", AppUser.class)
                .setParameter("login", login.strip())
                .getResultStream()
                .findFirst()
                .map(AppUser::viewer)
                .orElseThrow(() -> new UsernameNotFoundException("no such login"));
    }

    @Transactional(readOnly = true)
    public boolean isEmpty() {
        return em.createQuery("select count(u) from app_user u", Long.class).getSingleResult() == 0;
    }

    /** @throws IllegalArgumentException when the login is taken or the password shorter than 10 characters */
    @Transactional
    public UUID createUser(String login, String name, String password, Viewer.Role role, UUID personId) {
        if (password.length() < 10) {
            throw new IllegalArgumentException("the password needs at least 10 characters");
        }
        boolean taken = em.createQuery("select count(u) from app_user u where u.login = :l", Long.class)
                        .setParameter("l", login.strip())
                        .getSingleResult()
                > 0;
        if (taken) {
            throw new IllegalArgumentException("the login “" + login + "” is taken");
        }
        AppUser user =
                new AppUser(UUID.randomUUID(), login, name, encoder.encode(password), role, personId, clock.instant());
        em.persist(user);
        return user.id;
    }

    @Transactional(readOnly = true)
    public List<UserRow> users() {
        return em.createQuery("from app_user u order by u.login", AppUser.class)
                .getResultStream()
                .map(u ->
                        new UserRow(u.id, u.login, u.name, u.role.name().toLowerCase(java.util.Locale.ROOT), u.enabled))
                .toList();
    }

    @Transactional
    public void setEnabled(UUID userId, boolean enabled) {
        AppUser user = em.find(AppUser.class, userId);
        if (user == null) {
            throw new NotFoundException("login");
        }
        user.enabled = enabled;
        if (!enabled) {
            // whoever is shut out is so at once, not when the session runs out
            jdbc.sql("delete from SPRING_SESSION where PRINCIPAL_NAME = ?")
                    .param(user.login)
                    .update();
        }
    }

    /** A login as a viewer, for work done in its name; empty when it is closed or gone. */
    @Transactional(readOnly = true)
    public Optional<Viewer> viewer(UUID userId) {
        AppUser user = em.find(AppUser.class, userId);
        return user == null || !user.enabled ? Optional.empty() : Optional.of(user.viewer());
    }

    /** What a login has said about its mail. */
    public record MailWish(UUID userId, String login, String email, boolean digest) {}

    @Transactional(readOnly = true)
    public MailWish mailWish(UUID userId) {
        AppUser u = em.find(AppUser.class, userId);
        return new MailWish(u.id, u.login, u.email == null ? "" : u.email, u.digest);
    }

    /** Open logins that want the digest and have an address. */
    @Transactional(readOnly = true)
    public List<MailWish> digestWishes() {
        return em.createQuery("from app_user u where u.digest and u.enabled and u.email is not null", AppUser.class)
                .getResultStream()
                .map(u -> new MailWish(u.id, u.login, u.email, true))
                .toList();
    }

    /** @throws IllegalArgumentException when the address is none, or the digest is wanted without one */
    @Transactional
    public void saveMailWish(UUID userId, String email, boolean digest) {
        String clean = email.strip();
        if (!clean.isEmpty() && !clean.matches("[^@\\s]{1,64}@[^@\\s]{1,120}")) {
            throw new IllegalArgumentException("“" + clean + "” is no mail address");
        }
        if (digest && clean.isEmpty()) {
            throw new IllegalArgumentException("the digest needs an address to go to");
        }
        AppUser u = em.find(AppUser.class, userId);
        u.email = clean.isEmpty() ? null : clean;
        u.digest = digest;
    }

    /** Makes a token; the text returned is the only time it is seen. */
    @Transactional
    public String createToken(UUID userId, String name) {
        byte[] bytes = new byte[TOKEN_BYTES];
        random.nextBytes(bytes);
        String token = "yrk_" + Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        em.persist(new ApiToken(UUID.randomUUID(), userId, name, hash(token), clock.instant()));
        return token;
    }

    @Transactional
    public void revokeToken(UUID id) {
        ApiToken token = em.find(ApiToken.class, id);
        if (token == null) {
            throw new NotFoundException("token");
        }
        token.revokedAt = clock.instant();
    }

    @Transactional(readOnly = true)
    public List<TokenRow> tokens() {
        return em.createQuery(
                        "select t, u.login from api_token t join app_user u on u.id = t.userId order by t.createdAt desc",
                        Object[].class)
                .getResultStream()
                .map(r -> {
                    ApiToken t = (ApiToken) r[0];
                    return new TokenRow(t.id, t.name, (String) r[1], t.createdAt, t.revokedAt);
                })
                .toList();
    }

    /** The login behind a token that is neither revoked nor of a closed login. */
    @Transactional(readOnly = true)
    public Optional<Viewer> byToken(String token) {
        return em.createQuery(
                        "select u from api_token t join app_user u on u.id = t.userId where t.tokenHash = :h and t.revokedAt is null and u.enabled",
                        AppUser.class)
                .setParameter("h", hash(token))
                .getResultStream()
                .findFirst()
                .map(AppUser::viewer);
    }

    private static String hash(String token) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(token.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    @Transactional(readOnly = true)
    public OperatorView operator() {
        return operator.get();
    }

    private OperatorView readOperator() {
        return em.createQuery("from OperatorEntity o", OperatorEntity.class)
                .getResultStream()
                .findFirst()
                .map(o -> new OperatorView(
                        o.id, o.name, o.jurisdiction, ZoneId.of(o.zone), o.phone == null ? "" : o.phone))
                .orElseThrow(() -> new NotFoundException("operator"));
    }

    /** Sets the operator up or changes it. */
    @Transactional
    public UUID saveOperator(String name, String jurisdiction, ZoneId zone, String phone) {
        OperatorEntity o = em.createQuery("from OperatorEntity o", OperatorEntity.class)
                .getResultStream()
                .findFirst()
                .orElse(null);
        if (o == null) {
            o = new OperatorEntity(UUID.randomUUID(), name, jurisdiction, zone.getId(), phone);
            em.persist(o);
        } else {
            o.name = name;
            o.jurisdiction = jurisdiction;
            o.zone = zone.getId();
            o.phone = phone;
        }
        em.flush();
        restored();
        return o.id;
    }

    /** Has what rests on the operator follow. */
    void restored() {
        operator.changed();
    }

    // --- rate limit on signing in; counted in the database, so that several nodes count together
    // ----------------------

    @Transactional
    void failedLogin(String login, String address) {
        Instant now = clock.instant();
        jdbc.sql("delete from login_failure where failed_at < ?")
                .param(java.sql.Timestamp.from(now.minus(Duration.ofDays(1))))
                .update();
        jdbc.sql("insert into login_failure (login, address, failed_at) values (?, ?, ?)")
                .params(plain(login), cut(address), java.sql.Timestamp.from(now))
                .update();
    }

    /** Counted for a name from an address, so that nobody shuts another out, and for an address whatever the name. */
    @Transactional(readOnly = true)
    boolean tooManyFailures(String login, String address) {
        java.sql.Timestamp since = java.sql.Timestamp.from(clock.instant().minus(FAILURE_WINDOW));
        int forLogin = jdbc.sql("select count(*) from login_failure where login = ? and address = ? and failed_at > ?")
                .params(plain(login), cut(address), since)
                .query(Integer.class)
                .single();
        int forAddress = jdbc.sql("select count(*) from login_failure where address = ? and failed_at > ?")
                .params(cut(address), since)
                .query(Integer.class)
                .single();
        return forLogin >= FAILURES_PER_LOGIN || forAddress >= FAILURES_PER_ADDRESS;
    }

    /** A name as it is looked up: blanks around it and the size of its letters say nothing. */
    private static String plain(String login) {
        return cut(login.strip().toLowerCase(java.util.Locale.ROOT));
    }

    private static String cut(String s) {
        return s.length() > 64 ? s.substring(0, 64) : s;
    }
}
