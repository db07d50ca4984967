package yarrek.formats.maps;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import yarrek.formats.log.BrokenFileException;

/** Reads and writes map files, known by what stands in them and not by their name. */
public final class MapFiles {
    /** Features of one file; more are refused. */
    public static final int MOST_FEATURES = 100_000;

    /** Formats written. */
    public enum Format {
        GEOJSON("geojson", "application/geo+json"),
        KML("kml", "application/xml"),
        GPX("gpx", "application/gpx+xml");

        private final String ending;
        private final String mediaType;

        Format(String ending, String mediaType) {
            this.ending = ending;
            this.mediaType = mediaType;
        }

        public String ending() {
            return ending;
        }

        public String mediaType() {
            return mediaType;
        }

        /** @throws IllegalArgumentException when there is none of that name */
        public static Format of(String ending) {
            for (Format f : values()) {
                if (f.ending.equals(ending)) {
                    return f;
                }
            }
            throw new IllegalArgumentException("“" + ending + "” is no map format; geojson, kml or gpx are");
        }
    }

    private MapFiles() {}

    /** @throws BrokenFileException when it is none of the three, or has a fault, with every fault named */
    public static List<MapFeature> read(byte[] content) throws BrokenFileException {
        String text = text(content);
        String head = text.stripLeading();
        if (head.startsWith("{")) {
            return GeoJsonMap.read(text);
        }
        if (head.startsWith("<")) {
            return XmlMap.read(content);
        }
        throw new BrokenFileException("map.format", "this is neither GeoJSON, KML nor GPX; export it as one of these");
    }

    public static byte[] write(Format format, String title, List<MapFeature> features) {
        return (switch (format) {
                    case GEOJSON -> GeoJsonMap.write(features);
                    case KML -> XmlMap.writeKml(title, features);
                    case GPX -> XmlMap.writeGpx(title, features);
                })
                .getBytes(StandardCharsets.UTF_8);
    }

    /** Strictly as UTF-8, without the byte order mark. */
    public static String text(byte[] content) throws BrokenFileException {
        try {
            String s = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(content))
                    .toString();
            return s.startsWith("\uFEFF") ? s.substring(1) : s;
        } catch (CharacterCodingException e) {
            throw new BrokenFileException(
                    "map.encoding",
                    "the file is not UTF-8 text: " + e.getMessage().toLowerCase(Locale.ROOT)
                            + "; save it again as UTF-8",
                    e);
        }
    }
}
