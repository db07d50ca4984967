package yarrek.app.print;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Locale;
import org.springframework.web.util.HtmlUtils;

/**
 * Writes one drawing, element by element. Texts and attributes are escaped, figures have at most two decimals and a point,
 * and an attribute without a value is left out. Lives for one drawing; not for more than one thread.
 */
public final class Svg {
    private static final int DECIMALS = 2;

    private final StringBuilder out = new StringBuilder();
    private final Deque<String> open = new ArrayDeque<>();

    /** An element that what follows stands in, until it is closed. */
    public Svg open(String element, Object... attributes) {
        start(element, attributes).append('>');
        open.push(element);
        return this;
    }

    /** @throws java.util.NoSuchElementException when none is open */
    public Svg close() {
        out.append("</").append(open.pop()).append('>');
        return this;
    }

    /** An element with nothing in it. */
    public Svg draw(String element, Object... attributes) {
        start(element, attributes).append("/>");
        return this;
    }

    /** An element with a text in it. */
    public Svg say(String element, String text, Object... attributes) {
        start(element, attributes)
                .append('>')
                .append(escaped(text))
                .append("</")
                .append(element)
                .append('>');
        return this;
    }

    /** @throws IllegalStateException when an element is still open */
    public String written() {
        if (!open.isEmpty()) {
            throw new IllegalStateException("still open: " + open);
        }
        return out.toString();
    }

    private StringBuilder start(String element, Object... attributes) {
        if (attributes.length % 2 != 0) {
            throw new IllegalArgumentException("attributes come in pairs of name and value, got " + attributes.length);
        }
        out.append('<').append(element);
        for (int i = 0; i < attributes.length; i += 2) {
            if (attributes[i + 1] != null) {
                out.append(' ')
                        .append(attributes[i])
                        .append("=\"")
                        .append(value(attributes[i + 1]))
                        .append('"');
            }
        }
        return out;
    }

    private static String value(Object v) {
        return v instanceof Double d ? figure(d) : escaped(v.toString());
    }

    /** "12.35", "-0.5", "7". */
    public static String figure(double d) {
        if (!Double.isFinite(d)) {
            throw new IllegalArgumentException("a drawing has no place for " + d);
        }
        BigDecimal b =
                BigDecimal.valueOf(d).setScale(DECIMALS, RoundingMode.HALF_EVEN).stripTrailingZeros();
        return b.signum() == 0 ? "0" : b.toPlainString();
    }

    /** Words and figures of a path, with blanks between. */
    public static String path(Object... parts) {
        StringBuilder p = new StringBuilder();
        for (Object o : parts) {
            p.append(p.isEmpty() ? "" : " ").append(o instanceof Number n ? figure(n.doubleValue()) : o);
        }
        return p.toString();
    }

    private static String escaped(String s) {
        return HtmlUtils.htmlEscapeDecimal(s == null ? "" : s, "UTF-8");
    }

    @Override
    public String toString() {
        return String.format(Locale.ROOT, "%d characters, %d open", out.length(), open.size());
    }
}
