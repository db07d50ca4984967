package yarrek.app.office;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;

/** Logins, tokens and the operator. */
@Service
public class Office implements UserDetailsService {
    static final String UNNAMED = "Your operator";

    private static final Duration FAILURE_WINDOW = Duration.ofMinutes(5);
    private static final int FAILURES_PER_LOGIN = 8;
    private static final int FAILURES_PER_ADDRESS = 40;

    /** A name tried wrongly more often than this, from wherever, is answered more slowly with each try. */
    private static final int FREE_FAILURES = 12;

    private static final Duration SLOWER = Duration.ofMillis(250);
    private static final Duration SLOWEST = Duration.ofSeconds(3);

    /** The operator as others see it. */
    public record OperatorView(UUID id, long version, String name, String jurisdiction, ZoneId zone, String phone) {}

    /** A login in a list. */
    public record UserRow(
            UUID id, long version, String login, String name, Viewer.Role role, UUID personId, boolean enabled) {

        public String roleWords() {
            return role.name().toLowerCase(Locale.ROOT);
        }

        /** A pilot's login that belongs to nobody sees nothing. */
        public boolean lacksPerson() {
            return role == Viewer.Role.PILOT && personId == null;
        }

        public String standing() {
            return enabled ? "open" : "closed";
        }
    }

    private final EntityManager em;
    private final PasswordEncoder encoder;
    private final Clock clock;
    private final JdbcClient jdbc;
    private final PasswordRules passwords;
    private final Held<OperatorView> operator;

    Office(
            EntityManager em,
            PasswordEncoder encoder,
            Clock clock,
            JdbcClient jdbc,
            PasswordRules passwords,
            Stamps stamps) {
        this.em = em;
        this.encoder = encoder;
        this.clock = clock;
        this.jdbc = jdbc;
        this.passwords = passwords;
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

    /**
     * @param personId the member of the crew it belongs to; a pilot's must have one
     * @throws IllegalArgumentException when the login is taken, the password too easy, or a pilot's person missing
     */
    @Transactional
    public UUID createUser(String login, String name, String password, Viewer.Role role, UUID personId) {
        passwords.check(password, login, name);
        return create(login, name, password, role, personId).id;
    }

    /** A login of the sample world, whose password is told on the page for signing in. */
    @Transactional
    public UUID createDemoUser(String login, String name, Viewer.Role role, UUID personId) {
        return create(login, name, login + "-demo", role, personId).id;
    }

    /** The first of all, with a password that the program made and that stands in a file until it is changed. */
    @Transactional
    UUID createFirst(String login, String name, String password) {
        AppUser first = create(login, name, password, Viewer.Role.MANAGER, null);
        first.passwordFromProgram = true;
        return first.id;
    }

    private AppUser create(String login, String name, String password, Viewer.Role role, UUID personId) {
        boolean taken = em.createQuery("select count(u) from app_user u where u.login = :l", Long.class)
                        .setParameter("l", login.strip())
                        .getSingleResult()
                > 0;
        if (taken) {
            throw new IllegalArgumentException("the login “" + login + "” is taken");
        }
        needsPerson(role, personId);
        AppUser user =
                new AppUser(UUID.randomUUID(), login, name, encoder.encode(password), role, personId, clock.instant());
        em.persist(user);
        return user;
    }

    private static void needsPerson(Viewer.Role role, UUID personId) {
        if (role == Viewer.Role.PILOT && personId == null) {
            throw new IllegalArgumentException(
                    "a pilot's login sees what belongs to one member of the crew; say to whom it belongs");
        }
    }

    @Transactional(readOnly = true)
    public List<UserRow> users() {
        return em.createQuery("from app_user u order by u.login", AppUser.class)
                .getResultStream()
                .map(Office::row)
                .toList();
    }

    /** @throws NotFoundException when there is none */
    @Transactional(readOnly = true)
    public UserRow user(UUID id) {
        return row(found(id));
    }

    private static UserRow row(AppUser u) {
        return new UserRow(u.id, u.version, u.login, u.name, u.role, u.personId, u.enabled);
    }

    private AppUser found(UUID id) {
        AppUser user = em.find(AppUser.class, id);
        if (user == null) {
            throw new NotFoundException("login");
        }
        return user;
    }

    /**
     * Name, role and person of a login; what it may do changes at once, for sessions that are open too.
     *
     * @throws LostUpdateException when somebody else changed it since {@code version}
     * @throws IllegalArgumentException when a pilot's person is missing
     */
    @Transactional
    public void changeUser(UUID id, long version, String name, Viewer.Role role, UUID personId) {
        AppUser u = found(id);
        if (u.version != version) {
            throw new LostUpdateException(u.version);
        }
        needsPerson(role, personId);
        boolean otherRights = u.role != role || !Objects.equals(u.personId, personId);
        u.name = name;
        u.role = role;
        u.personId = personId;
        if (otherRights) {
            endSessions(u);
        }
    }

    @Transactional
    public void setEnabled(UUID userId, boolean enabled) {
        AppUser user = found(userId);
        user.enabled = enabled;
        if (!enabled) {
            endSessions(user);
        }
    }

    /** Has every session of a login end: whoever is shut out is so at once, not when the session runs out. */
    void endSessions(AppUser user) {
        user.sessionEpoch++;
        jdbc.sql("delete from SPRING_SESSION where PRINCIPAL_NAME = ?")
                .param(user.login)
                .update();
    }

    @Transactional
    public void endSessions(UUID userId) {
        endSessions(found(userId));
    }

    /** Whether a session of this login still holds. */
    @Transactional(readOnly = true)
    public boolean holds(Viewer viewer) {
        return jdbc.sql("select count(*) from app_user where id = ? and enabled and session_epoch = ?")
                        .params(viewer.userId(), viewer.epoch())
                        .query(Integer.class)
                        .single()
                == 1;
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

    /** Whether somebody has said who the operator is; it is made without a name with the first login. */
    @Transactional(readOnly = true)
    public boolean isSetUp() {
        return !operator().name().equals(UNNAMED);
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
                        o.id, o.version, o.name, o.jurisdiction, ZoneId.of(o.zone), o.phone == null ? "" : o.phone))
                .orElseThrow(() -> new NotFoundException("operator"));
    }

    /** Sets the operator up or changes it. */
    @Transactional
    public UUID saveOperator(long version, String name, String jurisdiction, ZoneId zone, String phone) {
        OperatorEntity o = em.createQuery("from OperatorEntity o", OperatorEntity.class)
                .getResultStream()
                .findFirst()
                .orElse(null);
        if (o == null) {
            o = new OperatorEntity(UUID.randomUUID(), name, jurisdiction, zone.getId(), phone);
            em.persist(o);
        } else {
            if (o.version != version) {
                throw new LostUpdateException(o.version);
            }
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

    /** How long the answer to a try is held back, by how often the name was tried wrongly from any address. */
    @Transactional(readOnly = true)
    public Duration slowness(String login) {
        int wrong = jdbc.sql("select count(*) from login_failure where login = ? and failed_at > ?")
                .params(plain(login), java.sql.Timestamp.from(clock.instant().minus(FAILURE_WINDOW)))
                .query(Integer.class)
                .single();
        Duration slow = SLOWER.multipliedBy(Math.max(0, wrong - FREE_FAILURES));
        return slow.compareTo(SLOWEST) < 0 ? slow : SLOWEST;
    }

    /** A name as it is looked up: blanks around it and the size of its letters say nothing. */
    private static String plain(String login) {
        return cut(login.strip().toLowerCase(Locale.ROOT));
    }

    private static String cut(String s) {
        return s.length() > 64 ? s.substring(0, 64) : s;
    }
}
