package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.app.chains.Chains;
import yarrek.app.jobs.Jobs;

/** Whatever two people have open at once: the second to save sees what the first stored and keeps what they typed. */
class LostUpdateTest extends OnJobs {
    private Visitor manager() throws Exception {
        Visitor v = new Visitor(this::address);
        v.signIn("manager", "manager-demo");
        return v;
    }

    /** A site of this test's own: the things on one are drawn by the page's script, which nobody runs here. */
    @BeforeEach
    void site() {
        Map<String, String> others = Map.of("id", "uuid()", "name", "'Saved twice'", "features", "'[]'");
        List<String> columns = jdbc.sql("select column_name from information_schema.columns"
                        + " where table_schema = database() and table_name = 'site' order by ordinal_position")
                .query(String.class)
                .list();
        jdbc.sql("insert into site (" + String.join(", ", columns) + ") select "
                        + columns.stream().map(c -> others.getOrDefault(c, c)).collect(Collectors.joining(", "))
                        + " from site limit 1")
                .update();
        changedByAnotherNode(jdbc, "sites");
    }

    @AfterEach
    void siteGone() {
        jdbc.sql("delete from site_aud where id in (select id from site where name = 'Saved twice')")
                .update();
        jdbc.sql("delete from site where name = 'Saved twice'").update();
        changedByAnotherNode(jdbc, "sites");
    }

    /** The address with an id of the sample world, or of a job of the test's own, in its place. */
    private String path(String pattern, String query) {
        if (query == null || query.isBlank()) {
            return pattern;
        }
        return pattern.replace(
                "{}", jdbc.sql(query).query((r, n) -> r.getString(1)).list().get(0));
    }

    @ParameterizedTest(name = "{0} {1}")
    @CsvSource(delimiter = '|', nullValues = "", textBlock = """
            /crew/{}/edit               | phone       | +00 1     | select id from person order by name
            /fleet/aircraft/{}/edit     | boughtOn    | 3 May 2025| select id from aircraft order by name
            /fleet/models/{}            | maxSpeed    | 15.5 m/s  | select id from aircraft_model order by name
            /fleet/accessories/{}       | tolerance   | 0.4 g     | select id from accessory order by name
            /packs/{}                   | boughtOn    | 3 May 2025| select id from pack order by label
            /packs/models/{}            | tolerance   | 0.4 g     | select id from pack_model order by name
            /airspace/sites/{}/edit     | landowner   | Hob Leat  | select id from site where name = 'Saved twice'
            /airspace/directory/{}      | hours       | 1 to 2    | select id from directory_entry order by name
            /papers/{}                  | issuer      | Somebody  | select id from paper order by number
            /papers/kinds/edit/{}       | needs       | a form    | select code from paper_kind order by code
            /approvals/kinds/{}         | granter     | Somebody  | select 'zoneEU'
            /approvals/granters/{}      | hours       | mon 10:00-11:00 | select id from granter order by name
            /approvals/settings         | rehearsalDays | 3       |
            /approvals/plans            | lostLink    | It lands. |
            /office/users/{}            | name        | Reader R  | select id from app_user where role = 'READER'
            /office/operator            | phone       | +00 3     |
            /incidents/{}/edit          | harm        | a scratch | select id from incident order by id
            """)
    void theSecondSeesWhatTheFirstStored(String pattern, String field, String typed, String query) throws Exception {
        String path = path(pattern, query);
        Visitor v = manager();
        Typed open = v.form(path);
        HttpResponse<String> first = v.post(path, open.with(field, typed));
        assertThat(first.statusCode()).as(first.body()).isEqualTo(302);
        String stored = v.form(path).get(field);
        try {
            HttpResponse<String> second = v.post(path, open);
            assertThat(second.statusCode()).isEqualTo(200);
            assertThat(second.body())
                    .contains("Somebody else saved this record while you had it open")
                    .as("what is stored")
                    .contains(stored);
            assertThat(Typed.of(second.body()).get(field)).as("what was typed").isEqualTo(open.get(field));
            assertThat(v.form(path).get(field)).as("stored since").isEqualTo(stored);
        } finally {
            HttpResponse<String> back = v.post(path, v.form(path).with(field, open.get(field)));
            assertThat(back.statusCode()).as(back.body()).isEqualTo(302);
        }
    }

    @ParameterizedTest
    @CsvSource({"request, granter, The tower, The manor", "grant, reference, A 1, B 2"})
    void whatIsAskedForAndWhatIsGranted(String page, String field, String first, String second) throws Exception {
        Jobs.JobView job = job(1, 40);
        String step =
                chains.view(job, Chains.WhatIf.NOTHING).lines().get(0).request().id();
        String path = "/approvals/" + begun(job, step) + "/" + page;
        Visitor v = manager();
        Typed open = v.form(path);
        assertThat(v.post(path, open.with(field, first)).statusCode()).isEqualTo(302);
        assertThat(v.post(path, open.with(field, second)).body())
                .contains("Somebody else saved this record while you had it open")
                .contains(first)
                .contains(second);
    }

    /** A zone of the house is known by its name: another of that name is not laid over it unseen. */
    @Test
    void aZoneOfTheHouse() throws Exception {
        Visitor v = manager();
        Typed open = v.form("/airspace/own")
                .with("name", "Glass works")
                .with("kind", "OTHER")
                .with("restriction", "PROHIBITED")
                .with("fromDay", "28 Mar 2027")
                .with("toDay", "31 Oct 2027")
                .with("area", "circle 46.61, -17.89 radius 200 m");
        assertThat(v.post("/airspace/own", open).statusCode()).isEqualTo(302);
        assertThat(v.post("/airspace/own", open.with("message", "Ask the porter"))
                        .body())
                .contains("there is a zone of this name");
    }
}
