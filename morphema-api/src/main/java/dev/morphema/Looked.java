package dev.morphema;

import dev.morphema.shape.LearnedShape;
import dev.morphema.standard.InputGuess;
import dev.morphema.syntax.MappingPrinter;
import dev.morphema.value.Value;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** What some files hold, as {@link Morphema#look} found it. Not to be changed. */
public final class Looked {
    private final Looking looking;
    private final InputGuess guess;
    private final LearnedShape shape;
    private final long records;
    private final boolean complete;
    private final List<Path> files;
    private final Map<String, List<Path>> onlyIn;

    Looked(
            Looking looking,
            InputGuess guess,
            LearnedShape shape,
            long records,
            boolean complete,
            List<Path> files,
            Map<String, List<Path>> onlyIn) {
        this.looking = looking;
        this.guess = guess;
        this.shape = shape;
        this.records = records;
        this.complete = complete;
        this.files = List.copyOf(files);
        this.onlyIn = Map.copyOf(onlyIn);
    }

    /** {@return the name of the format} */
    public String format() {
        return guess.format();
    }

    /** {@return the format with its options as a mapping writes it} */
    public String source() {
        return guess.written();
    }

    /**
     * {@return the format as a mapping writes it, with its options and the first of the files as
     * its sample}
     */
    public String sampledSource() {
        String source = guess.written();
        String begun = source.endsWith(")") ? source.substring(0, source.length() - 1) + ", " : source + "(";
        String sample = MappingPrinter.raw(files.get(0).toAbsolutePath().toString());
        return begun + (files.size() > 1 ? "files = many, " : "") + "sample = " + sample + ")";
    }

    /** {@return the shape of all that was looked at} */
    public LearnedShape shape() {
        return shape;
    }

    /** {@return whether it is a sequence of records; if not, each file is one document} */
    public boolean isSequence() {
        return looking.isSequence();
    }

    /**
     * {@return the first records, or the documents, which are read once more}
     *
     * @param most how many records at most
     * @throws dev.morphema.problem.ProblemException if a file cannot be read any more
     */
    public List<Value> records(int most) {
        return looking.records(files, guess, most);
    }

    /** {@return how many records, or documents, were looked at} */
    public long records() {
        return records;
    }

    /** {@return whether all there is was looked at} */
    public boolean isComplete() {
        return complete;
    }

    /** {@return the files, in order} */
    public List<Path> files() {
        return files;
    }

    /**
     * {@return the files that have a path, for each path that some file with records lacks}; paths
     * as a mapping writes them, from the record.
     */
    public Map<String, List<Path>> onlyIn() {
        return onlyIn;
    }
}
