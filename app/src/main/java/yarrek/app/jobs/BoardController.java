package yarrek.app.jobs;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.core.board.Board;
import yarrek.core.time.Days;

/** The board: all jobs over some weeks, by crew, aircraft and sites. */
@Controller
class BoardController {
    private static final List<Integer> WEEKS = List.of(2, 6, 13);
    private static final int USUAL = 6;
    private static final Map<String, Set<Board.Kind>> ROWS = Map.of(
            "crew", EnumSet.of(Board.Kind.CREW, Board.Kind.AIRCRAFT),
            "sites", EnumSet.of(Board.Kind.SITE),
            "all", EnumSet.allOf(Board.Kind.class));
    private static final int MOST_MOVED = 200;
    private static final int MOST_LINES = 300;
    /** Clashes told one by one in a line. */
    private static final int MOST_TOLD = 3;

    private final Boards boards;
    private final JobLists lists;
    private final Aways aways;
    private final Crew crew;
    private final Fleet fleet;
    private final Office office;
    private final Clock clock;

    BoardController(Boards boards, JobLists lists, Aways aways, Crew crew, Fleet fleet, Office office, Clock clock) {
        this.boards = boards;
        this.lists = lists;
        this.aways = aways;
        this.crew = crew;
        this.fleet = fleet;
        this.office = office;
        this.clock = clock;
    }

    /** A stitch as a row of the table beside the drawing. */
    public record Line(Board.Row strand, Board.Job job, LocalDate first, LocalDate last, List<String> clashes) {}

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/board")
    String board(
            @RequestParam(value = "weeks", defaultValue = "" + USUAL) int weeks,
            @RequestParam(value = "from", required = false) LocalDate from,
            @RequestParam(value = "rows", defaultValue = "crew") String rows,
            Model model) {
        Viewer viewer = Viewer.current();
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        int shown = WEEKS.contains(weeks) ? weeks : USUAL;
        LocalDate first = (from == null ? today : from).with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
        Board board = boards.board(viewer, first, shown, ROWS.getOrDefault(rows, ROWS.get("crew")));
        int clashes = board.clashes();
        String title = Days.show(board.from(), board.through()) + ", "
                + board.jobs().size() + (board.jobs().size() == 1 ? " job" : " jobs") + ", " + clashes
                + (clashes == 1 ? " clash" : " clashes");
        model.addAttribute("board", board);
        model.addAttribute("covers", title);
        model.addAttribute("drawing", BoardSvg.write(board, today, "The board, " + title));
        List<Line> lines = lines(board);
        model.addAttribute("lines", lines.subList(0, Math.min(lines.size(), MOST_LINES)));
        model.addAttribute("left", Math.max(0, lines.size() - MOST_LINES));
        model.addAttribute("weeks", shown);
        model.addAttribute("allWeeks", WEEKS);
        model.addAttribute("rows", rows);
        model.addAttribute("earlier", first.minusWeeks(shown));
        model.addAttribute("later", first.plusWeeks(shown));
        model.addAttribute("from", first);
        if (viewer.isManager()) {
            model.addAttribute("away", aways.between(board.from(), board.through()));
            model.addAttribute("aircraft", fleet.aircraftNames());
            if (!model.containsAttribute("awayTyped")) {
                model.addAttribute("awayTyped", AwayController.Typed.NOTHING);
            }
            model.addAttribute("movable", lists.openNames(viewer, MOST_MOVED));
            model.addAttribute("people", crew.all());
            model.addAttribute("builds", fleet.builds());
        }
        return "jobs/board";
    }

    private static List<String> first(List<String> clashes) {
        return clashes.size() <= MOST_TOLD + 1
                ? clashes
                : Stream.concat(
                                clashes.stream().limit(MOST_TOLD),
                                Stream.of("and " + (clashes.size() - MOST_TOLD) + " more"))
                        .toList();
    }

    /** Every stitch, clashes first, then by day. */
    private static List<Line> lines(Board board) {
        List<Line> lines = new ArrayList<>();
        for (Board.Strand s : board.strands()) {
            Map<UUID, List<String>> clashes = new HashMap<>();
            for (Board.Clash c : s.clashes()) {
                String day = ", " + Days.show(c.day());
                clashes.computeIfAbsent(c.one().id(), k -> new ArrayList<>())
                        .add(c.other().name() + day);
                clashes.computeIfAbsent(c.other().id(), k -> new ArrayList<>())
                        .add(c.one().name() + day);
            }
            for (Board.Stitch t : s.stitches()) {
                lines.add(new Line(
                        s.row(),
                        t.job(),
                        t.first(),
                        t.last(),
                        first(clashes.getOrDefault(t.job().id(), List.of()))));
            }
        }
        lines.sort(Comparator.comparing((Line l) -> l.clashes().isEmpty())
                .thenComparing(Line::first)
                .thenComparing(l -> l.job().name()));
        return lines;
    }
}
