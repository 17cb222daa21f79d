package dev.oddsentry.core.extract;

import dev.oddsentry.core.value.Numbers;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** What stands below a column's values. Values that are missing, or no finite number, are left out. */
public enum Total {
    SUM,
    COUNT,
    AVERAGE,
    MIN,
    MAX;

    /** As documents have it. */
    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** @return null where there is nothing to calculate with */
    public @Nullable Object of(List<? extends @Nullable Object> cells) {
        if (this == COUNT) return cells.stream().filter(Objects::nonNull).count();
        var numbers = cells.stream().filter(Total::isNumber).toList();
        if (numbers.isEmpty()) return null;
        Object first = Objects.requireNonNull(numbers.getFirst());
        Object sum = 0L;
        Object least = first;
        Object most = first;
        for (Object each : numbers) {
            Object number = Objects.requireNonNull(each);
            sum = Numbers.add(sum, number);
            if (Numbers.compare(number, least) < 0) least = number;
            if (Numbers.compare(number, most) > 0) most = number;
        }
        return switch (this) {
            case SUM -> sum;
            case AVERAGE -> Numbers.readable(Numbers.divide(sum, (long) numbers.size()));
            case MIN -> least;
            case MAX -> most;
            case COUNT -> throw new AssertionError();
        };
    }

    private static boolean isNumber(@Nullable Object cell) {
        return cell instanceof Number number && Numbers.isFinite(number);
    }
}
