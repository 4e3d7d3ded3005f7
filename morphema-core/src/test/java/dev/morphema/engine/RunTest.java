package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a run reads and writes, and in which order, without any file or format. */
class RunTest {
    private static final String ROWS = "source rows: memory { n: number }\n";
    private static final String[] THREE = {"k,n", "a,1", "a,2", "b,3"};

    private static Rehearsal of(String mapping) {
        return new Rehearsal(ROWS + mapping).rows("rows", THREE);
    }

    private static Problem problemOf(Rehearsal rehearsal) {
        return catchThrowableOfType(ProblemException.class, rehearsal::run).problem();
    }

    /** One record at a time. */
    @Nested
    class Streaming {
        @Test
        void eachRecordIsWrittenBeforeTheNextIsRead() {
            assertThat(of("target o: events { list for r in rows => r.n }").run())
                    .isEqualTo("o: { list= [ open rows {n} read 1 read 2 read 3 end close ] } done");
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    "list for r in rows sort by r.n desc => r.n",
                    "list for r in rows group by x = 1 as all for r in all sort by r.n desc => r.n",
                    "list = [r.n for r in rows sort by r.n desc]",
                    "list for r in same sort by r.n desc => r.n"
                })
        void recordsAreWhatTheyWereWhenTheyAreNeededAfterTheNextOne(String loop) {
            String same = "let same = (for r in rows)\n";
            assertThat(of(same + "target o: events { " + loop + " }").written()).contains("list= [3 2 1]");
            assertThat(of(same + "target p: events { list for r in rows => r.k }\ntarget o: events { " + loop + " }")
                            .written())
                    .contains("3 2 1]");
        }

        @Test
        void targetsOverOneSourceShareOneReading() {
            assertThat(of("target o: events { list for r in rows => r.n }\n"
                                    + "target p: events { list for r in rows where r.n > 2 => r.k }")
                            .run())
                    .isEqualTo("o: p: { list= [ { list= [ open rows {n, k} read 1 read 2 read b 3 end close"
                            + " ] } done ] } done");
        }

        @Test
        void nothingMoreIsReadWhenNobodyWantsMore() {
            assertThat(of("target o: events { list for r in rows take 2 => r.k }")
                            .run())
                    .isEqualTo("o: { list= [ open rows {n, k} read a read a close ] } done");
        }

        @Test
        void whatStandsBehindTheLoopIsWrittenBehindIt() {
            assertThat(of("target o: events { first = \"x\"  list for r in rows take 1 => r.k  last = \"y\" }")
                            .run())
                    .isEqualTo("o: { first= x list= [ open rows {n, k} read a close ] last= y } done");
        }

        @Test
        void anEntryOfAnObjectIsWrittenBeforeTheNextRecordIsRead() {
            assertThat(of("target o: events { for r in rows keyed by r.n { k = r.k }  last = \"y\" }")
                            .run())
                    .isEqualTo("o: { open rows {n, k} read 1= { k= a } read 2= { k= a } read 3= { k= b } end close"
                            + " last= y } done");
            assertThat(of("target o: events { by for r in rows keyed by r.n => r.k }")
                            .run())
                    .isEqualTo("o: { by= { open rows {n, k} read 1= a read 2= a read 3= b end close } } done");
        }

        @Test
        void aKeyThatComesAgainIsAProblemWithItsValue() {
            Problem problem = problemOf(of("target o: events { for r in rows keyed by r.k => r.n }"));
            assertThat(problem.code()).isEqualTo(Code.DUPLICATE_KEY);
            assertThat(problem.value()).isEqualTo("a");
            assertThat(problem.input()).isNotNull();
            assertThat(problem.rule()).isNotNull();
        }

        @Test
        void keysAreOnesOwnInEachObject() {
            assertThat(of("target o: events { list for r in rows => { for q in [r.k] keyed by q => r.n } }")
                            .written())
                    .isEqualTo("o: {list= [{a= 1} {a= 2} {b= 3}]} done");
        }

        @Test
        void aTargetNobodyWantsIsNotMade() {
            assertThat(of("target o: events { list for r in rows => r.n }\n" + "target p: events { x = 1 / 0 }")
                            .without("p")
                            .run())
                    .doesNotContain("p:");
        }

        @Test
        void aSourceUsedTwiceIsReadAsAWholeFirst() {
            assertThat(of("target o: events { all = [rows.k]  list for r in rows => r.n }")
                            .run())
                    .isEqualTo("o: { open rows {n, k} read read read end close all= [ a a b ] list= [ 1 2 3 ] } done");
        }

        @Test
        void eachLoopOfATargetReadsItsRecords() {
            assertThat(
                            of("target o: events { all for r in rows => r.k  list for r in rows where r.n > 1 take 1 => r.n }")
                                    .run())
                    .isEqualTo("o: { all= [ open rows {n, k} read a read a read b end close ]"
                            + " list= [ open rows {n, k} read read 2 close ] } done");
            assertThat(of("let big = (for r in rows where r.n > 1)\n"
                                    + "target o: events { list for s in rows => s.k  if 1 == 1 { part { two for r in big"
                                    + " group by r.k as rs => sum(rs.n) } } }")
                            .run())
                    .isEqualTo("o: { list= [ open rows {n, k} read a read a read b end close ]"
                            + " part= { two= [ open rows {n, k} read read read end close 2 3 ] } } done");
        }

        @Test
        void aSourceIsReadOnceMoreForAllTotalsOfItsRecords() {
            assertThat(of("target o: events { all = count(rows)  kg = sum(rows.n)  list for r in rows => r.n\n"
                                    + " most = max(r.n for r in rows where r.k == \"a\") }")
                            .run())
                    .isEqualTo("o: { open rows {n, k} read read read end close all= 3 kg= 6"
                            + " list= [ open rows {n, k} read 1 read 2 read 3 end close ] most= 2 } done");
        }

        @Test
        void aTotalNeedsNoLoopOverItsSource() {
            assertThat(of("target o: events { kg = sum(rows.n)  first = first(rows.k) }")
                            .run())
                    .isEqualTo("o: { open rows {n, k} read read read end close kg= 6 first= a } done");
            assertThat(of("target o: events { first = first(rows.k) }").run())
                    .isEqualTo("o: { open rows {n, k} read close first= a } done");
        }

        @Test
        void aTotalTakesNoMoreThanItWants() {
            assertThat(of("target o: events { all = sum(rows.n)  two = count(r for r in rows take 2)\n"
                                    + " sorted = sum(r.n for r in rows take 2 sort by r.k)  first = first(rows.n)\n"
                                    + " last = last(for r in rows take 2).n }")
                            .written())
                    .isEqualTo("o: {all= 6 two= 2 sorted= 3 first= 1 last= 2} done");
            assertThat(of("target o: events { n = count(1 for optional x in rows) }")
                            .rows("rows", "k,n")
                            .written())
                    .isEqualTo("o: {n= 1} done");
        }

        @Test
        void aTotalMayNeedAnother() {
            assertThat(of("target o: events { list for r in rows => r.n / sum(rows.n)\n"
                                    + " over = count(r for r in rows where r.n > avg(rows.n))\n"
                                    + " big = sum(big.n) }\nlet big = (for r in rows where r.n >= max(rows.n) - 1)")
                            .written())
                    .isEqualTo(
                            "o: {list= [0.1666666666666666666666666666666667 0.3333333333333333333333333333333333 0.5]"
                                    + " over= 1 big= 5} done");
        }

        @Test
        void aTotalThatNobodyAsksForMayFail() {
            String[] odd = {"k,n", "a,1", "b,many"};
            String mapping =
                    "target o: events { all = count(rows)  list for r in rows => (if r.k == \"%s\" then sum(rows.n)) }";
            assertThat(of(mapping.formatted("c")).rows("rows", odd).written()).isEqualTo("o: {all= 2 list= []} done");
            Problem problem = problemOf(of(mapping.formatted("a")).rows("rows", odd));
            assertThat(problem.code()).isEqualTo(Code.NOT_A_NUMBER);
            assertThat(problem.input().record()).isEqualTo(2);
            assertThat(problem.rule()).isNotNull();
        }

        @Test
        void whatARunCameToIsCounted() {
            List<Run.Outcome> outcomes = new ArrayList<>();
            of("target o: events { list for r in rows where r.k == \"a\" => r.n }\ntarget p: events { x = 1 }")
                    .run(outcomes);
            assertThat(outcomes.get(0).read()).containsExactly(3L);
            assertThat(outcomes.get(0).written()).containsExactly(2L, 1L);
        }

        @Test
        void eachTurnIsADocumentOfItsOwn() {
            assertThat(of("target o: events for r in rows into \"{r.k}{r.n}\" { n = r.n }")
                            .run())
                    .isEqualTo("open rows {n, k} read o a1: { n= 1 } done read o a2: { n= 2 } done"
                            + " read o b3: { n= 3 } done end close");
        }

        @Test
        void aDocumentWithoutNameIsAProblemOfItsRecord() {
            Problem problem = problemOf(new Rehearsal(ROWS + "target o: events for r in rows into r.k { n = r.n }")
                    .rows("rows", "k,n", "a,1", ",2"));
            assertThat(problem.code()).isEqualTo(Code.DOCUMENT_NAME);
        }
    }

    /** Groups, sorts and what they hold. */
    @Nested
    class Grouping {
        private static final String BY =
                "target o: events { list for r in rows group by r.k as rs { k = k  n = sum(rs.n) } }";
        private static final String RUNS =
                "target o: events { list for r in rows group runs by r.k as rs { k = k  n = sum(rs.n) } }";

        @Test
        void groupsAreWrittenWhenAllWasRead() {
            assertThat(of(BY).run())
                    .isEqualTo("o: { list= [ open rows {n, k} read read read end close"
                            + " { k= a n= 3 } { k= b n= 3 } ] } done");
        }

        @Test
        void aGroupOfNeighboursIsWrittenWhenTheNextBegins() {
            assertThat(of(RUNS).run())
                    .isEqualTo("o: { list= [ open rows {n, k} read read read { k= a n= 3 } end close"
                            + " { k= b n= 3 } ] } done");
        }

        @Test
        void totalsAreMadeOfFieldsThatAreLeftWhereTheyWereRead() {
            for (String loop : List.of(BY, RUNS)) {
                assertThat(of(loop).leaving().run()).isEqualTo(of(loop).run());
            }
        }

        @Test
        void whatIsKeptOfRecordsIsDetached() {
            for (String use :
                    List.of("join(rs.k, \"+\")", "[rs.n]", "first(rs).n", "last(rs).k", "sum(x.n for x in rs)")) {
                String mapping = "target o: events { list for r in rows group by r.k as rs => " + use + " }";
                assertThat(of(mapping).leaving().written())
                        .isEqualTo(of(mapping).written());
            }
        }

        @Test
        void groupsWithinGroupsAreMadeOfFieldsThatAreLeft() {
            String mapping = "target o: events { list for r in rows group by r.k as rs { k = k\n"
                    + " in2 for q in rs group by l = q.l as qs { l = l  n = sum(qs.n)  c = count(qs) }\n c = count(rs) } }";
            String[] rows = {"k,l,n", "a,x,1", "b,x,2", "a,y,3", "a,x,4", ",x,5", "b,x,two", "b,x,6"};
            String[] good = java.util.Arrays.stream(rows)
                    .filter(row -> !row.contains("two"))
                    .toArray(String[]::new);
            Rehearsal asBytes = new Rehearsal(ROWS + mapping).rows("rows", good).leaving();
            assertThat(asBytes.written())
                    .isEqualTo(new Rehearsal(ROWS + mapping).rows("rows", good).written());
            assertThat(problemOf(new Rehearsal(ROWS + mapping)
                                    .rows("rows", rows)
                                    .leaving())
                            .input())
                    .isEqualTo(problemOf(new Rehearsal(ROWS + mapping).rows("rows", rows))
                            .input());
        }

        @ParameterizedTest
        @ValueSource(longs = {0, 100_000, Long.MAX_VALUE})
        void manyMembersComeBackAsTheyCame(long budget) {
            String[] rows = IntStream.rangeClosed(0, 3_000)
                    .mapToObj(i -> i == 0 ? "k,n,text" : "key " + i % 7 + "," + i + ",søndre molo " + i)
                    .toArray(String[]::new);
            String expected = IntStream.range(1, 8)
                    .mapToObj(key -> IntStream.rangeClosed(1, 3_000)
                            .filter(i -> i % 7 == key % 7)
                            .mapToObj(i -> "{k= key " + i % 7 + " n= " + i + " text= søndre molo " + i + "}")
                            .collect(Collectors.joining(" ")))
                    .collect(Collectors.joining(" "));
            String each = "{ k = q.k  n = q.n  text = q.text } }";
            for (String loop : List.of(
                    "for r in rows group by r.k as rs for q in rs " + each,
                    "for r in rows let m = r group by r.k as rs for p in rs let q = p.m " + each)) {
                Rehearsal rehearsal = new Rehearsal(ROWS + "target o: events { " + loop)
                        .rows("rows", rows)
                        .budget(budget);
                assertThat(rehearsal.written()).isEqualTo("o: [" + expected + "] done");
            }
        }

        @Test
        void whatTheBudgetDoesNotHoldIsLaidDownAndForgotten() {
            String[] many = IntStream.rangeClosed(0, 60)
                    .mapToObj(i -> i == 0 ? "k,n" : "key" + i % 7 + "," + i)
                    .toArray(String[]::new);
            for (String loop : List.of(
                    BY,
                    "target o: events { list for r in rows group by r.k as rs { k = k  all for r2 in rs => r2.n } }",
                    "target o: events { list for r in rows sort by r.k desc, r.n => r.n }")) {
                Rehearsal held = new Rehearsal(ROWS + loop).rows("rows", many);
                Rehearsal laidDown =
                        new Rehearsal(ROWS + loop).rows("rows", many).budget(0);
                assertThat(laidDown.run()).isEqualTo(held.run());
                assertThat(held.scratch().most()).isZero();
                assertThat(laidDown.scratch().most()).isPositive();
                assertThat(laidDown.scratch().isClosed()).isTrue();
            }
        }
    }

    /** What goes wrong. */
    @Nested
    class Failing {
        @Test
        void aRequirementEndsTheRunAtItsRecord() {
            Rehearsal rehearsal =
                    of("target o: events { list for r in rows { require r.n < 2 else \"too much\"  n = r.n } }");
            Problem problem = problemOf(rehearsal);
            assertThat(problem.code()).isEqualTo(Code.REQUIREMENT);
            assertThat(problem.input().record()).isEqualTo(2);
            assertThat(rehearsal.log()).endsWith("read { n= 1 } read { close");
        }

        @Test
        void aValueThatIsNotOfItsTypeIsToldWithItsField() {
            Problem problem = problemOf(new Rehearsal(ROWS + "target o: events { list for r in rows => r.n }")
                    .rows("rows", "k,n", "a,1", "b,many"));
            assertThat(problem.code()).isEqualTo(Code.NOT_A_NUMBER);
            assertThat(problem.input().toString()).contains("record 2").contains("field n");
        }

        @Test
        void aFieldNobodyUsesMayBeOdd() {
            assertThat(new Rehearsal(ROWS + "target o: events { list for r in rows => r.k }")
                            .rows("rows", "k,n", "a,many")
                            .written())
                    .isEqualTo("o: {list= [a]} done");
        }

        @Test
        void aTotalNobodyUsesMayFail() {
            String mapping = "target o: events { list for r in rows group by r.k as rs {\n"
                    + " if k == \"a\" { n = sum(rs.n) }\n c = count(rs) } }";
            assertThat(new Rehearsal(ROWS + mapping)
                            .rows("rows", "k,n", "a,1", "b,many")
                            .written())
                    .isEqualTo("o: {list= [{n= 1 c= 1} {c= 1}]} done");
        }

        @Test
        void anInputThatBreaksOffIsToldAsThatAndClosed() {
            Rehearsal rehearsal =
                    of("target o: events { list for r in rows => r.n }").failAfter(2);
            Problem problem = problemOf(rehearsal);
            assertThat(problem.code()).isEqualTo(Code.NOT_READABLE);
            assertThat(problem.message()).contains("rows").contains("the line is dead");
            assertThat(rehearsal.log()).endsWith("read 2 close");
            assertThat(rehearsal.scratch().isClosed()).isTrue();
        }

        @Test
        void aParameterWithoutValueIsToldBeforeAnythingIsRead() {
            Rehearsal rehearsal = of("param port: text\ntarget o: events { port = port  list for r in rows => r.n }");
            assertThat(problemOf(rehearsal).code()).isEqualTo(Code.PARAMETER);
            assertThat(rehearsal.log()).isEmpty();
        }

        @Test
        void aWrongMappingIsNoProgram() {
            assertThatThrownBy(() -> of("target o: events { list for r in rows => r..n( }"))
                    .isInstanceOf(ProblemException.class);
        }
    }

    /** What comes from outside, and what is calculated once. */
    @Nested
    class FromOutside {
        @Test
        void aParameterIsOfItsType() {
            assertThat(of("param least: number = 2\ntarget o: events { list for r in rows where r.n >= least => r.n }")
                            .param("least", "3")
                            .written())
                    .isEqualTo("o: {list= [3]} done");
        }

        @Test
        void aLetThatIsNotUsedIsNotCalculated() {
            assertThat(of("let never = 1 / 0\ntarget o: events { x = if false then never else 2 }")
                            .written())
                    .isEqualTo("o: {x= 2} done");
        }

        @Test
        void theClockIsTheRunsOwn() {
            assertThat(of("target o: events { today = text(date(now())) }").written())
                    .isEqualTo("o: {today= 1970-01-01} done");
        }

        @Test
        void onlyFieldsInUseAreAskedFor() {
            assertThat(new Rehearsal("source rows: memory\ntarget o: events { list for r in rows => r.b }")
                            .rows("rows", "a,b,c", "1,2,3")
                            .run())
                    .contains("open rows {b}");
            assertThat(new Rehearsal("source rows: memory\ntarget o: events { list for r in rows { copy r } }")
                            .rows("rows", "a,b,c", "1,2,3")
                            .run())
                    .contains("open rows *");
        }

        @Test
        void aProgramRunsAsOftenAsOneLikes() {
            Rehearsal rehearsal = of("target o: events { list for r in rows => r.n }");
            String once = rehearsal.run();
            assertThat(rehearsal.run()).isEqualTo(once + " " + once);
        }
    }

    /** A table from a source. */
    @Nested
    class Tables {
        private static final String JOIN = "source rows: memory { n: number }\nsource ships: memory\n"
                + "table names for s in ships key s.k\n"
                + "target o: events { list for r in rows { n = r.n  ship = names[r.k].name ?? \"none\" } }";

        @Test
        void aTableIsFilledWhenItIsFirstAsked() {
            assertThat(new Rehearsal(JOIN)
                            .rows("rows", THREE)
                            .rows("ships", "k,name", "a,Nordlys")
                            .run())
                    .isEqualTo(
                            "o: { list= [ open rows {n, k} read { n= 1 open ships {k, name} read end close"
                                    + " ship= Nordlys } read { n= 2 ship= Nordlys } read { n= 3 ship= none } end close ] } done");
        }

        @Test
        void aKeyThatComesTwiceIsAProblem() {
            Problem problem =
                    problemOf(new Rehearsal(JOIN).rows("rows", THREE).rows("ships", "k,name", "a,Nordlys", "a,Sula"));
            assertThat(problem.code()).isEqualTo(Code.DUPLICATE_KEY);
            assertThat(problem.message()).contains("line 2").contains("line 3");
        }
    }
}
