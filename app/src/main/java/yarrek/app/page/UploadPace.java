package yarrek.app.page;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Files are read at most two at a time for one login: whoever sends a hundred at once waits for their own, and not everybody
 * else for them. Behind signing in, so that a login is known.
 */
@Component
@Order(Ordered.LOWEST_PRECEDENCE)
class UploadPace extends OncePerRequestFilter {
    private static final int AT_ONCE = 2;
    private static final int TOO_MANY = 429;

    private final Duration wait;
    private final Map<String, Semaphore> byLogin = new ConcurrentHashMap<>();

    @Autowired
    UploadPace(@Value("${yarrek.upload-waits:30s}") Duration wait) {
        this.wait = wait;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        String type = request.getContentType();
        return type == null || !type.startsWith("multipart/") || request.getRemoteUser() == null;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        Semaphore mine = byLogin.computeIfAbsent(request.getRemoteUser(), u -> new Semaphore(AT_ONCE, true));
        boolean got = false;
        try {
            got = mine.tryAcquire(wait.toMillis(), TimeUnit.MILLISECONDS);
            if (got) {
                chain.doFilter(request, response);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } finally {
            if (got) {
                mine.release();
            }
        }
        if (!got) {
            new PlainPage(
                            TOO_MANY,
                            "upload.too-many",
                            "Too many files at once",
                            "Your login sends more files at the same time than are read at once (" + AT_ONCE
                                    + "), and this one waited " + wait.toSeconds()
                                    + " s for its turn. It was not taken; send it again when the others are through.")
                    .answer(request, response);
        }
    }
}
