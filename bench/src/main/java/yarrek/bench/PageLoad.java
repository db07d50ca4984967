package yarrek.bench;

import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Signs in and asks for pages one after the other; prints p50 and p95 in ms. Arguments: address, then paths. */
public final class PageLoad {
    private static final int WARM_UP = 40;
    private static final int ROUNDS = 200;

    private PageLoad() {}

    public static void main(String[] args) throws Exception {
        HttpClient http = HttpClient.newBuilder()
                .cookieHandler(new CookieManager())
                .followRedirects(HttpClient.Redirect.ALWAYS)
                .build();
        String login = get(http, args[0] + "/login");
        Matcher csrf = Pattern.compile("name=\"_csrf\" value=\"([^\"]+)\"").matcher(login);
        if (!csrf.find()) {
            throw new IllegalStateException("no sign-in form at " + args[0]);
        }
        String body = "username=manager&password=manager-demo&_csrf="
                + URLEncoder.encode(csrf.group(1), StandardCharsets.UTF_8);
        http.send(
                HttpRequest.newBuilder(URI.create(args[0] + "/login"))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.discarding());
        for (String path : Arrays.copyOfRange(args, 1, args.length)) {
            for (int i = 0; i < WARM_UP; i++) {
                get(http, args[0] + path);
            }
            double[] millis = new double[ROUNDS];
            for (int i = 0; i < ROUNDS; i++) {
                long before = System.nanoTime();
                get(http, args[0] + path);
                millis[i] = (System.nanoTime() - before) / 1e6;
            }
            Arrays.sort(millis);
            System.out.printf("%s p50 %.0f ms, p95 %.0f ms%n", path, millis[ROUNDS / 2], millis[ROUNDS * 95 / 100]);
        }
    }

    private static String get(HttpClient http, String address) throws Exception {
        HttpResponse<String> r =
                http.send(HttpRequest.newBuilder(URI.create(address)).build(), HttpResponse.BodyHandlers.ofString());
        if (r.statusCode() != 200) {
            throw new IllegalStateException(address + " answered " + r.statusCode());
        }
        return r.body();
    }
}
