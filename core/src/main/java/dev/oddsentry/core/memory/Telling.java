package dev.oddsentry.core.memory;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Chooses, for one audience, which differences are told and which are let pass. If a rule reports any of a finding's kinds of
 * news, all are told; if none, reported moves to now without a word.
 *
 * @param reports the kinds of news that the rule reports
 */
public record Telling(Set<NewsKind> reports) {

    /** A finding after this check, as one audience stands to it. The subject is whatever the caller needs to find it again. */
    public record Standing<T>(T subject, Now now, @Nullable Reported reported) {}

    public record Told<T>(T subject, Now now, Set<NewsKind> kinds) {}

    /**
     * @param told worst first is the renderer's business; here they stand in the order given
     * @param letPass findings whose reported moves to now without a word
     */
    public record Outcome<T>(List<Told<T>> told, List<Standing<T>> letPass) {}

    public <T> Outcome<T> choose(Stream<Standing<T>> standings) {
        var different = standings
                .map(each -> new Difference<>(each, News.between(each.now(), each.reported())))
                .filter(each -> !each.kinds.isEmpty())
                .toList();
        return new Outcome<>(
                different.stream()
                        .filter(this::isReported)
                        .map(Difference::told)
                        .toList(),
                different.stream()
                        .filter(each -> !isReported(each))
                        .map(Difference::standing)
                        .toList());
    }

    private boolean isReported(Difference<?> difference) {
        var common = EnumSet.noneOf(NewsKind.class);
        common.addAll(difference.kinds);
        common.retainAll(reports);
        return !common.isEmpty();
    }

    private record Difference<T>(Standing<T> standing, Set<NewsKind> kinds) {
        Told<T> told() {
            return new Told<>(standing.subject(), standing.now(), kinds);
        }
    }
}
