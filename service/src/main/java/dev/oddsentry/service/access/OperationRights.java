package dev.oddsentry.service.access;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import org.springframework.stereotype.Component;

/** What each operation of the API needs; the table is {@code rights.properties}. */
@Component
public class OperationRights {
    private final Map<String, Need> needs = new HashMap<>();

    /** @param about the kind of thing whose owner counts; empty for none */
    record Need(Right right, String about) {
        private static Need of(String written) {
            String[] parts = written.strip().split(" +", 2);
            return new Need(Right.of(parts[0]), parts.length == 1 ? "" : parts[1]);
        }
    }

    OperationRights() {
        var written = new Properties();
        try (var table = OperationRights.class.getResourceAsStream("rights.properties")) {
            written.load(table);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
        written.forEach((operation, need) -> needs.put(operation.toString(), Need.of(need.toString())));
    }

    Optional<Need> of(String operation) {
        return Optional.ofNullable(needs.get(operation));
    }

    public Set<String> operations() {
        return Set.copyOf(needs.keySet());
    }
}
