package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * The plan tells how a mapping will run: what is read of each source, and how, and what each loop
 * does and holds.
 */
class PlanTest {
    private static final String SOURCES = "source rows: memory { n: number }\nsource ships: memory\n";

    static Stream<Arguments> plans() {
        return Stream.of(
                Arguments.of("one loop", "target o: events { list for r in rows => r.n }", """
                        read rows: one record at a time
                          fields {n}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                        """),
                Arguments.of(
                        "clauses in their order",
                        "target o: events { list for r in rows where r.n > 2 sort by r.n take 3 => r.k }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          keep where r.n > 2
                          sort by r.n, holding only the first 3 turns
                        """),
                Arguments.of(
                        "a sort of all, as it is not known how many will be taken",
                        "target o: events { list for r in rows sort by r.n take count(ships) => r.k }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: one record at a time
                          fields {}
                          for count(ships)
                        write o: events
                          for each of rows
                          sort by r.n, holding all turns
                          stop after count(ships)
                        """),
                Arguments.of(
                        "the first of each group",
                        "target o: events { list for r in rows group by r.k as rs { k = k"
                                + "  n = first(for q in rs sort by q.n).l  two for q in rs sort by q.n desc take 2 => q.n } }",
                        """
                        read rows: one record at a time
                          fields {n, k, l}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          group by r.k, holding the keys
                            in each: sort by q.n, holding only the first turn
                            in each: sort by q.n, holding only the first 2 turns
                        """),
                Arguments.of(
                        "totals within groups",
                        "target o: events { list for r in rows group by r.k as rs { k = k  n = sum(rs.n)\n"
                                + " inner for q in rs group by l = q.l as qs => count(qs) } }",
                        """
                        read rows: one record at a time
                          fields {n, k, l}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          group by r.k, keeping up sum(rs.n)
                            in each: group by q.l, keeping up count(qs)
                        """),
                Arguments.of(
                        "members that are kept",
                        "target o: events { list for r in rows group by r.k as rs { k = k  all for q in rs => q.n } }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          group by r.k, holding the members, passing each on
                        """),
                Arguments.of(
                        "members that are asked for as values",
                        "target o: events { list for r in rows group by r.k as rs { k = k  all = [rs.n] } }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          group by r.k, holding the members
                        """),
                Arguments.of(
                        "groups within neighbours, down to their members",
                        "target o: events { list for r in rows group runs by r.k as rs { k = k\n"
                                + " inner for q in rs group by l = q.l as qs { all for m in qs => m.n  n = count(qs) }  n = sum(rs.n) } }",
                        """
                        read rows: one record at a time
                          fields {n, k, l}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          group neighbours by r.k, passing each member on, keeping up sum(rs.n)
                            in each: group by q.l, holding the members, passing each on, keeping up count(qs)
                        """),
                Arguments.of(
                        "groups three deep, down to their members",
                        "target o: events { list for r in rows group by r.k as rs { k = k  n = sum(rs.n)\n"
                                + " inner for q in rs group by l = q.l as qs { n = sum(qs.n)\n"
                                + " most for p in qs group by m = p.m as ps { all for x in ps => x.n  n = count(ps) } } } }",
                        """
                        read rows: one record at a time
                          fields {n, k, l, m}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          group by r.k, holding the members, passing each on, keeping up sum(rs.n)
                            in each: group by q.l, holding the members, passing each on, keeping up sum(qs.n)
                              in each: group by p.m, holding the members, passing each on, keeping up count(ps)
                        """),
                Arguments.of(
                        "neighbours",
                        "target o: events { list for r in rows group runs by r.k as rs => max(rs.n) }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          group neighbours by r.k, keeping up max(rs.n)
                        """),
                Arguments.of(
                        "groups that begin where something is so",
                        "target o: events { list for r in rows group from r.k == \"H\" as rs => count(rs) }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          group from each r.k == "H", keeping up count(rs)
                        """),
                Arguments.of("totals", "target o: events { all = count(rows)  list for r in rows => r.n }", """
                        read rows: one record at a time
                          fields {n}
                        read rows, once more: one record at a time
                          for count(rows)
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                        """),
                Arguments.of("totals and no loop", "target o: events { n = sum(rows.n)  m = max(ships.k) }", """
                        read rows: one record at a time
                          fields {n}
                          for sum(rows.n)
                        read ships: one record at a time
                          fields {k}
                          for max(ships.k)
                        write o: events
                        """),
                Arguments.of("a second use", "target o: events { all = [rows.n]  list for r in rows => r.n }", """
                        read rows: as a whole
                          fields {n}
                          why: it is used on line 4, beside the outermost loop of a target
                          try: without that use, or with it in a loop of a target of its own, its records would be read one at a time
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                        """),
                Arguments.of(
                        "two targets over one source",
                        "target o: events { list for r in rows => r.n }\n"
                                + "target p: events { list for r in rows => r.k }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                        write p: events
                          for each of rows
                        """),
                Arguments.of(
                        "a table",
                        "table names for s in ships key s.k\n"
                                + "target o: events { list for r in rows => names[r.k].name ?? \"\" }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: one record at a time, for the table names
                          fields {k, name}
                        write o: events
                          for each of rows
                        """),
                Arguments.of(
                        "two loops, each over a source of its own, and one more",
                        "target o: events { list for r in rows => r.n  names for s in ships => s.k\n"
                                + " more for r in rows where r.n > 2 => r.k }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read rows, once more: one record at a time, for the loop on line 5
                        read ships: one record at a time, for the loop on line 4
                          fields {k}
                        write o: events
                          for each of rows
                          for each of ships
                          for each of rows
                          keep where r.n > 2
                        """),
                Arguments.of(
                        "a join",
                        "target o: events { list for r in rows for s in ships where s.k == r.k => s.name }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: as a whole
                          fields {k, name}
                          why: no target's outermost loop goes over it
                        write o: events
                          for each of rows
                          for each of ships, found by s.k
                          keep where s.k == r.k
                        """),
                Arguments.of(
                        "loops within, in a body and in an expression",
                        "target o: events { list for r in rows { n = sum(s.m for s in ships where s.k == r.k)\n"
                                + " inner for s in ships where r.k == s.k and r.n == s.n => s.name } }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: as a whole
                          fields {k, m, n, name}
                          why: no target's outermost loop goes over it
                        write o: events
                          for each of rows
                          within: for each of ships, found by s.k
                          within: for each of ships, found by s.k, s.n
                        """),
                Arguments.of("all fields", "target o: events { list for r in rows { copy r } }", """
                        read rows: one record at a time
                          fields *
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                        """),
                Arguments.of(
                        "a let over the source",
                        "let big = (for r in rows where r.n > 2)\n" + "target o: events { list for r in big => r.n }",
                        """
                        read rows: one record at a time
                          fields {n}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of big
                        """),
                Arguments.of(
                        "numbers, and the first of each",
                        "target o: events { list for r in rows numbered i distinct by r.k => \"{i} {r.k}\" }",
                        """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                          number
                          keep the first for each r.k, holding the keys
                        """),
                Arguments.of("many documents", "target o: events for r in rows into \"{r.k}\" { n = r.n }", """
                        read rows: one record at a time
                          fields {n, k}
                        read ships: not at all, nothing uses it
                        write o: events
                          for each of rows
                        """));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("plans")
    @DisplayName("the plan of")
    void isThePlanOf(String name, String mapping, String plan) {
        assertThat(Rehearsal.compile(SOURCES + mapping).plan()).hasToString(plan);
    }
}
