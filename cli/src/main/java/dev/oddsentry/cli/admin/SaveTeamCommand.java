package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.Team;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;

@Command(
        name = "save-team",
        mixinStandardHelpOptions = true,
        description = {
            "Set a team's addresses, signature and logo (operators).",
            "The addresses get failure notices. Notices of teams without addresses go to the operators. The team's messages end with signature and logo."
        },
        footer = {
            "",
            "Example: odd save-team \"Traffic reporting\" ines.holm@skerryline.example",
            "         odd save-team \"Traffic reporting\" ines.holm@skerryline.example --logo skerry.png"
        })
public final class SaveTeamCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "TEAM", description = "Name of the team, as rules write it under owner.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Parameters(index = "1..*", arity = "1..*", paramLabel = "ADDRESS", description = "Email addresses of the team.")
    @SuppressWarnings("NullAway.Init")
    List<String> addresses;

    @Option(
            names = "--signature",
            paramLabel = "TEXT",
            description = "How the team's messages end; \\n begins a new line. Default: unchanged.")
    @Nullable
    String signature;

    @Option(
            names = "--logo",
            paramLabel = "FILE",
            description = "A picture after the signature, PNG or JPEG, max 100 kB.")
    @Nullable
    Path logo;

    @Option(names = "--no-logo", description = "Remove the logo.")
    boolean withoutLogo;

    @Override
    public Integer call() {
        if (logo != null && withoutLogo)
            throw new ParameterException(spec().commandLine(), "Use --logo or --no-logo, not both.");
        // Read before anything is changed.
        byte[] picture = logo == null ? null : bytes(logo);
        var team = new LinkedHashMap<String, Object>(Map.of("addresses", addresses));
        if (signature != null) team.put("signature", signature.replace("\\n", "\n"));
        String path = "/api/teams/" + Api.part(name);
        Team saved = api().put(path, team, Team.class);
        if (picture != null) api().putFile(path + "/logo", mediaType(picture), picture);
        if (withoutLogo) api().delete(path + "/logo");
        out().println(saved.name() + " gets failure notices at " + String.join(", ", addresses) + ".");
        return 0;
    }

    /** By how the file begins, whatever it is called; the service reads the rest. */
    private static String mediaType(byte[] picture) {
        return picture.length > 1 && (picture[0] & 0xff) == 0xff && (picture[1] & 0xff) == 0xd8
                ? "image/jpeg"
                : "image/png";
    }
}
