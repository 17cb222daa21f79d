package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.AccessPolicyView;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "access",
        mixinStandardHelpOptions = true,
        description = "Show or set who changes what a team owns.",
        footer = {"", "Example: odd access --teams-decide"})
public final class AccessCommand extends ServiceCommand {
    @Option(
            names = "--teams-decide",
            negatable = true,
            description = "Members of the owning team alone change what it owns (operators).")
    @Nullable
    Boolean teamsDecide;

    @Option(names = "--json", description = "The setting as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var policy = teamsDecide == null
                ? api().get("/api/access-policy", AccessPolicyView.class)
                : api().put("/api/access-policy", Map.of("teamsDecide", teamsDecide), AccessPolicyView.class);
        if (json) OutputOptions.printJson(out(), policy);
        else
            out().println(
                            policy.teamsDecide()
                                    ? "Members of the owning team change what it owns; its leads activate."
                                    : "Every analyst changes and activates everything.");
        return 0;
    }
}
