package yarrek.app.chains;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.mail.MailException;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.stereotype.Component;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Granters;
import yarrek.app.approvals.Kinds;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Show;
import yarrek.app.print.Pdf;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.ApprovalState;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;

/** How a request leaves: what speaks against it, by mail, or by hand; all ways pass the same gates. */
@Component
public class Sending {
    private static final Logger LOG = LoggerFactory.getLogger(Sending.class);

    /** A message as it leaves. */
    public record Letter(String to, String subject, String text) implements java.io.Serializable {
        /** The beginning under which one that went out is kept. */
        private static final String TO = "To: ";

        String kept() {
            return TO + to + "\nSubject: " + subject + "\n\n" + text;
        }
    }

    private final Approvals approvals;
    private final Kinds kinds;
    private final Granters granters;
    private final Covers covers;
    private final Applications applications;
    private final Jobs jobs;
    private final Office office;
    private final Show show;
    private final JavaMailSender mail;
    private final Clock clock;
    private final String from;

    Sending(
            Approvals approvals,
            Kinds kinds,
            Granters granters,
            Covers covers,
            Applications applications,
            Jobs jobs,
            Office office,
            Show show,
            JavaMailSender mail,
            Clock clock,
            @Value("${yarrek.mail.from}") String from) {
        this.approvals = approvals;
        this.kinds = kinds;
        this.granters = granters;
        this.covers = covers;
        this.applications = applications;
        this.jobs = jobs;
        this.office = office;
        this.show = show;
        this.mail = mail;
        this.clock = clock;
        this.from = from;
    }

    /** What speaks against sending it now, by whatever way; empty when nothing does. */
    public List<String> against(Approvals.ApprovalView a) {
        List<String> against = new ArrayList<>();
        Terms t = a.request();
        if (t.window().isEmpty()) {
            against.add("the request names no start and end");
        }
        if (t.drawnArea().isEmpty()) {
            against.add("the request names no area");
        }
        if (t.ceilingM() == null) {
            against.add("the request names no height");
        }
        if (t.aircraft().isEmpty()) {
            against.add("the request names no aircraft");
        }
        ApprovalKind k = kinds.row(a.kind()).kind();
        for (Approvals.ApprovalView r : covers.restsOn(a)) {
            if (k.quotes().contains(r.kind()) && !t.quotes().contains(r.reference())) {
                against.add("it does not quote " + r.reference() + " (" + r.title() + ")");
            }
        }
        approvals.of(a.jobId()).stream()
                .filter(o -> k.needs().contains(o.kind()) || k.after().contains(o.kind()))
                .filter(o -> !o.state().isHeld() && o.state() != ApprovalState.WITHDRAWN)
                .filter(o -> !o.firstDay().isAfter(a.lastDay()) && !a.firstDay().isAfter(o.lastDay()))
                .forEach(o ->
                        against.add("“" + o.title() + "” is " + o.state().words() + "; it has to be granted first"));
        if (k.unlock()) {
            covers.compare(a)
                    .forEach((approval, lines) -> lines.stream()
                            .filter(l -> l.state() == Cover.State.MISSING)
                            .forEach(l -> against.add(l.field() + " does not fit " + approval + ": " + l.words())));
        }
        return against;
    }

    /** What the application leaves open: it may go all the same, for a reason. */
    public List<String> openQuestions(Approvals.ApprovalView a) {
        List<Applications.Answer> open = applications.answers(a).stream()
                .filter(Applications.Answer::isOpen)
                .toList();
        if (open.isEmpty()) {
            return List.of();
        }
        String numbers = open.stream()
                .map(x -> x.question().number())
                .filter(n -> !n.isEmpty())
                .collect(Collectors.joining(", "));
        return List.of((open.size() == 1
                        ? "1 question of the application is open"
                        : open.size() + " questions of the application are open")
                + (numbers.isEmpty() ? "" : ", number " + numbers));
    }

    /**
     * Has every gate passed before one or more requests are said to be sent.
     *
     * @param why the reason for sending all the same; empty when there is none
     * @return what is kept with the reason; empty when nothing speaks against it
     * @throws IllegalArgumentException when something does and no reason is given
     */
    public String pass(Collection<UUID> ids, String why) {
        List<String> against = new ArrayList<>();
        for (UUID id : ids) {
            Approvals.ApprovalView a = approvals.approval(id);
            against.addAll(against(a));
            against.addAll(openQuestions(a));
        }
        if (against.isEmpty()) {
            return "";
        }
        String all = against.stream().distinct().collect(Collectors.joining("; "));
        if (why.isBlank()) {
            throw new IllegalArgumentException(
                    all + ". If it is to go, or went, all the same, say why; that is kept with it");
        }
        return "although " + all;
    }

    /** The address on file for this granter, else where the last message to it went; empty when neither is known. */
    private Optional<String> addressOf(String granter) {
        return granters.of(granter)
                .map(Granters.Granter::email)
                .filter(e -> !e.isEmpty())
                .or(() -> lastAddress(granter));
    }

    /** Where the last message to this granter went; empty when none did. */
    private Optional<String> lastAddress(String granter) {
        return approvals
                .lastTo(granter, Letter.TO)
                .map(t -> t.lines().findFirst().orElse("").substring(Letter.TO.length()));
    }

    /** A message to begin with, addressed as is on file or as the last one to the same granter was. */
    public Letter begun(Approvals.ApprovalView a) {
        Jobs.JobView job = jobs.jobUnchecked(a.jobId());
        return new Letter(
                addressOf(a.granter()).orElse(""),
                a.title() + ", " + job.site().name() + ", " + show.days(a.firstDay(), a.lastDay()),
                "To " + a.granter() + ",\n\nplease find attached our application for the above.\n"
                        + (a.request().quotes().isEmpty()
                                ? ""
                                : "It goes with "
                                        + String.join(", ", a.request().quotes()) + ".\n")
                        + "\n" + office.operator().name()
                        + (office.operator().phone().isEmpty()
                                ? ""
                                : "\n" + office.operator().phone()));
    }

    /**
     * Sends the application to the granter as the request stands, in a version made for it, and notes that it went.
     *
     * @param also other requests that the same letter asks for
     * @return what came of it, in words
     * @throws IllegalArgumentException when a gate is not passed, the address is none, or the mail server does not take it;
     *     nothing is noted then
     */
    public String byMail(UUID approvalId, Collection<UUID> also, Letter letter, String why, String by) {
        List<UUID> all = new ArrayList<>(List.of(approvalId));
        all.addAll(also);
        // what could not be noted afterwards must not leave
        for (UUID id : all) {
            Approvals.ApprovalView a = approvals.approval(id);
            if (!a.state().may(ApprovalState.SENT)) {
                throw new IllegalArgumentException(
                        "“" + a.title() + "” is " + a.state().words() + " already; nothing was sent");
            }
        }
        String although = pass(all, why);
        Letter clean = new Letter(
                address(letter.to()),
                letter.subject().replaceAll("\\p{Cntrl}+", " ").strip(),
                letter.text().strip());
        if (clean.subject().isEmpty() || clean.text().isEmpty()) {
            throw new IllegalArgumentException("a message has a subject and a text");
        }
        Applications.Made made = applications.made(applications.make(approvalId, Pdf.Sheet.of("a4"), by), true);
        if (made.content().length > Approvals.MOST_FILE_BYTES) {
            throw new IllegalArgumentException(
                    "the application has more than 20 MB with its annexes, which hardly any mailbox takes");
        }
        send(approvalId, clean, made, by);
        try {
            approvals.wentOut(
                    all,
                    clock.instant(),
                    clean.kept(),
                    "application-" + made.number() + ".pdf",
                    made.content(),
                    although.isEmpty() ? why : why + " (" + although + ")",
                    by);
        } catch (RuntimeException e) {
            LOG.error("the message for {} left and could not be noted", approvalId, e);
            return "It left for " + clean.to()
                    + ", but noting it failed. Do not send it again; say under State that it is sent.";
        }
        return "Sent to " + clean.to() + ". Replies are filed here when the message is brought in as a file.";
    }

    private static String address(String typed) {
        try {
            InternetAddress a = new InternetAddress(typed.strip(), true);
            a.validate();
            return a.getAddress();
        } catch (AddressException e) {
            throw new IllegalArgumentException("“" + typed + "” is no mail address", e);
        }
    }

    private void send(UUID approvalId, Letter letter, Applications.Made made, String by) {
        try {
            MimeMessage m = mail.createMimeMessage();
            MimeMessageHelper h = new MimeMessageHelper(m, true, StandardCharsets.UTF_8.name());
            h.setFrom(from, office.operator().name() + ", " + by);
            h.setTo(letter.to());
            h.setSubject(letter.subject());
            h.setText(letter.text());
            h.addAttachment(
                    "application-" + made.number() + ".pdf", new ByteArrayResource(made.content()), "application/pdf");
            // replies name it, and so find their request
            m.setHeader("Message-ID", ReceivedMail.idOf(approvalId, made.number()));
            mail.send(m);
        } catch (MailException | MessagingException | java.io.UnsupportedEncodingException e) {
            throw new IllegalArgumentException(
                    "the mail server did not take it: "
                            + String.valueOf(e.getMessage()).lines().findFirst().orElse("")
                            + ". Nothing was noted; try again, or send it yourself and say so",
                    e);
        }
    }
}
