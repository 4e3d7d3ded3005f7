package dev.morphema.convert;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.temporal.TemporalAccessor;
import java.time.temporal.TemporalQueries;

/** Dates whose fields have fixed places are read and printed as the general way does. */
class DatePatternProperties {
    /** A part that may be missing has no fixed place, so such a pattern takes the general way. */
    private static final String GENERAL = "['x']";

    @Provide
    Gen<String> patterns() {
        return Gens.of(
                "yyyy-MM-dd",
                "dd.MM.yyyy HH:mm",
                "yyyyMMddHHmmss",
                "uuuu-MM-dd'T'HH:mm:ss",
                "HH:mm",
                "'am 'dd.MM.yyyy",
                "MM/dd/yyyy HH.mm.ss",
                "yyyy-MM",
                "d.M.yyyy",
                "dd MMM yyyy");
    }

    @Provide
    Gen<LocalDateTime> times() {
        return Gens.combine(Gens.integers().between(0, 9999), Gens.integers().between(0, 365 * 24 * 60 * 60 - 1))
                .as((year, second) -> LocalDateTime.of(year, 1, 1, 0, 0).plusSeconds(second));
    }

    @Provide
    Gen<String> slips() {
        return Gens.of("", "", "0", "9", "-", " ", "T", "3", "ü");
    }

    private static String parsed(DatePattern pattern, String text) {
        try {
            TemporalAccessor found = pattern.parse(text);
            return found.query(TemporalQueries.localDate()) + " " + found.query(TemporalQueries.localTime());
        } catch (DateTimeException e) {
            return "refused, " + (e.getCause() == null ? "not written so" : "no such day");
        }
    }

    @Property
    void printedAlike(@ForAll("patterns") String pattern, @ForAll("times") LocalDateTime time) {
        assertThat(new DatePattern(pattern).print(time) + "x")
                .isEqualTo(new DatePattern(pattern + GENERAL).print(time));
    }

    @Property(tries = 3_000)
    void readAlike(
            @ForAll("patterns") String pattern,
            @ForAll("times") LocalDateTime time,
            @ForAll("slips") String slip,
            @ForAll int place) {
        String right = new DatePattern(pattern).print(time);
        int at = Math.floorMod(place, right.length());
        String text = slip.isEmpty() ? right : right.substring(0, at) + slip + right.substring(at + 1);
        assertThat(parsed(new DatePattern(pattern), text)).isEqualTo(parsed(new DatePattern(pattern + GENERAL), text));
    }
}
