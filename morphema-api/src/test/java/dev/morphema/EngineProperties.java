package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.LongRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * However a mapping is run, it gives the same: records streamed or kept as a whole, only the fields
 * in use or all of them, through a let or directly.
 */
class EngineProperties {
    /**
     * A use of the whole source with all its fields, which changes nothing but the way the mapping
     * is run.
     */
    private static final String KEEP_ALL = "require count([m]) >= 0 else \"never\"\n";

    @Provide
    Gen<String> rows() {
        Gen<String> cell = Gens.of("", "a", "b", "c", "\"\"", "\"x,y\"");
        Gen<String> number = Gens.of("", "1", "2.50", "10", "-3");
        Gen<String> row = Gens.combine(cell, cell, number).as((k, l, n) -> k + "," + l + "," + n);
        return row.list().ofMaxSize(12).map(rows -> rows.stream().collect(Collectors.joining("\n", "k,l,n\n", "\n")));
    }

    @Provide
    Gen<String> clauses() {
        List<String> before = List.of(
                "",
                "where exists(r.n)",
                "where r.k != \"a\"",
                "distinct by r.k",
                "take 3",
                "sort by r.n desc, r.k",
                "sort by r.k desc take 4",
                "numbered i where i > 1",
                "let d = (r.n ?? 0) * 2 where d < 10",
                "for q in m2 where q.k == r.k");
        List<String> after = List.of(
                " => r.n",
                " { k = r.k  n = r.n  t = \"{r.l}|\" }",
                " group by r.k as rs => { k = k  n = sum(rs.n)  c = count(rs) }",
                " group by r.k, big = (r.n > 2) as rs sort by count(rs) desc { k? = k  l = [rs.l]  m = max(rs.n) }",
                " group runs by r.k as rs numbered i => \"{i}:{k}:{join(rs.l, \"+\")}\"",
                " group from r.k == \"a\" as rs => count(rs)");
        // Over two names the members of a group are pairs, whose fields these clauses do not ask
        // for.
        return Gens.combine(Gens.of(before), Gens.of(before), Gens.of(after))
                .as((a, b, c) -> a.contains("for q") && c.contains("group")
                        ? ""
                        : a + " " + (b.contains("let ") || b.contains("numbered") || b.contains("for q") ? "" : b) + c)
                .filter(clauses -> !clauses.isEmpty());
    }

    private static String run(String declarations, String body, String rows) {
        return run(declarations, body, rows, RunOptions.DEFAULT);
    }

    private static String run(String declarations, String body, String rows, RunOptions options) {
        return Language.run(mapping(declarations, body), inputs(rows), options);
    }

    private static String mapping(String declarations, String body) {
        return "source m: csv { n: number }\nsource m2: csv\n" + declarations + "target o: json(indent = 0) {\n" + body
                + "}\n";
    }

    private static Inputs inputs(String rows) {
        return Inputs.text("m", rows).andText("m2", rows);
    }

    @Property(tries = 400)
    void streamedAndKeptGiveTheSame(@ForAll("rows") String rows, @ForAll("clauses") String clauses) {
        String loop = "list for r in m " + clauses + "\n";
        String streamed = run("", loop, rows);
        assertThat(run("", KEEP_ALL + loop, rows)).isEqualTo(streamed);
        assertThat(run("let named = (for x in m)\n", loop.replace("in m ", "in named "), rows))
                .isEqualTo(streamed);
        assertThat(run("define same(x) = x\n", loop.replace("in m ", "in same(m) "), rows))
                .isEqualTo(streamed);
    }

    @Property(tries = 200)
    void aLoopInABodyAndInAnExpressionGiveTheSame(@ForAll("rows") String rows, @ForAll("clauses") String clauses) {
        if (clauses.contains("=>")) {
            int arrow = clauses.indexOf("=>");
            String yield = clauses.substring(arrow + 2);
            String asField = run("", "list for r in m " + clauses + "\n", rows);
            String asList = run("", "list = [(" + yield + ") for r in m " + clauses.substring(0, arrow) + "]\n", rows);
            assertThat(asList).isEqualTo(asField);
        }
    }

    @Provide
    Gen<String> elements() {
        Gen<String> k = Gens.of("", "<k/>", "<k>a</k>", "<k u='1'>b</k>", "<k>a</k>");
        Gen<String> l = Gens.of("", "<l>x</l>", "<l>y</l>");
        Gen<String> n = Gens.of("", "<n>1</n>", "<n u='1'>2.50</n>", "<n>-3</n>");
        Gen<String> element = Gens.combine(k, l, n)
                .as((a, b, c) -> "<m>" + a + "<other><m/></other>" + b + c + "</m>\n")
                .injectNull(0.1)
                .map(m -> m == null ? "<m xsi:nil='true'/><!-- none -->" : m);
        return element.list()
                .ofMaxSize(8)
                .map(all ->
                        "<A xmlns:xsi='http://www.w3.org/2001/XMLSchema-instance'>" + String.join("", all) + "</A>");
    }

    @Property(tries = 300)
    void aPathIsStreamedOrKeptWithTheSameResult(
            @ForAll("elements") String document, @ForAll("rows") String rows, @ForAll("clauses") String clauses) {
        String declarations =
                "source x: xml { A.m.n: number }\nsource m2: csv\ntarget o: json(indent = 0) {\nlist for r in x.A.m ";
        Inputs inputs = Inputs.text("x", document).andText("m2", rows);
        String streamed = Language.run(declarations + clauses + "\n}\n", inputs);
        assertThat(Language.load(declarations + clauses + "\n}\n").plan())
                .contains("x, each A.m: one record at a time");
        assertThat(Language.run(declarations + clauses + "\nrequire count(x..m) >= 0 else \"never\"\n}\n", inputs))
                .isEqualTo(streamed);
    }

    /** Rows of which some have a number that is none. */
    @Provide
    Gen<String> oddRows() {
        return Gens.combine(rows(), Gens.of(true, false, false))
                .as((rows, odd) -> odd ? rows.replaceFirst("2\\.50", "two") : rows);
    }

    @Provide
    Gen<String> totals() {
        List<String> uses = List.of(
                "count(rs)",
                "sum(rs.n)",
                "max(rs.l)",
                "join(rs.l, \"+\")",
                "count(distinct(rs.l))",
                "first(rs).l",
                "last(rs).n",
                "nth(rs, 2).l",
                "sum(x.n * 2 for x in rs where x.l != \"b\")",
                "join([sum(x.n for x in rs), first(rs.n)], \"/\")",
                "sum(number(x.l) for x in rs where x.l == \"\" or x.k == \"b\") ?? 0",
                "[sorted(rs.l)]",
                "first(for x in rs sort by x.n desc, x.l).l",
                "first(for x in rs where x.l != \"b\" sort by x.l desc).n",
                "[x.l for x in rs sort by x.n take 2]",
                "first(for x in rs sort by if x.l == k then 0 else 1, x.n).n",
                "[x.n for x in rs where x.n != sum(rs.n) sort by x.l take 2]",
                "[\"{i}{x.l}{d}\" for x in rs let d = x.n sort by x.l desc take 3 numbered i where i > 1]",
                "[reversed(rs.l)]");
        List<String> loops = List.of(
                "",
                "inner for q in rs group by q.l as qs { l = l2  c = count(qs)  s = sum(qs.n) }",
                "inner for q in rs group runs by q.l as qs { l = l2  s = sum(qs.n)  c = count(qs)  m = max(qs.n) }",
                "inner for q in rs group by n2 = q.n as qs { c = count(qs)  s = sum(qs.n) }",
                "if count(rs) > 2 { inner for q in rs group runs by n2 = q.n as qs { c = count(qs)  s = sum(qs.n) } }",
                "inner for q in rs where exists(q.n) group by b = (q.n > 2) as qs sort by count(qs) desc => \"{b} {max(qs.n)}\"",
                "inner for q in rs let d = q.l group runs by e = d as qs { d? = e  n = sum(qs.n)  i for z in qs group by k2 = z.k as zs => count(zs) }",
                "inner for q in rs sort by q.n desc take 2 numbered i { i = i  l = q.l  n = q.n }",
                "if count(rs) > 1 { inner for q in rs let e = q.l where e != \"a\" sort by e, q.n take 1 => \"{e}{q.n}\" }",
                "inner for q in rs sort by q.l take 3 group by q.l as qs { l = l2  c = count(qs) }",
                "inner for q in rs group by q.l as qs { l = l2  n = first(for x in qs sort by x.n).n  m = [x.n for x in qs sort by x.n desc take 2] }",
                "inner for q in rs group from q.l == \"a\" as qs => count(qs)",
                "inner for q in rs for t in [q.l, q.n] group by t = text(t) as qs => \"{t}{count(qs)}\"");
        List<String> groups = List.of(
                "group by r.k as rs",
                "group runs by r.k as rs",
                "group by r.k, r.l as rs sort by count(rs) desc",
                "group by r.k as rs where count(rs) > 1",
                "let amount = r.n group by r.k as rs distinct by count(rs)");
        return Gens.combine(Gens.of(groups), Gens.of(uses), Gens.of(uses), Gens.of(loops))
                .as((g, a, b, l) -> g + " {\n a = " + a + "\n b = " + b + "\n "
                        + l.replace("q.l as qs { l = l2 ", "l2 = q.l as qs { l = l2 ") + "%s\n}\n");
    }

    private static String outcome(String body, String rows) {
        return outcome(body, rows, RunOptions.DEFAULT);
    }

    private static String outcome(String body, String rows, RunOptions options) {
        return outcome(mapping("", body), inputs(rows), options);
    }

    @Property(tries = 600)
    void totalsThatAreKeptUpAreThoseOfTheMembers(@ForAll("oddRows") String rows, @ForAll("totals") String totals) {
        String keptUp = outcome("list for r in m " + String.format(totals, ""), rows);
        String ofMembers =
                outcome("list for r in m " + String.format(totals, "\n if count([rs]) < 0 { never = 1 }"), rows);
        assertThat(keptUp).isEqualTo(ofMembers);
    }

    @Property(tries = 600)
    void whatIsHeldInMemoryOrLaidDownGivesTheSame(
            @ForAll("rows") String rows,
            @ForAll("clauses") String clauses,
            @ForAll("totals") String totals,
            @ForAll @LongRange(max = 3_000) long memory) {
        String plain = "list for r in m " + clauses + "\n";
        String keptUp = "list for r in m " + String.format(totals, "");
        String held = "list for r in m " + String.format(totals, "\n if count([rs]) < 0 { never = 1 }");
        for (String body : List.of(plain, keptUp, held)) {
            String expected = outcome(body, rows);
            assertThat(outcome(body, rows, RunOptions.DEFAULT.memory(memory))).isEqualTo(expected);
            assertThat(outcome(body, rows, RunOptions.DEFAULT.memory(0))).isEqualTo(expected);
        }
    }

    @Property(tries = 200)
    void elementsThatWereLaidDownAreWhole(@ForAll("elements") String document) {
        String mapping =
                "source x: xml\ntarget o: xml { all { m for m in x.A.m sort by text(m.n) desc, text(m.k) { copy m }\n"
                        + "g for m in x.A.m group by k = text(m.k) as ms { k? = k  m for one in ms { copy one } } } }\n";
        Inputs inputs = Inputs.text("x", document);
        assertThat(Language.run(mapping, inputs, RunOptions.DEFAULT.memory(0)))
                .isEqualTo(Language.run(mapping, inputs));
    }

    @Provide
    Gen<String> objects() {
        Gen<String> record = Gens.of(
                "{\"k\":\"a\",\"n\":1}",
                "{\"n\":2.50,\"k\":\"b\",\"l\":\"x\"}",
                "{\"k\":null}",
                "{}",
                "null",
                "{\"l\":\"y\"}");
        Gen<String> records = record.list().ofMaxSize(4).map(all -> "[" + String.join(",", all) + "]");
        Gen<String> inner = Gens.oneOf(record, records).map(m -> "{\"other\":[1,{\"m\":2}],\"m\":" + m + ",\"z\":0}");
        Gen<String> a = Gens.oneOf(
                inner,
                inner.list().ofMaxSize(3).map(all -> "[" + String.join(",", all) + "]"),
                Gens.of("null", "[[]]", "5"));
        return a.map(value -> "{\"h\":{\"m\":7},\"A\":" + value + "}");
    }

    @Property(tries = 400)
    void aPathIntoJsonIsStreamedOrKeptWithTheSameResult(
            @ForAll("objects") String document, @ForAll("rows") String rows, @ForAll("clauses") String clauses) {
        String declarations = "source x: json\nsource m2: csv\ntarget o: json(indent = 0) {\nlist for r in x.A.m ";
        Inputs inputs = Inputs.text("x", document).andText("m2", rows);
        assertThat(Language.load(declarations + clauses + "\n}\n").plan())
                .contains("x, each A.m: one record at a time");
        assertThat(outcome(declarations + clauses + "\nrequire count(x..m) >= 0 else \"never\"\n}\n", inputs))
                .isEqualTo(outcome(declarations + clauses + "\n}\n", inputs));
    }

    @Provide
    Gen<String> totalsOfPaths() {
        return Gens.of(
                        "count(x.A.m)",
                        "sum(x.A.m.n)",
                        "max(x.A.m.k) ?? \"-\"",
                        "first(x.A.m.n)",
                        "join(x.A.m.l, \"+\")",
                        "count(distinct(x.A.m.k))",
                        "count(r for r in x.A.m where r.n > 1)",
                        "sum(r.n * 2 for r in x.A.m where exists(r.k))",
                        "[reversed(x.A.m.l)]",
                        "count(x.A)",
                        "count(x.h.m)",
                        "sum(x.A.m.n) + count(x.A.m) * 10",
                        "sum(x.A.other.m)",
                        "first(r for r in x.A.m sort by r.n).n")
                .list()
                .ofMinSize(1)
                .ofMaxSize(4)
                .map(all -> IntStream.range(0, all.size())
                        .mapToObj(i -> "v" + i + " = " + all.get(i))
                        .collect(Collectors.joining("\n")));
    }

    /** What comes as a stream is not known to be small, and so is read for the totals alone. */
    private static void assertTotals(String source, String document, String totals) {
        String mapping = source + "\ntarget o: json(indent = 0) {\n" + totals + "\n}\n";
        byte[] bytes = document.getBytes(StandardCharsets.UTF_8);
        assertThat(totalsOutcome(mapping, Inputs.stream("x", new ByteArrayInputStream(bytes))))
                .isEqualTo(totalsOutcome(mapping, Inputs.bytes("x", bytes)))
                .isEqualTo(totalsOutcome(
                        mapping.replace("{\nv0", "{\nrequire count(x..m) >= 0 else \"never\"\nv0"),
                        Inputs.bytes("x", bytes)));
    }

    private static String totalsOutcome(String mapping, Inputs inputs) {
        return Language.outcome(
                mapping,
                inputs,
                RunOptions.DEFAULT,
                e -> e.problem().code() + " " + e.problem().message());
    }

    @Property(tries = 400)
    void totalsOfPathsNeedNoLoop(
            @ForAll("elements") String document,
            @ForAll("objects") String object,
            @ForAll("totalsOfPaths") String totals) {
        assertTotals("source x: xml(mismatch = allow) { A.m.n: number }", document, totals);
        assertTotals("source x: json(mismatch = allow)", object, totals);
    }

    private static String outcome(String mapping, Inputs inputs) {
        return outcome(mapping, inputs, RunOptions.DEFAULT);
    }

    private static String outcome(String mapping, Inputs inputs, RunOptions options) {
        return Language.outcome(
                mapping,
                inputs,
                options,
                e -> e.problem().code() + " " + e.problem().message() + " "
                        + e.problem().input());
    }
}
