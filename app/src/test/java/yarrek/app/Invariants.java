package yarrek.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;

/** What must hold of stored data, read from where the launcher reads it. */
final class Invariants {
    private Invariants() {}

    static Map<String, String> questions() throws IOException {
        Map<String, String> all = new LinkedHashMap<>();
        String words = "";
        StringBuilder sql = new StringBuilder();
        for (String line : Files.readAllLines(Path.of("src/main/resources/db/invariants.sql"))) {
            if (line.startsWith("-- ")) {
                words = line.substring(3);
            } else if (!line.isBlank()) {
                sql.append(line).append('\n');
                if (line.endsWith(";")) {
                    all.put(words, sql.toString().strip().replaceAll(";$", ""));
                    sql.setLength(0);
                }
            }
        }
        return all;
    }

    /** In words; empty when all holds. */
    static List<String> broken(JdbcClient jdbc) throws IOException {
        List<String> wrong = new ArrayList<>();
        questions().forEach((words, sql) -> {
            if (jdbc.sql(sql).query(Long.class).single() != 0) {
                wrong.add(words);
            }
        });
        return wrong;
    }
}
