package yarrek.app.flights;

import java.time.Duration;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Show;
import yarrek.app.page.Viewer;
import yarrek.core.flight.FlightEvents;
import yarrek.core.flight.FlightSummary;
import yarrek.core.trace.Trace;

/** A flight once more: its drawing, closer up or beside another, and what happened in it. */
@Controller
class ReplayController {
    private final Flights flights;
    private final Show show;

    ReplayController(Flights flights, Show show) {
        this.flights = flights;
        this.show = show;
    }

    /**
     * Everything the page draws of a flight.
     *
     * @param from seconds of the log from which it is drawn with more of its points, up to {@code to}
     * @param with another flight to be drawn beside it
     */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping(value = "/flights/{id}/drawing.json", produces = MediaType.APPLICATION_JSON_VALUE)
    @ResponseBody
    TraceDrawing drawing(
            @PathVariable("id") UUID id,
            @RequestParam(value = "from", required = false) Double from,
            @RequestParam(value = "to", required = false) Double to,
            @RequestParam(value = "with", required = false) UUID with) {
        Read own = read(id);
        TraceDrawing.Part part =
                from == null || to == null || !(from < to) ? TraceDrawing.Part.ALL : new TraceDrawing.Part(from, to);
        if (with == null) {
            return own.drawing(part);
        }
        Read other = read(with);
        double later = other.takeoffS() - own.takeoffS();
        return own.drawing(part)
                .beside(
                        other.drawing(new TraceDrawing.Part(part.fromS() + later, part.toS() + later)),
                        show.utc(other.flight().figures().takeoffUtc()));
    }

    private record Read(Flights.FlightView flight, Trace trace) {
        double takeoffS() {
            return Duration.between(trace.start(), flight.figures().takeoffUtc())
                            .toNanos()
                    / 1e9;
        }

        TraceDrawing drawing(TraceDrawing.Part part) {
            return TraceDrawing.of(
                    trace,
                    flight.figures().takeoffUtc(),
                    flight.figures().landingUtc(),
                    flight.assessment(),
                    FlightSummary.heights(trace, Flights.span(trace, flight.figures())),
                    part);
        }
    }

    private Read read(UUID id) {
        Viewer viewer = Viewer.current();
        return new Read(flights.flight(id, viewer), flights.trace(id, viewer));
    }

    /** What happened in it, a row each. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights/{id}/events")
    String events(@PathVariable("id") UUID id, Model model) {
        Read read = read(id);
        TraceDrawing d = read.drawing(TraceDrawing.Part.ALL);
        FlightEvents events = FlightEvents.of(
                read.trace(),
                d.takeoffS(),
                d.landingS(),
                d.bands().stream()
                        .map(b -> new FlightEvents.Stretch(b.title(), b.fromS(), b.toS()))
                        .toList());
        model.addAttribute("events", events);
        model.addAttribute("start", d.start());
        model.addAttribute("takeoffS", d.takeoffS());
        return "flights/events";
    }
}
