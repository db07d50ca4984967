package yarrek.app.demo;

import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import yarrek.app.fleet.Fleet;
import yarrek.app.flights.Flights;
import yarrek.app.flights.Logs;
import yarrek.app.forms.TypedInput;
import yarrek.core.geo.PositionText;
import yarrek.formats.log.BrokenFileException;

/** Flights of the sample world: flown by the simulator as the table says, their logs brought in as anybody's are. */
@Component
class DemoFlights {
    private final Fleet fleet;
    private final Logs logs;
    private final DemoTables tables;

    DemoFlights(Fleet fleet, Logs logs, DemoTables tables) {
        this.fleet = fleet;
        this.logs = logs;
        this.tables = tables;
    }

    void fly(LocalDate today, ZoneId zone, String by) throws IOException, BrokenFileException {
        List<Fleet.PackView> packs = fleet.packs();
        for (Map<String, String> r : DemoTables.rows("flights.csv")) {
            Fleet.PackView pack = packs.stream()
                    .filter(p -> p.label().equals(r.get("Pack")))
                    .findFirst()
                    .orElseThrow();
            List<FlightSimulator.Sample> samples = new FlightSimulator(
                            Long.parseLong(r.get("Seed")),
                            PositionText.parse(r.get("Launch")),
                            pack.model().capacityMah(),
                            pack.model().cells(),
                            Double.parseDouble(r.get("Charge %")),
                            Double.parseDouble(r.get("Wind m/s")),
                            8)
                    .fly(legs(r.get("Flown")));
            Instant start = TypedInput.date(r.get("Day"), today)
                    .atTime(TypedInput.time(r.get("Start")))
                    .atZone(zone)
                    .toInstant();
            boolean csv = r.get("Format").equals("csv");
            logs.bringInDirectly(
                    "simulated-" + r.get("Seed") + "." + r.get("Format"),
                    csv ? FlightSimulator.csv(start, samples) : FlightSimulator.gpx(start, samples, 40),
                    Optional.empty(),
                    new Flights.Attribution(
                            tables.named("AIRCRAFT", r.get("Aircraft")),
                            pack.id(),
                            tables.named("PILOT", r.get("Pilot")),
                            r.get("Job").isEmpty() ? null : tables.named("JOB", r.get("Job"))),
                    by);
        }
    }

    /** @param flown "grid", spacing, length and height, or "line", metres east and north and height */
    private static List<FlightSimulator.Leg> legs(String flown) {
        String[] words = flown.split(" ");
        double a = Double.parseDouble(words[1]);
        double b = Double.parseDouble(words[2]);
        double height = Double.parseDouble(words[3]);
        return words[0].equals("grid") ? grid(a, b, height) : line(a, b, height);
    }

    private static List<FlightSimulator.Leg> grid(double spacing, double length, double height) {
        List<FlightSimulator.Leg> legs = new ArrayList<>();
        legs.add(new FlightSimulator.Leg(0, 0, height, 2));
        for (int i = 0; i < 4; i++) {
            double x = -spacing * 1.5 + spacing * i;
            legs.add(new FlightSimulator.Leg(x, i % 2 == 0 ? 20 : length, height, 0));
            legs.add(new FlightSimulator.Leg(x, i % 2 == 0 ? length : 20, height, 0));
        }
        return legs;
    }

    private static List<FlightSimulator.Leg> line(double east, double north, double height) {
        return List.of(
                new FlightSimulator.Leg(0, 0, height, 3),
                new FlightSimulator.Leg(east, north * 0.2, height, 6),
                new FlightSimulator.Leg(east, north, height * 0.8, 8),
                new FlightSimulator.Leg(east * 0.4, north, height, 4));
    }
}
