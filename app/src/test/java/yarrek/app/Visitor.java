package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** A browser without a screen: it keeps its cookies and sends the token of its forms. */
final class Visitor {
    private static final Pattern CSRF = Pattern.compile("name=\"_csrf\"[^>]*value=\"([^\"]+)\"");

    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
    private final UnaryOperator<String> address;

    /** @param address where a path is */
    Visitor(UnaryOperator<String> address) {
        this.address = address;
    }

    HttpResponse<String> get(String path) throws Exception {
        return http.send(
                HttpRequest.newBuilder(URI.create(address.apply(path)))
                        .header("Accept", "text/html, */*")
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    /** What a form of this visitor carries to be taken for theirs. */
    String token() throws Exception {
        Matcher token = CSRF.matcher(get("/login").body());
        assertThat(token.find()).isTrue();
        return token.group(1);
    }

    HttpResponse<String> post(String path, String form) throws Exception {
        return send(token(), path, form);
    }

    HttpResponse<String> postWith(String token, String path, Typed form) throws Exception {
        return send(token, path, form.encoded());
    }

    private HttpResponse<String> send(String token, String path, String form) throws Exception {
        return http.send(
                HttpRequest.newBuilder(URI.create(address.apply(path)))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString(
                                form + "&_csrf=" + URLEncoder.encode(token, StandardCharsets.UTF_8)))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    /** The main form of a page as it stands. */
    Typed form(String path) throws Exception {
        return Typed.of(get(path).body());
    }

    HttpResponse<String> upload(String path, String field, String fileName, byte[] content) throws Exception {
        return upload(path, field, fileName, content, Map.of());
    }

    HttpResponse<String> upload(String path, String field, String fileName, byte[] content, Map<String, String> besides)
            throws Exception {
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        for (Map.Entry<String, String> e : besides.entrySet()) {
            body.write(("--b\r\nContent-Disposition: form-data; name=\"" + e.getKey() + "\"\r\n\r\n" + e.getValue()
                            + "\r\n")
                    .getBytes(StandardCharsets.UTF_8));
        }
        body.write(("--b\r\nContent-Disposition: form-data; name=\"_csrf\"\r\n\r\n" + token() + "\r\n"
                        + "--b\r\nContent-Disposition: form-data; name=\"" + field + "\"; filename=\"" + fileName
                        + "\"\r\n\r\n")
                .getBytes(StandardCharsets.UTF_8));
        body.write(content);
        body.write("\r\n--b--\r\n".getBytes(StandardCharsets.UTF_8));
        return http.send(
                HttpRequest.newBuilder(URI.create(address.apply(path)))
                        .header("Content-Type", "multipart/form-data; boundary=b")
                        .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray()))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    HttpResponse<String> post(String path, Typed form) throws Exception {
        return post(path, form.encoded());
    }

    HttpResponse<String> post(String path, Map<String, String> form) throws Exception {
        return post(
                path,
                form.entrySet().stream()
                        .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
                        .collect(Collectors.joining("&")));
    }

    /** Where an answer leads, without the host; empty when it leads nowhere. */
    static String leadsTo(HttpResponse<String> answer) {
        return answer.headers().firstValue("Location").orElse("").replaceFirst("^https?://[^/]+", "");
    }

    /** Where signing in leads. */
    String signIn(String name, String password, String path) throws Exception {
        return leadsTo(post(path, Map.of("username", name, "password", password)));
    }

    String signIn(String name, String password) throws Exception {
        return signIn(name, password, "/login");
    }
}
