package yarrek.app.office;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;

/** Signing in: password, code, and a new password for who has forgotten the old one. */
@Controller
class SignInController {
    private final Office office;
    private final SecondFactor second;
    private final Passwords passwords;
    private final HttpSessionSecurityContextRepository contexts = new HttpSessionSecurityContextRepository();

    SignInController(Office office, SecondFactor second, Passwords passwords) {
        this.office = office;
        this.second = second;
        this.passwords = passwords;
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping("/login")
    String login() {
        return "login/login";
    }

    private static Optional<HalfSignedIn> half() {
        Authentication a = SecurityContextHolder.getContext().getAuthentication();
        return a != null && a.getPrincipal() instanceof HalfSignedIn h ? Optional.of(h) : Optional.empty();
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping("/login/code")
    String code() {
        return half().isPresent() ? "login/code" : "redirect:/login";
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @PostMapping("/login/code")
    void code(@RequestParam("code") String code, HttpServletRequest request, HttpServletResponse response)
            throws IOException, ServletException {
        Optional<HalfSignedIn> half = half();
        if (half.isEmpty()) {
            response.sendRedirect("/login");
            return;
        }
        String login = half.get().login();
        if (office.tooManyFailures(login, request.getRemoteAddr())) {
            response.sendRedirect("/login/code?wait");
            return;
        }
        Optional<Viewer> viewer = office.viewer(half.get().userId());
        if (viewer.isEmpty() || !second.opens(half.get().userId(), code)) {
            office.failedLogin(login, request.getRemoteAddr());
            response.sendRedirect("/login/code?wrong");
            return;
        }
        request.changeSessionId();
        SecurityConfig.SIGNED_IN.onAuthenticationSuccess(request, response, signIn(viewer.get(), request, response));
    }

    /** Has the session be that of a viewer from now on. */
    Authentication signIn(Viewer viewer, HttpServletRequest request, HttpServletResponse response) {
        Authentication whole = UsernamePasswordAuthenticationToken.authenticated(viewer, null, viewer.getAuthorities());
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(whole);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        return whole;
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping("/login/forgotten")
    String forgotten() {
        return "login/forgotten";
    }

    /** Told the same whether there is such a login or not. */
    @OpenTo(OpenTo.Whom.ANYBODY)
    @PostMapping("/login/forgotten")
    String forgotten(@RequestParam("login") String login) {
        passwords.forgotten(login);
        return "redirect:/login/forgotten?asked";
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping("/login/new-password")
    String newPassword(@RequestParam("link") String link, Model model, HttpServletResponse response) {
        response.setHeader("Referrer-Policy", "no-referrer"); // the address is the secret
        model.addAttribute("link", link);
        model.addAttribute("login", passwords.loginBehind(link).orElse(null));
        model.addAttribute("hint", PasswordRules.HINT);
        return "login/new-password";
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @PostMapping("/login/new-password")
    String newPassword(
            @RequestParam("link") String link,
            @RequestParam("password") String password,
            Model model,
            HttpServletResponse response) {
        try {
            passwords.setBy(link, password);
            return "redirect:/login?set";
        } catch (IllegalArgumentException e) {
            response.setStatus(HttpServletResponse.SC_UNPROCESSABLE_CONTENT);
            model.addAttribute("problem", e.getMessage());
            return newPassword(link, model, response);
        }
    }
}
