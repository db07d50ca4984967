package yarrek.app;

import org.springframework.jdbc.core.simple.JdbcClient;

/** Counts what the database is asked, by whatever way. */
final class Statements {
    private Statements() {}

    /** The least of several runs, the first of which fills caches: work in the background may only add to one. */
    static long of(JdbcClient jdbc, Runnable work) {
        work.run();
        long least = Long.MAX_VALUE;
        for (int i = 0; i < 4; i++) {
            long before = asked(jdbc);
            work.run();
            least = Math.min(least, asked(jdbc) - before - 1); // the question how many is one itself
        }
        return least;
    }

    private static long asked(JdbcClient jdbc) {
        return jdbc.sql(
                        "select sum(variable_value) from information_schema.global_status where variable_name in"
                                + " ('COM_SELECT', 'COM_INSERT', 'COM_UPDATE', 'COM_DELETE', 'COM_REPLACE', 'COM_STMT_EXECUTE', 'COM_INSERT_SELECT')")
                .query(Long.class)
                .single();
    }
}
