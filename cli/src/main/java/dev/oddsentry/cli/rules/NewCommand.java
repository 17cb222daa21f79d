package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.Problem;
import dev.oddsentry.contract.QueryColumnView;
import dev.oddsentry.contract.QueryPage;
import dev.oddsentry.contract.QuerySummary;
import dev.oddsentry.contract.Review;
import dev.oddsentry.contract.Team;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.text.Normalizer;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.json.JsonMapper;

@Command(
        name = "new",
        mixinStandardHelpOptions = true,
        description = {
            "Answer questions and write the definition file of a rule.",
            "The questions are those of the editor. Each answer is checked; nothing is saved in the service."
        },
        footer = {"", "Example: odd new rule", "         odd new rule --out late-sailings.rule.yaml"})
public final class NewCommand extends ServiceCommand {
    private static final JsonMapper JSON = new JsonMapper();
    private static final List<String> MODES = List.of("incremental", "full", "plain");

    @Parameters(paramLabel = "KIND", description = "rule")
    @SuppressWarnings("NullAway.Init")
    String kind;

    @Option(
            names = "--out",
            paramLabel = "FILE",
            description = "The file. Default: NAME.rule.yaml. An existing one is kept.")
    @Nullable
    Path file;

    @SuppressWarnings("NullAway.Init")
    private BufferedReader answers;

    private final Map<String, Object> rule = new LinkedHashMap<>();
    private final Map<String, Object> memory = new LinkedHashMap<>();

    @Override
    public Integer call() {
        if (!kind.equals("rule")) throw wrong("KIND must be rule, not \"" + kind + "\".");
        answers = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        begin();
        ask("Title", "", "title");
        ask("Name for commands", nameOf(String.valueOf(rule.get("title"))), "name");
        query();
        String mode = mode();
        if (mode.equals("plain")) memory.put("mode", mode);
        else {
            ask("A row is an exception if (empty: every row)", "", "exceptions");
            severity();
            if (mode.equals("incremental")) key();
        }
        ask("Time zone", ZoneId.systemDefault().getId(), "zone");
        schedule();
        recipients();
        owner();
        return write();
    }

    /** What a definition must have, until the answers take its place. */
    private void begin() {
        rule.put("kind", "rule");
        rule.put("name", "not-named-yet");
        rule.put("title", "Not named yet");
        rule.put("owner", "not named yet");
        rule.put("query", "");
        memory.put("mode", "full");
        rule.put("memory", memory);
        rule.put("delivery", Map.of("to", List.of()));
    }

    private void query() {
        var queries = api().list("/api/queries", QuerySummary.class);
        out().println("Queries: "
                + String.join(", ", queries.stream().map(QuerySummary::name).toList()));
        ask("Query", queries.isEmpty() ? "" : queries.getFirst().name(), "query");
    }

    private String mode() {
        out().println("It sends: 1 what is new, 2 all open findings each time, 3 a plain report");
        while (true) {
            String typed = line("Which", "1");
            if (List.of("1", "2", "3").contains(typed)) return MODES.get(Integer.parseInt(typed) - 1);
            out().println("  Type 1, 2 or 3.");
        }
    }

    private void severity() {
        while (true) {
            String critical = line("It is critical if (empty: never)", "");
            if (critical.isEmpty()) rule.remove("severity");
            else rule.put("severity", List.of(Map.of("critical", critical), "warning"));
            if (isAccepted("severity")) return;
        }
    }

    private void key() {
        // Not before: without a key nothing else of an incremental rule would be checked.
        memory.put("mode", "incremental");
        var page = api().get("/api/queries/" + Api.part(String.valueOf(rule.get("query"))), QueryPage.class);
        var columns = page.columns().stream().map(QueryColumnView::name).toList();
        out().println("Columns: " + String.join(", ", columns));
        while (true) {
            memory.put("key", split(line("Columns that name a row", columns.isEmpty() ? "" : columns.getFirst())));
            if (isAccepted("memory")) return;
        }
    }

    private void schedule() {
        out().println("Examples: " + Rhythms.EXAMPLES);
        while (true) {
            var read = Rhythms.read(line("It is checked", "on demand"), LocalDate.now());
            if (read.isEmpty()) {
                out().println("  This cannot be read. Write it like one of the examples.");
                continue;
            }
            if (read.get().isEmpty()) rule.remove("schedule");
            else rule.put("schedule", read.get());
            if (isAccepted("schedule")) return;
        }
    }

    private void recipients() {
        while (true) {
            rule.put("delivery", Map.of("to", split(line("Recipients, comma-separated", ""))));
            if (isAccepted("delivery")) return;
        }
    }

    private void owner() {
        var teams =
                api().list("/api/teams", Team.class).stream().map(Team::name).toList();
        out().println("Teams: " + String.join(", ", teams));
        ask("Owner", teams.isEmpty() ? "" : teams.getFirst(), "owner");
    }

    private static List<String> split(String typed) {
        return Stream.of(typed.split(","))
                .map(String::strip)
                .filter(each -> !each.isEmpty())
                .toList();
    }

    private void ask(String question, String usual, String field) {
        while (true) {
            String typed = line(question, usual);
            if (typed.isEmpty() && field.equals("exceptions")) rule.remove(field);
            else rule.put(field, typed);
            if (isAccepted(field)) return;
        }
    }

    private String line(String question, String usual) {
        out().print(question + (usual.isEmpty() ? "" : " [" + usual + "]") + ": ");
        out().flush();
        try {
            String typed = answers.readLine();
            if (typed == null) throw wrong("The answers ended at \"" + question + "\". Nothing was written.");
            return typed.isBlank() ? usual : typed.strip();
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    private ParameterException wrong(String message) {
        return new ParameterException(spec().commandLine(), message);
    }

    /** Says what the service finds wrong in this field, or below it. */
    private boolean isAccepted(String field) {
        var problems = review().problems().stream()
                .filter(each -> each.weight().equals("ERROR"))
                .filter(each -> each.field().matches(field + "([.\\[].*)?"))
                .toList();
        for (Problem problem : problems)
            out().println("  " + problem.message()
                    + (problem.suggestion() == null ? "" : "; did you mean " + problem.suggestion() + "?"));
        return problems.isEmpty();
    }

    private Review review() {
        return api().postText("/api/review", JSON.writeValueAsString(rule), "application/yaml", Review.class);
    }

    private Integer write() {
        var review = review();
        String text = Objects.requireNonNullElse(review.text(), JSON.writeValueAsString(rule));
        Path target = file == null ? Path.of(rule.get("name") + ".rule.yaml") : file;
        try {
            Files.writeString(target, text, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
        } catch (FileAlreadyExistsException there) {
            throw wrong("The file " + target + " exists and was kept. Name another with --out.");
        } catch (IOException unwritable) {
            throw wrong("The file " + target + " cannot be written.");
        }
        out().println("Wrote " + target + ". Next: odd push " + target + ", odd preview " + rule.get("name")
                + ", odd activate " + rule.get("name") + ".");
        return 0;
    }

    /** {@code Late sailings – Gråvik} as {@code late-sailings-gravik}. */
    private static String nameOf(String title) {
        String plain = title.toLowerCase(Locale.ROOT)
                .replace("ø", "o")
                .replace("æ", "ae")
                .replace("ß", "ss");
        return Normalizer.normalize(plain, Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-+|-+$", "");
    }
}
