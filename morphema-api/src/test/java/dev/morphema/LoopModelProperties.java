package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The clauses of a loop do what Java's own collections and streams do with the same rows, written
 * down for each by hand.
 */
class LoopModelProperties {
    /** A row; a berth or an amount may be absent. */
    record Row(
            @Nullable String berth, String ship, @Nullable BigDecimal tonnes) {
        private String cells() {
            return Objects.requireNonNullElse(berth, "") + "," + ship + ","
                    + (tonnes == null ? "" : tonnes.toPlainString());
        }
    }

    @Provide
    Gen<List<Row>> rows() {
        Gen<String> berths = Gens.of("B1", "B2", "B10", "Å1").injectNull(0.15);
        Gen<String> ships = Gens.of("Nordlys", "Sula", "Havgap", "a name of more than fifteen letters");
        Gen<BigDecimal> tonnes = Gens.bigDecimals()
                .between(new BigDecimal("-50"), new BigDecimal("50"))
                .ofScale(2)
                .injectNull(0.15);
        return Gens.combine(berths, ships, tonnes).as(Row::new).list().ofMaxSize(30);
    }

    private static String csv(List<Row> rows) {
        return Stream.concat(Stream.of("berth,ship,tonnes"), rows.stream().map(Row::cells))
                .collect(Collectors.joining("\n", "", "\n"));
    }

    /** What a loop over the rows gives, each turn a text of its own. */
    private static List<String> run(List<Row> rows, String loop) {
        return run(rows, loop, RunOptions.DEFAULT);
    }

    private static List<String> run(List<Row> rows, String loop, RunOptions options) {
        String out = Language.run(
                "source rows: csv { tonnes: number }\ntarget out: jsonl { for r in rows " + loop + " }\n",
                Inputs.text("rows", csv(rows)),
                options);
        return out.lines().map(line -> line.substring(1, line.length() - 1)).toList();
    }

    private static String shown(@Nullable Object value) {
        return value == null ? "-" : value instanceof BigDecimal number ? number.toPlainString() : value.toString();
    }

    private static String row(Row row) {
        return shown(row.berth()) + "/" + row.ship() + "/" + shown(row.tonnes());
    }

    private static final String SHOW_ROW = " => \"{r.berth ?? \"-\"}/{r.ship}/{r.tonnes ?? \"-\"}\"";

    private static <K> Map<K, List<Row>> grouped(List<Row> rows, Function<Row, K> key) {
        Map<K, List<Row>> groups = new LinkedHashMap<>();
        rows.forEach(row ->
                groups.computeIfAbsent(key.apply(row), k -> new ArrayList<>()).add(row));
        return groups;
    }

    private static BigDecimal sum(List<Row> rows) {
        return rows.stream().map(Row::tonnes).filter(Objects::nonNull).reduce(BigDecimal.ZERO, BigDecimal::add);
    }

    @Property(tries = 300)
    void whereKeepsWhatAStreamFilters(@ForAll("rows") List<Row> rows) {
        assertThat(run(rows, "where r.tonnes > 0 and r.ship != \"Sula\"" + SHOW_ROW))
                .containsExactlyElementsOf(rows.stream()
                        .filter(row -> row.tonnes() != null && row.tonnes().signum() > 0)
                        .filter(row -> !row.ship().equals("Sula"))
                        .map(LoopModelProperties::row)
                        .toList());
    }

    @Property(tries = 300)
    void sortByIsAStableSortWithAbsentLast(@ForAll("rows") List<Row> rows, @ForAll boolean descending) {
        Comparator<BigDecimal> numbers = descending ? Comparator.reverseOrder() : Comparator.naturalOrder();
        Comparator<Row> order = Comparator.comparing(Row::tonnes, Comparator.nullsLast(numbers));
        assertThat(run(rows, "sort by r.tonnes" + (descending ? " desc" : "") + SHOW_ROW))
                .containsExactlyElementsOf(rows.stream()
                        .sorted(order)
                        .map(LoopModelProperties::row)
                        .toList());
    }

    @Property(tries = 300)
    void sortByTwoKeysIsOneComparatorAfterTheOther(@ForAll("rows") List<Row> rows) {
        Comparator<Row> order = Comparator.comparing(
                        Row::berth, Comparator.nullsLast(Comparator.<String>naturalOrder()))
                .thenComparing(Row::ship, Comparator.reverseOrder());
        List<String> expected =
                rows.stream().sorted(order).map(LoopModelProperties::row).toList();
        assertThat(run(rows, "sort by r.berth, r.ship desc" + SHOW_ROW)).containsExactlyElementsOf(expected);
        assertThat(run(rows, "sort by r.berth, r.ship desc" + SHOW_ROW, RunOptions.DEFAULT.memory(0)))
                .containsExactlyElementsOf(expected);
    }

    @Property(tries = 300)
    void theFirstInOrderAreThoseOfTheSortedStream(
            @ForAll("rows") List<Row> rows, @ForAll @IntRange(min = 1, max = 12) int most) {
        Comparator<Row> order = Comparator.comparing(Row::tonnes, Comparator.nullsLast(Comparator.reverseOrder()));
        assertThat(run(rows, "sort by r.tonnes desc take " + most + SHOW_ROW))
                .containsExactlyElementsOf(rows.stream()
                        .sorted(order)
                        .limit(most)
                        .map(LoopModelProperties::row)
                        .toList());
        String best =
                "group by ship = r.ship as rs => \"{ship}: {join((x.berth ?? \"-\" for x in rs sort by x.tonnes desc take "
                        + most + "), \"+\")}, {first(for x in rs sort by x.tonnes desc).tonnes ?? \"-\"}\"";
        List<String> expected = grouped(rows, Row::ship).entrySet().stream()
                .map(group -> {
                    List<Row> sorted = group.getValue().stream().sorted(order).toList();
                    return group.getKey() + ": "
                            + sorted.stream()
                                    .limit(most)
                                    .map(row -> shown(row.berth()))
                                    .collect(Collectors.joining("+"))
                            + ", " + shown(sorted.get(0).tonnes());
                })
                .toList();
        assertThat(run(rows, best)).containsExactlyElementsOf(expected);
        assertThat(run(rows, best, RunOptions.DEFAULT.memory(0))).containsExactlyElementsOf(expected);
    }

    @Property(tries = 300)
    void groupByIsAMapInOrderOfFirstAppearance(@ForAll("rows") List<Row> rows) {
        String loop = "group by ship = r.ship as rs"
                + " => \"{ship} {count(rs)} {sum(rs.tonnes)} {count(distinct(rs.berth))} {join(rs.berth, \"+\")}\"";
        List<String> expected = grouped(rows, Row::ship).entrySet().stream()
                .map(group -> group.getKey() + " " + group.getValue().size() + " "
                        + shown(sum(group.getValue())) + " "
                        + berths(group.getValue()).distinct().count() + " "
                        + berths(group.getValue()).collect(Collectors.joining("+")))
                .toList();
        assertThat(run(rows, loop)).containsExactlyElementsOf(expected);
        assertThat(run(rows, loop, RunOptions.DEFAULT.memory(0))).containsExactlyElementsOf(expected);
    }

    private static Stream<String> berths(List<Row> rows) {
        return rows.stream().map(Row::berth).filter(Objects::nonNull);
    }

    @Property(tries = 300)
    void leastAndMostOfAGroupAreThoseOfItsStream(@ForAll("rows") List<Row> rows) {
        assertThat(run(
                        rows,
                        "group by berth = r.berth as rs => \"{min(rs.tonnes) ?? \"-\"} {max(rs.tonnes) ?? \"-\"}\""))
                .containsExactlyElementsOf(grouped(rows, Row::berth).values().stream()
                        .map(group -> {
                            List<BigDecimal> all = group.stream()
                                    .map(Row::tonnes)
                                    .filter(Objects::nonNull)
                                    .toList();
                            return shown(all.stream()
                                            .min(Comparator.naturalOrder())
                                            .orElse(null)) + " "
                                    + shown(all.stream()
                                            .max(Comparator.naturalOrder())
                                            .orElse(null));
                        })
                        .toList());
    }

    @Property(tries = 300)
    void aGroupInAGroupIsAMapInAMap(@ForAll("rows") List<Row> rows) {
        String loop = "group by ship = r.ship as ofShip { ship = ship  tonnes = sum(ofShip.tonnes)"
                + "  berths for x in ofShip group by berth = x.berth as atBerth => \"{berth ?? \"-\"}:{count(atBerth)}\" }";
        List<String> expected = grouped(rows, Row::ship).entrySet().stream()
                .map(group -> "\"ship\":\"" + group.getKey() + "\",\"tonnes\":" + shown(sum(group.getValue()))
                        + ",\"berths\":["
                        + grouped(group.getValue(), Row::berth).entrySet().stream()
                                .map(inner -> "\"" + shown(inner.getKey()) + ":"
                                        + inner.getValue().size() + "\"")
                                .collect(Collectors.joining(","))
                        + "]")
                .toList();
        assertThat(run(rows, loop)).containsExactlyElementsOf(expected);
    }

    @Property(tries = 300)
    void groupRunsByBeginsAGroupWhereTheKeyChanges(@ForAll("rows") List<Row> rows) {
        List<List<Row>> runs = new ArrayList<>();
        for (Row row : rows) {
            List<Row> last = runs.isEmpty() ? List.of() : runs.get(runs.size() - 1);
            if (last.isEmpty() || !last.get(0).ship().equals(row.ship())) {
                runs.add(new ArrayList<>());
            }
            runs.get(runs.size() - 1).add(row);
        }
        assertThat(run(rows, "group runs by ship = r.ship as rs numbered i => \"{i} {ship} {sum(rs.tonnes)}\""))
                .containsExactlyElementsOf(IntStream.range(0, runs.size())
                        .mapToObj(i -> i + 1 + " " + runs.get(i).get(0).ship() + " " + shown(sum(runs.get(i))))
                        .toList());
    }

    @Property(tries = 300)
    void distinctByKeepsTheFirstOfEach(@ForAll("rows") List<Row> rows) {
        Map<String, Row> first = new LinkedHashMap<>();
        rows.forEach(row -> first.putIfAbsent(row.ship(), row));
        assertThat(run(rows, "distinct by r.ship" + SHOW_ROW))
                .containsExactlyElementsOf(
                        first.values().stream().map(LoopModelProperties::row).toList());
    }

    @Property(tries = 300)
    void takeAndNumberedAreLimitAndIndex(@ForAll("rows") List<Row> rows, @ForAll @IntRange(max = 40) int most) {
        List<Row> taken = rows.stream().limit(most).toList();
        assertThat(run(rows, "take " + most + " numbered i => \"{i} {r.ship}\""))
                .containsExactlyElementsOf(IntStream.range(0, taken.size())
                        .mapToObj(i -> i + 1 + " " + taken.get(i).ship())
                        .toList());
    }

    @Property(tries = 200)
    void aTableIsAMapAndASecondNameAJoin(@ForAll("rows") List<Row> rows, @ForAll("rows") List<Row> others) {
        Map<String, Row> byShip = new LinkedHashMap<>();
        others.forEach(row -> byShip.putIfAbsent(row.ship(), row));
        List<String> known = rows.stream()
                .map(row -> {
                    Row found = byShip.get(row.ship());
                    return row.ship() + " " + shown(found == null ? null : found.berth());
                })
                .toList();
        List<String> pairs = rows.stream()
                .flatMap(row -> others.stream()
                        .filter(other -> other.ship().equals(row.ship()))
                        .map(other -> row(row) + "=" + shown(other.berth())))
                .toList();
        String sources = "source rows: csv { tonnes: number }\nsource others: csv\n"
                + "let first = (for o in others distinct by o.ship)\ntable berths for o in first key o.ship\n";
        Inputs inputs = Inputs.text("rows", csv(rows)).andText("others", csv(others));
        assertThat(texts(
                        sources
                                + "target out: jsonl { for r in rows => \"{r.ship} {berths[r.ship].berth ?? \"-\"}\" }\n",
                        inputs))
                .containsExactlyElementsOf(known);
        assertThat(texts(
                        sources + "target out: jsonl { for r in rows for o in others where o.ship == r.ship"
                                + SHOW_ROW.substring(0, SHOW_ROW.length() - 1) + "={o.berth ?? \"-\"}\" }\n",
                        inputs))
                .containsExactlyElementsOf(pairs);
    }

    private static List<String> texts(String mapping, Inputs inputs) {
        return Language.run(mapping, inputs)
                .lines()
                .map(line -> line.substring(1, line.length() - 1))
                .toList();
    }

    @Property(tries = 200)
    void differentValuesComeInOrderOfFirstAppearance(@ForAll("rows") List<Row> rows) {
        LinkedHashSet<String> different = berths(rows).collect(Collectors.toCollection(LinkedHashSet::new));
        String out = Language.run(
                "source rows: csv\ntarget out: json(indent = 0) { all = join(distinct(rows.berth), \"+\")"
                        + "  n = count(rows.berth) }\n",
                Inputs.text("rows", csv(rows)));
        String joined = different.isEmpty() ? "" : "\"all\":\"" + String.join("+", different) + "\",";
        assertThat(out).isEqualTo("{" + joined + "\"n\":" + berths(rows).count() + "}\n");
    }
}
