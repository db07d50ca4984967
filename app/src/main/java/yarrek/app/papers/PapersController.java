package yarrek.app.papers;

import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.office.Office;
import yarrek.app.web.Form;
import yarrek.app.web.Viewer;

/** Entering and changing papers. */
@Controller
class PapersController {
    private final Papers papers;
    private final Office office;
    private final Clock clock;

    PapersController(Papers papers, Office office, Clock clock) {
        this.papers = papers;
        this.office = office;
        this.clock = clock;
    }

    @GetMapping("/papers/new")
    String add(
            @RequestParam("holderKind") String holderKind,
            @RequestParam("holderId") UUID holderId,
            @RequestParam(value = "back", defaultValue = "/") String back,
            Model model) {
        Form form = form(
                "New paper",
                "/papers/new?holderKind=" + holderKind + "&holderId=" + holderId + "&back=" + safe(back),
                safe(back),
                holderKind);
        form.set("zone", office.operator().zone().getId()).set("leadDays", 14).set("endKnown", "yes");
        return form.page(model, "form");
    }

    @PostMapping("/papers/new")
    String create(
            @RequestParam("holderKind") String holderKind,
            @RequestParam("holderId") UUID holderId,
            @RequestParam(value = "back", defaultValue = "/") String back,
            @RequestParam MultiValueMap<String, String> params,
            Model model) {
        Form form = form(
                        "New paper",
                        "/papers/new?holderKind=" + holderKind + "&holderId=" + holderId + "&back=" + safe(back),
                        safe(back),
                        holderKind)
                .bind(params);
        return store(form, null, holderKind, holderId, model);
    }

    @GetMapping("/papers/{id}")
    String edit(
            @PathVariable("id") UUID id, @RequestParam(value = "back", defaultValue = "/") String back, Model model) {
        Papers.Entry e = papers.entry(id);
        if (e.holderKind().equals("pilot")) {
            Viewer.current().requireSight(e.holderId());
        }
        Form form = form(
                PaperKind.words(e.kind()) + " " + e.number(),
                "/papers/" + id + "?back=" + safe(back),
                safe(back),
                e.holderKind());
        form.set("kind", e.kind())
                .set("level", e.level())
                .set("number", e.number())
                .set("issuer", e.issuer())
                .set("issuedOn", e.issuedOn())
                .set("validFrom", e.validFrom())
                .set("validTo", e.validTo())
                .set("endKnown", e.endKnown() ? "yes" : "no")
                .set("zone", e.zone().getId())
                .set("leadDays", e.leadDays())
                .set("conditions", e.conditions())
                .set("verifiedWhere", e.verifiedWhere())
                .set("amountSdr", e.amountSdr() == null ? "" : yarrek.core.units.Finite.format(e.amountSdr()))
                .set("lifts", e.lifts())
                .version(papers.version(id));
        model.addAttribute("form", form);
        model.addAttribute("deletable", "/papers/" + id + "/delete?back=" + safe(back));
        return "form";
    }

    @PostMapping("/papers/{id}")
    String change(
            @PathVariable("id") UUID id,
            @RequestParam(value = "back", defaultValue = "/") String back,
            @RequestParam MultiValueMap<String, String> params,
            Model model) {
        Papers.Entry e = papers.entry(id);
        Form form = form(
                        PaperKind.words(e.kind()) + " " + e.number(),
                        "/papers/" + id + "?back=" + safe(back),
                        safe(back),
                        e.holderKind())
                .bind(params);
        return store(form, id, e.holderKind(), e.holderId(), model);
    }

    @PostMapping("/papers/{id}/delete")
    String delete(@PathVariable("id") UUID id, @RequestParam(value = "back", defaultValue = "/") String back) {
        papers.delete(id);
        return "redirect:" + safe(back);
    }

    private String store(Form form, UUID id, String holderKind, UUID holderId, Model model) {
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        String kind = form.choice("kind", true);
        String level = form.choice("level", false);
        String number = form.requiredText("number", 80);
        String issuer = form.requiredText("issuer", 160);
        LocalDate issued = form.date("issuedOn", false, today);
        LocalDate from = form.date("validFrom", false, today);
        LocalDate to = form.date("validTo", false, today);
        if (from != null && to != null && to.isBefore(from)) {
            form.error(
                    "validTo", "valid to (" + to + ") is before valid from (" + from + "); one of the two is mistyped");
        }
        String zone = form.requiredText("zone", 64);
        if (!zone.isEmpty() && !ZoneId.getAvailableZoneIds().contains(zone)) {
            form.error("zone", "there is no such time zone; type one such as Atlantic/Azores");
        }
        Integer lead = form.whole("leadDays", 0, 1000, true);
        Double amount = form.number("amountSdr", "SDR", 0, 1e12, false);
        String conditions = form.optionalText("conditions", 2000);
        String verified = form.optionalText("verifiedWhere", 200);
        String lifts = form.optionalText("lifts", 1000);
        return form.store(() -> {
                    papers.save(
                            id,
                            form.getVersion(),
                            new Papers.Entry(
                                    kind,
                                    level,
                                    number,
                                    issuer,
                                    office.operator().jurisdiction(),
                                    holderKind,
                                    holderId,
                                    issued,
                                    from,
                                    to,
                                    form.raw("endKnown").equals("yes"),
                                    ZoneId.of(zone),
                                    lead,
                                    conditions,
                                    verified,
                                    amount,
                                    lifts),
                            Viewer.current().name());
                    return "redirect:" + form.getBack();
                })
                .orElseGet(() -> form.page(model, "form"));
    }

    private static Form form(String title, String action, String back, String holderKind) {
        List<Form.Option> kinds = new ArrayList<>();
        List<Form.Option> levels = new ArrayList<>(List.of(new Form.Option("", "none")));
        for (PaperKind k : PaperKind.heldBy(holderKind)) {
            kinds.add(new Form.Option(k.code(), k.words()));
            k.levels().forEach(l -> levels.add(new Form.Option(l, l)));
        }
        Form form = new Form(title, action, back)
                .group("The paper")
                .select("kind", "Kind", "", kinds)
                .select("level", "Level", "for certificates", levels)
                .text("number", "Number", "as printed")
                .text("issuer", "Issued by", "")
                .group("Validity")
                .text("issuedOn", "Issued on", "a date such as 14 Mar 2026")
                .text("validFrom", "Valid from", "first day; empty when it always held")
                .text("validTo", "Valid to", "last day, to its end; empty when open")
                .select(
                        "endKnown",
                        "With no end date",
                        "what an empty “valid to” means",
                        List.of(
                                new Form.Option("yes", "it does not run out"),
                                new Form.Option("no", "the end is not known")))
                .text("zone", "Issuer's time zone", "decides when a day ends")
                .text("leadDays", "Lead time", "days from asking for a renewal to holding it")
                .group("Details")
                .text("verifiedWhere", "Verified", "where and how it was checked");
        if (holderKind.equals("operator")) {
            form.text("amountSdr", "Cover per accident", "SDR, for insurance");
        }
        if (holderKind.equals("job")) {
            form.text("lifts", "Lifts", "rule or zone ids it covers, with spaces between");
        }
        return form.area("conditions", "Conditions", "in the issuer's words");
    }

    /** Only addresses of our own are returned to. */
    private static String safe(String back) {
        return back.startsWith("/") && !back.startsWith("//") && back.matches("[/a-zA-Z0-9_\\-]*") ? back : "/";
    }
}
