package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.output.ProblemText;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "push",
        mixinStandardHelpOptions = true,
        description =
                "Saves documents of queries and rules, in the order given; each is a new revision. Stops at the first that is refused.",
        footer = {"", "Example: odd push sailings.query.yaml late-sailings.rule.yaml --remark \"wider window\""})
public final class PushCommand extends ServiceCommand {
    @Parameters(paramLabel = "FILE", arity = "1..*", description = "YAML documents of kind query or rule.")
    @SuppressWarnings("NullAway.Init")
    List<Path> files;

    @Option(names = "--remark", paramLabel = "TEXT", defaultValue = "", description = "Why; kept with the revision.")
    @SuppressWarnings("NullAway.Init")
    String remark;

    @Option(names = "--json", description = "What was saved, as JSON, one document a line.")
    boolean json;

    @Override
    public Integer call() throws IOException {
        Api api = api();
        for (Path file : files) {
            String text = read(file);
            try {
                tell(file, text, api.putText("/api/definitions?remark=" + Api.part(remark), text));
            } catch (ApiException refused) {
                if (refused.isAboutAccess()) throw refused;
                spec().commandLine()
                        .getErr()
                        .println(ProblemText.of(refused, file.toString(), text) + " " + file + " was not saved.");
                return 1;
            }
        }
        return 0;
    }

    private String read(Path file) throws IOException {
        try {
            return Files.readString(file);
        } catch (NoSuchFileException e) {
            throw new ParameterException(spec().commandLine(), "There is no file " + file + ".");
        } catch (MalformedInputException e) {
            throw new ParameterException(spec().commandLine(), file + " is not UTF-8 text.");
        }
    }

    private void tell(Path file, String text, JsonNode saved) {
        for (JsonNode warning : saved.path("warnings")) {
            ProblemText.lines(warning, file.toString(), text).forEach(err()::println);
        }
        if (json) {
            out().println(saved);
            return;
        }
        String what = saved.path("kind").asString("") + " " + saved.path("name").asString("");
        boolean changed = saved.path("changed").asBoolean(false);
        spec().commandLine()
                .getOut()
                .println(
                        changed
                                ? "Saved " + what + " as revision " + saved.path("revision") + "."
                                : what + " is unchanged at revision " + saved.path("revision") + ".");
    }
}
