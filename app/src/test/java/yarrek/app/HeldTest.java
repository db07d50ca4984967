package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Objects;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;

/** What is held in memory is that of the database as it was committed, by whichever node. */
class HeldTest extends RunningApp {
    @Autowired
    Stamps stamps;

    @Autowired
    JdbcClient jdbc;

    @Autowired
    PlatformTransactionManager transactions;

    private final String name = UUID.randomUUID().toString();
    private int stored = 1;
    private int reads;

    private Held<Integer> held() {
        return stamps.holding(name, () -> {
            reads++;
            return stored;
        });
    }

    private TransactionTemplate transaction() {
        return new TransactionTemplate(transactions);
    }

    private static int read(TransactionTemplate transaction, Held<Integer> held) {
        return Objects.requireNonNull(transaction.execute(t -> held.get()));
    }

    @Test
    void itIsReadOnceUntilSomebodySaysThatItChanged() {
        Held<Integer> held = held();
        for (int i = 0; i < 3; i++) {
            assertThat(read(transaction(), held)).isEqualTo(1);
        }
        assertThat(reads).isOne();
        transaction().executeWithoutResult(t -> {
            stored = 2;
            held.changed();
            assertThat((int) held.get()).isEqualTo(2);
        });
        assertThat(read(transaction(), held)).isEqualTo(2);
    }

    @Test
    void whatAnotherNodeChangedIsReadAnew() {
        Held<Integer> here = held();
        Held<Integer> there = held();
        assertThat(read(transaction(), here)).isEqualTo(1);
        transaction().executeWithoutResult(t -> {
            stored = 5;
            there.changed();
        });
        assertThat(read(transaction(), here)).isEqualTo(5);
    }

    @Test
    void whatIsRolledBackIsForNobodyElse() {
        Held<Integer> held = held();
        transaction().executeWithoutResult(t -> {
            stored = 9;
            held.changed();
            assertThat((int) held.get()).isEqualTo(9);
            TransactionTemplate beside = transaction();
            beside.setPropagationBehavior(TransactionDefinition.PROPAGATION_REQUIRES_NEW);
            stored = 1;
            assertThat(read(beside, held)).isEqualTo(1);
            t.setRollbackOnly();
        });
        assertThat(read(transaction(), held)).isEqualTo(1);
        assertThat(jdbc.sql("select count(*) from stamp where name = ?")
                        .param(name)
                        .query(Integer.class)
                        .single())
                .isZero();
    }
}
