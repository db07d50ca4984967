package yarrek.app.office;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.envers.Audited;
import org.hibernate.envers.NotAudited;
import yarrek.app.page.Viewer;

/** A login. Invariant: login and name are not blank. */
@Audited
@Entity(name = "app_user")
class AppUser {
    @Id
    UUID id;

    @Version
    long version;

    String login;
    String name;

    @NotAudited
    String passwordHash;

    @Enumerated(EnumType.STRING)
    Viewer.Role role;

    UUID personId;
    boolean enabled;
    Instant createdAt;
    String email;
    boolean digest;

    /** A session of an earlier one is over. */
    @NotAudited
    int sessionEpoch;

    /** The password was made by the program and stands in a file. */
    @NotAudited
    boolean passwordFromProgram;

    protected AppUser() {} // for JPA only

    AppUser(
            UUID id,
            String login,
            String name,
            String passwordHash,
            Viewer.Role role,
            UUID personId,
            Instant createdAt) {
        if (login.isBlank() || name.isBlank()) {
            throw new IllegalArgumentException("login and name must not be blank");
        }
        this.id = id;
        this.login = login.strip();
        this.name = name.strip();
        this.passwordHash = passwordHash;
        this.role = role;
        this.personId = personId;
        this.enabled = true;
        this.createdAt = createdAt;
    }

    Viewer viewer() {
        return new Viewer(id, login, name, passwordHash, role, personId, enabled, sessionEpoch);
    }
}
