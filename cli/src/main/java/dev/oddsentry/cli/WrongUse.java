package dev.oddsentry.cli;

import dev.oddsentry.cli.common.ExitStatus;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.UnmatchedArgumentException;

/** Explains wrong use of a command: what is wrong, what is allowed, and where to find help. */
final class WrongUse {
    private static final Map<Class<?>, String> EXPECTED = Map.of(
            BigDecimal.class, "a number",
            Integer.class, "a whole number",
            int.class, "a whole number",
            Long.class, "a whole number",
            long.class, "a whole number",
            LocalDate.class, "a date. Example: 2026-06-01",
            LocalDateTime.class, "a local date and time. Example: 2026-06-01T05:40",
            Instant.class, "a time. Example: 2026-11-24T04:40:00Z");

    private WrongUse() {}

    static int explain(ParameterException wrong) {
        var command = wrong.getCommandLine();
        var err = command.getErr();
        err.println(message(wrong));
        if (wrong instanceof UnmatchedArgumentException unmatched)
            UnmatchedArgumentException.printSuggestions(unmatched, err);
        err.println("Help: " + command.getCommandSpec().qualifiedName(" ") + " --help");
        return ExitStatus.WRONG_USE;
    }

    private static @Nullable String message(ParameterException wrong) {
        if (wrong instanceof UnmatchedArgumentException unmatched && isRoot(unmatched)) {
            List<String> extra = unmatched.getUnmatched();
            return "\"" + extra.getFirst() + "\" is not a command.";
        }
        var argument = wrong.getArgSpec();
        if (argument == null || wrong.getValue() == null || wrong.getMessage() == null) return wrong.getMessage();
        Class<?> type = argument.isMultiValue() ? argument.auxiliaryTypes()[0] : argument.type();
        if (type.isEnum())
            return "\"" + wrong.getValue() + "\" is not allowed here. Use "
                    + Arrays.stream(type.getEnumConstants())
                            .map(each ->
                                    each.toString().toLowerCase(Locale.ROOT).replace('_', '-'))
                            .collect(Collectors.joining(", "))
                    + ".";
        String expected = EXPECTED.get(type);
        if (expected != null)
            return "\"" + wrong.getValue() + "\" is not " + expected + (expected.contains(".") ? "" : ".");
        // What a converter of our own says follows the name of the parameter.
        int said = wrong.getMessage().indexOf("): ");
        return said < 0 ? wrong.getMessage() : wrong.getMessage().substring(said + 3);
    }

    private static boolean isRoot(UnmatchedArgumentException unmatched) {
        return unmatched.getCommandLine().getParent() == null;
    }
}
