package yarrek.app.page;

import jakarta.persistence.PersistenceException;
import java.util.function.Supplier;
import org.springframework.dao.DataAccessException;
import org.springframework.orm.jpa.vendor.HibernateJpaDialect;

/** What the database says of work that met somebody else's, in Spring's words wherever in the work it was said. */
public final class AtOnce {
    private static final HibernateJpaDialect DIALECT = new HibernateJpaDialect();

    private AtOnce() {}

    /** @throws DataAccessException in the place of what Hibernate throws when it writes before the end of a transaction */
    public static <T> T said(Supplier<T> work) {
        try {
            return work.get();
        } catch (PersistenceException e) {
            throw said(e);
        }
    }

    /** The same for an exception; itself when there is no other word for it. */
    public static RuntimeException said(PersistenceException e) {
        DataAccessException other = DIALECT.translateExceptionIfPossible(e);
        return other == null ? e : other;
    }
}
