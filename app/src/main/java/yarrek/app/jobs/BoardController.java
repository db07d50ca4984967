package yarrek.app.jobs;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
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
    private static final int MOST_LINES = 150;
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
        model.addAttribute("lines", lines(board));
        model.addAttribute(
                "left",
                Math.max(
                        0,
                        board.strands().stream()
                                        .mapToInt(s -> s.stitches().size())
                                        .sum()
                                - MOST_LINES));
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

    private record Drawn(Board.Strand strand, Board.Stitch stitch, boolean clashes) {}

    private static final Comparator<Drawn> CLASHES_FIRST = Comparator.comparing((Drawn d) -> !d.clashes())
            .thenComparing(d -> d.stitch().first())
            .thenComparing(d -> d.stitch().job().name());

    /** The stitches that are told, clashes first, then by day. */
    private static List<Line> lines(Board board) {
        // of thousands most are not told: only those that are have their clashes put in words
        PriorityQueue<Drawn> told = new PriorityQueue<>(CLASHES_FIRST.reversed());
        for (Board.Strand s : board.strands()) {
            Set<UUID> clashing = s.clashes().stream()
                    .flatMap(c -> Stream.of(c.one().id(), c.other().id()))
                    .collect(Collectors.toSet());
            for (Board.Stitch t : s.stitches()) {
                Drawn d = new Drawn(s, t, clashing.contains(t.job().id()));
                if (told.size() < MOST_LINES) {
                    told.add(d);
                } else if (CLASHES_FIRST.compare(d, told.peek()) < 0) {
                    told.poll();
                    told.add(d);
                }
            }
        }
        return told.stream()
                .sorted(CLASHES_FIRST)
                .map(d -> new Line(
                        d.strand().row(),
                        d.stitch().job(),
                        d.stitch().first(),
                        d.stitch().last(),
                        d.clashes() ? clashes(d) : List.of()))
                .toList();
    }

    private static List<String> clashes(Drawn d) {
        UUID job = d.stitch().job().id();
        return first(d.strand().clashes().stream()
                .filter(c -> c.one().id().equals(job) || c.other().id().equals(job))
                .map(c -> (c.one().id().equals(job) ? c.other() : c.one()).name() + ", " + Days.show(c.day()))
                .toList());
    }
}
