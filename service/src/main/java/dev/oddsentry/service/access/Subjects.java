package dev.oddsentry.service.access;

import static dev.oddsentry.service.db.generated.Tables.LONG_WORK;
import static dev.oddsentry.service.db.generated.Tables.MAIL_HOLD;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.service.definitions.Archive;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.visibility.Visible;
import dev.oddsentry.service.web.RefusedException;
import java.util.Arrays;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The definition that an operation is about, which says who sees it and which team owns it. */
@Component
class Subjects {
    private static final Set<String> NAMED = Set.of("definition", "archived");
    private static final Map<String, String> NOT_THERE = Map.of(
            "check", "No such check.",
            "work", "No such back-test.",
            "hold", "This hold has ended.",
            "message", "No such message.",
            "report", "No such report: it was never sent, or it has been deleted.");

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Archive archive;
    private final Visibility visibility;
    private final UnknownNames unknown;
    private final Sources sources;

    Subjects(
            DSLContext db,
            DefinitionStore definitions,
            Archive archive,
            Visibility visibility,
            UnknownNames unknown,
            Sources sources) {
        this.sources = sources;
        this.db = db;
        this.definitions = definitions;
        this.archive = archive;
        this.visibility = visibility;
        this.unknown = unknown;
    }

    /**
     * @param about as {@code rights.properties} has it
     * @param path the variables of the operation's path
     * @return the team that owns it; empty for what every team shares
     */
    Optional<String> owner(String about, Map<String, String> path) {
        if (about.equals("team")) return Optional.ofNullable(path.get("name"));
        if (isOfNoKind(about, path)) return Optional.empty();
        var kind = kindOf(about, path);
        String name = path.get("name");
        if (kind.isPresent())
            return name == null
                    ? Optional.empty()
                    : definitions.current(kind.get(), name).flatMap(Subjects::of);
        return definition(about, path).flatMap(definitions::byId).flatMap(Subjects::of);
    }

    /**
     * @param person who asks
     * @throws RefusedException if there is no such thing, or the person does not see it: in the same words, and before what was sent is read
     */
    void require(Person person, String about, Map<String, String> path) {
        switch (about) {
            case "team" -> {
                // Teams are no secret.
            }
            case "source" -> requireSource(path.getOrDefault("name", ""));
            case "check", "work", "hold", "message", "report" -> {
                if (isHidden(visibility.of(person), about, path))
                    throw RefusedException.notFound(NOT_THERE.getOrDefault(about, ""));
            }
            // The holidays of a file may make a calendar.
            case "calendar" -> require(person, Kind.CALENDAR, path, true);
            default -> kindOf(about, path).ifPresent(kind -> require(person, kind, path, false));
        }
    }

    private void require(Person person, Kind kind, Map<String, String> path, boolean mayBeNew) {
        String name = path.getOrDefault("name", "");
        boolean there = definitions.idOf(kind, name).isPresent();
        if (!there && mayBeNew) return;
        if (!there || !visibility.of(person).includes(kind, name)) throw unknown.of(kind, name);
    }

    private void requireSource(String name) {
        if (sources.find(name).filter(visibility::mayUse).isEmpty())
            throw RefusedException.notFound("There is no source \"" + name + "\".");
    }

    /** Also of what is not there; what is no id at all is refused by its operation. */
    private boolean isHidden(Visible visible, String about, Map<String, String> path) {
        return switch (about) {
            case "check" ->
                id(path).filter(id -> !db.fetchExists(
                                RULE_CHECK, RULE_CHECK.ID.eq(new CheckId(id)), visible.rules(RULE_CHECK.RULE_ID)))
                        .isPresent();
            case "work" ->
                id(path).filter(id -> !db.fetchExists(LONG_WORK, LONG_WORK.ID.eq(id), visible.rules(LONG_WORK.RULE_ID)))
                        .isPresent();
            case "hold" ->
                number(path)
                        .filter(id -> !db.fetchExists(MAIL_HOLD, MAIL_HOLD.ID.eq(id), visible.rules(MAIL_HOLD.RULE_ID)))
                        .isPresent();
            default ->
                id(path).filter(id -> !db.fetchExists(MESSAGE, MESSAGE.ID.eq(new MessageId(id)), visible.messages()))
                        .isPresent();
        };
    }

    /** @throws RefusedException if what would be changed was retired */
    void refuseRetired(String about, Map<String, String> path) {
        if (about.equals("archived")) return;
        String name = path.get("name");
        if (name != null) kindOf(about, path).ifPresent(kind -> archive.refuse(kind, name));
    }

    /** @return the team; empty for a definition that every team shares */
    static Optional<String> of(Definition definition) {
        return Optional.ofNullable(definition.owner());
    }

    private static boolean isOfNoKind(String about, Map<String, String> path) {
        return NAMED.contains(about) && kindOf(about, path).isEmpty();
    }

    /** The kind of what the path names. */
    private static Optional<Kind> kindOf(String about, Map<String, String> path) {
        return NAMED.contains(about) ? kind(path.get("kind")) : kind(about);
    }

    private Optional<UUID> definition(String about, Map<String, String> path) {
        return switch (about) {
            case "check" -> id(path).map(CheckId::new).flatMap(this::ofCheck);
            case "message" -> id(path).map(MessageId::new).flatMap(this::ofMessage);
            case "hold" -> number(path).flatMap(this::ofHold);
            case "team" -> Optional.empty();
            default -> throw new IllegalArgumentException("rights.properties names something unknown: " + about);
        };
    }

    private Optional<UUID> ofCheck(CheckId id) {
        return db.select(RULE_CHECK.RULE_ID)
                .from(RULE_CHECK)
                .where(RULE_CHECK.ID.eq(id))
                .fetchOptional(RULE_CHECK.RULE_ID)
                .map(RuleId::value);
    }

    private Optional<UUID> ofHold(long id) {
        return db.select(MAIL_HOLD.RULE_ID)
                .from(MAIL_HOLD)
                .where(MAIL_HOLD.ID.eq(id))
                .fetchOptional(MAIL_HOLD.RULE_ID)
                .map(RuleId::value);
    }

    /** What owns it; a failure of several rules belongs to none. */
    private Optional<UUID> ofMessage(MessageId id) {
        return db.select(
                        MESSAGE.ROUND_UP_ID,
                        MESSAGE.RULE_ID,
                        MESSAGE.ESCALATION_OF,
                        MESSAGE.PREVIEW_OF,
                        MESSAGE.QUESTION_ABOUT)
                .from(MESSAGE)
                .where(MESSAGE.ID.eq(id))
                .fetchOptional()
                .flatMap(row -> Stream.of(
                                row.value1(),
                                RuleId.valueOf(row.value2()),
                                RuleId.valueOf(row.value3()),
                                RuleId.valueOf(row.value4()),
                                row.value5())
                        .filter(Objects::nonNull)
                        .findFirst());
    }

    private static Optional<Kind> kind(@Nullable String code) {
        return Arrays.stream(Kind.values())
                .filter(kind -> kind.code().equals(code))
                .findFirst();
    }

    private static Optional<UUID> id(Map<String, String> path) {
        try {
            return Optional.of(UUID.fromString(path.getOrDefault("id", "")));
        } catch (IllegalArgumentException none) {
            return Optional.empty();
        }
    }

    private static Optional<Long> number(Map<String, String> path) {
        try {
            return Optional.of(Long.valueOf(path.getOrDefault("id", "")));
        } catch (NumberFormatException none) {
            return Optional.empty();
        }
    }
}
