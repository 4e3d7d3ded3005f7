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
 */
record Terminal(InputStream in, OutputStream out, PrintWriter text, PrintWriter words) {}
