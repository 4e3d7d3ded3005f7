package dev.morphema.function;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;

/** Functions of records whose field names are data. */
final class RecordFunctions implements FunctionTable.Family {
    private static final FieldName KEY = FieldName.of("key");
    private static final FieldName VALUE = FieldName.of("value");

    @Override
    public void addTo(FunctionSet functions) {
        functions.surrounded(
                "entries(record: any): list", Stability.PURE, RecordFunctions::entries, Trait.ENTRIES_OF_FIRST);
        functions.scalar("keys(record: any): list", a -> fields(a[0], (name, value) -> name));
        functions.scalar("values(record: any): list", a -> fields(a[0], (name, value) -> value), Trait.VALUES_OF_FIRST);
    }

    private static Value entries(Value[] arguments, Function.Context run) {
        Layout layout = run.kept(
                Layout.class,
                RecordFunctions.class,
                () -> Layout.start(name -> null).withAll(List.of(KEY, VALUE)));
        return fields(arguments[0], (name, value) -> entry(layout, name, value));
    }

    private static Value entry(Layout layout, TextValue name, Value value) {
        RecordBuilder entry = RecordValue.builder(layout, value instanceof RecordValue record ? record.origin() : null);
        entry.set(0, name);
        entry.set(1, value);
        return entry.build();
    }

    private static Value fields(Value value, BiFunction<TextValue, Value, Value> each) {
        if (!(value instanceof RecordValue record)) {
            throw new ProblemException(Problem.error(
                    Code.KIND, "Expected a record, found " + value.kind().words() + "."));
        }
        List<Value> found = new ArrayList<>();
        for (int i = 0; i < record.layout().fields(); i++) {
            Value field = record.get(i);
            if (field != Missing.ABSENT) {
                found.add(each.apply(name(record.layout().name(i)), field));
            }
        }
        return ListValue.owned(found);
    }

    /** The own text of an element goes by the name that it has in JSON. */
    private static TextValue name(FieldName name) {
        return TextValue.of((name.equals(FieldName.OWN_TEXT) ? FieldName.TEXT : name).toString());
    }
}
