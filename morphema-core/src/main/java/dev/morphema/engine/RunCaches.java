package dev.morphema.engine;

import dev.morphema.format.FieldGroup;
import dev.morphema.format.Projection;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * What runs of one program have learned about the form of their data: the layouts of records, and
 * where the fields are in these; what writers made of the
 * names of fields. None of it changes a result. A run has its own, unless its caller
 * keeps one for further runs. Not thread-safe: for one run at a time.
 */
public final class RunCaches {
    private final Program program;
    private final Layout made = Layout.start(name -> null);
    private final SlotSite.@Nullable Found[] sites;
    private final @Nullable FieldGroup[] groups;
    private final @Nullable Projection[] projections;
    private final @Nullable Projection[] asBytes;
    private final @Nullable Projection[] kept;
    private final Map<Object, Object> ofFunctions = new HashMap<>();

    /** Begins with nothing learned. */
    public RunCaches(Program program) {
        this.program = program;
        this.sites = new SlotSite.Found[program.sites()];
        this.groups = new FieldGroup[program.sites()];
        this.projections = new Projection[program.mapping().sources().size()];
        this.asBytes = new Projection[projections.length];
        this.kept = new Projection[projections.length];
    }

    /** {@return what a function keeps} */
    <T> T kept(Class<T> kind, Object owner, Supplier<T> beginning) {
        return kind.cast(ofFunctions.computeIfAbsent(owner, of -> beginning.get()));
    }

    /** {@return the layout that records made by the mapping begin with} */
    Layout made() {
        return made;
    }

    SlotSite.@Nullable Found[] sites() {
        return sites;
    }

    /**
     * {@return the fields side by side that a site writes, with what writers made of their names}
     */
    FieldGroup group(int site, List<FieldName> names) {
        FieldGroup known = groups[site];
        if (known == null) {
            known = new FieldGroup(names);
            groups[site] = known;
        }
        return known;
    }

    /** {@return what is read of a source} */
    Projection projection(int source) {
        Projection known = projections[source];
        if (known == null) {
            known = program.mapping().sources().get(source).projection().fresh();
            projections[source] = known;
        }
        return known;
    }

    /** {@return what is read of a source, for one who takes the bytes of most fields} */
    Projection bytesProjection(int source) {
        Projection known = asBytes[source];
        if (known == null) {
            known = projection(source).asBytes();
            asBytes[source] = known;
        }
        return known;
    }

    /** {@return what is kept of a source beside what streams} */
    Projection keptProjection(int source) {
        Projection known = kept[source];
        if (known == null) {
            known = program.plan().keptProjection(source).fresh();
            kept[source] = known;
        }
        return known;
    }
}
