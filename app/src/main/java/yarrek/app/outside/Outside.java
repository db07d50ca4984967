package yarrek.app.outside;

import java.io.IOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.web.server.context.WebServerInitializedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.env.Environment;
import org.springframework.core.env.Profiles;
import org.springframework.stereotype.Component;

/**
 * Services outside, over HTTP with time-outs. Without an address of its own the demo asks the stand-ins that ship with the
 * application, at its own port on loopback; an operator's own installation asks nobody.
 */
@Component
public class Outside {
    private static final Duration CONNECT = Duration.ofSeconds(2);
    private static final int TRIES = 3;
    private static final long FIRST_PAUSE_MS = 200;
    private static final int MOST_BYTES = 5_000_000;

    private final HttpClient client = HttpClient.newBuilder()
            .connectTimeout(CONNECT)
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();
    private final String address;
    private final Duration wait;
    private final boolean standIns;
    private volatile int port;

    /** @param answer how long an answer is waited for */
    Outside(
            @Value("${yarrek.outside:}") String address,
            @Value("${yarrek.outside-answer:5s}") Duration answer,
            Environment environment) {
        this.address = address;
        this.standIns = environment.acceptsProfiles(Profiles.of("demo"));
        this.wait = answer;
    }

    /** No answer came: the question may have arrived or not. Asking again under the same key is harmless. */
    public static final class NoAnswerException extends IllegalStateException {
        private static final long serialVersionUID = 1L;

        NoAnswerException(String message, Throwable cause) {
            super(message, cause);
        }
    }

    @EventListener
    void listening(WebServerInitializedEvent e) {
        if (e.getApplicationContext().getServerNamespace() == null) {
            port = e.getWebServer().getPort();
        }
    }

    /** @throws IllegalStateException when no service is set up */
    private URI at(String path) {
        if (address.isBlank() && !standIns) {
            throw new IllegalStateException(
                    "no service outside is set up, so nobody was asked; set YARREK_OUTSIDE to its address and start again");
        }
        return URI.create((address.isBlank() ? "http://127.0.0.1:" + port : address) + path);
    }

    /**
     * The text at a path.
     *
     * @throws IllegalStateException when it cannot be reached, answers with an error or with too much
     */
    public String get(String path) {
        Answer a = ask(path);
        if (a.status() != 200) {
            throw new IllegalStateException(
                    "the service answered with " + a.status() + "; try again later or type what it would say");
        }
        return a.body();
    }

    /** What is at a path, whatever the status; tried again when the service says that it is not there for now. */
    public Answer ask(String path) {
        return tried(HttpRequest.newBuilder(at(path)).timeout(wait).GET().build());
    }

    /**
     * Sends a document. It goes out under a key by which the service knows it, so that trying again never makes a second
     * request of it.
     *
     * @throws IllegalStateException when it surely did not arrive
     * @throws NoAnswerException when nobody can say whether it did
     */
    public Answer post(String path, String json, String key) {
        return tried(HttpRequest.newBuilder(at(path))
                .timeout(wait)
                .header("Content-Type", "application/json")
                .header("Idempotency-Key", key)
                .POST(HttpRequest.BodyPublishers.ofString(json))
                .build());
    }

    /** What came back. */
    public record Answer(int status, String body) {}

    /** Up to three times with growing pauses while the service cannot be reached, does not answer or says 502 to 504. */
    private Answer tried(HttpRequest request) {
        NoAnswerException unsure = null;
        for (int n = 1; ; n++) {
            try {
                Answer a = send(request);
                boolean away = a.status() >= 502 && a.status() <= 504;
                if (!away) {
                    return a;
                }
                if (n == TRIES) {
                    if (unsure != null) {
                        throw unsure;
                    }
                    return a;
                }
            } catch (NoAnswerException e) {
                unsure = e;
                if (n == TRIES) {
                    throw e;
                }
            } catch (IllegalStateException e) {
                if (n == TRIES) {
                    throw unsure == null ? e : unsure; // an earlier try may have arrived
                }
            }
            try {
                Thread.sleep(FIRST_PAUSE_MS << (n - 1));
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException("the question to the service was broken off", e);
            }
        }
    }

    private Answer send(HttpRequest request) {
        try {
            HttpResponse<java.io.InputStream> r = client.send(request, HttpResponse.BodyHandlers.ofInputStream());
            try (java.io.InputStream in = r.body()) {
                byte[] bytes = in.readNBytes(MOST_BYTES + 1);
                if (bytes.length > MOST_BYTES) {
                    throw new NoAnswerException(
                            "the service sent more than " + MOST_BYTES
                                    + " bytes, and nothing of it was taken; whether it has the request is not known",
                            null);
                }
                return new Answer(r.statusCode(), new String(bytes, StandardCharsets.UTF_8));
            }
        } catch (ConnectException e) {
            throw new IllegalStateException("the service cannot be reached; nothing was sent. Try again later", e);
        } catch (IOException e) {
            throw new NoAnswerException(
                    "the service did not answer within " + wait.toSeconds()
                            + " s; whether the question arrived is not known. Try again later or type what it would say",
                    e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new NoAnswerException(
                    "the question to the service was broken off; whether it arrived is not known", e);
        }
    }
}
