package yalos.core.exchange;

import java.io.ByteArrayInputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import yalos.core.fault.InputFault;

/**
 * XML from strangers: no document type, no entities from outside, depth and faults reported with their line.
 */
final class SafeXml {
    private static final int DEEPEST = 200;

    private SafeXml() {}

    /** What a walk does with each element. */
    interface Visitor {
        void start(XMLStreamReader at) throws XMLStreamException;

        void end(String name);
    }

    /**
     * Walks through a document from start to end.
     *
     * @param format named in faults
     * @throws InputFault for a document type, for XML that is not well formed, or nested too deeply
     */
    static void walk(byte[] content, String format, Visitor visitor) {
        try {
            XMLStreamReader reader = factory().createXMLStreamReader(new ByteArrayInputStream(content));
            int depth = 0;
            while (reader.hasNext()) {
                switch (reader.next()) {
                    case XMLStreamConstants.DTD -> throw refuseDoctype(format);
                    case XMLStreamConstants.START_ELEMENT -> {
                        if (++depth > DEEPEST) {
                            throw new InputFault(
                                    "file", "depth " + depth, "The %s is nested too deeply.".formatted(format));
                        }
                        visitor.start(reader);
                        if (reader.isEndElement()) {
                            depth--;
                        }
                    }
                    case XMLStreamConstants.END_ELEMENT -> {
                        depth--;
                        visitor.end(reader.getLocalName());
                    }
                    default -> {
                        // text is read by those who want it
                    }
                }
            }
        } catch (XMLStreamException e) {
            throw broken(format, e);
        }
    }

    /** Refuses documents with a document type or that are not well formed, for readers that parse on their own. */
    static void check(byte[] content, String format) {
        walk(content, format, new Visitor() {
            @Override
            public void start(XMLStreamReader at) {
                // only the walk matters
            }

            @Override
            public void end(String name) {
                // only the walk matters
            }
        });
    }

    private static XMLInputFactory factory() {
        XMLInputFactory factory = XMLInputFactory.newInstance();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        factory.setXMLResolver((publicId, systemId, base, space) -> {
            throw new XMLStreamException("entities from outside are refused");
        });
        return factory;
    }

    private static InputFault refuseDoctype(String format) {
        return new InputFault(
                "file",
                "DOCTYPE",
                "The %s declares a document type (DOCTYPE), which may pull in other files; it is refused. Export it again without."
                        .formatted(format));
    }

    private static InputFault broken(String format, XMLStreamException e) {
        int line = e.getLocation() == null ? -1 : e.getLocation().getLineNumber();
        String place = line > 0 ? " at line " + line : "";
        return new InputFault(
                "file",
                "line " + line,
                "The %s is not well formed%s; it may be cut off. Export it again.".formatted(format, place));
    }
}
