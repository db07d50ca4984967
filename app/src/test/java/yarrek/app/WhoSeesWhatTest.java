package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.security.access.AccessDeniedException;
import yarrek.app.crew.Crew;
import yarrek.app.documents.Documents;
import yarrek.app.flights.Flights;
import yarrek.app.flights.Logs;
import yarrek.app.incidents.Incidents;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.office.Tokens;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;

/** What a pilot sees and writes of others: what they crew, and nothing else. */
class WhoSeesWhatTest extends OnJobs {
    private static int made;

    @Autowired
    Office office;

    @Autowired
    Tokens tokens;

    @Autowired
    Logs logs;

    @Autowired
    Crew crew;

    @Autowired
    Incidents incidents;

    @Autowired
    Documents documents;

    private Viewer pilot;
    private Viewer manager;

    @BeforeEach
    void people() {
        pilot = (Viewer) office.loadUserByUsername("pilot");
        manager = (Viewer) office.loadUserByUsername("manager");
    }

    private Visitor as(String login) throws Exception {
        Visitor v = new Visitor(this::address);
        v.signIn(login, login + "-demo");
        return v;
    }

    /** A job that the pilot of the sample world does not crew. */
    private UUID foreign() {
        return jdbc.sql("select id from job where state <> 'CANCELLED' and (pilot_id is null or pilot_id <> ?)"
                        + " and (observer_id is null or observer_id <> ?) limit 1")
                .params(pilot.personId(), pilot.personId())
                .query(UUID.class)
                .single();
    }

    private long flightsOn(UUID job) {
        return jdbc.sql("select count(*) from flight where job_id = ?")
                .param(job)
                .query(Long.class)
                .single();
    }

    // --- flights -----------------------------------------------------------------------------------------------------

    @Test
    void aFlightIsNotCountedToAJobOfOthers() throws Exception {
        Map<String, Object> mine = jdbc.sql(
                        "select id, version, aircraft_id from flight where pilot_id = ? and aircraft_id is not null"
                                + " order by takeoff limit 1")
                .param(pilot.personId())
                .query()
                .singleRow();
        UUID foreign = foreign();
        long before = flightsOn(foreign);
        HttpResponse<String> answer = as("pilot")
                .post(
                        "/flights/" + mine.get("id") + "/attribution",
                        Map.of(
                                "version",
                                mine.get("version").toString(),
                                "aircraftId",
                                mine.get("aircraft_id").toString(),
                                "jobId",
                                foreign.toString()));
        assertThat(answer.statusCode()).isEqualTo(403);
        assertThat(flightsOn(foreign)).isEqualTo(before);
        assertThat(as("pilot").get("/flights/" + mine.get("id")).body()).doesNotContain(foreign.toString());
    }

    /** A file that waits for its columns to be matched is the manager's and of whoever sent it. */
    @Test
    void aFileThatWaitsIsNotForOthers() throws Exception {
        byte[] table = "when it was;how high;where\n1;2;3\n2;3;4\n".getBytes(StandardCharsets.UTF_8);
        UUID theirs = logs.bringIn("theirs.csv", table, new Flights.Attribution(null, null, null, null), manager)
                .uploadId();
        UUID own = logs.bringIn("own.csv", table, new Flights.Attribution(null, null, pilot.personId(), null), pilot)
                .uploadId();
        Visitor v = as("pilot");
        assertThat(v.get("/flights/match/" + theirs).statusCode()).isEqualTo(404);
        assertThat(v.post("/flights/match/" + theirs, Map.of("role0", "TIME")).statusCode())
                .isEqualTo(404);
        assertThat(v.get("/flights/match/" + own).statusCode()).isEqualTo(200);
        assertThat(as("manager").get("/flights/match/" + own).statusCode()).isEqualTo(200);
        assertThat(as("reader").get("/flights/match/" + own).statusCode()).isEqualTo(404);
    }

    /** A minute in the air at a place and time of its own. */
    private static byte[] track() {
        StringBuilder s = new StringBuilder("<gpx version=\"1.1\" creator=\"t\"><trk><trkseg>");
        Instant start = Instant.parse("2026-03-01T10:00:00Z").plusSeconds(3600L * ++made);
        for (int i = 0; i < 90; i++) {
            double up = i < 10 ? 0 : i < 80 ? 30 : 0;
            s.append("<trkpt lat=\"")
                    .append(46.7 + i * 1e-5)
                    .append("\" lon=\"-17.7\"><ele>")
                    .append(10 + up)
                    .append("</ele><time>")
                    .append(start.plusSeconds(i))
                    .append("</time></trkpt>");
        }
        return s.append("</trkseg></trk></gpx>").toString().getBytes(StandardCharsets.UTF_8);
    }

    private HttpResponse<String> upload(byte[] track, String query, Viewer by) throws Exception {
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        body.writeBytes("--b\r\nContent-Disposition: form-data; name=\"file\"; filename=\"t.gpx\"\r\n\r\n"
                .getBytes(StandardCharsets.US_ASCII));
        body.writeBytes(track);
        body.writeBytes("\r\n--b--\r\n".getBytes(StandardCharsets.US_ASCII));
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address("/api/v1/logs" + query)))
                                .header("Authorization", "Bearer " + tokens.make(by.userId(), "logs", true, 1))
                                .header("Content-Type", "multipart/form-data; boundary=b")
                                .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray()))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }

    private long logs() {
        return jdbc.sql("select count(*) from flight_log").query(Long.class).single();
    }

    @Test
    void aLogForAJobOfOthersIsRefusedBeforeItIsStored() throws Exception {
        long before = logs();
        assertThat(upload(track(), "?jobId=" + foreign(), pilot).statusCode()).isEqualTo(403);
        assertThat(logs()).isEqualTo(before);
        byte[] track = track();
        assertThat(upload(track, "", pilot).statusCode()).isEqualTo(201);
        assertThat(upload(track, "", pilot).statusCode()).as("the same again").isEqualTo(200);
        assertThat(logs()).isEqualTo(before + 1);
    }

    /** A login from before a pilot's had to belong to somebody. */
    @Test
    void aPilotsLoginOfNobodyStoresNothing() throws Exception {
        UUID id = office.createUser("nobodys" + ++made, "Nobody", "heron quarry lantern", Viewer.Role.READER, null);
        jdbc.sql("update app_user set role = 'PILOT' where id = ?").param(id).update();
        long before = logs();
        assertThat(upload(track(), "", office.viewer(id).orElseThrow()).statusCode())
                .isEqualTo(403);
        assertThat(logs()).isEqualTo(before);
        office.setEnabled(id, false);
    }

    @Test
    void theSameFileOfSomebodyElseIsThereAlreadyAndTellsNothingOfThem() throws Exception {
        byte[] track = track();
        UUID other = jdbc.sql("select id from person where id <> ? limit 1")
                .param(pilot.personId())
                .query(UUID.class)
                .single();
        assertThat(upload(track, "?pilotId=" + other, manager).statusCode()).isEqualTo(201);
        HttpResponse<String> again = upload(track, "", pilot);
        assertThat(again.statusCode()).isEqualTo(409);
        assertThat(again.body())
                .contains("log.already")
                .doesNotContain(crew.person(other).name());
    }

    @Test
    void aRequestForAFileWithoutOneIsToldSo() throws Exception {
        HttpResponse<String> answer = as("manager").post("/flights/logs", Map.of());
        assertThat(answer.statusCode()).isEqualTo(400);
        assertThat(answer.body()).contains("The request carries no file");
    }

    // --- papers ------------------------------------------------------------------------------------------------------

    /** A paper like one of the sample world, of another holder. */
    private UUID paperOf(String holderKind, UUID holder) {
        Map<String, Object> like = new LinkedHashMap<>(jdbc.sql("select * from paper where holder_kind = ? limit 1")
                .param(holderKind)
                .query()
                .singleRow());
        UUID id = UUID.randomUUID();
        like.putAll(Map.of("id", id, "holder_id", holder, "number", "T-" + ++made, "jurisdiction", ""));
        jdbc.sql("insert into paper (" + String.join(", ", like.keySet()) + ") values ("
                        + String.join(", ", Collections.nCopies(like.size(), "?")) + ")")
                .params(new ArrayList<>(like.values()))
                .update();
        changedByAnotherNode(jdbc, "papers");
        return id;
    }

    private void shown(UUID paper, boolean shown) {
        jdbc.sql("update paper_kind set shown_to_officials = ? where code = (select kind from paper where id = ?)")
                .params(shown, paper)
                .update();
        changedByAnotherNode(jdbc, "paper kinds");
    }

    @Test
    void aColleaguesPapersAreSeenAsFarAsTheyAreShownOnTheJobOfBoth() throws Exception {
        UUID colleague = crew.save(null, -1, "Test Colleague " + ++made, null, "");
        UUID stranger = crew.save(null, -1, "Test Stranger " + made, null, "");
        Jobs.JobView job = job(1, 40);
        jdbc.sql("update job set pilot_id = ?, observer_id = ? where id = ?")
                .params(pilot.personId(), colleague, job.id())
                .update();
        UUID shown = paperOf("pilot", colleague);
        UUID strangers = paperOf("pilot", stranger);
        shown(shown, true);
        Visitor v = as("pilot");
        assertThat(v.get("/papers/" + shown).statusCode()).isEqualTo(200);
        assertThat(v.get("/papers/" + strangers).statusCode()).isEqualTo(403);
        shown(shown, false);
        assertThat(v.get("/papers/" + shown).statusCode())
                .as("a kind that nobody shows")
                .isEqualTo(403);
        shown(shown, true);
        jdbc.sql("update job set first_day = ?, last_day = ? where id = ?")
                .params(
                        LocalDate.now(java.time.ZoneOffset.UTC).minusDays(9),
                        LocalDate.now(java.time.ZoneOffset.UTC).minusDays(3),
                        job.id())
                .update();
        assertThat(v.get("/papers/" + shown).statusCode()).as("the job is over").isEqualTo(403);
    }

    @Test
    void papersOfAJobAreForItsCrew() throws Exception {
        UUID foreign = paperOf("job", foreign());
        UUID own = paperOf(
                "job",
                jdbc.sql("select id from job where pilot_id = ? limit 1")
                        .param(pilot.personId())
                        .query(UUID.class)
                        .single());
        Visitor v = as("pilot");
        assertThat(v.get("/papers/" + foreign).statusCode()).isEqualTo(403);
        assertThat(v.get("/papers/" + own).statusCode()).isEqualTo(200);
    }

    @Test
    void namesOfJobsOfOthersStandNowhere() throws Exception {
        String name = jobs.jobUnchecked(foreign()).draft().name();
        Visitor v = as("pilot");
        for (String page : List.of("/rulebook/own", "/rulebook/own/new", "/jobs", "/")) {
            assertThat(v.get(page).body()).as(page).doesNotContain(name);
        }
        assertThat(v.get("/notices/mailbox").statusCode()).isEqualTo(403);
    }

    // --- incidents ---------------------------------------------------------------------------------------------------

    /** Two pilots of one name are two. */
    @Test
    void anIncidentBelongsToTheLoginThatOpenedIt() {
        UUID person = crew.save(null, -1, "Namesake " + ++made, null, "");
        UUID id =
                office.createUser("namesake" + ++made, pilot.name(), "heron quarry lantern", Viewer.Role.PILOT, person);
        Viewer namesake = office.viewer(id).orElseThrow();
        UUID incident = incidents.save(
                new Incidents.View(
                        null,
                        -1,
                        "NEAR_MISS",
                        "close to a gull",
                        Instant.parse("2026-11-01T10:00:00Z"),
                        null,
                        null,
                        null,
                        null,
                        "",
                        "",
                        "OPEN",
                        null,
                        null,
                        Incidents.About.NOTHING),
                pilot);
        assertThat(incidents.incident(incident, pilot).statement()).isEqualTo("close to a gull");
        assertThatThrownBy(() -> incidents.incident(incident, namesake)).isInstanceOf(NotFoundException.class);
        assertThat(incidents.all(namesake)).noneMatch(i -> i.id().equals(incident));
        assertThat(incidents.incident(incident, manager).openedBy()).isEqualTo(pilot.name());
        jdbc.sql("delete from incident where id = ?").param(incident).update();
        office.setEnabled(id, false);
    }

    // --- check links -------------------------------------------------------------------------------------------------

    @Test
    void aCheckLinkIsMadeByAskingForItAndStaysTakenBack() throws Exception {
        Jobs.JobView job = job(1, 40);
        jdbc.sql("update job set pilot_id = ? where id = ?")
                .params(pilot.personId(), job.id())
                .update();
        String page = "/field/documents/" + job.id() + "/" + pilot.personId();
        Visitor v = as("pilot");
        Visitor reader = as("reader");
        Visitor anybody = new Visitor(this::address);
        v.get(page);
        reader.get(page);
        reader.get(page + ".pdf");
        assertThat(documents.checkLink(job.id(), pilot.personId()).token())
                .as("looking makes none")
                .isEmpty();
        assertThat(reader.post(page + "/check", Map.of()).statusCode()).isEqualTo(403);
        v.post(page + "/check", Map.of());
        String first = documents.checkLink(job.id(), pilot.personId()).token();
        assertThat(anybody.get("/check/" + first).statusCode()).isEqualTo(200);
        v.post(page + "/check", Map.of());
        assertThat(documents.checkLink(job.id(), pilot.personId()).token())
                .as("one is enough")
                .isEqualTo(first);

        as("manager").post(page + "/revoke", Map.of());
        assertThat(anybody.get("/check/" + first).statusCode()).isEqualTo(404);
        reader.get(page);
        v.get(page);
        assertThat(v.post(page + "/check", Map.of()).statusCode())
                .as("the manager took it back")
                .isEqualTo(403);
        assertThat(documents.checkLink(job.id(), pilot.personId()).isOpen()).isFalse();
        as("manager").post(page + "/check", Map.of());
        String next = documents.checkLink(job.id(), pilot.personId()).token();
        assertThat(next).isNotEqualTo(first);
        assertThat(anybody.get("/check/" + first).statusCode()).isEqualTo(404);
        assertThat(anybody.get("/check/" + next).statusCode()).isEqualTo(200);
    }

    @Test
    void aCheckLinkEndsWithItsJob() throws Exception {
        Jobs.JobView job = job(1, 40);
        jdbc.sql("update job set pilot_id = ? where id = ?")
                .params(pilot.personId(), job.id())
                .update();
        documents.makeCheck(job.id(), pilot.personId(), pilot);
        String path =
                "/check/" + documents.checkLink(job.id(), pilot.personId()).token();
        Visitor anybody = new Visitor(this::address);
        assertThat(anybody.get(path).statusCode()).isEqualTo(200);
        jdbc.sql("update job set state = 'CANCELLED' where id = ?")
                .param(job.id())
                .update();
        assertThat(anybody.get(path).statusCode()).as("called off").isEqualTo(404);
        LocalDate past = LocalDate.now(java.time.ZoneOffset.UTC).minusDays(3);
        jdbc.sql("update job set state = 'PLANNED', first_day = ?, last_day = ? where id = ?")
                .params(past, past, job.id())
                .update();
        assertThat(anybody.get(path).statusCode()).as("over").isEqualTo(404);
        assertThatThrownBy(() -> documents.makeCheck(job.id(), pilot.personId(), manager))
                .hasMessageContaining("the job is over");
    }

    @Test
    void whoeverHasNoSightOfAJobMakesNoLinkOfIt() throws Exception {
        UUID job = foreign();
        assertThat(as("pilot")
                        .post("/field/documents/" + job + "/" + pilot.personId() + "/check", Map.of())
                        .statusCode())
                .isEqualTo(403);
    }

    @Test
    void aPersonWithoutSightIsDenied() {
        assertThatThrownBy(() -> jobs.job(foreign(), pilot)).isInstanceOf(AccessDeniedException.class);
    }
}
