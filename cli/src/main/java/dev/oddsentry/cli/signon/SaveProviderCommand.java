package dev.oddsentry.cli.signon;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.IdentityProviderView;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;

@Command(
        name = "save-provider",
        mixinStandardHelpOptions = true,
        description = {
            "Add or change an identity provider (OpenID Connect; operators).",
            "What is not given stays as it is. The client secret is stored encrypted."
        },
        footer = {
            "",
            "Example: odd save-provider skerry --title \"Skerry directory\" --issuer https://login.skerryline.example",
            "  --client-id odd-sentry --secret-stdin --group \"reporting=lead,Traffic reporting\" --others reader",
            "Register the printed redirect URI at the provider."
        })
public final class SaveProviderCommand extends ServiceCommand {
    private static final Pattern LINE = Pattern.compile("(.+)=([A-Za-z]+)(?:,(.+))?");
    private static final String NONE = "none";

    @Parameters(paramLabel = "NAME", description = "Its name in addresses, such as skerry.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(names = "--title", paramLabel = "TEXT", description = "The button on the log-in page.")
    @Nullable
    String title;

    @Option(names = "--issuer", paramLabel = "URL", description = "Address of the provider.")
    @Nullable
    String issuer;

    @Option(names = "--client-id", paramLabel = "ID", description = "What this service is called there.")
    @Nullable
    String clientId;

    @Option(names = "--secret-stdin", description = "Read a new client secret from standard input.")
    boolean secretFromInput;

    @Option(
            names = "--group",
            paramLabel = "GROUP=ROLE[,TEAM]",
            description =
                    "What a group means here; may be given again. Replaces all lines. The first that fits decides the role.")
    List<String> groups = List.of();

    @Option(names = "--no-groups", description = "Remove all lines.")
    boolean noGroups;

    @Option(names = "--others", paramLabel = "ROLE", description = "Role of users in none of the groups, or none.")
    @Nullable
    String others;

    /** How somebody is recognised at their first log-in. */
    enum KnownBy {
        NOTHING,
        LOG_IN_NAME,
        ADDRESS
    }

    @Option(
            names = "--known-by",
            paramLabel = "WHAT",
            description = "Recognize users at their first log-in: nothing, address, log_in_name.")
    @Nullable
    KnownBy knownBy;

    @Option(names = "--add-users", negatable = true, description = "Add users who are not recognized.")
    @Nullable
    Boolean addUsers;

    @Option(
            names = "--verified-addresses",
            negatable = true,
            description = "Addresses count as verified where the provider does not say so.")
    @Nullable
    Boolean verifiedAddresses;

    @Option(names = "--active", negatable = true, description = "Users can log in through it.")
    @Nullable
    Boolean active;

    @Option(names = "--group-claim", paramLabel = "CLAIM", description = "Claim with the groups (groups).")
    @Nullable
    String groupClaim;

    @Option(
            names = "--login-claim",
            paramLabel = "CLAIM",
            description = "Claim with the log-in name (preferred_username).")
    @Nullable
    String loginClaim;

    @Option(
            names = "--scope",
            paramLabel = "SCOPE",
            description = "Scope to ask for beside openid; may be given again.")
    List<String> scopes = List.of();

    @Option(names = "--json", description = "The provider as JSON, without its secret.")
    boolean json;

    @Override
    public Integer call() throws IOException {
        var present = api().list("/api/identity-providers", IdentityProviderView.class).stream()
                .filter(each -> each.name().equals(name))
                .findFirst();
        var saved = api().put("/api/identity-providers/" + Api.part(name), body(present), IdentityProviderView.class);
        if (json) OutputOptions.printJson(out(), saved);
        else {
            out().println("Saved the identity provider " + name + ".");
            out().println("Redirect URI: " + saved.returnAddress());
        }
        return 0;
    }

    private Map<String, @Nullable Object> body(Optional<IdentityProviderView> present) throws IOException {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("title", or(title, present.map(IdentityProviderView::title), name));
        body.put("issuer", or(issuer, present.map(IdentityProviderView::issuer), ""));
        body.put("clientId", or(clientId, present.map(IdentityProviderView::clientId), ""));
        if (secretFromInput) body.put("clientSecret", secret());
        body.put("knownBy", or(name(knownBy), present.map(IdentityProviderView::knownBy), "NOTHING"));
        body.put("addsPeople", or(addUsers, present.map(IdentityProviderView::addsPeople), true));
        body.put(
                "addressesVerified",
                or(verifiedAddresses, present.map(IdentityProviderView::addressesVerified), false));
        body.put("active", or(active, present.map(IdentityProviderView::active), true));
        body.put("groupClaim", or(groupClaim, present.map(IdentityProviderView::groupClaim), "groups"));
        body.put("loginClaim", or(loginClaim, present.map(IdentityProviderView::loginClaim), "preferred_username"));
        body.put(
                "otherRole",
                others == null ? present.map(IdentityProviderView::otherRole).orElse(null) : role(others));
        body.put(
                "scopes",
                scopes.isEmpty() ? present.map(IdentityProviderView::scopes).orElse(null) : scopes);
        if (!groups.isEmpty())
            body.put("groups", groups.stream().map(this::line).toList());
        else
            body.put(
                    "groups",
                    noGroups || present.isEmpty() ? List.of() : present.get().groups());
        return body;
    }

    private static <V> V or(@Nullable V given, Optional<V> present, V otherwise) {
        return given == null ? present.orElse(otherwise) : given;
    }

    private static @Nullable String name(@Nullable KnownBy known) {
        return known == null ? null : known.name();
    }

    private Map<String, @Nullable Object> line(String typed) {
        var parts = LINE.matcher(typed);
        if (!parts.matches())
            throw new ParameterException(
                    spec().commandLine(),
                    "\"" + typed + "\" is not a group with a role. Example: \"reporting=lead,Traffic reporting\"");
        var line = new LinkedHashMap<String, @Nullable Object>();
        line.put("group", parts.group(1).strip());
        line.put("role", parts.group(2).toUpperCase(Locale.ROOT));
        line.put("team", parts.group(3));
        return line;
    }

    private static @Nullable String role(String typed) {
        return typed.equalsIgnoreCase(NONE) ? null : typed.toUpperCase(Locale.ROOT);
    }

    private static String secret() throws IOException {
        var input = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        return Objects.requireNonNullElse(input.readLine(), "");
    }
}
