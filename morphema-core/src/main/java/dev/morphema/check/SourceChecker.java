package dev.morphema.check;

import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.JoinedShape;
import dev.morphema.shape.LearnedShape;
import dev.morphema.shape.SchemaShape;
import dev.morphema.shape.Shape;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.FormatRef;
import dev.morphema.syntax.Span;
import dev.morphema.syntax.TypeRef;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/** Checks a source: its format, options and types, and learns its shape from the sample. */
final class SourceChecker {
    /** Records of a sample that are looked at; a sample is to be read in no time. */
    private static final int SAMPLE_RECORDS = 1_000;

    private static final List<OptionSpec> COMMON = List.of(
            OptionSpec.of(CheckedMapping.SAMPLE, OptionSpec.Form.TEXT_OR_TEXTS),
            SchemaFinder.OPTION,
            OptionSpec.choice(CheckedMapping.FILES, CheckedMapping.FILES_MANY),
            OptionSpec.choice(Options.MISMATCH, "refuse", Options.MISMATCH_ALLOW));

    private final Checker checker;

    SourceChecker(Checker checker) {
        this.checker = checker;
    }

    /** A source whose uses are still being found out. */
    record Found(Decl.Source decl, SourceFormat format, Options options, Place root) {
        CheckedMapping.Source finish(Needs needs) {
            return new CheckedMapping.Source(decl, format, options, needs.projection(root), root.shape());
        }
    }

    /** {@return the source, or null if its format is not known} */
    @Nullable
    Found check(Decl.Source decl) {
        SourceFormat format = format(decl.format());
        if (format == null) {
            return null;
        }
        Options options = options(decl.format(), format);
        DeclaredTypes types = DeclaredTypes.none();
        Place root = Place.root(
                decl, shape(decl.format(), format, options), format.traits().flat(), types);
        decl.types().forEach(type -> declare(types, root, type));
        return new Found(decl, format, options, root);
    }

    /** {@return what is known of the source's name as an expression} */
    static Type type(Found found) {
        Shape shape = found.root().shape();
        boolean many = CheckedMapping.isSequence(found.format(), found.options()) || shape != null && shape.isList();
        Cardinality cardinality = many ? Cardinality.MANY : shape == null ? Cardinality.UNKNOWN : Cardinality.ONE;
        return new Type(null, cardinality, List.of(found.root()), null, false);
    }

    @Nullable
    SourceFormat format(FormatRef ref) {
        SourceFormat format = checker.environment().formats().source(ref.name()).orElse(null);
        if (format == null) {
            checker.report(ref.span()
                    .error(Code.UNKNOWN_FORMAT, "There is no format " + ref.name() + " that can be read.")
                    .withHelp(FormatChecker.help(
                            ref.name(), checker.environment().formats().sourceNames())));
        }
        return format;
    }

    Options options(FormatRef ref, SourceFormat format) {
        List<OptionSpec> specs = new ArrayList<>(format.options());
        specs.addAll(COMMON);
        return new FormatChecker(checker).options(ref, specs, format::faultOf);
    }

    /** Reports parameters that options of a source name, and that there are not. */
    void requireParameters(Found source, Set<String> declared) {
        for (String parameter : source.format().parameters(source.options())) {
            if (!declared.contains(parameter)) {
                checker.report(source.decl()
                        .format()
                        .span()
                        .error(
                                Code.UNKNOWN_NAME,
                                "The mapping has no parameter " + parameter + ", which is named here.")
                        .withHelp(NearNames.proposal(parameter, declared)
                                .orElse("declare it: param " + parameter + ": text")));
            }
        }
    }

    private void declare(DeclaredTypes types, Place root, Decl.FieldType fieldType) {
        DeclaredTypes.Declared type = checker.declaredFieldType(fieldType.type());
        if (type == null) {
            return;
        }
        Decl.PathStep last = fieldType.steps().get(fieldType.steps().size() - 1);
        if (fieldType.deep()) {
            FieldName name = checker.fieldName(last.name(), last.axis() == Expr.Axis.ATTRIBUTE);
            DeclaredTypes.Declared fitting = type;
            if (root.shape() != null) {
                List<? extends Shape> places = root.shape().below(name);
                if (places.isEmpty()) {
                    Set<String> known = new TreeSet<>();
                    root.shape().addNamesBelow(known);
                    checker.report(last.name()
                            .span()
                            .warning(
                                    Code.UNKNOWN_FIELD,
                                    "The " + root.shape().origin() + " has no field " + name + " at any depth.")
                            .in(root.shape().place())
                            .withHelp(NearNames.proposal(name.toString(), known).orElse(null)));
                }
                fitting = fitting(places, type, fieldType.type());
            }
            types.declareDeep(name, fitting);
            return;
        }
        Place place = root;
        List<FieldName> path = new ArrayList<>();
        for (Decl.PathStep step : fieldType.steps()) {
            FieldName name = checker.fieldName(step.name(), step.axis() == Expr.Axis.ATTRIBUTE, List.of(place));
            Shape shape = place.shape();
            if (shape != null && shape.lacks(name)) {
                List<String> known =
                        shape.names().stream().map(FieldName::toString).toList();
                Problem problem = root.isFlat() || shape.isClosed()
                        ? step.name()
                                .span()
                                .error(Code.UNKNOWN_FIELD, "The " + shape.origin() + " has no field " + name + ".")
                        : step.name()
                                .span()
                                .warning(
                                        Code.UNKNOWN_FIELD,
                                        "The " + shape.origin() + " has no field " + name + " here.");
                checker.report(problem.in(shape.place())
                        .withHelp(NearNames.proposal(name.toString(), known).orElse(null)));
            }
            path.add(name);
            place = place.child(name);
        }
        types.declare(path, place.shape() == null ? type : fitting(List.of(place.shape()), type, fieldType.type()));
    }

    /**
     * Values of the sample that are not of the type would not be in a run, where somebody needs
     * them. That is told once, and not with each rule that asks for them.
     */
    private DeclaredTypes.Declared fitting(List<? extends Shape> shapes, DeclaredTypes.Declared type, TypeRef written) {
        for (Shape shape : shapes) {
            Problem refused = shape.refusedBy(type.converter());
            if (refused != null) {
                checker.report(written.span()
                        .error(Code.WRONG_KIND, "The " + shape.origin() + " has a value here that is not of this type.")
                        .in(refused.input() == null ? shape.place() : refused.input())
                        .withValue(refused.value())
                        .withHelp(refused.help() == null ? refused.message() : refused.help()));
                return type.wrong();
            }
        }
        return type;
    }

    /** {@return what schema and samples tell of the source, or null if it has neither} */
    private @Nullable Shape shape(FormatRef ref, SourceFormat format, Options options) {
        SchemaShape schema = checker.schemas().find(ref, options).orElse(null);
        LearnedShape sample = sample(ref, format, options);
        return schema == null ? sample : sample == null ? schema : new JoinedShape(schema, sample);
    }

    /** {@return where the value of an option stands that is given} */
    static Span valueOf(FormatRef ref, String option) {
        return ref.options().stream()
                .filter(o -> option.equals(o.name()))
                .findFirst()
                .orElseThrow()
                .value()
                .span();
    }

    /** {@return what all samples together show, or null if there are none} */
    private @Nullable LearnedShape sample(FormatRef ref, SourceFormat format, Options options) {
        List<String> files = options.texts(CheckedMapping.SAMPLE).orElse(List.of());
        if (files.isEmpty()) {
            return null;
        }
        Span span = valueOf(ref, CheckedMapping.SAMPLE);
        LearnedShape shape = LearnedShape.unknown();
        boolean any = false;
        for (String file : files) {
            any |= learn(shape, file, span, format, options);
        }
        return any ? shape : null;
    }

    /** Learns from the samples that a name or pattern means; says whether any could be read. */
    private boolean learn(LearnedShape shape, String file, Span span, SourceFormat format, Options options) {
        boolean any = false;
        try {
            for (Input input : checker.environment().files().all(span.source(), file)) {
                any |= learn(shape, input, span, format, options);
            }
        } catch (ProblemException e) {
            checker.report(e.problem().at(span.location()));
        }
        return any;
    }

    private boolean learn(LearnedShape shape, Input input, Span span, SourceFormat format, Options options) {
        List<Value> values = new ArrayList<>();
        try (RecordReader reader = format.open(input, Projection.everything(), options)) {
            boolean sequence = reader.isSequence();
            Value value = reader.next();
            while (value != null && values.size() < SAMPLE_RECORDS) {
                values.add(RecordValue.detached(value));
                value = reader.next();
            }
            values.forEach(shape::learn);
            if (sequence) {
                shape.learn(ListValue.EMPTY);
            }
            return true;
        } catch (IOException e) {
            // A sample helps to check; a mapping that runs elsewhere can do without.
            checker.report(span.warning(
                    Code.FILE_NOT_FOUND, "The sample cannot be read, so paths are not checked against it."));
        } catch (ProblemException e) {
            checker.report(e.problem().at(span.location()));
        }
        return false;
    }

    /**
     * {@return all rows of a table's file, or null if it cannot be read}
     */
    @Nullable
    List<Value> rows(FormatRef ref, SourceFormat format, Options options, Span fileSpan, String file) {
        Input input = checker.environment().files().find(ref.span().source(), file);
        try (RecordReader reader = format.open(input, Projection.everything(), options)) {
            return reader.remaining();
        } catch (IOException e) {
            checker.report(fileSpan.error(Code.FILE_NOT_FOUND, "The file of this table cannot be read.")
                    .withValue(input.name())
                    .withHelp("paths are relative to the folder of the mapping"));
        } catch (ProblemException e) {
            checker.report(e.problem().at(fileSpan.location()));
        }
        return null;
    }
}
