package dev.oddsentry.service.access;

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
import dev.oddsentry.service.web.RefusedException;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The team that owns what an operation is about. What is not there has no owner: its operation says that it is not there. */
@Component
class Ownership {
    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Archive archive;

    Ownership(DSLContext db, DefinitionStore definitions, Archive archive) {
        this.archive = archive;
        this.db = db;
        this.definitions = definitions;
    }

    /**
     * @param about as {@code rights.properties} has it
     * @param path the variables of the operation's path
     */
    Optional<String> of(String about, Map<String, String> path) {
        return switch (about) {
            case "team" -> Optional.ofNullable(path.get("name"));
            case "rule" -> named(Kind.RULE, path);
            case "round-up" -> named(Kind.ROUND_UP, path);
            case "threshold" -> named(Kind.THRESHOLD, path);
            case "calendar" -> named(Kind.CALENDAR, path);
            case "definition", "archived" -> kind(path.get("kind")).flatMap(kind -> named(kind, path));
            case "check" -> id(path).map(CheckId::new).flatMap(this::ofCheck);
            case "message" -> id(path).map(MessageId::new).flatMap(this::ofMessage);
            case "hold" -> number(path).flatMap(this::ofHold);
            default -> throw new IllegalArgumentException("rights.properties names something unknown: " + about);
        };
    }

    /** @throws RefusedException if what would be changed was retired */
    void refuseRetired(String about, Map<String, String> path) {
        var kind = about.equals("definition") ? kind(path.get("kind")) : kind(about);
        String name = path.get("name");
        if (name != null) kind.ifPresent(known -> archive.refuse(known, name));
    }

    /** @return the team; empty for a definition that every team shares */
    static Optional<String> of(Definition definition) {
        return Optional.ofNullable(definition.owner());
    }

    private Optional<String> named(Kind kind, Map<String, String> path) {
        String name = path.get("name");
        return name == null ? Optional.empty() : definitions.current(kind, name).flatMap(Ownership::of);
    }

    private Optional<String> ofCheck(CheckId id) {
        return ofRule(db.select(RULE_CHECK.RULE_ID)
                .from(RULE_CHECK)
                .where(RULE_CHECK.ID.eq(id))
                .fetchOne(RULE_CHECK.RULE_ID));
    }

    private Optional<String> ofHold(long id) {
        return ofRule(db.select(MAIL_HOLD.RULE_ID)
                .from(MAIL_HOLD)
                .where(MAIL_HOLD.ID.eq(id))
                .fetchOne(MAIL_HOLD.RULE_ID));
    }

    private Optional<String> ofMessage(MessageId id) {
        var message = db.fetchOne(MESSAGE, MESSAGE.ID.eq(id));
        if (message == null) return Optional.empty();
        if (message.getRoundUpId() != null)
            return definitions
                    .roundUp(message.getRoundUpId())
                    .map(roundUp -> roundUp.definition().owner());
        RuleId rule = message.getRuleId();
        if (rule == null) rule = message.getEscalationOf();
        if (rule == null) rule = message.getPreviewOf();
        return ofRule(rule);
    }

    private Optional<String> ofRule(@Nullable RuleId id) {
        return id == null
                ? Optional.empty()
                : definitions.rule(id).map(rule -> rule.definition().owner());
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
