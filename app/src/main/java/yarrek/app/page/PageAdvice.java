package yarrek.app.page;

import jakarta.persistence.PersistenceException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.core.env.Environment;
import org.springframework.core.env.Profiles;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;

/** What every page needs, and what is shown when something is wrong. */
@ControllerAdvice(annotations = Controller.class)
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class PageAdvice {
    /** An entry of the rail. */
    record Tab(String path, String label, String key) {}

    private static final List<Tab> TABS = List.of(
            new Tab("/", "Today", "t"),
            new Tab("/jobs", "Jobs", "j"),
            new Tab("/airspace", "Airspace", "a"),
            new Tab("/fleet", "Fleet", "f"),
            new Tab("/crew", "Crew", "c"),
            new Tab("/papers", "Papers", "v"),
            new Tab("/packs", "Packs", "p"),
            new Tab("/flights", "Flights", "l"),
            new Tab("/incidents", "Incidents", "i"),
            new Tab("/rulebook", "Rulebook", "r"),
            new Tab("/office", "Office", "o"));

    private final boolean demo;

    PageAdvice(Environment environment) {
        this.demo = environment.acceptsProfiles(Profiles.of("demo"));
    }

    @ModelAttribute
    void common(Model model, HttpServletRequest request) {
        String path = request.getRequestURI();
        // approvals belong to jobs, and what is done in the background to the office
        String home = path.startsWith("/approvals") ? "/jobs" : path.startsWith("/work") ? "/office" : path;
        model.addAttribute("tabs", TABS);
        model.addAttribute("path", path);
        model.addAttribute("demo", demo);
        model.addAttribute(
                "activeTab",
                TABS.stream()
                        .map(Tab::path)
                        .filter(p -> p.equals("/") ? home.equals("/") : home.startsWith(p))
                        .findFirst()
                        .orElse(""));
        Viewer.found().ifPresent(v -> model.addAttribute("viewer", v));
    }

    @ExceptionHandler(NotFoundException.class)
    @ResponseStatus(HttpStatus.NOT_FOUND)
    String notFound(NotFoundException e, Model model, HttpServletRequest request) {
        return trouble(model, request, "Not here", "There is nothing here: " + e.getMessage() + ".");
    }

    @ExceptionHandler(MethodArgumentTypeMismatchException.class)
    @ResponseStatus(HttpStatus.NOT_FOUND)
    String badAddress(MethodArgumentTypeMismatchException e, Model model, HttpServletRequest request) {
        return trouble(
                model,
                request,
                "Not here",
                "This link is broken or old: “" + e.getValue() + "” names no record. Look for it from its list.");
    }

    @ExceptionHandler(MissingServletRequestParameterException.class)
    @ResponseStatus(HttpStatus.BAD_REQUEST)
    String notWhole(MissingServletRequestParameterException e, Model model, HttpServletRequest request) {
        return trouble(
                model,
                request,
                "This link is not whole",
                "It does not say “" + e.getParameterName() + "”. Begin from the list or the page it belongs to.");
    }

    @ExceptionHandler(AccessDeniedException.class)
    @ResponseStatus(HttpStatus.FORBIDDEN)
    String denied(Model model, HttpServletRequest request) {
        return trouble(
                model,
                request,
                "Not for this login",
                "Your role does not allow this. Ask the operations manager if it should.");
    }

    /** A form that was not sent as the page sends it, or that there was no room for. */
    @ExceptionHandler(MultipartException.class)
    String noFile(MultipartException e, Model model, HttpServletRequest request, HttpServletResponse response) {
        if (noRoom(e)) {
            response.setStatus(HttpServletResponse.SC_SERVICE_UNAVAILABLE);
            return trouble(
                    model,
                    request,
                    "The disk is full",
                    "There is no room for the file on the machine that Yarrek runs on. Nothing was stored. Tell whoever looks after it, and send the file once more when there is room.");
        }
        response.setStatus(HttpServletResponse.SC_BAD_REQUEST);
        return trouble(
                model,
                request,
                "No file came",
                "The request carries no file, or it broke off on the way. Nothing was stored. Go back, choose the file again, and send it once more.");
    }

    private static boolean noRoom(Throwable e) {
        return e != null
                && (String.valueOf(e.getMessage()).contains("No space left on device") || noRoom(e.getCause()));
    }

    @ExceptionHandler(MaxUploadSizeExceededException.class)
    @ResponseStatus(HttpStatus.CONTENT_TOO_LARGE)
    String tooLarge(Model model, HttpServletRequest request) {
        return trouble(
                model,
                request,
                "File too large",
                "The file is larger than 100 MB and was not taken. Nothing was stored. Cut the log into single flights, or leave out columns that are not needed, and try again.");
    }

    /** A button pressed by two: one was first, and what the other meant to do may not be wanted any more. */
    @ExceptionHandler(ConcurrencyFailureException.class)
    @ResponseStatus(HttpStatus.CONFLICT)
    String atOnce(Model model, HttpServletRequest request) {
        return trouble(
                model,
                request,
                "Somebody else was first",
                "Somebody else changed the same at the same moment. Nothing of yours was stored. Go back, load the page again, and do it once more if it is still wanted.");
    }

    @ExceptionHandler(DataIntegrityViolationException.class)
    @ResponseStatus(HttpStatus.CONFLICT)
    String already(Model model, HttpServletRequest request) {
        return trouble(
                model,
                request,
                "It is there already",
                "Somebody stored the same a moment ago, or what it belongs to is gone. Nothing was stored a second time. Go back and load the page again.");
    }

    @ExceptionHandler(PersistenceException.class)
    String written(PersistenceException e, Model model, HttpServletRequest request, HttpServletResponse response) {
        RuntimeException said = AtOnce.said(e);
        if (!(said instanceof ConcurrencyFailureException) && !(said instanceof DataIntegrityViolationException)) {
            throw said;
        }
        response.setStatus(HttpServletResponse.SC_CONFLICT);
        return said instanceof ConcurrencyFailureException ? atOnce(model, request) : already(model, request);
    }

    private String trouble(Model model, HttpServletRequest request, String title, String message) {
        common(model, request);
        model.addAttribute("title", title);
        model.addAttribute("message", message);
        return "trouble";
    }
}
