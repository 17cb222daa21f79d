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
class RowAddresses {
    private final MemoryStore memory;

    RowAddresses(MemoryStore memory) {
        this.memory = memory;
    }

    /** Of what the audience is told; what is over by its last row. What is no address names nobody, so that others hear of it. */
    List<String> addresses(MessageContext about, ReportPlan.Part part, String column, Evaluation evaluation) {
        var place = evaluation.columns().indexOf(column, false);
        if (place.isEmpty()) return List.of();
        Set<Digest> told =
                part.told().stream().map(item -> item.subject().key()).collect(Collectors.toSet());
        var found = new LinkedHashSet<String>();
        var present = new LinkedHashSet<Digest>();
        evaluation.exceptions().forEach(told::contains, sighting -> {
            present.add(sighting.key());
            named(sighting.row().get(place.getAsInt())).forEach(found::add);
        });
        var gone = part.told().stream()
                .map(ReportPlan.Item::subject)
                .filter(subject -> !present.contains(subject.key()))
                .map(ReportPlan.Subject::id)
                .filter(Objects::nonNull)
                .toList();
        String name = evaluation.columns().at(place.getAsInt()).name();
        memory.lastRows(gone).values().forEach(row -> named(row.get(name)).forEach(found::add));
        return List.copyOf(found);
    }

    private static Stream<String> named(@Nullable Object cell) {
        if (!(cell instanceof String written)) return Stream.empty();
        return Stream.of(written.split("[,;]")).map(String::strip).filter(MailAddress::isOne);
    }
}
