package dev.oddsentry.service.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** The number of a rule, which is also that of its definition. */
public record RuleId(@JsonValue UUID value) {
    @JsonCreator
    public RuleId {}

    public static RuleId random() {
        return new RuleId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is not a number of this kind */
    public static RuleId of(String text) {
        return new RuleId(UUID.fromString(text));
    }

    public static @Nullable UUID valueOf(@Nullable RuleId id) {
        return id == null ? null : id.value;
    }

    /** The number alone, as logs and addresses have it. */
    @Override
    public String toString() {
        return value.toString();
    }
}
