package org.polyclave.files.picture;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.transform.OutputKeys;
import javax.xml.transform.Transformer;
import javax.xml.transform.TransformerException;
import javax.xml.transform.TransformerFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamResult;
import org.w3c.dom.Attr;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.SAXException;

/**
 * Drawings in SVG 1.1, of which shapes, texts and gradients are kept. What can run, load or link (scripts, event
 * attributes, styles, foreign objects, references out of the file) is not on the list of what is kept, so it goes; so do
 * {@code use} and {@code symbol}, by which a short file can draw without end.
 */
final class Drawing {
    private static final String SVG = "http://www.w3.org/2000/svg";
    private static final String XLINK = "http://www.w3.org/1999/xlink";
    private static final int HEAD = 4096;
    private static final int MOST_BYTES = 2 << 20;
    private static final int USUAL_SIZE = 300;

    private static final Set<String> ELEMENTS = Set.of(
            "svg",
            "g",
            "path",
            "rect",
            "circle",
            "ellipse",
            "line",
            "polyline",
            "polygon",
            "text",
            "tspan",
            "title",
            "desc",
            "defs",
            "linearGradient",
            "radialGradient",
            "stop",
            "clipPath",
            "pattern",
            "mask");
    private static final Set<String> ATTRIBUTES = Set.of(
            "id",
            "class",
            "d",
            "x",
            "y",
            "x1",
            "y1",
            "x2",
            "y2",
            "cx",
            "cy",
            "r",
            "rx",
            "ry",
            "fx",
            "fy",
            "dx",
            "dy",
            "width",
            "height",
            "points",
            "transform",
            "viewBox",
            "preserveAspectRatio",
            "fill",
            "fill-opacity",
            "fill-rule",
            "stroke",
            "stroke-width",
            "stroke-linecap",
            "stroke-linejoin",
            "stroke-dasharray",
            "stroke-dashoffset",
            "stroke-opacity",
            "stroke-miterlimit",
            "opacity",
            "color",
            "clip-path",
            "clip-rule",
            "mask",
            "offset",
            "stop-color",
            "stop-opacity",
            "gradientUnits",
            "gradientTransform",
            "spreadMethod",
            "patternUnits",
            "patternTransform",
            "clipPathUnits",
            "maskUnits",
            "font-size",
            "font-family",
            "font-weight",
            "font-style",
            "text-anchor",
            "letter-spacing",
            "vector-effect",
            "role",
            "aria-label",
            "data-part");

    private Drawing() {}

    static boolean looksLikeOne(byte[] bytes) {
        String head = new String(bytes, 0, Math.min(HEAD, bytes.length), StandardCharsets.UTF_8);
        return head.replace("\uFEFF", "").stripLeading().startsWith("<") && head.contains("<svg");
    }

    static PictureFile of(byte[] bytes) throws PictureFile.Refused {
        if (bytes.length > MOST_BYTES) {
            throw new PictureFile.Refused("The drawing is larger than 2 MB. Save it simpler, or as a PNG picture.");
        }
        try {
            Document document = parse(bytes);
            Element root = document.getDocumentElement();
            if (!SVG.equals(root.getNamespaceURI()) || !"svg".equals(root.getLocalName())) {
                throw new PictureFile.Refused("The file is XML, but its first element is not an SVG drawing.");
            }
            int[] size = size(root);
            clean(root);
            byte[] written = write(document).getBytes(StandardCharsets.UTF_8);
            return new PictureFile("image/svg+xml", size[0], size[1], written, new byte[0], null);
        } catch (SAXException | IOException broken) {
            throw new PictureFile.Refused("The drawing is not well-formed SVG: " + broken.getMessage()
                    + " Save it as plain SVG, without a document type.");
        } catch (ParserConfigurationException | TransformerException missing) {
            throw new IllegalStateException("This Java cannot read XML safely", missing);
        }
    }

    private static Document parse(byte[] bytes) throws ParserConfigurationException, SAXException, IOException {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        factory.setExpandEntityReferences(false);
        factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
        factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
        var builder = factory.newDocumentBuilder();
        builder.setErrorHandler(null);
        return builder.parse(new ByteArrayInputStream(bytes));
    }

    private static void clean(Element element) {
        List<Node> gone = new ArrayList<>();
        for (Node child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
            if (child instanceof Element inner) {
                boolean known = SVG.equals(inner.getNamespaceURI()) && ELEMENTS.contains(inner.getLocalName());
                if (known) {
                    clean(inner);
                } else {
                    gone.add(child);
                }
            } else if (child.getNodeType() != Node.TEXT_NODE) {
                gone.add(child);
            }
        }
        gone.forEach(element::removeChild);
        List<Attr> attributes = new ArrayList<>();
        for (int i = 0; i < element.getAttributes().getLength(); i++) {
            attributes.add((Attr) element.getAttributes().item(i));
        }
        attributes.stream().filter(a -> !kept(a)).forEach(element::removeAttributeNode);
    }

    private static boolean kept(Attr attribute) {
        String value = attribute.getValue().strip();
        String name = attribute.getName();
        boolean declaresNames = XMLConstants.XMLNS_ATTRIBUTE_NS_URI.equals(attribute.getNamespaceURI());
        if (declaresNames) {
            return value.equals(SVG) || value.equals(XLINK);
        }
        if (name.equals("href") || XLINK.equals(attribute.getNamespaceURI())) {
            return name.endsWith("href") && value.startsWith("#");
        }
        String lower = value.toLowerCase(Locale.ROOT).replaceAll("\\s", "");
        boolean outward = lower.contains("url(") && !lower.matches("url\\([\"']?#[\\w.-]+[\"']?\\)");
        return attribute.getNamespaceURI() == null && ATTRIBUTES.contains(name) && !outward;
    }

    private static int[] size(Element root) {
        String[] box = root.getAttribute("viewBox").strip().split("[\\s,]+");
        if (box.length == 4) {
            return new int[] {whole(box[2]), whole(box[3])};
        }
        return new int[] {whole(root.getAttribute("width")), whole(root.getAttribute("height"))};
    }

    private static int whole(String number) {
        try {
            double value = Double.parseDouble(number.replaceFirst("(px|pt|mm|cm|in)$", ""));
            return value >= 1 && value < 1e6 ? (int) Math.round(value) : USUAL_SIZE;
        } catch (NumberFormatException unknown) {
            return USUAL_SIZE;
        }
    }

    private static String write(Document document) throws TransformerException {
        TransformerFactory factory = TransformerFactory.newInstance();
        factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
        Transformer transformer = factory.newTransformer();
        transformer.setOutputProperty(OutputKeys.OMIT_XML_DECLARATION, "yes");
        StringWriter out = new StringWriter();
        transformer.transform(new DOMSource(document), new StreamResult(out));
        return out.toString();
    }
}
