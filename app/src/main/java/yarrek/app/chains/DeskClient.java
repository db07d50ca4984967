package yarrek.app.chains;

import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.orm.ObjectOptimisticLockingFailureException;
import org.springframework.stereotype.Service;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.outside.Outside;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.ApprovalState;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;
import yarrek.core.geo.Position;
import yarrek.core.geo.ShapeText;
import yarrek.core.units.Finite;

/** Sends requests to desks over HTTP and takes their answers, each once. Nothing is held open while a desk thinks. */
@Service
public class DeskClient {
    private static final DateTimeFormatter HOUR =
            DateTimeFormatter.ofPattern("d MMM HH:mm 'UTC'", Locale.UK).withZone(ZoneOffset.UTC);
    private static final int MOST_GRID_POINTS = 12;
    /** Answers after which the desk may have the request: too slow, there already, too early, too many at once. */
    private static final Set<Integer> DOUBTFUL = Set.of(408, 409, 425, 429);

    private static final int LONGEST_NUMBER = 40;
    /** After this long no further desk is asked. */
    private static final Duration MOST_TIME = Duration.ofSeconds(30);

    private static final Logger LOG = LoggerFactory.getLogger(DeskClient.class);

    private final DeskBook book;
    private final Outside outside;
    private final Approvals approvals;
    private final Kinds kinds;
    private final Covers covers;
    private final Sending sending;
    private final Jobs jobs;
    private final Office office;
    private final JsonMapper json;
    private final Clock clock;

    DeskClient(
            DeskBook book,
            Outside outside,
            Approvals approvals,
            Kinds kinds,
            Covers covers,
            Sending sending,
            Jobs jobs,
            Office office,
            JsonMapper json,
            Clock clock) {
        this.book = book;
        this.outside = outside;
        this.approvals = approvals;
        this.kinds = kinds;
        this.covers = covers;
        this.sending = sending;
        this.jobs = jobs;
        this.office = office;
        this.json = json;
        this.clock = clock;
    }

    private ApprovalKind kind(Approvals.ApprovalView a) {
        return kinds.row(a.kind()).kind();
    }

    /** What came of sending several, each in words. */
    public record All(List<String> went, List<String> not) {}

    /**
     * Sends every request of a job that is being prepared and has a desk; what may not go is named with the reason. Stops in
     * time to answer: what is left then is sent by asking again.
     *
     * @param why the reason for leaving questions of the applications open; empty when there is none
     */
    public All sendAll(UUID jobId, String why, String by) {
        Instant until = clock.instant().plus(MOST_TIME);
        All all = new All(new ArrayList<>(), new ArrayList<>());
        for (Approvals.ApprovalView a : approvals.of(jobId)) {
            if (a.state() != ApprovalState.PREPARING || kind(a).desk().isEmpty()) {
                continue;
            }
            String named = "“" + a.title() + "”: ";
            if (clock.instant().isAfter(until)) {
                all.not().add(named + "the desks were slow; ask again");
                continue;
            }
            try {
                all.went().add(named + sendAnswered(a.id(), why, by));
            } catch (IllegalArgumentException e) {
                all.not().add(named + e.getMessage());
            }
        }
        if (all.went().isEmpty() && all.not().isEmpty()) {
            all.not().add("Nothing of this job is being prepared for a desk.");
        }
        return all;
    }

    /**
     * As {@link #send}, once every question of the application is answered or a reason is given for leaving some open, which is
     * kept with the request.
     */
    public String sendAnswered(UUID approvalId, String why, String by) {
        List<String> open = sending.openQuestions(approvals.approval(approvalId));
        if (!open.isEmpty() && why.isBlank()) {
            throw new IllegalArgumentException(
                    open.get(0) + ". If it is to go all the same, say why; that is kept with it");
        }
        String told = send(approvalId, by);
        if (!open.isEmpty()) {
            approvals.keep(
                    approvalId,
                    Approvals.LetterKind.NOTE,
                    clock.instant(),
                    "the desk was asked although " + open.get(0) + ": " + why.strip(),
                    "",
                    null,
                    by);
        }
        return told;
    }

    /**
     * Sends a request to the desk of its kind. Sent again with the same content it goes under the same key, and one that was
     * answered is not sent at all.
     *
     * @return what came of it, in words
     * @throws IllegalArgumentException when something speaks against sending it, or no desk takes such requests
     */
    public String send(UUID approvalId, String by) {
        Approvals.ApprovalView a = approvals.approval(approvalId);
        ApprovalKind k = kind(a);
        if (k.desk().isEmpty()) {
            throw new IllegalArgumentException("no desk takes requests of this kind; send it yourself and say so here");
        }
        if (a.state() != ApprovalState.PREPARING && a.state() != ApprovalState.ASKED_BACK && !unsure(a)) {
            throw new IllegalArgumentException("it is " + a.state().words() + " already; nothing was sent");
        }
        List<String> against = sending.against(a);
        if (!against.isEmpty()) {
            throw new IllegalArgumentException(String.join("; ", against));
        }
        // what may have arrived goes out again as it was, before anything else does
        DeskBook.Call call = book.of(a.id()).stream()
                .filter(c -> c.state().equals(DeskBook.UNSURE))
                .findFirst()
                .orElseGet(() -> book.open(a.id(), k.desk(), body(a, k, by), by));
        if (call.state().equals(DeskBook.ANSWERED)) {
            return "the desk has it already under " + call.number() + "; nothing was sent again";
        }
        Outside.Answer answer;
        try {
            answer = outside.post(path(k.desk()), call.body(), call.id().toString());
        } catch (Outside.NoAnswerException e) {
            book.came(call.id(), DeskBook.UNSURE, "", e.getMessage());
            approvals.deskSaid(a.id(), "sent by " + by + ": " + e.getMessage());
            return e.getMessage() + ". Sending it again cannot make a second request of it.";
        } catch (IllegalStateException e) {
            book.came(call.id(), DeskBook.SENDING, "", e.getMessage());
            approvals.deskSaid(a.id(), "not sent: " + e.getMessage());
            return e.getMessage();
        }
        try {
            return take(a, call, answer, true);
        } catch (ObjectOptimisticLockingFailureException e) {
            LOG.info("{} was sent twice at the same moment; the desk has one request of it", a.id());
            return "Somebody else sent it at the same moment; the desk has one request of it.";
        }
    }

    private boolean unsure(Approvals.ApprovalView a) {
        return book.of(a.id()).stream().anyMatch(c -> c.state().equals(DeskBook.UNSURE));
    }

    private static String path(String desk) {
        return "/stand-ins/" + desk + "-desk/requests";
    }

    private String body(Approvals.ApprovalView a, ApprovalKind k, String by) {
        Terms t = a.request();
        ObjectNode b = json.createObjectNode();
        b.put("operator", office.operator().name());
        b.put("responsible", by);
        b.put("from", t.from().toString());
        b.put("to", t.to().toString());
        b.put("area", t.area());
        b.put("ceilingM", t.ceilingM());
        texts(b.putArray("aircraft"), t.aircraft());
        texts(b.putArray("pilots"), t.pilots());
        b.put("notes", t.quotes().isEmpty() ? "" : "Approvals: " + String.join(", ", t.quotes()));
        if (k.unlock()) {
            b.put("serial", t.aircraft().get(0));
            b.put("justification", jobs.jobUnchecked(a.jobId()).draft().name());
            b.put("acceptedBy", by);
            ArrayNode held = b.putArray("approvals");
            for (Approvals.ApprovalView r : covers.restsOn(a)) {
                if (r.terms().window().isEmpty() || r.terms().drawnArea().isEmpty()) {
                    continue;
                }
                ObjectNode n = held.addObject();
                n.put("number", r.reference());
                n.put("from", r.terms().from().toString());
                n.put("to", r.terms().to().toString());
                n.put("area", r.terms().area());
                texts(n.putArray("aircraft"), r.terms().aircraft());
            }
        }
        return json.writeValueAsString(b);
    }

    private static void texts(ArrayNode into, List<String> all) {
        all.forEach(into::add);
    }

    /** Takes an answer; {@code first} when it answers a sending, else a question after it. */
    private String take(Approvals.ApprovalView a, DeskBook.Call call, Outside.Answer answer, boolean first) {
        JsonNode n;
        String state;
        String number;
        try {
            if (answer.status() >= 400) {
                String said = answer.body().length() > 300 ? answer.body().substring(0, 300) + "…" : answer.body();
                String words = "the desk answered " + answer.status() + ": " + said;
                if (!first) {
                    return words; // asked after again and again: only what the desk decides is an event
                }
                boolean mayHaveIt = answer.status() >= 500 || DOUBTFUL.contains(answer.status());
                book.came(call.id(), mayHaveIt ? DeskBook.UNSURE : DeskBook.REFUSED, "", words);
                approvals.deskSaid(a.id(), words + (mayHaveIt ? "; whether it has the request is not known" : ""));
                return words
                        + (mayHaveIt
                                ? "; whether it has the request is not known. Sending it again cannot make a second request of it."
                                : "");
            }
            n = json.readTree(answer.body());
            state = n.path("state").asString("");
            number = n.path("number").asString("");
            if (number.isEmpty()
                    || number.length() > LONGEST_NUMBER
                    || !List.of("granted", "refused", "queued").contains(state)) {
                throw new IllegalArgumentException("no number or no state in it");
            }
        } catch (JacksonException | IllegalArgumentException e) {
            String words =
                    "the desk's answer is not understood; nothing was taken from it, and whether it has the request is not known";
            if (!first) {
                return words;
            }
            book.came(call.id(), DeskBook.UNSURE, "", words);
            approvals.deskSaid(
                    a.id(),
                    words + ": "
                            + answer.body()
                                    .substring(0, Math.min(300, answer.body().length())));
            return words + ". Sending it again cannot make a second request of it.";
        }
        return apply(a.id(), call, n, state, number, answer.body());
    }

    private String apply(UUID id, DeskBook.Call call, JsonNode n, String state, String number, String raw) {
        Approvals.ApprovalView a = approvals.approval(id);
        String words = number + ": " + state
                + (n.has("reason") ? ", " + n.path("reason").asString("") : "")
                + (n.has("decisionExpected")
                        ? ", decision expected "
                                + hour(n.path("decisionExpected").asString(""))
                        : "");
        boolean decided = a.state().isHeld() || a.state() == ApprovalState.REFUSED;
        if (decided) {
            boolean same = a.state().isHeld() == state.equals("granted") && !state.equals("queued");
            if (!same) {
                book.came(call.id(), DeskBook.CONTRADICTS, number, raw);
                approvals.deskSaid(
                        id,
                        "answered again, and differently: " + words
                                + ". What was decided first stands; call the desk.");
                return "The desk answered again, and differently: " + words
                        + ". What was decided first stands; call the desk.";
            }
            return words;
        }
        book.came(call.id(), DeskBook.ANSWERED, number, raw);
        approvals.deskSaid(id, words);
        if (!a.state().isOut()) {
            approvals.move(id, ApprovalState.SENT, clock.instant(), number, "desk");
        }
        switch (state) {
            case "granted" -> approvals.grant(id, grant(a, n, number), clock.instant(), "desk");
            case "refused" ->
                approvals.move(
                        id,
                        ApprovalState.REFUSED,
                        clock.instant(),
                        n.path("reason").asString(""),
                        "desk");
            default -> {
                // queued: it is with the desk
            }
        }
        return words;
    }

    /** An instant as the desk writes it, in words; as it stands when it is none. */
    private static String hour(String instant) {
        try {
            return HOUR.format(Instant.parse(instant));
        } catch (DateTimeException e) {
            return instant;
        }
    }

    /** What the desk says it granted; what it does not repeat is not taken for granted. */
    private Approvals.Grant grant(Approvals.ApprovalView a, JsonNode n, String number) {
        Instant from = null;
        Instant to = null;
        try {
            from = Instant.parse(n.path("from").asString(""));
            to = Instant.parse(n.path("to").asString(""));
        } catch (DateTimeException e) {
            LOG.info("the desk names no times for {}", number);
        }
        if (from == null || to == null || !from.isBefore(to)) {
            // half of a window, or one that ends before it begins, is none: what was granted in time is not known
            from = null;
            to = null;
        }
        List<String> conditions = strings(n.path("conditions"));
        String area = n.path("area").asString("");
        try {
            area = area.isBlank() ? "" : ShapeText.write(ShapeText.area(area));
        } catch (IllegalArgumentException e) {
            LOG.info("the desk's area for {} is not understood: {}", number, e.getMessage());
            area = "";
        }
        return new Approvals.Grant(
                number,
                new Terms(
                        from,
                        to,
                        area,
                        n.path("ceilingM").isNumber()
                                ? Double.valueOf(n.path("ceilingM").asDouble())
                                : null,
                        n.path("ceilingM").isNumber()
                                ? Finite.format(n.path("ceilingM").asDouble()) + " m above ground"
                                : "",
                        strings(n.path("aircraft")),
                        strings(n.path("pilots")),
                        "",
                        a.request().quotes(),
                        new HashSet<>(List.of(Cover.Dimension.PURPOSE))),
                String.join("\n", conditions),
                jobs.jobUnchecked(a.jobId()).site().zone());
    }

    private static List<String> strings(JsonNode list) {
        List<String> all = new ArrayList<>();
        list.forEach(x -> all.add(x.asString("")));
        return all;
    }

    /** So many that the desk bears them, from all around: the last, which is the middle, among them. */
    private static List<Position> spread(List<Position> points) {
        if (points.size() <= MOST_GRID_POINTS) {
            return points;
        }
        List<Position> some = new ArrayList<>();
        for (int i = 1; i <= MOST_GRID_POINTS; i++) {
            some.add(points.get((int) Math.round((points.size() - 1.0) * i / MOST_GRID_POINTS)));
        }
        return some;
    }

    /** What the air-navigation desk's grid says of a request: decided at once up to a ceiling, by hand above it. */
    public String grid(Approvals.ApprovalView a) {
        Terms t = a.request();
        if (t.drawnArea().isEmpty() || t.ceilingM() == null) {
            return "The request names no area or no height.";
        }
        List<Position> points = new ArrayList<>(t.drawnArea().get().corners());
        points.add(t.drawnArea().get().middle());
        double least = Double.POSITIVE_INFINITY;
        try {
            for (Position p : spread(points)) {
                Outside.Answer answer = outside.ask(String.format(
                        Locale.ROOT, "/stand-ins/air-desk/grid?lat=%.6f&lon=%.6f", p.latitudeDeg(), p.longitudeDeg()));
                JsonNode n = json.readTree(answer.body());
                if (answer.status() != 200 || !n.path("ceilingM").isNumber()) {
                    return "The grid's answer is not understood; whether it would be decided at once is not known.";
                }
                least = Math.min(least, n.path("ceilingM").asDouble());
            }
        } catch (IllegalStateException | JacksonException e) {
            return "The grid cannot be asked now: " + e.getMessage() + ".";
        }
        String ceiling = Finite.format(least) + " m above ground at the lowest of the places asked for; asked for "
                + Finite.format(t.ceilingM()) + " m: ";
        return "The grid's ceiling is " + ceiling
                + (t.ceilingM() <= least
                        ? "decided at once."
                        : "decided by hand, after a wait. A lower height may be decided at once.");
    }

    /** Asks a desk how a request stands. */
    public String ask(UUID approvalId) {
        Approvals.ApprovalView a = approvals.approval(approvalId);
        DeskBook.Call call = book.of(approvalId).stream()
                .filter(c -> !c.number().isEmpty())
                .reduce((x, y) -> y)
                .orElseThrow(() -> new IllegalArgumentException("no desk has this request yet"));
        Outside.Answer answer;
        try {
            answer = outside.ask(path(call.desk()) + "/" + call.number());
        } catch (IllegalStateException e) {
            approvals.deskSaid(a.id(), "asked after " + call.number() + ": " + e.getMessage());
            return e.getMessage();
        }
        return take(a, call, answer, false);
    }

    /** Asks after what is queued; two nodes doing so at once take one decision. */
    public void askAfterQueued() {
        for (DeskBook.Call c : book.queued()) {
            try {
                if (approvals.approval(c.approvalId()).state().isOut()) {
                    Outside.Answer answer = outside.ask(path(c.desk()) + "/" + c.number());
                    // still queued: nothing new to keep
                    if (answer.status() != 200 || !answer.body().contains("\"queued\"")) {
                        take(approvals.approval(c.approvalId()), c, answer, false);
                    }
                }
            } catch (IllegalStateException | IllegalArgumentException | ObjectOptimisticLockingFailureException e) {
                LOG.warn("asking after {} failed: {}", c.number(), e.getMessage());
            }
        }
    }

    List<DeskBook.Call> calls(UUID approvalId) {
        return book.of(approvalId);
    }
}
