package yarrek.formats.log;

/** A file that cannot be read at all, or must not be. The message is for people. */
public class BrokenFileException extends Exception {
    private final String code;

    public BrokenFileException(String code, String message, Throwable cause) {
        super(message, cause);
        this.code = code;
    }

    public BrokenFileException(String code, String message) {
        this(code, message, null);
    }

    /** Stable, such as "gpx.doctype". */
    public String code() {
        return code;
    }
}
