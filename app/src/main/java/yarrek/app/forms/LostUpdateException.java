package yarrek.app.forms;

/** Somebody else saved the same record in between; carries the version that stands there now. */
public class LostUpdateException extends RuntimeException {
    private final long version;

    public LostUpdateException(long version) {
        super("somebody else saved this record while you had it open");
        this.version = version;
    }

    public long version() {
        return version;
    }
}
