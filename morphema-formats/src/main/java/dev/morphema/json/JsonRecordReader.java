package dev.morphema.json;

import dev.morphema.format.EventWriter;
import dev.morphema.format.Input;
import dev.morphema.format.Limits;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.formats.Decoding;
import dev.morphema.formats.FieldOrder;
import dev.morphema.formats.ReadBuffer;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonToken;

/** Reads one JSON input. Fields that the mapping does not use are skipped, not stored. */
final class JsonRecordReader implements RecordReader {
    /**
     * Field names of one input that are kept as objects; keys that are data could be without
     * number.
     */
    private static final int MOST_NAMES = 10_000;

    private final Input source;
    private final JsonGuard guard;
    private final String input;
    private final FieldOrder records;
    private final boolean lines;
    private boolean firstIsList;
    private final InputStream bytes;
    private final JsonTokens tokens;
    /** The way to the records where they stand at a path. */
    private final @Nullable JsonPathWalk walk;

    private final Map<String, FieldName> names = new HashMap<>();
    /** The places below those of which everything is wanted. */
    private final Map<Projection, FieldOrder> orders = new IdentityHashMap<>();

    private boolean begun;
    private boolean sequence;
    private boolean done;
    private boolean closed;
    private long number;

    JsonRecordReader(Input input, List<FieldName> path, Projection projection, Options options, boolean lines)
            throws IOException {
        this.source = input;
        this.guard = new JsonGuard(input, options, this::here);
        this.input = input.name();
        Projection at = projection;
        for (FieldName step : path) {
            at = at.child(step);
        }
        Projection wanted = at;
        this.records = wanted.learned(FieldOrder.class, () -> new FieldOrder(wanted));
        this.lines = lines;
        Decoding.Start start = Decoding.start(input.open(), options.encoding());
        this.bytes = start.bytes();
        this.tokens = tokens(start, options.limits());
        this.walk = path.isEmpty() ? null : new JsonPathWalk(tokens, path);
    }

    /**
     * The library tells what is wrong with an input; one that can be read again is read faster
     * without it first.
     */
    private JsonTokens tokens(Decoding.Start start, Limits limits) throws IOException {
        if (!start.charset().equals(StandardCharsets.UTF_8)) {
            return library(start.characters());
        }
        return source.isRereadable()
                ? new ByteTokens(bytes, ReadBuffer.size(source), limits)
                : library(start.characters());
    }

    private JsonTokens library(Reader characters) {
        return new LibraryTokens(guard.parser(characters));
    }

    @Override
    public boolean isSequence() throws IOException {
        begin();
        return sequence;
    }

    @Override
    public @Nullable Value next() throws IOException {
        begin();
        return guard.read(() -> {
            if (done) {
                return null;
            }
            if (number > 0) {
                tokens.beginRecord();
            }
            if (walk != null) {
                if (walk.next()) {
                    number++;
                    return value(records);
                }
                end();
                return null;
            }
            if (!sequence) {
                number = 0;
                Value value = value(records);
                end();
                return value;
            }
            JsonToken token = lines && number == 0 ? tokens.current() : tokens.next();
            if (token == null || token == JsonToken.END_ARRAY && !lines) {
                if (!lines) {
                    end();
                }
                done = true;
                return null;
            }
            number++;
            firstIsList |= number == 1 && lines && tokens.current() == JsonToken.START_ARRAY;
            return value(records);
        });
    }

    @Override
    public int stepsFound() {
        return walk == null ? -1 : walk.found();
    }

    /**
     * One JSON array where one record a line is meant is a list of its own, which a mapping may
     * take for a record.
     */
    @Override
    public List<Problem> warnings() {
        return firstIsList && number == 1 && done
                ? List.of(Problem.warning(
                                Code.BAD_JSON, "The input is one JSON array, where one record a line is expected.")
                        .in(InputLocation.at(input, 1, 1))
                        .withHelp("the format of such a source is json"))
                : List.of();
    }

    private void begin() throws IOException {
        if (begun) {
            return;
        }
        begun = true;
        guard.read(() -> {
            JsonToken first = tokens.next();
            sequence = lines || walk != null || first == JsonToken.START_ARRAY;
            if (first == null) {
                done = true;
                if (!lines) {
                    throw new ProblemException(
                            Problem.error(Code.BAD_JSON, "The input is empty; a JSON document is at least one value.")
                                    .in(InputLocation.at(input, 1, 1)));
                }
            }
            if (walk != null && first != null) {
                walk.begin();
            }
            return null;
        });
    }

    @Override
    public void events(EventWriter out) throws IOException {
        if (lines || walk != null) {
            RecordReader.super.events(out);
            return;
        }
        begin();
        guard.read(() -> {
            event(out);
            end();
            return null;
        });
    }

    private void event(EventWriter out) throws IOException {
        JsonToken token = Objects.requireNonNull(tokens.current());
        if (token == JsonToken.START_OBJECT) {
            out.beginRecord();
            while (tokens.next() != JsonToken.END_OBJECT) {
                out.field(name(tokens.name()));
                tokens.next();
                event(out);
            }
            out.endRecord();
        } else if (token == JsonToken.START_ARRAY) {
            out.beginList();
            while (tokens.next() != JsonToken.END_ARRAY) {
                event(out);
            }
            out.endList();
        } else {
            out.value(value(records));
        }
    }

    /** After the one value of a document there is nothing more. */
    private void end() throws IOException {
        done = true;
        if (tokens.next() != null) {
            throw guard.fault(
                    "Something follows the end of the document.",
                    "a file with one document a line is a source of the format jsonl");
        }
    }

    private Value value(FieldOrder place) throws IOException {
        return switch (Objects.requireNonNull(tokens.current())) {
            case START_OBJECT -> object(place);
            case START_ARRAY -> array(place);
            case VALUE_STRING -> tokens.text();
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> tokens.number();
            case VALUE_TRUE -> BooleanValue.TRUE;
            case VALUE_FALSE -> BooleanValue.FALSE;
            case VALUE_NULL -> Missing.NULL;
            default -> throw guard.fault("A value is missing here.", null);
        };
    }

    private Value array(FieldOrder place) throws IOException {
        List<Value> items = new ArrayList<>();
        while (tokens.next() != JsonToken.END_ARRAY) {
            items.add(value(place));
        }
        return ListValue.owned(items);
    }

    private Value object(FieldOrder place) throws IOException {
        Origin origin = new Origin(input, number, tokens.line());
        return place.wanted().keepsAll() ? everything(place.wanted(), origin) : chosen(place, origin);
    }

    private Value everything(Projection wanted, Origin origin) throws IOException {
        RecordBuilder record = RecordValue.builder(wanted.layout(), origin);
        while (tokens.next() != JsonToken.END_OBJECT) {
            FieldName name = name(tokens.name());
            tokens.next();
            if (record.has(name)) {
                throw guard.twice(name);
            }
            record.add(name, value(place(wanted.child(name))));
        }
        return record.build();
    }

    private FieldOrder place(Projection wanted) {
        return wanted.keepsAll() ? new FieldOrder(wanted) : orders.computeIfAbsent(wanted, FieldOrder::new);
    }

    private Value chosen(FieldOrder place, Origin origin) throws IOException {
        place.begin();
        FieldBytes.Row bytes = place.row();
        @Nullable
        Value[] values =
                place.onlyBytes() ? null : new Value[place.wanted().layout().size()];
        for (FieldOrder.Field field = next(place, bytes, values); field != null; field = next(place, bytes, values)) {
            int slot = field.slot();
            if (slot < 0) {
                tokens.next();
                tokens.skip();
                continue;
            }
            if (bytes.has(slot) || values != null && values[slot] != null) {
                tokens.next();
                throw guard.twice(FieldName.of(field.local()));
            }
            if (field.passes() && tokens.nextBytes(bytes, slot)) {
                continue;
            }
            if (values == null) {
                values = new Value[place.wanted().layout().size()];
            }
            Value scalar = field.passes() ? null : tokens.nextScalar();
            values[slot] = scalar == null ? value(place.below(slot)) : scalar;
        }
        return RecordValue.of(place.wanted().layout(), values, bytes.take(), origin, 0);
    }

    /**
     * {@return the next field of an object whose value cannot be taken as bytes at once, or null at
     * the object's end}
     */
    private FieldOrder.@Nullable Field next(FieldOrder place, FieldBytes.Row bytes, @Nullable Value @Nullable [] values)
            throws IOException {
        FieldOrder.Field field = tokens.fields(place, bytes, values);
        if (field == null) {
            String name = tokens.nextName();
            if (name != null) {
                field = place.field(name, null);
                tokens.learn(place, field);
            }
        }
        return field;
    }

    private FieldName name(String text) {
        FieldName known = names.get(text);
        if (known == null) {
            known = FieldName.of(text);
            if (names.size() < MOST_NAMES) {
                names.put(text, known);
            }
        }
        return known;
    }

    private InputLocation here() {
        return new InputLocation(input, number, tokens.line(), tokens.column(), null, null);
    }

    @Override
    public void close() throws IOException {
        if (!closed && done && records.mayLearnMore()) {
            records.wanted().leave(records);
        }
        closed = true;
        tokens.close();
        bytes.close();
    }
}
