package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.Saved;
import java.util.LinkedHashMap;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "copy",
        mixinStandardHelpOptions = true,
        description = "Copy a rule as a draft without recipients or memory.",
        footer = {"", "Example: odd copy late-sailings late-sailings-north --title \"Late sailings in the north\""})
public final class CopyCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Parameters(index = "1", paramLabel = "NAME", description = "Name of the copy.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(names = "--title", paramLabel = "TEXT", description = "Title of the copy. Default: its name.")
    @Nullable
    String title;

    @Option(names = "--json", description = "The saved definition as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var body = new LinkedHashMap<String, String>();
        body.put("name", name);
        if (title != null) body.put("title", title);
        Saved saved = api().post(rule.path("/copies"), body, Saved.class);
        if (json) OutputOptions.printJson(out(), saved);
        else
            out().println("Copied " + rule.name() + " as " + name
                    + ". It is a draft without recipients. Next: odd pull FOLDER rule/" + name
                    + ", edit, odd push, odd activate "
                    + name + ".");
        return 0;
    }
}
