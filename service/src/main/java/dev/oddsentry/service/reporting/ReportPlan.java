package dev.oddsentry.service.reporting;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.memory.ReportPolicy.Choice;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.service.mail.NewMessage;
import dev.oddsentry.service.memory.AudienceKey;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Updates that this check reports, and those it records as known without a message.
 *
 * @param parts one for each audience with updates or findings that are treated as known
 * @param messages ready to be queued; empty without updates, and in a preview
 * @param pendingEffect what it pendingEffect to something that a person did
 */
public record ReportPlan(List<Part> parts, List<Outgoing> messages, PendingEffect pendingEffect) {
    public static final ReportPlan NOTHING = new ReportPlan(List.of(), List.of(), PendingEffect.NONE);

    /** A finding by its key, and by the store's number where it has one already. */
    public record Subject(Digest key, @Nullable Long id) {}

    public record Item(Subject subject, Severity severity, Set<UpdateKind> kinds) {}

    public record Ended(Subject subject, Set<Marks.Kind> marks) {}

    /**
     * One audience's.
     *
     * @param unreported findings whose updates wait for a later check
     * @param ended handling that the current state has ended
     * @param leftOut the number of open findings that handling keeps out of a full report
     * @param treatsOpenedAsKnown whether findings that open at this check are treated as known; they are not among {@code treatedAsKnown}
     * @param openedMore by how many its open findings grew at this check
     */
    public record Part(
            AudienceKey audience,
            List<Item> updates,
            List<Subject> treatedAsKnown,
            List<Subject> unreported,
            List<Ended> ended,
            int leftOut,
            boolean treatsOpenedAsKnown,
            int openedMore) {
        /** An audience that gets the "nothing new" message. */
        public static final Part QUIET =
                new Part(AudienceKey.WHOLE, List.of(), List.of(), List.of(), List.of(), 0, false, 0);

        /** The same without a message: its updates stay unreported. */
        Part unsent() {
            var all = Stream.concat(unreported.stream(), updates.stream().map(Item::subject))
                    .distinct()
                    .toList();
            return new Part(audience, List.of(), treatedAsKnown, all, ended, leftOut, treatsOpenedAsKnown, openedMore);
        }

        static Part of(
                AudienceKey audience,
                Choice<Subject> choice,
                Comparator<Item> order,
                boolean treatsOpenedAsKnown,
                int openedMore) {
            return new Part(
                    audience,
                    choice.updates().stream()
                            .map(each -> new Item(each.subject(), each.severity(), each.kinds()))
                            .sorted(order)
                            .toList(),
                    choice.treatedAsKnown(),
                    choice.unreported(),
                    choice.ended().stream()
                            .map(each -> new Ended(each.subject(), each.marks()))
                            .toList(),
                    choice.leftOut(),
                    treatsOpenedAsKnown,
                    openedMore);
        }
    }

    /** @param parts of the audiences that get this message */
    public record Outgoing(NewMessage message, List<Part> parts) {}

    public List<Item> updates() {
        return parts.stream().map(Part::updates).flatMap(Collection::stream).toList();
    }

    public List<Subject> unreported() {
        return parts.stream()
                .map(Part::unreported)
                .flatMap(Collection::stream)
                .distinct()
                .toList();
    }

    public List<Ended> ended() {
        return parts.stream()
                .map(Part::ended)
                .flatMap(Collection::stream)
                .distinct()
                .toList();
    }

    /** The updates of an audience without recipients stay unreported. */
    public ReportPlan with(List<Outgoing> ready) {
        var reached = ready.stream()
                .filter(outgoing -> !outgoing.message().to().isEmpty())
                .toList();
        var unreached =
                ready.stream().flatMap(outgoing -> outgoing.parts().stream()).collect(Collectors.toSet());
        // One audience may get several messages, one for each language.
        reached.forEach(outgoing -> outgoing.parts().forEach(unreached::remove));
        var all = parts.stream()
                .map(part -> unreached.contains(part) ? part.unsent() : part)
                .toList();
        return new ReportPlan(all, reached, pendingEffect);
    }
}
