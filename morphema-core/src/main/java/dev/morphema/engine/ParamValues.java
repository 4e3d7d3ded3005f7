package dev.morphema.engine;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.Value;
import java.util.Map;

/** The values of parameters. */
public final class ParamValues {
    private ParamValues() {}

    /** {@return the value of a parameter: one that is given, else its default} */
    static Value of(Program.Param param, Map<String, Value> given, RunState state) {
        Value value = given.get(param.name());
        if (value == null) {
            Node fallback = param.fallback();
            if (fallback == null) {
                throw new ProblemException(
                        Problem.error(Code.PARAMETER, "The parameter " + param.name() + " has no value and no default.")
                                .withHelp("give it one, or a default in the mapping"));
            }
            Value usual = fallback.scalar(new Frame(state, 0));
            try {
                return converted(param.converter(), usual);
            } catch (ProblemException e) {
                throw fallback.located(e);
            }
        }
        return ofType(param, value);
    }

    /**
     * Refuses values of parameters that are not of their types.
     *
     * @param given by name
     * @throws ProblemException for the first that is not
     */
    public static void requireTypes(Program program, Map<String, Value> given) {
        for (Program.Param param : program.params()) {
            Value value = given.get(param.name());
            if (value != null) {
                ofType(param, value);
            }
        }
    }

    private static Value ofType(Program.Param param, Value value) {
        try {
            return converted(param.converter(), value);
        } catch (ProblemException e) {
            throw new ProblemException(
                    Problem.error(Code.PARAMETER, "The value of the parameter " + param.name() + " is not of its type.")
                            .withValue(e.problem().value())
                            .withHelp(e.problem().message()),
                    e);
        }
    }

    private static Value converted(Converter converter, Value value) {
        return value.isMissing() ? value : converter.convert(value);
    }
}
