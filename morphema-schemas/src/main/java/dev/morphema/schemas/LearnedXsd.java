package dev.morphema.schemas;

import dev.morphema.shape.LearnedShape;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Writes what samples in XML show as an XML Schema 1.0, to begin with. */
public final class LearnedXsd {
    private final StringBuilder out = new StringBuilder();
    private final boolean ordered;
    private @Nullable String namespace;

    private LearnedXsd(boolean ordered) {
        this.ordered = ordered;
    }

    /**
     * {@return an XML Schema of documents}
     *
     * @param document what samples of the documents show, with the root element as its one field
     * @param ordered whether elements come in the order in which they were first seen; if not, they
     *     may come in any
     */
    public static String write(LearnedShape document, boolean ordered) {
        return new LearnedXsd(ordered).schema(document);
    }

    private String schema(LearnedShape document) {
        List<FieldName> roots =
                document.names().stream().filter(name -> !name.attribute()).toList();
        namespace = roots.isEmpty() ? null : roots.get(0).namespace();
        boolean none = namespace == null || namespace.isEmpty();
        out.append("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");
        out.append("<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\"");
        if (!none) {
            out.append("\n           targetNamespace=\"")
                    .append(escaped(namespace))
                    .append('"');
        }
        out.append(" elementFormDefault=\"")
                .append(none ? "unqualified" : "qualified")
                .append("\">\n");
        for (FieldName root : roots) {
            element(root, Objects.requireNonNull(document.field(root)), "", 1);
        }
        return out.append("</xs:schema>\n").toString();
    }

    private void element(FieldName name, LearnedShape shape, String occurs, int depth) {
        String indent = "  ".repeat(depth);
        out.append(indent)
                .append("<xs:element name=\"")
                .append(escaped(name.local()))
                .append('"');
        boolean record = shape.kinds().containsKey(Kind.RECORD);
        if (shape.nulls() > 0) {
            out.append(" nillable=\"true\"");
        }
        if (!record) {
            out.append(" type=\"").append(LearnedSchemas.simpleType(shape)).append('"');
        }
        out.append(occurs);
        if (!record) {
            out.append("/>\n");
            return;
        }
        out.append(">\n");
        complex(shape, depth + 1);
        out.append(indent).append("</xs:element>\n");
    }

    private void complex(LearnedShape shape, int depth) {
        String indent = "  ".repeat(depth);
        List<FieldName> children = shape.names().stream()
                .filter(name -> !name.attribute() && !name.equals(FieldName.OWN_TEXT))
                .toList();
        boolean text =
                shape.names().contains(FieldName.OWN_TEXT) || shape.kinds().containsKey(Kind.TEXT);
        if (text && children.isEmpty()) {
            simple(shape, depth);
            return;
        }
        out.append(indent)
                .append("<xs:complexType")
                .append(text ? " mixed=\"true\"" : "")
                .append(">\n");
        if (!children.isEmpty()) {
            String group = ordered ? "sequence" : "choice";
            out.append(indent).append("  <xs:").append(group);
            out.append(ordered ? ">\n" : " minOccurs=\"0\" maxOccurs=\"unbounded\">\n");
            for (FieldName child : children) {
                child(shape, child, depth + 2);
            }
            out.append(indent).append("  </xs:").append(group).append(">\n");
        }
        attributes(shape, depth + 1);
        out.append(indent).append("</xs:complexType>\n");
    }

    /** A text with attributes. */
    private void simple(LearnedShape shape, int depth) {
        boolean always = shape.profile()
                .filter(profile -> profile.count() == shape.values())
                .isPresent();
        String indent = "  ".repeat(depth);
        out.append(indent).append("<xs:complexType>\n");
        out.append(indent).append("  <xs:simpleContent>\n");
        out.append(indent)
                .append("    <xs:extension base=\"")
                .append(always ? LearnedSchemas.simpleType(shape) : "xs:string")
                .append("\">\n");
        attributes(shape, depth + 3);
        out.append(indent).append("    </xs:extension>\n");
        out.append(indent).append("  </xs:simpleContent>\n");
        out.append(indent).append("</xs:complexType>\n");
    }

    private void attributes(LearnedShape shape, int depth) {
        String indent = "  ".repeat(depth);
        boolean single = shape.kinds().size() == 1 && shape.nulls() == 0;
        for (FieldName attribute : shape.names()) {
            boolean plain =
                    attribute.namespace() == null || attribute.namespace().isEmpty();
            if (attribute.attribute() && plain) {
                LearnedShape held = Objects.requireNonNull(shape.field(attribute));
                out.append(indent).append("<xs:attribute name=\"").append(escaped(attribute.local()));
                out.append("\" type=\"").append(LearnedSchemas.simpleType(held)).append('"');
                out.append(single && shape.always(attribute) ? " use=\"required\"/>\n" : "/>\n");
            }
        }
        if (shape.names().stream()
                .anyMatch(name -> name.attribute()
                        && name.namespace() != null
                        && !name.namespace().isEmpty())) {
            out.append(indent).append("<xs:anyAttribute processContents=\"lax\"/>\n");
        }
    }

    private void child(LearnedShape shape, FieldName child, int depth) {
        LearnedShape held = Objects.requireNonNull(shape.field(child));
        boolean foreign = !Objects.equals(orNone(child.namespace()), orNone(namespace));
        boolean always = shape.kinds().size() == 1 && shape.nulls() == 0 && shape.always(child);
        String least = !ordered || always ? "" : " minOccurs=\"0\"";
        String most = ordered && held.isMany() ? " maxOccurs=\"unbounded\"" : "";
        if (foreign) {
            out.append("  ".repeat(depth)).append("<xs:any namespace=\"##other\" processContents=\"lax\"");
            out.append(least).append(most).append("/>\n");
        } else {
            element(child, held, least + most, depth);
        }
    }

    private static String orNone(@Nullable String namespace) {
        return namespace == null ? "" : namespace;
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace("\"", "&quot;");
    }
}
