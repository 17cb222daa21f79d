package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.RulePage;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** A command that moves a rule to another state and says how it stands then. */
abstract class RuleStateCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    private RuleArgument rule;

    @Option(names = "--json", description = "The rule as JSON.")
    private boolean json;

    /** The last part of the move's path in the API. */
    abstract String move();

    /** What goes with the move, with its question mark; nothing unless a command says so. */
    String query() {
        return "";
    }

    /** @param page the rule's page as it is after the move */
    abstract String said(String rule, RulePage page);

    @Override
    public final Integer call() {
        RulePage page = api().post(rule.path("/" + move() + query()), null, RulePage.class);
        if (json) OutputOptions.printJson(out(), page);
        else out().println(said(rule.name(), page));
        return 0;
    }
}
