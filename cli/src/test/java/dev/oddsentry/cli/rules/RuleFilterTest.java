package dev.oddsentry.cli.rules;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.contract.RuleSummary;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.json.JsonMapper;

/** The console's list of rules finds the same. */
class RuleFilterTest {
    record Example(String filter, List<String> finds) {
        @Override
        public String toString() {
            return filter + " finds " + finds;
        }
    }

    record Examples(List<RuleSummary> rules, List<Example> cases) {}

    private static final Examples EXAMPLES =
            new JsonMapper().readValue(Path.of("../contract/rule-filters.json").toFile(), Examples.class);

    static Stream<Example> examples() {
        return EXAMPLES.cases().stream();
    }

    private static <T> @Nullable T value(Map<String, String> options, String name, Function<String, T> read) {
        String written = options.get(name);
        return written == null ? null : read.apply(written);
    }

    private static RuleFilter filter(String written) {
        var options = new HashMap<String, String>();
        for (String option : written.split("&"))
            if (!option.isEmpty())
                options.put(option.substring(0, option.indexOf('=')), option.substring(option.indexOf('=') + 1));
        return new RuleFilter(
                Arrays.stream(options.getOrDefault("q", "").split(" "))
                        .filter(word -> !word.isEmpty())
                        .toList(),
                value(options, "state", RuleFilter.State::valueOf),
                value(options, "outcome", RuleFilter.Outcome::valueOf),
                options.get("label"),
                options.get("owner"),
                options.containsKey("open"),
                value(options, "sort", order -> RuleFilter.Order.valueOf(order.toUpperCase(Locale.ROOT))));
    }

    @ParameterizedTest
    @MethodSource("examples")
    void rulesAreFoundAsInTheConsole(Example example) {
        assertThat(filter(example.filter()).of(EXAMPLES.rules()))
                .extracting(RuleSummary::name)
                .containsExactlyElementsOf(example.finds());
    }
}
