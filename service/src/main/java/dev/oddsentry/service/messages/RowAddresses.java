package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.reporting.ReportPlan;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Whom the rows themselves name, in a column that has one address or several. */
@Component
public class RowAddresses {
    private final MemoryStore memory;

    RowAddresses(MemoryStore memory) {
        this.memory = memory;
    }

    /** The addresses in the rows that the audience gets; for cleared findings, in their last rows. Texts that are not addresses are skipped. */
    List<String> addresses(MessageContext context, ReportPlan.Part part, String column, Evaluation evaluation) {
        var place = evaluation.columns().indexOf(column, false);
        if (place.isEmpty()) return List.of();
        Set<Digest> plan =
                part.updates().stream().map(item -> item.subject().key()).collect(Collectors.toSet());
        var found = new LinkedHashSet<String>();
        var present = new LinkedHashSet<Digest>();
        evaluation.exceptions().forEach(plan::contains, evaluatedRow -> {
            present.add(evaluatedRow.key());
            named(evaluatedRow.row().get(place.getAsInt())).forEach(found::add);
        });
        var gone = part.updates().stream()
                .map(ReportPlan.Item::subject)
                .filter(subject -> !present.contains(subject.key()))
                .map(ReportPlan.Subject::id)
                .filter(Objects::nonNull)
                .toList();
        String name = evaluation.columns().at(place.getAsInt()).name();
        memory.lastRows(gone).values().forEach(row -> named(row.get(name)).forEach(found::add));
        return List.copyOf(found);
    }

    /** The addresses in a cell, separated by commas or semicolons. */
    public static Stream<String> named(@Nullable Object cell) {
        if (!(cell instanceof String written)) return Stream.empty();
        return Stream.of(written.split("[,;]")).map(String::strip).filter(MailAddress::isOne);
    }
}
