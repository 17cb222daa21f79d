package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.MailAddress.Reference;
import dev.oddsentry.core.definition.MailAddress.Target;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Where documents name a team: as their owner, and as a recipient, {@code team: Traffic reporting}, in lists of recipients. */
public final class TeamReferences {
    private static final String OWNER = "owner";

    private TeamReferences() {}

    /** Whether its messages go to the team. */
    public static boolean mails(Map<String, Object> document, String team) {
        return !changed(document, team, "").equals(document);
    }

    /** The document with another owner. */
    public static Map<String, Object> ownedBy(Map<String, Object> document, String team) {
        var owned = new LinkedHashMap<>(document);
        owned.put(OWNER, team);
        return owned;
    }

    /** The document with another name of the team, where it names it. */
    public static Map<String, Object> renamed(Map<String, Object> document, String from, String to) {
        var renamed = changed(document, from, to);
        return from.equals(renamed.get(OWNER)) ? ownedBy(renamed, to) : renamed;
    }

    /** A draft may hold nothing where a definition must hold something. */
    @SuppressWarnings("NullAway")
    private static Map<String, Object> changed(Map<?, ?> part, String from, String to) {
        var changed = new LinkedHashMap<String, Object>();
        part.forEach((name, value) -> changed.put(String.valueOf(name), changed(value, from, to)));
        return changed;
    }

    private static @Nullable Object changed(@Nullable Object value, String from, String to) {
        if (value instanceof Map<?, ?> part) return changed(part, from, to);
        if (!(value instanceof List<?> list)) return value;
        return list.stream()
                .map(each -> each instanceof String text && names(text, from)
                        ? Target.TEAM.code() + ": " + to
                        : changed(each, from, to))
                .toList();
    }

    private static boolean names(String recipient, String team) {
        return MailAddress.reference(recipient).equals(Optional.of(new Reference(Target.TEAM, team)));
    }
}
