package dev.morphema.json;

import dev.morphema.format.Input;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.format.Options;
import dev.morphema.formats.Decoding;
import dev.morphema.formats.WrongBytesException;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.Reader;
import java.nio.charset.Charset;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.exc.JacksonIOException;
import tools.jackson.core.exc.StreamConstraintsException;

/**
 * Tells what is wrong with a JSON input that cannot be read on, in plain words and with its place.
 * The library knows; what found the fault may only know that there is one. Not thread-safe.
 */
final class JsonGuard {
    private final Input input;
    private final Charset encoding;
    private final Limits limits;
    private final Supplier<InputLocation> here;

    /** @param here gives the place where the input is read now */
    JsonGuard(Input input, Options options, Supplier<InputLocation> here) {
        this.input = input;
        this.encoding = options.encoding();
        this.limits = options.limits();
        this.here = here;
    }

    /** {@return a parser of the library, within the limits of the input} */
    JsonParser parser(Reader characters) {
        return JsonParsers.open(characters, limits);
    }

    /** {@return the problem that an object has a field twice} */
    ProblemException twice(FieldName name) {
        return new ProblemException(Problem.error(Code.BAD_JSON, "This object has a field of the same name twice.")
                .in(here.get())
                .withValue(name.local()));
    }

    /** {@return the problem that the input is wrong where it is read now} */
    ProblemException fault(String message, @Nullable String help) {
        return new ProblemException(
                Problem.error(Code.BAD_JSON, message).in(here.get()).withHelp(help));
    }

    /** A step of reading an input. */
    interface Reading {
        @Nullable
        Value read() throws IOException;
    }

    /**
     * {@return what a step of reading comes to}
     *
     * @throws ProblemException if the input is wrong, with what is wrong and where
     */
    @Nullable
    Value read(Reading reading) throws IOException {
        try {
            return reading.read();
        } catch (JsonPathWalk.TwiceException e) {
            throw twice(FieldName.of(String.valueOf(e.getMessage())));
        } catch (ArithmeticException | NumberFormatException e) {
            throw new ProblemException(Problem.error(Code.LIMIT, "This number has more digits than a number can have.")
                    .in(here.get()));
        } catch (ByteTokens.TooLong e) {
            throw limits.exceeded(Limit.TEXT, here.get());
        } catch (ByteTokens.BadJson e) {
            throw refused();
        } catch (JsonText.HalfCharacter e) {
            throw fault(JsonFaults.HALF_CHARACTER, JsonFaults.PAIRS);
        } catch (JacksonIOException e) {
            WrongBytesException wrongBytes = WrongBytesException.in(e);
            if (wrongBytes != null) {
                throw wrongBytes(wrongBytes);
            }
            throw e.getCause();
        } catch (StreamConstraintsException e) {
            throw limit(e);
        } catch (JacksonException e) {
            throw exact(e);
        }
    }

    private ProblemException wrongBytes(WrongBytesException found) {
        return new ProblemException(found.problem(input.name(), Decoding.help(encoding)), found);
    }

    private ProblemException limit(StreamConstraintsException e) {
        return JsonFaults.limit(e)
                .map(limit -> limits.exceeded(limit, here.get()))
                .orElseGet(() -> new ProblemException(
                        Problem.error(Code.LIMIT, "This number has more digits than a number can have.")
                                .in(here.get()),
                        e));
    }

    /**
     * What the library has found; a parser of bytes counts columns in bytes, so it is looked for
     * again.
     */
    private ProblemException exact(JacksonException found) throws IOException {
        JacksonException again = input.isRereadable() ? foundAgain() : null;
        return explained(again == null ? found : again);
    }

    /** What is wrong with an input that is not known to be wrong otherwise than that it is. */
    private ProblemException refused() throws IOException {
        JacksonException found = foundAgain();
        if (found == null) {
            return fault("This is not well-formed JSON here.", null);
        }
        return found instanceof StreamConstraintsException e ? limit(e) : explained(found);
    }

    /**
     * {@return what the library finds wrong when it reads the input from its start, by characters;
     * null if it finds nothing}
     */
    private @Nullable JacksonException foundAgain() throws IOException {
        try (JsonParser again = parser(Decoding.reader(input.open(), encoding))) {
            while (again.nextToken() != null) {
                // goes on to the fault
            }
            return null;
        } catch (JacksonException e) {
            return e;
        }
    }

    private ProblemException explained(JacksonException found) {
        WrongBytesException wrongBytes = WrongBytesException.in(found);
        return wrongBytes != null
                ? wrongBytes(wrongBytes)
                : new ProblemException(JsonFaults.explained(found, input.name()), found);
    }
}
