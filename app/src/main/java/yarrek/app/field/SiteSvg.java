package yarrek.app.field;

import java.util.Locale;
import java.util.Map;
import yarrek.app.print.Svg;

/**
 * A site's drawing as SVG: the same on screen, where the stylesheet colours it, and on paper, where there is none and the
 * attributes count.
 */
final class SiteSvg {
    private static final String INK = "#1f2a30";
    private static final String SOFT = "#515c5f";
    private static final String SIGNAL = "#a8360b";
    private static final String BAR = "#2f5d5b";

    /** How the edge of a zone is broken, beside what fills it, so that it is told apart without colour. */
    private static final Map<String, String> DASHES =
            Map.of("conditional", "2 4", "maker", "8 3 2 3", "authorisation", "8 4");

    /** Small pictures of things, each about its own middle. */
    private static final Map<String, String> FILLED = Map.of(
            "OBSTACLE", "M0 -9 L6 4 H-6 Z M-1 4 h2 v4 h-2 Z",
            "PEOPLE",
                    "M-4 -5 a2.4 2.4 0 1 0 0.1 0 Z M4 -5 a2.4 2.4 0 1 0 0.1 0 Z M-7 6 L-4 0 L-1 6 Z M1 6 L4 0 L7 6 Z");

    private static final Map<String, String> DRAWN = Map.of(
            "ALTERNATE", "M-6 -6 H6 V6 H-6 Z M-2 -3 V3 H3",
            "HAZARD", "M-5 -5 L5 5 M5 -5 L-5 5",
            "EMITTER", "M-2 0 h4 M-6 -5 a8 8 0 0 0 0 10 M6 -5 a8 8 0 0 1 0 10",
            "NO_RECOVERY", "M-7 -3 q3.5 -4 7 0 t7 0 M-7 3 q3.5 -4 7 0 t7 0");

    private static final String OTHER = "M0 -5 L5 0 L0 5 L-5 0 Z";

    private final Svg svg = new Svg();
    private final SiteDrawing.Drawn d;

    private SiteSvg(SiteDrawing.Drawn d) {
        this.d = d;
    }

    /** @param label what a reader hears in the place of the drawing */
    static String write(SiteDrawing.Drawn d, String label) {
        SiteSvg s = new SiteSvg(d);
        s.svg.open(
                "svg",
                "xmlns",
                "http://www.w3.org/2000/svg",
                "class",
                "site-drawing",
                "viewBox",
                "0 0 " + d.width() + " " + d.height(),
                "aria-label",
                label,
                "role",
                "img",
                "width",
                "100%");
        s.patterns();
        s.ground();
        s.overlays();
        s.things();
        s.launch();
        s.frame();
        return s.svg.close().written();
    }

    private void patterns() {
        svg.open("defs");
        pattern("p-prohibited", 7)
                .draw("path", "class", "p-hard", "d", "M0 7 L7 0 M0 0 L7 7", "stroke", SIGNAL, "stroke-width", 1)
                .close();
        pattern("p-authorisation", 7)
                .draw("path", "class", "p-line", "d", "M0 7 L7 0", "stroke", SOFT, "stroke-width", 1)
                .close();
        pattern("p-conditional", 7)
                .draw("circle", "class", "p-dot", "cx", 2, "cy", 2, "r", 1, "fill", SOFT)
                .close();
        pattern("p-maker", 6)
                .draw(
                        "path",
                        "class",
                        "p-line",
                        "d",
                        "M0 3 H6",
                        "stroke",
                        SOFT,
                        "stroke-width",
                        1,
                        "stroke-dasharray",
                        "3 3")
                .close();
        svg.close();
    }

    private Svg pattern(String id, int size) {
        return svg.open("pattern", "id", id, "width", size, "height", size, "patternUnits", "userSpaceOnUse");
    }

    private void ground() {
        svg.draw("rect", "class", "sea", "width", "100%", "height", "100%", "fill", "#dbe6e4");
        d.coast()
                .forEach(c -> svg.draw(
                        "path",
                        "class",
                        "land",
                        "fill",
                        "#fbf8ef",
                        "stroke",
                        "#8f9a94",
                        "stroke-width",
                        1.4,
                        "d",
                        c.path()));
        d.zones()
                .forEach(z -> svg.open(
                                "path",
                                "class",
                                "zn zn-" + z.pattern(),
                                "fill-rule",
                                "evenodd",
                                "stroke",
                                SOFT,
                                "stroke-width",
                                1,
                                "d",
                                z.path(),
                                "fill",
                                z.pattern().equals("free") ? "none" : "url(#p-" + z.pattern() + ")",
                                "stroke-dasharray",
                                DASHES.get(z.pattern()))
                        .say("title", z.title())
                        .close());
        if (d.buffer() != null) {
            line("buffer", d.buffer().path(), BAR, 1, "3 3");
        }
        svg.draw(
                "path",
                "class",
                "area",
                "fill",
                BAR,
                "fill-opacity",
                0.14,
                "fill-rule",
                "evenodd",
                "stroke",
                BAR,
                "stroke-width",
                2.4,
                "d",
                d.area().path());
    }

    private void overlays() {
        d.overlays().forEach(o -> {
            boolean beyond = o.pattern().equals("overhang");
            svg.open(
                            "path",
                            "class",
                            "ov ov-" + o.pattern(),
                            "fill-rule",
                            "evenodd",
                            "stroke-width",
                            2,
                            "d",
                            o.path(),
                            "fill",
                            beyond ? "url(#p-prohibited)" : "none",
                            "stroke",
                            beyond ? SIGNAL : INK,
                            "stroke-dasharray",
                            o.pattern().equals("paper") ? "10 4" : null)
                    .say("title", o.title())
                    .close();
        });
    }

    private void things() {
        d.strokes().forEach(s -> {
            String dash = s.kind().equals("MEASURE") ? "1 4" : s.kind().equals("ROAD") ? "10 3" : null;
            line("th th-" + s.kind().toLowerCase(Locale.ROOT), s.path(), INK, 1.6, dash);
            words(s.x() + 5, s.y() - 4, s.label());
        });
        d.symbols().forEach(s -> {
            svg.open("g", "transform", "translate(" + Svg.path(s.x(), s.y()) + ")");
            if (FILLED.containsKey(s.kind())) {
                svg.draw("path", "class", "ink-fill", "fill", INK, "d", FILLED.get(s.kind()));
            } else {
                boolean hazard = s.kind().equals("HAZARD");
                line("ink", DRAWN.getOrDefault(s.kind(), OTHER), hazard ? SIGNAL : INK, hazard ? 2 : 1.6, null);
            }
            words(9, 4, s.label());
            svg.close();
        });
    }

    private void launch() {
        double x = d.launch().x();
        double y = d.launch().y();
        line("launch", Svg.path("M", x - 6, y, "h12 M", x, y - 6, "v12"), INK, 2, null);
        svg.draw(
                "circle",
                "class",
                "ring",
                "fill",
                "none",
                "stroke",
                INK,
                "stroke-width",
                1.6,
                "r",
                6,
                "cx",
                x,
                "cy",
                y);
        svg.say("text", "launch", "font-size", 11, "fill", INK, "font-weight", "bold", "x", x + 9, "y", y + 12);
    }

    private void frame() {
        d.east().forEach(t -> {
            line("ink", Svg.path("M", t.at(), d.height(), "v-6"), INK, 1, null);
            svg.say(
                    "text",
                    t.label(),
                    "font-size",
                    9,
                    "fill",
                    INK,
                    "text-anchor",
                    "middle",
                    "x",
                    t.at(),
                    "y",
                    d.height() - 9);
        });
        d.north().forEach(t -> {
            line("ink", Svg.path("M0", t.at(), "h6"), INK, 1, null);
            svg.say("text", t.label(), "font-size", 9, "fill", INK, "x", 9, "y", t.at() + 3);
        });
        line("ink", Svg.path("M14 22 v6 h", d.scaleLength(), "v-6"), INK, 1.6, null);
        words(16, 19, d.scaleWords());
        svg.open("g", "transform", "translate(" + (d.width() - 28) + " 10)")
                .draw("path", "class", "ink-fill", "fill", INK, "d", "M8 0 L14 20 L8 16 L2 20 Z");
        words(4, 32, "N");
        svg.close();
        svg.draw(
                "rect",
                "class",
                "frame",
                "fill",
                "none",
                "stroke",
                INK,
                "stroke-width",
                1,
                "x",
                0.5,
                "y",
                0.5,
                "width",
                d.width() - 1,
                "height",
                d.height() - 1);
    }

    private void line(String sort, String path, String colour, double width, String dash) {
        svg.draw(
                "path",
                "class",
                sort,
                "fill",
                "none",
                "stroke",
                colour,
                "stroke-width",
                width,
                "stroke-dasharray",
                dash,
                "d",
                path);
    }

    private void words(double x, double y, String text) {
        svg.say("text", text, "font-size", 11, "fill", INK, "x", x, "y", y);
    }
}
