package yarrek.app.jobs;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import yarrek.app.print.Svg;
import yarrek.core.board.Board;
import yarrek.core.time.Days;

/** The board as a drawing: a strand for each row, jobs as threads sewn through those they use. */
public final class BoardSvg {
    private static final double WIDTH = 1122;
    private static final double LEFT = 168;
    private static final double RIGHT = 958;
    private static final double ROW = 22;
    private static final double TIER = 15;
    private static final int MOST_TIERS = 7;
    /** More jobs than these have a head only where something is in their way. */
    private static final int MOST_HEADS = 20;
    /** Width of a letter of the heads on average, in the same units; a little more than the face has. */
    private static final double LETTER = 6.1;

    private static final double KNOT = 6.5;
    private static final double HATCH = 5;
    private static final DateTimeFormatter MONDAY = DateTimeFormatter.ofPattern("EEE d MMM", Locale.UK);

    private final Svg svg = new Svg();
    private final Board board;
    private final LocalDate today;
    private final Map<Integer, Double> rows = new HashMap<>();
    private final List<Head> heads;
    private final double top;
    private final double foot;

    private record Head(Board.JobThread thread, int tier, boolean named) {}

    private BoardSvg(Board board, LocalDate today) {
        this.board = board;
        this.today = today;
        this.heads = heads();
        int tiers = heads.stream().mapToInt(Head::tier).max().orElse(-1) + 1;
        this.top = 14 + tiers * TIER;
        double y = top;
        Board.Kind kind = null;
        for (int i = 0; i < board.strands().size(); i++) {
            if (board.strands().get(i).row().kind() != kind) {
                kind = board.strands().get(i).row().kind();
                y += ROW;
            }
            y += ROW;
            rows.put(i, y);
        }
        this.foot = y + 14;
    }

    /** @param label what a reader hears in the place of the drawing */
    public static String write(Board board, LocalDate today, String label) {
        BoardSvg b = new BoardSvg(board, today);
        b.svg.open(
                "svg",
                "class",
                "board",
                "viewBox",
                "0 0 " + Svg.figure(WIDTH) + " " + Svg.figure(b.foot + 18),
                "role",
                "group",
                "aria-label",
                label);
        b.weeks();
        b.threads();
        b.strands();
        b.heads.forEach(b::head);
        return b.svg.close().written();
    }

    private double x(LocalDate day) {
        double days = ChronoUnit.DAYS.between(board.from(), board.through()) + 1;
        return LEFT + ChronoUnit.DAYS.between(board.from(), day) * (RIGHT - LEFT) / days;
    }

    private double middle(Board.JobThread t) {
        return (x(t.first()) + x(t.first().plusDays(1))) / 2;
    }

    /** Which jobs have a head and in which tier: the first that is free where its words begin. */
    private List<Head> heads() {
        List<Board.JobThread> threads = board.threads();
        boolean all = threads.size() <= MOST_HEADS;
        List<Head> placed = new ArrayList<>();
        double[] taken = new double[MOST_TIERS];
        for (Board.JobThread t : threads) {
            if (!all && t.job().clear()) {
                placed.add(new Head(t, -1, false));
                continue;
            }
            double from = middle(t) - 14;
            double to = from + 34 + t.job().name().length() * LETTER;
            if (to > WIDTH) {
                from = WIDTH - (to - from);
            }
            int tier = 0;
            while (tier < MOST_TIERS && taken[tier] > from) {
                tier++;
            }
            if (tier < MOST_TIERS) {
                taken[tier] = to;
                placed.add(new Head(t, tier, true));
            } else {
                placed.add(new Head(t, -1, false));
            }
        }
        return placed;
    }

    private void weeks() {
        for (LocalDate d = board.from(); !d.isAfter(board.through()); d = d.plusDays(1)) {
            if (d.getDayOfWeek().compareTo(DayOfWeek.SATURDAY) >= 0) {
                svg.draw(
                        "rect",
                        "class",
                        "weekend",
                        "x",
                        x(d),
                        "y",
                        top + 8,
                        "width",
                        x(d.plusDays(1)) - x(d),
                        "height",
                        foot - top - 8);
            }
        }
        for (LocalDate d = board.from(); !d.isAfter(board.through()); d = d.plusDays(1)) {
            if (d.getDayOfWeek() == DayOfWeek.MONDAY) {
                upright("major", x(d), top + 8, foot);
                svg.say("text", MONDAY.format(d), "class", "axis", "x", x(d) + 2, "y", foot + 13);
            }
        }
        if (!today.isBefore(board.from()) && !today.isAfter(board.through())) {
            upright("now", x(today), top + 2, foot);
            svg.say("text", "now", "class", "axis", "x", x(today) + 3, "y", top + 10);
        }
        svg.draw("line", "class", "base", "x1", 0, "x2", WIDTH, "y1", foot, "y2", foot);
        svg.say("text", "idle", "class", "axis", "x", 972, "y", top + ROW - 2);
        svg.say("text", "clashes", "class", "axis", "x", WIDTH, "y", top + ROW - 2, "text-anchor", "end");
    }

    private void upright(String sort, double x, double from, double to) {
        svg.draw("line", "class", sort, "x1", x, "x2", x, "y1", from, "y2", to);
    }

    private static String thread(Board.Job job) {
        return job.clear() ? "thread" : "thread bad";
    }

    private void threads() {
        boolean all = heads.size() <= MOST_HEADS;
        for (Head h : heads) {
            if (!all && !h.named()) {
                continue;
            }
            double from = h.named() ? 14 + h.tier() * TIER : rows.get(h.thread().topRow());
            upright(
                    thread(h.thread().job()),
                    middle(h.thread()),
                    from,
                    rows.get(h.thread().lastRow()));
        }
    }

    private void strands() {
        Board.Kind kind = null;
        for (int i = 0; i < board.strands().size(); i++) {
            Board.Strand s = board.strands().get(i);
            double y = rows.get(i);
            if (s.row().kind() != kind) {
                kind = s.row().kind();
                svg.say("text", kind.words(), "class", "kind", "x", 0, "y", y - ROW + 4);
            }
            svg.say("text", s.row().name(), "class", "name", "x", 0, "y", y + 4);
            svg.draw("line", "class", "strand", "x1", LEFT - 6, "x2", RIGHT + 8, "y1", y, "y2", y);
            s.away().forEach(a -> hatch(a, y));
            if (s.isCrowded()) {
                s.crowds().forEach(c -> crowd(s, c, y));
            } else {
                s.stitches().forEach(stitch -> stitch(s, stitch, y));
                s.clashes().forEach(c -> knot(s, c, y));
            }
            svg.say("text", s.idle() + " d", "class", "figure", "x", 972, "y", y + 4);
            svg.say(
                    "text",
                    s.clashes().size() + (s.clashes().size() >= Board.MOST_CLASHES ? "+" : ""),
                    "class",
                    s.clashes().isEmpty() ? "figure" : "figure bad",
                    "x",
                    WIDTH,
                    "y",
                    y + 4,
                    "text-anchor",
                    "end");
        }
    }

    /** Days on which somebody is away: slanting strokes over the strand. */
    private void hatch(Board.Away a, double y) {
        double from = x(a.first()) + 1;
        double to = x(a.last().plusDays(1)) - 1;
        String until = a.first().equals(a.last()) ? "" : " to " + Days.show(a.last());
        svg.open("g", "class", "away").say("title", a.words() + ", " + Days.show(a.first()) + until);
        StringBuilder strokes = new StringBuilder();
        for (double at = from; at + HATCH / 2 <= to; at += HATCH) {
            strokes.append(Svg.path(" M", at, y + HATCH)).append(Svg.path(" L", Math.min(at + HATCH, to), y - HATCH));
        }
        svg.draw("path", "d", strokes.toString().strip());
        svg.close();
    }

    /** So many jobs that none of them could be made out: a bar of the days, with how many. */
    private void crowd(Board.Strand s, Board.Crowd c, double y) {
        double from = x(c.first()) + 1;
        double width = x(c.last().plusDays(1)) - 1 - from;
        String stopped = c.stopped() == 0 ? "" : ", " + c.stopped() + " no-go";
        svg.open("a", "href", "/board?weeks=2&from=" + c.first(), "class", c.stopped() > 0 ? "crowd bad" : "crowd");
        svg.say(
                "title",
                s.row().name() + ": " + c.stitches() + " jobs, " + Days.stretch(c.first(), c.last(), " to ") + stopped);
        svg.draw("rect", "class", "wipe", "x", from, "y", y - 6, "width", width, "height", 12);
        bar(c.stopped() > 0 ? "notch" : "full", from, y - 5.5, width, 11);
        svg.say("text", c.stitches() + stopped, "x", from + 12, "y", y + 4);
        svg.close();
    }

    private void stitch(Board.Strand s, Board.Stitch stitch, double y) {
        Board.Job j = stitch.job();
        double from = x(stitch.first()) + 1;
        double width = Math.max(7, x(stitch.last().plusDays(1)) - 1 - from);
        String words =
                s.row().name() + ": " + j.name() + ", " + Days.show(stitch.first(), stitch.last()) + ", " + j.words();
        link(j.id(), words, s.row().id(), stitch.first());
        svg.draw("rect", "class", "wipe", "x", from, "y", y - 6, "width", width, "height", 12);
        bar(j.shape(), from, y - 5.5, width, 11);
        svg.close();
    }

    /** A link with its words; keys go from one to the next by strand and day. */
    private void link(UUID job, String words, UUID strand, LocalDate day) {
        svg.open(
                "a",
                "href",
                "/jobs/" + job,
                "class",
                "stitch",
                "data-job",
                job,
                "data-strand",
                strand,
                "data-day",
                day,
                "aria-label",
                words);
        svg.say("title", words);
    }

    private void bar(String shape, double x, double y, double w, double h) {
        switch (shape) {
            case "full" -> svg.draw("rect", "class", "s-full", "x", x, "y", y, "width", w, "height", h);
            case "cut" -> {
                double cut = Math.min(h * 0.85, w / 2);
                svg.draw(
                        "path",
                        "class",
                        "s-cut",
                        "d",
                        Svg.path("M", x + 0.6, y + 0.6) + Svg.path(" L", x + w - cut, y + 0.6)
                                + Svg.path(" L", x + w - 0.6, y + h - 0.6) + Svg.path(" L", x + 0.6, y + h - 0.6)
                                + " Z");
            }
            case "notch" -> {
                double arm = Math.min(7, w / 3);
                svg.draw(
                        "path",
                        "class",
                        "s-notch",
                        "d",
                        Svg.path("M", x + 1 + arm, y + 1)
                                + Svg.path(" L", x + 1, y + 1)
                                + Svg.path(" L", x + 1, y + h - 1)
                                + Svg.path(" L", x + 1 + arm, y + h - 1)
                                + Svg.path(" M", x + w - 1 - arm, y + 1)
                                + Svg.path(" L", x + w - 1, y + 1)
                                + Svg.path(" L", x + w - 1, y + h - 1)
                                + Svg.path(" L", x + w - 1 - arm, y + h - 1));
            }
            default -> svg.draw("rect", "class", "s-dots", "x", x + 1, "y", y + 1, "width", w - 2, "height", h - 2);
        }
    }

    private void knot(Board.Strand s, Board.Clash c, double y) {
        double at = (x(c.day()) + x(c.day().plusDays(1))) / 2;
        svg.open("g", "class", "knot")
                .say(
                        "title",
                        s.row().name() + " on " + Days.show(c.day()) + ": "
                                + c.one().name() + " and " + c.other().name());
        svg.draw(
                "path",
                "d",
                Svg.path("M", at, y - KNOT) + Svg.path(" L", at + KNOT, y) + Svg.path(" L", at, y + KNOT)
                        + Svg.path(" L", at - KNOT, y) + " Z");
        svg.close();
    }

    private void head(Head h) {
        if (!h.named()) {
            return;
        }
        Board.Job j = h.thread().job();
        double at = middle(h.thread());
        double y = 14 + h.tier() * TIER;
        double width = 34 + j.name().length() * LETTER;
        boolean flips = at - 14 + width > WIDTH;
        svg.open("a", "href", "/jobs/" + j.id(), "class", j.clear() ? "head" : "head bad", "tabindex", "-1");
        svg.say("title", j.name() + ": " + j.words());
        svg.draw("rect", "class", "wipe", "x", at - 12, "y", y - 11, "width", 24, "height", 12);
        bar(j.shape(), at - 11, y - 10, 22, 10);
        svg.say("text", j.name(), "x", flips ? at - 17 : at + 17, "y", y - 1, "text-anchor", flips ? "end" : null);
        svg.close();
    }
}
