package dev.morphema.json;

import dev.morphema.format.Input;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.formats.Decoding;
import dev.morphema.formats.FieldOrder;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Nothing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.TokenStreamLocation;
import tools.jackson.core.exc.JacksonIOException;
import tools.jackson.core.exc.StreamConstraintsException;
import tools.jackson.core.json.JsonFactory;

/** Reads one JSON input. Fields that the mapping does not use are skipped, not stored. */
final class JsonRecordReader implements RecordReader {
    /** Field names of one input that are kept as objects; keys that are data could be without number. */
    private static final int MOST_NAMES = 10_000;

    /** Whole numbers of so many characters are longs. */
    private static final int MOST_LONG_DIGITS = 18;

    private static final JsonFactory FACTORY = new JsonFactory();

    private final Input source;
    private final Charset encoding;
    private final String input;
    private final FieldOrder records;
    private final boolean lines;
    private final InputStream bytes;
    private final JsonParser parser;
    /** The way to the records where they stand at a path. */
    private final @Nullable JsonPathWalk walk;

    private final Map<String, FieldName> names = new HashMap<>();
    /** The places below those of which everything is wanted. */
    private final Map<Projection, FieldOrder> orders = new IdentityHashMap<>();

    private boolean begun;
    private boolean sequence;
    private boolean done;
    private long number;

    JsonRecordReader(Input input, List<FieldName> path, Projection projection, Charset encoding, boolean lines)
            throws IOException {
        this.source = input;
        this.encoding = encoding;
        this.input = input.name();
        Projection at = projection;
        for (FieldName step : path) {
            at = at.child(step);
        }
        this.records = new FieldOrder(at);
        this.lines = lines;
        Decoding.Start start = Decoding.start(input.open(), encoding);
        this.bytes = start.bytes();
        // The parser reads UTF-8 itself, without a copy in characters between.
        this.parser = start.charset().equals(StandardCharsets.UTF_8)
                ? FACTORY.createParser(ObjectReadContext.empty(), bytes)
                : FACTORY.createParser(ObjectReadContext.empty(), start.characters());
        this.walk = path.isEmpty() ? null : new JsonPathWalk(parser, path);
    }

    @Override
    public boolean isSequence() throws IOException {
        begin();
        return sequence;
    }

    @Override
    public @Nullable Value next() throws IOException {
        begin();
        return guarded(() -> {
            if (done) {
                return null;
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
            JsonToken token = lines && number == 0 ? parser.currentToken() : parser.nextToken();
            if (token == null || token == JsonToken.END_ARRAY && !lines) {
                if (!lines) {
                    end();
                }
                done = true;
                return null;
            }
            number++;
            return value(records);
        });
    }

    private void begin() throws IOException {
        if (begun) {
            return;
        }
        begun = true;
        guarded(() -> {
            JsonToken first = parser.nextToken();
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

    /** After the one value of a document there is nothing more. */
    private void end() {
        done = true;
        if (parser.nextToken() != null) {
            throw fault(
                    "After the end of the document there is more.",
                    "a file with one document a line is a source of the format jsonl");
        }
    }

    private Value value(FieldOrder place) {
        JsonToken token = parser.currentToken();
        return switch (token) {
            case START_OBJECT -> object(place);
            case START_ARRAY -> array(place);
            case VALUE_STRING ->
                TextValue.of(parser.getStringCharacters(), parser.getStringOffset(), parser.getStringLength());
            case VALUE_NUMBER_INT ->
                parser.getStringLength() <= MOST_LONG_DIGITS ? NumberValue.of(parser.getLongValue()) : number();
            case VALUE_NUMBER_FLOAT -> number();
            case VALUE_TRUE -> BooleanValue.TRUE;
            case VALUE_FALSE -> BooleanValue.FALSE;
            case VALUE_NULL -> Nothing.NULL;
            default -> throw fault("Here a value is missing.", null);
        };
    }

    private Value number() {
        NumberValue plain =
                NumberValue.read(parser.getStringCharacters(), parser.getStringOffset(), parser.getStringLength());
        if (plain != null) {
            return plain;
        }
        try {
            return NumberValue.of(parser.getDecimalValue());
        } catch (ArithmeticException e) {
            throw new ProblemException(Problem.error(Code.LIMIT, "This number has more digits than a number can have.")
                    .in(here()));
        }
    }

    private Value array(FieldOrder place) {
        List<Value> items = new ArrayList<>();
        while (parser.nextToken() != JsonToken.END_ARRAY) {
            items.add(value(place));
        }
        return ListValue.owned(items);
    }

    private Value object(FieldOrder place) {
        Origin origin = new Origin(input, number, parser.currentTokenLocation().getLineNr());
        return place.wanted().everything() ? everything(place.wanted(), origin) : chosen(place, origin);
    }

    private Value everything(Projection wanted, Origin origin) {
        RecordValue.Builder record = RecordValue.builder(wanted.layout(), origin);
        while (parser.nextToken() != JsonToken.END_OBJECT) {
            FieldName name = name(parser.currentName());
            parser.nextToken();
            if (record.has(name)) {
                throw twice(name);
            }
            record.add(name, value(place(wanted.child(name))));
        }
        return record.build();
    }

    private FieldOrder place(Projection wanted) {
        return wanted.everything() ? new FieldOrder(wanted) : orders.computeIfAbsent(wanted, FieldOrder::new);
    }

    private Value chosen(FieldOrder place, Origin origin) {
        place.begin();
        @Nullable Value[] values = new Value[place.wanted().layout().size()];
        for (String name = parser.nextName(); name != null; name = parser.nextName()) {
            parser.nextToken();
            int slot = place.field(name, null).slot();
            if (slot < 0) {
                parser.skipChildren();
            } else if (values[slot] != null) {
                throw twice(FieldName.of(name));
            } else {
                values[slot] = value(place.below(slot));
            }
        }
        return RecordValue.of(place.wanted().layout(), values, origin);
    }

    private ProblemException twice(FieldName name) {
        return new ProblemException(Problem.error(Code.BAD_JSON, "This object has a field of the same name twice.")
                .in(here())
                .withValue(name.local()));
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
        TokenStreamLocation at = parser.currentTokenLocation();
        return new InputLocation(input, number, at.getLineNr(), at.getColumnNr(), null, null);
    }

    private ProblemException fault(String message, @Nullable String help) {
        return new ProblemException(
                Problem.error(Code.BAD_JSON, message).in(here()).withHelp(help));
    }

    private interface Reading {
        @Nullable
        Value read();
    }

    private @Nullable Value guarded(Reading reading) throws IOException {
        try {
            return reading.read();
        } catch (JsonPathWalk.TwiceException e) {
            throw twice(FieldName.of(String.valueOf(e.getMessage())));
        } catch (JacksonIOException e) {
            if (e.getCause() instanceof CharacterCodingException) {
                throw wrongBytes(here());
            }
            throw e.getCause();
        } catch (StreamConstraintsException e) {
            throw new ProblemException(
                    Problem.error(Code.LIMIT, "The input goes beyond a limit: " + e.getOriginalMessage())
                            .in(here()),
                    e);
        } catch (JacksonException e) {
            throw exact(e);
        }
    }

    private static ProblemException wrongBytes(InputLocation place) {
        return new ProblemException(Problem.error(
                        Code.BAD_ENCODING, "There are bytes that are no characters in the encoding of this source.")
                .in(place)
                .withHelp("name the encoding in the source: encoding = \"ISO-8859-1\""));
    }

    /** A parser of bytes counts columns in bytes; where the input can be read again, characters are counted. */
    private ProblemException exact(JacksonException found) throws IOException {
        JacksonException exact = found;
        if (source.isRereadable()) {
            try (JsonParser again =
                    FACTORY.createParser(ObjectReadContext.empty(), Decoding.reader(source.open(), encoding))) {
                while (again.nextToken() != null) {
                    // goes on to the fault
                }
            } catch (JacksonException e) {
                exact = e;
            }
        }
        if (exact.getCause() instanceof CharacterCodingException
                || String.valueOf(exact.getMessage()).contains("Invalid UTF-8")) {
            TokenStreamLocation at = found.getLocation();
            return wrongBytes(InputLocation.at(input, at == null ? 0 : at.getLineNr(), 0));
        }
        return new ProblemException(JsonFaults.explained(exact, input), found);
    }

    @Override
    public void close() throws IOException {
        parser.close();
        bytes.close();
    }
}
