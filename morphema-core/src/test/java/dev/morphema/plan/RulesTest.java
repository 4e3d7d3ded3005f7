package dev.morphema.plan;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.engine.Rehearsal;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * What each rule changes of a plan, as it is printed; and that what is equal in meaning is planned
 * alike.
 */
class RulesTest {
    private static final String SOURCES = "source rows: memory { n: number }\nsource ships: memory\n";

    static Stream<Arguments> changes() {
        return Stream.of(
                Arguments.of(
                        LimitSorts.class,
                        "target o: events { list for r in rows sort by r.n take 3 => r.k }",
                        List.of("  sort by r.n, holding all turns", "  stop after 3"),
                        List.of("  sort by r.n, holding only the first 3 turns")),
                Arguments.of(
                        HoldMembers.class,
                        "target o: events { list for r in rows group by r.k as rs { n = sum(rs.n) } }",
                        List.of("  group by r.k, holding the members"),
                        List.of("  group by r.k, keeping up sum(rs.n)")),
                Arguments.of(
                        HoldMembers.class,
                        "target o: events { list for r in rows group by r.k as rs { n = first(for q in rs sort by q.n).l } }",
                        List.of("  group by r.k, holding the members"),
                        List.of(
                                "  group by r.k, holding the keys",
                                "    in each: sort by q.n, holding only the first turn")),
                Arguments.of(
                        PassMembers.class,
                        "target o: events { list for r in rows group runs by r.k as rs { all for q in rs => q.n } }",
                        List.of("  group neighbours by r.k, holding the members"),
                        List.of("  group neighbours by r.k, passing each member on")),
                Arguments.of(
                        StreamSources.class,
                        "target o: events { list for r in rows => r.n  all = count(ships) }",
                        List.of("read rows: as a whole", "read ships: as a whole"),
                        List.of(
                                "read rows: one record at a time",
                                "read ships: one record at a time",
                                "  for count(ships)")),
                Arguments.of(
                        HoistInvariants.class,
                        "target o: events { list for r in rows where r.k in ships.k => max([1, 2]) }",
                        List.of(),
                        List.of("  once: ships.k", "  once: max([1, 2])")),
                Arguments.of(
                        FindByKey.class,
                        "target o: events { list for r in rows for s in ships where s.k == r.k => s.name }",
                        List.of("  for each of ships"),
                        List.of("  for each of ships, found by s.k")));
    }

    @ParameterizedTest(name = "{0}: {1}")
    @MethodSource("changes")
    @DisplayName("a rule changes")
    void changesThePlan(Class<Rule> rule, String mapping, List<String> before, List<String> after) {
        Plan plan = Planner.asWritten(Rehearsal.checked(SOURCES + mapping));
        for (Rule known : Planner.RULES) {
            Plan changed = known.apply(plan);
            if (rule.isInstance(known)) {
                assertThat(without(plan, changed)).containsExactlyElementsOf(before);
                assertThat(without(changed, plan)).containsExactlyElementsOf(after);
                return;
            }
            plan = changed;
        }
    }

    /** The lines of one printed plan that are not in another. */
    private static List<String> without(Plan plan, Plan other) {
        List<String> lines = new ArrayList<>(plan.toString().lines().toList());
        lines.removeAll(other.toString().lines().toList());
        lines.removeIf(line -> line.startsWith("  why:") || line.startsWith("  try:"));
        return lines;
    }

    private static final String TOTALS = "target o: events { list for r in rows group by r.k as rs { %s } }";

    static Stream<Arguments> equals() {
        return Stream.of(
                Arguments.of("nothing", "k = k  n = sum(rs.n)"),
                Arguments.of("a let", "let ns = rs.n  k = k  n = sum(ns)"),
                Arguments.of("a let of the sum", "let n = sum(rs.n)  k = k  n = n"),
                Arguments.of("a let that nothing uses", "let all = [rs]  k = k  n = sum(rs.n)"),
                Arguments.of("a define", "k = k  n = total(rs)"),
                Arguments.of("a define of a define", "k = k  n = again(rs)"),
                Arguments.of("a define with a let", "let mine = rs  k = k  n = total(mine)"));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("equals")
    @DisplayName("a total of a group is kept up, as it is through")
    void keepsUpTotals(String through, String written) {
        String defines = "define total(rs) = sum(rs.n)\ndefine again(xs) = total(xs)\n";
        Plan plan = Planner.plan(Rehearsal.checked(SOURCES + defines + TOTALS.formatted(written)));
        assertThat(plan.toString()).containsPattern("group by r.k, keeping up sum\\((rs.n|ns)\\)\n");
    }

    static Stream<Arguments> firsts() {
        return Stream.of(
                Arguments.of("first(for q in rs group by l = q.l as same sort by count(same) desc).l"),
                Arguments.of("max(count(same) for q in rs group by l = q.l as same)"),
                Arguments.of("mostOften(rs)"));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("firsts")
    @DisplayName("groups within a group are made while its members come")
    void groupsWithinGroups(String written) {
        String defines =
                "define mostOften(all) = first(for q in all group by l = q.l as same sort by count(same) desc).l\n";
        Plan plan = Planner.plan(Rehearsal.checked(SOURCES + defines + TOTALS.formatted("n = " + written)));
        assertThat(plan.toString())
                .contains("  group by r.k, holding the keys\n    in each: group by q.l, keeping up count(same)\n");
    }

    @Test
    void aDefineThatCallsItselfIsCalled() {
        Plan plan = Planner.plan(
                Rehearsal.checked(SOURCES + "define depth(x) = if exists(x.part) then 1 + depth(x.part) else 0\n"
                        + "target o: events { list for r in rows => depth(r) }"));
        assertThat(plan.toString()).contains("for each of rows");
    }
}
