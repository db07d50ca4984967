package yarrek.core.airspace;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.index.strtree.STRtree;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.time.Patience;

/** Zones to be found by place; built once, safe to read from many threads. */
public final class ZoneIndex {
    /** Metres in a degree of latitude, the least (at the equator 110,574 m). */
    private static final double DEGREE_M = 110_574;

    private static final double[] RINGS_M = {10_000, 50_000, 250_000, 1_000_000};

    private final List<Zone> zones;
    private final Set<ZoneKind> kinds = java.util.EnumSet.noneOf(ZoneKind.class);
    private final STRtree tree = new STRtree();

    public ZoneIndex(List<Zone> zones) {
        this.zones = List.copyOf(zones);
        for (Zone z : zones) {
            Patience.ask();
            Area a = z.area();
            kinds.add(z.kind());
            for (int turn = -1; turn <= 1; turn++) {
                // a box across the 180th meridian is found from either side
                double west = a.minLongitudeDeg() + 360 * turn;
                double east = a.maxLongitudeDeg() + 360 * turn;
                if (east >= -180 && west <= 180) {
                    tree.insert(new Envelope(west, east, a.minLatitudeDeg(), a.maxLatitudeDeg()), z);
                }
            }
        }
        tree.build();
    }

    public List<Zone> all() {
        return zones;
    }

    /** Zones whose box meets a box in degrees; west may be below -180 or east above 180. */
    @SuppressWarnings("unchecked") // the tree holds only zones
    public Set<Zone> inBox(double south, double west, double north, double east) {
        Set<Zone> found = new LinkedHashSet<>();
        for (int turn = -1; turn <= 1; turn++) {
            double w = Math.max(-180, west + 360 * turn);
            double e = Math.min(180, east + 360 * turn);
            if (w <= e) {
                found.addAll(tree.query(new Envelope(w, e, south, north)));
            }
        }
        return found;
    }

    /** Zones whose box comes within a distance of an area's box. */
    public Set<Zone> near(Area area, double metres) {
        double lat = metres / DEGREE_M;
        double widest = Math.min(89, Math.max(Math.abs(area.minLatitudeDeg()), Math.abs(area.maxLatitudeDeg())) + lat);
        double lon = Math.min(180, lat / Math.cos(Math.toRadians(widest)));
        return inBox(
                area.minLatitudeDeg() - lat,
                area.minLongitudeDeg() - lon,
                area.maxLatitudeDeg() + lat,
                area.maxLongitudeDeg() + lon);
    }

    /** Zones that hold a point, at whatever height. */
    public List<Zone> at(Position p) {
        return inBox(p.latitudeDeg(), p.longitudeDeg(), p.latitudeDeg(), p.longitudeDeg()).stream()
                .filter(z -> z.area().locate(p.latitudeDeg(), p.longitudeDeg()) != Area.Side.OUTSIDE)
                .toList();
    }

    /** The zone of a kind nearest to an area, looked for within 1,000 km; empty when there is none on file. */
    public Optional<Zone> nearest(Area area, ZoneKind kind) {
        if (!kinds.contains(kind)) {
            return Optional.empty();
        }
        for (double ring : RINGS_M) {
            List<Zone> found = new ArrayList<>(near(area, ring));
            found.removeIf(z -> z.kind() != kind);
            Optional<Zone> best =
                    found.stream().min(Comparator.comparingDouble(z -> z.area().distanceM(area)));
            if (best.isPresent() && best.get().area().distanceM(area) <= ring) {
                return best;
            }
        }
        return Optional.empty();
    }
}
