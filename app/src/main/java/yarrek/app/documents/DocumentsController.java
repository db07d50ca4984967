package yarrek.app.documents;

import jakarta.servlet.http.HttpServletResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.app.print.Pdf;
import yarrek.app.print.QrCode;
import yarrek.core.paper.MarkLabel;
import yarrek.core.rulebook.PaperKind;

/** Documents to show on the spot and on paper, the check page, the binder, labels. */
@Controller
class DocumentsController {
    /** Has the page come from the network before the copy that a phone keeps of it: it says what was just done. */
    private static final String NOT_AS_KEPT = "?now";

    /** A label sheet: labels of one size on A4. */
    public record LabelSize(String code, double widthMm, double heightMm, int columns, int rows) {
        public String words() {
            return yarrek.core.units.Finite.format(widthMm) + " × " + yarrek.core.units.Finite.format(heightMm) + " mm";
        }
    }

    private static final List<LabelSize> SIZES = List.of(
            new LabelSize("small", 30, 8, 6, 30),
            new LabelSize("medium", 50, 15, 3, 17),
            new LabelSize("large", 70, 25, 2, 10));

    private final Documents documents;
    private final Jobs jobs;
    private final Fleet fleet;
    private final Papers papers;
    private final Office office;
    private final Pdf pdf;

    DocumentsController(Documents documents, Jobs jobs, Fleet fleet, Papers papers, Office office, Pdf pdf) {
        this.documents = documents;
        this.jobs = jobs;
        this.fleet = fleet;
        this.papers = papers;
        this.office = office;
        this.pdf = pdf;
    }

    private static String checkAddress(String token) {
        return ServletUriComponentsBuilder.fromCurrentContextPath()
                .path("/check/" + token)
                .toUriString();
    }

    /** Whose documents: the viewer's own on a job they crew, else the pilot's. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/documents")
    String choose(@PathVariable("id") UUID id) {
        Viewer viewer = Viewer.current();
        Jobs.JobView job = jobs.job(id, viewer);
        UUID person =
                viewer.personId() != null ? viewer.personId() : job.draft().pilotId();
        if (person == null) {
            throw new NotFoundException("pilot of this job yet");
        }
        return "redirect:/field/documents/" + id + "/" + person;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/field/documents/{job}/{person}")
    String show(@PathVariable("job") UUID job, @PathVariable("person") UUID person, Model model) {
        jobs.job(job, Viewer.current());
        Documents.CheckLink link = documents.checkLink(job, person);
        model.addAttribute("set", documents.set(job, person));
        model.addAttribute("link", link);
        model.addAttribute("qr", link.isOpen() ? QrCode.of(checkAddress(link.token())) : null);
        return "documents/show";
    }

    /** An address that shows the set to whoever has it, so that a paper can be checked at the gate. */
    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/field/documents/{job}/{person}/check")
    String makeCheck(@PathVariable("job") UUID job, @PathVariable("person") UUID person, RedirectAttributes flash) {
        Viewer viewer = Viewer.current();
        jobs.job(job, viewer);
        try {
            documents.makeCheck(job, person, viewer);
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/field/documents/" + job + "/" + person + NOT_AS_KEPT;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/field/documents/{job}/{person}.pdf")
    ResponseEntity<byte[]> print(
            @PathVariable("job") UUID job,
            @PathVariable("person") UUID person,
            @RequestParam(value = "sheet", defaultValue = "a4") String sheet) {
        jobs.job(job, Viewer.current());
        return PaperDeskController.file(
                "documents-to-show.pdf",
                documents.print(
                        documents.set(job, person),
                        Optional.of(documents.checkLink(job, person))
                                .filter(Documents.CheckLink::isOpen)
                                .map(l -> checkAddress(l.token())),
                        Pdf.Sheet.of(sheet)));
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/field/documents/{job}/{person}/revoke")
    String revoke(@PathVariable("job") UUID job, @PathVariable("person") UUID person) {
        documents.revokeCheck(job, person);
        return "redirect:/field/documents/" + job + "/" + person + NOT_AS_KEPT;
    }

    /** For an official without a login: what is on file now, and nothing else of the operator's. */
    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping("/check/{token}")
    String check(@PathVariable("token") String token, Model model, HttpServletResponse response) {
        var set = documents.check(token);
        if (set.isEmpty()) {
            response.setStatus(HttpServletResponse.SC_NOT_FOUND);
        }
        model.addAttribute("set", set.orElse(null));
        model.addAttribute("now", documents.now());
        return "documents/check";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/binder.pdf")
    ResponseEntity<byte[]> binder(
            @PathVariable("id") UUID id, @RequestParam(value = "sheet", defaultValue = "a4") String sheet) {
        jobs.job(id, Viewer.current());
        return PaperDeskController.file("binder.pdf", documents.binder(id, Pdf.Sheet.of(sheet)));
    }

    // --- labels
    // --------------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/labels")
    String labels(
            @RequestParam(value = "aircraft", required = false) List<UUID> aircraft,
            @RequestParam(value = "size", defaultValue = "medium") String size,
            @RequestParam(value = "what", defaultValue = "mark") String what,
            Model model) {
        model.addAttribute("aircraft", fleet.aircraft());
        model.addAttribute("chosen", aircraft == null ? List.of() : aircraft);
        model.addAttribute("sizes", SIZES);
        model.addAttribute("size", size);
        model.addAttribute("what", what);
        try {
            model.addAttribute("labels", labels(aircraft == null ? List.of() : aircraft, size(size), what));
        } catch (IllegalArgumentException e) {
            model.addAttribute("labels", List.of());
            model.addAttribute("problem", e.getMessage());
        }
        return "documents/labels";
    }

    private static LabelSize size(String code) {
        return SIZES.stream().filter(s -> s.code().equals(code)).findFirst().orElse(SIZES.get(1));
    }

    /** A label and whose it is. */
    public record Label(String aircraft, List<MarkLabel> lines, LabelSize size) {
        public boolean fits() {
            return lines.stream().allMatch(MarkLabel::fits);
        }

        public String says() {
            return lines.get(0).says();
        }
    }

    private List<Label> labels(List<UUID> ids, LabelSize size, String what) {
        Office.OperatorView operator = office.operator();
        List<Label> labels = new ArrayList<>();
        for (UUID id : ids) {
            Fleet.AircraftView a = fleet.aircraft(id);
            if (what.equals("contact")) {
                String phone = MarkLabel.international(operator.phone(), "")
                        .orElseThrow(
                                () -> new IllegalArgumentException(
                                        "the operator's telephone number is not in international form; change it under Office"));
                labels.add(new Label(
                        a.name(),
                        List.of(
                                MarkLabel.lay(
                                        operator.name(),
                                        size.widthMm(),
                                        Math.max(4, size.heightMm() / 2),
                                        OptionalDouble.empty()),
                                MarkLabel.lay(
                                        phone,
                                        size.widthMm(),
                                        Math.max(4, size.heightMm() / 2),
                                        OptionalDouble.empty())),
                        size));
            } else {
                labels.add(new Label(
                        a.name(),
                        List.of(MarkLabel.lay(
                                MarkLabel.visible(number(a, operator), operator.jurisdiction()),
                                size.widthMm(),
                                size.heightMm(),
                                MarkLabel.leastLetterMm(operator.jurisdiction()))),
                        size));
            }
        }
        return labels;
    }

    /** The aircraft's own registration where it has one, else the operator's. */
    private String number(Fleet.AircraftView a, Office.OperatorView operator) {
        Set<String> registrations =
                papers.meanings().codes(k -> k.home().equals(Optional.of(PaperKind.Home.REGISTRATION)));
        return papers.of(List.of(a.id())).stream()
                .filter(p -> registrations.contains(p.kind()))
                .map(Papers.Row::number)
                .findFirst()
                .or(() -> papers.of(List.of(operator.id())).stream()
                        .filter(p -> registrations.contains(p.kind()))
                        .map(Papers.Row::number)
                        .reduce((x, y) -> y))
                .orElseThrow(() -> new IllegalArgumentException(
                        "no registration is on file from which a mark could be taken; enter it first"));
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/labels.pdf")
    ResponseEntity<byte[]> labelsPdf(
            @RequestParam("aircraft") List<UUID> aircraft,
            @RequestParam(value = "size", defaultValue = "medium") String size,
            @RequestParam(value = "what", defaultValue = "mark") String what,
            @RequestParam(value = "copies", defaultValue = "1") int copies) {
        LabelSize s = size(size);
        List<Label> all = new ArrayList<>();
        List<Label> one;
        try {
            one = labels(aircraft, s, what);
        } catch (IllegalArgumentException e) {
            // the page of the labels says why; there is nothing to print
            return ResponseEntity.unprocessableContent()
                    .contentType(org.springframework.http.MediaType.TEXT_PLAIN)
                    .body(("No labels can be printed: " + e.getMessage())
                            .getBytes(java.nio.charset.StandardCharsets.UTF_8));
        }
        for (int i = 0; i < Math.max(1, Math.min(60, copies)); i++) {
            all.addAll(one);
        }
        return PaperDeskController.file(
                "labels.pdf",
                pdf.render("documents/labels-pdf", Map.of("labels", all, "size", s, "sheet", Pdf.Sheet.A4.size())));
    }
}
