package yarrek.app.reminders;

import java.util.UUID;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.mail.MailException;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;

/** A login's own calendar and mail; the calendar itself; the stand-in mailbox. */
@Controller
class NoticesController {
    private final Notices notices;
    private final Office office;
    private final ObjectProvider<StandInMailbox> mailbox;

    NoticesController(Notices notices, Office office, ObjectProvider<StandInMailbox> mailbox) {
        this.notices = notices;
        this.office = office;
        this.mailbox = mailbox;
    }

    private static String base() {
        return ServletUriComponentsBuilder.fromCurrentContextPath().toUriString();
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/notices")
    String notices(Model model) {
        UUID me = Viewer.current().userId();
        model.addAttribute("feeds", notices.feeds(me));
        model.addAttribute("wish", office.mailWish(me));
        model.addAttribute("zone", office.operator().zone());
        model.addAttribute("standIn", mailbox.getIfAvailable() != null);
        return "reminders/notices";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/notices/feeds")
    String feed(RedirectAttributes flash) {
        flash.addFlashAttribute(
                "newFeed",
                base() + "/feeds/" + notices.createFeed(Viewer.current().userId()) + ".ics");
        return "redirect:/notices";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/notices/feeds/{id}/revoke")
    String revoke(@PathVariable("id") UUID id) {
        notices.revokeFeed(Viewer.current().userId(), id);
        return "redirect:/notices";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/notices/mail")
    String mail(
            @RequestParam("email") String email,
            @RequestParam(value = "digest", required = false) String digest,
            RedirectAttributes flash) {
        try {
            office.saveMailWish(Viewer.current().userId(), email, digest != null);
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/notices";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/notices/mail/now")
    String now(RedirectAttributes flash) {
        try {
            notices.send(office.mailWish(Viewer.current().userId()));
            flash.addFlashAttribute("told", "The digest is on its way.");
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        } catch (MailException e) {
            flash.addFlashAttribute(
                    "problem",
                    "The mail server did not take it: "
                            + e.getMostSpecificCause().getMessage());
        }
        return "redirect:/notices";
    }

    /** The calendar; whoever has the address reads it. */
    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping("/feeds/{secret}.ics")
    ResponseEntity<String> calendar(@PathVariable("secret") String secret) {
        return notices.calendar(secret, base())
                .map(c -> ResponseEntity.ok()
                        .contentType(MediaType.parseMediaType("text/calendar;charset=UTF-8"))
                        .header("Cache-Control", "private, max-age=900")
                        .body(c))
                .orElseGet(() -> ResponseEntity.notFound().build());
    }

    /** Links for new passwords lie there too, so it is not for everybody. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/notices/mailbox")
    String mailbox(Model model) {
        StandInMailbox box = mailbox.getIfAvailable();
        if (box == null) {
            throw new NotFoundException("stand-in mailbox outside the demo");
        }
        model.addAttribute("mails", box.mails());
        model.addAttribute("zone", office.operator().zone());
        return "reminders/mailbox";
    }

    /** A message as it came, such as to be answered and the answer brought in. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/notices/mailbox/{id}.eml")
    ResponseEntity<byte[]> message(@PathVariable("id") long id) {
        StandInMailbox box = mailbox.getIfAvailable();
        if (box == null) {
            throw new NotFoundException("stand-in mailbox outside the demo");
        }
        return ResponseEntity.ok()
                .header("Content-Type", "message/rfc822")
                .header("X-Content-Type-Options", "nosniff")
                .header("Content-Disposition", "attachment; filename=\"message-" + id + ".eml\"")
                .body(box.message(id));
    }
}
