package yarrek.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.flight.FlightFinder;
import yarrek.core.flight.FlightSummary;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.trace.Trace;
import yarrek.formats.csv.CsvLogReader;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.csv.PlanSuggester;
import yarrek.formats.gpx.GpxReader;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.weather.Metar;
import yarrek.formats.zones.ZoneFiles;

/**
 * Files with bytes changed, doubled, left out and cut, the same each time: every reader takes them or refuses them in words,
 * never with a fault of its own.
 */
class FuzzTest {
    private static final String METAR =
            "METAR XTAR 121350Z AUTO 24012G25KT 210V280 4000 1500SW R27/1200 -SHRA BR FEW008 BKN015CB 11/M02 Q0998 RERA TEMPO 3000 RMK A2=";
    private static final String NOTAM = """
            (A0101/26 NOTAMN
            Q) XTFX/QRTCA/IV/BO/W/000/012/4654N01630W003
            A) XTFX B) 2611280600 C) 2611301800 EST
            D) MON-FRI 0600-2000
            E) AREA WI 1NM RADIUS OF 465400N 0163000W AND WI 3NM RADIUS OF 470000N 0161500W
            F) SFC G) 120 M (400 FT) AGL)
            """;
    private static final String OPEN_AIR = """
            AC R
            AN Ring
            AL SFC
            AH 3000 ft MSL
            V X=46:54:00 N 016:30:00 W
            DC 1
            V D=-
            DB 46:58:00 N 016:30:00 W,46:50:00 N 016:30:00 W

            AC D
            AN Two
            AL 500 ft AGL
            AH FL 65
            DP 46:40:00 N 016:30:00 W
            DP 46:41:00 N 016:30:00 W
            DP 46:41:00 N 016:28:00 W
            """;
    private static final String GEO_JSON =
            "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"name\":\"Dune\",\"lower\":0,\"upper\":\"150 m AGL\"},\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[-16.5,46.9],[-16.4,46.9],[-16.4,47],[-16.5,46.9]]]}}]}";

    private static final String ED_269 = """
            {"title":"t","features":[{"identifier":"A1","country":"XQX","name":"Dune","type":"COMMON",
            "restriction":"REQ_AUTHORISATION","reason":["AIR_TRAFFIC"],"message":"ask",
            "zoneAuthority":[{"name":"tower","phone":"1","purpose":"AUTHORIZATION"}],
            "applicability":[{"startDateTime":"2026-01-01T00:00:00Z","endDateTime":"2027-01-01T00:00:00Z","permanent":"NO",
            "schedule":[{"day":["MON","TUE"],"startTime":"08:00:00Z","endTime":"16:00:00Z"}]}],
            "geometry":[{"uomDimensions":"M","lowerLimit":0,"lowerVerticalReference":"AGL","upperLimit":120,
            "upperVerticalReference":"AGL","horizontalProjection":{"type":"Polygon",
            "coordinates":[[[-16.5,46.9],[-16.4,46.9],[-16.4,47],[-16.5,46.9]]]}}]}]}
            """;
    private static final String ED_318 = """
            {"type":"FeatureCollection","features":[{"type":"Feature","properties":{"identifier":"B1","country":"XQX",
            "name":[{"text":"Dune","lang":"en-GB"}],"type":"PROHIBITED","variant":"COMMON",
            "limitedApplicability":[{"startDateTime":"2026-01-01T00:00:00Z","endDateTime":"2027-01-01T00:00:00Z"}]},
            "geometry":{"type":"Polygon","layer":{"lower":0,"lowerReference":"AGL","upper":120,"upperReference":"AGL","uom":"m"},
            "coordinates":[[[-16.5,46.9],[-16.4,46.9],[-16.4,47],[-16.5,46.9]]]}}]}
            """;
    private static final String KML =
            "<?xml version=\"1.0\"?><kml xmlns=\"http://www.opengis.net/kml/2.2\"><Document><Placemark><name>Dune</name><ExtendedData><Data name=\"upper\"><value>150 m AGL</value></Data></ExtendedData><Polygon><outerBoundaryIs><LinearRing><coordinates>-16.5,46.9 -16.4,46.9 -16.4,47 -16.5,46.9</coordinates></LinearRing></outerBoundaryIs></Polygon></Placemark></Document></kml>";

    private static byte[] file(String name) throws IOException {
        try (InputStream in = FuzzTest.class.getResourceAsStream("/logs/" + name)) {
            byte[] all = in.readAllBytes();
            if (all.length <= 20_000) {
                return all;
            }
            int end = 20_000;
            while (all[end - 1] != '\n') {
                end--;
            }
            return Arrays.copyOf(all, end);
        }
    }

    private static byte[] sample(String kind) throws IOException {
        return switch (kind) {
            case "GPX" -> file("found/clock-one-point-2034.gpx");
            case "CSV" -> file("out-and-back.csv");
            case "TSV" -> file("found/delta-agl-ft.tsv");
            case "METAR" -> METAR.getBytes(StandardCharsets.UTF_8);
            case "NOTAM" -> NOTAM.repeat(2).getBytes(StandardCharsets.UTF_8);
            case "ED-269" -> ED_269.getBytes(StandardCharsets.UTF_8);
            case "ED-318" -> ED_318.getBytes(StandardCharsets.UTF_8);
            case "KML" -> KML.getBytes(StandardCharsets.UTF_8);
            case "OpenAir" -> OPEN_AIR.getBytes(StandardCharsets.UTF_8);
            default -> GEO_JSON.getBytes(StandardCharsets.UTF_8);
        };
    }

    private static void read(String kind, byte[] content) throws BrokenFileException {
        switch (kind) {
            case "GPX" -> measure(GpxReader.read(content).trace());
            case "CSV", "TSV" -> {
                CsvSheet sheet = CsvSheet.look(content);
                measure(CsvLogReader.read(sheet, PlanSuggester.suggest(sheet)).trace());
            }
            case "METAR" ->
                Metar.read(new String(content, StandardCharsets.ISO_8859_1), Instant.parse("2027-06-12T14:10:00Z"));
            default ->
                ZoneFiles.read(
                        content,
                        new ZoneFiles.Settings(
                                ZoneKind.TEMPORARY, Optional.of(ZoneMet.Restriction.NEEDS_AUTHORISATION), true));
        }
    }

    private static void measure(Trace trace) {
        FlightFinder.find(trace).forEach(s -> {
            FlightSummary f = FlightSummary.of(trace, s);
            assertThat(f.pathM()).isNotNegative().isFinite();
            f.greatestSpeedMps().ifPresent(v -> assertThat(v).isFinite());
        });
    }

    private static byte[] mutated(byte[] whole, Random random) {
        List<Byte> bytes = new ArrayList<>(whole.length);
        for (byte b : whole) {
            bytes.add(b);
        }
        for (int n = 1 + random.nextInt(4); n > 0 && !bytes.isEmpty(); n--) {
            int at = random.nextInt(bytes.size());
            int length = Math.min(bytes.size() - at, 1 + random.nextInt(40));
            switch (random.nextInt(6)) {
                case 0 -> bytes.set(at, (byte) random.nextInt(256));
                case 1 -> bytes.set(at, (byte) "0123456789.,-:;<>{}\"\n\tEZ/".charAt(random.nextInt(25)));
                case 2 -> bytes.subList(at, at + length).clear();
                case 3 -> bytes.addAll(at, new ArrayList<>(bytes.subList(at, at + length)));
                case 4 -> bytes.add(at, (byte) 0);
                default -> {
                    if (random.nextInt(4) == 0) {
                        bytes.subList(at, bytes.size()).clear();
                    }
                }
            }
        }
        byte[] out = new byte[bytes.size()];
        for (int i = 0; i < out.length; i++) {
            out[i] = bytes.get(i);
        }
        return out;
    }

    @ParameterizedTest
    @ValueSource(strings = {"GPX", "CSV", "TSV", "METAR", "NOTAM", "OpenAir", "GeoJSON", "KML", "ED-269", "ED-318"})
    void damagedFilesAreReadOrRefusedInWords(String kind) throws Exception {
        byte[] whole = sample(kind);
        read(kind, whole);
        int rounds = whole.length > 5000 ? 150 : 800;
        for (int seed = 0; seed < rounds; seed++) {
            byte[] damaged = mutated(whole, new Random(seed));
            try {
                read(kind, damaged);
            } catch (BrokenFileException e) {
                assertThat(e.getMessage()).as(kind + " " + seed).isNotBlank();
            } catch (IllegalArgumentException e) {
                // reports are refused so, in words that quote them
                assertThat(kind).as(seed + ": " + e).isEqualTo("METAR");
                assertThat(e.getMessage()).isNotBlank();
            }
        }
    }
}
