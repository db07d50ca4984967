package yarrek.app.chains;

import yarrek.app.print.Svg;

/** A chain of approvals as SVG: names on the left, work, waiting and slack along the days. */
final class ChainSvg {
    private static final double LEFT = 262;
    private static final double MARGIN = 12;
    private static final double TOP = 16;
    private static final double FOOT = 20;
    private static final double LEAST_JOB = 3;
    private static final double LEAST_WAIT = 2;
    /** Nearer than this to the job the word "today" stands on the other side of its line. */
    private static final double ROOM_FOR_TODAY = 70;
    /** A day written nearer than this to the right edge would leave the sheet. */
    private static final double ROOM_FOR_DAY = 24;

    private final Svg svg = new Svg();
    private final ChainDrawing d;

    private ChainSvg(ChainDrawing d) {
        this.d = d;
    }

    /** @param label what a reader hears in the place of the drawing */
    static String write(ChainDrawing d, String label) {
        ChainSvg c = new ChainSvg(d);
        c.svg.open(
                "svg",
                "class",
                "chain",
                "viewBox",
                "0 0 " + Svg.figure(LEFT + d.width() + MARGIN) + " " + Svg.figure(d.height()),
                "aria-label",
                label,
                "role",
                "img");
        c.job();
        c.ticks();
        c.today();
        c.svg.open("g", "transform", "translate(" + Svg.figure(LEFT) + " 0)");
        d.links().forEach(l -> c.svg.draw("path", "class", "link", "d", l));
        c.svg.close();
        d.bars().forEach(c::step);
        return c.svg.close().written();
    }

    private void job() {
        svg.draw(
                "rect",
                "class",
                "jobdays",
                "x",
                LEFT + d.jobFrom(),
                "y",
                TOP,
                "width",
                Math.max(LEAST_JOB, d.jobTo() - d.jobFrom()),
                "height",
                d.height() - TOP - FOOT);
        double middle = LEFT + (d.jobFrom() + d.jobTo()) / 2;
        svg.say("text", "job", "class", "jobword", "x", middle, "y", 12, "text-anchor", "middle");
    }

    private void ticks() {
        for (ChainDrawing.Tick t : d.ticks()) {
            upright(t.major() ? "tick major" : "tick", LEFT + t.at(), TOP, d.height() - FOOT);
            if (!t.label().isEmpty()) {
                boolean last = t.at() > d.width() - ROOM_FOR_DAY;
                svg.say(
                        "text",
                        t.label(),
                        "class",
                        "soft",
                        "x",
                        LEFT + t.at() + (last ? -2 : 2),
                        "y",
                        d.height() - 6,
                        "text-anchor",
                        last ? "end" : null);
            }
        }
    }

    private void today() {
        double x = LEFT + d.today();
        boolean jobIsNear = d.jobFrom() - d.today() < ROOM_FOR_TODAY;
        upright("nowline", x, 6, d.height() - FOOT);
        svg.say("text", "today", "x", x + (jobIsNear ? -3 : 3), "y", 12, "text-anchor", jobIsNear ? "end" : "start");
    }

    private void step(ChainDrawing.Bar b) {
        double y = b.y();
        svg.open("g").say("title", b.tip());
        svg.draw("line", "class", "rowline", "x1", 0, "x2", LEFT + d.width(), "y1", y + 24, "y2", y + 24);
        svg.say("text", b.title(), "class", b.critical() ? "name crit" : "name", "x", 2, "y", y + 15);
        if (b.done()) {
            span("c-done", b.worst() - 5, b.worst() + 5, y);
        } else {
            String late = "too late".equals(b.standing()) ? " late" : "";
            if (b.send() > b.start()) {
                span("c-work", b.start(), b.send(), y);
            }
            span("c-wait" + late, b.send(), Math.max(b.usual(), b.send() + LEAST_WAIT), y);
            if (b.worst() > b.usual()) {
                span("c-worst" + late, b.usual(), b.worst(), y);
            }
            if (b.slackTo() > b.worst()) {
                svg.draw(
                        "line",
                        "class",
                        "c-slack",
                        "x1",
                        LEFT + b.worst(),
                        "x2",
                        LEFT + b.slackTo(),
                        "y1",
                        y + 11,
                        "y2",
                        y + 11);
            }
            upright("c-limit", LEFT + b.limit(), y + 4, y + 18);
            svg.draw("path", "class", "c-latest", "d", Svg.path("M", LEFT + b.latest(), y + 5) + " l-4 -6 h8 Z");
        }
        svg.close();
    }

    private void span(String sort, double from, double to, double y) {
        svg.draw("rect", "class", sort, "x", LEFT + from, "y", y + 6, "width", to - from, "height", 10);
    }

    private void upright(String sort, double x, double from, double to) {
        svg.draw("line", "class", sort, "x1", x, "x2", x, "y1", from, "y2", to);
    }
}
