package dev.morphema.cli;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;

/** The files of the demo, in the folder where they are laid out. */
final class DemoFiles {
    private final Path folder;

    DemoFiles(Path folder) {
        this.folder = folder;
    }

    Path resolve(String file) {
        return folder.resolve(file);
    }

    /** Copies files into the folder; those that stand there already stay. */
    void layOut(List<String> files) {
        try {
            Files.createDirectories(folder.resolve("out"));
            for (String file : files) {
                Path target = folder.resolve(file);
                if (!Files.exists(target)) {
                    Files.createDirectories(Objects.requireNonNull(target.getParent()));
                    try (InputStream in = DemoCommand.class.getResourceAsStream("/demo/" + file)) {
                        Files.copy(Objects.requireNonNull(in), target);
                    }
                }
            }
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(
                                    Code.NOT_WRITTEN,
                                    "The demo cannot be laid out in " + folder + ": " + e.getMessage() + ".")
                            .withHelp("name another folder: morphema demo FOLDER"),
                    e);
        }
    }
}
