package dev.oddsentry.service.checks;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.service.outbox.NewMessage;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What this check tells and what it lets pass.
 *
 * @param message ready to be queued; null where there is nothing to tell
 */
record Told(
        List<Item> told, List<Subject> letPass, @Nullable NewMessage message) {

    /** A finding by its key, and by the store's number where it has one already. */
    record Subject(Digest key, @Nullable Long id) {}

    record Item(Subject subject, Severity severity, Set<NewsKind> kinds) {}
}
