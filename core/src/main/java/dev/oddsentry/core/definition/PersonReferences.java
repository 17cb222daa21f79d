package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.MailAddress.Target;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Where documents name a person as a recipient: by log-in name, {@code person: ines}, or by address, with or without a name before it. */
public final class PersonReferences {
    private static final Set<String> RECIPIENTS = Set.of("to", "cc", "bcc", "recipients");

    private PersonReferences() {}

    /** @param address empty if the person has none */
    public record Named(String login, String address) {
        private boolean isNamedBy(String written) {
            return isReferred(written)
                    || (!address.isEmpty() && MailAddress.bare(written).equalsIgnoreCase(address));
        }

        private boolean isReferred(String written) {
            return MailAddress.reference(written)
                    .filter(to -> to.target() == Target.PERSON && to.name().equalsIgnoreCase(login))
                    .isPresent();
        }
    }

    /** Whether its messages go to the person by name or address. */
    public static boolean mails(Map<String, Object> document, Named person) {
        return !replaced(document, person, new Named("", "")).equals(document);
    }

    /** The document with another person in place of this one: by log-in name or by address, as it was; named once where both were. */
    public static Map<String, Object> replaced(Map<String, Object> document, Named from, Named to) {
        return replaced(document, from, to, false);
    }

    /** A draft may hold nothing where a definition must hold something. */
    @SuppressWarnings("NullAway")
    private static LinkedHashMap<String, Object> replaced(Map<?, ?> part, Named from, Named to, boolean recipients) {
        var replaced = new LinkedHashMap<String, Object>();
        part.forEach((name, value) -> replaced.put(
                String.valueOf(name), value(value, from, to, recipients || RECIPIENTS.contains(String.valueOf(name)))));
        return replaced;
    }

    private static @Nullable Object value(@Nullable Object value, Named from, Named to, boolean recipients) {
        if (value instanceof Map<?, ?> part) return replaced(part, from, to, recipients);
        if (!(value instanceof List<?> list)) return value;
        var replaced = list.stream()
                .map(each -> recipients && each instanceof String text && from.isNamedBy(text)
                        ? written(text, from, to)
                        : value(each, from, to, recipients))
                .toList();
        return replaced.equals(list) ? list : replaced.stream().distinct().toList();
    }

    private static String written(String before, Named from, Named to) {
        return from.isReferred(before) || to.address().isEmpty()
                ? Target.PERSON.code() + ": " + to.login()
                : to.address();
    }
}
