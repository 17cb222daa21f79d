package dev.oddsentry.core.problem;

import org.jspecify.annotations.Nullable;

/**
 * One thing wrong, or doubtful, in what a person wrote.
 *
 * @param message what was seen and what would be right, in a sentence without a full stop
 * @param field the path of the field it stands in, such as {@code memory.key}; empty where the text is no document
 * @param place where in the text, if it came from a text
 * @param suggestion the nearest known name, to be offered as a replacement
 */
public record Problem(
        Weight weight,
        String message,
        String field,
        @Nullable Place place,
        @Nullable String suggestion) {

    /** An error stops a save; a warning is told and lets it pass. */
    public enum Weight {
        ERROR,
        WARNING
    }

    public static Problem error(String message, String field, @Nullable Place place) {
        return new Problem(Weight.ERROR, message, field, place, null);
    }

    public static Problem warning(String message, String field, @Nullable Place place) {
        return new Problem(Weight.WARNING, message, field, place, null);
    }

    public Problem suggesting(@Nullable String name) {
        return new Problem(weight, message, field, place, name);
    }

    public Problem within(String newField, @Nullable Place newPlace) {
        return new Problem(weight, message, newField, newPlace, suggestion);
    }

    public boolean stopsSave() {
        return weight == Weight.ERROR;
    }
}
