package dev.oddsentry.cli;

import java.util.List;
import java.util.Map;
import picocli.CommandLine.Help;

/** The list of commands in {@code odd --help}, under the headings of their groups. */
record GroupedCommands(Map<String, List<String>> groups) {
    private static final int GAP = 2;

    String render(Help help) {
        var commands = help.subcommands();
        int width = commands.keySet().stream().mapToInt(String::length).max().orElse(0) + GAP;
        var text = new StringBuilder();
        groups.forEach((heading, names) -> {
            text.append(System.lineSeparator()).append(heading).append(System.lineSeparator());
            for (String name : names) {
                var command = commands.get(name);
                if (command == null) continue;
                String[] description = command.commandSpec().usageMessage().description();
                text.append("  ")
                        .append(name)
                        .append(" ".repeat(width - name.length()))
                        .append(description.length == 0 ? "" : description[0])
                        .append(System.lineSeparator());
            }
        });
        return text.toString();
    }
}
