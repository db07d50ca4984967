package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.configuration.FluentConfiguration;
import org.flywaydb.core.api.migration.JavaMigration;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import tools.jackson.databind.json.JsonMapper;

/** What an earlier version stored is there after the way to today. */
class MigrationTest extends RunningApp {
    @Autowired
    JdbcClient jdbc;

    @Autowired
    List<JavaMigration> migrations;

    @Test
    void whatAPlanSaidInColumnsIsSaidByTheWordsOfTheVocabulary() {
        jdbc.sql("create or replace database yarrek_old_plans").update();
        var source =
                new DriverManagerDataSource(TestDatabase.url().replace("yarrek_test", "yarrek_old_plans"), "root", "");
        FluentConfiguration flyway = Flyway.configure()
                .dataSource(source)
                .locations("classpath:db/migration")
                .javaMigrations(migrations.toArray(new JavaMigration[0]));
        flyway.target("15").load().migrate();
        JdbcClient old = JdbcClient.create(source);
        plan(
                old,
                "said",
                "'work', 'open', 'A2', 350, 40.5, 'none', false, 'VLOS', true, 8, 110, 40, true, false, true, false, false, 7.5, -3, true, 14");
        plan(old, "silent", String.join(", ", Collections.nCopies(21, "null")));
        flyway.target("latest").load().migrate();
        assertThat(said(old, "silent")).isEmpty();
        assertThat(said(old, "said"))
                .isEqualTo(Map.ofEntries(
                        Map.entry("purpose", "work"),
                        Map.entry("category", "open"),
                        Map.entry("subcategory", "A2"),
                        Map.entry("pilotDistanceM", "350"),
                        Map.entry("peopleDistanceM", "40.5"),
                        Map.entry("overPeople", "none"),
                        Map.entry("assembly", "no"),
                        Map.entry("sight", "VLOS"),
                        Map.entry("lowSpeedMode", "yes"),
                        Map.entry("groundSpeedMps", "8"),
                        Map.entry("structure.heightM", "110"),
                        Map.entry("structure.distanceM", "40"),
                        Map.entry("structure.artificial", "yes"),
                        Map.entry("structure.requestedByOwner", "no"),
                        Map.entry("emergency.ongoing", "yes"),
                        Map.entry("dangerousGoodsOrDropping", "no"),
                        Map.entry("autoModesAmongObstacles", "no"),
                        Map.entry("weather.windMps", "7.5"),
                        Map.entry("weather.temperatureC", "-3"),
                        Map.entry("pilot.fit", "yes"),
                        Map.entry("pilot.hoursSinceAlcohol", "14")));
        assertThat(old.sql("select name from job where emergency")
                        .query(String.class)
                        .list())
                .containsExactly("said");
        jdbc.sql("drop database yarrek_old_plans").update();
    }

    private static void plan(JdbcClient old, String name, String values) {
        old.sql(
                        "set statement foreign_key_checks = 0 for insert into job (id, version, name, site_id, first_day, last_day,"
                                + " from_time, to_time, height_reference, state, breached, not_known, close_count, go, reason, changed_note,"
                                + " purpose, category, subcategory, pilot_distance_m, people_distance_m, over_people, assembly, sight,"
                                + " low_speed, speed_mps, structure_height_m, structure_distance_m, structure_artificial,"
                                + " structure_requested, emergency, dangerous, auto_modes, wind_mps, temperature_c, pilot_fit,"
                                + " hours_since_alcohol) values (?, 0, ?, uuid(), '2026-11-28', '2026-11-28', '09:00', '10:00', 'GROUND',"
                                + " 'PLANNED', 0, 0, 0, 'GO', '', '', " + values + ")")
                .params(UUID.randomUUID(), name)
                .update();
    }

    private static Map<?, ?> said(JdbcClient old, String name) {
        return JsonMapper.shared()
                .readValue(
                        old.sql("select said from job where name = ?")
                                .param(name)
                                .query(String.class)
                                .single(),
                        Map.class);
    }
}
