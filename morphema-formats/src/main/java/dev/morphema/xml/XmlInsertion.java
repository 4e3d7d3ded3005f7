package dev.morphema.xml;

import dev.morphema.format.EditedText;
import dev.morphema.format.Insertion;
import dev.morphema.format.Insertion.Existing;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import javax.xml.stream.Location;
import javax.xml.stream.XMLStreamException;
import org.jspecify.annotations.Nullable;

/**
 * Puts the root element of an XML document into an element of another one, laid out as what stands
 * there. Of use once.
 */
final class XmlInsertion {
    private static final String USUAL_STEP = "  ";
    private static final Pattern COMMENTS = Pattern.compile("\\s*(<!--(?:(?!-->).)*-->\\s*)*");

    private final EditedText document;
    private final String text;
    private final XmlSpan root;
    private final EditedText partText;
    private final XmlSpan part;
    private final Insertion insertion;

    private XmlInsertion(String name, String text, String part, Insertion insertion) {
        this.document = new EditedText(name, text);
        this.text = text;
        this.root = parsed(name, text);
        this.partText = new EditedText("the result", part);
        this.part = parsed("the result", part);
        this.insertion = insertion;
    }

    /**
     * {@return the document with the part in it}
     *
     * @param name of the document
     * @throws ProblemException if the part cannot be put there, or the document is not well-formed
     */
    static String of(String name, String text, String part, Insertion insertion) {
        XmlInsertion inserting = new XmlInsertion(name, text, part, insertion);
        inserting.insert();
        return inserting.document.result();
    }

    private static XmlSpan parsed(String name, String text) {
        try {
            return XmlSpan.of(text);
        } catch (XMLStreamException e) {
            Location at = e.getLocation();
            throw new ProblemException(
                    XmlFaults.explained(String.valueOf(e.getMessage()))
                            .in(new EditedText(name, text)
                                    .location(at == null ? 0 : Math.max(0, at.getCharacterOffset()))),
                    e);
        }
    }

    private void insert() {
        XmlSpan container = container();
        List<XmlSpan> alike = container.like(part);
        if (alike.isEmpty()) {
            add(container);
        } else if (insertion.existing() == Existing.EXTENDED) {
            XmlSpan last = alike.get(alike.size() - 1);
            addBehind(last, container);
        } else if (insertion.existing() == Existing.REPLACED && alike.size() == 1) {
            XmlSpan old = alike.get(0);
            document.replace(
                    old.from(), old.to(), part(container, isSpread(container) ? document.indent(old.from()) : null));
        } else if (insertion.existing() == Existing.REPLACED) {
            throw many(alike, part.tag());
        } else {
            List<String> entry = new ArrayList<>(insertion.path());
            entry.add(part.tag());
            throw insertion.refused(entry, document.location(alike.get(0).from()));
        }
    }

    private XmlSpan container() {
        List<String> path = insertion.path();
        if (path.isEmpty()) {
            return root;
        }
        if (!path.get(0).equals(root.tag()) && !path.get(0).equals(root.name().local())) {
            throw Insertion.unknown(path.get(0), List.of(root.tag()), document.location(root.from()));
        }
        XmlSpan at = root;
        for (String step : path.subList(1, path.size())) {
            List<XmlSpan> found = at.named(step);
            if (found.isEmpty()) {
                List<String> known =
                        at.children().stream().map(XmlSpan::tag).distinct().toList();
                throw Insertion.unknown(step, known, document.location(at.from()));
            }
            if (found.size() > 1) {
                throw many(found, step);
            }
            at = found.get(0);
        }
        return at;
    }

    private ProblemException many(List<XmlSpan> found, String name) {
        return new ProblemException(
                Problem.error(Code.MANY, "There are " + found.size() + " elements " + name + " here, and one is meant.")
                        .in(document.location(found.get(1).from()))
                        .withHelp("nothing was changed"));
    }

    /** Adds the part as the last element. */
    private void add(XmlSpan container) {
        List<XmlSpan> children = container.children();
        if (!children.isEmpty()) {
            addBehind(children.get(children.size() - 1), container);
            return;
        }
        String inside = text.substring(container.inside(), container.insideTo());
        String only = isSpread(root) ? alone(container) : onOneLine(container);
        if (container.isEmptyTag()) {
            int slash = text.lastIndexOf('/', container.to());
            document.replace(slash, container.to(), ">" + only + "</" + container.tag() + ">");
        } else if (inside.isBlank()) {
            document.replace(container.inside(), container.insideTo(), only);
        } else {
            document.replace(container.insideTo(), container.insideTo(), onOneLine(container));
        }
    }

    /** {@return whether the elements in one begin on lines of their own} */
    private boolean isSpread(XmlSpan container) {
        return !container.children().isEmpty()
                && !container.gaps().isEmpty()
                && text.substring(
                                container.inside(), container.children().get(0).from())
                        .contains("\n");
    }

    private void addBehind(XmlSpan before, XmlSpan container) {
        if (!isSpread(container)) {
            document.replace(before.to(), before.to(), onOneLine(container));
            return;
        }
        String indent = document.indent(before.from());
        int end = document.endOfLine(before.to());
        // A comment on the same line is about the element before.
        boolean commented = COMMENTS.matcher(text.substring(before.to(), end)).matches();
        int place = commented ? end : before.to();
        document.replace(place, place, document.lineEnd() + indent + part(container, indent));
    }

    /** {@return the part as all that there is in an element} */
    private String alone(XmlSpan container) {
        String outer = document.indent(container.from());
        String indent = outer + step();
        return document.lineEnd() + indent + part(container, indent) + document.lineEnd() + outer;
    }

    private String step() {
        if (root.children().isEmpty()) {
            return USUAL_STEP;
        }
        String outer = document.indent(root.from());
        String inner = document.indent(root.children().get(0).from());
        return inner.length() > outer.length() && inner.startsWith(outer)
                ? inner.substring(outer.length())
                : USUAL_STEP;
    }

    private String onOneLine(XmlSpan container) {
        return part(container, null);
    }

    /**
     * {@return the part as it stands in an element}
     *
     * @param indent what its lines begin with, or null if it is to stand on one
     */
    private String part(XmlSpan container, @Nullable String indent) {
        String own = partText.text();
        String ownStep = part.children().isEmpty()
                ? ""
                : partText.indent(part.children().get(0).from());
        for (XmlSpan.Gap gap : part.allGaps()) {
            String white = own.substring(gap.from(), gap.to());
            int feed = white.lastIndexOf('\n');
            if (feed >= 0) {
                int level = ownStep.isEmpty() ? 0 : (white.length() - feed - 1) / ownStep.length();
                String line = indent == null ? "" : document.lineEnd() + indent + step().repeat(level);
                partText.replace(gap.from(), gap.to(), line);
            }
        }
        if (container.defaultNamespace() != null && part.defaultNamespace() == null) {
            // Else the part would be in the namespace of what is around it.
            int behindName = part.from() + 1 + part.tag().length();
            partText.replace(behindName, behindName, " xmlns=\"\"");
        }
        int after = own.length() - part.to();
        String all = partText.result();
        return all.substring(part.from(), all.length() - after);
    }
}
