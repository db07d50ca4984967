package yarrek.core.time;

/** Long work asks now and then whether anybody still waits for it: whoever gave up has interrupted its thread. */
public final class Patience {
    private Patience() {}

    /** Somebody gave up waiting. */
    public static final class GivenUpException extends RuntimeException {
        GivenUpException() {
            super("it took too long and was ended");
        }
    }

    /** @throws GivenUpException when the thread was interrupted; the interruption stands */
    public static void ask() {
        if (Thread.currentThread().isInterrupted()) {
            throw new GivenUpException();
        }
    }
}
