package dev.oddsentry.service.layouts;

import static org.assertj.core.api.Assertions.assertThat;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is written, read by programs that are not ours: a spreadsheet, a PDF reader, a mail library, a text browser. */
class OtherProgramsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);

    @TempDir
    private Path folder;

    @BeforeEach
    void rows() {
        sailings.change(
                "insert into sailing_table values ('=1+1', 20, null), ('007', 21, null), ('Måkehamn – Ærøskøbing', 22, null),"
                        + " ('a \"quoted\", text', 65, null), ('two\nlines', 23, null), ('+47 12', 24, null), ('SK <b>&amp;', 25, null)");
        sailings.active();
        api.push(
                sailings.rule()
                        .replace(
                                "delivery: {",
                                "delivery: { attach: [xlsx, pdf], layout: { columns: [sailing, delay_min], extra_columns: [] },"));
    }

    private String run(String... command) throws IOException, InterruptedException {
        Path out = folder.resolve("out");
        var process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(out.toFile())
                .start();
        assertThat(process.waitFor(120, TimeUnit.SECONDS))
                .as(command[0] + " ends")
                .isTrue();
        return Files.readString(out, StandardCharsets.UTF_8);
    }

    private Path extract(String format) throws IOException {
        Path file = folder.resolve("late." + format);
        Files.write(file, api.bytes("/api/rules/" + sailings.name + "/extract." + format));
        return file;
    }

    @Test
    void aSpreadsheetReadsTheRowsOfTheSource() throws Exception {
        extract("xlsx");
        String said = run(
                "soffice",
                "-env:UserInstallation=file://" + folder.resolve("profile"),
                "--headless",
                "--convert-to",
                "csv:Text - txt - csv (StarCalc):44,34,76,1",
                "late.xlsx");
        // It misses a Java of its own, which has nothing to do with the file.
        assertThat(said.lines().filter(line -> !line.contains("javaldx")).toList())
                .hasSize(1);
        try (var theirs = CsvReader.builder().ofCsvRecord(folder.resolve("late.csv"))) {
            assertThat(theirs.stream().map(CsvRecord::getFields))
                    .containsExactly(
                            List.of("Sailing", "Late by (min)"),
                            List.of("a \"quoted\", text", "65"),
                            List.of("SK <b>&amp;", "25"),
                            List.of("+47 12", "24"),
                            List.of("two\nlines", "23"),
                            List.of("Måkehamn – Ærøskøbing", "22"),
                            List.of("007", "21"),
                            List.of("=1+1", "20"));
        }
    }

    @Test
    void theTextOfThePdfHasTheRows() throws Exception {
        extract("pdf");
        run("pdftotext", "-layout", "late.pdf", "late.txt");
        String text = Files.readString(folder.resolve("late.txt"), StandardCharsets.UTF_8);
        for (String row :
                List.of("=1+1 20", "007 21", "Måkehamn – Ærøskøbing 22", "a \"quoted\", text 65", "SK <b>&amp; 25"))
            assertThat(text.replaceAll(" +", " ")).contains(row);
    }

    @Test
    void aMailLibraryAndATextBrowserReadTheMail() throws Exception {
        Files.write(folder.resolve("late.eml"), api.bytes("/api/rules/" + sailings.name + "/preview.eml"));
        Files.writeString(folder.resolve("read.py"), """
                import email, email.policy, sys
                message = email.message_from_file(open('late.eml', encoding='ascii'), policy=email.policy.default)
                assert not message.defects and not any(part.defects for part in message.walk())
                text = message.get_body(('plain',)).get_content()
                open('late.html', 'w').write(message.get_body(('html',)).get_content())
                sys.stdout.reconfigure(encoding='utf-8')
                print(message['subject'])
                print(message['auto-submitted'], message['list-id'])
                print([part.get_filename() for part in message.iter_attachments()])
                print(text)
                """);
        String read = run("python3", "read.py");
        assertThat(read).contains("Preview: Late sailings", "auto-generated", ".xlsx", ".pdf", "Måkehamn – Ærøskøbing");
        String shown = run("w3m", "-dump", "-cols", "200", "-I", "UTF-8", "-O", "UTF-8", "late.html");
        for (String row :
                List.of("=1+1", "007", "Måkehamn – Ærøskøbing", "a \"quoted\", text", "two lines", "SK <b>&amp;"))
            assertThat(shown)
                    .contains(row)
                    .as("the text says it too")
                    .satisfies(_ -> assertThat(read).contains(row));
    }
}
