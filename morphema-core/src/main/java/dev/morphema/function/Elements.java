package dev.morphema.function;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.ElementText;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;

/** XML elements as values. */
final class Elements implements FunctionTable.Family {
    @Override
    public void addTo(FunctionSet functions) {
        functions.scalar("nodes(element: any): list", a -> nodes(a[0]));
        functions.scalar("name(element: any): text", a -> name(a[0]));
        functions.scalar("file(record: record): text", a -> TextValue.of(file((RecordValue) a[0])));
        functions.scalar("stem(record: record): text", a -> {
            String file = file((RecordValue) a[0]);
            int point = file.lastIndexOf('.');
            return TextValue.of(point > 0 ? file.substring(0, point) : file);
        });
    }

    /**
     * The own text of an element without child elements; what else is a record cannot be one value.
     */
    static Value text(RecordValue record) {
        Value text = record.get(FieldName.OWN_TEXT);
        if (!record.isElement() && text == Missing.ABSENT) {
            throw new ProblemException(Problem.error(Code.KIND, "Expected one value, found a record.")
                    .withHelp("step down to one of its fields"));
        }
        if (record.hasChildren()) {
            throw new ProblemException(Problem.error(
                            Code.KIND, "This element has child elements, so it is not one value.")
                    .withHelp("step down to one of them; text(x) gives all text below, copy the element as it is"));
        }
        return text == Missing.ABSENT ? TextValue.EMPTY : text;
    }

    /**
     * {@return whether a record is an element with no child elements and no text but white space}
     */
    static boolean isBlank(RecordValue record) {
        return record.isElement()
                && !record.hasChildren()
                && WhiteSpace.isBlank(text(record).toString());
    }

    private static ListValue nodes(Value value) {
        List<Value> nodes = new ArrayList<>();
        if (value instanceof ElementText leaf) {
            if (!leaf.text().isEmpty()) {
                nodes.add(TextValue.of(leaf.text()));
            }
        } else {
            element(value).parts().forEach(part -> nodes.add(part.value()));
        }
        return ListValue.owned(nodes);
    }

    private static Value name(Value value) {
        if (value instanceof ElementText leaf) {
            return TextValue.of(leaf.element().local());
        }
        // A piece of text between elements has no name, which tells it from them.
        return value.isScalar()
                ? Missing.ABSENT
                : TextValue.of(Objects.requireNonNull(element(value).element()).local());
    }

    private static RecordValue element(Value value) {
        if (value instanceof RecordValue record && record.isElement()) {
            return record;
        }
        throw new ProblemException(Problem.error(
                        Code.KIND,
                        "Expected an XML element, found " + value.kind().words() + ".")
                .withHelp(value instanceof RecordValue ? "fields of other records are listed by entries(x)" : null));
    }

    /** {@return the value as it prints, or all text in and below an element, in document order} */
    static Value allText(Value value) {
        return value instanceof RecordValue record && record.isElement()
                ? TextValue.of(allText(record, new StringBuilder()).toString())
                : ParameterKind.TEXT.take(value);
    }

    private static StringBuilder allText(Value value, StringBuilder out) {
        if (value instanceof RecordValue record) {
            element(record).parts().forEach(part -> allText(part.value(), out));
        } else if (!value.isMissing()) {
            out.append(ParameterKind.TEXT.take(value));
        }
        return out;
    }

    /** The name of the file that a record stood in, without folders. */
    private static String file(RecordValue record) {
        if (record.origin() == null) {
            throw new ProblemException(
                    Problem.error(Code.KIND, "This record was made by the mapping, so it came from no file.")
                            .withHelp("ask a record of a source"));
        }
        String input = record.origin().input();
        return input.substring(Math.max(input.lastIndexOf('/'), input.lastIndexOf('\\')) + 1);
    }
}
