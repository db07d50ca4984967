package yarrek.app.demo;

import java.io.IOException;
import java.io.InputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import yarrek.app.airspace.Sites;
import yarrek.app.answers.Answers;
import yarrek.app.crew.Crew;
import yarrek.app.exchange.Exchange;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.table.Table;
import yarrek.formats.table.Tables;

/** The tables of the sample world, brought in as anybody's tables are; days such as "+16 days" count from the first start. */
@Component
class DemoTables {
    private final Exchange exchange;
    private final Office office;
    private final Sites sites;
    private final Crew crew;
    private final Fleet fleet;
    private final Jobs jobs;
    private final Answers answers;
    private final Rulebook rulebook;

    DemoTables(
            Exchange exchange,
            Office office,
            Sites sites,
            Crew crew,
            Fleet fleet,
            Jobs jobs,
            Answers answers,
            Rulebook rulebook) {
        this.exchange = exchange;
        this.office = office;
        this.sites = sites;
        this.crew = crew;
        this.fleet = fleet;
        this.jobs = jobs;
        this.answers = answers;
        this.rulebook = rulebook;
    }

    /** A file of the sample world. */
    static byte[] file(String name) throws IOException {
        try (InputStream in = DemoTables.class.getResourceAsStream("/demo/" + name)) {
            return in.readAllBytes();
        }
    }

    /** The rows of a table, each by its columns. */
    static List<Map<String, String>> rows(String name) throws IOException, BrokenFileException {
        Table t = Tables.read(name, file(name));
        return t.rows().stream()
                .map(r -> {
                    Map<String, String> row = new LinkedHashMap<>();
                    for (int c = 0; c < t.header().size(); c++) {
                        row.put(t.header().get(c), r.cell(c));
                    }
                    return row;
                })
                .toList();
    }

    /** A register's table; each row must be a new record. */
    void register(String code) throws IOException, BrokenFileException {
        for (Exchange.Line l : exchange.bringInAsHandedOut(code, Tables.read(code + ".csv", file(code + ".csv")))) {
            if (!l.problems().isEmpty()) {
                throw new IllegalStateException(code + ".csv, line " + l.line() + ": " + l.problems());
            }
        }
    }

    void answers(String by) throws IOException, BrokenFileException {
        for (Map<String, String> r : rows("answers.csv")) {
            Answers.About about = Answers.About.valueOf(r.get("About"));
            answers.say(about, named(about.name(), r.get("Name")), Map.of(r.get("Fact"), r.get("Answer")), by);
        }
    }

    void ownRules(String by) throws IOException, BrokenFileException {
        for (Map<String, String> r : rows("own-rules.csv")) {
            OwnRules.BoundTo to = OwnRules.BoundTo.valueOf(r.get("For"));
            rulebook.saveOwnRule(null, -1, r.get("Rule"), to, named(to.name(), r.get("Name")), true, by);
        }
    }

    /** What bears a name; null where everything is meant. */
    UUID named(String kind, String name) {
        return switch (kind) {
            case "OPERATOR" -> office.operator().id();
            case "SITE" -> find(sites.names(), name);
            case "AIRCRAFT" -> find(fleet.aircraftNames(), name);
            case "MODEL" ->
                one(
                        fleet.models().stream()
                                .filter(m -> m.name().equals(name))
                                .map(Fleet.ModelView::id)
                                .findFirst(),
                        name);
            case "BUILD" ->
                one(
                        fleet.builds().stream()
                                .filter(b -> (b.aircraft().name() + ", " + b.name()).equals(name))
                                .map(Fleet.BuildView::id)
                                .findFirst(),
                        name);
            case "PILOT" ->
                one(
                        crew.all().stream()
                                .filter(p -> p.name().equals(name))
                                .map(Crew.PersonView::id)
                                .findFirst(),
                        name);
            case "JOB" -> find(jobs.names(), name);
            case "EVERYTHING" -> null;
            default -> throw new IllegalArgumentException("nothing of the sample world is a " + kind);
        };
    }

    private static UUID find(Map<UUID, String> names, String name) {
        return one(
                names.entrySet().stream()
                        .filter(e -> e.getValue().equals(name))
                        .map(Map.Entry::getKey)
                        .findFirst(),
                name);
    }

    private static UUID one(Optional<UUID> found, String name) {
        return found.orElseThrow(() -> new IllegalStateException("the sample world has no " + name));
    }
}
