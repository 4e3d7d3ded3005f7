package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Values that were spilled come back as they were. */
class EncodingProperties {
    private static final List<FieldName> NAMES = List.of(
            FieldName.of("ship"), FieldName.attribute("id"), new FieldName("urn:x", "ship", false), FieldName.OWN_TEXT);

    @Provide
    Gen<Value> values() {
        Gen<Value> scalars = Gens.oneOf(
                Gens.of(Missing.ABSENT, Missing.NULL, BooleanValue.of(true), BooleanValue.of(false)),
                Gens.strings().map(TextValue::of),
                Gens.strings().ascii().map(text -> TextValue.of(text.toCharArray(), 0, text.length())),
                Gens.strings().map(text -> new ElementText(NAMES.get(text.length() % 3), text)),
                Gens.longs().map(NumberValue::of),
                Gens.bigDecimals().ofScale(7).map(NumberValue::of),
                Gens.bigIntegers().map(digits -> NumberValue.of(new BigDecimal(digits, 20))),
                Gens.integers().map(day -> new DateValue(LocalDate.ofEpochDay(day))),
                Gens.longs().between(0, 86_399_999_999_999L).map(nano -> new TimeValue(LocalTime.ofNanoOfDay(nano))),
                Gens.integers()
                        .between(-64_800, 64_800)
                        .map(offset -> new DateTimeValue(
                                LocalDateTime.of(2026, 3, 5, 14, 30, 0, offset + 64_800),
                                offset % 7 == 0 ? null : ZoneOffset.ofTotalSeconds(offset))));
        Gen<Value> nested = scalars;
        for (int depth = 0; depth < 2; depth++) {
            nested = Gens.oneOf(
                    scalars,
                    nested.list().ofMaxSize(3).map(ListValue::of),
                    nested.list().ofMaxSize(3).map(Many::of),
                    records(nested));
        }
        return nested;
    }

    private static Gen<Value> records(Gen<Value> values) {
        Gen<Value> field = values.injectNull(0.2);
        return Gens.combine(field, field, field, Gens.integers().between(0, 3)).as((a, b, c, form) -> {
            Origin origin = form == 0 ? null : new Origin("calls.xml", form, 1L << 40);
            RecordBuilder builder = RecordValue.builder(Layout.of(NAMES), origin);
            Value[] fields = {a, b, c};
            FieldBytes.Row bytes = new FieldBytes.Row(NAMES.size());
            builder.bytes(bytes);
            for (int i = 0; i < fields.length; i++) {
                if (fields[i] != null && !(i == form && isAdded(bytes, i, fields[i]))) {
                    builder.set(i, fields[i]);
                }
            }
            if (form > 1) {
                builder.element(NAMES.get(2));
            }
            if (form > 2) {
                builder.parts(List.of(
                        new RecordValue.Part(NAMES.get(0), TextValue.of("x")),
                        new RecordValue.Part(null, TextValue.of("between"))));
            }
            return builder.build();
        });
    }

    /** Whether a value is a text or number that a record can have as bytes, which it has now. */
    private static boolean isAdded(FieldBytes.Row bytes, int slot, Value value) {
        byte[] utf8 = value.toString().getBytes(StandardCharsets.UTF_8);
        byte[] padded = Arrays.copyOf(utf8, utf8.length + 16);
        return utf8.length > 0
                && !value.toString().contains("\uFFFD")
                && (value instanceof NumberValue && isPrinted(padded, utf8.length)
                        ? bytes.number(slot, padded, 0, utf8.length)
                        : value.getClass() == TextValue.class
                                && new String(utf8, StandardCharsets.UTF_8).equals(value.toString())
                                && bytes.text(slot, padded, 0, utf8.length));
    }

    private static boolean isPrinted(byte[] padded, int length) {
        NumberScan scan = new NumberScan();
        return scan.read(padded, 0, length) && scan.end() == length && scan.asPrinted();
    }

    @Property
    void aRowComesBackAsItWas(@ForAll List<@From("values") Value> row, @ForAll boolean unchanging) {
        ValueNames names = new ValueNames();
        ValueEncoder encoder = new ValueEncoder(names);
        encoder.row(new Value[] {null});
        int second = encoder.length();
        encoder.row(row.toArray(Value[]::new));
        ValueDecoder decoder = new ValueDecoder(names, unchanging);
        assertThat(decoder.row(encoder.bytes(), 0)).containsExactly((Value) null);
        @Nullable Value[] back = decoder.row(encoder.bytes(), second);
        if (!unchanging) {
            Arrays.fill(encoder.bytes(), (byte) '#');
        }
        assertThat(back).hasSize(row.size());
        for (int i = 0; i < back.length; i++) {
            assertSame(back[i], row.get(i));
        }
    }

    private static void assertSame(@Nullable Value back, @Nullable Value value) {
        if (value instanceof RecordValue record) {
            RecordValue other = (RecordValue) back;
            assertThat(other.layout()).isSameAs(record.layout());
            assertThat(other.origin()).isEqualTo(record.origin());
            assertThat(other.element()).isEqualTo(record.element());
            assertThat(other.isMixed()).isEqualTo(record.isMixed());
            for (int i = 0; i < record.layout().size(); i++) {
                assertSame(other.get(i), record.get(i));
            }
            assertThat(other.parts()).hasSameSizeAs(record.parts());
        } else if (value instanceof ListValue list) {
            assertSame(((ListValue) back).items(), list.items());
        } else if (value instanceof Many many) {
            assertSame(((Many) back).items(), many.items());
        } else {
            assertThat(back).isEqualTo(value);
            assertThat(back).hasToString(value.toString());
            assertThat(back).hasSameClassAs(value);
        }
    }

    private static void assertSame(List<Value> back, List<Value> items) {
        assertThat(back).hasSameSizeAs(items);
        for (int i = 0; i < items.size(); i++) {
            assertSame(back.get(i), items.get(i));
        }
    }
}
