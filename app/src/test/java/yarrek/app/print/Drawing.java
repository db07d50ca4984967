package yarrek.app.print;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.util.List;
import java.util.stream.IntStream;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;

/** A written drawing read back: what stands in it, by its class. */
public record Drawing(Element root) {
    public static Drawing read(String svg) {
        try {
            return new Drawing(DocumentBuilderFactory.newInstance()
                    .newDocumentBuilder()
                    .parse(new InputSource(new StringReader(svg)))
                    .getDocumentElement());
        } catch (SAXException | IOException | ParserConfigurationException e) {
            throw new AssertionError("no drawing: " + svg, e);
        }
    }

    /** All of this class, in their order; of these words of a class all must be there. */
    public List<Element> all(String sort) {
        NodeList all = root.getElementsByTagName("*");
        return IntStream.range(0, all.getLength())
                .mapToObj(i -> (Element) all.item(i))
                .filter(e -> List.of(e.getAttribute("class").split(" ")).containsAll(List.of(sort.split(" "))))
                .toList();
    }

    public Element one(String sort) {
        assertThat(all(sort)).as("of the class " + sort).hasSize(1);
        return all(sort).get(0);
    }

    public String words() {
        return root.getTextContent();
    }

    public static double number(Element e, String attribute) {
        return Double.parseDouble(e.getAttribute(attribute));
    }

    /** Right edge of a rectangle. */
    public static double end(Element rect) {
        return number(rect, "x") + number(rect, "width");
    }

    /** Every rectangle and line stands inside the sheet, and no figure is missing. */
    public void standsInItsSheet() {
        String[] box = root.getAttribute("viewBox").split(" ");
        double width = Double.parseDouble(box[2]);
        double height = Double.parseDouble(box[3]);
        NodeList rects = root.getElementsByTagName("rect");
        for (int i = 0; i < rects.getLength(); i++) {
            Element r = (Element) rects.item(i);
            if (!r.getAttribute("x").isEmpty()) {
                assertThat(number(r, "x")).isBetween(0.0, width);
                assertThat(end(r)).isBetween(0.0, width);
            }
            assertThat(number(r, "width")).isPositive();
            assertThat(number(r, "height")).isPositive();
        }
        NodeList lines = root.getElementsByTagName("line");
        for (int i = 0; i < lines.getLength(); i++) {
            Element l = (Element) lines.item(i);
            assertThat(number(l, "y2")).isBetween(0.0, height);
            assertThat(number(l, "x2")).isBetween(0.0, width);
        }
    }
}
