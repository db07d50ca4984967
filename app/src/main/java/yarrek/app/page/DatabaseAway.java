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
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;
import org.springframework.web.servlet.ModelAndView;

/**
 * Says in words that the database does not answer, with a page that needs none: also who is signed in stands in the database.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class DatabaseAway extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(DatabaseAway.class);
    private static final int DEEPEST_CAUSE = 20;
    private static final PlainPage PAGE = new PlainPage(
            HttpServletResponse.SC_SERVICE_UNAVAILABLE,
            "database.away",
            "The database does not answer",
            "It may be starting again, or its disk may be full. Yarrek goes on by itself as soon as it answers; whoever looks"
                    + " after the machine finds out more with ./yarrek doctor.");
    /** What the server says when it gave up waiting, or has no room: ended, disk full, cannot write, engine in trouble, full. */
    private static final Set<Integer> IN_NEED = Set.of(1969, 1021, 1026, 1030, 1114);

    /** What the pool says of a connection that broke before. */
    private static final String CLOSED = "Connection is closed";

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
            PAGE.answer(request, response);
            return;
        }
        try {
            chain.doFilter(request, response);
        } catch (RuntimeException | ServletException e) {
            if (!isAway(e) || response.isCommitted()) {
                throw e;
            }
            LOG.warn("the database does not answer: {}", e.getMessage());
            PAGE.answer(request, response);
        }
    }

    /**
     * Answers before anybody else looks at what was thrown: a connection that ended would be taken for a browser that went
     * away, and the request be answered as if it had been done.
     */
    HandlerExceptionResolver resolver() {
        return new Resolver();
    }

    private static final class Resolver implements HandlerExceptionResolver, Ordered {
        @Override
        public int getOrder() {
            return HIGHEST_PRECEDENCE;
        }

        @Override
        public ModelAndView resolveException(
                HttpServletRequest request, HttpServletResponse response, Object handler, Exception e) {
            if (!isAway(e) || response.isCommitted()) {
                return null;
            }
            LOG.warn("the database does not answer: {}", e.getMessage());
            try {
                PAGE.answer(request, response);
            } catch (IOException gone) {
                LOG.debug("nobody is there any more", gone);
            }
            return new ModelAndView();
        }
    }

    @Configuration
    static class Resolving {
        @Bean
        HandlerExceptionResolver databaseAwayResolver(DatabaseAway away) {
            return away.resolver();
        }
    }

    static boolean isAway(Throwable e) {
        Throwable t = e;
        for (int i = 0; t != null && i < DEEPEST_CAUSE; i++, t = t.getCause()) {
            if (t instanceof SQLTransientConnectionException
                    || t instanceof SQLNonTransientConnectionException
                    || t instanceof SQLRecoverableException
                    || t instanceof SQLTimeoutException
                    || (t instanceof SQLException s
                            && (IN_NEED.contains(s.getErrorCode()) || CLOSED.equals(s.getMessage())))) {
                return true;
            }
        }
        return false;
    }
}
