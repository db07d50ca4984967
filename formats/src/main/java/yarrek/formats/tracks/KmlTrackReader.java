package yarrek.formats.tracks;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import yarrek.core.time.Patience;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;

/**
 * KML tracks: {@code gx:Track} or {@code Track}, one or several, each with its times, places, angles and arrays of data. A
 * document type declaration is refused, so nothing is expanded or fetched.
 */
public final class KmlTrackReader {
    private static final int MOST_POINTS = 8_640_000;

    private final PointTable table = new PointTable();
    private final List<String> notes = new ArrayList<>();
    private boolean seen;

    private KmlTrackReader() {}

    /** Whether XML that begins so is KML. */
    public static boolean begins(String head) {
        return head.matches("(?s).*<(\\w+:)?kml\\b.*");
    }

    public static LogReading read(byte[] content) throws BrokenFileException {
        return new KmlTrackReader().readAll(content);
    }

    private LogReading readAll(byte[] content) throws BrokenFileException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        factory.setXMLResolver((publicId, systemId, base, namespace) -> {
            throw new XMLStreamException("external entities are not read");
        });
        boolean truncated = false;
        Track track = new Track();
        try {
            XMLStreamReader xml = factory.createXMLStreamReader(new ByteArrayInputStream(content));
            while (xml.hasNext()) {
                Patience.ask();
                int event = xml.next();
                if (event == XMLStreamConstants.DTD) {
                    throw new BrokenFileException(
                            "kml.doctype",
                            "the file carries a document type declaration (DOCTYPE), which could name or multiply outside content; it is refused unread. Export the track again without it.");
                }
                if (event == XMLStreamConstants.START_ELEMENT) {
                    begin(xml, track);
                } else if (event == XMLStreamConstants.END_ELEMENT
                        && xml.getLocalName().equals("Track")) {
                    track.into(table, notes);
                    track = new Track();
                }
            }
        } catch (XMLStreamException e) {
            if (!seen || (track.when.isEmpty() && table.points() == 0)) {
                throw new BrokenFileException(
                        "kml.xml", "this is not well-formed KML: " + reason(e) + "; export the track again", e);
            }
            track.into(table, notes);
            truncated = true;
            notes.add("the file breaks off or is damaged (" + reason(e) + "); the flight is read up to there");
        }
        if (!seen) {
            throw new BrokenFileException(
                    "kml.track",
                    "the file holds no track with times (gx:Track); a line or a place alone says nothing of when it was flown");
        }
        return table.read("kml", truncated, notes);
    }

    private static String reason(XMLStreamException e) {
        return (e.getLocation() == null ? "" : "line " + e.getLocation().getLineNumber() + ": ")
                + String.valueOf(e.getMessage())
                        .replaceAll("(?s).*Message: ", "")
                        .replaceAll("\\s+", " ");
    }

    private void begin(XMLStreamReader xml, Track track) throws XMLStreamException, BrokenFileException {
        switch (xml.getLocalName()) {
            case "Track" -> seen = true;
            case "when" -> track.when.add(text(xml));
            case "coord" -> track.coords.add(text(xml).split("[\\s,]+"));
            case "angles" -> track.angles.add(text(xml).split("[\\s,]+"));
            case "altitudeMode" -> track.absolute = text(xml).equals("absolute");
            case "SimpleArrayData" -> {
                String name = xml.getAttributeValue(null, "name");
                track.array = track.arrays.computeIfAbsent(name == null ? "" : name.strip(), k -> new ArrayList<>());
            }
            case "value" -> {
                if (track.array != null) {
                    track.array.add(text(xml));
                }
            }
            default -> {
                // not of a track
            }
        }
        if (track.when.size() > MOST_POINTS) {
            throw new BrokenFileException("kml.points", "the track has more than " + MOST_POINTS + " points; split it");
        }
    }

    private static String text(XMLStreamReader xml) throws XMLStreamException {
        return xml.getElementText().strip();
    }

    /** A track as it stands: its lists go by place. */
    private static final class Track {
        private final List<String> when = new ArrayList<>();
        private final List<String[]> coords = new ArrayList<>();
        private final List<String[]> angles = new ArrayList<>();
        private final Map<String, List<String>> arrays = new LinkedHashMap<>();
        private List<String> array;
        private boolean absolute;

        void into(PointTable table, List<String> notes) {
            int points = Math.min(when.size(), coords.size());
            if (points < Math.max(when.size(), coords.size())) {
                notes.add("a track has " + when.size() + " times and " + coords.size() + " places; the first " + points
                        + " are read");
            }
            if (!absolute && points > 0) {
                notes.add(
                        "a track gives heights above the ground or none; they are taken as above take-off, which only holds"
                                + " over level ground");
            }
            table.track();
            for (int i = 0; i < points; i++) {
                String[] c = coords.get(i);
                if (c.length < 2) {
                    continue;
                }
                Map<String, String> cells = PointTable.cells(when.get(i), c[1], c[0]);
                if (c.length > 2) {
                    cells.put(absolute ? PointTable.ALTITUDE : PointTable.HEIGHT, c[2]);
                }
                if (i < angles.size() && angles.get(i).length == 3) {
                    cells.put("heading deg", angles.get(i)[0]);
                }
                int at = i;
                arrays.forEach((name, values) -> {
                    if (at < values.size() && !name.isEmpty()) {
                        cells.putIfAbsent(name, values.get(at));
                    }
                });
                table.point(cells);
            }
        }
    }
}
