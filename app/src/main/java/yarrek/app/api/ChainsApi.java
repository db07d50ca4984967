package yarrek.app.api;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import org.springframework.format.annotation.DateTimeFormat;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrek.app.chains.Chains;
import yarrek.app.chains.Covers;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;

/** The chain of a job in time, and whether papers cover it. */
@RestController
@RequestMapping("/api/v1/jobs/{id}")
class ChainsApi {
    private final Jobs jobs;
    private final Chains chains;
    private final Covers covers;

    ChainsApi(Jobs jobs, Chains chains, Covers covers) {
        this.jobs = jobs;
        this.chains = chains;
        this.covers = covers;
    }

    /**
     * @param known false when it may be needed and what decides is not known
     * @param needs ids of the steps that must be granted before it can be sent
     * @param slackDays days between what can be reached at worst and what is needed; below zero it comes too late
     */
    record StepOut(
            String id,
            String title,
            String state,
            boolean known,
            List<String> because,
            List<String> needs,
            double prepareHours,
            LocalDate firstDay,
            LocalDate lastDay,
            LocalDate sendBy,
            LocalDate heldAtWorst,
            long slackDays) {}

    /** @param trouble why there is no plan, such as a circle named; empty when there is one */
    record ChainOut(
            LocalDate earliestJobDay, List<String> critical, double hoursLeft, String trouble, List<StepOut> steps) {}

    /** @param papers by number: covered, missing or not known, and what */
    record CoverOut(LocalDate day, String aircraft, String standing, List<String> gaps, Map<String, String> papers) {}

    /** @param firstDay the first day of the job moved to, to see what follows; as planned when it is left out */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/chain")
    ChainOut chain(
            @PathVariable("id") UUID id,
            @RequestParam(value = "firstDay", required = false) @DateTimeFormat(iso = DateTimeFormat.ISO.DATE)
                    LocalDate firstDay) {
        Chains.View v = chains.view(jobs.job(id, Viewer.current()), new Chains.WhatIf(firstDay, null, null));
        return new ChainOut(
                v.plan() == null ? null : v.plan().earliestJobDay(),
                v.plan() == null ? List.of() : v.plan().critical(),
                v.hoursLeft(),
                v.trouble(),
                v.lines().stream()
                        .map(l -> new StepOut(
                                l.request().id(),
                                l.request().title(),
                                l.state(),
                                l.request().needed().known(),
                                l.request().needed().because(),
                                l.planned().step().needs().stream().sorted().toList(),
                                l.request().prepareHours(),
                                l.request().firstDay(),
                                l.request().lastDay(),
                                l.planned().latestSend(),
                                l.planned().earliestGrant(),
                                l.planned().slackDays()))
                        .toList());
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/cover")
    List<CoverOut> cover(@PathVariable("id") UUID id) {
        Covers.View v = covers.view(jobs.job(id, Viewer.current()));
        return v.rows().stream()
                .map(r -> {
                    Map<String, String> papers = new TreeMap<>();
                    for (int i = 0; i < v.papers().size(); i++) {
                        papers.put(
                                v.papers().get(i).reference(), r.cells().get(i).words());
                    }
                    return new CoverOut(
                            r.day(),
                            r.aircraft(),
                            switch (r.shape()) {
                                case "full" -> "covered";
                                case "notch" -> "not covered";
                                default -> "not known";
                            },
                            r.gaps(),
                            papers);
                })
                .toList();
    }
}
