package yarrek.app.standins;

import java.time.Duration;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Profile;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;
import yarrek.app.page.OpenTo;
import yarrek.core.geo.Position;

/** The simulated desks over HTTP. */
@RestController
@Profile("demo")
class DesksController {
    private static final int MOST_BODY = 500_000;

    private final Desks desks;
    private final JsonMapper json;
    private final Duration slow;

    DesksController(Desks desks, JsonMapper json, @Value("${yarrek.stand-ins-slow:8s}") Duration slow) {
        this.desks = desks;
        this.json = json;
        this.slow = slow;
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping("/stand-ins/air-desk/grid")
    ObjectNode grid(@RequestParam("lat") double lat, @RequestParam("lon") double lon) {
        return json.createObjectNode().put("simulated", true).put("ceilingM", Desks.ceilingM(new Position(lat, lon)));
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @PostMapping("/stand-ins/{desk}/requests")
    ResponseEntity<String> take(
            @PathVariable("desk") String desk,
            @RequestHeader(value = "Idempotency-Key", defaultValue = "") String key,
            @RequestBody String body)
            throws InterruptedException {
        if (!Desks.NAMES.contains(desk)) {
            return text(HttpStatus.NOT_FOUND, "there is no such desk");
        }
        Desks.Fault fault = desks.fault(desk);
        if (fault == Desks.Fault.DOWN) {
            return text(HttpStatus.SERVICE_UNAVAILABLE, "the desk is closed for maintenance");
        }
        if (key.isBlank() || key.length() > 64 || body.length() > MOST_BODY) {
            return text(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "a key of up to 64 characters and a body below 500,000 are needed");
        }
        try {
            ObjectNode answer = desks.take(desk, key, body);
            if (fault == Desks.Fault.SLOW) {
                Thread.sleep(slow.toMillis());
            }
            return switch (fault) {
                case RUBBISH -> rubbish();
                case LOST -> text(HttpStatus.GATEWAY_TIMEOUT, "no answer from behind the gate");
                case SWAPPED -> json(swapped(answer));
                case LONG -> json(answer.put("number", "9".repeat(500)));
                default -> json(answer);
            };
        } catch (IllegalArgumentException | JacksonException e) {
            return text(HttpStatus.UNPROCESSABLE_CONTENT, e.getMessage());
        }
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping("/stand-ins/{desk}/requests/{number}")
    ResponseEntity<String> look(@PathVariable("desk") String desk, @PathVariable("number") String number)
            throws InterruptedException {
        Desks.Fault fault = desks.fault(desk);
        switch (fault) {
            case DOWN -> {
                return text(HttpStatus.SERVICE_UNAVAILABLE, "the desk is closed for maintenance");
            }
            case SLOW -> Thread.sleep(slow.toMillis());
            case RUBBISH -> {
                return rubbish();
            }
            default -> {
                // answers
            }
        }
        return desks.byNumber(desk, number)
                .map(a -> json(fault == Desks.Fault.TWICE ? other(a) : a))
                .orElseGet(() -> text(HttpStatus.NOT_FOUND, "no request has that number"));
    }

    private static ObjectNode swapped(ObjectNode a) {
        String from = a.path("from").asString("");
        return a.put("from", a.path("to").asString("")).put("to", from);
    }

    /** The opposite of what was decided. */
    private static ObjectNode other(ObjectNode a) {
        boolean granted = a.path("state").asString("").equals("granted");
        a.put("state", granted ? "refused" : "granted");
        a.put("reason", "decided anew");
        return a;
    }

    private static ResponseEntity<String> rubbish() {
        return ResponseEntity.ok().contentType(MediaType.TEXT_HTML).body("<html><p>Welcome back, {user}!");
    }

    private ResponseEntity<String> json(ObjectNode n) {
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_JSON).body(json.writeValueAsString(n));
    }

    private static ResponseEntity<String> text(HttpStatus status, String words) {
        return ResponseEntity.status(status).contentType(MediaType.TEXT_PLAIN).body(words);
    }
}
