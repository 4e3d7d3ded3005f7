package dev.morphema.cli;

import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.Result;
import dev.morphema.http.Fetched;
import dev.morphema.http.WebSource;
import dev.morphema.jdbc.Database;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;

/**
 * The part of the demo that has a database, a workbook and a service: calls, a tariff and exchange
 * rates become invoices. All of it is on this machine, and the service ends with it.
 */
final class DuesDemo {
    private static final List<String> FILES = List.of(
            "dues.morphema",
            "tariff.morphema",
            "invoices.morphema",
            "harbour.sql",
            "tables/tariff.csv",
            "samples/calls.json",
            "samples/rates.json");
    private static final String ADDRESS = "jdbc:sqlite:";

    private final Terminal terminal;
    private final DemoFiles files;
    private final Database database;
    private final String address;

    DuesDemo(Terminal terminal, DemoFiles files) {
        this.terminal = terminal;
        this.files = files;
        this.address = ADDRESS + files.resolve("harbour.db");
        this.database = Database.at("harbour.db", address, new Properties());
    }

    void run() {
        files.layOut(FILES);
        makeDatabase();
        Path tariff = files.resolve("tariff.xlsx");
        if (!Files.exists(tariff)) {
            load("tariff.morphema")
                    .run(Inputs.file("steps", files.resolve("tables/tariff.csv")), Outputs.file("tariff", tariff));
        }
        try (RatesService rates = RatesService.start(files.resolve("samples/rates.json"))) {
            makeInvoices(tariff, rates);
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(
                            Code.NOT_READABLE, "The service of the demo cannot be started: " + e.getMessage() + "."),
                    e);
        }
        terminal.text().println();
        terminal.text().flush();
        ShownOutput shown = new ShownOutput(terminal, "the table invoice", "csv");
        load("invoices.morphema")
                .run(Inputs.NONE.andInput("invoices", database.input()), Outputs.stream("shown", shown.stream()));
        terminal.text().println();
        terminal.text()
                .println("The same, with the rates of a file: morphema run " + files.resolve("dues.morphema")
                        + " --in calls="
                        + address + " --in tariff=" + tariff + " --in rates=" + files.resolve("samples/rates.json")
                        + " --out invoice=" + address + " --out book=" + files.resolve("out/dues.xlsx"));
    }

    private Mapping load(String mapping) {
        return Morphema.standard().load(files.resolve(mapping));
    }

    private void makeInvoices(Path tariff, RatesService rates) {
        long start = System.nanoTime();
        Path book = files.resolve("out/dues.xlsx");
        Mapping mapping = load("dues.morphema");
        Result result;
        try (Fetched fetched = WebSource.at(rates.address()).fetch()) {
            result = mapping.run(
                    Inputs.file("tariff", tariff)
                            .andInput("calls", database.input())
                            .andInputs("rates", fetched.pages()),
                    Outputs.file("book", book).andRecords("invoice", database.output()));
        }
        PrintWriter out = terminal.text();
        out.println("mapping " + files.resolve("dues.morphema"));
        out.println("input   " + address + ", " + tariff + ", " + rates.address());
        Map<String, String> outputs = new LinkedHashMap<>();
        outputs.put("invoice", address);
        outputs.put("book", book.toString());
        new Account(out, true).print(mapping, result, outputs, System.nanoTime() - start);
    }

    /** What stands there already stays, as do the files of the demo. */
    private void makeDatabase() {
        if (Files.exists(files.resolve("harbour.db"))) {
            return;
        }
        try (Connection connection = DriverManager.getConnection(address);
                Statement statement = connection.createStatement()) {
            for (String sql : Files.readString(files.resolve("harbour.sql")).split(";\\s*\n")) {
                statement.execute(sql);
            }
        } catch (SQLException | IOException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITTEN, "The database of the demo cannot be made: " + e.getMessage() + "."),
                    e);
        }
    }
}
