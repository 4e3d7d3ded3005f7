package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/**
 * Numbers that are read and looked at as bytes, for all short texts of the characters that matter,
 * and for the longest.
 */
class NumberBytesTest {
    private static final String CHARACTERS = "-.0159/:";
    private static final Pattern NUMBER = Pattern.compile("-?(0|[1-9][0-9]*)(\\.[0-9]+)?");
    private static final int LONGEST = 5;

    private static List<String> texts() {
        List<String> all = new ArrayList<>(List.of(""));
        for (int from = 0, length = 0; length < LONGEST; length++) {
            int to = all.size();
            for (; from < to; from++) {
                for (char c : CHARACTERS.toCharArray()) {
                    all.add(all.get(from) + c);
                }
            }
        }
        String digits = "123456789012345678";
        for (String text : List.of(digits, digits + "9", "0." + digits.substring(1), "0." + digits)) {
            all.add(text);
            all.add("-" + text);
        }
        return all;
    }

    private static byte[] bytes(String text) {
        return ("<" + text + ">").getBytes(StandardCharsets.US_ASCII);
    }

    private static boolean isShort(String text) {
        return text.replaceAll("[-.]", "").length() <= 18;
    }

    @Test
    void aNumberIsReadAsFarAsItGoes() {
        NumberScan scan = new NumberScan();
        for (String text : texts()) {
            byte[] bytes = bytes(text);
            Matcher start = NUMBER.matcher(text);
            String found = start.lookingAt() ? start.group() : "";
            String rest = text.substring(found.length());
            // What goes on with a digit has a superfluous zero, and a point wants digits after it.
            boolean number = !found.isEmpty()
                    && isShort(found)
                    && !rest.matches("[0-9].*")
                    && !(found.indexOf('.') < 0 && rest.startsWith("."));
            assertThat(scan.read(bytes, 1, bytes.length - 1)).as(text).isEqualTo(number);
            if (number) {
                assertThat(scan.end()).as(text).isEqualTo(1 + found.length());
                assertThat(scan.value()).as(text).hasToString(printed(found));
                assertThat(scan.asPrinted()).as(text).isEqualTo(printed(found).equals(found));
            }
        }
    }

    private static String printed(String number) {
        return new BigDecimal(number).toPlainString();
    }

    @Test
    void whatIsPrintedSoIsKnownByItsBytes() {
        for (char point : new char[] {'.', ':'}) {
            for (String text : texts()) {
                byte[] bytes = bytes(text);
                String plain = point == '.' ? text : text.replace('.', '#').replace(point, '.');
                boolean as = NUMBER.matcher(plain).matches()
                        && plain.replace("-", "").length() <= 18
                        && printed(plain).equals(plain);
                int mark = !as ? -1 : plain.indexOf('.') < 0 ? bytes.length - 1 : 1 + plain.indexOf('.');
                assertThat(NumberParser.markIfAsPrinted(bytes, 1, bytes.length - 1, (byte) point))
                        .as(text)
                        .isEqualTo(mark);
            }
        }
    }

    @Test
    void textsAreNumbersIfTheyAreWrittenSo() {
        Pattern plain = Pattern.compile("[-+]?[0-9]+(\\.[0-9]+)?");
        for (String text : texts()) {
            assertThat(NumberValue.parse(text).isPresent())
                    .as(text)
                    .isEqualTo(plain.matcher(text).matches());
            NumberValue.parse(text)
                    .ifPresent(
                            number -> assertThat(number.decimal()).as(text).isEqualByComparingTo(new BigDecimal(text)));
        }
    }

    @Test
    void whatIsHeldTakesMemory() {
        Value text = TextValue.of("abcd");
        Value number = NumberValue.of(7);
        long one = ValueSize.of(text);
        assertThat(ValueSize.of((Value) null)).isZero();
        assertThat(ValueSize.of(Missing.NULL)).isZero();
        assertThat(ValueSize.of(BooleanValue.TRUE)).isZero();
        assertThat(ValueSize.of(TextValue.of("abcdefgh"))).isEqualTo(one + 4);
        assertThat(one).isBetween(60L, 100L);
        assertThat(ValueSize.of(number)).isBetween(16L, 64L);
        assertThat(ValueSize.of(NumberValue.of(new BigDecimal("1e30")))).isGreaterThan(ValueSize.of(number));
        assertThat(ValueSize.of(ListValue.of(List.of(text, text)))).isGreaterThan(2 * one);
        assertThat(ValueSize.of(Many.of(List.of(text, text))))
                .isEqualTo(ValueSize.of(ListValue.of(List.of(text, text))));
        assertThat(ValueSize.of(new Value[] {text, null, text})).isBetween(2 * one + 12, 3 * one);
    }
}
