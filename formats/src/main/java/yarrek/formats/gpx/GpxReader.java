package yarrek.formats.gpx;

import java.io.ByteArrayInputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import yarrek.core.trace.Channel;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.log.Numbers;
import yarrek.formats.log.Problem;
import yarrek.formats.log.TraceBuilder;

/**
 * Reads track points of GPX 1.1 (and 1.0): latitude, longitude in degrees, elevation in metres above sea level, time, and
 * speed and course where an extension names them so. Routes and waypoints are passed over. Document type declarations are
 * refused, so no entity is ever expanded or fetched. A file that breaks off yields the points before the break.
 */
public final class GpxReader {
    private static final int MAX_TEXT = 4096;
    private static final Pattern ENCODING = Pattern.compile("<\\?xml[^>]*encoding\\s*=");

    private record Point(long line, double lat, double lon, double ele, Instant time, double speed, double course) {}

    private final TraceBuilder builder = new TraceBuilder();
    private final List<List<Point>> segments = new ArrayList<>();
    private boolean rootSeen;
    private int points;

    private GpxReader() {}

    /** @throws BrokenFileException when it is not GPX, carries a document type declaration, or holds no timed point */
    public static LogReading read(byte[] content) throws BrokenFileException {
        GpxReader reader = new GpxReader();
        return reader.readAll(reader.asDeclared(content));
    }

    /** Files that say UTF-8, or nothing, but hold Western European bytes are read as such, and that is told. */
    private byte[] asDeclared(byte[] content) {
        String head = new String(content, 0, Math.min(content.length, 200), StandardCharsets.ISO_8859_1);
        boolean utf16 = content.length > 1 && (content[0] == (byte) 0xFF || content[0] == (byte) 0xFE);
        boolean saysOther =
                ENCODING.matcher(head).find() && !head.toLowerCase(Locale.ROOT).contains("utf-8");
        if (utf16 || saysOther) {
            return content;
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(content));
            return content;
        } catch (CharacterCodingException e) {
            if (endsInsideACharacter(content)) {
                return content; // only the end is cut off; the reader tells of that
            }
            builder.note("the file says it is UTF-8 but is not; it is read as Western European text (windows-1252)");
            return new String(content, Charset.forName("windows-1252")).getBytes(StandardCharsets.UTF_8);
        }
    }

    private static boolean endsInsideACharacter(byte[] content) {
        for (int back = 1; back <= 3 && back < content.length; back++) {
            try {
                StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(content, 0, content.length - back));
                return true;
            } catch (CharacterCodingException e) {
                // not cut there; look one byte further back
            }
        }
        return false;
    }

    private LogReading readAll(byte[] content) throws BrokenFileException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setXMLResolver((publicId, systemId, base, namespace) -> {
            throw new XMLStreamException("external entities are not read");
        });
        boolean truncated = false;
        try {
            XMLStreamReader xml = factory.createXMLStreamReader(new ByteArrayInputStream(content));
            try {
                walk(xml);
            } finally {
                xml.close();
            }
        } catch (XMLStreamException | RuntimeException e) {
            if (e instanceof RuntimeException unexpected && !(e.getCause() instanceof java.io.IOException)) {
                throw unexpected;
            }
            if (!rootSeen || points == 0) {
                throw new BrokenFileException(
                        "gpx.xml",
                        "this is not well-formed GPX: " + reason(e) + "; export the track again as GPX 1.1",
                        e);
            }
            truncated = true;
            builder.note("the file breaks off or is damaged (" + reason(e) + "); the flight is read up to there");
        }
        segments.removeIf(List::isEmpty);
        segments.sort(Comparator.comparing(s -> firstTime(s)));
        Instant last = Instant.MIN;
        for (List<Point> segment : segments) {
            if (firstTime(segment).isBefore(last)) {
                throw new BrokenFileException(
                        "gpx.overlap",
                        "two tracks in this file overlap in time; save each flight as a file of its own");
            }
            for (Point p : segment) {
                emit(p);
                last = p.time() != null && p.time().isAfter(last) ? p.time() : last;
            }
        }
        return builder.build(truncated);
    }

    private static Instant firstTime(List<Point> segment) {
        return segment.stream()
                .map(Point::time)
                .filter(t -> t != null)
                .findFirst()
                .orElse(Instant.MAX);
    }

    private void emit(Point p) throws BrokenFileException {
        if (!builder.row(p.time(), p.line())) {
            return;
        }
        if (Double.isNaN(p.lat()) || Double.isNaN(p.lon())) {
            builder.problem(new Problem(
                    "gpx.position.invalid",
                    p.line(),
                    "trkpt",
                    "",
                    "lat and lon in degrees, such as lat=\"46.6123\"; the position is left out"));
            return;
        }
        if (builder.position(p.lat(), p.lon())) {
            builder.put(Channel.ALTITUDE_MSL_M, p.ele());
            builder.put(Channel.GROUND_SPEED_MPS, p.speed());
            builder.put(Channel.HEADING_DEG, p.course());
        }
    }

    private void walk(XMLStreamReader xml) throws XMLStreamException, BrokenFileException {
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.DTD) {
                throw new BrokenFileException(
                        "gpx.doctype",
                        "the file carries a document type declaration (DOCTYPE), which could name or multiply outside content; it is refused unread. Export the track again without it.");
            }
            if (event != XMLStreamConstants.START_ELEMENT) {
                continue;
            }
            String name = xml.getLocalName();
            if (!rootSeen) {
                if (!name.equals("gpx")) {
                    throw new BrokenFileException(
                            "gpx.root",
                            "the first element is <" + name + ">, not <gpx>; "
                                    + (name.equals("kml")
                                            ? "this is a KML file: export the track as GPX 1.1"
                                            : "this is not a GPX file"));
                }
                rootSeen = true;
            } else if (name.equals("trkseg")) {
                segments.add(new ArrayList<>());
            } else if (name.equals("trkpt")) {
                if (segments.isEmpty()) {
                    segments.add(new ArrayList<>());
                }
                Point p = point(xml);
                segments.get(segments.size() - 1).add(p);
                points++;
            }
        }
    }

    private Point point(XMLStreamReader xml) throws XMLStreamException {
        long line = xml.getLocation().getLineNumber();
        double lat = number(xml.getAttributeValue(null, "lat"));
        double lon = number(xml.getAttributeValue(null, "lon"));
        double ele = Double.NaN;
        double speed = Double.NaN;
        double course = Double.NaN;
        Instant time = null;
        int depth = 1;
        while (depth > 0) {
            int event = xml.next();
            if (event == XMLStreamConstants.END_ELEMENT) {
                depth--;
            } else if (event == XMLStreamConstants.START_ELEMENT) {
                switch (xml.getLocalName()) {
                    case "ele" -> ele = checked(text(xml), line, "ele", "metres above sea level, such as 412.5");
                    case "speed" -> speed = checked(text(xml), line, "speed", "metres per second, such as 8.2");
                    case "course" -> course = checked(text(xml), line, "course", "degrees, such as 270");
                    case "time" -> time = time(text(xml), line);
                    default -> depth++;
                }
            }
        }
        return new Point(line, lat, lon, ele, time, speed, course);
    }

    private static String text(XMLStreamReader xml) throws XMLStreamException {
        String s = xml.getElementText().strip();
        return s.length() > MAX_TEXT ? s.substring(0, MAX_TEXT) : s;
    }

    private static double number(String s) {
        return s == null ? Double.NaN : Numbers.parse(s.strip(), false);
    }

    private double checked(String s, long line, String field, String accepted) {
        double v = number(s);
        if (Double.isNaN(v)) {
            builder.problem(new Problem("gpx.number.invalid", line, field, s, accepted + "; the figure is left out"));
        }
        return v;
    }

    private Instant time(String s, long line) {
        try {
            return OffsetDateTime.parse(s).toInstant();
        } catch (DateTimeException e) {
            try {
                Instant t = LocalDateTime.parse(s).toInstant(ZoneOffset.UTC);
                builder.note("times carry no zone; GPX times are taken as UTC");
                return t;
            } catch (DateTimeException again) {
                builder.problem(new Problem(
                        "gpx.time.invalid",
                        line,
                        "time",
                        s,
                        "UTC such as 2026-09-14T09:12:30Z; the point is left out"));
                return null;
            }
        }
    }

    private static String reason(Exception e) {
        String m = e instanceof XMLStreamException x && x.getLocation() != null
                ? "line " + x.getLocation().getLineNumber() + ": "
                        + x.getMessage().replaceAll("(?s).*Message: ", "")
                : String.valueOf(e.getMessage());
        return m.replaceAll("\\s+", " ").strip();
    }
}
