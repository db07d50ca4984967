package yarrek.app.print;

/**
 * The four shapes of standing: full, cut corner, open notch, dots. On screen the stylesheet colours them by their class; on
 * paper there is none and the attributes count.
 */
public final class Shapes {
    /** The small one beside a word is so wide. */
    public static final double SMALL_WIDTH = 24;

    private static final double CORNER = 8;
    private static final double BRACKET = 7;
    private static final double NARROW = CORNER + 1;

    /** A notch wider than this has its two ends tied, so that they are seen to belong together. */
    private static final double TIED = 60;

    private static final double TIE_INSET = 12;

    private Shapes() {}

    /** The small shape that stands beside a word, its left upper corner at the origin. */
    public static void small(Svg svg, String shape) {
        switch (shape) {
            case "full" -> svg.draw("rect", "class", "s-full", "width", SMALL_WIDTH, "height", 10);
            case "cut" -> svg.draw("path", "class", "s-cut", "d", "M.7 .7 H16 L23.3 9.3 H.7 Z");
            case "notch" -> svg.draw("path", "class", "s-notch", "d", "M8 1 H1 V9 H8 M16 1 H23 V9 H16");
            case "dots" -> svg.draw("rect", "class", "s-dots", "x", 1, "y", 1, "width", 22, "height", 8);
            default -> throw new IllegalArgumentException("no shape of standing: " + shape);
        }
    }

    /** A bar along time. */
    public static void bar(Svg svg, String shape, double x, double y, double width, double height) {
        double right = x + width;
        double bottom = y + height;
        switch (shape) {
            case "full" ->
                svg.draw(
                        "rect", "class", "b-full", "x", x, "y", y, "width", width, "height", height, "fill", "#2f5d5b");
            case "cut" ->
                svg.draw(
                        "path",
                        "class",
                        "b-cut",
                        "d",
                        Svg.path(
                                "M",
                                x,
                                y,
                                "H",
                                right - (width > NARROW ? CORNER : width / 2),
                                "L",
                                right,
                                bottom,
                                "H",
                                x,
                                "Z"),
                        "fill",
                        "#86a7a0",
                        "stroke",
                        "#2f5d5b");
            case "notch" -> {
                double arm = Math.min(BRACKET, width / 3);
                svg.draw(
                        "path",
                        "class",
                        "b-notch",
                        "d",
                        Svg.path("M", x + arm, y, "H", x, "V", bottom, "H", x + arm) + " "
                                + Svg.path("M", right - arm, y, "H", right, "V", bottom, "H", right - arm),
                        "fill",
                        "none",
                        "stroke",
                        "#a8360b",
                        "stroke-width",
                        1.6);
                if (width > TIED) {
                    svg.draw(
                            "path",
                            "class",
                            "b-tie",
                            "d",
                            Svg.path("M", x + TIE_INSET, (y + bottom) / 2, "H", right - TIE_INSET),
                            "fill",
                            "none",
                            "stroke",
                            "#a8360b",
                            "stroke-dasharray",
                            "1.5 4");
                }
            }
            case "dots" ->
                svg.draw(
                        "rect",
                        "class",
                        "b-dots",
                        "x",
                        x,
                        "y",
                        y + 0.5,
                        "width",
                        width,
                        "height",
                        height - 1,
                        "fill",
                        "none",
                        "stroke",
                        "#1f2a30",
                        "stroke-dasharray",
                        "2 2.5");
            default -> throw new IllegalArgumentException("no shape of standing: " + shape);
        }
    }
}
