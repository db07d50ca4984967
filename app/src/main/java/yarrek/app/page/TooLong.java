package yarrek.app.page;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.concurrent.ScheduledFuture;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.scheduling.concurrent.ThreadPoolTaskScheduler;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import yarrek.core.time.Patience;

/** Ends a request that takes too long, so that one that nobody waits for any more does not take the machine from the others. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class TooLong extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(TooLong.class);
    private static final int DEEPEST_CAUSE = 20;

    /** Brings as much in as an upload does, and is none. */
    private static final String LAYS_A_SAMPLE_IN = "/begin/sample";

    private final Duration most;
    private final Duration mostWithFile;
    private final ThreadPoolTaskScheduler clock = new ThreadPoolTaskScheduler();

    /** The thread of a request that still runs; empty once it is over, so that nobody else's is interrupted. */
    private static final class Running {
        private Thread thread = Thread.currentThread();
        private boolean ended;

        synchronized void end() {
            if (thread != null) {
                ended = true;
                thread.interrupt();
            }
        }

        /** Whether it was ended. */
        synchronized boolean over() {
            thread = null;
            if (ended) {
                // the thread serves others next
                Thread.interrupted();
            }
            return ended;
        }
    }

    @Autowired
    TooLong(
            @Value("${yarrek.longest-request:60s}") Duration most,
            @Value("${yarrek.longest-upload:10m}") Duration mostWithFile) {
        this.most = most;
        this.mostWithFile = mostWithFile;
        clock.setThreadNamePrefix("too-long-");
        clock.setDaemon(true);
        clock.setRemoveOnCancelPolicy(true);
        clock.initialize();
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String type = request.getContentType();
        boolean bringsMuch = (type != null && type.startsWith("multipart/"))
                || request.getRequestURI().equals(LAYS_A_SAMPLE_IN);
        Duration limit = bringsMuch ? mostWithFile : most;
        Running running = new Running();
        ScheduledFuture<?> bell =
                clock.schedule(running::end, clock.getClock().instant().plus(limit));
        try {
            chain.doFilter(request, response);
            running.over();
        } catch (RuntimeException | ServletException | IOException e) {
            if (!running.over() || !isGivenUp(e) || response.isCommitted()) {
                throw e;
            }
            LOG.warn("{} {} was ended after {} s", request.getMethod(), request.getRequestURI(), limit.toSeconds());
            new PlainPage(
                            HttpServletResponse.SC_SERVICE_UNAVAILABLE,
                            "request.too-long",
                            "It took too long",
                            "It was ended after " + limit.toSeconds()
                                    + " s, and nothing of it was stored. Ask for less at once:"
                                    + " fewer days, a smaller file, a simpler outline.")
                    .answer(request, response);
        } finally {
            running.over();
            bell.cancel(false);
        }
    }

    private static boolean isGivenUp(Throwable e) {
        Throwable t = e;
        for (int i = 0; t != null && i < DEEPEST_CAUSE; i++, t = t.getCause()) {
            if (t instanceof Patience.GivenUpException || t instanceof InterruptedException) {
                return true;
            }
        }
        return false;
    }

    @Override
    public void destroy() {
        clock.shutdown();
    }
}
