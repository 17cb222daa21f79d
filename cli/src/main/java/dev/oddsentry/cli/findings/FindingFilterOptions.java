package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.client.Api;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.Option;
import picocli.CommandLine.TypeConversionException;

/** Which findings of all rules a command is about. */
public final class FindingFilterOptions {
    private static final Map<String, String> STATES = codes("open", "pending", "aged-out", "cleared");
    private static final Map<String, String> SEVERITIES = codes("critical", "warning", "notice");
    private static final Map<String, String> HANDLING = handling();

    @Option(
            names = "--state",
            paramLabel = "STATE",
            description = "open, pending, aged-out or cleared. Default: all that have not cleared.",
            converter = State.class)
    @Nullable
    String state;

    @Option(
            names = "--severity",
            paramLabel = "SEVERITY",
            description = "critical, warning or notice.",
            converter = OneSeverity.class)
    @Nullable
    String severity;

    @Option(
            names = "--handling",
            paramLabel = "HOW",
            description = "none, taken, snoozed or accepted.",
            converter = Handling.class)
    @Nullable
    String handling;

    @Option(names = "--rule", paramLabel = "RULE", description = "Only findings of this rule.")
    @Nullable
    String rule;

    @Option(
            names = "--find",
            paramLabel = "TEXT",
            description = "Only findings with this text in their row, key or rule.")
    @Nullable
    String find;

    private static Map<String, String> codes(String... words) {
        var codes = new LinkedHashMap<String, String>();
        for (String word : words) codes.put(word, word.toUpperCase(Locale.ROOT).replace('-', '_'));
        return codes;
    }

    private static Map<String, String> handling() {
        var codes = new LinkedHashMap<String, String>(Map.of("none", "BY_NOBODY"));
        codes.putAll(codes("taken", "snoozed", "accepted"));
        return codes;
    }

    private static String code(Map<String, String> codes, String written) {
        String code = codes.get(written);
        if (code != null) return code;
        throw new TypeConversionException(
                "\"" + written + "\" is not one of " + String.join(", ", codes.keySet()) + ".");
    }

    static final class State implements ITypeConverter<String> {
        @Override
        public String convert(String written) {
            return code(STATES, written);
        }
    }

    static final class OneSeverity implements ITypeConverter<String> {
        @Override
        public String convert(String written) {
            return code(SEVERITIES, written);
        }
    }

    static final class Handling implements ITypeConverter<String> {
        @Override
        public String convert(String written) {
            return code(HANDLING, written);
        }
    }

    /** As the API has it in the address of the list. */
    String path() {
        return "/api/findings" + Api.query(values());
    }

    /** As the API has it in a request. */
    Map<String, @Nullable String> values() {
        var values = new LinkedHashMap<String, @Nullable String>();
        values.put("state", state);
        values.put("severity", severity);
        values.put("handling", handling);
        values.put("rule", rule);
        values.put("q", find);
        return values;
    }
}
