package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.StatementList;
import dev.oddsentry.contract.StatementView;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "statement",
        mixinStandardHelpOptions = true,
        description = {
            "State whether silence meant that there was nothing to report.",
            "How often rules were checked, what was not reported and why, and what failed."
        },
        footer = {
            "",
            "Exit status 1 if a check was not complete.",
            "",
            "Example: odd statement late-sailings",
            "         odd statement --from 2026-11-01 --to 2026-11-30"
        })
public final class StatementCommand extends ServiceCommand {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEE d MMM yyyy HH:mm", Locale.ENGLISH);
    private static final int DAYS = 7;

    @Parameters(arity = "0..*", paramLabel = "RULE", description = "Names of rules. Default: all rules but drafts.")
    List<String> rules = List.of();

    @Option(names = "--from", paramLabel = "DATE", description = "First day. Default: seven days ago.")
    @Nullable
    LocalDate from;

    @Option(names = "--to", paramLabel = "DATE", description = "Last day. Default: until now.")
    @Nullable
    LocalDate to;

    @Option(names = "--json", description = "The service's answer as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var zone = ZoneId.systemDefault();
        Instant until =
                to == null ? Instant.now() : to.plusDays(1).atStartOfDay(zone).toInstant();
        Instant since = from == null
                ? until.atZone(zone).minusDays(DAYS).toInstant()
                : from.atStartOfDay(zone).toInstant();
        var asked = new ArrayList<String>();
        rules.forEach(rule -> asked.add("rule=" + Api.part(rule)));
        asked.add("from=" + since);
        asked.add("to=" + until);
        var answer = api().get("/api/statements?" + String.join("&", asked), StatementList.class);
        if (json) OutputOptions.printJson(out(), answer);
        else {
            out().println("From " + DAY.format(since.atZone(zone)) + " to " + DAY.format(until.atZone(zone)) + " ("
                    + zone.getId() + ")");
            for (var statement : answer.statements()) {
                out().println();
                out().println(statement.title() + " (" + statement.rule() + ")");
                for (String sentence : statement.sentences()) out().println("  " + sentence);
            }
        }
        return answer.statements().stream().allMatch(StatementView::complete) ? 0 : 1;
    }
}
