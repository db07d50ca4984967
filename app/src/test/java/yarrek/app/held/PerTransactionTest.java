package yarrek.app.held;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.AbstractPlatformTransactionManager;
import org.springframework.transaction.support.DefaultTransactionStatus;
import org.springframework.transaction.support.TransactionTemplate;

/** Read once a transaction, by each of two that stand in one another, and anew after a change. */
class PerTransactionTest {
    /** Transactions on nothing: only that they begin, are set aside and end matters here. */
    private static final class Bare extends AbstractPlatformTransactionManager {
        private Object active;

        @Override
        protected Object doGetTransaction() {
            return new Object();
        }

        @Override
        protected boolean isExistingTransaction(Object transaction) {
            return active != null;
        }

        @Override
        protected void doBegin(Object transaction, TransactionDefinition definition) {
            active = transaction;
        }

        @Override
        protected Object doSuspend(Object transaction) {
            Object aside = active;
            active = null;
            return aside;
        }

        @Override
        protected void doResume(Object transaction, Object aside) {
            active = aside;
        }

        @Override
        protected void doCommit(DefaultTransactionStatus status) {
            active = null;
        }

        @Override
        protected void doRollback(DefaultTransactionStatus status) {
            active = null;
        }
    }

    private final Bare transactions = new Bare();
    private final AtomicInteger reads = new AtomicInteger();
    private final PerTransaction<Integer> value = new PerTransaction<>();

    private int get() {
        return value.get(reads::incrementAndGet);
    }

    private TransactionTemplate transaction(int propagation) {
        TransactionTemplate t = new TransactionTemplate(transactions);
        t.setPropagationBehavior(propagation);
        return t;
    }

    @Test
    void oneReadATransactionAndOneForEachOutsideOfAny() {
        assertThat(get()).isEqualTo(1);
        assertThat(get()).isEqualTo(2);
        transaction(TransactionDefinition.PROPAGATION_REQUIRED).executeWithoutResult(t -> {
            assertThat(get()).isEqualTo(3);
            assertThat(get()).isEqualTo(3);
        });
        transaction(TransactionDefinition.PROPAGATION_REQUIRED)
                .executeWithoutResult(t -> assertThat(get()).isEqualTo(4));
    }

    @Test
    void oneThatStandsInThePlaceOfAnotherReadsItsOwn() {
        transaction(TransactionDefinition.PROPAGATION_REQUIRED).executeWithoutResult(outer -> {
            int mine = get();
            transaction(TransactionDefinition.PROPAGATION_REQUIRES_NEW)
                    .executeWithoutResult(inner -> assertThat(get()).isEqualTo(mine + 1));
            assertThat(get()).isEqualTo(mine);
        });
    }

    @Test
    void whatWasChangedIsReadAnew() {
        transaction(TransactionDefinition.PROPAGATION_REQUIRED).executeWithoutResult(t -> {
            int before = get();
            value.forget();
            assertThat(get()).isEqualTo(before + 1);
            assertThat(get()).isEqualTo(before + 1);
        });
    }
}
