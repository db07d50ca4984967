package yarrek.formats.log;

/**
 * Strict reading of decimal numbers: the whole cell or nothing; no NaN, no infinity, no thousands separators. Up to 19
 * figures before the point and 18 after it, and with a point an exponent of two figures.
 */
public final class Numbers {
    private static final int MOST_WHOLE = 19;
    private static final int MOST_PLACES = 18;

    /** Figures that a double holds exactly, and the powers of ten that it does. */
    private static final int EXACT_FIGURES = 15;

    private static final double[] POWERS = new double[23];

    static {
        double p = 1;
        for (int i = 0; i < POWERS.length; i++) {
            POWERS[i] = p;
            p *= 10;
        }
    }

    private Numbers() {}

    /** The number, or NaN when the text is not one. */
    public static double parse(String text, boolean decimalComma) {
        int length = text.length();
        int at = length > 0 && (text.charAt(0) == '-' || text.charAt(0) == '+') ? 1 : 0;
        long figures = 0;
        int whole = 0;
        while (at < length && isDigit(text.charAt(at))) {
            figures = figures * 10 + (text.charAt(at++) - '0');
            whole++;
        }
        int places = 0;
        if (at < length && text.charAt(at) == (decimalComma ? ',' : '.')) {
            at++;
            while (at < length && isDigit(text.charAt(at))) {
                figures = figures * 10 + (text.charAt(at++) - '0');
                places++;
            }
        }
        boolean isNumber = whole >= 1 && whole <= MOST_WHOLE && places <= MOST_PLACES;
        if (!isNumber || (at < length && (decimalComma || !isExponent(text, at)))) {
            return Double.NaN;
        }
        if (at < length || whole + places > EXACT_FIGURES) {
            return Double.parseDouble(decimalComma ? text.replace(',', '.') : text);
        }
        // both are exact, so their quotient is the nearest double there is (W. D. Clinger, PLDI 1990)
        double value = figures / POWERS[places];
        return text.charAt(0) == '-' ? -value : value;
    }

    private static boolean isExponent(String text, int at) {
        char e = text.charAt(at);
        int from = at + 1;
        if (from < text.length() && (text.charAt(from) == '-' || text.charAt(from) == '+')) {
            from++;
        }
        int count = text.length() - from;
        return (e == 'e' || e == 'E')
                && count >= 1
                && count <= 2
                && isDigit(text.charAt(from))
                && isDigit(text.charAt(text.length() - 1));
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }
}
