package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.RoundUpView;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "round-ups",
        mixinStandardHelpOptions = true,
        description = "List round-ups, their rules and next times.",
        footer = {"", "Example: odd round-ups"})
public final class RoundUpsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        List<RoundUpView> roundUps = api().list("/api/round-ups", RoundUpView.class);
        output.print(
                out(), roundUps, () -> table(roundUps), "No round-ups yet. Write one and save it with: odd push FILE");
        return 0;
    }

    private static Listing table(List<RoundUpView> roundUps) {
        var table = new Listing(List.of("Round-up", "Title", "Rules", "To", "When", "Sent immediately", "Next"));
        for (var each : roundUps)
            table.add(List.of(
                    each.name(),
                    each.title(),
                    String.join(", ", each.rules()),
                    String.join(", ", each.to()),
                    each.when(),
                    Words.or(each.atOnce(), "–"),
                    each.paused() ? "paused" : Words.time(each.nextSlot())));
        return table;
    }
}
