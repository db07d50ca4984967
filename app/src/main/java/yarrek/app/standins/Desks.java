package yarrek.app.standins;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Timestamp;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.context.annotation.Profile;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;
import yarrek.core.approval.Cover;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.geo.ShapeText;
import yarrek.core.time.TimeWindow;

/**
 * The books of two simulated desks: an air-navigation desk with a grid of ceilings, which grants at once what stays below
 * it, and queues the rest; and a maker's unlock desk, which refuses whatever does not equal the approval. What is sent
 * under a key that is known is answered as before.
 */
@Service
@Profile("demo")
class Desks {
    /** How a desk misbehaves, for trying what is done about it. */
    enum Fault {
        NONE("answers as it should"),
        DOWN("is down"),
        SLOW("answers too late"),
        RUBBISH("answers rubbish"),
        TWICE("answers a second time, and differently"),
        LOST("takes it, and answers 504"),
        SWAPPED("grants, with its times the wrong way round"),
        LONG("gives it a number of 500 characters");

        private final String words;

        Fault(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** A request in a desk's book. */
    record Entry(String desk, String number, Instant receivedAt, Instant decidedAt, String outcome, String reason) {}

    static final List<String> NAMES = List.of("air-desk", "unlock-desk");

    private static final double CELL_DEG = 0.02;
    private static final double[] CEILINGS = {0, 30, 60, 60, 90, 120};
    private static final Duration QUEUE = Duration.ofSeconds(90);
    private static final double TOLERANCE_M = 25;
    private static final int MOST_REQUESTS = 20_000;

    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final Clock clock;

    Desks(JdbcClient jdbc, JsonMapper json, Clock clock) {
        this.jdbc = jdbc;
        this.json = json;
        this.clock = clock;
    }

    Fault fault(String desk) {
        return jdbc.sql("select fault from standin_fault where desk = ?")
                .param(desk)
                .query(String.class)
                .optional()
                .map(Fault::valueOf)
                .orElse(Fault.NONE);
    }

    void setFault(String desk, Fault fault) {
        jdbc.sql("replace into standin_fault (desk, fault) values (?, ?)")
                .params(desk, fault.name())
                .update();
    }

    List<Entry> book(String desk) {
        return jdbc.sql(
                        "select number, received_at, decided_at, outcome, reason from standin_request where desk = ? order by received_at desc limit 30")
                .param(desk)
                .query((r, i) -> new Entry(
                        desk,
                        r.getString(1),
                        r.getTimestamp(2).toInstant(),
                        r.getTimestamp(3).toInstant(),
                        r.getString(4),
                        r.getString(5)))
                .list();
    }

    /** Ceiling of the cell in which a position lies, metres above ground; the same cell always has the same. */
    static double ceilingM(Position p) {
        long x = (long) Math.floor(p.longitudeDeg() / CELL_DEG);
        long y = (long) Math.floor(p.latitudeDeg() / CELL_DEG);
        long h = (x * 73_856_093L) ^ (y * 19_349_663L);
        return CEILINGS[Math.floorMod(h, CEILINGS.length)];
    }

    /** What a desk answers to a request, and keeps. */
    ObjectNode take(String desk, String key, String body) {
        Optional<ObjectNode> known = byKey(desk, key);
        if (known.isPresent()) {
            return known.get();
        }
        long there = jdbc.sql("select count(*) from standin_request where desk = ?")
                .param(desk)
                .query(Long.class)
                .single();
        if (there >= MOST_REQUESTS) {
            throw new IllegalArgumentException("the simulated desk's book is full");
        }
        JsonNode request = json.readTree(body);
        Instant now = clock.instant();
        Decision d = desk.equals("air-desk") ? air(request) : unlock(request);
        String number = (desk.equals("air-desk") ? "AD-" : "UL-")
                + hash(key).substring(0, 6).toUpperCase(java.util.Locale.ROOT);
        try {
            jdbc.sql(
                            "insert into standin_request (desk, request_key, number, body, received_at, decided_at, outcome, reason) values (?, ?, ?, ?, ?, ?, ?, ?)")
                    .params(
                            desk,
                            key,
                            number,
                            body,
                            Timestamp.from(now),
                            Timestamp.from(d.queued() ? now.plus(QUEUE) : now),
                            d.granted() ? "granted" : "refused",
                            d.reason())
                    .update();
        } catch (DuplicateKeyException e) {
            return byKey(desk, key).orElseThrow(() -> e); // the same request, a moment earlier
        }
        return byKey(desk, key).orElseThrow();
    }

    private static String hash(String s) {
        try {
            return java.util.HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(s.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    private Optional<ObjectNode> byKey(String desk, String key) {
        return jdbc.sql(
                        "select number, body, decided_at, outcome, reason from standin_request where desk = ? and request_key = ?")
                .params(desk, key)
                .query((r, i) -> answer(
                        r.getString(1), r.getString(2), r.getTimestamp(3).toInstant(), r.getString(4), r.getString(5)))
                .optional();
    }

    /** The request of a number as it stands now. */
    Optional<ObjectNode> byNumber(String desk, String number) {
        return jdbc.sql("select request_key from standin_request where desk = ? and number = ?")
                .params(desk, number)
                .query(String.class)
                .optional()
                .flatMap(key -> byKey(desk, key));
    }

    private ObjectNode answer(String number, String body, Instant decidedAt, String outcome, String reason) {
        ObjectNode a = json.createObjectNode();
        a.put("simulated", true);
        a.put("number", number);
        boolean open = clock.instant().isBefore(decidedAt);
        a.put("state", open ? "queued" : outcome);
        if (open) {
            a.put("decisionExpected", decidedAt.toString());
            return a;
        }
        if (outcome.equals("refused")) {
            a.put("reason", reason);
            return a;
        }
        JsonNode r = json.readTree(body);
        for (String field : List.of("from", "to", "area", "ceilingM", "aircraft", "pilots")) {
            if (r.has(field)) {
                a.set(field, r.get(field));
            }
        }
        a.putArray("conditions").add(reason);
        return a;
    }

    private record Decision(boolean granted, boolean queued, String reason) {}

    /** @throws IllegalArgumentException naming the fields that are missing or not understood */
    private Decision air(JsonNode r) {
        TimeWindow w = window(r);
        Area area = ShapeText.area(text(r, "area"));
        if (!r.path("ceilingM").isNumber()) {
            throw new IllegalArgumentException("ceilingM: a number of metres above ground is needed");
        }
        double asked = r.path("ceilingM").asDouble();
        if (Duration.between(w.start(), w.end()).compareTo(Duration.ofHours(24)) > 0) {
            return new Decision(false, false, "one request covers one day; send one for each day");
        }
        List<Position> points = new ArrayList<>(area.corners());
        points.add(area.middle());
        double least = points.stream().mapToDouble(Desks::ceilingM).min().orElseThrow();
        if (asked <= least) {
            return new Decision(
                    true, false, "Within the grid's ceiling of " + whole(least) + " m. Report the end of the flight.");
        }
        if (asked > least + 90) {
            return new Decision(
                    false,
                    true,
                    "crewed traffic passes below " + whole(asked) + " m there; at most " + whole(least + 90)
                            + " m could be looked at");
        }
        return new Decision(
                true,
                true,
                "Above the grid's ceiling of " + whole(least) + " m: call the desk 15 minutes before take-off.");
    }

    private static String whole(double m) {
        return String.format(java.util.Locale.ROOT, "%.0f", m);
    }

    private Decision unlock(JsonNode r) {
        List<String> against = new ArrayList<>();
        TimeWindow w = window(r);
        Area area = ShapeText.area(text(r, "area"));
        String serial = text(r, "serial");
        if (r.path("acceptedBy").asString("").isBlank()) {
            against.add("nobody has accepted responsibility");
        }
        if (r.path("justification").asString("").isBlank()) {
            against.add("no justification");
        }
        for (JsonNode a : r.path("approvals")) {
            Set<String> craft = new TreeSet<>();
            a.path("aircraft").forEach(x -> craft.add(x.asString("")));
            Cover.Granted asked = granted("request", w, area, Set.of(serial));
            Cover.Granted held =
                    granted(a.path("number").asString("?"), window(a), ShapeText.area(text(a, "area")), craft);
            for (Cover.Finding f : Cover.equal(asked, held, 0, TOLERANCE_M)) {
                if (f.state() != Cover.State.COVERED) {
                    against.add(held.reference() + ": " + f.words());
                }
            }
            if (!craft.contains(serial)) {
                against.add(held.reference() + ": serial " + serial + " is not on it");
            }
        }
        return against.isEmpty()
                ? new Decision(true, false, "Load it on the aircraft, switch it on, and confirm at each power-on.")
                : new Decision(false, false, String.join("; ", against));
    }

    private static Cover.Granted granted(String reference, TimeWindow w, Area area, Set<String> aircraft) {
        return new Cover.Granted(
                reference,
                Optional.of(w),
                Optional.of(area),
                OptionalDouble.empty(),
                aircraft,
                Set.of(),
                Optional.empty(),
                Set.of());
    }

    private static TimeWindow window(JsonNode r) {
        try {
            return new TimeWindow(Instant.parse(text(r, "from")), Instant.parse(text(r, "to")));
        } catch (DateTimeParseException e) {
            throw new IllegalArgumentException("from, to: UTC times such as 2027-06-12T08:00:00Z are needed", e);
        }
    }

    private static String text(JsonNode r, String field) {
        String s = r.path(field).asString("");
        if (s.isBlank()) {
            throw new IllegalArgumentException(field + ": this is needed");
        }
        return s;
    }
}
