package dev.morphema.cli;

import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;

/**
 * A target that is shown on standard output: under its name if there are several, on a terminal in
 * colours.
 */
final class ShownOutput {
    private final OutputStream out;
    private final String heading;
    private final boolean colours;
    private final String format;

    /**
     * @param heading the name of the target where several are shown, else empty
     * @param format of the target
     */
    ShownOutput(Terminal terminal, String heading, String format) {
        this.out = terminal.out();
        this.heading = heading;
        this.colours = terminal.look().colourOut();
        this.format = format;
    }

    /** Shows one of many documents under its name. */
    void show(String name, byte[] document) throws IOException {
        heading(heading.isEmpty() ? name : heading + ": " + name);
        OutputStream shown = coloured();
        shown.write(document);
        shown.flush();
    }

    /** {@return what takes the document of a target that has one} */
    OutputStream stream() {
        return new FilterOutputStream(coloured()) {
            private boolean begun;

            private void begin() throws IOException {
                if (!begun) {
                    begun = true;
                    heading(heading);
                }
            }

            @Override
            public void write(int b) throws IOException {
                begin();
                super.write(b);
            }

            @Override
            public void write(byte[] bytes, int offset, int length) throws IOException {
                begin();
                out.write(bytes, offset, length);
            }

            @Override
            public void flush() throws IOException {
                begin();
                super.flush();
            }
        };
    }

    private OutputStream coloured() {
        return colours && ResultColours.knows(format) ? new ResultColours(out, format) : out;
    }

    private void heading(String words) throws IOException {
        if (!words.isEmpty()) {
            String line = Colour.FAINT.of("--- ", colours) + Colour.NAME.of(words, colours) + "\n";
            out.write(line.getBytes(StandardCharsets.UTF_8));
        }
    }
}
