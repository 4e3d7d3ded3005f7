package dev.morphema.formats;

import dev.morphema.format.FieldGroup;
import dev.morphema.format.Options;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import java.util.Map;
import java.util.function.Function;

/**
 * What stands before and after the values of the fields of groups, made once for a group and the
 * depth at which it is written, and kept in the group. Not thread-safe.
 */
public final class Affixes {
    private static final Affix[] NONE = {};

    private final String format;
    private final Options options;
    private final Map<String, String> prefixes;
    private final Function<FieldName, Affix> making;

    /** What was made of a group, and for whom. */
    private record Made(String format, Options options, Map<String, String> prefixes, int depth, Affix[] affixes) {
        private boolean isFor(Affixes writer, int atDepth) {
            return options == writer.options
                    && prefixes == writer.prefixes
                    && depth == atDepth
                    && format.equals(writer.format);
        }
    }

    /**
     * @param format of the document
     * @param options of the document; a mapping gives all documents of a target the same object
     * @param prefixes of the document, likewise; empty for a format without
     * @param making makes what stands before and after one field at the depth at hand; may refuse
     *     the name
     */
    public Affixes(String format, Options options, Map<String, String> prefixes, Function<FieldName, Affix> making) {
        this.format = format;
        this.options = options;
        this.prefixes = prefixes;
        this.making = making;
    }

    /**
     * {@return what stands before and after each field of a group, not to be changed; empty if one
     * of the names is refused}
     */
    public Affix[] of(FieldGroup group, int depth) {
        if (group.kept() instanceof Made known && known.isFor(this, depth)) {
            return known.affixes();
        }
        Affix[] affixes = made(group);
        group.keep(new Made(format, options, prefixes, depth, affixes));
        return affixes;
    }

    private Affix[] made(FieldGroup group) {
        try {
            return group.names().stream().map(making).toArray(Affix[]::new);
        } catch (ProblemException e) {
            // It will be refused again when the field is written by itself, with its place.
            return NONE;
        }
    }
}
