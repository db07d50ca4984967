package yarrek.app.page;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import java.time.Duration;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import yarrek.core.time.Patience;

@Timeout(60)
class TooLongTest {
    private static final FilterChain ENDLESS = (q, r) -> {
        while (true) {
            Patience.ask();
        }
    };

    private final TooLong filter = new TooLong(Duration.ofMillis(50), Duration.ofHours(1));

    @AfterEach
    void stopped() {
        assertThat(Thread.interrupted()).as("the thread goes on for others").isFalse();
        filter.destroy();
    }

    @Test
    void workWithoutEndIsEndedInWordsAndWhatWasTypedIsThere() throws Exception {
        MockHttpServletRequest request = new MockHttpServletRequest("POST", "/jobs/new");
        request.setParameter("name", "Every field of the isle");
        MockHttpServletResponse r = new MockHttpServletResponse();
        filter.doFilter(request, r, ENDLESS);
        assertThat(r.getStatus()).isEqualTo(503);
        assertThat(r.getContentAsString()).contains("It took too long").contains("Every field of the isle");
    }

    @Test
    void aWaitIsEndedToo() throws Exception {
        MockHttpServletResponse r = new MockHttpServletResponse();
        filter.doFilter(new MockHttpServletRequest("GET", "/api/v1/jobs"), r, (q, s) -> {
            try {
                new CountDownLatch(1).await();
            } catch (InterruptedException e) {
                throw new ServletException(e);
            }
        });
        assertThat(r.getStatus()).isEqualTo(503);
        assertThat(r.getContentAsString()).contains("request.too-long");
    }

    @Test
    void aFileMayTakeLonger() throws Exception {
        MockHttpServletRequest request = new MockHttpServletRequest("POST", "/flights/logs");
        request.setContentType("multipart/form-data; boundary=x");
        MockHttpServletResponse r = new MockHttpServletResponse();
        long until = System.nanoTime() + Duration.ofMillis(200).toNanos();
        filter.doFilter(request, r, (q, s) -> {
            while (System.nanoTime() < until) {
                Patience.ask();
            }
        });
        assertThat(r.getStatus()).isEqualTo(200);
    }

    @Test
    void otherTroubleStaysWhatItIs() {
        assertThatThrownBy(() -> filter.doFilter(
                        new MockHttpServletRequest("GET", "/"), new MockHttpServletResponse(), (q, r) -> {
                            throw new IllegalStateException("else");
                        }))
                .hasMessage("else");
    }
}
