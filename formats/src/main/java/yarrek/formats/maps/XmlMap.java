package yarrek.formats.maps;

import java.io.ByteArrayInputStream;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.XMLStreamWriter;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.Numbers;

/**
 * KML 2.2 placemarks and GPX 1.1 waypoints, routes and tracks. Document type declarations are refused, so no entity is
 * expanded and nothing is fetched. A KML altitude is passed over.
 */
final class XmlMap {
    private static final int MOST_TEXT = 20_000_000;

    private final List<MapFeature> features = new ArrayList<>();
    private final List<String> problems = new ArrayList<>();
    private final XMLStreamReader xml;

    private XmlMap(XMLStreamReader xml) {
        this.xml = xml;
    }

    static List<MapFeature> read(byte[] content) throws BrokenFileException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setXMLResolver((publicId, systemId, base, namespace) -> {
            throw new XMLStreamException("external entities are not read");
        });
        try {
            XMLStreamReader xml = factory.createXMLStreamReader(new ByteArrayInputStream(content));
            XmlMap map = new XmlMap(xml);
            map.walk();
            if (!map.problems.isEmpty()) {
                throw new BrokenMapException("map.geometry", map.problems);
            }
            return map.features;
        } catch (XMLStreamException e) {
            throw new BrokenFileException(
                    "map.xml",
                    "this is not well-formed XML: "
                            + String.valueOf(e.getMessage()).replaceAll("\\s+", " ") + "; nothing was taken",
                    e);
        }
    }

    private void walk() throws XMLStreamException, BrokenFileException {
        boolean rootSeen = false;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.DTD) {
                throw new BrokenFileException(
                        "map.doctype", "the file has a document type declaration; such are not read");
            }
            if (event != XMLStreamConstants.START_ELEMENT) {
                continue;
            }
            String name = xml.getLocalName();
            if (!rootSeen) {
                rootSeen = true;
                if (!name.equals("kml") && !name.equals("gpx")) {
                    throw new BrokenFileException("map.root", "found <" + name + ">; <kml> or <gpx> is expected");
                }
            }
            switch (name) {
                case "Placemark" -> placemark();
                case "wpt" -> waypoint();
                case "rte" -> track("rte", "rtept");
                case "trk" -> track("trk", "trkpt");
                default -> {
                    // folders, styles and metadata are passed over
                }
            }
            if (features.size() > MapFiles.MOST_FEATURES) {
                throw new BrokenFileException(
                        "map.size", "the file has more than " + MapFiles.MOST_FEATURES + " features");
            }
        }
    }

    private void placemark() throws XMLStreamException {
        int number = features.size() + problems.size() + 1;
        long line = xml.getLocation().getLineNumber();
        String name = "";
        Map<String, String> properties = new LinkedHashMap<>();
        List<List<Position>> points = new ArrayList<>();
        List<Area.Patch> patches = new ArrayList<>();
        List<Position> outline = null;
        List<List<Position>> holes = new ArrayList<>();
        boolean inner = false;
        String key = "";
        String problem = null;
        int depth = 1;
        while (depth > 0 && xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.END_ELEMENT) {
                depth--;
                if (xml.getLocalName().equals("Polygon") && outline != null) {
                    patches.add(new Area.Patch(outline, holes));
                    outline = null;
                    holes = new ArrayList<>();
                }
            } else if (event == XMLStreamConstants.START_ELEMENT) {
                depth++;
                switch (xml.getLocalName()) {
                    case "name" -> {
                        if (name.isEmpty() && depth == 2) {
                            name = text();
                            depth--;
                        }
                    }
                    case "description" -> {
                        properties.put("description", text());
                        depth--;
                    }
                    case "Data", "SimpleData" -> {
                        key = String.valueOf(xml.getAttributeValue(null, "name"));
                        if (xml.getLocalName().equals("SimpleData")) {
                            properties.put(key, text());
                            depth--;
                        }
                    }
                    case "value" -> {
                        properties.put(key, text());
                        depth--;
                    }
                    case "innerBoundaryIs" -> inner = true;
                    case "outerBoundaryIs" -> inner = false;
                    case "coordinates" -> {
                        try {
                            List<Position> c = coordinates(text());
                            depth--;
                            if (ringOf(outline, inner)) {
                                holes.add(c);
                            } else {
                                outline = keep(c, points, outline);
                            }
                        } catch (IllegalArgumentException e) {
                            depth--;
                            problem = e.getMessage();
                        }
                    }
                    case "Point", "LineString" -> outline = null;
                    case "Polygon" -> outline = List.of();
                    default -> {
                        // styles and the like
                    }
                }
            }
        }
        if (problem != null) {
            problems.add("feature " + number + (name.isEmpty() ? "" : " (" + name + ")") + ", line " + line
                    + ", coordinates: " + problem);
            return;
        }
        if (!patches.isEmpty()) {
            features.add(new MapFeature(number, name, properties, List.of(), patches));
        }
        for (List<Position> p : points) {
            features.add(new MapFeature(number, name, properties, p, List.of()));
        }
    }

    private static boolean ringOf(List<Position> outline, boolean inner) {
        return inner && outline != null && !outline.isEmpty();
    }

    /** Outside a polygon the coordinates are a point or a line; inside they are its outline. */
    private static List<Position> keep(List<Position> c, List<List<Position>> points, List<Position> outline) {
        if (outline == null) {
            points.add(c);
            return null;
        }
        return c;
    }

    private static List<Position> coordinates(String text) {
        List<Position> found = new ArrayList<>();
        for (String tuple : text.strip().split("\\s+")) {
            String[] p = tuple.split(",");
            double lon = p.length >= 2 ? Numbers.parse(p[0], false) : Double.NaN;
            double lat = p.length >= 2 ? Numbers.parse(p[1], false) : Double.NaN;
            if (Double.isNaN(lon) || Double.isNaN(lat)) {
                throw new IllegalArgumentException("found \"" + (tuple.length() > 64 ? tuple.substring(0, 64) : tuple)
                        + "\"; longitude,latitude in degrees is expected, such as -17.9,46.6");
            }
            found.add(new Position(lat, lon));
        }
        return found;
    }

    private void waypoint() throws XMLStreamException {
        int number = features.size() + problems.size() + 1;
        Position at = point("waypoint " + number);
        Map<String, String> properties = new LinkedHashMap<>();
        String name = named("wpt", properties);
        if (at != null) {
            features.add(new MapFeature(number, name, properties, List.of(at), List.of()));
        }
    }

    private String named(String end, Map<String, String> properties) throws XMLStreamException {
        String name = "";
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.END_ELEMENT && xml.getLocalName().equals(end)) {
                break;
            }
            if (event == XMLStreamConstants.START_ELEMENT) {
                switch (xml.getLocalName()) {
                    case "name" -> name = text();
                    case "desc" -> properties.put("description", text());
                    case "type" -> properties.put("kind", text());
                    default -> {
                        // elevation, time and the like
                    }
                }
            }
        }
        return name;
    }

    private void track(String end, String pointName) throws XMLStreamException {
        int number = features.size() + problems.size() + 1;
        String name = "";
        Map<String, String> properties = new LinkedHashMap<>();
        List<Position> points = new ArrayList<>();
        boolean inPoint = false;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.END_ELEMENT) {
                inPoint &= !xml.getLocalName().equals(pointName);
                if (xml.getLocalName().equals(end)) {
                    break;
                }
            } else if (event == XMLStreamConstants.START_ELEMENT) {
                String element = xml.getLocalName();
                if (element.equals(pointName)) {
                    inPoint = true;
                    Position p = point(end + " " + number + ", point " + (points.size() + 1));
                    if (p != null) {
                        points.add(p);
                    }
                } else if (!inPoint && element.equals("name")) {
                    name = text();
                } else if (!inPoint && element.equals("type")) {
                    properties.put("kind", text());
                }
            }
        }
        if (points.size() > 1) {
            features.add(new MapFeature(number, name, properties, points, List.of()));
        } else if (points.size() == 1) {
            problems.add(end + " " + number + (name.isEmpty() ? "" : " (" + name + ")")
                    + ": a line needs at least two points, found 1");
        }
    }

    private Position point(String where) {
        String lat = String.valueOf(xml.getAttributeValue(null, "lat"));
        String lon = String.valueOf(xml.getAttributeValue(null, "lon"));
        try {
            return new Position(Numbers.parse(lat, false), Numbers.parse(lon, false));
        } catch (IllegalArgumentException e) {
            problems.add(where + ", line " + xml.getLocation().getLineNumber() + ", lat and lon: found \"" + lat
                    + "\", \"" + lon + "\"; degrees are expected, such as 46.6 and -17.9");
            return null;
        }
    }

    private String text() throws XMLStreamException {
        String text = xml.getElementText();
        if (text.length() > MOST_TEXT) {
            throw new XMLStreamException("an element holds more than " + MOST_TEXT + " characters");
        }
        return text.strip();
    }

    // --- writing -----------------------------------------------------------------------------------------------------

    private interface Body {
        void write(XMLStreamWriter x) throws XMLStreamException;
    }

    private static String document(Body body) {
        StringWriter out = new StringWriter();
        try {
            XMLStreamWriter x = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(out);
            x.writeStartDocument("UTF-8", "1.0");
            body.write(x);
            x.writeEndDocument();
            x.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException("writing to memory", e);
        }
        return out.toString();
    }

    private static void leaf(XMLStreamWriter x, String name, String text) throws XMLStreamException {
        x.writeStartElement(name);
        x.writeCharacters(printable(text));
        x.writeEndElement();
    }

    /** XML 1.0 has no place for most control characters. */
    private static String printable(String s) {
        return s.replaceAll("[\\x00-\\x08\\x0B\\x0C\\x0E-\\x1F]", " ");
    }

    static String writeKml(String title, List<MapFeature> features) {
        return document(x -> {
            x.writeStartElement("kml");
            x.writeDefaultNamespace("http://www.opengis.net/kml/2.2");
            x.writeStartElement("Document");
            leaf(x, "name", title);
            for (MapFeature f : features) {
                x.writeStartElement("Placemark");
                leaf(x, "name", f.name());
                if (!f.properties().isEmpty()) {
                    x.writeStartElement("ExtendedData");
                    for (Map.Entry<String, String> e : f.properties().entrySet()) {
                        x.writeStartElement("Data");
                        x.writeAttribute("name", e.getKey());
                        leaf(x, "value", e.getValue());
                        x.writeEndElement();
                    }
                    x.writeEndElement();
                }
                if (f.isArea()) {
                    x.writeStartElement("MultiGeometry");
                    for (Area.Patch p : f.patches()) {
                        x.writeStartElement("Polygon");
                        ring(x, "outerBoundaryIs", p.outline());
                        for (List<Position> h : p.holes()) {
                            ring(x, "innerBoundaryIs", h);
                        }
                        x.writeEndElement();
                    }
                    x.writeEndElement();
                } else {
                    x.writeStartElement(f.isLine() ? "LineString" : "Point");
                    leaf(x, "coordinates", tuples(f.points()));
                    x.writeEndElement();
                }
                x.writeEndElement();
            }
            x.writeEndElement();
            x.writeEndElement();
        });
    }

    private static void ring(XMLStreamWriter x, String boundary, List<Position> ring) throws XMLStreamException {
        List<Position> closed = new ArrayList<>(ring);
        closed.add(ring.get(0));
        x.writeStartElement(boundary);
        x.writeStartElement("LinearRing");
        leaf(x, "coordinates", tuples(closed));
        x.writeEndElement();
        x.writeEndElement();
    }

    private static String tuples(List<Position> points) {
        StringBuilder s = new StringBuilder();
        points.forEach(p -> s.append(String.format(Locale.ROOT, "%.7f,%.7f ", p.longitudeDeg(), p.latitudeDeg())));
        return s.toString().strip();
    }

    /** GPX has no areas: their outlines, and the outlines of their holes, are written as closed routes. */
    static String writeGpx(String title, List<MapFeature> features) {
        return document(x -> {
            x.writeStartElement("gpx");
            x.writeDefaultNamespace("http://www.topografix.com/GPX/1/1");
            x.writeAttribute("version", "1.1");
            x.writeAttribute("creator", "Yarrek");
            x.writeStartElement("metadata");
            leaf(x, "name", title);
            x.writeEndElement();
            for (MapFeature f : features) {
                if (!f.isArea() && !f.isLine()) {
                    gpxPoint(x, "wpt", f.points().get(0), f);
                }
            }
            for (MapFeature f : features) {
                if (f.isLine()) {
                    route(x, f, f.name(), f.points());
                }
                for (Area.Patch p : f.patches()) {
                    List<List<Position>> rings = new ArrayList<>(List.of(p.outline()));
                    rings.addAll(p.holes());
                    for (List<Position> ring : rings) {
                        List<Position> closed = new ArrayList<>(ring);
                        closed.add(ring.get(0));
                        route(x, f, ring == p.outline() ? f.name() : f.name() + ", hole", closed);
                    }
                }
            }
            x.writeEndElement();
        });
    }

    private static void route(XMLStreamWriter x, MapFeature f, String name, List<Position> points)
            throws XMLStreamException {
        x.writeStartElement("rte");
        leaf(x, "name", name);
        leaf(x, "type", f.properties().getOrDefault("kind", ""));
        for (Position p : points) {
            gpxPoint(x, "rtept", p, null);
        }
        x.writeEndElement();
    }

    private static void gpxPoint(XMLStreamWriter x, String element, Position p, MapFeature f)
            throws XMLStreamException {
        x.writeStartElement(element);
        x.writeAttribute("lat", String.format(Locale.ROOT, "%.7f", p.latitudeDeg()));
        x.writeAttribute("lon", String.format(Locale.ROOT, "%.7f", p.longitudeDeg()));
        if (f != null) {
            leaf(x, "name", f.name());
            leaf(x, "type", f.properties().getOrDefault("kind", ""));
        }
        x.writeEndElement();
    }
}
