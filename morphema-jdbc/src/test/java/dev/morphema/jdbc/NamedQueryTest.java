package dev.morphema.jdbc;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Parameters in queries are told from what only looks like one. */
class NamedQueryTest {
    @ParameterizedTest(name = "{0}")
    @DisplayName("named parameters become question marks")
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "select :a, :b_2, :a | select ?, ?, ? | [a, b_2, a]",
                "select ':a', \":b\" from `t:c` | select ':a', \":b\" from `t:c` | []",
                "select 'it''s :a' || :b | select 'it''s :a' || ? | [b]",
                "select x::text, y :: int | select x::text, y :: int | []",
                "select 1 /* :a */ + :b -- :c | select 1 /* :a */ + ? -- :c | [b]",
                "select '12:30', a[1:2], :a | select '12:30', a[1:2], ? | [a]",
                "select 'open :a | select 'open :a | []",
                "where x=:a) | where x=?) | [a]"
            })
    void parsed(String query, String sql, String names) {
        NamedQuery parsed = NamedQuery.parse(query);
        assertThat(parsed.sql()).isEqualTo(sql);
        assertThat(parsed.names()).hasToString(names);
    }
}
