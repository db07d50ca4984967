package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.office.Office;
import yarrek.app.office.Tokens;
import yarrek.app.page.Viewer;

/** Packs over the interface for programs, over real HTTP. */
class PacksApiTest extends RunningApp {
    @Autowired
    Office office;

    @Autowired
    Tokens tokens;

    private final HttpClient http = HttpClient.newHttpClient();

    private HttpResponse<String> post(String path, String json) throws Exception {
        String token = tokens.make(((Viewer) office.loadUserByUsername("reader")).userId(), "test", true, 1);
        return http.send(
                HttpRequest.newBuilder(URI.create(address("/api/v1/packs/" + path)))
                        .header("Content-Type", "application/json")
                        .header("Authorization", "Bearer " + token)
                        .POST(HttpRequest.BodyPublishers.ofString(json))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private JsonNode answered(String path, String json) throws Exception {
        HttpResponse<String> r = post(path, json);
        assertThat(r.statusCode()).as(r.body()).isEqualTo(200);
        return JsonMapper.shared().readTree(r.body());
    }

    private static final String MEASURED = """
            {"designMah":5000,"cycles":120,"monthlyCycles":[8,9,10],"firstUse":"2026-01-10","measured":[
              {"on":"2026-02-01","mah":3750,"before":0.95,"after":0.20},
              {"on":"2026-03-01","mah":3700,"before":0.95,"after":0.20},
              {"on":"2026-04-01","mah":3655,"before":0.95,"after":0.20},
              {"on":"2026-05-01","mah":3600,"before":0.95,"after":0.20},
              {"on":"2026-06-01","mah":1000,"before":0.95,"after":0.70}]}""";

    @Test
    void healthOverTimeSaysWhereItGoesAndWhatWasNotUsed() throws Exception {
        JsonNode r = answered("health", MEASURED);
        assertThat(r.get("measured").get(0).get("health").asDouble()).isEqualTo(1.0);
        assertThat(r.get("measured").get(4).get("health").isNull()).isTrue();
        assertThat(r.get("measured").get(4).get("why").asString())
                .isEqualTo("only 25 % of the charge passed; 40 % are needed");
        JsonNode trend = r.get("trend");
        assertThat(trend.get("measured").asInt()).isEqualTo(4);
        assertThat(trend.get("perYear").asDouble())
                .isBetween(trend.get("low").asDouble(), trend.get("high").asDouble());
        assertThat(trend.get("high").asDouble()).isNegative();
        assertThat(r.get("retire").asString()).contains("(health)").contains(", between ");
        assertThat(r.get("cautions").toString()).contains("A swollen, dropped, wet or hot pack is out");
        assertThat(r.get("notKnown").toString()).contains("measurements of its cells at rest");
    }

    @Test
    void theBestPackFliesEachFlightAndWhyThereIsNoneIsSaid() throws Exception {
        String packs = """
                {"flightsMin":[%s],"packs":[{"label":"K1","cycles":40,"minutes":24},{"label":"K2","cycles":120,"minutes":22},
                 {"label":"K3","cycles":20,"minutes":25,"barred":"quarantined"}]}""";
        assertThat(answered("rotation", packs.formatted("10, 20")).get("packs").toString())
                .isEqualTo("[\"K2\",\"K1\"]");
        JsonNode none = answered("rotation", packs.formatted("23, 23"));
        assertThat(none.get("packs")).isEmpty();
        assertThat(none.get("refused").toString())
                .contains("flight 1 of 23 min: one pack lasts so long", "K3: quarantined");
    }

    private static final String CHARGE = """
            {"from":"2026-06-01T04:00:00Z","readyBy":"2026-06-01T07:00:00Z",
             "chargers":[{"name":"row","places":2,"watts":120}],
             "packs":[{"label":"K1","wh":70,"hours":1.2,"from":0.2},{"label":"K2","wh":70,"hours":1.2,"from":0.5}]}""";

    @Test
    void packsArePluggedInSoThatAllAreReadyAtTheHour() throws Exception {
        JsonNode r = answered("charge-plan", CHARGE);
        assertThat(r.get("verdict").asString()).isEqualTo("both are ready by the hour");
        assertThat(r.get("cautions").toString()).contains("Charging is attended");
        assertThat(r.get("plugged").get(0).get("in").asString()).isEqualTo("2026-06-01T05:55:00Z");
        assertThat(r.get("plugged").get(1).get("full").asString())
                .isBetween("2026-06-01T06:55:00Z", "2026-06-01T07:00:00Z");
        assertThat(answered("charge-plan", CHARGE.replace("07:00", "04:30"))
                        .get("verdict")
                        .asString())
                .startsWith("0 of 2 are ready by the hour");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            charge-plan | "wh":70            | "wh":0           | above 0
            charge-plan | "from":0.2         | "from":-3        | charges lie from 0 to 1
            charge-plan | "watts":120        | "watts":0        | more than 0 W
            charge-plan | "places":2         | "places":9999999 | 1 to 60 places
            charge-plan | "readyBy":"2026-06 | "readyBy":"2025-06 | before now
            charge-plan | "label":"K1",      |                  | label is missing
            health      | "designMah":5000,  |                  | designMah is missing
            health      | "cycles":120       | "cycles":-1      | 0 or more
            health      | [8,9,10]           | [8,null]         | monthlyCycles is missing
            health      | "on":"2026-02-01", |                  | on is missing
            """)
    void whatCannotBeIsRefusedWithItsName(String path, String was, String is, String says) throws Exception {
        String body = (path.equals("health") ? MEASURED : CHARGE).replace(was, is == null ? "" : is);
        HttpResponse<String> r = post(path, body);
        assertThat(r.statusCode()).as(r.body()).isEqualTo(422);
        assertThat(r.body()).contains("pack.invalid").contains(says);
    }
}
