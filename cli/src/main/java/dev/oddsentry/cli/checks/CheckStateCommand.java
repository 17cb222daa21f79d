package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.CheckList;
import dev.oddsentry.contract.CheckView;
import java.util.Locale;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** A command that moves the one check of a rule that is in a certain state. */
abstract class CheckStateCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    private RuleArgument rule;

    @Option(names = "--json", description = "The check as JSON.")
    private boolean json;

    /** The last part of the move's path in the API. */
    abstract String move();

    /** The state that the check must be in, as the API names it. */
    abstract String from();

    @Override
    public final Integer call() {
        for (var check : api().get(rule.path("/checks"), CheckList.class).checks()) {
            if (!check.state().equals(from())) continue;
            CheckView moved = api().post("/api/checks/" + check.id() + "/" + move(), null, CheckView.class);
            if (json) OutputOptions.printJson(out(), moved);
            else out().println(rule.name() + " " + Words.outcome(moved));
            return 0;
        }
        err().println("No check of " + rule.name() + " is "
                + from().toLowerCase(Locale.ROOT).replace('_', ' ') + ".");
        return 1;
    }
}
