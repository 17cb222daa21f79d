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
 * What this check tells and what it lets pass.
 *
 * @param parts one for each audience that has anything to hear or is let pass anything
 * @param messages ready to be queued; empty where there is nothing to tell, and in a preview
 * @param owed what it owed to something that a person did
 */
public record ReportPlan(List<Part> parts, List<Outgoing> messages, PendingEffect owed) {
    public static final ReportPlan NOTHING = new ReportPlan(List.of(), List.of(), PendingEffect.NONE);

    /** A finding by its key, and by the store's number where it has one already. */
    public record Subject(Digest key, @Nullable Long id) {}

    public record Item(Subject subject, Severity severity, Set<UpdateKind> kinds) {}

    public record Ended(Subject subject, Set<Marks.Kind> marks) {}

    /**
     * One audience's.
     *
     * @param standing whose difference stands for a later check
     * @param ended marks that the current state has ended
     * @param leftOut how many open ones a mark keeps out of a full report
     * @param takesOpened whether all that open at this check, and are open at once, are taken as known; they are not among {@code letPass}
     * @param openedMore by how many its open findings grew at this check
     */
    public record Part(
            AudienceKey audience,
            List<Item> told,
            List<Subject> letPass,
            List<Subject> standing,
            List<Ended> ended,
            int leftOut,
            boolean takesOpened,
            int openedMore) {
        /** Of those who hear that there is nothing to hear. */
        public static final Part QUIET =
                new Part(AudienceKey.WHOLE, List.of(), List.of(), List.of(), List.of(), 0, false, 0);

        /** The same without telling anything. */
        Part untold() {
            var all = Stream.concat(standing.stream(), told.stream().map(Item::subject))
                    .distinct()
                    .toList();
            return new Part(audience, List.of(), letPass, all, ended, leftOut, takesOpened, openedMore);
        }

        static Part of(
                AudienceKey audience,
                Choice<Subject> choice,
                Comparator<Item> order,
                boolean takesOpened,
                int openedMore) {
            return new Part(
                    audience,
                    choice.told().stream()
                            .map(told -> new Item(told.subject(), told.severity(), told.kinds()))
                            .sorted(order)
                            .toList(),
                    choice.letPass(),
                    choice.standing(),
                    choice.ended().stream()
                            .map(each -> new Ended(each.subject(), each.marks()))
                            .toList(),
                    choice.leftOut(),
                    takesOpened,
                    openedMore);
        }
    }

    /** @param parts those who hear of their findings by this message */
    public record Outgoing(NewMessage message, List<Part> parts) {}

    public List<Item> told() {
        return parts.stream().map(Part::told).flatMap(Collection::stream).toList();
    }

    public List<Subject> standing() {
        return parts.stream()
                .map(Part::standing)
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

    /** Of an audience that nobody can reach the news stands. */
    public ReportPlan with(List<Outgoing> ready) {
        var reached = ready.stream()
                .filter(outgoing -> !outgoing.message().to().isEmpty())
                .toList();
        var unreached =
                ready.stream().flatMap(outgoing -> outgoing.parts().stream()).collect(Collectors.toSet());
        // One audience may read in several languages, by a message each.
        reached.forEach(outgoing -> outgoing.parts().forEach(unreached::remove));
        var all = parts.stream()
                .map(part -> unreached.contains(part) ? part.untold() : part)
                .toList();
        return new ReportPlan(all, reached, owed);
    }
}
