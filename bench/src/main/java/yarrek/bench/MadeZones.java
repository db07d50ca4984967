package yarrek.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.ZoneMet;
import yarrek.formats.zones.ZoneGeoJson;

/** Many zones of many sizes and shapes over a country of about 900 by 900 km, always the same. */
final class MadeZones {
    private MadeZones() {}

    static List<Zone> zones(int count) {
        Random random = new Random(5);
        ZoneKind[] kinds = ZoneKind.values();
        ZoneMet.Restriction[] asks = ZoneMet.Restriction.values();
        List<Zone> zones = new ArrayList<>(count);
        for (int i = 0; i < count; i++) {
            Position middle = new Position(42 + random.nextDouble() * 8, -24 + random.nextDouble() * 12);
            double size = 200 * Math.exp(random.nextDouble() * 4.2);
            List<Position> corners = new ArrayList<>();
            int n = 5 + random.nextInt(30);
            for (int c = 0; c < n; c++) {
                corners.add(Geodesy.destination(middle, 360.0 * c / n, size * (0.6 + random.nextDouble() * 0.4)));
            }
            zones.add(new Zone(
                    "Z" + i,
                    "zone " + i,
                    kinds[random.nextInt(kinds.length)],
                    Optional.empty(),
                    asks[random.nextInt(asks.length)],
                    Area.of(corners),
                    i % 4 == 0 ? HeightLimit.aboveSea(random.nextInt(600)) : HeightLimit.SURFACE,
                    i % 3 == 0 ? HeightLimit.UNLIMITED : HeightLimit.aboveGround(120 + random.nextInt(900)),
                    Timetable.ALWAYS,
                    OptionalDouble.empty(),
                    "invented for measuring",
                    "",
                    ""));
        }
        return zones;
    }

    static byte[] geoJson(List<Zone> zones) {
        StringBuilder s = new StringBuilder("{\"type\":\"FeatureCollection\",\"features\":[");
        for (int i = 0; i < zones.size(); i++) {
            s.append(i == 0 ? "" : ",").append(ZoneGeoJson.write(zones.get(i)));
        }
        return s.append("]}").toString().getBytes(java.nio.charset.StandardCharsets.UTF_8);
    }

    /** Writes a file of zones to bring in by hand: the path, and how many. */
    public static void main(String[] args) throws java.io.IOException {
        java.nio.file.Files.write(java.nio.file.Path.of(args[0]), geoJson(zones(Integer.parseInt(args[1]))));
    }
}
