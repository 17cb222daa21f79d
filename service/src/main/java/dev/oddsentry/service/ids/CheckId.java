package dev.oddsentry.service.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** The number of a check. */
public record CheckId(@JsonValue UUID value) {
    @JsonCreator
    public CheckId {}

    public static CheckId random() {
        return new CheckId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is not a number of this kind */
    public static CheckId of(String text) {
        return new CheckId(UUID.fromString(text));
    }

    public static @Nullable UUID valueOf(@Nullable CheckId id) {
        return id == null ? null : id.value;
    }

    /** The number alone, as logs and addresses have it. */
    @Override
    public String toString() {
        return value.toString();
    }
}
