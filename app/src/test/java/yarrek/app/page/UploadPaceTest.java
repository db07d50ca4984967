package yarrek.app.page;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

@Timeout(60)
class UploadPaceTest {
    private static final FilterChain DONE = (q, r) -> {};

    private final ExecutorService threads = Executors.newCachedThreadPool();
    private final UploadPace pace = new UploadPace(Duration.ofMillis(100));

    @AfterEach
    void ended() {
        threads.shutdownNow();
    }

    private static MockHttpServletRequest upload(String login) {
        MockHttpServletRequest request = new MockHttpServletRequest("POST", "/flights/logs");
        request.setContentType("multipart/form-data; boundary=x");
        request.setRemoteUser(login);
        return request;
    }

    private int ask(String login, FilterChain work) throws Exception {
        MockHttpServletResponse r = new MockHttpServletResponse();
        pace.doFilter(upload(login), r, work);
        if (r.getStatus() == 429) {
            assertThat(r.getContentAsString())
                    .contains("Too many files at once")
                    .contains("choose the file again");
        }
        return r.getStatus();
    }

    @Test
    void aThirdOfOneLoginWaitsAndOthersDoNot() throws Exception {
        CountDownLatch reading = new CountDownLatch(2);
        CountDownLatch through = new CountDownLatch(1);
        FilterChain slow = (q, r) -> {
            reading.countDown();
            try {
                through.await();
            } catch (InterruptedException e) {
                throw new ServletException(e);
            }
        };
        List<Future<Integer>> two = new ArrayList<>();
        for (int i = 0; i < 2; i++) {
            two.add(threads.submit(() -> ask("pilot", slow)));
        }
        reading.await();
        assertThat(ask("pilot", DONE)).isEqualTo(429);
        assertThat(ask("manager", DONE)).isEqualTo(200);
        through.countDown();
        for (Future<Integer> f : two) {
            assertThat(f.get()).isEqualTo(200);
        }
        assertThat(ask("pilot", DONE)).as("their turn is free again").isEqualTo(200);
    }

    @Test
    void aTurnIsGivenBackWhenTheWorkFails() throws Exception {
        for (int i = 0; i < 5; i++) {
            try {
                pace.doFilter(upload("pilot"), new MockHttpServletResponse(), (q, r) -> {
                    throw new ServletException("broken file");
                });
            } catch (ServletException e) {
                assertThat(e).hasMessage("broken file");
            }
        }
        assertThat(ask("pilot", DONE)).isEqualTo(200);
    }
}
