package yarrek.app.page;

import java.io.Serializable;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.core.userdetails.UserDetails;

/**
 * Who is signed in, and what they may see. A pilot sees the jobs they crew, their own papers and their own flights; a
 * reader sees everything and changes nothing; the manager does all.
 *
 * @param personId the member of the crew behind the login; null when there is none
 * @param epoch of the login when this one signed in; a session of an earlier one is over
 */
public record Viewer(
        UUID userId,
        String login,
        String name,
        String passwordHash,
        Role role,
        UUID personId,
        boolean enabled,
        int epoch)
        implements UserDetails, Serializable {

    /** What a login may do. */
    public enum Role {
        MANAGER,
        PILOT,
        READER
    }

    /** @throws AccessDeniedException when nobody is signed in */
    public static Viewer current() {
        return found().orElseThrow(() -> new AccessDeniedException("sign in first"));
    }

    /** Who is signed in; empty where the program works by itself. */
    public static Optional<Viewer> found() {
        var authentication = SecurityContextHolder.getContext().getAuthentication();
        return authentication != null && authentication.getPrincipal() instanceof Viewer v
                ? Optional.of(v)
                : Optional.empty();
    }

    public boolean isReader() {
        return role == Role.READER;
    }

    public boolean isManager() {
        return role == Role.MANAGER;
    }

    public boolean isPilot() {
        return role == Role.PILOT;
    }

    /** Whether this viewer may see something that belongs to these members of the crew. */
    public boolean maySee(UUID... personIds) {
        if (role != Role.PILOT) {
            return true;
        }
        for (UUID id : personIds) {
            if (id != null && id.equals(personId)) {
                return true;
            }
        }
        return false;
    }

    /** @throws AccessDeniedException for a pilot's login that belongs to nobody: whatever it stored would be nobody's */
    public void requirePerson() {
        if (isPilot() && personId == null) {
            throw new AccessDeniedException("this login belongs to no member of the crew");
        }
    }

    /** @throws AccessDeniedException when the viewer may not see it */
    public void requireSight(UUID... personIds) {
        if (!maySee(personIds)) {
            throw new AccessDeniedException("not yours to see");
        }
    }

    @Override
    public Collection<? extends GrantedAuthority> getAuthorities() {
        return List.of(new SimpleGrantedAuthority("ROLE_" + role));
    }

    @Override
    public String getPassword() {
        return passwordHash;
    }

    @Override
    public String getUsername() {
        return login;
    }

    @Override
    public boolean isEnabled() {
        return enabled;
    }
}
