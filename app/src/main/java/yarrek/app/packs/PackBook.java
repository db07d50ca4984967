package yarrek.app.packs;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import yarrek.app.fleet.Fleet;
import yarrek.app.flights.Flights;
import yarrek.app.office.Office;
import yarrek.core.pack.PackStanding;
import yarrek.core.pack.PackStanding.Limits;
import yarrek.core.pack.PackStanding.OnFile;

/** All packs with how they stand today, the most pressing first. */
@Service
public class PackBook {
    /** @param lastFlown local to the operator; null when no flight is on file */
    public record Line(Fleet.PackView pack, LocalDate lastFlown, PackStanding standing) {}

    private final Fleet fleet;
    private final Flights flights;
    private final Office office;
    private final Clock clock;

    PackBook(Fleet fleet, Flights flights, Office office, Clock clock) {
        this.fleet = fleet;
        this.flights = flights;
        this.office = office;
        this.clock = clock;
    }

    public List<Line> lines() {
        ZoneId zone = office.operator().zone();
        LocalDate today = LocalDate.now(clock.withZone(zone));
        Map<UUID, Instant> flown = flights.lastFlownByPack();
        return fleet.packs().stream()
                .map(p -> {
                    LocalDate last = Optional.ofNullable(flown.get(p.id()))
                            .map(i -> LocalDate.ofInstant(i, zone))
                            .orElse(null);
                    OnFile onFile = new OnFile(p.equivalentCycles(), p.flightsWithoutCharge(), p.boughtOn(), last);
                    return new Line(p, last, PackStanding.of(onFile, today, Limits.HOUSE));
                })
                .sorted(Comparator.comparing((Line l) -> l.standing().keep()).reversed()) // stable: by label within
                .toList();
    }
}
