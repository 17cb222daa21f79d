package dev.oddsentry.cli.rules;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.contract.RuleSummary;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
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

    @ParameterizedTest
    @MethodSource("examples")
    void rulesAreFoundAsInTheConsole(Example example) {
        assertThat(RuleFilter.saved(example.filter()).of(EXAMPLES.rules()))
                .extracting(RuleSummary::name)
                .containsExactlyElementsOf(example.finds());
    }

    @Test
    void whatIsAskedForNarrowsASavedFilterDown() {
        var saved = RuleFilter.saved("q=%C3%B8st+fuel&state=ACTIVE&open=yes&sort=next&unheard=of");
        assertThat(saved)
                .isEqualTo(new RuleFilter(
                        List.of("øst", "fuel"),
                        RuleFilter.State.ACTIVE,
                        null,
                        null,
                        null,
                        true,
                        RuleFilter.Order.NEXT));
        var asked = new RuleFilter(List.of("late"), RuleFilter.State.PAUSED, null, null, "Crew", false, null);
        assertThat(saved.with(asked))
                .isEqualTo(new RuleFilter(
                        List.of("øst", "fuel", "late"),
                        RuleFilter.State.PAUSED,
                        null,
                        null,
                        "Crew",
                        true,
                        RuleFilter.Order.NEXT));
    }
}
