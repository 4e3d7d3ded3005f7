package dev.morphema.examples.batch;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.Result;
import dev.morphema.jdbc.Database;
import dev.morphema.problem.ProblemException;
import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import javax.sql.DataSource;

/**
 * Writes an invoice for each call that has none yet, every few minutes. A turn is one transaction:
 * all of its invoices are there, or none, and the next turn tries again.
 */
public final class InvoiceBatch {
    private final Mapping mapping = Morphema.standard().load(InvoiceBatch.class.getClassLoader(), "invoices.morphema");
    private final Database database;

    /** @param source of the harbour's database, which the caller closes */
    InvoiceBatch(DataSource source) {
        this.database = Database.of("harbour", source);
    }

    /**
     * Runs until it is stopped; its arguments are the address of a database and the minutes between
     * turns.
     */
    public static void main(String[] args) {
        HikariConfig settings = new HikariConfig();
        settings.setJdbcUrl(args[0]);
        HikariDataSource source = new HikariDataSource(settings);
        InvoiceBatch batch = new InvoiceBatch(source);
        ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor();
        Runtime.getRuntime().addShutdownHook(new Thread(() -> {
            clock.shutdown();
            source.close();
        }));
        Duration pause = Duration.ofMinutes(Long.parseLong(args[1]));
        clock.scheduleWithFixedDelay(() -> System.out.println(batch.turn()), 0, pause.toSeconds(), TimeUnit.SECONDS);
    }

    /** {@return what one turn came to, in a line; a problem is told, and does not end the batch} */
    String turn() {
        try {
            Result result = mapping.run(
                    Inputs.NONE.andInput("calls", database.input()),
                    Outputs.NONE.andRecords("invoice", database.output()));
            return result.written().get("invoice") + " invoices written";
        } catch (ProblemException e) {
            return "no invoices written: " + e.getMessage();
        }
    }
}
