package yarrek.app.web;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.web.server.context.WebServerInitializedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Services outside, over HTTP with time-outs. Without an address of its own the stand-ins that ship with the application
 * are asked, at its own port on loopback.
 */
@Component
public class Outside {
    private static final Duration CONNECT = Duration.ofSeconds(2);
    private static final Duration ANSWER = Duration.ofSeconds(5);
    private static final int MOST_BYTES = 5_000_000;

    private final HttpClient client = HttpClient.newBuilder()
            .connectTimeout(CONNECT)
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();
    private final String address;
    private volatile int port;

    Outside(@Value("${yarrek.outside:}") String address) {
        this.address = address;
    }

    @EventListener
    void listening(WebServerInitializedEvent e) {
        if (e.getApplicationContext().getServerNamespace() == null) {
            port = e.getWebServer().getPort();
        }
    }

    private URI at(String path) {
        return URI.create((address.isBlank() ? "http://127.0.0.1:" + port : address) + path);
    }

    /**
     * The text at a path.
     *
     * @throws IllegalStateException when it cannot be reached, answers with an error or with too much
     */
    public String get(String path) {
        Answer a = send(HttpRequest.newBuilder(at(path)).timeout(ANSWER).GET().build());
        if (a.status() != 200) {
            throw new IllegalStateException(
                    "the service answered with " + a.status() + "; try again later or type what it would say");
        }
        return a.body();
    }

    /** What came back. */
    public record Answer(int status, String body) {}

    private Answer send(HttpRequest request) {
        try {
            HttpResponse<java.io.InputStream> r = client.send(request, HttpResponse.BodyHandlers.ofInputStream());
            try (java.io.InputStream in = r.body()) {
                byte[] bytes = in.readNBytes(MOST_BYTES + 1);
                if (bytes.length > MOST_BYTES) {
                    throw new IllegalStateException(
                            "the service sent more than " + MOST_BYTES + " bytes; nothing was taken");
                }
                return new Answer(r.statusCode(), new String(bytes, StandardCharsets.UTF_8));
            }
        } catch (IOException e) {
            throw new IllegalStateException(
                    "the service cannot be reached ("
                            + e.getClass().getSimpleName().replace("Exception", "")
                            + "); try again later or type what it would say",
                    e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("the question to the service was broken off", e);
        }
    }
}
