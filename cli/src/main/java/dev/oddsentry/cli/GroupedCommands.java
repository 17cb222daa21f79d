package dev.oddsentry.cli;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import picocli.CommandLine;
import picocli.CommandLine.Help;

/** The commands under the headings of their groups: by name in {@code odd --help}, with what they do in {@code odd help GROUP}. */
record GroupedCommands(Map<String, List<String>> groups) {
    private static final int GAP = 2;
    private static final int WIDTH = 80;

    /** So short that it fits on a screen. */
    String render(Help help) {
        var text = new StringBuilder();
        groups.forEach((heading, names) -> {
            text.append(System.lineSeparator()).append(heading).append(System.lineSeparator());
            var line = new StringBuilder(" ");
            for (String name : names) {
                if (line.length() + 1 + name.length() > WIDTH) {
                    text.append(line).append(System.lineSeparator());
                    line = new StringBuilder(" ");
                }
                line.append(' ').append(name);
            }
            text.append(line).append(System.lineSeparator());
        });
        return text.toString();
    }

    /** The heading in which the word stands, such as {@code mail} in {@code Manage mail}. */
    Optional<String> heading(String word) {
        return groups.keySet().stream()
                .filter(heading -> Stream.of(heading.toLowerCase(Locale.ROOT).split("[ ,]+"))
                        .anyMatch(word.toLowerCase(Locale.ROOT)::equals))
                .findFirst();
    }

    /** A line for each command of a group. */
    String described(String heading, CommandLine whole) {
        var names = groups.getOrDefault(heading, List.of());
        int width = names.stream().mapToInt(String::length).max().orElse(0) + GAP;
        var text = new StringBuilder(heading).append(System.lineSeparator());
        for (String name : names) {
            var command = whole.getSubcommands().get(name);
            if (command == null) continue;
            String[] description = command.getCommandSpec().usageMessage().description();
            text.append("  ")
                    .append(name)
                    .append(" ".repeat(width - name.length()))
                    .append(description.length == 0 ? "" : description[0])
                    .append(System.lineSeparator());
        }
        return text.toString();
    }
}
