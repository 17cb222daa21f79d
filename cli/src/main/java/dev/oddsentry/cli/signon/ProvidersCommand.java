package dev.oddsentry.cli.signon;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.IdentityProviderView;
import dev.oddsentry.contract.ProviderFindings;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "providers",
        mixinStandardHelpOptions = true,
        description = "List, test or remove the identity providers of log-ins.",
        footer = {"", "Example: odd providers --test skerry"})
public final class ProvidersCommand extends ServiceCommand {
    /** What to do with one; without it they are listed. */
    static final class Act {
        @Option(
                names = "--test",
                required = true,
                paramLabel = "NAME",
                description = "Test whether it answers (operators). Nobody is logged in.")
        @Nullable
        String tested;

        @Option(
                names = "--remove",
                required = true,
                paramLabel = "NAME",
                description = "Remove it (operators). Users who log in through it stay.")
        @Nullable
        String removed;
    }

    @ArgGroup
    @Nullable
    Act act;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        if (act != null && act.tested != null) return test(act.tested);
        if (act != null && act.removed != null) return remove(act.removed);
        List<IdentityProviderView> all = api().list("/api/identity-providers", IdentityProviderView.class);
        output.print(out(), all, () -> table(all), "No identity providers yet. Add one with: odd save-provider");
        return 0;
    }

    private int test(String name) {
        var found = api().post(at(name) + "/test", null, ProviderFindings.class);
        if (output.isJson()) OutputOptions.printJson(out(), found);
        else {
            out().println("It answers. Signing keys: " + found.keys() + ". "
                    + (found.logsOut() ? "Users are logged out there too." : "It offers no log-out."));
            for (var warning : found.warnings()) out().println("Warning: " + warning);
        }
        return 0;
    }

    private int remove(String name) {
        api().delete(at(name));
        out().println("Removed the identity provider " + name + ".");
        return 0;
    }

    private static String at(String name) {
        return "/api/identity-providers/" + Api.part(name);
    }

    private static Listing table(List<IdentityProviderView> all) {
        var table = new Listing("Provider", "Title", "Issuer", "Groups", "State");
        for (var each : all)
            table.add(each.name(), each.title(), each.issuer(), groups(each), each.active() ? "active" : "off");
        return table;
    }

    private static String groups(IdentityProviderView of) {
        var lines = of.groups().stream()
                .map(line ->
                        line.group() + "=" + Words.state(line.role()) + (line.team() == null ? "" : "," + line.team()));
        var others = Stream.of("others=" + (of.otherRole() == null ? "none" : Words.state(of.otherRole())));
        return Stream.concat(lines, others).collect(Collectors.joining("; "));
    }
}
