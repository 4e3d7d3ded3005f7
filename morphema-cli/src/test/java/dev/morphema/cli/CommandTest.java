package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Locale;
import java.util.TimeZone;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The command as its user meets it: words in, texts and exit codes out. */
class CommandTest {
    private static final Path DEMO = Path.of("../demo");
    private static final String MAPPING = DEMO.resolve("arrival.morphema").toString();
    private static final String MANIFEST = DEMO.resolve("samples/manifest.csv").toString();

    @TempDir
    private Path folder;

    private String out = "";
    private String err = "";

    private int run(String input, String... words) {
        ByteArrayOutputStream outBytes = new ByteArrayOutputStream();
        ByteArrayOutputStream errBytes = new ByteArrayOutputStream();
        int code =
                Main.run(words, new ByteArrayInputStream(input.getBytes(StandardCharsets.UTF_8)), outBytes, errBytes);
        out = outBytes.toString(StandardCharsets.UTF_8);
        err = errBytes.toString(StandardCharsets.UTF_8);
        return code;
    }

    private static String demo(String file) throws IOException {
        return Files.readString(DEMO.resolve(file));
    }

    private Path changed(String file, String old, String replacement) throws IOException {
        String text = demo(file);
        assertThat(text).contains(old);
        Path copy = folder.resolve(Path.of(file).getFileName());
        Files.writeString(copy, text.replace(old, replacement));
        return copy;
    }

    private List<String> filesIn(Path place) throws IOException {
        try (Stream<Path> files = Files.list(place)) {
            return files.map(f -> f.getFileName().toString()).sorted().toList();
        }
    }

    @Test
    @DisplayName("demo --all makes invoices of a database, a workbook and a service, and can be run again")
    void demoOfAll() throws IOException {
        Path place = folder.resolve("demo");
        for (int turn = 0; turn < 2; turn++) {
            assertThat(run("", "demo", "--all", place.toString())).isZero();
            assertThat(out)
                    .contains("read    calls: 4 records", "read    rates: 1 record", "written invoice: 4 records")
                    .contains("2,Havørn,112.18,XDL,2026-04-05");
        }
        assertThat(filesIn(place.resolve("out"))).containsExactly("dues.xlsx", "notice.xml", "terminal.json");
        String again = out.substring(out.lastIndexOf("morphema run ") + "morphema ".length())
                .strip();
        assertThat(run("", again.split(" "))).isZero();
        assertThat(err).contains("written book: 7 records");
    }

    @Test
    @DisplayName("targets that are workbooks share a file, others do not")
    void sharedWorkbooks() throws IOException {
        Path mapping = Files.writeString(folder.resolve("m.morphema"), """
                morphema 1
                source rows: csv
                target A: xlsx { for r in rows { a = r.a } }
                target B: xlsx { for r in rows { b = r.a } }
                target c: csv { for r in rows { c = r.a } }
                target d: csv { for r in rows { d = r.a } }
                """);
        Path rows = Files.writeString(folder.resolve("rows.csv"), "a\n1\n");
        String book = folder.resolve("book.xlsx").toString();
        assertThat(run(
                        "",
                        "run",
                        mapping.toString(),
                        "--in",
                        rows.toString(),
                        "--out",
                        "A=" + book,
                        "--out",
                        "B=" + book))
                .isZero();
        assertThat(err).contains("written A: 1 record in " + book, "written B: 1 record in " + book);
        String file = folder.resolve("c.csv").toString();
        assertThat(run(
                        "",
                        "run",
                        mapping.toString(),
                        "--in",
                        rows.toString(),
                        "--out",
                        "c=" + file,
                        "--out",
                        "d=" + file))
                .isNotZero();
    }

    @Test
    @DisplayName("demo lays itself out, converts the manifest and shows the results")
    void demoConverts() throws IOException {
        Path place = folder.resolve("demo");
        assertThat(run("", "demo", place.toString())).isZero();
        assertThat(out)
                .contains("read    manifest: 10 records")
                .contains("written notice: 3 records")
                .contains("<ArrivalNotice xmlns=\"urn:example:skelmar:arrival:1\"")
                .contains("\"vessel\": \"Havørn\"");
        assertThat(Files.readString(place.resolve("out/notice.xml"))).isEqualTo(demo("expected/notice.xml"));
        assertThat(Files.readString(place.resolve("out/terminal.json"))).isEqualTo(demo("expected/terminal.json"));
        assertThat(filesIn(place.resolve("out"))).containsExactly("notice.xml", "terminal.json");
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "fly | There is no command fly.",
                "--fly | There is no option --fly.",
                "run m.morphema --threds 3 | There is no option --threds.",
                "plan a b c | The word b is one too many.",
                "run | Missing required parameter: 'MAPPING'"
            })
    @DisplayName("the first word that cannot be is told, with where to look")
    void wrongWords(String words, String message) {
        assertThat(run("", words.split(" "))).isEqualTo(3);
        assertThat(err)
                .startsWith("morphema: " + message + System.lineSeparator())
                .contains("try: morphema ", "--help");
    }

    @Test
    @DisplayName("what is no mapping, no file or not there is told in one problem")
    void notWhatIsMeant() throws IOException {
        assertThat(run("", "check", MANIFEST)).isEqualTo(2);
        assertThat(err)
                .contains("A mapping begins with the version of its language.", "write morphema 1")
                .containsOnlyOnce("error:");
        assertThat(run("", "run", MAPPING, "--in", folder.toString(), "--out", "terminal=-"))
                .isEqualTo(4);
        assertThat(err).contains("this is a folder, not a file").containsOnlyOnce("error:");
        assertThat(run("", "run", MAPPING, "--out", "terminal=-")).isEqualTo(3);
        assertThat(err).contains("The source manifest has no input.", "--in manifest=FILE");
    }

    @Test
    @DisplayName("a type that the sample is not of is told by check")
    void typesOfTheSample() throws IOException {
        Path typed = changed("arrival.morphema", "weight_kg: number(',')", "weight_kg: number");
        Files.createDirectory(folder.resolve("samples"));
        Files.copy(Path.of(MANIFEST), folder.resolve("samples/manifest.csv"));
        run("", "check", typed.toString());
        assertThat(err)
                .contains("error: The sample has a value here that is not of this type.")
                .contains("value: 12000,5")
                .contains("for a decimal comma give the field the type number(',')");
    }

    @Test
    @DisplayName("demo leaves files alone that were changed")
    void demoKeepsChanges() throws IOException {
        run("", "demo", folder.toString());
        Path mapping = folder.resolve("arrival.morphema");
        Files.writeString(mapping, Files.readString(mapping).replace("XXSKE", "XXNEW"));
        assertThat(run("", "demo", folder.toString())).isZero();
        assertThat(Files.readString(folder.resolve("out/notice.xml"))).contains("harbour=\"XXNEW\"");
    }

    @Test
    @DisplayName("the machine's locale and time zone change no byte")
    void localeAndZoneDoNotMatter() throws IOException {
        Locale locale = Locale.getDefault();
        TimeZone zone = TimeZone.getDefault();
        try {
            Locale.setDefault(Locale.forLanguageTag("tr-TR"));
            TimeZone.setDefault(TimeZone.getTimeZone("Pacific/Chatham"));
            Path notice = folder.resolve("notice.xml");
            assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "notice=" + notice))
                    .isZero();
            assertThat(Files.readString(notice)).isEqualTo(demo("expected/notice.xml"));
        } finally {
            Locale.setDefault(locale);
            TimeZone.setDefault(zone);
        }
    }

    @Test
    @DisplayName("run shows one target on standard output and writes no file")
    void runToStandardOutput() throws IOException {
        assertThat(run(demo("samples/manifest.csv"), "run", MAPPING, "--in", "-", "--out", "terminal=-"))
                .isZero();
        assertThat(out).isEqualTo(demo("expected/terminal.json"));
        assertThat(err).contains("read    manifest: 10 records").contains("written terminal: 3 records");
        assertThat(run("", "run", MAPPING, "--in", "manifest=" + MANIFEST, "--out", "terminal=-", "--quiet"))
                .isZero();
        assertThat(err).isEmpty();
    }

    @Test
    @DisplayName("with one source and one target the names may be left out, also of the file with = in its name")
    void namesLeftOut() throws IOException {
        Path mapping = folder.resolve("m.morphema");
        Files.writeString(mapping, "morphema 1\nsource s: csv\ntarget o: csv { for r in s { a = r.a } }\n");
        Path in = folder.resolve("a.b=c.csv");
        Files.writeString(in, "a\n1\n");
        assertThat(run("", "run", mapping.toString(), "--in", in.toString())).isZero();
        assertThat(out).isEqualTo("a\n1\n");
        Path result = folder.resolve("result.csv");
        assertThat(run("", "run", mapping.toString(), "--in", in.toString(), "--out", result.toString()))
                .isZero();
        assertThat(out).isEmpty();
        assertThat(result).hasContent("a\n1");
    }

    @Test
    @DisplayName("parameters change the result")
    void parameters() throws IOException {
        assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "notice=-", "--param", "harbour=XXABC"))
                .isZero();
        assertThat(out).contains("harbour=\"XXABC\"");
        assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "notice=-", "--param", "habour=X"))
                .isEqualTo(3);
        assertThat(err).contains("did you mean harbour?");
    }

    @Test
    @DisplayName("an unknown code ends the run with its place, and the output stays as it was")
    void unknownCode() throws IOException {
        Path manifest = changed("samples/manifest.csv", ";DR;", ";ZZ;");
        Path notice = folder.resolve("notice.xml");
        Files.writeString(notice, "before");
        assertThat(run("", "run", MAPPING, "--in", manifest.toString(), "--out", "notice=" + notice))
                .isEqualTo(1);
        assertThat(err)
                .contains("error: unknown package ZZ [failed]")
                .contains("arrival.morphema:50:48")
                .contains("manifest.csv:6, record 4");
        assertThat(notice).hasContent("before");
        assertThat(filesIn(folder)).containsExactly("manifest.csv", "notice.xml");
    }

    @Test
    @DisplayName("no output takes the place of an input, under no name of it, nor of the mapping")
    void inputsStayWhereTheyAre() throws IOException {
        Path mapping = Files.writeString(
                folder.resolve("copy.morphema"),
                "morphema 1\nsource rows: csv\ntarget o: csv { for r in rows { n = r.n } }\n");
        Path rows = Files.writeString(folder.resolve("rows.csv"), "n,m\n1,2\n");
        Path link = Files.createSymbolicLink(folder.resolve("link.csv"), rows);
        for (Path place : List.of(rows, folder.resolve("x/../rows.csv").normalize(), link)) {
            assertThat(run("", "run", mapping.toString(), "--in", rows.toString(), "--out", place.toString()))
                    .isEqualTo(3);
            assertThat(err).contains("The output would overwrite an input of this run.");
        }
        assertThat(run("", "run", mapping.toString(), "--in", rows.toString(), "--out", mapping.toString()))
                .isEqualTo(3);
        assertThat(err).contains("The output would overwrite a file that the mapping reads.");
        assertThat(Files.readString(rows)).isEqualTo("n,m\n1,2\n");
        assertThat(filesIn(folder)).containsExactly("copy.morphema", "link.csv", "rows.csv");
    }

    @Test
    @DisplayName("nor does a document of a target that has many")
    void inputsOfAFolderStayWhereTheyAre() throws IOException {
        Path mapping = Files.writeString(
                folder.resolve("each.morphema"),
                "morphema 1\nsource d: json(files = many)\n"
                        + "target o: json(indent = 0) for r in d into \"{stem(r)}.json\" { b = r.a }\n");
        Path inbox = Files.createDirectory(folder.resolve("inbox"));
        Files.writeString(inbox.resolve("1.json"), "{\"a\":1}");
        Files.writeString(inbox.resolve("2.json"), "{\"a\":2}");
        String all = inbox + "/*.json";
        assertThat(run("", "run", mapping.toString(), "--in", all, "--out", inbox.toString()))
                .isEqualTo(3);
        assertThat(err).contains("The output would overwrite an input of this run.");
        assertThat(Files.readString(inbox.resolve("1.json"))).isEqualTo("{\"a\":1}");
        assertThat(filesIn(inbox)).containsExactly("1.json", "2.json");
        assertThat(run(
                        "",
                        "run",
                        mapping.toString(),
                        "--in",
                        all,
                        "--out",
                        folder.resolve("done").toString()))
                .isZero();
        assertThat(Files.readString(folder.resolve("done/2.json"))).isEqualTo("{\"b\":2}\n");
        assertThat(filesIn(folder)).containsExactly("done", "each.morphema", "inbox");
    }

    @Test
    @DisplayName("--hide-values keeps data out of messages")
    void hiddenValues() throws IOException {
        Path manifest = changed("samples/manifest.csv", "12000,5", "12x");
        assertThat(run("", "run", MAPPING, "--in", manifest.toString(), "--out", "notice=-"))
                .isEqualTo(1);
        assertThat(err).contains("value: 12x").contains("Aldermoor");
        run("", "run", MAPPING, "--in", manifest.toString(), "--out", "notice=-", "--hide-values");
        assertThat(err).contains("field weight_kg").doesNotContain("12x").doesNotContain("Aldermoor");
    }

    @Test
    @DisplayName("a column that vanished upstream is a warning with a proposal")
    void vanishedColumn() throws IOException {
        Path manifest = changed("samples/manifest.csv", ";weight_kg;", ";weight;");
        assertThat(run("", "run", MAPPING, "--in", manifest.toString(), "--out", "notice=-"))
                .isZero();
        assertThat(err).contains("warning: The input has no column weight_kg").contains("did you mean weight?");
    }

    @Test
    @DisplayName("a wrong mapping ends with 2 and shows the line")
    void wrongMapping() throws IOException {
        Path mapping = folder.resolve("m.morphema");
        Files.writeString(mapping, "morphema 1\ntarget o: json {\n  a = uper('x')\n}\n");
        assertThat(run("", "run", mapping.toString())).isEqualTo(2);
        assertThat(err)
                .isEqualTo(
                        "error: There is no function uper. [unknown-function]\n  rule:  " + mapping
                                + ":3:7\n         |   a = uper('x')\n         |       ^^^^\n  try:   did you mean upper?\n\n1 error\n");
        assertThat(run("", "check", mapping.toString())).isEqualTo(2);
        assertThat(run("", "check", MAPPING)).isZero();
        assertThat(out).contains("Sources: manifest; targets: notice, terminal; parameters: harbour.");
    }

    @Test
    @DisplayName("control characters of data do not reach the terminal")
    void harmlessMessages() throws IOException {
        Path mapping = folder.resolve("m.morphema");
        Files.writeString(
                mapping, "morphema 1\nsource s: csv { a: number }\ntarget o: csv { for r in s { a = r.a } }\n");
        assertThat(run("a\n\u001b[31mred\n", "run", mapping.toString(), "--in", "-"))
                .isEqualTo(1);
        assertThat(err).contains("[31mred").doesNotContain("\u001b");
    }

    @Test
    @DisplayName("exit codes tell use, files and help apart")
    void exitCodes() {
        assertThat(run("")).isEqualTo(3);
        assertThat(err).contains("Usage: morphema");
        assertThat(run("", "run")).isEqualTo(3);
        assertThat(run("", "fly")).isEqualTo(3);
        assertThat(run("", "run", MAPPING)).isZero();
        assertThat(run("", "run", MAPPING, "--in", "none.csv", "--out", "notice=-"))
                .isEqualTo(4);
        assertThat(run("", "run", "none.morphema", "--in", "x")).isEqualTo(4);
        assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "notice=" + MANIFEST + "/x.xml"))
                .isEqualTo(4);
        String file = folder.resolve("x").toString();
        assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "notice=" + file, "--out", "terminal=" + file))
                .isEqualTo(3);
        assertThat(err).contains("the same file");
        assertThat(Path.of(file)).doesNotExist();
        assertThat(run("", "--help")).isZero();
        assertThat(out).contains("Exit codes").contains("demo").contains("run");
        assertThat(run("", "run", "--help")).isZero();
        assertThat(run("", "--version")).isZero();
        assertThat(out).startsWith("morphema ");
    }

    @Test
    @DisplayName("without --out, and with several hyphens, all targets are shown, each under its name")
    void allTargets() throws IOException {
        String notice = "--- notice\n" + demo("expected/notice.xml");
        String terminal = "--- terminal\n" + demo("expected/terminal.json");
        assertThat(run("", "run", MAPPING, "--in", MANIFEST)).isZero();
        assertThat(out).isEqualTo(notice + terminal);
        assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "terminal=-", "--out", "notice=-"))
                .isZero();
        assertThat(out).contains(notice, terminal);
    }

    @Test
    @DisplayName("the mapping may come from standard input, and is no input then")
    void mappingFromStandardInput() {
        String mapping = "morphema 1\nsource s: csv(delimiter = \";\")\ntarget o: json(indent = 0) { n = count(s) }\n";
        assertThat(run(mapping, "check", "-")).isZero();
        assertThat(run(mapping, "run", "-", "--in", MANIFEST)).isZero();
        assertThat(out).isEqualTo("{\"n\":10}\n");
        assertThat(run(mapping, "run", "-", "--in", "-")).isEqualTo(3);
        assertThat(run("morphema 1\nlet", "plan", "-")).isEqualTo(2);
        assertThat(err).contains("standard input:2");
    }

    @Test
    @DisplayName("an output gets its folder, which goes again when the run fails")
    void foldersOfOutputs() throws IOException {
        Path place = folder.resolve("a/b/notice.xml");
        assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "notice=" + place))
                .isZero();
        assertThat(Files.readString(place)).isEqualTo(demo("expected/notice.xml"));
        Path broken = changed("samples/manifest.csv", "12000,5", "12x");
        assertThat(run("", "run", MAPPING, "--in", broken.toString(), "--out", "notice=" + folder.resolve("c/d/x.xml")))
                .isEqualTo(1);
        assertThat(filesIn(folder)).containsExactly("a", "manifest.csv");
    }

    @Test
    @DisplayName("what a killed run left is removed by the next, what another run holds is not")
    void leftovers() throws IOException {
        Path left = Files.createDirectories(folder.resolve(".1f.morphema-part/documents/sub"));
        Path held = Files.createDirectory(folder.resolve(".2f.morphema-part"));
        Files.writeString(held.resolve("file"), "half");
        Files.writeString(left.resolve("file"), "half");
        try (FileChannel channel =
                FileChannel.open(held.resolve("lock"), StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
            channel.lock();
            assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "notice=" + folder.resolve("x.xml")))
                    .isZero();
        }
        assertThat(filesIn(folder)).containsExactly(held.getFileName().toString(), "x.xml");
    }

    @Test
    @DisplayName("the summary says what a run came to, or why it failed, and takes the place of nothing else")
    void summary() throws IOException {
        Path mapping = Files.writeString(folder.resolve("m.morphema"), """
                morphema 1
                source s: csv
                table t { A = "a" }
                target o: csv { for x in s where x.k != "z" { k = x.k  v = t[x.k] ?? "none" } }
                """);
        Path rows = Files.writeString(folder.resolve("rows.csv"), "k\nA\nB\nz\nB\n");
        Path summary = folder.resolve("summary.json");
        Path out = folder.resolve("o.csv");
        assertThat(runWithSummary(mapping, rows, out, summary)).isZero();
        assertThat(err)
                .contains("left    out by where on line 4: 1 record")
                .contains("missed  t: 2 look-ups without a row, most often B (2)");
        assertThat(Files.readString(summary))
                .contains("\"outcome\" : \"written\"", "\"records\" : 4", "\"records\" : 3")
                .contains("\"where\" : \"x.k != \\\"z\\\"\"", "\"table\" : \"t\"", "\"key\" : \"B\"");
        assertThat(runWithSummary(mapping, Path.of("none.csv"), out, summary)).isEqualTo(4);
        assertThat(Files.readString(summary)).contains("\"outcome\" : \"failed\"", "\"code\" : \"file-not-found\"");
        assertThat(runWithSummary(mapping, rows, out, rows)).isEqualTo(3);
        assertThat(run("", "run", mapping.toString(), "--in", rows.toString(), "--limit", "colums=3"))
                .isEqualTo(3);
        assertThat(err).contains("There is no limit colums.");
        assertThat(run("", "run", mapping.toString(), "--in", rows.toString(), "--limit", "records=3"))
                .isEqualTo(1);
        assertThat(err).contains("There are more than 3 records of one source.", "--limit records=NUMBER");
    }

    private int runWithSummary(Path mapping, Path in, Path out, Path summary) {
        return run(
                "",
                "run",
                mapping.toString(),
                "--in",
                in.toString(),
                "--out",
                out.toString(),
                "--summary",
                summary.toString());
    }

    @Test
    @DisplayName("an input that is not there is refused, also if the target that is asked for does not use it")
    void missingInput() throws IOException {
        Path mapping = Files.writeString(
                folder.resolve("m.morphema"),
                "morphema 1\nsource a: csv\nsource b: csv\ntarget o: csv { { n = count(a) } }\ntarget p: csv { { n = count(b) } }\n");
        assertThat(run("", "run", mapping.toString(), "--in", "a=" + MANIFEST, "--in", "b=none.csv", "--out", "o=-"))
                .isEqualTo(4);
        assertThat(err).contains("The input of the source b is not there", "none.csv");
    }

    @Test
    @DisplayName("help and completion are commands, too")
    void helpAndCompletion() {
        assertThat(run("", "help")).isZero();
        assertThat(out).contains("completion", "Exit codes");
        assertThat(run("", "help", "run")).isZero();
        assertThat(out).contains("Inputs and outputs", "Memory, threads and limits", "Messages", "--param");
        assertThat(run("", "completion")).isZero();
        assertThat(out).contains("complete -F", "--memory");
    }

    @Test
    @DisplayName(
            "a pattern means files in the order of their names; documents go to a folder or are shown under their names")
    void manyFiles() throws IOException {
        Path inbox = Files.createDirectories(folder.resolve("inbox/deep"));
        Files.writeString(inbox.resolve("3.json"), "{\"n\": 3}");
        Files.writeString(folder.resolve("inbox/2.json"), "{\"n\": 2}");
        Files.writeString(folder.resolve("inbox/1.json"), "{\"n\": 1}");
        Path mapping = Files.writeString(folder.resolve("m.morphema"), """
                morphema 1
                source d: json(files = many)
                target o: json(indent = 0) for x in d into "{stem(x)}.json" { n = x.n * 2 }
                """);
        assertThat(run("", "run", mapping.toString(), "--in", folder + "/inbox/*.json", "--quiet"))
                .isZero();
        assertThat(out).isEqualTo("--- 1.json\n{\"n\":2}\n--- 2.json\n{\"n\":4}\n");
        String all = "d=" + folder + "/inbox/**.json";
        assertThat(run("", "run", mapping.toString(), "--in", all, "--out", folder + "/out"))
                .isZero();
        assertThat(err).contains("read    d: 3 records").contains("written o: 3 documents in ");
        assertThat(filesIn(folder.resolve("out"))).containsExactly("1.json", "2.json", "3.json");
        assertThat(run("", "run", mapping.toString(), "--in", folder + "/inbox/*.xml"))
                .isEqualTo(4);
        assertThat(err).contains("No file is like");
        assertThat(run("", "run", MAPPING, "--in", folder + "/inbox/*.json", "--out", "notice=-"))
                .isEqualTo(3);
        assertThat(err).contains("one file").contains("files = many");
    }

    @Test
    @DisplayName("plan shows what streams, what is kept and why, and what is kept up while members come")
    void plan() {
        assertThat(run("", "plan", MAPPING)).isZero();
        assertThat(out)
                .contains("read manifest: one record at a time")
                .contains("read manifest, once more: one record at a time\n  for distinct(valid.imo)")
                .contains("keeping up first(rows), min(rows.eta), sum(rows.weight_kg)\n    in each: group by row.bill");
        assertThat(run("", "plan", "none.morphema")).isEqualTo(4);
        assertThat(err).contains("[file-not-found]");
    }

    @Test
    @DisplayName("neither the memory nor the threads that a run may use change a byte; odd amounts are refused")
    void memoryAndThreads() throws IOException {
        Path place = folder.resolve("notice.xml");
        String[] amounts = {"0", "500", "3k", "2M", "1g"};
        for (int i = 0; i < amounts.length; i++) {
            assertThat(run(
                            "",
                            "run",
                            MAPPING,
                            "--in",
                            MANIFEST,
                            "--out",
                            "notice=" + place,
                            "--memory",
                            amounts[i],
                            "--threads",
                            String.valueOf(i + 1)))
                    .isZero();
            assertThat(Files.readString(place)).isEqualTo(demo("expected/notice.xml"));
        }
        assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "notice=-", "--memory", "12x"))
                .isEqualTo(3);
        assertThat(err).contains("'12x' is no amount of memory, such as 500k, 64m or 2g");
        assertThat(run("", "run", MAPPING, "--in", MANIFEST, "--out", "notice=-", "--threads", "0"))
                .isEqualTo(3);
        assertThat(err).contains("--threads takes a number from 1 on");
    }

    @Test
    @DisplayName("each command has a page for man, with its options")
    void manPages() throws IOException {
        ManPages.write(folder);
        for (String command : List.of("run", "check", "plan", "test", "demo", "completion")) {
            assertThat(folder.resolve("morphema-" + command + ".adoc")).isNotEmptyFile();
        }
        assertThat(folder.resolve("morphema-run.adoc")).content().contains("*--in*", "SOURCE=");
    }

    @Test
    @DisplayName("whoever closes standard output early keeps no file from being written")
    void closedPipe() {
        OutputStream closed = new OutputStream() {
            @Override
            public void write(int b) throws IOException {
                throw new IOException("Broken pipe");
            }
        };
        ByteArrayOutputStream words = new ByteArrayOutputStream();
        Path terminal = folder.resolve("terminal.json");
        String[] line = {"run", MAPPING, "--in", MANIFEST, "--out", "notice=-", "--out", "terminal=" + terminal};
        assertThat(Main.run(line, InputStream.nullInputStream(), closed, words)).isZero();
        assertThat(terminal).isNotEmptyFile();
        assertThat(words.toString(StandardCharsets.UTF_8)).contains("closed before its end; the files are written");
    }
}
