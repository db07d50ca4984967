package yarrek.app.page;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Timestamp;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.support.RequestDataValueProcessor;

/**
 * Every form carries a mark of its own. Sent twice as it is, by a double click or over a line that broke, it does its work
 * once, and the second sending leads where the first one led, on whichever node. Gone back to and filled in differently it is
 * another form.
 */
class SentOnce implements HandlerInterceptor {
    static final String FIELD = "_once";

    private static final String KEY = SentOnce.class.getName();
    private static final Duration KEPT = Duration.ofDays(14);
    /** A first sending that has not ended by then has died with its node. */
    private static final Duration LONGEST = Duration.ofMinutes(2);

    private static final Duration WAIT = Duration.ofSeconds(15);
    private static final long LOOK_MS = 100;
    private static final int LONGEST_ADDRESS = 600;

    private final JdbcClient jdbc;
    private final Clock clock;

    SentOnce(JdbcClient jdbc, Clock clock) {
        this.jdbc = jdbc;
        this.clock = clock;
    }

    private static Optional<String> key(HttpServletRequest request) {
        boolean plain = request.getContentType() != null
                && request.getContentType().startsWith("application/x-www-form-urlencoded");
        if (!request.getMethod().equals("POST") || !plain || request.getParameter(FIELD) == null) {
            return Optional.empty();
        }
        StringBuilder all = new StringBuilder(request.getRequestURI())
                .append('\n')
                .append(Viewer.found().map(v -> v.userId().toString()).orElse(""));
        new TreeMap<>(request.getParameterMap()).forEach((name, values) -> {
            if (!name.equals("_csrf")) {
                all.append('\n').append(name).append('=').append(String.join("\t", values));
            }
        });
        try {
            return Optional.of(HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256")
                            .digest(all.toString().getBytes(StandardCharsets.UTF_8))));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler)
            throws IOException {
        Optional<String> key = key(request);
        if (key.isEmpty()) {
            return true;
        }
        Instant end = clock.instant().plus(WAIT);
        while (!taken(key.get())) {
            Optional<String> ledTo = ledTo(key.get());
            if (ledTo.isPresent()) {
                response.sendRedirect(ledTo.get());
                return false;
            }
            if (clock.instant().isAfter(end)) {
                response.sendError(HttpServletResponse.SC_CONFLICT);
                return false;
            }
            pause();
        }
        request.setAttribute(KEY, key.get());
        return true;
    }

    private boolean taken(String key) {
        Instant now = clock.instant();
        jdbc.sql("delete from form_sent where sent_key = ? and led_to is null and sent_at < ?")
                .params(key, Timestamp.from(now.minus(LONGEST)))
                .update();
        try {
            return jdbc.sql("insert into form_sent (sent_key, sent_at) values (?, ?)")
                            .params(key, Timestamp.from(now))
                            .update()
                    == 1;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }

    /** Where the first sending led; empty while it is under way, and when it led nowhere. */
    private Optional<String> ledTo(String key) {
        return jdbc.sql("select led_to from form_sent where sent_key = ? and led_to is not null")
                .param(key)
                .query(String.class)
                .optional();
    }

    private static void pause() {
        try {
            Thread.sleep(LOOK_MS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("stopped while waiting", e);
        }
    }

    /** What was refused or failed may be sent again as it is. */
    @Override
    public void afterCompletion(
            HttpServletRequest request, HttpServletResponse response, Object handler, Exception failure) {
        if (!(request.getAttribute(KEY) instanceof String key)) {
            return;
        }
        String location = response.getHeader("Location");
        boolean done = failure == null
                && response.getStatus() >= 300
                && response.getStatus() < 400
                && location != null
                && location.length() <= LONGEST_ADDRESS;
        if (done) {
            jdbc.sql("update form_sent set led_to = ? where sent_key = ?")
                    .params(location, key)
                    .update();
        } else {
            jdbc.sql("delete from form_sent where sent_key = ?").param(key).update();
        }
        jdbc.sql("delete from form_sent where sent_at < ? limit 100")
                .param(Timestamp.from(clock.instant().minus(KEPT)))
                .update();
    }

    /** Puts the mark into every form that a template writes, beside what was there before. */
    private record Marking(RequestDataValueProcessor before) implements RequestDataValueProcessor {
        @Override
        public String processAction(HttpServletRequest request, String action, String httpMethod) {
            return before.processAction(request, action, httpMethod);
        }

        @Override
        public String processFormFieldValue(HttpServletRequest request, String name, String value, String type) {
            return before.processFormFieldValue(request, name, value, type);
        }

        @Override
        public Map<String, String> getExtraHiddenFields(HttpServletRequest request) {
            Map<String, String> fields = before.getExtraHiddenFields(request);
            if (fields == null || fields.isEmpty()) {
                return fields; // a form that only asks
            }
            Map<String, String> more = new LinkedHashMap<>(fields);
            more.put(FIELD, UUID.randomUUID().toString());
            return more;
        }

        @Override
        public String processUrl(HttpServletRequest request, String url) {
            return before.processUrl(request, url);
        }
    }

    @Configuration
    static class Forms implements WebMvcConfigurer {
        private final JdbcClient jdbc;
        private final Clock clock;

        Forms(JdbcClient jdbc, Clock clock) {
            this.jdbc = jdbc;
            this.clock = clock;
        }

        @Override
        public void addInterceptors(InterceptorRegistry registry) {
            registry.addInterceptor(new SentOnce(jdbc, clock)).excludePathPatterns("/api/**", "/stand-ins/**");
        }

        @Bean
        static BeanPostProcessor marksForms() {
            return new BeanPostProcessor() {
                @Override
                public Object postProcessAfterInitialization(Object bean, String name) {
                    return bean instanceof RequestDataValueProcessor p ? new Marking(p) : bean;
                }
            };
        }
    }
}
