package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.Variant;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.reporting.ReportPlan;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One message and its audiences.
 *
 * @param to as they are written in the rule or by a query
 * @param split whose part it is, in words; null for the whole
 * @param open how many findings of these audiences are open
 * @param since the slot of the report before
 * @param language null for the rule's
 * @param variant what these recipients get differently; null for nothing
 * @param filesByLink whether their files stay behind the link to the report
 * @param withCopies whether those in cc and bcc get it too
 * @param sentTo all recipients of the audience, as they are written; empty if only one is sent it
 * @param alone whether it is for one address only, even if others are named
 */
record MessageDraft(
        List<ReportPlan.Part> parts,
        List<String> to,
        @Nullable String split,
        long open,
        @Nullable Instant since,
        boolean alone,
        @Nullable Language language,
        @Nullable Variant variant,
        boolean filesByLink,
        boolean withCopies,
        List<String> sentTo) {
    MessageDraft(
            List<ReportPlan.Part> parts, List<String> to, @Nullable String split, long open, @Nullable Instant since) {
        this(parts, to, split, open, since, false, null, null, false, true, List.of());
    }

    /** To some of them, as they get it. */
    MessageDraft in(Form form, List<String> some, boolean copies, List<String> all) {
        return new MessageDraft(
                parts,
                some,
                split,
                open,
                since,
                alone,
                form.language(),
                form.variant(),
                form.filesByLink(),
                copies,
                all);
    }

    /** What recipients may get differently from one another. */
    record Form(@Nullable Variant variant, Language language, boolean filesByLink) {}

    /** As the address is written here, whose case may matter to its server. */
    MessageDraft toOnly(String address) {
        var only = to.stream()
                .filter(each -> MailAddress.bare(each).equalsIgnoreCase(address))
                .limit(1)
                .toList();
        return new MessageDraft(
                parts, only, split, open, since, true, language, variant, filesByLink, false, List.of());
    }

    MessageDraft insteadTo(String address) {
        return new MessageDraft(
                parts, List.of(address), split, open, since, true, language, variant, filesByLink, false, sentTo);
    }

    List<ReportPlan.Item> plan() {
        return parts.stream().flatMap(part -> part.updates().stream()).toList();
    }

    boolean has(AudienceKey audience) {
        return parts.stream().anyMatch(part -> part.audience().equals(audience));
    }

    int leftOut() {
        return parts.stream().mapToInt(ReportPlan.Part::leftOut).sum();
    }
}
