package yarrek.app.jobs;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.Form;
import yarrek.app.history.History;
import yarrek.app.office.HouseFigures;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.core.judging.House;
import yarrek.core.judging.HouseFigure;
import yarrek.core.judging.Shot;
import yarrek.core.judging.Shots;
import yarrek.core.units.Finite;

/** What is to be filmed on a job, and how much of it packs and hours are enough for. */
@Controller
class ShotsController {
    private static final int MOST_PACKS = 100;

    private final Jobs jobs;
    private final HouseFigures figures;
    private final History history;

    ShotsController(Jobs jobs, HouseFigures figures, History history) {
        this.jobs = jobs;
        this.figures = figures;
        this.history = history;
    }

    /** A shot that is done or lost, with what alone would save it. */
    public record Outcome(int number, Shot shot, boolean done, List<String> saving) {}

    /** @param steps the arithmetic, line by line */
    public record Reckoned(Shots.Walk walk, List<Outcome> outcomes, List<String> steps) {}

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/shots")
    String shots(
            @PathVariable("id") UUID id,
            @RequestParam(value = "endurance", required = false) String endurance,
            @RequestParam(value = "packs", required = false) String packs,
            @RequestParam(value = "unlock", defaultValue = "false") boolean unlock,
            Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        Shots shots = new Shots(jobs.shots(id));
        Form form = new Form("", "", "")
                .text(
                        "endurance",
                        "Minutes that a full pack flies there today",
                        "such as 22; by its own record, not by the leaflet")
                .text("packs", "Packs charged for it", "");
        form.set("endurance", endurance == null ? "" : endurance).set("packs", packs == null ? "" : packs);
        model.addAttribute("job", job);
        model.addAttribute("shots", shots);
        model.addAttribute("unlock", unlock);
        if (endurance != null && packs != null) {
            form.bind(org.springframework.util.CollectionUtils.toMultiValueMap(
                    Map.of("endurance", List.of(endurance), "packs", List.of(packs))));
            Double minutes = form.number("endurance", "min", 1, 600, true);
            Integer charged = form.whole("packs", 0, MOST_PACKS, true);
            if (!form.hasErrors() && shots.minutes().isPresent()) {
                model.addAttribute("reckoned", reckon(job, shots, minutes, charged, unlock));
            }
        }
        return form.page(model, "jobs/shots");
    }

    private Reckoned reckon(Jobs.JobView job, Shots shots, double endurance, int packs, boolean unlock) {
        House h = figures.house();
        double reconfirm = unlock ? h.of(HouseFigure.RECONFIRM) : 0;
        // where the clocks change in the days of the job, the shorter day
        double slot = job.windows().stream()
                .mapToDouble(w -> Duration.between(w.start(), w.end()).toSeconds() / 60.0)
                .min()
                .orElseThrow();
        Shots.Means m = new Shots.Means(
                slot,
                h.of(HouseFigure.SET_UP),
                h.of(HouseFigure.PACK_UP),
                endurance,
                h.share(HouseFigure.PACK_RESERVE),
                h.of(HouseFigure.TRANSIT),
                h.of(HouseFigure.TURN_ROUND) + reconfirm,
                packs);
        Shots.Walk walk = shots.walk(m);
        Map<Shot, List<String>> saving = shots.saving(m, reconfirm);
        List<Outcome> outcomes = new ArrayList<>();
        List<Shot> lost = new ArrayList<>(walk.lost());
        for (int i = 0; i < shots.all().size(); i++) {
            Shot s = shots.all().get(i);
            // of shots like each other those at the end are lost
            boolean isLost = lost.contains(s)
                    && shots.all().subList(i, shots.all().size()).stream()
                                    .filter(s::equals)
                                    .count()
                            <= lost.stream().filter(s::equals).count();
            if (isLost) {
                lost.remove(s);
            }
            outcomes.add(new Outcome(i + 1, s, !isLost, isLost ? saving.get(s) : List.of()));
        }
        return new Reckoned(
                walk,
                outcomes,
                List.of(
                        "a pack: " + figure(endurance) + " min, less " + figure(h.of(HouseFigure.PACK_RESERVE))
                                + " % kept for landing, less " + figure(m.transit())
                                + " min to the first shot and back: "
                                + figure(m.usable()) + " min",
                        "from one pack to the next " + figure(m.turnRound()) + " min"
                                + (unlock ? ", with the unlock confirmed again" : ""),
                        "setting up " + figure(m.setUp()) + " min, packing up " + figure(m.packUp()) + " min",
                        "a day of the job has " + figure(slot) + " min"));
    }

    private static String figure(double d) {
        return Finite.format(Math.round(d * 10) / 10.0);
    }

    private Form filled(Jobs.JobView job) {
        List<Shot> shots = jobs.shots(job.id());
        Form form = ShotsForm.form(job, shots.size() + ShotsForm.SPARE)
                .version(job.version())
                .history("job", job.id());
        ShotsForm.fill(form, shots);
        return form;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/jobs/{id}/shots/edit")
    String edit(@PathVariable("id") UUID id, Model model) {
        return filled(jobs.job(id, Viewer.current())).page(model, "jobs/shots-edit");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/shots/edit")
    String save(
            @PathVariable("id") UUID id,
            @RequestParam MultiValueMap<String, String> params,
            Model model,
            RedirectAttributes flash) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        Map<String, String> typed = params.toSingleValueMap();
        int rows = ShotsForm.rows(typed);
        Form form =
                ShotsForm.form(job, rows + ShotsForm.SPARE).history("job", id).bind(params);
        if (params.containsKey("more")) {
            return form.page(model, "jobs/shots-edit");
        }
        List<Shot> shots = ShotsForm.read(form, typed, rows);
        return form.store(
                        () -> {
                            if (jobs.saveShots(id, form.getVersion(), shots)) {
                                history.undo("job", id).tell(flash, "The shots are kept.");
                            }
                            return "redirect:/jobs/" + id + "/shots";
                        },
                        () -> filled(jobs.job(id, Viewer.current())))
                .orElseGet(() -> form.page(model, "jobs/shots-edit"));
    }
}
