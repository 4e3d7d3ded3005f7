package dev.morphema.examples.batch;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** Turns of the batch, on a database in memory. */
class InvoiceBatchTest {
    private final JdbcDataSource database = new JdbcDataSource();

    @BeforeEach
    void fill() throws SQLException {
        database.setURL("jdbc:h2:mem:" + getClass().getSimpleName() + System.nanoTime() + ";DB_CLOSE_DELAY=-1");
        execute("create table call (id int primary key, ship varchar(40), gross decimal(10,1), arrived date)");
        execute("create table invoice (call int primary key, ship varchar(12), amount decimal(10,2), due date)");
        execute("insert into call values (1, 'Nordlys Star', 12000, '2026-03-04'), (2, 'Havgap', 900, null)");
    }

    private void execute(String sql) throws SQLException {
        try (Connection connection = database.getConnection();
                Statement statement = connection.createStatement()) {
            statement.execute(sql);
        }
    }

    private List<String> invoices() throws SQLException {
        List<String> rows = new ArrayList<>();
        try (Connection connection = database.getConnection();
                Statement statement = connection.createStatement();
                ResultSet row = statement.executeQuery("select * from invoice order by call")) {
            while (row.next()) {
                rows.add(row.getInt(1) + " " + row.getString(2) + " " + row.getBigDecimal(3) + " " + row.getDate(4));
            }
        }
        return rows;
    }

    @Test
    @DisplayName("each call gets its invoice once, when it has arrived")
    void turns() throws SQLException {
        InvoiceBatch batch = new InvoiceBatch(database);
        assertThat(batch.turn()).isEqualTo("1 invoices written");
        assertThat(batch.turn()).isEqualTo("0 invoices written");
        execute("update call set arrived = '2026-03-06' where id = 2");
        assertThat(batch.turn()).isEqualTo("1 invoices written");
        assertThat(invoices()).containsExactly("1 Nordlys Star 1440.00 2026-04-03", "2 Havgap 135.00 2026-04-05");
    }

    @Test
    @DisplayName("a row that the database refuses keeps all of its turn out, and the next turn tries again")
    void refused() throws SQLException {
        execute("insert into call values (3, 'A ship of a long name', 900, '2026-03-04')");
        InvoiceBatch batch = new InvoiceBatch(database);
        assertThat(batch.turn()).startsWith("no invoices written: ").contains("invoice");
        assertThat(invoices()).isEmpty();
        execute("update call set ship = 'Short' where id = 3");
        assertThat(batch.turn()).isEqualTo("2 invoices written");
    }
}
