package yarrek.app.jobs;

import java.util.ArrayList;
import java.util.List;
import yarrek.app.approvals.Approvals;
import yarrek.core.rulebook.Spine;

/** The parts of a job's work beside its page, each with where it stands on it. */
public record JobSpine(List<Part> parts) {
    /**
     * @param href within the page
     * @param count what there is of it
     */
    public record Part(String title, String href, String shape, String says, String count) {}

    static JobSpine of(Jobs.JobView job, List<Approvals.ApprovalView> approvals, int papers) {
        List<Part> parts = new ArrayList<>();
        for (Spine.Vertebra v : Spine.of(job.assessment().findings())) {
            parts.add(new Part(
                    v.part().words(),
                    switch (v.part()) {
                        case PLAN -> "#findings";
                        case AIRCRAFT -> "#build";
                        case SITE -> "#site";
                        case WEATHER -> "#weather";
                        case PEOPLE -> "#flights-planned";
                        case PAPERS -> "#papers";
                    },
                    v.shape(),
                    v.says(),
                    count(v.rules(), "rule")));
        }
        long held = approvals.stream().filter(a -> a.state().isHeld()).count();
        parts.add(
                4,
                new Part(
                        "Approvals",
                        "#approvals",
                        approvals.isEmpty() ? "dots" : held == approvals.size() ? "full" : "notch",
                        approvals.isEmpty() ? "none begun" : held + " of " + approvals.size() + " held",
                        count(approvals.size(), "request")));
        int flights = Math.max(1, job.draft().flights().size());
        parts.add(new Part(
                "Flights",
                "#flown",
                job.row().state().equals("FLOWN") ? "full" : "dots",
                job.row().state().equals("FLOWN") ? "flown" : "to be flown",
                count(flights, "flight") + " planned"));
        parts.add(new Part(
                "Papers of this job", "#job-papers", papers == 0 ? "dots" : "full", "", count(papers, "paper")));
        return new JobSpine(parts);
    }

    private static String count(int n, String what) {
        return n + " " + what + (n == 1 ? "" : "s");
    }
}
