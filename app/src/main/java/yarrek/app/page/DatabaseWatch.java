package yarrek.app.page;

import com.zaxxer.hikari.HikariDataSource;
import jakarta.annotation.PreDestroy;
import java.net.SocketTimeoutException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.util.Objects;
import java.util.Properties;
import java.util.concurrent.ScheduledFuture;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.concurrent.ThreadPoolTaskScheduler;
import org.springframework.stereotype.Component;

/**
 * Asks the database every second, on a connection of its own, whether it answers. While it does not, nobody has to wait for a
 * connection to find that out.
 */
@Component
class DatabaseWatch {
    private static final Logger LOG = LoggerFactory.getLogger(DatabaseWatch.class);
    private static final Duration EVERY = Duration.ofSeconds(1);
    private static final int PATIENCE_MS = 2000;
    /** One answer that is late may be a machine that is busy. */
    private static final int MISSED = 2;

    private final String url;
    private final Properties how = new Properties();
    private final ThreadPoolTaskScheduler thread = new ThreadPoolTaskScheduler();
    private final ScheduledFuture<?> asking;
    private Connection connection;
    private int missed;
    private volatile boolean away;

    DatabaseWatch(DataSource database) throws SQLException {
        HikariDataSource pool = database.unwrap(HikariDataSource.class);
        url = pool.getJdbcUrl();
        how.setProperty("user", pool.getUsername());
        how.setProperty("password", Objects.requireNonNullElse(pool.getPassword(), ""));
        how.setProperty("connectTimeout", String.valueOf(PATIENCE_MS));
        how.setProperty("socketTimeout", String.valueOf(PATIENCE_MS));
        thread.setThreadNamePrefix("database-watch-");
        thread.setDaemon(true);
        thread.initialize();
        asking = thread.scheduleWithFixedDelay(this::ask, EVERY);
    }

    /** Whether it did not answer when it was asked last. */
    boolean isAway() {
        return away;
    }

    private void ask() {
        try {
            if (connection == null) {
                connection = DriverManager.getConnection(url, how);
            }
            if (!connection.isValid(PATIENCE_MS / 1000)) {
                throw new SQLException("no answer");
            }
            missed = 0;
            away = false;
        } catch (SQLException e) {
            // one that has no connection and gets none is gone; one that is late may only be busy
            missed = connection == null && !(e.getCause() instanceof SocketTimeoutException) ? MISSED : missed + 1;
            forget();
            away = missed >= MISSED;
        }
    }

    /** At once: closing it politely would wait for the answer that does not come. */
    private void forget() {
        Connection broken = connection;
        connection = null;
        if (broken != null) {
            try {
                broken.abort(Runnable::run);
            } catch (SQLException e) {
                LOG.debug("it was broken already", e);
            }
        }
    }

    @PreDestroy
    void stop() {
        asking.cancel(true);
        thread.shutdown();
    }
}
