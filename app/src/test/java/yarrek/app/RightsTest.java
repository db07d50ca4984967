package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import yarrek.app.office.Office;
import yarrek.app.office.Tokens;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;

/**
 * Who may ask for what: every address that the application answers, against the table in {@code rights.txt}. A new address
 * fails here until it has its line.
 */
class RightsTest extends RunningApp {
    private static final Set<String> ALL = new TreeSet<>(Set.of("manager", "pilot", "reader", "anybody"));
    private static final Set<String> OF_THE_FRAMEWORK =
            Set.of("/error GET", "/error POST", "/api/v1/openapi.json GET", "/api/v1/openapi.json.yaml GET");

    @Autowired
    @Qualifier("requestMappingHandlerMapping")
    RequestMappingHandlerMapping mappings;

    @Autowired
    JdbcClient jdbc;

    @Autowired
    Office office;

    @Autowired
    Tokens tokens;

    /** "POST /jobs/{id}/state" with who may. */
    private Map<String, Set<String>> asItIs() {
        Map<String, Set<String>> is = new TreeMap<>();
        mappings.getHandlerMethods().forEach((info, handler) -> {
            Set<RequestMethod> methods = info.getMethodsCondition().getMethods();
            for (String path : info.getPatternValues()) {
                for (RequestMethod method :
                        methods.isEmpty() ? Set.of(RequestMethod.GET, RequestMethod.POST) : methods) {
                    is.put(path + " " + method, who(handler));
                }
            }
        });
        // the framework's own handlers are opened by their address
        OF_THE_FRAMEWORK.forEach(a -> is.put(a, ALL));
        return is;
    }

    private static Set<String> who(HandlerMethod handler) {
        OpenTo open = handler.getMethodAnnotation(OpenTo.class);
        if (open == null) {
            return Set.of();
        }
        return open.value() == OpenTo.Whom.ANYBODY
                ? ALL
                : Stream.of("manager", "pilot", "reader")
                        .filter(r -> open.value().includes(r.toUpperCase(Locale.ROOT)))
                        .collect(Collectors.toCollection(TreeSet::new));
    }

    private static Map<String, Set<String>> table() throws IOException {
        try (var in = RightsTest.class.getResourceAsStream("/rights.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.isBlank() && !l.startsWith("#"))
                    .map(l -> l.split("\\s+=\\s+"))
                    .collect(Collectors.toMap(
                            l -> l[0],
                            l -> Arrays.stream(l[1].split(" ")).collect(Collectors.toCollection(TreeSet::new)),
                            (a, b) -> {
                                throw new IllegalStateException("an address stands twice in rights.txt");
                            },
                            TreeMap::new));
        }
    }

    /** A record of somebody else than the pilot, by the address that begins so. */
    private static final Map<String, String> OF_OTHERS = new LinkedHashMap<>();

    static {
        // a job is a pilot's own by any of its parts: the plan for all of it, or one flight planned within it
        String notMine = "(j.pilot_id is null or j.pilot_id <> :me) and (j.observer_id is null or j.observer_id <> :me)"
                + " and not exists (select 1 from planned_flight f where f.job_id = j.id"
                + " and :me in (f.pilot_id, f.supervised_id, f.observer_id))"
                + " and not exists (select 1 from job_besides b where b.job_id = j.id and b.person_id = :me)";
        String job = "select j.id from job j where " + notMine + " limit 1";
        // what is shown on a job of both is open to both
        String paper = "select p.id from paper p where p.holder_kind = 'pilot' and p.holder_id <> :me and not exists ("
                + "select 1 from job j where not (" + notMine + ") and (p.holder_id in (j.pilot_id, j.observer_id)"
                + " or exists (select 1 from planned_flight o where o.job_id = j.id"
                + " and p.holder_id in (o.pilot_id, o.supervised_id, o.observer_id))"
                + " or exists (select 1 from job_besides b where b.job_id = j.id and b.person_id = p.holder_id))) limit 1";
        OF_OTHERS.put("/jobs/{id}", job);
        OF_OTHERS.put("/api/v1/jobs/{id}", job);

        OF_OTHERS.put("/field/documents/{job}", job);
        OF_OTHERS.put(
                "/approvals/{id}",
                "select a.id from approval a join job j on j.id = a.job_id where " + notMine + " limit 1");
        OF_OTHERS.put("/flights/{id}", "select f.id from flight f where f.pilot_id <> :me limit 1");
        OF_OTHERS.put("/api/v1/flights/{id}", "select f.id from flight f where f.pilot_id <> :me limit 1");
        OF_OTHERS.put("/papers/{id}", paper);
        OF_OTHERS.put("/crew/{id}", "select p.id from person p where p.id <> :me limit 1");
        OF_OTHERS.put("/incidents/{id}", "select i.id from incident i where i.pilot_id <> :me limit 1");
    }

    @Test
    void theRecordsOfOthersAreClosedToAPilot() throws Exception {
        HttpClient http =
                HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
        signIn(http, "pilot");
        UUID me = jdbc.sql("select person_id from app_user where login = 'pilot'")
                .query(UUID.class)
                .single();
        String token = tokens.make(((Viewer) office.loadUserByUsername("pilot")).userId(), "test", true, 1);
        Map<String, Integer> open = new TreeMap<>();
        int asked = 0;
        for (Map.Entry<String, Set<String>> e : table().entrySet()) {
            String[] line = e.getKey().split(" ");
            Optional<String> sql = OF_OTHERS.entrySet().stream()
                    .filter(o -> line[0].startsWith(o.getKey()))
                    .map(Map.Entry::getValue)
                    .findFirst();
            if (!line[1].equals("GET") || !e.getValue().contains("pilot") || sql.isEmpty()) {
                continue;
            }
            Optional<UUID> other =
                    jdbc.sql(sql.get()).param("me", me).query(UUID.class).optional();
            if (other.isEmpty()) {
                continue;
            }
            String address =
                    line[0].replaceFirst("\\{[^}]*}", other.get().toString()).replaceAll("\\{[^}]*}", me.toString());
            int status = send(http, "GET", address, "", "", address.startsWith("/api/") ? token : "");
            asked++;
            if (status != 403 && status != 404) {
                open.put(line[0], status);
            }
        }
        assertThat(asked).isGreaterThan(20);
        assertThat(open).isEmpty();
    }

    /** Signs in, and answers the token that forms of the session carry. */
    private String signIn(HttpClient http, String login) throws Exception {
        send(http, "POST", "/login", "username=" + login + "&password=" + login + "-demo", token(http, "/login"), "");
        return token(http, "/");
    }

    private String token(HttpClient http, String path) throws Exception {
        String page = http.send(
                        HttpRequest.newBuilder(URI.create(address(path))).build(), HttpResponse.BodyHandlers.ofString())
                .body();
        Matcher token = Pattern.compile("name=\"_csrf\"[^>]*value=\"([^\"]+)\"").matcher(page);
        assertThat(token.find()).isTrue();
        return token.group(1);
    }

    private int send(HttpClient http, String method, String path, String form, String csrf, String bearer)
            throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(address(path)));
        if (!bearer.isEmpty()) {
            request.header("Authorization", "Bearer " + bearer);
        }
        if (method.equals("GET")) {
            request.GET();
        } else {
            String body = form + "&_csrf=" + URLEncoder.encode(csrf, StandardCharsets.UTF_8);
            String type = path.equals("/api/v1/logs")
                    ? "multipart/form-data; boundary=b"
                    : "application/x-www-form-urlencoded";
            request.header("Content-Type", type).method(method, HttpRequest.BodyPublishers.ofString(body));
        }
        HttpResponse<Void> answer = http.send(request.build(), HttpResponse.BodyHandlers.discarding());
        boolean toSignIn = answer.statusCode() == 302
                && answer.headers().firstValue("Location").orElse("").endsWith("/login");
        return toSignIn ? 401 : answer.statusCode();
    }

    /** What the table closes is refused by the running application, before anything is looked up or read. */
    @ParameterizedTest
    @ValueSource(strings = {"pilot", "reader", "anybody"})
    void whatIsClosedIsRefused(String who) throws Exception {
        HttpClient http =
                HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
        boolean known = !who.equals("anybody");
        String csrf = known ? signIn(http, who) : token(http, "/login");
        String bearer =
                known ? tokens.make(((Viewer) office.loadUserByUsername(who)).userId(), "test of rights", true, 1) : "";
        Map<String, Integer> open = new TreeMap<>();
        int asked = 0;
        for (Map.Entry<String, Set<String>> e : table().entrySet()) {
            if (e.getValue().contains(who)) {
                continue;
            }
            String[] line = e.getKey().split(" ");
            String path = line[0].replaceAll("\\{format:[^}]*}", "csv")
                    .replaceAll("\\{code:[^}]*}", "aircraft")
                    .replaceAll("\\{[^}]*}", UUID.randomUUID().toString());
            int status = send(http, line[1], path, "", csrf, path.startsWith("/api/") ? bearer : "");
            asked++;
            if (status != (known ? 403 : 401)) {
                open.put(e.getKey(), status);
            }
        }
        assertThat(asked).isGreaterThan(80);
        assertThat(open).isEmpty();
    }

    @Test
    void everyAddressIsOpenToThoseOfTheTableAndNobodyElse() throws IOException {
        Map<String, Set<String>> is = asItIs();
        assertThat(is).containsExactlyInAnyOrderEntriesOf(table());
    }
}
