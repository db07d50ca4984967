package yarrek.app.work;

import java.util.List;
import java.util.UUID;

/** Knows how to do a kind of work; a bean of the feature whose work it is. */
public interface Worker {
    /** Stored with the work; never changed. */
    String kind();

    /** What is done, in words that begin a sentence: "Judging jobs again". */
    String words();

    /** How many things are done in one transaction. */
    int chunk();

    /** Among how many hands much of it is shared out. */
    default int hands() {
        return 1;
    }

    /**
     * Does it, in the transaction it is called in; called again for each thing alone when it throws.
     *
     * @param cause as it was given when the work was begun
     */
    void run(List<UUID> subjects, String cause);
}
