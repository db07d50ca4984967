package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.Cookie;
import com.microsoft.playwright.options.ReducedMotion;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

/** The running application with a real browser before it. */
abstract class BrowserTest extends RunningApp {
    private static Playwright playwright;
    private static Browser browser;
    private static final Map<String, List<Cookie>> SESSIONS = new ConcurrentHashMap<>();

    @Autowired
    JdbcClient jdbc;

    BrowserContext context;
    Page page;
    private final List<String> complaints = new ArrayList<>();

    @BeforeAll
    static void open() {
        // a page that comes late because the machine is busy is no failure; one that never comes still is
        PlaywrightAssertions.setDefaultAssertionTimeout(20_000);
        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium-headless-shell"))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--disable-gpu",
                                "--disable-quic",
                                "--no-first-run",
                                "--disable-background-networking",
                                "--disable-component-update",
                                "--disable-sync")));
    }

    @AfterAll
    static void close() {
        browser.close();
        playwright.close();
    }

    @BeforeEach
    void newWindow() {
        use(ColorScheme.LIGHT, 1280, 800);
    }

    void use(ColorScheme scheme, int width, int height) {
        if (context != null) {
            context.close();
        }
        context = browser.newContext(new Browser.NewContextOptions()
                .setViewportSize(width, height)
                .setColorScheme(scheme)
                .setReducedMotion(ReducedMotion.REDUCE));
        page = context.newPage();
        page.onConsoleMessage(m -> {
            if (m.type().equals("error")
                    && !m.text().contains("status of 4")
                    && !m.text().contains("net::ERR_")) {
                complaints.add(m.text());
            }
        });
        page.onPageError(complaints::add);
    }

    /** No page breaks its own security policy or fails in script. */
    @AfterEach
    void nothingComplained() {
        context.close();
        assertThat(complaints).isEmpty();
    }

    /** What the browser has to complain of in this test. */
    void expectComplaint(String part) {
        assertThat(complaints).anyMatch(c -> c.contains(part));
        complaints.removeIf(c -> c.contains(part));
    }

    /** The first time by the page; afterwards the session of then is taken up again. */
    void signIn(String login) {
        if (SESSIONS.containsKey(login)) {
            context.addCookies(SESSIONS.get(login));
            page.navigate(address("/"));
        }
        if (!page.url().equals(address("/"))) {
            page.navigate(address("/login"));
            signInByThePage(login);
            SESSIONS.put(login, context.cookies());
        }
        page.waitForLoadState(); // keys work once the scripts have run
    }

    void signInByThePage(String login) {
        page.fill("#username", login);
        page.fill("#password", login + "-demo");
        page.click("button");
        page.waitForURL(u -> !u.contains("/login"));
    }

    String id(String sql) {
        return jdbc.sql(sql).query(String.class).single();
    }
}
