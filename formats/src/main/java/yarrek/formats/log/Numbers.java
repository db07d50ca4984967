package yarrek.formats.log;

import java.util.regex.Pattern;

/** Strict reading of decimal numbers: the whole cell or nothing; no NaN, no infinity, no thousands separators. */
public final class Numbers {
    private static final Pattern DECIMAL = Pattern.compile("[+-]?[0-9]{1,19}([.][0-9]{0,18})?([eE][+-]?[0-9]{1,2})?");
    private static final Pattern DECIMAL_COMMA = Pattern.compile("[+-]?[0-9]{1,19}(,[0-9]{0,18})?");

    private Numbers() {}

    /** The number, or NaN when the text is not one. */
    public static double parse(String text, boolean decimalComma) {
        if (decimalComma) {
            return DECIMAL_COMMA.matcher(text).matches() ? Double.parseDouble(text.replace(',', '.')) : Double.NaN;
        }
        return DECIMAL.matcher(text).matches() ? Double.parseDouble(text) : Double.NaN;
    }
}
