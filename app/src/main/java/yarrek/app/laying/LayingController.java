package yarrek.app.laying;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.jobs.BoardSvg;
import yarrek.app.jobs.Boards;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.core.board.Board;
import yarrek.core.board.Layout;
import yarrek.core.time.Days;

/** Laying out the weeks: jobs are chosen, a proposal is shown beside the plan as it is, and taken whole or line by line. */
@Controller
class LayingController {
    private static final List<Integer> WEEKS = List.of(2, 4, 6);
    private static final int USUAL = 4;
    private static final Set<Board.Kind> STRANDS = EnumSet.of(Board.Kind.CREW, Board.Kind.AIRCRAFT);

    private final Laying laying;
    private final JobLists lists;
    private final Boards boards;
    private final Office office;
    private final Clock clock;

    LayingController(Laying laying, JobLists lists, Boards boards, Office office, Clock clock) {
        this.laying = laying;
        this.lists = lists;
        this.boards = boards;
        this.office = office;
        this.clock = clock;
    }

    /** A job that may be laid out. */
    public record Choosable(Jobs.Row row, boolean chosen) {}

    /**
     * A line of the proposal as it is read.
     *
     * @param value what is sent when it is taken; empty where there is nothing to take
     */
    public record Shown(
            UUID job,
            String name,
            String nowShape,
            String now,
            List<String> was,
            List<String> becomes,
            String shape,
            String stands,
            String keepsOut,
            String value) {}

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/board/lay-out")
    String layOut(
            @RequestParam(value = "from", required = false) LocalDate from,
            @RequestParam(value = "weeks", defaultValue = "" + USUAL) int weeks,
            @RequestParam(value = "job", required = false) Set<UUID> chosen,
            Model model) {
        Viewer viewer = Viewer.current();
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        int shown = WEEKS.contains(weeks) ? weeks : USUAL;
        LocalDate first = from == null || from.isBefore(today) ? today : from;
        LocalDate through = first.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY))
                .plusWeeks(shown)
                .minusDays(1);
        Set<UUID> taken = chosen == null ? Set.of() : chosen;
        Map<UUID, Jobs.Row> rows = lists.openBetween(viewer, first, through, Laying.MOST_JOBS);
        model.addAttribute("from", first);
        model.addAttribute("through", through);
        model.addAttribute("weeks", shown);
        model.addAttribute("allWeeks", WEEKS);
        model.addAttribute(
                "jobs",
                rows.values().stream()
                        .map(r -> new Choosable(r, taken.isEmpty() || taken.contains(r.id())))
                        .toList());
        if (!taken.isEmpty()) {
            try {
                propose(taken, first, through, shown, model);
            } catch (IllegalArgumentException e) {
                model.addAttribute("problem", e.getMessage());
            }
        }
        return "laying/lay-out";
    }

    private void propose(Set<UUID> chosen, LocalDate first, LocalDate through, int weeks, Model model) {
        Viewer viewer = Viewer.current();
        Map<UUID, Jobs.Row> rows = lists.openRows(viewer, chosen);
        Laying.Proposed proposed = laying.propose(rows.keySet(), first, through);
        Set<UUID> builds = new LinkedHashSet<>();
        proposed.lines()
                .forEach(l -> Stream.of(l.stored().draft().buildId(), l.draft().buildId())
                        .filter(b -> b != null)
                        .forEach(builds::add));
        Map<UUID, String> names = laying.names(builds);
        List<Shown> lines = new ArrayList<>();
        proposed.lines().forEach(l -> lines.add(shown(l, rows.get(l.stored().id()), names)));
        LocalDate monday = first.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
        Board now = boards.board(viewer, monday, weeks, STRANDS);
        Board then = boards.board(viewer, monday, weeks, STRANDS, proposed.instead());
        model.addAttribute("lines", lines);
        model.addAttribute("changes", lines.stream().anyMatch(l -> !l.value().isEmpty()));
        model.addAttribute(
                "in", lines.stream().filter(l -> l.keepsOut().isEmpty()).count());
        model.addAttribute(
                "goNow", rows.values().stream().filter(r -> !r.noGo()).count());
        model.addAttribute("judged", proposed.judged());
        model.addAttribute("ways", proposed.ways());
        model.addAttribute("left", proposed.left());
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        model.addAttribute("now", BoardSvg.write(now, today, "As planned now, " + clashes(now)));
        model.addAttribute("then", BoardSvg.write(then, today, "As proposed, " + clashes(then)));
        model.addAttribute("clashesNow", clashes(now));
        model.addAttribute("clashesThen", clashes(then));
    }

    private static String clashes(Board b) {
        return b.clashes() + (b.clashes() == 1 ? " clash" : " clashes");
    }

    private static Shown shown(Laying.Line l, Jobs.Row row, Map<UUID, String> names) {
        Layout.Line line = l.line();
        boolean in = line.isIn();
        boolean same = in && line.isAsPlanned();
        return new Shown(
                l.stored().id(),
                l.stored().draft().name(),
                row.shape(),
                row.stands(),
                says(l.stored().draft(), names),
                in && !same ? says(l.draft(), names) : List.of(),
                in ? shape(line) : "",
                in ? line.judged().tally().go().words(line.judged().tally().departures()) : "",
                line.keepsOut(),
                in && !same ? new Value(l.stored(), line.choice()).written() : "");
    }

    private static String shape(Layout.Line l) {
        return l.judged().tally().shape();
    }

    /** Days, pilot and build. */
    private static List<String> says(JobDraft d, Map<UUID, String> names) {
        return List.of(
                Days.show(d.firstDay(), d.lastDay()),
                d.pilotId() == null ? "no pilot yet" : names.get(d.pilotId()),
                d.buildId() == null ? "no build yet" : names.get(d.buildId()));
    }

    /** A line as it goes to the page and comes back. */
    private record Value(UUID job, long version, Layout.Choice choice) {
        private static final int PARTS = 5;

        Value(Jobs.Stored s, Layout.Choice c) {
            this(s.id(), s.version(), c);
        }

        String written() {
            return Stream.of(job, version, choice.pilot(), choice.build(), choice.first())
                    .map(String::valueOf)
                    .collect(Collectors.joining(" "));
        }

        /** @throws IllegalArgumentException when it is none */
        static Laying.Taken read(String text) {
            String[] parts = text.split(" ");
            if (parts.length != PARTS) {
                throw new IllegalArgumentException("not a line of a proposal: " + text);
            }
            try {
                return new Laying.Taken(
                        UUID.fromString(parts[0]),
                        Long.parseLong(parts[1]),
                        new Layout.Choice(
                                UUID.fromString(parts[2]), UUID.fromString(parts[3]), LocalDate.parse(parts[4])));
            } catch (java.time.DateTimeException e) {
                throw new IllegalArgumentException("not a line of a proposal: " + text, e);
            }
        }
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/board/lay-out")
    String take(
            @RequestParam(value = "line", required = false) List<String> lines,
            @RequestParam("from") LocalDate from,
            @RequestParam("weeks") int weeks,
            RedirectAttributes flash) {
        try {
            int n = laying.take(
                    lines == null ? List.of() : lines.stream().map(Value::read).toList());
            flash.addFlashAttribute(
                    n == 0 ? "problem" : "told",
                    n == 0 ? "No line was taken." : n + (n == 1 ? " job is" : " jobs are") + " planned as proposed.");
        } catch (LostUpdateException e) {
            flash.addFlashAttribute(
                    "problem", "Somebody else changed one of these jobs meanwhile; nothing was kept, look again.");
            return "redirect:/board/lay-out";
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
            return "redirect:/board/lay-out";
        }
        flash.addAttribute("from", from);
        flash.addAttribute("weeks", weeks);
        return "redirect:/board";
    }
}
