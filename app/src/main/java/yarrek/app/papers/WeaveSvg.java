package yarrek.app.papers;

import java.util.ArrayList;
import java.util.List;
import yarrek.app.print.Shapes;
import yarrek.app.print.Svg;
import yarrek.core.paper.Weave;

/**
 * The weave as SVG: names on the left, bars along time, jobs as strands behind them, knots where a job meets no paper in
 * force. On screen bars, strands and knots are links and the stylesheet colours; on paper the attributes count.
 */
public final class WeaveSvg {
    private static final String INK = "#1f2a30";
    private static final String FACE = "Barlow Semi Condensed";
    private static final double LEAST = 3;
    private static final double LEAST_STRAND = 4;
    private static final double BAR = 11;

    /** What a weave's measures are on screen, narrow on screen, and on a sheet. */
    private enum Form {
        WIDE(1000, 236, 752, 21, 24, true),
        NARROW(620, 196, 414, 21, 17, true),
        SHEET(1100, 240, 850, 20, 24, false);

        private final int width;
        private final double left;
        private final double span;
        private final double row;
        private final int kindLength;
        private final boolean screen;

        Form(int width, double left, double span, double row, int kindLength, boolean screen) {
            this.width = width;
            this.left = left;
            this.span = span;
            this.row = row;
            this.kindLength = kindLength;
            this.screen = screen;
        }
    }

    private static final int HOLDER_LENGTH = 17;
    private static final int LONG_LABEL = 18;
    private static final int SHORT_LABEL = 7;
    private static final double ROOM_FOR_SHORT = 46;
    private static final double ROOM_FOR_LONG = 110;

    private final Svg svg = new Svg();
    private final Weave weave;
    private final Form form;
    private final double height;
    private final double top;

    private WeaveSvg(Weave weave, Form form, int rows) {
        this.weave = weave;
        this.form = form;
        this.top = form.screen ? 22 : 18;
        this.height = rows * form.row + (form.screen ? 40 : 44);
    }

    /**
     * For a page.
     *
     * @param narrow beside something else, not over the whole page
     * @param label what a reader hears in the place of the drawing
     */
    public static String screen(Weave weave, boolean narrow, String label) {
        WeaveSvg w = new WeaveSvg(
                weave, narrow ? Form.NARROW : Form.WIDE, weave.rows().size());
        w.svg.open(
                "svg",
                "class",
                "weave",
                "viewBox",
                "0 0 " + w.form.width + " " + Svg.figure(w.height),
                "aria-label",
                label,
                "role",
                "group");
        return w.drawn(weave.rows());
    }

    /** For sheets of paper: so many rows on each, with the whole of the time; none for a weave without rows. */
    public static List<String> sheets(Weave weave, int rowsPerSheet) {
        List<String> sheets = new ArrayList<>();
        for (int i = 0; i < weave.rows().size(); i += rowsPerSheet) {
            int end = Math.min(i + rowsPerSheet, weave.rows().size());
            sheets.add(sheet(weave, weave.rows().subList(i, end)));
        }
        return sheets;
    }

    private static String sheet(Weave weave, List<Weave.Row> rows) {
        WeaveSvg w = new WeaveSvg(weave, Form.SHEET, rows.size());
        w.svg.open(
                "svg",
                "xmlns",
                "http://www.w3.org/2000/svg",
                "viewBox",
                "0 0 " + w.form.width + " " + Svg.figure(w.height),
                "width",
                w.form.width,
                "height",
                w.height);
        return w.drawn(rows);
    }

    private String drawn(List<Weave.Row> rows) {
        ticks();
        strands();
        now();
        for (int i = 0; i < rows.size(); i++) {
            row(rows.get(i), top + i * form.row);
        }
        return svg.close().written();
    }

    private double at(double fraction) {
        return form.left + fraction * form.span;
    }

    private double wide(double start, double end, double least) {
        return Math.max(least, (end - start) * form.span);
    }

    private void text(String words, String sort, double x, double y, double size) {
        svg.say(
                "text",
                words,
                "class",
                sort,
                "x",
                x,
                "y",
                y,
                "font-family",
                form.screen ? null : FACE,
                "font-size",
                form.screen ? null : size,
                "fill",
                form.screen ? null : INK);
    }

    private void ticks() {
        for (Weave.Tick t : weave.ticks()) {
            svg.draw(
                    "line",
                    "class",
                    t.major() ? "tick major" : "tick",
                    "x1",
                    at(t.at()),
                    "x2",
                    at(t.at()),
                    "y1",
                    top - 4,
                    "y2",
                    height - 20,
                    "stroke",
                    t.major() ? "#8f9a94" : "#d9dccf",
                    "stroke-width",
                    0.8);
            if (!t.label().isEmpty()) {
                text(t.label(), null, at(t.at()) + 2, height - 6, 11);
            }
        }
    }

    private void strands() {
        for (Weave.Strand s : weave.strands()) {
            double x = at(s.start());
            linked("/jobs/" + s.jobId(), s.name(), () -> {
                svg.draw(
                        "rect",
                        "class",
                        "strand",
                        "x",
                        x,
                        "y",
                        top - 4,
                        "width",
                        wide(s.start(), s.end(), LEAST_STRAND),
                        "height",
                        height - top - 16,
                        "fill",
                        "#dbe6e4");
                svg.draw(
                        "line",
                        "class",
                        "strand-edge",
                        "x1",
                        x,
                        "x2",
                        x,
                        "y1",
                        top - 4,
                        "y2",
                        height - 20,
                        "stroke",
                        "#8f9a94",
                        "stroke-width",
                        0.8);
            });
        }
    }

    private void now() {
        double x = at(weave.now());
        svg.draw(
                "line",
                "class",
                "nowline",
                "x1",
                x,
                "x2",
                x,
                "y1",
                8,
                "y2",
                height - 20,
                "stroke",
                INK,
                "stroke-width",
                1.4);
        text("now", null, x + 3, 12, 10);
    }

    private void row(Weave.Row r, double y) {
        svg.draw(
                "line",
                "class",
                "line",
                "x1",
                0,
                "x2",
                form.width,
                "y1",
                y + 17,
                "y2",
                y + 17,
                "stroke",
                "#c9cdbf",
                "stroke-width",
                0.6);
        svg.open(
                "text",
                "x",
                2,
                "y",
                y + 12,
                "font-family",
                form.screen ? null : FACE,
                "font-size",
                form.screen ? null : 11);
        svg.say("tspan", shortened(r.holderName(), HOLDER_LENGTH));
        svg.say("tspan", shortened(r.kindName(), form.kindLength), "class", "kind", "dx", 6);
        svg.close();
        r.gap().ifPresent(g -> {
            svg.open("g", "class", "gap").say("title", g.says());
            Shapes.bar(svg, "notch", at(g.start()), y + 3, wide(g.start(), g.end(), LEAST), BAR);
            svg.close();
        });
        r.bars().forEach(b -> bar(b, y));
        for (Weave.Knot k : r.knots()) {
            linked(
                    "/jobs/" + k.jobId() + "#f-" + k.ruleId(),
                    k.says(),
                    () -> svg.draw(
                            "path",
                            "class",
                            "knot",
                            "d",
                            Svg.path("M", at(k.at()), y + 1.5) + " l7 7 l-7 7 l-7 -7 Z",
                            "fill",
                            "#ffffff",
                            "stroke",
                            "#a8360b",
                            "stroke-width",
                            2));
        }
    }

    private void bar(Weave.Bar b, double y) {
        String shape = b.state().shape();
        double x = at(b.start());
        double width = wide(b.start(), b.end(), LEAST);
        linked("/papers/" + b.paperId(), b.tip(), () -> {
            Shapes.bar(svg, shape, x, y + 3, width, BAR);
            if (form.screen && width > ROOM_FOR_SHORT) {
                text(
                        shortened(b.label(), width > ROOM_FOR_LONG ? LONG_LABEL : SHORT_LABEL),
                        "full".equals(shape) ? "lab" : "lab-out",
                        x + 4,
                        y + 12,
                        10);
            }
        });
    }

    /** On screen what is drawn leads somewhere; on paper it stands for itself. */
    private void linked(String href, String says, Runnable drawing) {
        if (form.screen) {
            svg.open("a", "href", href).say("title", says);
        }
        drawing.run();
        if (form.screen) {
            svg.close();
        }
    }

    /** "Rosa Vennek", "Gimbal operator's certif…": at most so many characters. */
    static String shortened(String s, int most) {
        return s.length() <= most ? s : s.substring(0, most - 1).strip() + "…";
    }
}
