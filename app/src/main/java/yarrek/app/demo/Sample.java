package yarrek.app.demo;

import java.io.IOException;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Airspace;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.formats.log.BrokenFileException;

/**
 * The sample world in a house's own database, to look round before anything of one's own is entered: laid in where nothing
 * is on file, taken out whole, and never with anything that is not of it.
 */
@Service
public class Sample {
    /** What people enter, by table, and what one of them is called; everything else belongs to one of these. */
    private static final Map<String, String> ENTERED = new LinkedHashMap<>();

    static {
        ENTERED.put("job", "concat('the job “', name, '”')");
        ENTERED.put("flight", "concat('the flight of ', takeoff, ' UTC')");
        ENTERED.put("incident", "concat('the incident of ', happened_at, ' UTC')");
        ENTERED.put("paper", "concat('the paper ', number)");
        ENTERED.put("approval", "concat('the approval “', title, '”')");
        ENTERED.put("aircraft", "concat('the aircraft “', name, '”')");
        ENTERED.put("build", "concat('the build “', name, '”')");
        ENTERED.put("aircraft_model", "concat('the model “', name, '”')");
        ENTERED.put("pack", "concat('the pack “', label, '”')");
        ENTERED.put("pack_model", "concat('the pack model “', name, '”')");
        ENTERED.put("accessory", "concat('the part “', name, '”')");
        ENTERED.put("person", "name");
        ENTERED.put("site", "concat('the site “', name, '”')");
        ENTERED.put("own_rule", "concat('the rule ', rule_id)");
        ENTERED.put("app_user", "concat('the login “', login, '”')");
        ENTERED.put("granter", "concat('the granter “', name, '”')");
        ENTERED.put("directory_entry", "concat('“', name, '” of the directory')");
        ENTERED.put("away", "concat('days away from ', first_day)");
        ENTERED.put("zone_source", "concat('the source “', name, '”')");
    }

    private static final List<String> EMPTY_FIRST =
            List.of("job", "flight", "incident", "paper", "aircraft", "aircraft_model", "pack", "person", "site");
    private static final int MOST_NAMED = 5;

    private record Column(String table, String name, boolean key) {}

    private final JdbcClient jdbc;
    private final Office office;
    private final DemoWorld world;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    Sample(JdbcClient jdbc, Office office, DemoWorld world, ApplicationEventPublisher events, Clock clock) {
        this.jdbc = jdbc;
        this.office = office;
        this.world = world;
        this.events = events;
        this.clock = clock;
    }

    /** Whether it is laid in now. */
    @Transactional(readOnly = true)
    public boolean isIn() {
        return jdbc.sql("select exists(select 1 from sample_record)")
                .query(Boolean.class)
                .single();
    }

    /** Whether it may be laid in: whose law holds is said, and nothing else is on file. */
    @Transactional(readOnly = true)
    public boolean fits() {
        return office.isSetUp()
                && EMPTY_FIRST.stream()
                        .noneMatch(t -> jdbc.sql("select exists(select 1 from " + t + ")")
                                .query(Boolean.class)
                                .single());
    }

    /**
     * Lays it in around today; all or nothing.
     *
     * @throws IllegalArgumentException in words when something is on file already
     */
    @Transactional(rollbackFor = Exception.class)
    public void layIn(Viewer viewer) throws IOException, BrokenFileException {
        if (!fits()) {
            throw new IllegalArgumentException(
                    "the sample is laid in only where nothing of your own is on file, so that the two are never mixed up");
        }
        Set<String> before = keys();
        world.sample(LocalDate.now(clock.withZone(office.operator().zone())), viewer);
        Set<String> made = keys();
        made.removeAll(before);
        made.forEach(id ->
                jdbc.sql("insert into sample_record (id) values (?)").param(id).update());
    }

    /**
     * Takes it out, with all that was made of it since: judgements, surveys, scans, requests.
     *
     * @throws IllegalArgumentException naming what of the house's own rests on it; nothing was taken out
     */
    @Transactional
    public void takeOut() {
        List<Column> columns = columns();
        follow(columns);
        List<String> resting = resting(columns);
        if (!resting.isEmpty()) {
            throw new IllegalArgumentException("Nothing was taken out: " + String.join(", ", resting)
                    + " would lose something of the sample that it names. Change or delete that first.");
        }
        jdbc.sql("set foreign_key_checks = 0").update();
        try {
            for (Column c : columns) {
                jdbc.sql("delete from " + c.table() + " where " + c.name() + " in (select id from sample_record)")
                        .update();
            }
        } finally {
            jdbc.sql("set foreign_key_checks = 1").update();
        }
        List<String> torn = torn();
        if (!torn.isEmpty()) {
            throw new IllegalStateException("taking the sample out would leave torn records: " + torn);
        }
        jdbc.sql("delete from sample_record").update();
        jdbc.sql("update stamp set stamp = stamp + 1").update();
        events.publishEvent(new Airspace.ZonesChanged());
    }

    /** Adds what belongs to a record of the sample, and what belongs to that. */
    private void follow(List<Column> columns) {
        Map<String, String> keys = new LinkedHashMap<>();
        columns.stream().filter(Column::key).forEach(c -> keys.put(c.table(), c.name()));
        int added = 1;
        while (added > 0) {
            added = 0;
            for (Column c : columns) {
                String key = keys.get(c.table());
                if (!c.key() && key != null && !ENTERED.containsKey(c.table())) {
                    added += jdbc.sql("insert ignore into sample_record (id) select t." + key + " from " + c.table()
                                    + " t where t." + c.name() + " in (select id from sample_record)")
                            .update();
                }
            }
        }
    }

    private List<String> resting(List<Column> columns) {
        Set<String> found = new HashSet<>();
        List<String> named = new ArrayList<>();
        for (Column c : columns) {
            String called = ENTERED.get(c.table());
            if (called != null && !c.key()) {
                jdbc
                        .sql("select " + called + " from " + c.table() + " where " + c.name()
                                + " in (select id from sample_record) and id not in (select id from sample_record)")
                        .query(String.class)
                        .list()
                        .stream()
                        .filter(found::add)
                        .forEach(named::add);
            }
        }
        return named.size() <= MOST_NAMED
                ? named
                : Stream.concat(named.stream().limit(MOST_NAMED), Stream.of((named.size() - MOST_NAMED) + " more"))
                        .toList();
    }

    /** Every column that holds identities, but for the list of the sample itself. */
    private List<Column> columns() {
        record Told(String table, String name, boolean isUuid, boolean isKey) {}
        // counted here: the catalogue takes seconds to be joined with itself
        List<Told> all = jdbc.sql("select table_name, column_name, data_type = 'uuid', column_key = 'PRI'"
                        + " from information_schema.columns where table_schema = database()"
                        + " and (data_type = 'uuid' or column_key = 'PRI') and table_name <> 'sample_record'")
                .query((r, n) -> new Told(r.getString(1), r.getString(2), r.getBoolean(3), r.getBoolean(4)))
                .list();
        Map<String, Long> keys =
                all.stream().filter(Told::isKey).collect(Collectors.groupingBy(Told::table, Collectors.counting()));
        return all.stream()
                .filter(Told::isUuid)
                .map(c -> new Column(c.table(), c.name(), c.isKey() && keys.get(c.table()) == 1))
                .toList();
    }

    private Set<String> keys() {
        Set<String> all = new HashSet<>();
        columns().stream()
                .filter(Column::key)
                .forEach(c -> all.addAll(jdbc.sql("select " + c.name() + " from " + c.table())
                        .query(String.class)
                        .list()));
        return all;
    }

    /** Relations of the database whose other end is not there. */
    private List<String> torn() {
        return jdbc
                .sql("select table_name, column_name, referenced_table_name, referenced_column_name"
                        + " from information_schema.key_column_usage"
                        + " where table_schema = database() and referenced_table_name is not null")
                .query((r, n) -> new String[] {r.getString(1), r.getString(2), r.getString(3), r.getString(4)})
                .list()
                .stream()
                .filter(r -> jdbc.sql("select exists(select 1 from " + r[0] + " c left join " + r[2] + " p on c." + r[1]
                                + " = p." + r[3] + " where c." + r[1] + " is not null and p." + r[3] + " is null)")
                        .query(Boolean.class)
                        .single())
                .map(r -> r[0] + "." + r[1])
                .toList();
    }
}
