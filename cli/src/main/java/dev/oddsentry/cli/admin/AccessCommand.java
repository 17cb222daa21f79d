package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.AccessPolicyView;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "access",
        mixinStandardHelpOptions = true,
        description = "Show or set who changes what a team owns, and how users log in.",
        footer = {
            "",
            "Example: odd access --teams-decide",
            "         odd access --no-passwords --emergency-operator operator"
        })
public final class AccessCommand extends ServiceCommand {
    @Option(
            names = "--teams-decide",
            negatable = true,
            description = "Members of the owning team alone change what it owns (operators).")
    @Nullable
    Boolean teamsDecide;

    @Option(
            names = "--passwords",
            negatable = true,
            description = "Users can log in with a password; if not, through an identity provider alone (operators).")
    @Nullable
    Boolean passwords;

    @Option(
            names = "--emergency-operator",
            paramLabel = "USER",
            description = "Who can log in with a password in any case.")
    @Nullable
    String emergencyOperator;

    @Option(names = "--json", description = "The setting as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var policy = api().get("/api/access-policy", AccessPolicyView.class);
        if (teamsDecide != null || passwords != null || emergencyOperator != null)
            policy = api().put("/api/access-policy", change(policy), AccessPolicyView.class);
        if (json) OutputOptions.printJson(out(), policy);
        else
            out().println(
                            policy.teamsDecide()
                                    ? "Members of the owning team change what it owns; its leads activate."
                                    : "Every analyst changes and activates everything.");
        if (!json) out().println(logIns(policy));
        return 0;
    }

    private Map<String, @Nullable Object> change(AccessPolicyView present) {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("teamsDecide", teamsDecide == null ? present.teamsDecide() : teamsDecide);
        body.put("passwords", passwords);
        body.put("emergencyOperator", emergencyOperator);
        return body;
    }

    private static String logIns(AccessPolicyView policy) {
        return policy.passwords()
                ? "Users can log in with a password."
                : "Users log in through an identity provider; with a password, " + policy.emergencyOperator()
                        + " alone.";
    }
}
