package yarrek.app.api;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrek.app.exchange.Exchange;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.formats.table.Table;

/** Lists: papers with their states, jobs with their standing; and every register whole, out and in. */
@RestController
@RequestMapping("/api/v1")
class RegistersApi {
    private static final int MOST = 20_000;

    private final Papers papers;
    private final JobLists jobLists;
    private final Exchange exchange;

    RegistersApi(Papers papers, JobLists jobLists, Exchange exchange) {
        this.exchange = exchange;
        this.papers = papers;
        this.jobLists = jobLists;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers")
    List<Papers.Row> papers() {
        Viewer viewer = Viewer.current();
        return papers.all().stream()
                .filter(p -> !viewer.isPilot() || p.holderId().equals(viewer.personId()))
                .toList();
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs")
    List<Jobs.Row> jobs() {
        return jobLists.all(Viewer.current());
    }

    /** The records of a register by the names of their fields, as the page's form would show them. */
    @OpenTo(OpenTo.Whom.OFFICE)
    @GetMapping("/registers/{code}")
    List<Map<String, String>> register(@PathVariable("code") String code) {
        return exchange.objects(code);
    }

    /**
     * New records and changes, checked as the page checks them; what is left out stays as it is. All is stored or, with 422
     * and the reasons, nothing.
     */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/registers/{code}")
    ResponseEntity<List<Exchange.Line>> change(
            @PathVariable("code") String code,
            @RequestParam(value = "look", defaultValue = "false") boolean looking,
            @RequestBody List<Map<String, String>> records) {
        if (records.size() > MOST) {
            throw new ApiConfig.BadRequestException(
                    "records", "at most " + MOST + " records at once, got " + records.size());
        }
        try {
            List<String> fields = records.stream()
                    .flatMap(r -> r.keySet().stream())
                    .distinct()
                    .toList();
            List<Exchange.Line> lines = exchange.bringIn(
                    code,
                    Table.of(
                            fields,
                            records.stream()
                                    .map(r -> fields.stream()
                                            .map(f -> Objects.requireNonNullElse(r.get(f), ""))
                                            .toList())
                                    .toList()),
                    looking);
            boolean wrong = lines.stream().anyMatch(l -> !l.problems().isEmpty());
            return ResponseEntity.status(wrong ? HttpStatus.UNPROCESSABLE_CONTENT : HttpStatus.OK)
                    .body(lines);
        } catch (IllegalArgumentException e) {
            throw new ApiConfig.BadRequestException("record", e.getMessage());
        }
    }
}
