package yarrek.app.office;

import java.io.Serializable;
import java.util.UUID;
import org.springframework.security.core.AuthenticatedPrincipal;

/** Whose password was right and whose code is still to come: no viewer, so nothing is open to it but the page for the code. */
record HalfSignedIn(UUID userId, String login) implements AuthenticatedPrincipal, Serializable {
    /** No role: nothing that asks for one lets it pass. */
    static final String AUTHORITY = "HALF";

    @Override
    public String getName() {
        return login;
    }
}
