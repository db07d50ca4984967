package yarrek.app.field;

import yarrek.app.page.Show;
import yarrek.app.print.Svg;
import yarrek.core.airspace.HeightAllowed;

/** The height allowed along a line over the ground as SVG. */
public final class HeightsSvg {
    private static final double LEFT = 40;
    private static final double SPAN = 650;
    private static final double RIGHT = LEFT + SPAN;
    private static final double GROUND = 125;
    private static final double HIGHEST = 95;
    private static final double ROOM_FOR_FIGURE = 34;

    private HeightsSvg() {}

    public static String write(Lookout.Section section, Show show) {
        Svg svg = new Svg();
        svg.open(
                "svg",
                "viewBox",
                "0 0 700 150",
                "aria-label",
                "Height allowed along the line, the table below says the same",
                "role",
                "img");
        svg.draw("line", "class", "base", "x1", LEFT, "x2", RIGHT, "y1", GROUND, "y2", GROUND);
        for (HeightAllowed.Stretch s : section.stretches()) {
            double x0 = LEFT + s.fromM() / section.lengthM() * SPAN;
            double x1 = LEFT + s.toM() / section.lengthM() * SPAN;
            double y = GROUND - s.at().heightM() / section.topM() * HIGHEST;
            svg.draw("rect", "class", "may", "x", x0, "y", y, "width", x1 - x0, "height", GROUND - y);
            svg.draw("line", "class", "top", "x1", x0, "x2", x1, "y1", y, "y2", y);
            if (x1 - x0 > ROOM_FOR_FIGURE) {
                svg.say("text", show.one(s.at().heightM(), "m"), "x", x0 + 3, "y", y - 4);
            }
        }
        svg.say("text", "0 m", "x", LEFT, "y", 142);
        svg.say("text", show.far(section.lengthM()), "x", RIGHT, "y", 142, "text-anchor", "end");
        svg.say("text", "ground", "x", 2, "y", 128);
        return svg.close().written();
    }
}
