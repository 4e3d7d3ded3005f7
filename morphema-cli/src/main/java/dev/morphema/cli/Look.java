package dev.morphema.cli;

import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What is known of the place where words and results are shown.
 *
 * @param colourOut whether standard output is a terminal that shows colours
 * @param colourErr whether standard error is one
 * @param live whether standard error is a terminal, on which a line can be written over
 * @param width how many columns it has; 0 where it is none, so that nothing is cut or wrapped
 */
record Look(boolean colourOut, boolean colourErr, boolean live, int width) {
    /** No terminal: a file or a pipe. */
    static final Look PLAIN = new Look(false, false, false, 0);

    private static final int USUAL_WIDTH = 100;
    private static final int LEAST_WIDTH = 40;

    /**
     * {@return the look of the standard streams}
     *
     * @param terminals what the start script has found out: {@code out}, {@code err}, both or none;
     *     null if it did not start us
     * @param columns the width of the terminal as a text, perhaps empty or null
     * @param environment in which {@code NO_COLOR} switches colours off, whatever its value
     */
    static Look of(@Nullable String terminals, @Nullable String columns, Map<String, String> environment) {
        boolean known = terminals != null;
        boolean both = !known && System.console() != null;
        boolean out = both || known && terminals.contains("out");
        boolean err = both || known && terminals.contains("err");
        boolean colours = environment.getOrDefault("NO_COLOR", "").isEmpty() && !"dumb".equals(environment.get("TERM"));
        int width = columns != null && columns.matches("[0-9]{1,4}") ? Integer.parseInt(columns) : USUAL_WIDTH;
        return new Look(out && colours, err && colours, err, err || out ? Math.max(LEAST_WIDTH, width) : 0);
    }
}
