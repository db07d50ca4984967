package yarrek.app.documents;

import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.UUID;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.stereotype.Component;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;

/**
 * Whose papers a pilot sees: their own; those of a job they crew; of a colleague on the same job what is shown there on the
 * spot, until the job is over, since whoever is asked at the gate shows it. Papers of the operator and of aircraft are open
 * to all of the crew.
 */
@Component
class PaperSight {
    private static final Duration AFTER_THE_JOB = Duration.ofDays(1);

    private final Jobs jobs;
    private final Documents documents;
    private final Clock clock;

    PaperSight(Jobs jobs, Documents documents, Clock clock) {
        this.jobs = jobs;
        this.documents = documents;
        this.clock = clock;
    }

    /** @throws AccessDeniedException when the viewer may not see it */
    void require(Viewer viewer, UUID paperId, Papers.Entry paper) {
        if (!viewer.isPilot() || viewer.maySee(paper.holderId())) {
            return;
        }
        switch (paper.holderKind()) {
            case "pilot" -> {
                if (!isShown(viewer, paperId, paper.holderId())) {
                    throw new AccessDeniedException("another's paper");
                }
            }
            case "job" -> jobs.job(paper.holderId(), viewer);
            default -> {
                // the operator's, an aircraft's: open to all of the crew
            }
        }
    }

    private boolean isShown(Viewer viewer, UUID paperId, UUID colleague) {
        LocalDate from = LocalDate.ofInstant(clock.instant().minus(AFTER_THE_JOB), ZoneOffset.UTC);
        return viewer.personId() != null
                && jobs.shared(viewer.personId(), colleague, from).stream()
                        .anyMatch(j -> documents.set(j, colleague).docs().stream()
                                .anyMatch(d -> d.paper().id().equals(paperId)));
    }
}
