package dev.morphema.cli;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import picocli.codegen.docgen.manpage.ManPageGenerator;

/** Writes a page in AsciiDoc for each command, from which a release makes man pages. */
final class ManPages {
    private ManPages() {}

    /** @param args the folder */
    public static void main(String[] args) throws IOException {
        write(Files.createDirectories(Path.of(args[0])));
    }

    static void write(Path folder) throws IOException {
        PrintWriter none = new PrintWriter(OutputStream.nullOutputStream());
        Terminal terminal = new Terminal(
                InputStream.nullInputStream(),
                OutputStream.nullOutputStream(),
                none,
                none,
                Look.PLAIN,
                Interruption.none());
        int code = ManPageGenerator.generateManPage(
                folder.toFile(),
                null,
                new boolean[0],
                true,
                Main.lineOfAll(terminal).getCommandSpec());
        if (code != 0) {
            throw new IOException("the pages cannot be written to " + folder);
        }
    }
}
