package yarrek.app.rulebook;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.UUID;
import javax.sql.DataSource;
import org.flywaydb.core.api.migration.BaseJavaMigration;
import org.flywaydb.core.api.migration.Context;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.SingleConnectionDataSource;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Assessments that stood as JSON in the rows of their jobs and flights become packed ones; none is left out. */
@Component
class V9__Assessments_packed extends BaseJavaMigration {
    private final JsonMapper json;

    V9__Assessments_packed(JsonMapper json) {
        this.json = json;
    }

    @Override
    public void migrate(Context context) {
        DataSource database = new SingleConnectionDataSource(context.getConnection(), true);
        JdbcTemplate jdbc = new JdbcTemplate(database);
        Assessments assessments = Assessments.on(database, json);
        move(jdbc, assessments, "job", Assessments.Kind.JOB);
        move(jdbc, assessments, "flight", Assessments.Kind.FLIGHT);
        jdbc.execute("alter table job drop column assessment");
        jdbc.execute("alter table flight drop column assessment");
    }

    private void move(JdbcTemplate jdbc, Assessments assessments, String table, Assessments.Kind kind) {
        record Old(String stored, Instant at) {}
        List<UUID> ids = jdbc.query(
                "select id from " + table + " where assessment is not null", (r, i) -> r.getObject(1, UUID.class));
        for (UUID id : ids) {
            Old old = jdbc.queryForObject(
                    "select assessment, assessed_at from " + table + " where id = ?",
                    (r, i) -> new Old(
                            r.getString(1), r.getObject(2, LocalDateTime.class).toInstant(ZoneOffset.UTC)),
                    id);
            AssessmentRow now =
                    json.readValue(old.stored(), OldAssessment.class).now();
            assessments.put(kind, List.of(new Assessments.Entry(id, now, List.of())), old.at());
        }
    }
}
