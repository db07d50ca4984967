package yarrek.formats.log;

/**
 * Something in a file that was left out, or mended in a way that must be told.
 *
 * @param code stable, such as "csv.number.invalid"
 * @param line counted from 1 as editors show it; 0 when it concerns the whole file
 * @param field column or element; empty when it concerns the line
 * @param found what stood there, cut at 64 characters
 * @param accepted what is accepted, with an example
 */
public record Problem(String code, long line, String field, String found, String accepted) {
    private static final int MAX_FOUND = 64;

    public Problem {
        found = found.length() > MAX_FOUND ? found.substring(0, MAX_FOUND) + "…" : found;
    }

    /** One sentence: where, what, what is accepted. */
    public String sentence() {
        String where = line > 0 ? "line " + line + (field.isEmpty() ? "" : " [" + field + "]") + ": " : "";
        return where + (found.isEmpty() ? "" : "found \"" + found + "\"; ") + accepted;
    }
}
