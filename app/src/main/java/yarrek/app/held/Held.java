package yarrek.app.held;

import java.util.function.Supplier;

/**
 * Something of the database held in memory for as long as its stamp stands. What a transaction reads that has changed it
 * itself is for that one alone: it may yet be rolled back.
 *
 * @param <T> immutable
 */
public final class Held<T> {
    private record Read<T>(long stamp, T value) {}

    private final Stamps stamps;
    private final String name;
    private final Supplier<T> read;
    private final PerTransaction<T> seen = new PerTransaction<>();
    private volatile Read<T> held;

    Held(Stamps stamps, String name, Supplier<T> read) {
        this.stamps = stamps;
        this.name = name;
        this.read = read;
    }

    public T get() {
        return seen.get(this::current);
    }

    private T current() {
        if (stamps.isOwnChange(name)) {
            return read.get();
        }
        long stamp = stamps.of(name);
        Read<T> now = held;
        if (now == null || now.stamp != stamp) {
            now = new Read<>(stamp, read.get());
            held = now;
        }
        return now.value;
    }

    /** Said by whoever changes it, in the transaction that does. */
    public void changed() {
        stamps.changed(name);
        seen.forget();
    }
}
