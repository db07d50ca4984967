package yarrek.app.field;

import java.util.Locale;
import java.util.OptionalDouble;
import yarrek.app.page.Show;
import yarrek.app.print.Shapes;
import yarrek.app.print.Svg;
import yarrek.core.judging.HourStrip;

/** A day at a place as SVG: light, the job's hours, wind and gusts against the maker's limit, and the verdict by the hour. */
public final class HourStripSvg {
    private static final double LEFT = 55;
    private static final double SPAN = 820;
    private static final double RIGHT = LEFT + SPAN;
    private static final double GROUND = 126;
    private static final double WIND_HEIGHT = 72;

    private final Svg svg = new Svg();
    private final HourStrip s;
    private final Show show;
    private final double up;
    private final double width;

    private HourStripSvg(HourStrip s, Show show) {
        this.s = s;
        this.show = show;
        this.up = WIND_HEIGHT / s.scaleMps();
        this.width = SPAN / s.hours().size();
    }

    /** On the day of a change of clocks there are 23 or 25 hours, and each has its place. */
    public static String write(HourStrip s, Show show) {
        HourStripSvg d = new HourStripSvg(s, show);
        d.svg.open(
                "svg",
                "class",
                "day-strip",
                "viewBox",
                "0 0 880 176",
                "aria-label",
                "Light, wind and verdict by the hour; the table below says the same",
                "role",
                "img");
        d.names();
        for (int i = 0; i < s.hours().size(); i++) {
            d.hour(s.hours().get(i), LEFT + i * d.width, i % 2 == 0);
        }
        d.limit();
        d.svg.draw("line", "class", "base", "x1", LEFT, "x2", RIGHT, "y1", GROUND, "y2", GROUND);
        return d.svg.close().written();
    }

    private void names() {
        svg.say("text", "light", "x", 0, "y", 18);
        svg.say("text", "job", "x", 0, "y", 44);
        svg.say("text", "wind", "x", 0, "y", 92);
        svg.say("text", "0–" + show.whole(s.scaleMps(), "m/s"), "class", "soft", "x", 0, "y", 104);
        svg.say("text", "verdict", "x", 0, "y", 150);
    }

    private void hour(HourStrip.Hour h, double x, boolean named) {
        double middle = x + width / 2;
        String light = "lt lt-" + h.light().name().toLowerCase(Locale.ROOT);
        svg.draw("rect", "class", light, "x", x, "y", 8, "width", width, "height", 14);
        if (h.inJob()) {
            svg.draw("rect", "class", "injob", "x", x, "y", 34, "width", width, "height", 12);
        }
        wind("gust", h.gustMps(), x + 3, width - 6);
        wind("wind", h.windMps(), x + 6, width - 12);
        if (h.windMps().isEmpty()) {
            centred("?", middle, 122);
        }
        double left = middle - Shapes.SMALL_WIDTH / 2;
        svg.open("g", "transform", "translate(" + Svg.figure(left) + " 140)")
                .say("title", show.hour(h.start(), s.zone()) + ": " + show.against(h.against()));
        Shapes.small(svg, h.verdict().shape());
        svg.close();
        if (named) {
            centred(show.hour(h.start(), s.zone()).substring(0, 2), middle, 170);
        }
    }

    private void wind(String sort, OptionalDouble mps, double x, double w) {
        if (mps.isPresent()) {
            double high = mps.getAsDouble() * up;
            svg.draw("rect", "class", sort, "x", x, "y", GROUND - high, "width", w, "height", high);
        }
    }

    private void centred(String words, double x, double y) {
        svg.say("text", words, "class", "soft", "text-anchor", "middle", "x", x, "y", y);
    }

    private void limit() {
        if (s.limitMps().isPresent()) {
            double y = GROUND - s.limitMps().getAsDouble() * up;
            svg.draw("line", "class", "limit", "x1", LEFT, "x2", RIGHT, "y1", y, "y2", y);
            String words = "maker: " + show.one(s.limitMps().getAsDouble(), "m/s");
            svg.say("text", words, "class", "lim-text", "x", LEFT + 2, "y", y - 4);
        }
    }
}
