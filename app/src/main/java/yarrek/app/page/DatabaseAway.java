package yarrek.app.page;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.sql.SQLException;
import java.sql.SQLNonTransientConnectionException;
import java.sql.SQLRecoverableException;
import java.sql.SQLTimeoutException;
import java.sql.SQLTransientConnectionException;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.HtmlUtils;

/**
 * Says in words that the database does not answer, with a page that needs none: also who is signed in stands in the database.
 * What was typed is on that page, to be sent again with one button when the database is back.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class DatabaseAway extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(DatabaseAway.class);
    private static final int DEEPEST_CAUSE = 20;
    /** Never written into a page. */
    private static final Set<String> SECRET = Set.of("password", "old", "code", "link");

    /** What the server says when it gave up waiting, or has no room: ended, disk full, cannot write, engine in trouble, full. */
    private static final Set<Integer> IN_NEED = Set.of(1969, 1021, 1026, 1030, 1114);

    private final BooleanSupplier away;

    @Autowired
    DatabaseAway(DatabaseWatch watch) {
        this(watch::isAway);
    }

    DatabaseAway(BooleanSupplier away) {
        this.away = away;
    }

    /** What is served without the database. */
    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return request.getRequestURI().matches("/(css|js|webjars|fonts|actuator)/.*");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (away.getAsBoolean()) {
            answer(request, response);
            return;
        }
        try {
            chain.doFilter(request, response);
        } catch (RuntimeException | ServletException e) {
            if (!isAway(e) || response.isCommitted()) {
                throw e;
            }
            LOG.warn("the database does not answer: {}", e.getMessage());
            answer(request, response);
        }
    }

    static boolean isAway(Throwable e) {
        Throwable t = e;
        for (int i = 0; t != null && i < DEEPEST_CAUSE; i++, t = t.getCause()) {
            if (t instanceof SQLTransientConnectionException
                    || t instanceof SQLNonTransientConnectionException
                    || t instanceof SQLRecoverableException
                    || t instanceof SQLTimeoutException
                    || (t instanceof SQLException s && IN_NEED.contains(s.getErrorCode()))) {
                return true;
            }
        }
        return false;
    }

    private static void answer(HttpServletRequest request, HttpServletResponse response) throws IOException {
        response.resetBuffer();
        response.setStatus(HttpServletResponse.SC_SERVICE_UNAVAILABLE);
        response.setHeader("Retry-After", "15");
        response.setHeader("Cache-Control", "no-store");
        if (request.getRequestURI().startsWith("/api/")) {
            response.setContentType("application/problem+json");
            response.getWriter()
                    .write(
                            "{\"type\":\"about:blank\",\"title\":\"The database does not answer\",\"status\":503,"
                                    + "\"detail\":\"Whether what was sent is stored is not known. Ask again in a while.\",\"code\":\"database.away\"}");
            return;
        }
        response.setContentType("text/html;charset=UTF-8");
        response.getWriter().write(page(request));
    }

    private static String page(HttpServletRequest request) {
        StringBuilder s = new StringBuilder("""
                <!DOCTYPE html>
                <html lang="en">
                  <head>
                    <meta charset="utf-8" />
                    <meta name="viewport" content="width=device-width, initial-scale=1" />
                    <title>The database does not answer – Yarrek</title>
                    <link rel="stylesheet" href="/css/page.css" />
                  </head>
                  <body>
                    <main class="login">
                      <h1>The database does not answer</h1>
                      <p role="alert">
                        It may be starting again, or its disk may be full. Yarrek goes on by itself as soon as it answers; whoever
                        looks after the machine finds out more with ./yarrek doctor.
                      </p>
                """);
        if (request.getMethod().equals("POST")) {
            s.append(
                            "<p>What you typed is still here. Send it again in a while; if it was stored after all, it is not stored twice.</p><form method=\"post\" action=\"")
                    .append(escaped(request.getRequestURI()
                            + (request.getQueryString() == null ? "" : "?" + request.getQueryString())))
                    .append("\">");
            for (Map.Entry<String, String[]> p : request.getParameterMap().entrySet()) {
                if (!SECRET.contains(p.getKey())) {
                    for (String value : p.getValue()) {
                        s.append("<textarea hidden name=\"")
                                .append(escaped(p.getKey()))
                                .append("\">\n")
                                .append(escaped(value))
                                .append("</textarea>");
                    }
                }
            }
            s.append("<button>Send it again</button></form>");
        } else {
            s.append("<p><a href=\"\">Try again</a></p>");
        }
        return s.append("</main></body></html>").toString();
    }

    private static String escaped(String s) {
        return HtmlUtils.htmlEscape(s, "UTF-8");
    }
}
