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

    static JobSpine of(Jobs.JobView job, List<Approvals.ApprovalView> approvals, Approvals.ToSend toSend, int papers) {
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
        parts.add(4, approvals(approvals, toSend, job.row().state().equals(JobEntity.PLANNED)));
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

    /** Of the approvals what is needed, not only what was begun. */
    private static Part approvals(List<Approvals.ApprovalView> begun, Approvals.ToSend toSend, boolean planned) {
        long held = begun.stream().filter(a -> a.state().isHeld()).count();
        long out = begun.stream().filter(a -> a.state().isOut()).count();
        List<String> says = new ArrayList<>();
        if (held > 0) {
            says.add(held + " held");
        }
        if (out > 0) {
            says.add(out + " out");
        }
        if (toSend.known() > 0) {
            says.add(toSend.known() + " to be sent" + (toSend.late() ? ", late" : ""));
        }
        if (toSend.perhaps() > 0) {
            says.add(toSend.perhaps() + " perhaps");
        }
        boolean open = out + toSend.known() + toSend.perhaps() > 0 || held < begun.size();
        return new Part(
                "Approvals",
                "#approvals",
                toSend.late() ? "notch" : open || (says.isEmpty() && !planned) ? "dots" : "full",
                says.isEmpty() ? (planned ? "none needed, as planned" : "none on file") : String.join(", ", says),
                count(begun.size(), "request"));
    }

    private static String count(int n, String what) {
        return n + " " + what + (n == 1 ? "" : "s");
    }
}
