package dev.morphema.check;

import dev.morphema.format.FormatRegistry;
import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.function.FunctionTable;
import dev.morphema.problem.Problem;
import dev.morphema.syntax.MappingTree;
import dev.morphema.syntax.Parser;
import dev.morphema.syntax.SourceText;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Checks mappings against samples in memory: of {@code tree}, one record, and of {@code flat}, rows
 * of texts.
 */
final class Samples {
    /** What each mapping begins with. */
    static final String HEAD = "morphema 1\n";

    private final Map<String, List<Value>> samples = new HashMap<>();

    /** What was found out of a text; the problems are those that its parts already had. */
    record Understood(MappingTree tree, List<Problem> ofText, Checker.Result checked) {}

    /**
     * Gives a file its records: a map is a record, an array the values of a field side by side, a
     * list a list.
     */
    Samples file(String name, Object... records) {
        List<Value> values = new ArrayList<>();
        for (Object each : records) {
            values.add(value(each));
        }
        samples.put(name, values);
        return this;
    }

    Checker.Result check(String mapping) {
        Understood understood = understand(mapping);
        if (!understood.ofText().isEmpty()) {
            throw new AssertionError(understood.ofText());
        }
        return understood.checked();
    }

    /** {@return what is found out of a text, be it whole or broken} */
    Understood understand(String mapping) {
        Parser.Result parsed = Parser.parse(new SourceText("test.morphema", HEAD + mapping));
        FormatRegistry formats = new FormatRegistry(
                List.of(new Memory("tree", false), new Memory("flat", true)),
                List.of(
                        new Events("events", TargetFormat.Root.ANY, false),
                        new Events("rows", TargetFormat.Root.RECORDS, true),
                        new Events("element", TargetFormat.Root.ONE_FIELD, false)));
        Checker.Result checked = Checker.check(
                List.of(parsed.tree()),
                new Environment(formats, FunctionTable.standard(), (from, path) -> new Sample(path)));
        return new Understood(parsed.tree(), parsed.problems(), checked);
    }

    /** {@return each problem as its place, its code and what is proposed} */
    List<String> problems(String mapping) {
        return check(mapping).problems().stream().map(Samples::line).toList();
    }

    private static String line(Problem problem) {
        return problem.rule().line() + ":" + problem.rule().column() + " " + (problem.isError() ? "" : "warning ")
                + problem.message() + (problem.help() == null ? "" : " -- " + problem.help());
    }

    private static Value value(Object object) {
        if (object instanceof Map<?, ?> map) {
            List<FieldName> names = new ArrayList<>();
            List<Value> values = new ArrayList<>();
            map.forEach((name, value) -> {
                names.add(name(name.toString()));
                values.add(value(value));
            });
            return RecordValue.of(Layout.of(names), values.toArray(new Value[0]), new Origin("sample", 1, 1));
        } else if (object instanceof Object[] many) {
            return Many.of(values(List.of(many)));
        } else if (object instanceof List<?> list) {
            return ListValue.of(values(list));
        }
        return object instanceof Integer number ? NumberValue.of(number) : TextValue.of(object.toString());
    }

    /**
     * An attribute begins with {@code @}, a namespace stands before a bar, and the own text of an
     * element has no name.
     */
    private static FieldName name(String text) {
        if (text.isEmpty()) {
            return FieldName.OWN_TEXT;
        }
        int bar = text.indexOf('|');
        boolean attribute = text.startsWith("@");
        return new FieldName(
                bar < 0 ? null : text.substring(0, bar), text.substring(attribute ? 1 : bar + 1), attribute);
    }

    private static List<Value> values(List<?> objects) {
        List<Value> values = new ArrayList<>();
        objects.forEach(each -> values.add(value(each)));
        return values;
    }

    private record Sample(String name) implements Input {
        @Override
        public InputStream open() throws IOException {
            throw new IOException("a sample in memory has no bytes");
        }
    }

    private final class Memory implements SourceFormat {
        private final String name;
        private final boolean flat;

        Memory(String name, boolean flat) {
            this.name = name;
            this.flat = flat;
        }

        @Override
        public String name() {
            return name;
        }

        @Override
        public List<OptionSpec> options() {
            return List.of();
        }

        @Override
        public Traits traits() {
            return new Traits(flat, flat, !flat);
        }

        @Override
        public RecordReader open(Input input, Projection projection, Options options) throws IOException {
            List<Value> records = samples.get(input.name());
            if (records == null) {
                throw new IOException("there is no such sample");
            }
            Iterator<Value> left = records.iterator();
            return new RecordReader() {
                @Override
                public boolean isSequence() {
                    return flat;
                }

                @Override
                public @Nullable Value next() {
                    return left.hasNext() ? left.next() : null;
                }

                @Override
                public void close() {
                    // there is nothing to close
                }
            };
        }
    }

    private record Events(String name, Root root, boolean flat) implements TargetFormat {
        @Override
        public List<OptionSpec> options() {
            return List.of(OptionSpec.of("columns", OptionSpec.Form.TEXTS));
        }

        @Override
        public Traits traits() {
            return new Traits(root, flat, false);
        }

        @Override
        public DocumentWriter open(OutputStream out, Document document) {
            throw new AssertionError("nothing is written");
        }
    }
}
