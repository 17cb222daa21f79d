package dev.oddsentry.service.checks;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.memory.Telling.Choice;
import dev.oddsentry.service.outbox.NewMessage;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What this check tells and what it lets pass.
 *
 * @param standing whose difference stands for a later check
 * @param ended marks that what is so now has ended
 * @param leftOut how many open ones a mark keeps out of a full report
 * @param message ready to be queued; null where there is nothing to tell
 */
record Told(
        List<Item> told,
        List<Subject> letPass,
        List<Subject> standing,
        List<Ended> ended,
        int leftOut,
        @Nullable NewMessage message) {

    /** A finding by its key, and by the store's number where it has one already. */
    record Subject(Digest key, @Nullable Long id) {}

    record Item(Subject subject, Severity severity, Set<NewsKind> kinds) {}

    record Ended(Subject subject, Set<Marks.Kind> marks) {}

    static Told of(Choice<Subject> choice, Comparator<Item> order) {
        return new Told(
                choice.told().stream()
                        .map(told -> new Item(told.subject(), told.now().severity(), told.kinds()))
                        .sorted(order)
                        .toList(),
                choice.letPass(),
                choice.standing(),
                choice.ended().stream()
                        .map(each -> new Ended(each.subject(), each.marks()))
                        .toList(),
                choice.leftOut(),
                null);
    }

    Told with(NewMessage ready) {
        return new Told(told, letPass, standing, ended, leftOut, ready);
    }
}
