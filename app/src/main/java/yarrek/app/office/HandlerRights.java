package yarrek.app.office;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.security.authorization.AuthorizationDecision;
import org.springframework.security.authorization.AuthorizationManager;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.web.access.intercept.RequestAuthorizationContext;
import org.springframework.stereotype.Component;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerExecutionChain;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import org.springframework.web.util.ServletRequestPathUtils;
import yarrek.app.page.OpenTo;

/**
 * Who may ask for an address: those to whom its handler says it is open. Decided before anything of a request is read. Where
 * no handler answers, whoever is signed in may hear so.
 */
@Component
class HandlerRights implements AuthorizationManager<RequestAuthorizationContext> {
    private static final String ROLE = "ROLE_";

    private final ObjectProvider<RequestMappingHandlerMapping> mappings;

    HandlerRights(ObjectProvider<RequestMappingHandlerMapping> mappings) {
        this.mappings = mappings;
    }

    @Override
    public AuthorizationDecision authorize(
            Supplier<? extends Authentication> who, RequestAuthorizationContext context) {
        Optional<HandlerMethod> handler = handler(context.getRequest());
        return new AuthorizationDecision(
                handler.isEmpty() ? allows(OpenTo.Whom.SIGNED_IN, who.get()) : allows(handler.get(), who.get()));
    }

    private Optional<HandlerMethod> handler(HttpServletRequest request) {
        try {
            ServletRequestPathUtils.parseAndCache(request);
            HandlerExecutionChain chain = mappings.stream()
                    .filter(m -> m.getClass() == RequestMappingHandlerMapping.class)
                    .findFirst()
                    .orElseThrow()
                    .getHandler(request);
            return chain != null && chain.getHandler() instanceof HandlerMethod m ? Optional.of(m) : Optional.empty();
        } catch (Exception e) {
            return Optional.empty(); // no such method or type there: the dispatcher will say so to who is signed in
        }
    }

    private static boolean allows(HandlerMethod handler, Authentication who) {
        OpenTo open = handler.getMethodAnnotation(OpenTo.class);
        return open != null && allows(open.value(), who);
    }

    private static boolean allows(OpenTo.Whom open, Authentication who) {
        return open == OpenTo.Whom.ANYBODY
                || who.getAuthorities().stream()
                        .map(GrantedAuthority::getAuthority)
                        .anyMatch(a -> a != null && a.startsWith(ROLE) && open.includes(a.substring(ROLE.length())));
    }
}
