package yarrek.app.forms;

import java.util.Map;

/** Somebody else saved the same record in between; carries what stands there now, by form field. */
public class LostUpdateException extends RuntimeException {
    private final transient Map<String, String> stored;
    private final long version;

    public LostUpdateException(Map<String, String> stored, long version) {
        super("somebody else saved this record while you had it open");
        this.stored = Map.copyOf(stored);
        this.version = version;
    }

    public Map<String, String> stored() {
        return stored;
    }

    public long version() {
        return version;
    }
}
