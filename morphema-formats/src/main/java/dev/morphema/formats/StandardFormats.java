package dev.morphema.formats;

import dev.morphema.csv.CsvSource;
import dev.morphema.csv.CsvTarget;
import dev.morphema.format.FormatRegistry;
import dev.morphema.json.JsonSource;
import dev.morphema.json.JsonTarget;
import dev.morphema.xml.XmlSource;
import dev.morphema.xml.XmlTarget;
import java.util.List;

/** The formats that come with Morphema. */
public final class StandardFormats {
    private StandardFormats() {}

    /** {@return csv, json, jsonl and xml, for reading and for writing} */
    public static FormatRegistry registry() {
        return new FormatRegistry(
                List.of(new CsvSource(), JsonSource.document(), JsonSource.lines(), new XmlSource()),
                List.of(new CsvTarget(), JsonTarget.document(), JsonTarget.lines(), new XmlTarget()));
    }
}
