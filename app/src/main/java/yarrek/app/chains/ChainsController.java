package yarrek.app.chains;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.approvals.Approvals;
import yarrek.app.forms.TypedInput;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;

/** The chain of a job, what other aircraft and days would ask for, and whether papers cover it. */
@Controller
class ChainsController {
    private static final int MOST_COMPARED = 30;

    private final Chains chains;
    private final Covers covers;
    private final Jobs jobs;
    private final JobLists jobLists;
    private final Approvals approvals;
    private final DeskClient desks;

    ChainsController(
            Chains chains, Covers covers, Jobs jobs, JobLists jobLists, Approvals approvals, DeskClient desks) {
        this.chains = chains;
        this.covers = covers;
        this.jobs = jobs;
        this.jobLists = jobLists;
        this.approvals = approvals;
        this.desks = desks;
    }

    /** The chain in short, for the job's page. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/approvals")
    String ofJob(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("chain", chains.view(jobs.job(id, Viewer.current()), Chains.WhatIf.NOTHING));
        return "chains/job-approvals";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/chain")
    String chain(
            @PathVariable("id") UUID id,
            @RequestParam(value = "day", defaultValue = "") String day,
            @RequestParam(value = "step", defaultValue = "") String step,
            @RequestParam(value = "lead", defaultValue = "") String lead,
            Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        Chains.WhatIf what = Chains.WhatIf.NOTHING;
        try {
            LocalDate moved = day.isBlank() ? null : TypedInput.date(day, chains.today());
            Integer days = lead.isBlank() ? null : Integer.valueOf((int) TypedInput.plain(lead, "days"));
            if (days != null && !(days >= 0 && days <= 1000)) {
                throw new IllegalArgumentException("a lead time must be 0 to 1,000 days");
            }
            if (days != null && step.isBlank()) {
                throw new IllegalArgumentException("choose whose lead time it is");
            }
            what = new Chains.WhatIf(moved, step.isBlank() ? null : step, days);
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
        }
        Chains.View planned = chains.view(job, Chains.WhatIf.NOTHING);
        model.addAttribute("planned", planned);
        model.addAttribute("chain", what.isNothing() ? planned : chains.view(job, what));
        model.addAttribute("changed", !what.isNothing());
        model.addAttribute("typedDay", day);
        model.addAttribute("typedStep", step);
        model.addAttribute("typedLead", lead);
        return "chains/chain";
    }

    /** Other aircraft and other days, for the chain's page. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/choices")
    String choices(@PathVariable("id") UUID id, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        model.addAttribute("job", job);
        try {
            model.addAttribute("craft", chains.byAircraft(job));
            model.addAttribute("dates", chains.byDate(job));
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
            model.addAttribute("craft", List.of());
            model.addAttribute("dates", List.of());
        }
        return "chains/choices";
    }

    /** Hours of paper and the earliest day with each of some builds, as rows below the pairs of pilots and builds. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/choices/builds")
    String builds(
            @PathVariable("id") UUID id,
            @RequestParam(value = "build", defaultValue = "") List<UUID> builds,
            Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        if (builds.size() > MOST_COMPARED) {
            throw new IllegalArgumentException("at most " + MOST_COMPARED + " builds at once");
        }
        model.addAttribute("job", job);
        model.addAttribute("choices", chains.byBuild(job, builds));
        return "chains/builds";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/approvals")
    String begin(@PathVariable("id") UUID id, @RequestParam("step") String step, RedirectAttributes flash) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        try {
            if (step.equals("all")) {
                for (Chains.Line l : chains.view(job, Chains.WhatIf.NOTHING).lines()) {
                    if (l.onFile() == null && l.request().needed().known()) {
                        chains.begin(job, l.request().id(), Viewer.current().name());
                    }
                }
                return "redirect:/jobs/" + id + "/chain";
            }
            return "redirect:/approvals/"
                    + chains.begin(job, step, Viewer.current().name());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
            return "redirect:/jobs/" + id + "/chain";
        }
    }

    /** Sends every request of the job that nothing speaks against to its desk. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/approvals/send")
    String sendAll(
            @PathVariable("id") UUID id,
            @RequestParam(value = "why", defaultValue = "") String why,
            RedirectAttributes flash) {
        jobs.job(id, Viewer.current());
        DeskClient.All all = desks.sendAll(id, why, Viewer.current().name());
        if (!all.went().isEmpty()) {
            flash.addFlashAttribute("told", all.went());
        }
        flash.addFlashAttribute(
                "problems", all.not().stream().map(n -> "Not sent: " + n).toList());
        return "redirect:/jobs/" + id + "/chain";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/cover")
    String cover(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("cover", covers.view(jobs.job(id, Viewer.current())));
        return "chains/cover";
    }

    /** More than these are shown when they are asked for. */
    private static final int MOST_DUE = 100;

    /** Every request of jobs that are still to be flown. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals")
    String all(@RequestParam(value = "all", defaultValue = "false") boolean all, Model model) {
        Viewer viewer = Viewer.current();
        List<Approvals.ApprovalView> lasting = approvals.lasting(chains.today());
        Map<UUID, Jobs.Row> rows = jobLists.openRows(
                viewer, lasting.stream().map(Approvals.ApprovalView::jobId).collect(Collectors.toSet()));
        model.addAttribute("jobs", rows);
        model.addAttribute(
                "approvals",
                lasting.stream().filter(a -> rows.containsKey(a.jobId())).toList());
        int most = all ? Integer.MAX_VALUE : MOST_DUE;
        model.addAttribute("due", chains.due(viewer, 365, most));
        model.addAttribute("load", chains.load());
        model.addAttribute("today", chains.today());
        return "chains/approvals";
    }
}
