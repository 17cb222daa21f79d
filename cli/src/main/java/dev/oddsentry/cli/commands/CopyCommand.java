package dev.oddsentry.cli.commands;

import java.util.LinkedHashMap;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "copy",
        mixinStandardHelpOptions = true,
        description =
                "Makes another rule that says the same: not active, with an empty memory and nobody to mail. It says where it came from.",
        footer = {"", "Example: odd copy late-sailings late-sailings-north --title \"Late sailings in the north\""})
public final class CopyCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Parameters(index = "1", paramLabel = "NAME", description = "The name of the copy.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(names = "--title", paramLabel = "TEXT", description = "Its title; its name if left out.")
    @Nullable
    String title;

    @Option(names = "--json", description = "What was saved, as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var body = new LinkedHashMap<String, String>();
        body.put("name", name);
        if (title != null) body.put("title", title);
        JsonNode saved = api().post(rule.path("/copies"), body);
        if (json) OutputOptions.printJson(out(), saved);
        else
            out().println("Copied " + rule.name() + " as " + name
                    + ". It is a draft and names nobody to mail: odd pull FOLDER rule/" + name
                    + ", edit, odd push, odd activate "
                    + name + ".");
        return 0;
    }
}
