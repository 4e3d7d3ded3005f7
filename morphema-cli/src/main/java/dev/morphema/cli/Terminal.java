package dev.morphema.cli;

import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.lang.reflect.Constructor;
import picocli.CommandLine;

/**
 * The streams that the commands talk through.
 *
 * @param in standard input
 * @param out standard output as bytes, for results
 * @param text standard output as text, for what the user asked to be told
 * @param words standard error, for everything else
 */
record Terminal(InputStream in, OutputStream out, PrintWriter text, PrintWriter words) {
    /** Makes commands that get the terminal. */
    record Factory(Terminal terminal) implements CommandLine.IFactory {
        @Override
        public <K> K create(Class<K> type) throws Exception {
            for (Constructor<?> constructor : type.getDeclaredConstructors()) {
                if (constructor.getParameterCount() == 1 && constructor.getParameterTypes()[0] == Terminal.class) {
                    return type.cast(constructor.newInstance(terminal));
                }
            }
            return CommandLine.defaultFactory().create(type);
        }
    }
}
