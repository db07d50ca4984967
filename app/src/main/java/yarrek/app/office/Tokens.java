package yarrek.app.office;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;

/** Tokens by which programs ask in the name of a login: with its rights or to read only, until a day. */
@Service
public class Tokens {
    public static final int MOST_DAYS = 366;

    /** A token in a list; the token itself is shown once and not kept. */
    public record Row(
            UUID id,
            UUID userId,
            String name,
            String owner,
            boolean mayWrite,
            Instant madeAt,
            Instant endsAt,
            String standing) {
        public boolean isOpen() {
            return "open".equals(standing);
        }

        public String scope() {
            return mayWrite ? "reads and writes" : "reads";
        }
    }

    /** Who asks by a token. */
    public record Bearer(Viewer viewer, boolean mayWrite) {}

    private final EntityManager em;
    private final Clock clock;

    Tokens(EntityManager em, Clock clock) {
        this.em = em;
        this.clock = clock;
    }

    /**
     * @param days it holds, 1 to {@value #MOST_DAYS}
     * @return the only time it is seen
     * @throws IllegalArgumentException for a name or days it cannot have
     */
    @Transactional
    public String make(UUID userId, String name, boolean mayWrite, int days) {
        if (name.isBlank() || name.strip().length() > 80) {
            throw new IllegalArgumentException("say in at most 80 characters what the token is for");
        }
        if (days < 1 || days > MOST_DAYS) {
            throw new IllegalArgumentException("a token holds 1 to " + MOST_DAYS + " days");
        }
        String token = "yrk_" + Secret.text();
        Instant now = clock.instant();
        em.persist(new ApiToken(
                UUID.randomUUID(),
                userId,
                name.strip(),
                mayWrite,
                Secret.hash(token),
                now,
                now.plus(Duration.ofDays(days))));
        return token;
    }

    /** @throws NotFoundException when there is none, or it is another's and the viewer no manager */
    @Transactional
    public void revoke(UUID id, Viewer viewer) {
        ApiToken token = em.find(ApiToken.class, id);
        if (token == null || (!viewer.isManager() && !token.userId.equals(viewer.userId()))) {
            throw new NotFoundException("token");
        }
        token.revokedAt = clock.instant();
    }

    /** All for a manager, else the viewer's own; the newest first. */
    @Transactional(readOnly = true)
    public List<Row> of(Viewer viewer, boolean everybodys) {
        return em.createQuery(
                        "select t, u.login from api_token t join app_user u on u.id = t.userId order by t.createdAt desc",
                        Object[].class)
                .getResultStream()
                .map(r -> row((ApiToken) r[0], (String) r[1]))
                .filter(t -> (everybodys && viewer.isManager()) || t.userId().equals(viewer.userId()))
                .toList();
    }

    private Row row(ApiToken t, String owner) {
        return new Row(t.id, t.userId, t.name, owner, t.mayWrite, t.createdAt, t.endsAt, standing(t));
    }

    private String standing(ApiToken t) {
        return t.revokedAt != null
                ? "revoked"
                : t.endsAt != null && !t.endsAt.isAfter(clock.instant()) ? "ended" : "open";
    }

    /** The login behind a token that is neither revoked nor over nor of a closed login. */
    @Transactional(readOnly = true)
    public Optional<Bearer> bearer(String token) {
        return em.createQuery(
                        "select t, u from api_token t join app_user u on u.id = t.userId where t.tokenHash = :h and u.enabled",
                        Object[].class)
                .setParameter("h", Secret.hash(token))
                .getResultStream()
                .findFirst()
                .filter(r -> "open".equals(standing((ApiToken) r[0])))
                .map(r -> new Bearer(((AppUser) r[1]).viewer(), ((ApiToken) r[0]).mayWrite));
    }
}
