package dev.morphema.cli;

import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;

/**
 * The streams that the commands talk through.
 *
 * @param in standard input
 * @param out standard output as bytes, for results
 * @param text standard output as text, for what the user asked to be told
 * @param words standard error, for everything else
 * @param look of the places where these are shown
 * @param interruptions what stops a run that the system ends
 */
record Terminal(
        InputStream in,
        OutputStream out,
        PrintWriter text,
        PrintWriter words,
        Look look,
        Interruption.Kind interruptions) {
    /** {@return what prints problems on standard error} */
    ProblemPrinter problems(boolean values) {
        return new ProblemPrinter(words, values, look.colourErr(), look.width());
    }
}
