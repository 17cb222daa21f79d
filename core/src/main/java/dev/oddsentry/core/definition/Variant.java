package dev.oddsentry.core.definition;

import dev.oddsentry.core.extract.FileRows;
import dev.oddsentry.core.extract.RowsAs;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * What some of the recipients get in place of what the others get. Null for the same as the others.
 *
 * @param recipients as the rule names them, or one of the addresses behind a team, a person or a list
 * @param attachments empty for none
 */
public record Variant(
        List<String> recipients,
        @Nullable String subject,
        @Nullable String opening,
        @Nullable String closing,
        DeliveryDefinition.@Nullable Show show,
        @Nullable RowsAs rowsAs,
        @Nullable List<Attachment> attachments) {
    boolean hasWholeReport() {
        return attachments != null && attachments.stream().anyMatch(each -> each.rows() == FileRows.ALL);
    }

    Variant withoutWholeReport() {
        return attachments == null
                ? this
                : new Variant(
                        recipients,
                        subject,
                        opening,
                        closing,
                        show,
                        rowsAs,
                        attachments.stream()
                                .filter(each -> each.rows() != FileRows.ALL)
                                .toList());
    }

    Optional<Variant> with(UnaryOperator<List<String>> change) {
        var left = change.apply(recipients);
        return left.isEmpty()
                ? Optional.empty()
                : Optional.of(new Variant(left, subject, opening, closing, show, rowsAs, attachments));
    }
}
