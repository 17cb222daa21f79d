package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.MailAddress.Reference;
import dev.oddsentry.core.definition.MailAddress.Target;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Where documents name a team: as their owner, among those that see it, and as a recipient, {@code team: Traffic reporting}, in lists of recipients. */
public final class TeamReferences {
    private static final String OWNER = "owner";
    private static final String VISIBLE_TO = "visible_to";

    private TeamReferences() {}

    /** Whether its messages go to the team. */
    public static boolean mails(Map<String, Object> document, String team) {
        return !changed(document, team, "").equals(document);
    }

    /** Whether it is among the teams that see it. */
    public static boolean shows(Map<String, Object> document, String team) {
        return document.get(VISIBLE_TO) instanceof List<?> teams && teams.contains(team);
    }

    /** The document with another owner, which takes the place of the one before among the teams that see it. */
    public static Map<String, Object> ownedBy(Map<String, Object> document, String team) {
        var owned = new LinkedHashMap<>(document);
        var before = owned.put(OWNER, team);
        if (before != null) replaceAmongThoseThatSee(owned, before, team);
        return owned;
    }

    private static void replaceAmongThoseThatSee(Map<String, Object> document, Object from, String to) {
        if (document.get(VISIBLE_TO) instanceof List<?> teams)
            document.put(
                    VISIBLE_TO,
                    teams.stream()
                            .map(team -> from.equals(team) ? to : team)
                            .distinct()
                            .toList());
    }

    /** The document with another name of the team, where it names it. */
    public static Map<String, Object> renamed(Map<String, Object> document, String from, String to) {
        var renamed = changed(document, from, to);
        replaceAmongThoseThatSee(renamed, from, to);
        return from.equals(renamed.get(OWNER)) ? ownedBy(renamed, to) : renamed;
    }

    /** A draft may hold nothing where a definition must hold something. */
    @SuppressWarnings("NullAway")
    private static LinkedHashMap<String, Object> changed(Map<?, ?> part, String from, String to) {
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
