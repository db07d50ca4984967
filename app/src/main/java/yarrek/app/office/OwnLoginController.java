package yarrek.app.office;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.print.QrCode;

/** What everybody settles for their own login: password, second factor, tokens. */
@Controller
class OwnLoginController {
    private static final String PAGE = "redirect:/me";
    private static final int USUAL_DAYS = 90;

    private final Office office;
    private final Passwords passwords;
    private final SecondFactor second;
    private final Tokens tokens;
    private final SignInController signIn;

    OwnLoginController(
            Office office, Passwords passwords, SecondFactor second, Tokens tokens, SignInController signIn) {
        this.office = office;
        this.passwords = passwords;
        this.second = second;
        this.tokens = tokens;
        this.signIn = signIn;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/me")
    String me(Model model) {
        Viewer viewer = Viewer.current();
        UUID id = viewer.userId();
        model.addAttribute("hint", PasswordRules.HINT);
        model.addAttribute("fromProgram", passwords.isFromProgram(id));
        model.addAttribute("secondOn", second.isOn(id));
        model.addAttribute("codesLeft", second.recoveryCodesLeft(id));
        second.pending(id).ifPresent(secret -> {
            model.addAttribute("secret", secret.replaceAll("(.{4})(?!$)", "$1 "));
            model.addAttribute("qr", QrCode.of(SecondFactor.address(viewer.login(), secret)));
        });
        model.addAttribute("tokens", tokens.of(viewer, false));
        model.addAttribute("zone", office.operator().zone());
        model.addAttribute("usualDays", USUAL_DAYS);
        model.addAttribute("mostDays", Tokens.MOST_DAYS);
        return "office/me";
    }

    /** Other sessions of the login end; this one goes on. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/me/password")
    String password(
            @RequestParam("old") String old,
            @RequestParam("password") String fresh,
            HttpServletRequest request,
            HttpServletResponse response,
            RedirectAttributes flash) {
        Viewer viewer = Viewer.current();
        if (office.tooManyFailures(viewer.login(), request.getRemoteAddr())) {
            return told(flash, "passwordProblem", "too many wrong passwords; wait five minutes");
        }
        Viewer now;
        try {
            now = passwords.change(viewer.userId(), old, fresh);
        } catch (WrongPasswordException e) {
            office.failedLogin(viewer.login(), request.getRemoteAddr());
            return told(flash, "passwordProblem", e.getMessage());
        } catch (IllegalArgumentException e) {
            return told(flash, "passwordProblem", e.getMessage());
        }
        request.getSession().invalidate();
        signIn.signIn(now, request, response);
        return told(flash, "done", "The password is changed. Every other session of this login is over.");
    }

    private static String told(RedirectAttributes flash, String what, Object words) {
        flash.addFlashAttribute(what, words);
        return PAGE;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/me/second-factor")
    String begin() {
        second.begin(Viewer.current().userId());
        return PAGE;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/me/second-factor/confirm")
    String confirm(@RequestParam("code") String code, RedirectAttributes flash) {
        try {
            return told(flash, "recoveryCodes", second.confirm(Viewer.current().userId(), code));
        } catch (IllegalArgumentException e) {
            return told(flash, "codeProblem", e.getMessage());
        }
    }

    /** Asks for a code, so that a screen left open is not enough. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/me/second-factor/off")
    String off(@RequestParam("code") String code, HttpServletRequest request, RedirectAttributes flash) {
        Viewer viewer = Viewer.current();
        if (second.pending(viewer.userId()).isPresent()) {
            second.off(viewer.userId());
            return PAGE;
        }
        if (office.tooManyFailures(viewer.login(), request.getRemoteAddr())) {
            return told(flash, "codeProblem", "too many wrong codes; wait five minutes");
        }
        if (!second.opens(viewer.userId(), code)) {
            office.failedLogin(viewer.login(), request.getRemoteAddr());
            return told(flash, "codeProblem", "that is not the code of this moment, nor one of those on paper");
        }
        second.off(viewer.userId());
        return told(flash, "done", "No code is asked for any more.");
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/me/tokens")
    String token(
            @RequestParam("name") String name,
            @RequestParam(value = "write", defaultValue = "false") boolean write,
            @RequestParam("days") String days,
            RedirectAttributes flash) {
        try {
            int n = days.strip().matches("[0-9]{1,4}") ? Integer.parseInt(days.strip()) : 0;
            return told(flash, "newToken", tokens.make(Viewer.current().userId(), name, write, n));
        } catch (IllegalArgumentException e) {
            return told(flash, "tokenProblem", e.getMessage());
        }
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/me/tokens/{id}/revoke")
    String revoke(@PathVariable("id") UUID id) {
        tokens.revoke(id, Viewer.current());
        return PAGE;
    }
}
