package dev.morphema.convert;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.Converter;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** What is read straight from the bytes is what the text would have been converted to. */
class ConverterProperties {
    private static final List<Converter> TYPES = List.of(
            TypeConverters.converter("number", List.of()),
            TypeConverters.converter("number", List.of(",")),
            TypeConverters.converter("number", List.of(",", ".")),
            TypeConverters.converter("integer", List.of()),
            TypeConverters.converter("boolean", List.of("j", "n")),
            TypeConverters.converter("date", List.of()),
            TypeConverters.converter("date", List.of("dd.MM.yyyy")),
            TypeConverters.converter("date", List.of("yyyy-MM")),
            TypeConverters.converter("time", List.of("HH:mm")),
            TypeConverters.converter("datetime", List.of("dd.MM.yyyy HH:mm")),
            TypeConverters.converter("datetime", List.of("dd.MM.yyyy HH:mm", "Europe/Oslo")),
            TypeConverters.converter("datetime", List.of("yyyy-MM-dd")));

    @Provide
    Gen<String> texts() {
        return Gens.oneOf(
                Gens.of(
                        "05.03.2026",
                        "31.02.2026",
                        "05.03.2026 14:30",
                        "29.03.2026 02:30",
                        "14:30",
                        "25:00",
                        "2026-03",
                        "2026-03-05"),
                Gens.strings().withChars("0123456789-+., ").ofMinLength(1).ofMaxLength(24),
                Gens.bigDecimals().ofScale(4).map(Object::toString),
                Gens.longs().map(n -> n / 100 + "," + Math.abs(n % 100)));
    }

    @Property(tries = 3_000)
    void bytesAreReadAsTheirTextIs(@ForAll("texts") String text) {
        byte[] bytes = ("<" + text + ">").getBytes(StandardCharsets.US_ASCII);
        for (Converter type : TYPES) {
            Value read = type.read(bytes, 1, bytes.length - 1);
            if (read != null) {
                assertThat(read.toString()).isEqualTo(converted(type, text));
            }
        }
    }

    private static String converted(Converter type, String text) {
        try {
            return type.convert(TextValue.of(text)).toString();
        } catch (ProblemException e) {
            return "refused";
        }
    }
}
