package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.format.Input;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.shape.LearnedShape;
import dev.morphema.shape.ShapeWriter;
import dev.morphema.value.FieldName;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

/** Finds the fields that samples have and a mapping does not read. */
final class UnreadFields {
    private UnreadFields() {}

    /**
     * {@return the paths of such fields, from the source or one of its records on, as a mapping
     * writes them}; of records nothing of which is read, only the record itself.
     *
     * @throws IOException if a sample cannot be read
     */
    static List<String> of(CheckedMapping.Source source, List<Input> samples) throws IOException {
        LearnedShape shape = LearnedShape.unknown();
        for (Input sample : samples) {
            try (RecordReader reader = source.format().open(sample, Projection.everything(), source.options())) {
                reader.events(new ShapeWriter(shape));
            }
        }
        List<String> unread = new ArrayList<>();
        collect(shape, source.projection(), "", unread);
        return unread;
    }

    private static void collect(LearnedShape shape, Projection read, String path, List<String> unread) {
        if (read.keepsAll()) {
            return;
        }
        for (FieldName name : shape.names()) {
            LearnedShape field = shape.field(name);
            int slot = read.slot(name);
            boolean ownText = name.equals(FieldName.OWN_TEXT);
            if (slot < 0 && !ownText) {
                unread.add(path + "." + name);
            } else if (slot >= 0 && field != null) {
                collect(field, read.child(slot), path + "." + name, unread);
            }
        }
    }
}
