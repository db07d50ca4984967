package yarrek.app.demo;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.page.Viewer;

/** A short look round the sample world, by role: what each opens first, on records that show it. */
@Service
public class Round {
    /** @param path of the page that shows it */
    public record Stop(String path, String what, String shows) {}

    /** @param login by which one looks as this role */
    public record Walk(Viewer.Role role, String login, List<Stop> stops) {}

    private static final String PLANNED = "select id from job where state = 'PLANNED' and last_day >= current_date ";
    private final JdbcClient jdbc;

    Round(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The viewer's own walk first; a stop that no record shows is left out. */
    @Transactional(readOnly = true)
    public List<Walk> walks(Viewer viewer) {
        List<Walk> all = List.of(
                new Walk(Viewer.Role.MANAGER, "manager", manager()),
                new Walk(Viewer.Role.PILOT, "pilot", pilot()),
                new Walk(Viewer.Role.READER, "reader", reader()));
        return Stream.concat(
                        all.stream().filter(w -> w.role() == viewer.role()),
                        all.stream().filter(w -> w.role() != viewer.role()))
                .toList();
    }

    private List<Stop> manager() {
        return Stream.of(
                        stop(
                                "/jobs/",
                                PLANNED + "and law_breaches > 0 order by first_day limit 1",
                                "",
                                "A job that may not be flown as planned",
                                "why, by which law, and the smallest change that mends it, with its button"),
                        stop(
                                "/papers/",
                                "select id from paper where valid_to < current_date order by valid_to desc limit 1",
                                "/renew",
                                "A paper that ran out",
                                "renewed by number, end and scan; jobs that rest on it are judged again"),
                        stop(
                                "/flights/",
                                "select id from flight where breached > 0 order by takeoff desc limit 1",
                                "#worst",
                                "A flight with a breach",
                                "map, height and limit at the very second"),
                        stop(
                                "/jobs/",
                                "select job_id from approval group by job_id order by count(*) desc limit 1",
                                "/chain",
                                "Requests that hang on one another",
                                "by when each is sent, what that leaves, what a later day would change"),
                        stop(
                                "/fleet/builds/",
                                "select b.id from build b join build_accessory a on a.build_id = b.id group by b.id"
                                        + " order by count(*) desc limit 1",
                                "",
                                "A build",
                                "tick a part: mass, class and room left to the next threshold"),
                        Optional.of(new Stop("/packs", "Packs", "which to watch, to retire, to exercise, and why")),
                        Optional.of(new Stop(
                                "/rulebook",
                                "The rulebook",
                                "six laws as data, each rule with its source; the house's own")))
                .flatMap(Optional::stream)
                .toList();
    }

    private List<Stop> pilot() {
        return Stream.of(
                        stop(
                                "/field/card/",
                                PLANNED + "order by first_day limit 1",
                                "",
                                "If it goes wrong",
                                "what to do first, whom to call for what, where it may be; open without a network"),
                        Optional.of(new Stop(
                                "/field/report",
                                "Report",
                                "a near miss in two fields; kept on the phone until it can be sent")),
                        stop(
                                "/airspace/sites/",
                                "select site_id from job where state = 'PLANNED' and last_day >= current_date order by first_day limit 1",
                                "",
                                "A site",
                                "zones, structures, light and weather hour by hour, whom to call"),
                        Optional.of(
                                new Stop("/papers", "Papers", "one's own, as bars in time, and which job meets none")),
                        Optional.of(new Stop("/flights", "Flights", "one's own logs, each judged; drop another in")))
                .flatMap(Optional::stream)
                .toList();
    }

    private List<Stop> reader() {
        return Stream.of(
                        stop(
                                "/history/job/",
                                "select id from job order by first_day desc limit 1",
                                "",
                                "The history of a job",
                                "who changed what, before and after"),
                        Optional.of(new Stop("/approvals", "Approvals", "what was asked, granted, and on what terms")),
                        Optional.of(new Stop("/incidents", "Incidents", "what had to be reported, by when")),
                        Optional.of(new Stop("/exchange", "Registers as tables", "every register as CSV or XLSX")))
                .flatMap(Optional::stream)
                .toList();
    }

    private Optional<Stop> stop(String before, String sql, String after, String what, String shows) {
        return jdbc.sql(sql).query(String.class).optional().map(id -> new Stop(before + id + after, what, shows));
    }
}
