package dev.morphema.jdbc;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.net.UnknownHostException;
import java.sql.SQLException;

/** Says what databases refuse, in their own words as far as they are of use. */
final class DatabaseFaults {
    private DatabaseFaults() {}

    /** {@return what a database says, in one line without a full stop} */
    static String words(SQLException fault) {
        // Behind a line end drivers give hints and stacks of their own.
        String message = String.valueOf(fault.getMessage()).strip();
        String first = message.lines().findFirst().orElse("").strip();
        String statement =
                first.indexOf("; SQL statement:") > 0 ? first.substring(0, first.indexOf("; SQL statement:")) : first;
        String sentence = statement.endsWith(".") ? statement.substring(0, statement.length() - 1) : statement;
        // Other causes may name a wrong part of the address, such as a password.
        return fault.getCause() instanceof UnknownHostException ? sentence + ", the host is not known" : sentence;
    }

    /** {@return a problem of a query or table} */
    static Problem problem(Code code, String what, SQLException fault) {
        return Problem.error(code, what + ": " + words(fault) + ".");
    }

    /** {@return the same as what ends a run} */
    static ProblemException refused(Code code, String what, SQLException fault) {
        return new ProblemException(problem(code, what, fault), fault);
    }
}
