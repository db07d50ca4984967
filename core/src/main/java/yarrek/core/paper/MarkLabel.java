package yarrek.core.paper;

import java.util.Optional;
import java.util.OptionalDouble;

/**
 * A label with a registration mark, as large as its text can be.
 *
 * @param text what is printed
 * @param letterMm height of the capital letters
 * @param fits whether they are as tall as the law asks
 */
public record MarkLabel(String text, double widthMm, double heightMm, double letterMm, boolean fits, String says) {
    /** Height of capitals and advance of a character as parts of the type size, of the semi-condensed face it is set in. */
    private static final double CAPITAL_EM = 0.70;

    private static final double ADVANCE_EM = 0.56;

    /** Part of the label's width and height that the text may take; the rest is edge. */
    private static final double USED = 0.88;

    /** Least capital height in millimetres and whether it must be exceeded: UK authority guidance to Art 14(8), above 3 mm. */
    public static OptionalDouble leastLetterMm(String jurisdiction) {
        return jurisdiction.equals("GB") ? OptionalDouble.of(3.0) : OptionalDouble.empty();
    }

    /**
     * The number as it goes on the aircraft: in the Union without the hyphen and the three secret characters after it, which
     * belong in remote identification only (acceptable means to (EU) 2019/947 Art 14(6)).
     */
    public static String visible(String number, String jurisdiction) {
        boolean union = jurisdiction.equals("EU") || jurisdiction.startsWith("EU-");
        return union && number.matches("[A-Z]{3}[0-9a-zA-Z]{13}-[0-9a-zA-Z]{3}")
                ? number.substring(0, number.length() - 4)
                : number;
    }

    /** @throws IllegalArgumentException unless the label is between 8 and 200 mm wide and 4 and 100 mm high, and has text */
    public static MarkLabel lay(String text, double widthMm, double heightMm, OptionalDouble least) {
        if (!(widthMm >= 8 && widthMm <= 200 && heightMm >= 4 && heightMm <= 100) || text.isBlank()) {
            throw new IllegalArgumentException("a label is 8 to 200 mm wide and 4 to 100 mm high and has text");
        }
        double byWidth = widthMm * USED / (text.length() * ADVANCE_EM) * CAPITAL_EM;
        double letter = Math.min(byWidth, heightMm * USED * CAPITAL_EM);
        boolean fits = least.isEmpty() || letter > least.getAsDouble();
        return new MarkLabel(
                text,
                widthMm,
                heightMm,
                letter,
                fits,
                "letters " + Math.round(letter * 10) / 10.0 + " mm tall"
                        + (least.isEmpty()
                                ? ""
                                : fits
                                        ? ", above the " + least.getAsDouble() + " mm asked for"
                                        : ": the law asks for more than " + least.getAsDouble()
                                                + " mm; take a larger label"));
    }

    /** Type size in millimetres that gives these letters. */
    public double sizeMm() {
        return letterMm / CAPITAL_EM;
    }

    /**
     * A telephone number in international form: "+351 21 000 00 00". A number that begins with 00 loses it; a national one
     * loses its leading 0 and takes the calling code.
     *
     * @return empty when it is no telephone number, or national and no calling code is known
     */
    public static Optional<String> international(String typed, String callingCode) {
        String digits = typed.strip().replaceAll("[().\\-/]", " ").replaceAll("\\s+", " ");
        if (!digits.matches("\\+?[0-9 ]{5,24}")) {
            return Optional.empty();
        }
        if (digits.startsWith("+")) {
            return Optional.of(digits);
        }
        if (digits.startsWith("00")) {
            return Optional.of("+" + digits.substring(2).strip());
        }
        return callingCode.matches("\\+[0-9]{1,4}")
                ? Optional.of(callingCode + " " + digits.replaceFirst("^0", "").strip())
                : Optional.empty();
    }
}
