package yarrek.app.held;

import java.util.function.Supplier;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * A value that a transaction reads once, however often it is asked for. Outside a transaction it is read each time; one that
 * stands in the place of another reads its own.
 *
 * @param <T> immutable
 */
public final class PerTransaction<T> {
    private static final class Held<T> {
        private T value;
    }

    /** What is remembered, read when it is not yet. */
    public T get(Supplier<T> read) {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) {
            return read.get();
        }
        Held<T> held = held();
        if (held.value == null) {
            held.value = read.get();
        }
        return held.value;
    }

    /** Has the rest of the transaction read it anew: it was changed. */
    public void forget() {
        if (TransactionSynchronizationManager.isSynchronizationActive()) {
            held().value = null;
        }
    }

    @SuppressWarnings("unchecked")
    private Held<T> held() {
        Held<T> held = (Held<T>) TransactionSynchronizationManager.getResource(this);
        if (held == null) {
            held = new Held<>();
            TransactionSynchronizationManager.bindResource(this, held);
            TransactionSynchronizationManager.registerSynchronization(new Unbinding());
        }
        return held;
    }

    private final class Unbinding implements TransactionSynchronization {
        private Object aside;

        @Override
        public void suspend() {
            aside = TransactionSynchronizationManager.unbindResourceIfPossible(PerTransaction.this);
        }

        @Override
        public void resume() {
            if (aside != null) {
                TransactionSynchronizationManager.bindResource(PerTransaction.this, aside);
            }
        }

        @Override
        public void afterCompletion(int status) {
            TransactionSynchronizationManager.unbindResourceIfPossible(PerTransaction.this);
        }
    }
}
