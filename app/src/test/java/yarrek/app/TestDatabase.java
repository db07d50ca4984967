package yarrek.app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** A real MariaDB for the tests: its own data directory, loopback only, one for the whole run, gone with it. */
final class TestDatabase {
    private static final int START_SECONDS = 60;
    private static final TestDatabase INSTANCE = new TestDatabase();

    private final int port;

    private TestDatabase() {
        try {
            Path home = Files.createTempDirectory("yarrek-test-db");
            port = freePort();
            boolean root = "root".equals(System.getProperty("user.name"));
            List<String> install = new ArrayList<>(List.of(
                    "mariadb-install-db",
                    "--no-defaults",
                    "--datadir=" + home.resolve("data"),
                    "--tmpdir=" + home,
                    "--auth-root-authentication-method=normal",
                    "--skip-test-db"));
            List<String> serve = new ArrayList<>(List.of(
                    daemon(),
                    "--no-defaults",
                    "--datadir=" + home.resolve("data"),
                    "--tmpdir=" + home,
                    "--socket=" + home.resolve("s"),
                    "--pid-file=" + home.resolve("pid"),
                    "--bind-address=127.0.0.1",
                    "--port=" + port,
                    "--character-set-server=utf8mb4",
                    "--collation-server=utf8mb4_unicode_520_ci",
                    "--sql-mode=STRICT_ALL_TABLES,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION",
                    "--max-allowed-packet=256M",
                    "--innodb-flush-log-at-trx-commit=0",
                    "--skip-log-bin"));
            if (root) {
                install.add("--user=root");
                serve.add("--user=root");
            }
            Process installing = new ProcessBuilder(install)
                    .redirectErrorStream(true)
                    .redirectOutput(home.resolve("install.log").toFile())
                    .start();
            if (!installing.waitFor(START_SECONDS, TimeUnit.SECONDS) || installing.exitValue() != 0) {
                throw new IllegalStateException(
                        "creating the test database failed; see " + home.resolve("install.log"));
            }
            Process server = new ProcessBuilder(serve)
                    .redirectErrorStream(true)
                    .redirectOutput(home.resolve("server.log").toFile())
                    .start();
            Runtime.getRuntime().addShutdownHook(new Thread(() -> stop(server, home)));
            prepare(server, home);
        } catch (IOException e) {
            throw new UncheckedIOException("starting the test database", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted while starting the test database", e);
        }
    }

    private void prepare(Process server, Path home) throws InterruptedException {
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(START_SECONDS);
        while (true) {
            try (Connection c = DriverManager.getConnection("jdbc:mariadb://127.0.0.1:" + port + "/mysql?user=root");
                    var s = c.createStatement()) {
                s.execute("create database yarrek_test");
                return;
            } catch (SQLException e) {
                if (!server.isAlive() || System.nanoTime() > until) {
                    throw new IllegalStateException(
                            "the test database did not start; see " + home.resolve("server.log"), e);
                }
                server.waitFor(100, TimeUnit.MILLISECONDS);
            }
        }
    }

    private static String daemon() {
        return Files.isExecutable(Path.of("/usr/sbin/mariadbd")) ? "/usr/sbin/mariadbd" : "mariadbd";
    }

    private static int freePort() throws IOException {
        try (ServerSocket s = new ServerSocket(0)) {
            return s.getLocalPort();
        }
    }

    private static void stop(Process server, Path home) {
        server.destroy();
        try {
            server.waitFor(20, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        try (Stream<Path> files = Files.walk(home)) {
            files.sorted(java.util.Comparator.reverseOrder())
                    .forEach(f -> f.toFile().delete());
        } catch (IOException e) {
            System.err.println("left behind: " + home);
        }
    }

    static int port() {
        return INSTANCE.port;
    }

    /** One beside it that holds nothing when it is first asked for. */
    static String empty(String name) {
        try (Connection c =
                        DriverManager.getConnection("jdbc:mariadb://127.0.0.1:" + INSTANCE.port + "/mysql?user=root");
                var s = c.createStatement()) {
            s.execute("create database if not exists " + name);
        } catch (SQLException e) {
            throw new IllegalStateException("making the database " + name, e);
        }
        return "jdbc:mariadb://127.0.0.1:" + INSTANCE.port + "/" + name;
    }

    static String url() {
        return "jdbc:mariadb://127.0.0.1:" + INSTANCE.port + "/yarrek_test";
    }
}
