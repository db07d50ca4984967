package yarrek.app.chains;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.ContentDisposition;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Granters;
import yarrek.app.approvals.Kinds;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.Form;
import yarrek.app.forms.TypedInput;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Show;
import yarrek.app.page.Viewer;
import yarrek.app.print.Pdf;
import yarrek.core.approval.ApprovalState;
import yarrek.core.approval.UnlockLife;

/** Pages of one request: its state and letters, its terms, its unlock, its application. */
@Controller
class ApprovalsController {
    private static final int MOST_PACKS = 100;

    private final Approvals approvals;
    private final Kinds kinds;
    private final Granters granters;
    private final Chains chains;
    private final Covers covers;
    private final DeskClient desks;
    private final Sending sending;
    private final Applications applications;
    private final Jobs jobs;
    private final Fleet fleet;
    private final Crew crew;
    private final Show show;
    private final Clock clock;

    ApprovalsController(
            Approvals approvals,
            Kinds kinds,
            Granters granters,
            Chains chains,
            Covers covers,
            DeskClient desks,
            Sending sending,
            Applications applications,
            Jobs jobs,
            Fleet fleet,
            Crew crew,
            Show show,
            Clock clock) {
        this.show = show;
        this.approvals = approvals;
        this.kinds = kinds;
        this.granters = granters;
        this.chains = chains;
        this.covers = covers;
        this.desks = desks;
        this.sending = sending;
        this.applications = applications;
        this.jobs = jobs;
        this.fleet = fleet;
        this.crew = crew;
        this.clock = clock;
    }

    /** The request, when the viewer may see its job. */
    private Approvals.ApprovalView seen(UUID id) {
        Approvals.ApprovalView a = approvals.approval(id);
        jobs.job(a.jobId(), Viewer.current());
        return a;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/{id}")
    String approval(
            @PathVariable("id") UUID id, @RequestParam(value = "packs", defaultValue = "6") String packs, Model model) {
        Approvals.ApprovalView a = approvals.approval(id);
        Jobs.JobView job = jobs.job(a.jobId(), Viewer.current());
        Kinds.Row kind = kinds.row(a.kind());
        model.addAttribute("a", a);
        model.addAttribute("job", job);
        model.addAttribute("kind", kind.kind());
        model.addAttribute("state", a.stateOn(chains.today(), job.site().zone()));
        model.addAttribute("letters", approvals.letters(id));
        model.addAttribute(
                "history", approvals.histories().of(a.kind(), a.granter()).orElse(null));
        model.addAttribute(
                "waiting",
                chains.waiting(
                        a,
                        kind.kind(),
                        chains.calendar(a, job.site().jurisdiction()),
                        job.site().zone(),
                        approvals.histories()));
        model.addAttribute("next", next(a.state()));
        model.addAttribute("granter", granters.of(a.granter()).orElse(null));
        model.addAttribute(
                "terms",
                TermsShown.of(
                        a.reference(),
                        a.request(),
                        a.terms(),
                        a.state().isHeld(),
                        job.site().zone(),
                        show));
        model.addAttribute("besides", besides(a));
        model.addAttribute("onFile", approvals.lettersFor(id, chains.today()));
        model.addAttribute("versions", applications.versions(id));
        List<Applications.Answer> answers = applications.answers(a);
        model.addAttribute(
                "open", answers.stream().filter(Applications.Answer::isOpen).count());
        model.addAttribute("questions", answers.size());
        model.addAttribute("calls", desks.calls(id));
        if (a.state() == ApprovalState.PREPARING || a.state() == ApprovalState.ASKED_BACK) {
            model.addAttribute("against", sending.against(a));
            model.addAttribute("openQuestions", sending.openQuestions(a));
            if (!model.containsAttribute("letter")) {
                model.addAttribute("letter", sending.begun(a));
            }
        }
        if (kind.kind().unlock()) {
            model.addAttribute("compare", covers.compare(a));
            model.addAttribute("unlock", covers.unlock(a, packs(packs)));
            model.addAttribute("stages", UnlockLife.Stage.values());
        }
        return "chains/approval";
    }

    private static int packs(String typed) {
        return typed.matches("[1-9]\\d?") ? Math.min(MOST_PACKS, Integer.parseInt(typed)) : 6;
    }

    private static List<ApprovalState> next(ApprovalState s) {
        return java.util.Arrays.stream(ApprovalState.values())
                .filter(n -> s.may(n) && !n.isHeld())
                .toList();
    }

    // --- what is asked for, what was granted -------------------------------------------------------------------------

    /** Requests that a letter about this one may be about as well, in words by id; of others' jobs a pilot is told nothing. */
    private Map<String, String> besides(Approvals.ApprovalView a) {
        if (!Viewer.current().isManager()) {
            return Map.of();
        }
        List<Approvals.ApprovalView> all = approvals.besides(a.id(), chains.today());
        Map<UUID, String> names =
                jobs.names(all.stream().map(Approvals.ApprovalView::jobId).toList());
        Map<String, String> words = new LinkedHashMap<>();
        all.forEach(x -> words.put(
                x.id().toString(),
                names.get(x.jobId()) + ": " + x.title() + ", " + show.day(x.firstDay())
                        + (x.lastDay().equals(x.firstDay()) ? "" : " – " + show.day(x.lastDay())) + " ("
                        + x.state().words() + ")"));
        return words;
    }

    /** This request and the others of the same letter. */
    private List<UUID> withBesides(Approvals.ApprovalView a, List<UUID> also) {
        List<UUID> ids = new ArrayList<>(List.of(a.id()));
        Map<String, String> may = also.isEmpty() ? Map.of() : besides(a);
        for (UUID x : also) {
            if (!may.containsKey(x.toString())) {
                throw new IllegalArgumentException(
                        "a request named beside this one is not of the same granter and kind");
            }
            ids.add(x);
        }
        return ids;
    }

    private Form form(Approvals.ApprovalView a, boolean granted) {
        Map<String, String> craft = new LinkedHashMap<>();
        fleet.builds()
                .forEach(b -> craft.putIfAbsent(
                        b.aircraft().serial(),
                        b.aircraft().name() + ", serial " + b.aircraft().serial()));
        a.request().aircraft().forEach(s -> craft.putIfAbsent(s, "serial " + s));
        a.terms().aircraft().forEach(s -> craft.putIfAbsent(s, "serial " + s));
        return TermsForm.of(
                        (granted ? a.state().isHeld() ? "Amended: " : "Granted: " : "Asked for: ") + a.title(),
                        "/approvals/" + a.id() + (granted ? "/grant" : "/request"),
                        "/approvals/" + a.id(),
                        granted,
                        craft,
                        crew.all().stream().map(Crew.PersonView::name).toList(),
                        granted ? besides(a) : Map.of())
                .version(a.version());
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/{id}/request")
    String request(@PathVariable("id") UUID id, Model model) {
        return asked(id).page(model, "form");
    }

    private Form asked(UUID id) {
        Approvals.ApprovalView a = seen(id);
        Jobs.JobView job = jobs.job(a.jobId(), Viewer.current());
        return TermsForm.fill(form(a, false), a.request(), job.site().zone()).set("granter", a.granter());
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/request")
    String writeRequest(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        Approvals.ApprovalView a = seen(id);
        Form form = form(a, false).bind(params);
        String granter = form.requiredText("granter", 200);
        var terms = TermsForm.read(form, jobs.job(a.jobId(), Viewer.current()).site(), chains.today());
        return form.store(
                        () -> {
                            approvals.writeRequest(id, form.getVersion(), granter, terms);
                            return "redirect:/approvals/" + id;
                        },
                        () -> asked(id))
                .orElseGet(() -> form.page(model, "form"));
    }

    /** What the job says now in the place of what is asked for. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/request/anew")
    String anew(@PathVariable("id") UUID id, RedirectAttributes flash) {
        Approvals.ApprovalView a = seen(id);
        try {
            approvals.writeRequest(
                    id,
                    a.version(),
                    a.granter(),
                    chains.asked(
                            jobs.job(a.jobId(), Viewer.current()),
                            kinds.row(a.kind()).kind(),
                            a.aircraftId(),
                            a.firstDay(),
                            a.lastDay()));
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/approvals/" + id;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/{id}/grant")
    String grant(
            @PathVariable("id") UUID id, @RequestParam(value = "letter", required = false) UUID letter, Model model) {
        return granted(id, letter).page(model, "form");
    }

    private Form granted(UUID id, UUID letter) {
        Approvals.ApprovalView a = seen(id);
        Jobs.JobView job = jobs.job(a.jobId(), Viewer.current());
        boolean held = a.state().isHeld();
        Optional<Approvals.ApprovalView> on = letter == null
                ? Optional.empty()
                : approvals.lettersFor(id, chains.today()).stream()
                        .filter(x -> x.id().equals(letter))
                        .findFirst();
        // a first grant usually says what was asked for; every field is there to be compared with the paper
        Approvals.ApprovalView says = on.orElse(a);
        return TermsForm.fill(
                        form(a, true),
                        held || on.isPresent() ? says.terms() : a.request(),
                        job.site().zone())
                .set("reference", says.reference())
                .set("conditions", says.conditions())
                .setAll(
                        "also",
                        held
                                ? approvals.besides(id, chains.today()).stream()
                                        .filter(x -> x.state().isHeld())
                                        .map(x -> x.id().toString())
                                        .toList()
                                : List.of());
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/grant")
    String takeGrant(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        Approvals.ApprovalView a = seen(id);
        Jobs.JobView job = jobs.job(a.jobId(), Viewer.current());
        Form form = form(a, true).bind(params);
        LocalDate on = form.date("decidedOn", false, chains.today());
        Approvals.Grant grant = TermsForm.grant(form, job.site(), chains.today());
        List<UUID> also = form.all("also").isEmpty() ? List.of() : form.ids("also");
        return form.store(
                        () -> {
                            approvals.grant(
                                    id,
                                    form.getVersion(),
                                    withBesides(a, also),
                                    grant,
                                    at(on, job),
                                    Viewer.current().name());
                            return "redirect:/approvals/" + id;
                        },
                        () -> granted(id, null))
                .orElseGet(() -> form.page(model, "form"));
    }

    private Instant at(LocalDate day, Jobs.JobView job) {
        return day == null || day.equals(chains.today())
                ? clock.instant()
                : day.atTime(LocalTime.NOON).atZone(job.site().zone()).toInstant();
    }

    // --- state and letters -------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/state")
    String state(
            @PathVariable("id") UUID id,
            @RequestParam("to") String to,
            @RequestParam(value = "on", defaultValue = "") String on,
            @RequestParam(value = "why", defaultValue = "") String why,
            @RequestParam(value = "also", defaultValue = "") List<UUID> also,
            RedirectAttributes flash) {
        Approvals.ApprovalView a = seen(id);
        try {
            LocalDate day = on.isBlank() ? null : TypedInput.date(on, chains.today());
            if (day != null && day.isAfter(chains.today())) {
                throw new IllegalArgumentException("that day is still to come");
            }
            ApprovalState next = next(a.state()).stream()
                    .filter(s -> s.name().equals(to))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("choose what it has come to"));
            List<UUID> all = withBesides(a, also);
            String although = next == ApprovalState.SENT ? sending.pass(all, why) : "";
            approvals.move(
                    all,
                    next,
                    at(day, jobs.job(a.jobId(), Viewer.current())),
                    although.isEmpty() ? why.strip() : why.strip() + " (" + although + ")",
                    Viewer.current().name());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/approvals/" + id;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/letters")
    String keep(
            @PathVariable("id") UUID id,
            @RequestParam("kind") String kind,
            @RequestParam(value = "on", defaultValue = "") String on,
            @RequestParam(value = "text", defaultValue = "") String text,
            @RequestParam(value = "file", required = false) MultipartFile file,
            @RequestParam(value = "also", defaultValue = "") List<UUID> also,
            RedirectAttributes flash)
            throws IOException {
        Approvals.ApprovalView a = seen(id);
        try {
            LocalDate day = on.isBlank() ? null : TypedInput.date(on, chains.today());
            Approvals.LetterKind k = java.util.Arrays.stream(Approvals.LetterKind.values())
                    .filter(x -> x.name().equals(kind))
                    .findFirst()
                    .orElse(Approvals.LetterKind.NOTE);
            byte[] message = message(text, file);
            if (message.length > 0) {
                String beside = file != null && !file.isEmpty() ? text.strip() : "";
                flash.addFlashAttribute("told", file(withBesides(a, also), k, beside, message));
                return "redirect:/approvals/" + id + "#letters";
            }
            approvals.keep(
                    withBesides(a, also),
                    k,
                    at(day, jobs.job(a.jobId(), Viewer.current())),
                    text,
                    file == null ? "" : String.valueOf(file.getOriginalFilename()),
                    file == null ? new byte[0] : file.getBytes(),
                    Viewer.current().name());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
            flash.addFlashAttribute("typedLetter", text);
        }
        return "redirect:/approvals/" + id + "#letters";
    }

    /** A whole message, brought in as a file or pasted with its headers; empty when it is none. */
    private static byte[] message(String text, MultipartFile file) throws IOException {
        byte[] content = file != null && !file.isEmpty() ? file.getBytes() : text.getBytes(StandardCharsets.UTF_8);
        return ReceivedMail.isOne(content) ? content : new byte[0];
    }

    private String file(List<UUID> ids, Approvals.LetterKind kind, String beside, byte[] message) {
        ReceivedMail m = ReceivedMail.read(message);
        approvals.keepMessage(
                ids,
                kind,
                m.at().filter(t -> t.isBefore(clock.instant())).orElseGet(clock::instant),
                m.kept() + (beside.isEmpty() ? "" : "\n\nNoted with it: " + beside),
                "message.eml",
                message,
                m.attachments().stream()
                        .map(x -> Map.entry(x.name(), x.content()))
                        .toList(),
                Viewer.current().name());
        return "The message of " + m.from() + " is kept"
                + (m.attachments().isEmpty()
                        ? ""
                        : " with " + show.count(m.attachments().size(), "file")) + ".";
    }

    /** A reply finds the request whose message it answers. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/messages")
    String reply(@RequestParam("file") MultipartFile file, RedirectAttributes flash) throws IOException {
        try {
            byte[] content = file.getBytes();
            if (!ReceivedMail.isOne(content)) {
                throw new IllegalArgumentException("“" + file.getOriginalFilename()
                        + "” is no message as mail programs save it; nothing was kept");
            }
            List<UUID> on = ReceivedMail.read(content).answers().stream()
                    .filter(approvals::isThere)
                    .toList();
            if (on.isEmpty()) {
                throw new IllegalArgumentException(
                        "it answers no message that went out from here; open its request and keep it there. Nothing was kept");
            }
            flash.addFlashAttribute("told", file(on, Approvals.LetterKind.LETTER_IN, "", content));
            return "redirect:/approvals/" + on.get(0) + "#letters";
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
            return "redirect:/approvals";
        }
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/mail")
    String mail(
            @PathVariable("id") UUID id,
            @RequestParam("to") String to,
            @RequestParam("subject") String subject,
            @RequestParam("text") String text,
            @RequestParam(value = "why", defaultValue = "") String why,
            @RequestParam(value = "also", defaultValue = "") List<UUID> also,
            RedirectAttributes flash) {
        Approvals.ApprovalView a = seen(id);
        Sending.Letter letter = new Sending.Letter(to, subject, text);
        try {
            List<UUID> others =
                    withBesides(a, also).stream().filter(x -> !x.equals(id)).toList();
            flash.addFlashAttribute(
                    "told",
                    sending.byMail(
                            id, others, letter, why.strip(), Viewer.current().name()));
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", "Not sent: " + e.getMessage() + ".");
            flash.addFlashAttribute("letter", letter);
            flash.addFlashAttribute("typedWhy", why);
        }
        return "redirect:/approvals/" + id;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/letters/{id}/file")
    ResponseEntity<byte[]> file(@PathVariable("id") UUID id) {
        Approvals.LetterFile f = approvals.file(id);
        seen(f.approvalId());
        return attachment(f.content(), f.name(), f.contentType());
    }

    private static ResponseEntity<byte[]> attachment(byte[] content, String name, String type) {
        return ResponseEntity.ok()
                .header("Content-Type", type)
                .header("X-Content-Type-Options", "nosniff")
                .header(
                        "Content-Disposition",
                        ContentDisposition.attachment()
                                .filename(name, StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(content);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/hours")
    String hours(@PathVariable("id") UUID id, @RequestParam("hours") String hours, RedirectAttributes flash) {
        seen(id);
        try {
            approvals.spend(id, TypedInput.plain(hours, "h"), Viewer.current().name());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/approvals/" + id;
    }

    // --- desks -------------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/send")
    String send(
            @PathVariable("id") UUID id,
            @RequestParam(value = "why", defaultValue = "") String why,
            RedirectAttributes flash) {
        seen(id);
        try {
            flash.addFlashAttribute(
                    "told", desks.sendAnswered(id, why, Viewer.current().name()));
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", "Not sent: " + e.getMessage() + ".");
        }
        return "redirect:/approvals/" + id;
    }

    /** What the desk's grid says of it, for the page. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/{id}/grid")
    String grid(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("says", desks.grid(seen(id)));
        return "chains/grid";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/ask")
    String ask(@PathVariable("id") UUID id, RedirectAttributes flash) {
        seen(id);
        try {
            flash.addFlashAttribute("told", desks.ask(id));
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/approvals/" + id;
    }

    // --- unlock ------------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/approvals/{id}/stages")
    String stage(
            @PathVariable("id") UUID id,
            @RequestParam("stage") String stage,
            @RequestParam(value = "rehearsal", defaultValue = "false") boolean rehearsal,
            @RequestParam(value = "note", defaultValue = "") String note,
            @RequestParam(value = "back", defaultValue = "false") boolean back,
            RedirectAttributes flash) {
        seen(id);
        try {
            UnlockLife.Stage s = UnlockLife.Stage.valueOf(stage);
            if (back) {
                approvals.unsay(id, s, rehearsal, Viewer.current().name());
            } else {
                approvals.say(id, s, rehearsal, note.strip(), Viewer.current().name());
            }
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/approvals/" + id + "#unlock";
    }

    // --- application -------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/{id}/application")
    String application(@PathVariable("id") UUID id, Model model) {
        Approvals.ApprovalView a = seen(id);
        Jobs.JobView job = jobs.job(a.jobId(), Viewer.current());
        List<Applications.Answer> answers = applications.answers(a);
        List<Applications.Version> versions = applications.versions(id);
        model.addAttribute("a", a);
        model.addAttribute("job", job);
        model.addAttribute("kind", kinds.row(a.kind()).kind());
        model.addAttribute("answers", answers);
        model.addAttribute(
                "open", answers.stream().filter(Applications.Answer::isOpen).count());
        model.addAttribute("versions", versions);
        model.addAttribute(
                "changes",
                versions.isEmpty()
                        ? List.of()
                        : applications.changes(versions.get(0).id()));
        model.addAttribute("earlier", applications.earlier(a));
        model.addAttribute("jobNames", jobs.names());
        return "chains/application";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/application")
    String answer(
            @PathVariable("id") UUID id,
            @RequestParam("question") String question,
            @RequestParam("text") String text,
            RedirectAttributes flash) {
        seen(id);
        try {
            applications.type(id, question, text, Viewer.current().name());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/approvals/" + id + "/application#q-" + question.replaceAll("[^A-Za-z0-9.-]", "");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/application/reuse")
    String reuse(@PathVariable("id") UUID id, @RequestParam("from") UUID from, RedirectAttributes flash) {
        seen(id);
        seen(from);
        int n = applications.reuse(id, from, Viewer.current().name());
        flash.addFlashAttribute(
                "told",
                n + (n == 1 ? " answer" : " answers")
                        + " taken over; each stays open until it has been looked at and saved.");
        return "redirect:/approvals/" + id + "/application";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/{id}/application/versions")
    String make(
            @PathVariable("id") UUID id,
            @RequestParam(value = "sheet", defaultValue = "a4") String sheet,
            RedirectAttributes flash) {
        seen(id);
        applications.make(id, Pdf.Sheet.of(sheet), Viewer.current().name());
        flash.addFlashAttribute("told", "A version was made; it stays as it is.");
        return "redirect:/approvals/" + id + "/application#versions";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/versions/{id}.pdf")
    ResponseEntity<byte[]> pdf(@PathVariable("id") UUID id) {
        Applications.Made m = applications.made(id, true);
        seen(m.approvalId());
        return ResponseEntity.ok()
                .header("Content-Type", "application/pdf")
                .header("Content-Disposition", "inline; filename=\"application-" + m.number() + ".pdf\"")
                .body(m.content());
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/versions/{id}.docx")
    ResponseEntity<byte[]> document(@PathVariable("id") UUID id) {
        Applications.Made m = applications.made(id, false);
        seen(m.approvalId());
        return attachment(
                m.content(),
                "application-" + m.number() + ".docx",
                "application/vnd.openxmlformats-officedocument.wordprocessingml.document");
    }
}
