package dev.oddsentry.core.value;

/**
 * A column of a query's result, by the name the source gave it.
 *
 * @param nature what the source knows of it beyond its type
 */
public record Column(String name, Type type, Nature nature) {

    public enum Nature {
        PLAIN,
        /** A text in lower case, whatever was entered. */
        UUID,
        /** A text from a list that has an order of its own in the source. */
        ENUMERATION
    }

    public Column(String name, Type type) {
        this(name, type, Nature.PLAIN);
    }
}
