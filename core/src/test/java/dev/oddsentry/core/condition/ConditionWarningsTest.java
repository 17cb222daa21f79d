package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** A warning that a part never holds, or always does, is held against every row that could tell otherwise. */
class ConditionWarningsTest {
    private static final int CONDITIONS = 6_000;
    private static final Moment SLOT = new Moment(Instant.parse("2026-11-24T04:40:00Z"), ZoneOffset.UTC);
    /** Every literal, what lies between two of them, and what lies outside. */
    private static final List<@Nullable Object> NUMBERS = Stream.concat(
                    Stream.<@Nullable Object>of((Object) null),
                    IntStream.rangeClosed(-1, 7).<@Nullable Object>mapToObj(i -> BigDecimal.valueOf(i * 5L, 1)))
            .collect(Collectors.toCollection(ArrayList::new));

    private static final List<@Nullable Object> TEXTS = new ArrayList<>();

    static {
        TEXTS.add(null);
        TEXTS.addAll(List.of("", "a", "ab", "b", "c"));
    }

    private final long seed = Long.getLong("odd.seed", System.nanoTime());
    private final Random random = new Random(seed);

    @SafeVarargs
    private <T> T any(T... choices) {
        return choices[random.nextInt(choices.length)];
    }

    private String part() {
        String number = any("heads", "tickets");
        String literal = any("0", "1", "1.5", "2", "3");
        String sign = any("=", "<>", "<", "<=", ">", ">=");
        return switch (random.nextInt(7)) {
            case 0 -> "status " + sign + " " + any("'a'", "'b'");
            case 1 -> any("status", "heads") + " is" + any("", " not") + " null";
            case 2 -> number + any("", " not") + " between " + literal + " and " + any("0", "1", "2");
            case 3 -> literal + " " + sign + " " + number;
            default -> number + " " + sign + " " + literal;
        };
    }

    private String joined(String word) {
        return IntStream.range(0, 2 + random.nextInt(3))
                .mapToObj(_ -> part())
                .collect(Collectors.joining(" " + word + " "));
    }

    private static List<Verdict> verdicts(String condition) {
        var evaluator = Condition.read(condition, Sailings.COLUMNS).orThrow().at(SLOT);
        var verdicts = new ArrayList<Verdict>();
        Object[] row = Sailings.row();
        for (var heads : NUMBERS) {
            for (var tickets : NUMBERS) {
                for (var status : TEXTS) {
                    row[3] = status;
                    row[4] = tickets;
                    row[5] = heads;
                    verdicts.add(evaluator.evaluate(row));
                }
            }
        }
        return verdicts;
    }

    private static List<String> warnings(String condition) {
        return Condition.read(condition, Sailings.COLUMNS).problems().stream()
                .map(Problem::message)
                .toList();
    }

    @Test
    void whatIsSaidNeverToHoldTogetherHoldsForNoRow() {
        int warned = 0;
        int impossible = 0;
        for (int i = 0; i < CONDITIONS; i++) {
            String condition = joined("and");
            boolean never = warnings(condition).stream().anyMatch(message -> message.startsWith("this is never true"));
            boolean holds = verdicts(condition).contains(Verdict.TRUE);
            assertThat(never && holds).as("seed " + seed + ": " + condition).isFalse();
            if (never) warned++;
            if (!holds) impossible++;
        }
        assertThat(warned).as("most of what cannot hold is warned of").isGreaterThan(impossible * 9 / 10);
        assertThat(impossible).isBetween(CONDITIONS / 20, CONDITIONS * 19 / 20);
    }

    @Test
    void ofTwoThatAreSaidToLeaveNothingOutOneHoldsForEveryRowWithValues() {
        int warned = 0;
        for (int i = 0; i < CONDITIONS; i++) {
            String condition = joined("or");
            boolean always = warnings(condition).stream()
                    .anyMatch(message -> message.startsWith("one of two conditions is always true"));
            if (!always) continue;
            warned++;
            assertThat(verdicts(condition))
                    .as("seed " + seed + ": " + condition)
                    .doesNotContain(Verdict.FALSE);
        }
        assertThat(warned).isBetween(CONDITIONS / 50, CONDITIONS);
    }
}
