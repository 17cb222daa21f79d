package dev.oddsentry.service.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** The number of a message. */
public record MessageId(@JsonValue UUID value) {
    @JsonCreator
    public MessageId {}

    public static MessageId random() {
        return new MessageId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is not a number of this kind */
    public static MessageId of(String text) {
        return new MessageId(UUID.fromString(text));
    }

    public static @Nullable UUID valueOf(@Nullable MessageId id) {
        return id == null ? null : id.value;
    }

    /** The number alone, as logs and addresses have it. */
    @Override
    public String toString() {
        return value.toString();
    }
}
