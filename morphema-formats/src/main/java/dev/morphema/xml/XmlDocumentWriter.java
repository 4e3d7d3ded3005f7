package dev.morphema.xml;

import dev.morphema.format.FieldGroup;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.formats.Affix;
import dev.morphema.formats.Affixes;
import dev.morphema.formats.ByteSink;
import dev.morphema.formats.EncodedNames;
import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.FieldName;
import dev.morphema.value.Marks;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.XMLConstants;
import org.jspecify.annotations.Nullable;

/**
 * Writes one XML document (XML 1.0 with namespaces). The outermost record is the document itself,
 * so it has one field, the root element. Items of a list are elements of the same name. Indentation
 * is only put where an element has no text of its own. Bytes go straight into the buffer of the
 * output: most of a document is tags, which are encoded once.
 */
final class XmlDocumentWriter implements DocumentWriter {
    private static final int DEFAULT_INDENT = 2;

    private static final byte[][] IN_TEXT = written("&&amp;", "<&lt;", ">&gt;", "\r&#13;", "\n\n", "\t\t");
    private static final byte[][] IN_ATTRIBUTE =
            written("&&amp;", "<&lt;", ">&gt;", "\"&quot;", "\t&#9;", "\n&#10;", "\r&#13;");
    private static final ByteSink.Escape TEXT = new ByteSink.Escape(IN_TEXT);
    private static final ByteSink.Escape ATTRIBUTE = new ByteSink.Escape(IN_ATTRIBUTE);
    private static final Marks TEXT_MARKS = new Marks("&<>", IN_TEXT);
    private static final Marks ATTRIBUTE_MARKS = new Marks("&<>\"", IN_ATTRIBUTE);
    private static final ByteSink.Constant NIL = new ByteSink.Constant("nil=\"true\"/>");
    private static final ByteSink.Constant EMPTY = new ByteSink.Constant("/>");

    /** The tags of an element. */
    private record Tags(ByteSink.Constant start, ByteSink.Constant end) {
        Tags(String name) {
            this(new ByteSink.Constant("<" + name + ">"), new ByteSink.Constant("</" + name + ">"));
        }
    }

    /** An element that is open; the outermost stands for the document. */
    private static final class Open {
        /** The end tag of the child element that was begun last. */
        private ByteSink.Constant endTag = EMPTY;

        private @Nullable FieldName field;
        private boolean listed;
        /** Whether children stand on lines of their own, so that the end tag does too. */
        private boolean lines;
        /** Whether there may be text beside children, here or further out. */
        private boolean mixed;
        /** Whether the start tag has ended. */
        private boolean begun;

        void become(Open other) {
            endTag = other.endTag;
            field = other.field;
            listed = other.listed;
            lines = other.lines;
            mixed = other.mixed;
            begun = other.begun;
        }
    }

    private final ByteSink out;
    private final CharsetEncoder names;
    private final String defaultNamespace;
    private final Map<String, String> prefixes = new HashMap<>();
    private final int indent;
    private final EncodedNames<Tags> tags = new EncodedNames<>(name -> new Tags(qualified(name, false)));
    /** Names of attributes, with what stands around each but for the quotes. */
    private final EncodedNames<ByteSink.Constant> attributes =
            new EncodedNames<>(name -> new ByteSink.Constant(" " + qualified(name, true) + "="));

    private final Affixes affixes;
    /** What stands before a line, for each depth that there was. */
    private final List<ByteSink.Constant> newLines = new ArrayList<>();

    private Open[] open = {new Open()};
    private int depth = -1;
    private boolean rootWritten;

    // What there was at the last mark.
    private final Open markedElement = new Open();
    private int markedDepth;
    private boolean markedRoot;

    XmlDocumentWriter(OutputStream out, Document document) {
        Options options = document.options();
        Charset encoding = options.encoding();
        this.out = new ByteSink(encoding.equals(StandardCharsets.UTF_8) ? out : new ReferencingEncoder(out, encoding));
        this.names = encoding.newEncoder();
        this.defaultNamespace = options.text("namespace", "");
        this.indent = options.count("indent", DEFAULT_INDENT);
        this.affixes = new Affixes("xml", options, document.prefixes(), this::affix);
        document.prefixes().forEach((prefix, uri) -> prefixes.put(uri, prefix));
        if (options.isOn("declaration", true)) {
            this.out.write(ByteSink.bytes("<?xml version=\"1.0\" encoding=\"" + encoding.name() + "\"?>\n"));
        }
    }

    private static byte[][] written(String... rules) {
        byte[][] written = new byte[128][];
        for (String rule : rules) {
            written[rule.charAt(0)] = ByteSink.bytes(rule.substring(1));
        }
        return written;
    }

    @Override
    public boolean attributesFirst() {
        return true;
    }

    @Override
    public Object key(FieldName name) {
        boolean inDefault = !name.attribute()
                && (name.namespace() == null || name.namespace().isEmpty());
        return inDefault ? new FieldName(defaultNamespace, name.local(), false) : name;
    }

    private Open at() {
        return open[depth];
    }

    @Override
    public void beginRecord() {
        if (depth >= 0) {
            startElement(true);
        }
        depth++;
        if (depth == open.length) {
            open = Arrays.copyOf(open, depth * 2);
            for (int i = depth; i < open.length; i++) {
                open[i] = new Open();
            }
        }
        Open begun = open[depth];
        begun.field = null;
        begun.listed = false;
        begun.lines = false;
        begun.mixed = depth > 0 && open[depth - 1].mixed;
        begun.begun = depth == 0;
    }

    @Override
    public void endRecord() {
        Open ended = open[depth--];
        if (depth < 0) {
            return;
        }
        if (!ended.begun) {
            out.write(EMPTY);
            return;
        }
        if (ended.lines) {
            newLine(depth);
        }
        out.write(at().endTag);
    }

    @Override
    public void mixed() {
        if (depth > 0) {
            at().mixed = true;
        }
    }

    /** Ends the start tag of the element at hand, since it has content. */
    private void begin(Open element) {
        if (!element.begun) {
            element.begun = true;
            out.write('>');
        }
    }

    /**
     * Writes the start tag of the next element, but for its end if attributes may follow.
     *
     * @param open whether they may
     */
    private void startElement(boolean open) {
        Open parent = at();
        Tags ofElement = tags.of(parent.field);
        boolean root = depth == 0;
        if (root && rootWritten) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "An XML document has one root element, this would be a second.")
                            .withHelp("write one element around them all"));
        }
        rootWritten |= root;
        begin(parent);
        if (!root && indent > 0 && !parent.mixed) {
            newLine(depth);
            parent.lines = true;
        }
        parent.endTag = ofElement.end();
        ByteSink.Constant start = ofElement.start();
        if (root) {
            out.write(start, 0, start.length() - 1);
            declareNamespaces();
            if (!open) {
                out.write('>');
            }
        } else {
            out.write(start, 0, open ? start.length() - 1 : start.length());
        }
    }

    private void declareNamespaces() {
        if (!defaultNamespace.isEmpty()) {
            attribute("xmlns", defaultNamespace);
        }
        prefixes.entrySet().stream()
                .sorted(Map.Entry.comparingByValue())
                .forEach(declared -> attribute("xmlns:" + declared.getValue(), declared.getKey()));
    }

    private void attribute(String name, String value) {
        out.write(ByteSink.bytes(" " + name + "=\""));
        out.write(value, ATTRIBUTE);
        out.write('"');
    }

    /** {@return a name with its prefix} */
    private String qualified(FieldName name, boolean attribute) {
        XmlCharacters.checkName(name);
        if (!names.canEncode(name.local())) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "This name has a character that the encoding of the target lacks.")
                            .withValue(name.local())
                            .withHelp("UTF-8 has all characters"));
        }
        String prefix = prefix(name.namespace(), attribute);
        return prefix.isEmpty() ? name.local() : prefix + ":" + name.local();
    }

    private String prefix(@Nullable String namespace, boolean attribute) {
        if (namespace == null || namespace.isEmpty() || !attribute && namespace.equals(defaultNamespace)) {
            return "";
        }
        String prefix = namespace.equals(XMLConstants.XML_NS_URI) ? "xml" : prefixes.get(namespace);
        if (prefix == null) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "The namespace of this element has no prefix in the mapping.")
                            .withValue(namespace)
                            .withHelp("declare one: prefix p = \"" + namespace + "\""));
        }
        return prefix;
    }

    private void newLine(int level) {
        while (newLines.size() <= level) {
            newLines.add(new ByteSink.Constant("\n" + " ".repeat(newLines.size() * indent)));
        }
        out.write(newLines.get(level));
    }

    @Override
    public void beginList() {
        if (depth < 0 || at().listed) {
            FieldName field = depth < 0 ? null : at().field;
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "A list directly in a list has no element names in XML.")
                            .withValue(field == null ? null : field.local())
                            .withHelp("give the inner list a field of its own"));
        }
        at().listed = true;
    }

    @Override
    public void endList() {
        at().listed = false;
    }

    @Override
    public void field(FieldName name) {
        at().field = name;
    }

    @Override
    public void value(Value value) {
        if (depth < 0) {
            throw new ProblemException(Problem.error(Code.NOT_WRITABLE, "A value in XML needs an element around it."));
        }
        check(value);
        startElement(value.isMissing());
        if (value.isMissing()) {
            if (!prefixes.containsKey(XMLConstants.W3C_XML_SCHEMA_INSTANCE_NS_URI)) {
                attribute("xmlns:xsi", XMLConstants.W3C_XML_SCHEMA_INSTANCE_NS_URI);
            }
            out.write(ByteSink.bytes(
                    " " + prefixes.getOrDefault(XMLConstants.W3C_XML_SCHEMA_INSTANCE_NS_URI, "xsi") + ":"));
            out.write(NIL);
            return;
        }
        out.write(value, TEXT);
        out.write(at().endTag);
    }

    @Override
    public int fields(FieldGroup group, RecordValue record, int[] slots, int from) {
        boolean attribute = group.names().get(0).attribute();
        // The root element, and those among text, are written by themselves.
        if (depth < 1 || from >= slots.length || !attribute && at().mixed) {
            return from;
        }
        Affix[] fields = affixes.of(group, depth);
        FieldBytes bytes = record.fieldBytes();
        boolean any = fields.length > 0 && slots[from] >= 0 && bytes != null && bytes.has(slots[from]);
        if (!any) {
            return from;
        }
        if (!attribute) {
            begin(at());
            at().lines |= indent > 0;
        }
        return out.write(fields, record, slots, from, 0);
    }

    private Affix affix(FieldName name) {
        String qualified = qualified(name, name.attribute());
        return name.attribute()
                ? new Affix(" " + qualified + "=\"", "\"", ATTRIBUTE_MARKS)
                : new Affix(
                        (indent > 0 ? "\n" + " ".repeat(depth * indent) : "") + "<" + qualified + ">",
                        "</" + qualified + ">",
                        TEXT_MARKS);
    }

    private void writeText(RecordValue record, int slot) {
        if (!out.write(record, slot, TEXT_MARKS)) {
            Value value = record.get(slot);
            check(value);
            out.write(value, TEXT);
        }
    }

    /** Sees to it that all characters of a value can be written. */
    private static void check(Value value) {
        if (value.mostBytes() == 0) {
            XmlCharacters.check(value.toString());
        }
    }

    @Override
    public void attribute(FieldName name, Value value) {
        ByteSink.Constant encoded = attributes.of(name);
        Value written = value.isScalar() ? value : ParameterKind.scalarIfAny(value);
        if (!written.isMissing()) {
            check(written);
            out.write(encoded);
            out.write('"', written, ATTRIBUTE);
        }
    }

    @Override
    public void text(RecordValue record, int slot) {
        if (depth < 1) {
            text(record.get(slot));
            return;
        }
        begin(at());
        writeText(record, slot);
    }

    @Override
    public void text(Value value) {
        if (value.isMissing()) {
            return;
        }
        if (depth < 1) {
            throw new ProblemException(Problem.error(Code.NOT_WRITABLE, "A text in XML needs an element around it."));
        }
        check(value);
        begin(at());
        out.write(value, isLayout(value) ? ATTRIBUTE : TEXT);
    }

    /**
     * Whether a reader would take a text for layout, as white space with a line break, unless it
     * stands as references.
     */
    private static boolean isLayout(Value value) {
        if (!(value instanceof TextValue) || value.mostBytes() > 0) {
            return false;
        }
        String text = value.toString();
        return text.indexOf('\n') >= 0 && WhiteSpace.isBlank(text);
    }

    @Override
    public boolean mark() {
        out.mark();
        markedDepth = depth;
        markedRoot = rootWritten;
        if (depth >= 0) {
            markedElement.become(at());
        }
        return true;
    }

    @Override
    public void rewind() {
        out.rewind();
        depth = markedDepth;
        rootWritten = markedRoot;
        if (depth >= 0) {
            at().become(markedElement);
        }
    }

    @Override
    public void finish() throws IOException {
        if (!rootWritten) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "An XML document has one root element, and none was written."));
        }
        out.write('\n');
        out.flush();
    }
}
