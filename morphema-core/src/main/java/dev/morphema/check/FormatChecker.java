package dev.morphema.check;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.syntax.Constant;
import dev.morphema.syntax.FormatRef;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** Checks the options of a format against what it takes. */
final class FormatChecker {
    /** Where formats are that are not always installed. */
    private static final Map<String, String> MODULES =
            Map.of("sql", "morphema-jdbc", "xlsx", "morphema-xlsx", "yaml", "morphema-yaml");

    private final Checker checker;

    FormatChecker(Checker checker) {
        this.checker = checker;
    }

    /** {@return what to do about a format that there is not, or null} */
    static @Nullable String help(String name, Collection<String> known) {
        String module = MODULES.get(name);
        return module == null
                ? NearNames.proposal(name, known).orElse(null)
                : "the module " + module + " has it, once it is on the class path";
    }

    /**
     * {@return the options that are right; the others are reported}
     *
     * @param faultOf says what is wrong with options of which each for itself is right, or gives
     *     null
     */
    Options options(FormatRef ref, List<OptionSpec> specs, Function<Options, @Nullable String> faultOf) {
        Options options = each(ref, specs);
        String fault = faultOf.apply(options);
        if (fault == null) {
            return options;
        }
        checker.report(ref.span().error(Code.UNKNOWN_OPTION, fault));
        return new Options(Map.of());
    }

    private Options each(FormatRef ref, List<OptionSpec> specs) {
        Map<String, Object> values = new HashMap<>();
        for (FormatRef.Option option : ref.options()) {
            if (option.name() == null) {
                continue;
            }
            OptionSpec spec = specs.stream()
                    .filter(s -> s.name().equals(option.name()))
                    .findFirst()
                    .orElse(null);
            if (spec == null) {
                List<String> names = specs.stream().map(OptionSpec::name).toList();
                checker.report(option.span()
                        .error(Code.UNKNOWN_OPTION, ref.name() + " takes no option " + option.name() + " here.")
                        .withHelp(NearNames.proposal(option.name(), names).orElse(null)));
                continue;
            }
            Object value = value(option.value(), spec);
            if (value == null) {
                checker.report(option.value()
                        .span()
                        .error(Code.UNKNOWN_OPTION, "The option " + spec.name() + " is " + words(spec) + "."));
            } else if (values.put(spec.name(), value) != null) {
                checker.report(
                        option.span().error(Code.DUPLICATE_NAME, "The option " + spec.name() + " is given twice."));
            }
        }
        return new Options(values);
    }

    private static String words(OptionSpec spec) {
        return spec.form() == OptionSpec.Form.CHOICE
                ? "one of the words " + String.join(", ", spec.choices())
                : spec.form().words();
    }

    /** The value of a constant as an option wants it, or null if it does not fit. */
    private static @Nullable Object value(Constant constant, OptionSpec spec) {
        String text = constant.text();
        boolean isText = constant.form() == Constant.Form.TEXT;
        return switch (spec.form()) {
            case TEXT -> isText ? text : null;
            case CHARACTER -> isText && text.length() == 1 ? text : null;
            case SWITCH ->
                constant.form() != Constant.Form.WORD
                        ? null
                        : text.equals("true") ? Boolean.TRUE : text.equals("false") ? Boolean.FALSE : null;
            case COUNT ->
                constant.form() == Constant.Form.NUMBER && text.matches("\\d{1,6}") ? Integer.valueOf(text) : null;
            case CHOICE ->
                constant.form() == Constant.Form.WORD && spec.choices().contains(text) ? text : null;
            case TEXTS -> texts(constant);
            case TEXT_OR_TEXTS -> isText ? List.of(text) : texts(constant);
            case ENCODING -> isText && isEncoding(text) ? text : null;
        };
    }

    private static @Nullable List<String> texts(Constant constant) {
        if (constant.form() != Constant.Form.LIST) {
            return null;
        }
        List<String> texts = new ArrayList<>();
        for (Constant item : constant.items()) {
            if (item.form() != Constant.Form.TEXT) {
                return null;
            }
            texts.add(item.text());
        }
        return texts;
    }

    private static boolean isEncoding(String name) {
        try {
            return Charset.forName(name).canEncode();
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            return false;
        }
    }
}
