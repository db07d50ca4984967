package yarrek.app.documents;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.Supplier;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
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
import yarrek.app.forms.Form;
import yarrek.app.history.History;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.papers.PaperForms;
import yarrek.app.papers.Papers;
import yarrek.app.print.PdfPixels;

/** Entering and changing papers. */
@Controller
class PapersController {
    private static final float PREVIEW_PIXELS = 480;

    private final Papers papers;
    private final PaperForms forms;
    private final Office office;
    private final PaperSight sight;
    private final Clock clock;
    private final History history;

    PapersController(Papers papers, PaperForms forms, Office office, PaperSight sight, Clock clock, History history) {
        this.history = history;
        this.clock = clock;
        this.sight = sight;
        this.papers = papers;
        this.forms = forms;
        this.office = office;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers/new")
    String add(
            @RequestParam("holderKind") String holderKind,
            @RequestParam("holderId") UUID holderId,
            @RequestParam(value = "back", defaultValue = "/") String back,
            @RequestParam(value = "kind", defaultValue = "") String kind,
            Model model) {
        Form form = form(
                "New paper",
                "/papers/new?holderKind=" + holderKind + "&holderId=" + holderId + "&back=" + safe(back),
                safe(back),
                holderKind);
        withScan(form)
                .set("zone", office.operator().zone().getId())
                .set("jurisdiction", office.operator().jurisdiction())
                .set("endKnown", "yes");
        papers.kindsHeldBy(holderKind).stream()
                .filter(k -> k.code().equals(kind))
                .findFirst()
                .ifPresent(k -> form.set("kind", k.code())
                        .set("leadDays", k.leadDays())
                        .set("renewEarly", k.renewEarlyDays())
                        .set("cost", k.cost())
                        .set("currency", k.currency())
                        .set("needs", k.needs()));
        return form.page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/papers/new")
    String create(
            @RequestParam("holderKind") String holderKind,
            @RequestParam("holderId") UUID holderId,
            @RequestParam(value = "back", defaultValue = "/") String back,
            @RequestParam MultiValueMap<String, String> params,
            @RequestParam(value = "scan", required = false) MultipartFile scan,
            RedirectAttributes flash,
            Model model)
            throws IOException {
        Form form = withScan(form(
                        "New paper",
                        "/papers/new?holderKind=" + holderKind + "&holderId=" + holderId + "&back=" + safe(back),
                        safe(back),
                        holderKind))
                .bind(params);
        String filled = forms.fillIn(form);
        if (!filled.isEmpty()) {
            flash.addFlashAttribute("told", filled);
        }
        return store(form, forms.read(form, null, holderKind, holderId), scan)
                .orElseGet(() -> form.page(model, "form"));
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers/{id}")
    String edit(
            @PathVariable("id") UUID id, @RequestParam(value = "back", defaultValue = "/") String back, Model model) {
        sight.require(Viewer.current(), id, papers.entry(id));
        return page(filled(id, safe(back)), id, safe(back), model);
    }

    /** A newer one in the place of this: what changes is typed, all else is as it was. The old one stays on file. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/papers/{id}/renew")
    String renew(
            @PathVariable("id") UUID id, @RequestParam(value = "back", defaultValue = "/") String back, Model model) {
        Papers.Entry old = papers.entry(id);
        LocalDate today = LocalDate.now(clock.withZone(old.zone()));
        LocalDate after = old.validTo() == null ? today : old.validTo().plusDays(1);
        Form whole = filled(id, safe(back));
        Form form = renewal(id, old, safe(back));
        form.fields().forEach(f -> form.set(f.name(), whole.raw(f.name())));
        return form.set("validTo", "")
                .set("validFrom", after.isBefore(today) ? today : after)
                .page(told(old, model), "papers/renew");
    }

    private Model told(Papers.Entry old, Model model) {
        model.addAttribute("old", old);
        model.addAttribute("oldTitle", title(old));
        return model;
    }

    /** What a renewal usually changes, and what the old one allows or insures: that may be otherwise on the new one. */
    private Form renewal(UUID id, Papers.Entry old, String back) {
        Form form = new Form("Renew: " + title(old), "/papers/" + id + "/renew?back=" + back, back)
                .text("number", "Number", "as printed on the new one")
                .text("validTo", "Valid to", "last day, to its end; empty: its end is not known")
                .text("validFrom", "Valid from", "first day");
        Form whole = filled(id, back);
        Map.of(
                        "amount", "Sum insured",
                        "amountSdr", "Cover per accident, SDR",
                        "conditions", "Conditions",
                        "lifts", "Lifts")
                .forEach((field, label) -> {
                    if (!whole.raw(field).isBlank()) {
                        form.area(field, label, "as on the old one; change what the new one says otherwise");
                    }
                });
        return withScan(form);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/papers/{id}/renew")
    String renewed(
            @PathVariable("id") UUID id,
            @RequestParam(value = "back", defaultValue = "/") String back,
            @RequestParam MultiValueMap<String, String> params,
            @RequestParam(value = "scan", required = false) MultipartFile scan,
            Model model)
            throws IOException {
        Papers.Entry old = papers.entry(id);
        Form form = renewal(id, old, safe(back)).bind(params);
        Form whole = filled(id, safe(back));
        form.fields().stream()
                .filter(f -> !f.kind().equals("file"))
                .forEach(f -> whole.set(f.name(), form.raw(f.name()).strip()));
        whole.set("issuedOn", "")
                .set("verifiedBy", "")
                .set("verifiedOn", "")
                .set("verifiedWhere", "")
                .set("endKnown", form.raw("validTo").isBlank() ? "no" : "yes")
                .version(-1);
        Supplier<UUID> saving = forms.read(whole, null, old.holderKind(), old.holderId());
        whole.getErrors().forEach(form::error);
        return store(form, saving, scan).orElseGet(() -> form.page(told(old, model), "papers/renew"));
    }

    private static Form withScan(Form form) {
        return form.file("scan", "Scan or photo", "PDF or a picture, at most 20 MB; may be added later");
    }

    /** Stores a paper with its scan, both or neither. */
    private Optional<String> store(Form form, Supplier<UUID> saving, MultipartFile scan) throws IOException {
        byte[] content = scan == null || scan.isEmpty() ? null : scan.getBytes();
        return form.store(() -> {
            papers.save(
                    saving,
                    content,
                    scan == null ? "" : String.valueOf(scan.getOriginalFilename()),
                    Viewer.current().name());
            return "redirect:" + form.getBack();
        });
    }

    private Form filled(UUID id, String back) {
        Papers.Entry e = papers.entry(id);
        Form form = form(title(e), "/papers/" + id + "?back=" + back, back, e.holderKind());
        forms.fill(form, e, papers.version(id));
        return form.history("paper", id);
    }

    private String page(Form form, UUID id, String back, Model model) {
        model.addAttribute("form", form);
        if (id != null) {
            model.addAttribute("scans", papers.scans(List.of(id)));
            model.addAttribute("paperId", id);
            model.addAttribute("back", back);
            model.addAttribute("deletable", "/papers/" + id + "/delete?back=" + back);
        }
        return "papers/paper";
    }

    private String title(Papers.Entry e) {
        return papers.kinds().stream()
                        .filter(k -> k.code().equals(e.kind()))
                        .map(Papers.Kind::words)
                        .findFirst()
                        .orElse(e.kind())
                + " " + e.number();
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/papers/{id}/scans")
    String addScan(
            @PathVariable("id") UUID id,
            @RequestParam(value = "back", defaultValue = "/") String back,
            @RequestParam("file") MultipartFile file,
            RedirectAttributes flash)
            throws IOException {
        try {
            papers.addScan(
                    id,
                    String.valueOf(file.getOriginalFilename()),
                    file.getBytes(),
                    Viewer.current().name());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/papers/" + id + "?back=" + safe(back);
    }

    /** A scan: a picture is shown in the page, everything is handed out as a file. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers/scans/{id}")
    ResponseEntity<byte[]> scan(@PathVariable("id") UUID id) {
        Papers.ScanFile f = papers.scanFile(id);
        Papers.Entry e = papers.entry(f.scan().paperId());
        sight.require(Viewer.current(), f.scan().paperId(), e);
        return ResponseEntity.ok()
                .header("Content-Type", f.scan().contentType())
                .header("X-Content-Type-Options", "nosniff")
                .header(
                        "Content-Disposition",
                        ContentDisposition.attachment()
                                .filename(f.scan().fileName(), StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .header("Cache-Control", "private, max-age=3600")
                .body(f.content());
    }

    /** The first page of a scan that is a PDF, as a picture. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers/scans/{id}/first-page.png")
    ResponseEntity<byte[]> firstPage(@PathVariable("id") UUID id) throws IOException {
        Papers.ScanFile f = papers.scanFile(id);
        Papers.Entry e = papers.entry(f.scan().paperId());
        sight.require(Viewer.current(), f.scan().paperId(), e);
        if (f.scan().isPicture()) {
            throw new NotFoundException("first page: the scan is a picture");
        }
        try (PDDocument d = Loader.loadPDF(f.content());
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            if (PdfPixels.of(d.getPage(0).getResources()) > PdfPixels.MOST) {
                throw new NotFoundException(
                        "picture of the first page: what is drawn on it is too large to be unpacked;"
                                + " the file itself can be had");
            }
            float points = Math.max(1, d.getPage(0).getCropBox().getWidth());
            BufferedImage page = new PDFRenderer(d).renderImage(0, Math.min(2, PREVIEW_PIXELS / points), ImageType.RGB);
            ImageIO.write(page, "png", out);
            return ResponseEntity.ok()
                    .contentType(MediaType.IMAGE_PNG)
                    .header("Cache-Control", "private, max-age=3600")
                    .body(out.toByteArray());
        }
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/papers/scans/{id}/delete")
    String deleteScan(
            @PathVariable("id") UUID id,
            @RequestParam(value = "back", defaultValue = "/") String back,
            RedirectAttributes flash) {
        UUID paper = papers.deleteScan(id);
        history.undo("scan", id).tell(flash, "The scan is taken away.");
        return "redirect:/papers/" + paper + "?back=" + safe(back);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/papers/{id}")
    String change(
            @PathVariable("id") UUID id,
            @RequestParam(value = "back", defaultValue = "/") String back,
            @RequestParam MultiValueMap<String, String> params,
            Model model) {
        Papers.Entry e = papers.entry(id);
        return store(filled(id, safe(back)).bind(params), id, e.holderKind(), e.holderId(), model);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/papers/{id}/delete")
    String delete(
            @PathVariable("id") UUID id,
            @RequestParam(value = "back", defaultValue = "/") String back,
            RedirectAttributes flash) {
        papers.delete(id);
        history.undo("paper", id).tell(flash, "The paper is taken away, with its scans.");
        return "redirect:" + safe(back);
    }

    private String store(Form form, UUID id, String holderKind, UUID holderId, Model model) {
        Supplier<UUID> saving = forms.read(form, id, holderKind, holderId);
        Function<UUID, String> then = saved -> "redirect:" + form.getBack();
        return form.store(() -> then.apply(saving.get()), () -> filled(id, form.getBack()))
                .orElseGet(() -> page(form, id, form.getBack(), model));
    }

    private Form form(String title, String action, String back, String holderKind) {
        Form form = new Form(title, action, back);
        forms.fields(form, holderKind);
        return form;
    }

    /** Only addresses of our own are returned to. */
    private static String safe(String back) {
        return back.startsWith("/") && !back.startsWith("//") && back.matches("[/a-zA-Z0-9_\\-]*") ? back : "/";
    }
}
