package yarrek.app.held;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** How often each thing that nodes hold in memory was changed; read once a transaction, for all of them in one statement. */
@Component
public class Stamps {
    private final JdbcClient jdbc;
    private final PerTransaction<Map<String, Long>> seen = new PerTransaction<>();

    /** What the transaction changed itself. */
    private final PerTransaction<Set<String>> own = new PerTransaction<>();

    Stamps(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Something that is read anew only when somebody, here or on another node, has said that it changed. */
    public <T> Held<T> holding(String name, Supplier<T> read) {
        return new Held<>(this, name, read);
    }

    long of(String name) {
        return seen.get(this::read).getOrDefault(name, 0L);
    }

    private Map<String, Long> read() {
        Map<String, Long> stamps = new HashMap<>();
        jdbc.sql("select name, stamp from stamp").query(r -> {
            stamps.put(r.getString(1), r.getLong(2));
        });
        return stamps;
    }

    boolean isOwnChange(String name) {
        return own.get(HashSet::new).contains(name);
    }

    void changed(String name) {
        jdbc.sql("insert into stamp (name, stamp) values (?, 1) on duplicate key update stamp = stamp + 1")
                .param(name)
                .update();
        own.get(HashSet::new).add(name);
    }
}
