package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.office.Office;
import yarrek.app.office.Tokens;
import yarrek.app.page.Viewer;

/** The HTTP API, over real HTTP. */
class ApiTest extends RunningApp {
    @Autowired
    Office office;

    @Autowired
    Tokens tokens;

    @Autowired
    JdbcClient jdbc;

    private final HttpClient http = HttpClient.newHttpClient();
    private String manager;

    @BeforeEach
    void token() {
        manager = tokenOf("manager");
    }

    private String tokenOf(String login) {
        return tokens.make(((Viewer) office.loadUserByUsername(login)).userId(), "test", true, 1);
    }

    private HttpResponse<String> send(HttpRequest.Builder request, String token) throws Exception {
        if (token != null) {
            request.header("Authorization", "Bearer " + token);
        }
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private HttpResponse<String> post(String path, String json) throws Exception {
        return send(
                HttpRequest.newBuilder(URI.create(address(path)))
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString(json)),
                manager);
    }

    private HttpResponse<String> get(String path, String token) throws Exception {
        return send(HttpRequest.newBuilder(URI.create(address(path))), token);
    }

    private HttpResponse<String> upload(String name, byte[] content, String token) throws Exception {
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        body.write(("--XX\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + name
                        + "\"\r\nContent-Type: application/octet-stream\r\n\r\n")
                .getBytes(StandardCharsets.UTF_8));
        body.write(content);
        body.write("\r\n--XX--\r\n".getBytes(StandardCharsets.UTF_8));
        return send(
                HttpRequest.newBuilder(URI.create(address("/api/v1/logs")))
                        .header("Content-Type", "multipart/form-data; boundary=XX")
                        .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray())),
                token);
    }

    private static byte[] sample(String name) throws IOException {
        try (InputStream in = ApiTest.class.getResourceAsStream("/logs/" + name)) {
            return in.readAllBytes();
        }
    }

    private static JsonNode json(HttpResponse<String> r) {
        return JsonMapper.shared().readTree(r.body());
    }

    @Test
    void massAndClassOfABuildNeedNoRecord() throws Exception {
        JsonNode out = json(post("/api/v1/builds/mass", """
                {"parts": [{"name": "airframe", "massG": 249.0, "toleranceG": 0.5}, {"name": "card", "massG": 0.4, "toleranceG": 0}],
                 "candidates": [{"name": "filter", "massG": 1.2}]}"""));
        assertThat(out.get("takeoffMassG").asDouble()).isEqualTo(249.4);
        assertThat(out.get("massClass").get("name").asString()).isEqualTo("below 250 g");
        assertThat(out.get("massClass").get("headroomG").asDouble()).isEqualTo(0.6);
        assertThat(out.get("massClass").get("close").asBoolean()).isFalse();
        assertThat(out.get("crossings").get(0).get("names").get(0).asString()).isEqualTo("filter");
    }

    private static final String REACH = """
            {"massG":935,"makerMassG":895,"packWh":77,"minutes":34,"minutesStated":"hover","discAreaM2":0.18096,
             "dragAreaM2":0.012,"elevationM":850,"airC":4,"health":0.91,"reserve":0.25,"airSpeedMps":12,
             "windMps":%s,"windFromDeg":270}""";

    @Test
    void howFarAndBackNeedsNoRecord() throws Exception {
        HttpResponse<String> got = post("/api/v1/energy/reach", REACH.formatted("6"));
        assertThat(got.statusCode()).isEqualTo(200);
        JsonNode r = JsonMapper.builder().build().readTree(got.body());
        assertThat(r.get("bearings")).hasSize(180);
        JsonNode with = r.get("bearings").get(45);
        assertThat(with.get("bearingDeg").asDouble()).isEqualTo(90);
        assertThat(with.get("middle").get("metres").asInt()).isBetween(6860, 6880);
        assertThat(with.get("careful").get("metres").asInt())
                .isPositive()
                .isLessThan(with.get("middle").get("metres").asInt());
        assertThat(r.get("cautions")).isNotEmpty();
        assertThat(r.get("steps").toString()).contains("not fitted on own flights");
    }

    @Test
    void windStrongerThanTheAircraftIsSaidAndNotComputedPast() throws Exception {
        String body = post("/api/v1/energy/reach", REACH.formatted("14")).body();
        assertThat(body).contains("\"windTooNear\":true").doesNotContain("\"metres\":0");
        assertThat(JsonMapper.builder().build().readTree(body).get("bearings"))
                .allSatisfy(
                        b -> assertThat(b.get("middle").get("gap").asString()).isNotEmpty());
    }

    @Test
    void figuresOfAPackThatCannotBeAreRefusedWithTheirName() throws Exception {
        for (var wrong : Map.of(
                        "\"packWh\":77", "\"packWh\":0",
                        "\"health\":0.91", "\"health\":1.3",
                        "\"makerMassG\":895,", "",
                        "\"airC\":4", "\"airC\":4,\"fittedError\":-0.1",
                        "\"reserve\":0.25", "\"reserve\":0.25,\"charge\":-3",
                        "\"windFromDeg\":270", "\"windMeasured\":true",
                        "\"minutesStated\":\"hover\"", "\"minutesStated\":\"always\"")
                .entrySet()) {
            HttpResponse<String> got =
                    post("/api/v1/energy/reach", REACH.formatted("6").replace(wrong.getKey(), wrong.getValue()));
            assertThat(got.statusCode()).as(wrong.getValue()).isEqualTo(422);
            assertThat(got.body()).as(wrong.getValue()).contains("energy.invalid");
        }
    }

    @Test
    void howMinutesAreFlownWithoutTheMinutesIsAskedAboutAndNotDropped() throws Exception {
        HttpResponse<String> got = post("/api/v1/registers/models?look=true", """
                [{"maker":"Othrane","name":"Mallet","classMark":"none","remoteId":"none","airframeMass":"900 g",
                  "hasCamera":"yes","privatelyBuilt":"no","isToy":"no","minutesWh":"77"}]""");
        assertThat(got.statusCode()).isEqualTo(422);
        assertThat(got.body()).contains("say the minutes too");
    }

    @Test
    void aMassBelowZeroIsAProblemThatSaysWhat() throws Exception {
        HttpResponse<String> r = post("/api/v1/builds/mass", "{\"parts\": [{\"name\": \"airframe\", \"massG\": -5}]}");
        assertThat(r.statusCode()).isEqualTo(422);
        assertThat(r.headers().firstValue("Content-Type"))
                .hasValueSatisfying(t -> assertThat(t).startsWith("application/problem+json"));
        assertThat(json(r).get("detail").asString())
                .isEqualTo("mass of airframe must be 0 g or more, got -5.0 g; give the mass in grams, such as 12.5");
        assertThat(json(r).get("code").asString()).isEqualTo("mass.invalid");
    }

    @ParameterizedTest(name = "{0} m: {1}")
    @CsvSource({"90, MET", "120, CLOSE", "121, BREACHED"})
    void anAssessmentNeedsNoRecord(double height, String verdict) throws Exception {
        JsonNode out = json(post(
                "/api/v1/assessments",
                "{\"zone\": \"Atlantic/Azores\", \"facts\": {\"jurisdiction\": \"EU\", \"category\": \"open\", \"heightAboveSurfaceM\": "
                        + height + "}}"));
        for (JsonNode f : out.get("findings")) {
            if (f.get("ruleId").asString().equals("EU-HEIGHT-120")) {
                assertThat(f.get("verdict").asString()).isEqualTo(verdict);
            }
            if (f.get("ruleId").asString().equals("EU-ASSEMBLY")) {
                assertThat(f.get("verdict").asString()).isEqualTo("NOT_KNOWN");
            }
        }
    }

    @Test
    void flightsOfOnePlanAreJudgedTogetherAndAFindingSaysWhose() throws Exception {
        String plan = "{\"zone\": \"Atlantic/Azores\", \"facts\": {\"jurisdiction\": \"EU\", \"category\": \"open\","
                + " \"heightAboveSurfaceM\": 60}, \"flights\": [{}, {\"heightAboveSurfaceM\": 130}, {}]}";
        JsonNode high = finding(json(post("/api/v1/assessments", plan)), "EU-HEIGHT-120");
        assertThat(high.get("verdict").asString()).isEqualTo("BREACHED");
        assertThat(high.get("concerns").asString()).isEqualTo("flight 2");
        JsonNode all = finding(
                json(post("/api/v1/assessments", plan.replace("[{}, ", "[").replace(", {}]", "]"))), "EU-HEIGHT-120");
        assertThat(all.get("concerns").asString()).isEmpty();
        JsonNode unsaid = finding(json(post("/api/v1/assessments", plan.replace("130", "null"))), "EU-HEIGHT-120");
        assertThat(unsaid.get("verdict").asString()).isEqualTo("NOT_KNOWN");
        assertThat(unsaid.get("concerns").asString()).isEqualTo("flight 2");
    }

    private static JsonNode finding(JsonNode assessment, String rule) {
        for (JsonNode f : assessment.get("findings")) {
            if (f.get("ruleId").asString().equals(rule)) {
                return f;
            }
        }
        throw new AssertionError(rule);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"flights\": [null]}",
                "{\"flights\": [{\"heigth\": 3}]}",
                "{\"facts\": {\"heigth\": 3}}",
                "{\"facts\": {\"assembly\": 3}}",
                "{\"facts\": {\"classMark\": \"C9\"}}",
                "{\"windows\": [{\"start\": \"2027-03-14T10:00:00Z\", \"end\": \"2027-03-14T09:00:00Z\"}]}",
                "{\"zone\": \"Nowhere/Land\"}"
            })
    void whatIsNotUnderstoodIsAProblemAndNeverIgnored(String body) throws Exception {
        HttpResponse<String> r = post("/api/v1/assessments", body);
        assertThat(r.statusCode()).isEqualTo(422);
        assertThat(json(r).get("code").asString()).startsWith("facts.");
    }

    @Test
    void aLogGivesItsFlightWithFindingsAndTheSameFileIsRecognised() throws Exception {
        JsonNode first = json(upload("distance-breach.csv", sample("distance-breach.csv"), manager));
        assertThat(first.get("alreadyThere").asBoolean()).isFalse();
        JsonNode flight = first.get("flights").get(0);
        assertThat(flight.get("figures").get("greatestDistanceM").asDouble()).isCloseTo(616.57, within(0.32));
        assertThat(flight.get("assessment").toString()).contains("HOUSE-PILOT-DISTANCE");
        HttpResponse<String> again = upload("another-name.csv", sample("distance-breach.csv"), manager);
        assertThat(again.statusCode()).isEqualTo(200);
        assertThat(json(again).get("alreadyThere").asBoolean()).isTrue();
        assertThat(json(again).get("flights").get(0).get("id")).isEqualTo(flight.get("id"));
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"malformed/entity-bomb.gpx, gpx.doctype", "malformed/external-entity.gpx, gpx.doctype"})
    void hostileFilesAreRefusedAndNothingIsStored(String name, String code) throws Exception {
        long before =
                jdbc.sql("select count(*) from flight_log").query(Long.class).single();
        HttpResponse<String> r = upload("hostile.gpx", sample(name), manager);
        assertThat(r.statusCode()).isEqualTo(422);
        assertThat(json(r).get("code").asString()).isEqualTo(code);
        assertThat(r.body()).doesNotContain("CANARY");
        assertThat(jdbc.sql("select count(*) from flight_log").query(Long.class).single())
                .isEqualTo(before);
    }

    @Test
    void withoutATokenNothingIsSaid() throws Exception {
        assertThat(get("/api/v1/papers", null).statusCode()).isEqualTo(401);
        assertThat(get("/api/v1/papers", "yrk_wrong").statusCode()).isEqualTo(401);
    }

    @Test
    void aReaderBringsNothingInAndAPilotSeesOnlyTheirPapers() throws Exception {
        assertThat(upload("x.gpx", sample("orbit.gpx"), tokenOf("reader")).statusCode())
                .isEqualTo(403);
        JsonNode all = json(get("/api/v1/papers", manager));
        JsonNode own = json(get("/api/v1/papers", tokenOf("pilot")));
        assertThat(own.size()).isBetween(1, all.size() - 1);
        String pilot = jdbc.sql("select person_id from app_user where login = 'pilot'")
                .query(String.class)
                .single();
        own.forEach(p -> assertThat(p.get("holderId").asString()).isEqualTo(pilot));
    }

    @Test
    void theApiIsDescribed() throws Exception {
        JsonNode doc = json(get("/api/v1/openapi.json", null));
        assertThat(doc.get("openapi").asString()).startsWith("3.1");
        assertThat(doc.get("paths").propertyNames())
                .contains("/api/v1/builds/mass", "/api/v1/assessments", "/api/v1/logs", "/api/v1/papers");
    }

    private static final String HIGH = """
            {"zone": "Atlantic/Azores", "facts": {"jurisdiction": "EU", "category": "open", "subcategory": "A3",
             "heightAboveSurfaceM": 110}, "windows": [{"start": "2027-03-14T10:00:00-01:00", "end": "2027-03-14T12:00:00-01:00"}]}""";

    @Test
    void lookingAheadWithoutARecord() throws Exception {
        JsonNode ahead = JsonMapper.shared()
                .readTree(post(
                                "/api/v1/assessments/what-if",
                                "{\"given\": " + HIGH + ", \"changes\": {\"heightAboveSurfaceM\": 130}}")
                        .body());
        assertThat(ahead.path("appear").findValuesAsString("says"))
                .anyMatch(s -> s.contains("130 m, at most 120 m: 10 m beyond"));
        JsonNode remedies = JsonMapper.shared()
                .readTree(post("/api/v1/assessments/remedies", HIGH.replace("110", "130"))
                        .body());
        assertThat(remedies.findValuesAsString("words")).anyMatch(s -> s.contains("120"));
        JsonNode open = JsonMapper.shared()
                .readTree(post("/api/v1/operations?law=EU", HIGH).body());
        assertThat(open.findValuesAsString("id")).isNotEmpty();
        assertThat(JsonMapper.shared()
                        .readTree(get("/api/v1/rules?law=CA", manager).body())
                        .size())
                .isGreaterThan(100);
        assertThat(get("/api/v1/rules?law=ZZ", manager).body()).contains("there is one for AU, CA, EU");
        assertThat(post("/api/v1/assessments/what-if", "{\"given\": " + HIGH + "}")
                        .statusCode())
                .isEqualTo(422);
    }

    @Test
    void sitesAndWhatAPlanMeetsAtThemAreTold() throws Exception {
        JsonNode all = JsonMapper.shared()
                .readTree(send(HttpRequest.newBuilder(URI.create(address("/api/v1/sites"))), manager)
                        .body());
        JsonNode wall = null;
        for (JsonNode s : all) {
            wall = s.get("name").asString().equals("Harbour wall") ? s : wall;
        }
        assertThat(wall.get("areaM2").doubleValue()).isCloseTo(223_610, within(1.0));
        String zones = "/api/v1/sites/" + wall.get("id").asString() + "/zones?heightM=";
        JsonNode look = JsonMapper.shared()
                .readTree(send(HttpRequest.newBuilder(URI.create(address(zones + "90&day=2027-06-12"))), manager)
                        .body());
        assertThat(look.get("freshness").asString()).isEqualTo("current");
        assertThat(look.get("zones").get(0).get("name").asString()).isEqualTo("Port Tarrow harbour");
        assertThat(look.get("zones").get(0).get("stands").asString()).isEqualTo("binds");
        HttpResponse<String> wrong = send(HttpRequest.newBuilder(URI.create(address(zones + "-1"))), manager);
        assertThat(wrong.statusCode()).isEqualTo(422);
        assertThat(wrong.body()).contains("must be 0 to 10000 m above ground, got -1.0");
    }

    private String levels() {
        return "/api/v1/jobs/"
                + jdbc.sql("select id from job where name = 'Field edge, drainage levels'")
                        .query(String.class)
                        .single();
    }

    @Test
    void theChainOfAJobIsGivenInTimeAndMovesWithItsFirstDay() throws Exception {
        JsonNode chain = json(get(levels() + "/chain", manager));
        assertThat(chain.get("trouble").asString()).isEmpty();
        assertThat(chain.get("steps").size()).isEqualTo(6);
        JsonNode unlock = step(chain, "unlock#3");
        assertThat(unlock.get("needs").get(0).asString()).isEqualTo("zoneEU@TAR-AD#3");
        assertThat(unlock.get("known").asBoolean()).isTrue();
        assertThat(step(chain, "zoneEU@TAR-AD#1").get("state").asString()).isEqualTo("granted");
        java.time.LocalDate later = java.time.LocalDate.parse(
                        step(chain, "unlock#1").get("firstDay").asString())
                .plusDays(7);
        JsonNode moved = json(get(levels() + "/chain?firstDay=" + later, manager));
        assertThat(step(moved, "unlock#3").get("slackDays").asLong())
                .isEqualTo(unlock.get("slackDays").asLong() + 7);
    }

    private static JsonNode step(JsonNode chain, String id) {
        for (JsonNode s : chain.get("steps")) {
            if (s.get("id").asString().equals(id)) {
                return s;
            }
        }
        throw new AssertionError("no step " + id + " in " + chain);
    }

    @Test
    void theCoverOfAJobSaysWhatIsMissingOnEachDay() throws Exception {
        JsonNode cover = json(get(levels() + "/cover", manager));
        assertThat(cover.size()).isEqualTo(3);
        assertThat(cover.get(0).get("standing").asString()).isEqualTo("not covered");
        assertThat(cover.get(0).get("papers").get("TAR-2290").asString())
                .contains("ceiling: 15 m above its ceiling of 50 m");
        assertThat(cover.get(1).get("papers").get("TAR-2290").asString()).isEqualTo("for other days");
        assertThat(cover.get(1).get("gaps").get(0).asString())
                .isEqualTo("controlled airspace permission, Tarrow Field, 2 of 3");
    }

    @Test
    void aPilotIsNotToldTheChainOfAnothersJob() throws Exception {
        String others = jdbc.sql("select id from job where name = 'Field edge drainage'")
                .query(String.class)
                .single();
        assertThat(get("/api/v1/jobs/" + others + "/chain", tokenOf("pilot")).statusCode())
                .isEqualTo(403);
    }

    /** The simulated desk, spoken to as any program would. */
    @Test
    void theSimulatedDeskKnowsARequestByItsKey() throws Exception {
        String body = """
                {"from": "2027-06-14T08:00:00Z", "to": "2027-06-14T12:00:00Z", "area": "circle 46.6, -17.9 radius 200 m", "ceilingM": 0}""";
        HttpResponse<String> first = desk(body, "key-of-a-test");
        assertThat(json(first).get("state").asString()).isEqualTo("granted");
        assertThat(json(first).get("simulated").asBoolean()).isTrue();
        assertThat(desk(body, "key-of-a-test").body()).isEqualTo(first.body());
        assertThat(json(desk(body, "another-key-of-a-test")).get("number").asString())
                .isNotEqualTo(json(first).get("number").asString());
    }

    private HttpResponse<String> desk(String body, String key) throws Exception {
        HttpRequest.Builder b = HttpRequest.newBuilder(URI.create(address("/stand-ins/air-desk/requests")))
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(body));
        return send(key.isEmpty() ? b : b.header("Idempotency-Key", key), null);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"to\": \"2027-06-14T12:00:00Z\", \"area\": \"circle 46.6, -17.9 radius 200 m\", \"ceilingM\": 9} | from: this is needed",
                "{\"from\": \"tomorrow\", \"to\": \"2027-06-14T12:00:00Z\", \"area\": \"x\", \"ceilingM\": 9} | UTC times such as",
                "{\"from\": \"2027-06-14T08:00:00Z\", \"to\": \"2027-06-14T12:00:00Z\", \"area\": \"circle 46.6, -17.9 radius 200 m\"} | ceilingM: a number",
                "not JSON | Unrecognized"
            })
    void theSimulatedDeskRefusesWhatItCannotRead(String body, String says) throws Exception {
        HttpResponse<String> r = desk(body, "broken-" + body.hashCode());
        assertThat(r.statusCode()).isEqualTo(422);
        assertThat(r.body()).contains(says);
    }

    @Test
    void theSimulatedDeskNeedsAKeyAndOneDayARequest() throws Exception {
        assertThat(desk("{}", "").statusCode()).isEqualTo(422);
        JsonNode two = json(desk("""
                {"from": "2027-06-14T08:00:00Z", "to": "2027-06-15T12:00:00Z", "area": "circle 46.6, -17.9 radius 200 m", "ceilingM": 0}""", "two-days"));
        assertThat(two.get("state").asString()).isEqualTo("refused");
        assertThat(two.get("reason").asString()).contains("one request covers one day");
    }

    // --- nonsense is refused with words ------------------------------------------------------------------------------

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"facts\":{\"takeoffMassG\":-1}} | Take-off mass",
                "{\"facts\":{\"takeoffMassG\":0}} | Take-off mass",
                "{\"facts\":{\"heightAboveSurfaceM\":-5}} | Height above the closest surface",
                "{\"facts\":{\"weather.windMps\":-9}} | Wind",
                "{\"facts\":{\"pilot.ageYears\":400}} | Pilot's age is 0 to 120 years",
                "{\"facts\":{\"pilot.bloodAlcoholPct\":250}} | Blood alcohol",
                "{\"facts\":{\"batteryPct\":400}} | Charge left",
                "{\"facts\":{\"marketDate\":\"2099-01-01\"}} | First placed on the market",
                "{\"facts\":{\"marketDate\":\"1066-10-14\"}} | First placed on the market",
                "{\"facts\":{\"heightAboveSurfaceM\":{\"value\":60,\"unit\":\"ft\"}}} | is in m, not in",
                "{\"facts\":{\"heightAboveSurfaceM\":{\"value\":119,\"uncertainity\":20}}} | no member 'uncertainity'",
                "{\"facts\":{\"heightAboveSurfaceM\":{\"value\":119,\"uncertainty\":-2}}} | heightAboveSurfaceM must be",
                "{\"facts\":{\"lights\":[{\"a\":1}]}} | lights must be",
                "{\"factz\":{}} | no member 'factz'",
                "{\"windows\":[null]} | member 1 of windows is null",
                "{\"windows\":[{\"start\":\"0001-01-01T00:00:00Z\",\"end\":\"9999-01-01T00:00:00Z\"}]} | between 1990 and 2200",
                "{\"windows\":[{\"start\":\"2027-01-01T00:00:00Z\",\"end\":\"2027-03-03T00:00:00Z\"}]} | no longer than a job may be",
                "{\"windows\":[{\"start\":\"2027-01-01T00:00:00Z\",\"end\":\"2027-01-01T01:00:00Z\",\"x\":1}]} | no member 'x'",
                "{\"papers\":[null]} | member 1 of papers is null",
                "{\"papers\":[{\"of\":\"pilot\"}]} | no kind of paper called 'null'",
                "{\"papers\":[{\"kind\":\"licence\",\"of\":\"pilot\"}]} | no kind of paper called 'licence'",
                "{\"papers\":[{\"kind\":\"pilotCertificate\",\"of\":\"cook\"}]} | whose it is",
                "{\"zones\":[null]} | member 1 of zones is null",
                "{\"approvals\":[null]} | member 1 of approvals is null",
                "{\"approvals\":[{\"lifts\":[\"EU-HEIGHT-120\"]}]} | needs its reference",
                "{\"approvals\":[{\"reference\":\"A\",\"lifts\":[null]}]} | member 1 of lifts is null",
                "{\"approvals\":[{\"reference\":\"A\",\"lifts\":[\"EU-NONSENSE\"]}]} | no rule with the id EU-NONSENSE"
            })
    void nonsenseIsRefusedWithWords(String body, String says) throws Exception {
        HttpResponse<String> r = post("/api/v1/assessments", body);
        assertThat(r.statusCode()).isEqualTo(422);
        assertThat(json(r).get("detail").asString()).contains(says);
    }

    @Test
    void anUnitThatIsTheFactsOwnIsTakenAndItsUncertaintyKept() throws Exception {
        JsonNode a = json(post(
                "/api/v1/assessments",
                "{\"facts\":{\"jurisdiction\":\"EU-XT\",\"category\":\"open\",\"structure.artificial\":false,"
                        + "\"heightAboveSurfaceM\":{\"value\":119,\"uncertainty\":20,\"unit\":\"m\"}}}"));
        assertThat(verdict(a, "EU-HEIGHT-120")).isEqualTo("CLOSE");
    }

    @Test
    void anApprovalDoesNotLiftWhatNothingLifts() throws Exception {
        JsonNode a = json(
                post(
                        "/api/v1/assessments",
                        "{\"facts\":{\"jurisdiction\":\"US\",\"purpose\":\"work\",\"pilot.hoursSinceAlcohol\":1,"
                                + "\"pilot.bloodAlcoholPct\":0},\"approvals\":[{\"reference\":\"A-1\",\"lifts\":[\"US-ALC-01\"]}]}"));
        assertThat(verdict(a, "US-ALC-01")).isEqualTo("BREACHED");
    }

    @Test
    void operationsAreThoseOfTheLawThatIsSaid() throws Exception {
        assertThat(post("/api/v1/operations", "{\"facts\":{\"jurisdiction\":\"CA\",\"takeoffMassG\":200}}")
                        .body())
                .contains("CA-MICRO");
        assertThat(post("/api/v1/operations", "{\"facts\":{\"takeoffMassG\":200}}")
                        .statusCode())
                .isEqualTo(422);
    }

    private static String verdict(JsonNode assessment, String rule) {
        for (JsonNode f : assessment.get("findings")) {
            if (f.get("ruleId").asString().equals(rule)) {
                return f.get("verdict").asString();
            }
        }
        throw new AssertionError("no finding of " + rule);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "pack-models",
                "models",
                "aircraft",
                "packs",
                "accessories",
                "builds",
                "crew",
                "papers",
                "sites",
                "site-things",
                "directory",
                "granters",
                "jobs"
            })
    void aRegisterHandedOutComesInAgainAsItIs(String register) throws Exception {
        String records = get("/api/v1/registers/" + register, manager).body();
        assertThat(JsonMapper.shared().readTree(records)).isNotEmpty();
        HttpResponse<String> looked = post("/api/v1/registers/" + register + "?look=true", records);
        assertThat(looked.statusCode()).as(looked.body()).isEqualTo(200);
        assertThat(JsonMapper.shared().readTree(looked.body()).valueStream())
                .allSatisfy(l -> assertThat(l.path("outcome").asString())
                        .as(l.toString())
                        .isEqualTo("SAME"));
    }

    @Test
    void whatIsAskedOfAPlanIsSaidByTheApiToo() throws Exception {
        String job = """
                [{"name": "Levels by wire", "siteId": "Field edge", "firstDay": "2027-03-14", "from": "9:30", "to": "11:00",
                  "heightReference": "GROUND", "height": "200 ft", "sight": "VLOS", "weather.windMps": "12 kn"}]""";
        HttpResponse<String> stored = post("/api/v1/registers/jobs", job);
        assertThat(stored.statusCode()).as(stored.body()).isEqualTo(200);
        assertThat(stored.body()).contains("\"outcome\":\"NEW\"");
        JsonNode back = JsonMapper.shared()
                .readTree(get("/api/v1/registers/jobs", manager).body())
                .valueStream()
                .filter(j -> j.path("name").asString().equals("Levels by wire"))
                .findFirst()
                .orElseThrow();
        assertThat(back.path("sight").asString()).isEqualTo("VLOS");
        assertThat(back.path("height").asString()).isEqualTo("60.96 m");
        String later = "[{\"name\": \"Levels by wire\", \"assembly\": \"no\"}]";
        assertThat(post("/api/v1/registers/jobs", later).body()).contains("\"outcome\":\"CHANGED\"");
        assertThat(post("/api/v1/registers/jobs", later).body()).contains("\"outcome\":\"SAME\"");
        jdbc.sql("update job set state = 'CANCELLED' where name = 'Levels by wire'")
                .update();
    }

    @Test
    void oneWrongRecordKeepsAllOfThemOut() throws Exception {
        HttpResponse<String> answer = post("/api/v1/registers/crew", """
                [{"name": "Somebody New", "bornOn": "1990-02-03"}, {"name": "Nobody Yet", "bornOn": "2990-02-03"}]""");
        assertThat(answer.statusCode()).isEqualTo(422);
        assertThat(answer.body()).contains("that day is still to come");
        assertThat(get("/api/v1/registers/crew", manager).body()).doesNotContain("Somebody New");
        HttpResponse<String> field = post("/api/v1/registers/crew", "[{\"name\": \"X\", \"born\": \"1990-02-03\"}]");
        assertThat(field.statusCode()).isEqualTo(422);
        assertThat(field.body()).contains("“born” is no field of crew").contains("bornOn");
        assertThat(get("/api/v1/registers/nothing", manager).statusCode()).isEqualTo(404);
    }
}
