package yarrek.app.begin;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.exchange.Exchange;
import yarrek.app.forms.TypedInput;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.core.pack.Cells;
import yarrek.formats.table.Table;

/** What a house has entered so far, and the shortest way to enter the rest: few fields, from which whole records are made. */
@Service
public class Begin {
    /** What is wrong with a field of a step, by its name; nothing was stored. */
    static final class WrongException extends RuntimeException {
        private static final long serialVersionUID = 1;
        private final transient Map<String, String> fields;

        WrongException(Map<String, String> fields) {
            super(fields.toString());
            this.fields = fields;
        }

        Map<String, String> fields() {
            return fields;
        }
    }

    /** A step of the way. */
    public enum Step {
        OPERATOR(
                "operator",
                "The operator and its law",
                "whose rules hold at home; deadlines of incidents follow from it"),
        AIRCRAFT(
                "aircraft",
                "An aircraft with its pack",
                "from the masses follow class, room left and which rules hold"),
        PILOT("pilot", "A pilot with a certificate", "what may be flown, and until when"),
        SITE("site", "A site", "where it is flown; zones, light and weather are looked up for it"),
        JOB("job", "A job", "who flies what, where and when: judged against every rule on file"),
        LOG("log", "A log", "a flight as it was, judged by the second");

        private final String path;
        private final String words;
        private final String why;

        Step(String path, String words, String why) {
            this.path = path;
            this.words = words;
            this.why = why;
        }

        public String path() {
            return path;
        }

        public String words() {
            return words;
        }

        public String why() {
            return why;
        }

        static Optional<Step> of(String path) {
            return java.util.Arrays.stream(values())
                    .filter(s -> s.path.equals(path))
                    .findFirst();
        }
    }

    /** @param done what is on file, in words; empty when nothing is */
    public record Standing(Step step, String done) {
        public boolean isDone() {
            return !done.isEmpty();
        }

        public String shape() {
            return isDone() ? "full" : "dots";
        }
    }

    private final Exchange exchange;
    private final Office office;
    private final JdbcClient jdbc;
    private final Clock clock;

    Begin(Exchange exchange, Office office, JdbcClient jdbc, Clock clock) {
        this.exchange = exchange;
        this.office = office;
        this.jdbc = jdbc;
        this.clock = clock;
    }

    LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    /** Every step in the order of the work, with what is on file of it. */
    @Transactional(readOnly = true)
    public List<Standing> steps() {
        Map<String, Object> n = jdbc.sql(
                        "select (select count(*) from build) as builds, (select count(*) from person) as people,"
                                + " (select count(*) from site) as sites, (select count(*) from job) as jobs,"
                                + " (select count(*) from flight) as flights")
                .query()
                .singleRow();
        List<Standing> steps = new ArrayList<>();
        steps.add(
                new Standing(Step.OPERATOR, office.isSetUp() ? office.operator().name() : ""));
        steps.add(new Standing(Step.AIRCRAFT, count(n.get("builds"), "build", "builds")));
        steps.add(new Standing(Step.PILOT, count(n.get("people"), "person", "people")));
        steps.add(new Standing(Step.SITE, count(n.get("sites"), "site", "sites")));
        steps.add(new Standing(Step.JOB, count(n.get("jobs"), "job", "jobs")));
        steps.add(new Standing(Step.LOG, count(n.get("flights"), "flight", "flights")));
        return steps;
    }

    /** Whether the way is worth showing: something of it is missing. Asked by every Today, and so counts nothing. */
    @Transactional(readOnly = true)
    public boolean isUnderWay(Viewer viewer) {
        return viewer.isManager()
                && (!office.isSetUp()
                        || !jdbc.sql("select exists(select 1 from build) and exists(select 1 from person)"
                                        + " and exists(select 1 from site) and exists(select 1 from job)"
                                        + " and exists(select 1 from flight)")
                                .query(Boolean.class)
                                .single());
    }

    /** The first step of which nothing is on file. */
    public static Optional<Step> next(List<Standing> steps) {
        return steps.stream().filter(s -> !s.isDone()).map(Standing::step).findFirst();
    }

    private static String count(Object n, String one, String more) {
        long all = ((Number) n).longValue();
        return all == 0 ? "" : all + " " + (all == 1 ? one : more);
    }

    // --- steps that make several records at once
    // -----------------------------------------------------------------------

    /**
     * An aircraft, its model, its packs and the build they make.
     *
     * @param typed model (after its maker), classMark, remoteId, hasCamera, privatelyBuilt, isToy, airframeMass, serial, name, packMass,
     *     capacity, nominal, packs
     * @throws WrongException naming what is wrong; nothing was stored
     */
    @Transactional
    public void aircraft(Map<String, String> typed) {
        String model = typed.get("model").strip().replaceAll("\\s+", " ");
        String ofMaker = model.substring(model.indexOf(' ') + 1);
        String name = Optional.of(typed.getOrDefault("name", ""))
                .filter(n -> !n.isBlank())
                .orElse(ofMaker);
        String pack = "Pack of " + model;
        bringIn(
                "pack-models",
                Map.of(
                        "name",
                        pack,
                        "mass",
                        typed.get("packMass"),
                        "capacity",
                        typed.get("capacity"),
                        "nominal",
                        typed.get("nominal"),
                        "cells",
                        typed.get("cells").isEmpty() ? cells(typed.get("nominal")) : typed.get("cells")),
                Map.of("mass", "packMass"));
        Map<String, String> of = new LinkedHashMap<>(typed);
        of.keySet().retainAll(List.of("classMark", "remoteId", "hasCamera", "privatelyBuilt", "isToy", "airframeMass"));
        of.put("maker", model.substring(0, model.indexOf(' ')));
        of.put("name", ofMaker);
        of.put("packs", pack);
        bringIn("models", of, Map.of("name", "model"));
        bringIn(
                "aircraft",
                Map.of("name", name, "serial", typed.get("serial"), "model", model),
                Map.of("model", "model"));
        int packs = Integer.parseInt(typed.get("packs"));
        for (int n = 1; n <= packs; n++) {
            bringIn("packs", Map.of("label", name + " " + n, "model", pack), Map.of("label", "name"));
        }
        bringIn("builds", Map.of("aircraft", name, "name", "standard", "pack", pack), Map.of("aircraft", "name"));
    }

    /** Cells in series by the voltage as typed; empty when it is no figure, which the pack model then asks for. */
    private static String cells(String nominal) {
        try {
            return String.valueOf(Cells.inSeries(TypedInput.plain(nominal, "V")));
        } catch (IllegalArgumentException e) {
            return "";
        }
    }

    /** @param typed name, phone, kind (with a level after a stroke where it has some), number, issuer, validTo */
    @Transactional
    public void pilot(Map<String, String> typed) {
        bringIn("crew", Map.of("name", typed.get("name"), "phone", typed.getOrDefault("phone", "")), Map.of());
        if (!typed.getOrDefault("kind", "").isEmpty()) {
            Map<String, String> paper = new LinkedHashMap<>(typed);
            paper.keySet().retainAll(List.of("number", "issuer", "validTo"));
            String[] kind = typed.get("kind").split("/", 2);
            paper.put("kind", kind[0]);
            paper.put("level", kind.length > 1 ? kind[1] : "");
            paper.put("holder", typed.get("name"));
            bringIn("papers", paper, Map.of("level", "kind"));
        }
    }

    /** @param typed name, launch, radius */
    @Transactional
    public void site(Map<String, String> typed) {
        Office.OperatorView operator = office.operator();
        bringIn(
                "sites",
                Map.of(
                        "name", typed.get("name"),
                        "launch", typed.get("launch"),
                        "jurisdiction", operator.jurisdiction(),
                        "zone", operator.zone().getId(),
                        "area", "circle " + typed.get("launch") + " radius " + typed.get("radius")),
                Map.of("area", "launch"));
    }

    /** @param typed name, siteId, firstDay, from, to, category, purpose, pilotId, buildId, height */
    @Transactional
    public void job(Map<String, String> typed) {
        Map<String, String> row = new LinkedHashMap<>(typed);
        row.put("heightReference", "GROUND");
        bringIn("jobs", row, Map.of());
    }

    /** @param asked the field of the step by the field of the register, where they differ */
    private void bringIn(String register, Map<String, String> record, Map<String, String> asked) {
        List<String> fields = List.copyOf(record.keySet());
        List<String> cells = fields.stream()
                .map(f -> Objects.requireNonNullElse(record.get(f), ""))
                .toList();
        Map<String, String> wrong = new LinkedHashMap<>();
        for (Exchange.Line l : exchange.bringIn(register, Table.of(fields, List.of(cells)), false)) {
            l.problems().forEach(p -> {
                String field = p.column().isEmpty() ? p.field() : p.column();
                wrong.put(asked.getOrDefault(field, field), p.message());
            });
            if (l.problems().isEmpty() && !l.outcome().equals("NEW")) {
                wrong.put(asked.getOrDefault("name", "name"), "there is one like this already");
            }
        }
        if (!wrong.isEmpty()) {
            throw new WrongException(wrong);
        }
    }
}
