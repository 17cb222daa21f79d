package dev.oddsentry.service.retirement;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.access.Access;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.Archive;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.Uses;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.roundups.RoundUps;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.List;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Retires definitions and restores them, with all that they remember. */
@Component
public class Retirement {
    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Archive archive;
    private final Uses uses;
    private final Access access;
    private final RuleStates ruleStates;
    private final RoundUps roundUps;
    private final Audit audit;

    private final UnknownNames unknown;
    private final Visibility visibility;

    Retirement(
            DSLContext db,
            DefinitionStore definitions,
            Archive archive,
            Uses uses,
            Access access,
            RuleStates ruleStates,
            RoundUps roundUps,
            Audit audit,
            UnknownNames unknown,
            Visibility visibility) {
        this.visibility = visibility;
        this.unknown = unknown;
        this.db = db;
        this.definitions = definitions;
        this.archive = archive;
        this.uses = uses;
        this.access = access;
        this.ruleStates = ruleStates;
        this.roundUps = roundUps;
        this.audit = audit;
    }

    /**
     * A definition that was retired.
     *
     * @param owner the team that it belongs to; null for what every team shares
     * @param by the name of the user who retired it
     */
    public record RetiredDefinition(
            String kind,
            String name,
            String title,
            @Nullable String owner,
            Instant at,
            String by,
            String reason) {}

    /** The latest first, of those that one may see. */
    public List<RetiredDefinition> all() {
        var visible = visibility.now();
        return archive.all().stream()
                .filter(entry -> visible.includes(entry.id()))
                .map(this::view)
                .toList();
    }

    /**
     * An active rule and a round-up are paused first. What has been put in the outbox is still sent.
     *
     * @throws RefusedException if it is not there, was retired before, or is used
     */
    @Transactional
    public RetiredDefinition retire(Person by, Kind kind, String name, String reason) {
        if (reason.isBlank()) throw RefusedException.invalid("reason: say why it is retired; others read it.");
        var found = lock(by, kind, name);
        archive.of(kind, name).ifPresent(entry -> {
            throw RefusedException.conflict("\"" + name + "\" was retired already, by " + entry.by() + ".");
        });
        var users = uses.of(kind, name);
        if (!users.isEmpty())
            throw RefusedException.conflict(
                    "\"" + name + "\" is used by " + visibility.now().listed(users) + ". Change or retire "
                            + (users.size() == 1 ? "that" : "those") + " first.");
        pause(by, found);
        archive.retire(found.id(), by.id(), reason.strip());
        audit.record(db, by.id(), AuditAct.RETIRE_DEFINITION, name, kind.words() + ": " + reason.strip());
        return view(archive.of(kind, name).orElseThrow());
    }

    /**
     * A rule and a round-up come back paused, a draft as a draft.
     *
     * @throws RefusedException if it was not retired, or what it uses still is
     */
    @Transactional
    public void restore(Person by, Kind kind, String name) {
        var found = lock(by, kind, name);
        if (archive.of(kind, name).isEmpty()) throw RefusedException.conflict("\"" + name + "\" is not retired.");
        archive.retiredOf(found.definition()).ifPresent(named -> {
            throw RefusedException.conflict("\"" + name + "\" uses the "
                    + named.kind().words() + " \"" + named.name() + "\", which is retired. Restore that first.");
        });
        archive.restore(found.id());
        audit.record(db, by.id(), AuditAct.RESTORE_DEFINITION, name, kind.words());
    }

    private DefinitionStore.Identified lock(Person by, Kind kind, String name) {
        var found = definitions.lock(kind, null, name).orElseThrow(() -> unknown.of(kind, name));
        access.requireWrite(by, found.definition());
        return found;
    }

    private void pause(Person by, DefinitionStore.Identified found) {
        switch (found.definition()) {
            case RuleDefinition rule -> {
                var id = new RuleId(found.id());
                if (ruleStates.of(id).isActive()) ruleStates.pause(by, id, rule);
            }
            case RoundUpDefinition roundUp -> {
                if (!roundUps.standing(found.id()).paused()) roundUps.pause(by, found.id(), roundUp.name());
            }
            default -> {}
        }
    }

    /** {@code the rule late-sailings, the round-up terminals-week}. */
    static String list(List<Definition> users) {
        return users.stream()
                .map(user -> "the " + user.kind().words() + " " + user.name())
                .collect(Collectors.joining(", "));
    }

    private RetiredDefinition view(Archive.Entry entry) {
        var definition = definition(entry);
        return new RetiredDefinition(
                entry.kind().code(),
                entry.name(),
                definition.title(),
                definition.owner(),
                entry.at(),
                entry.by(),
                entry.reason());
    }

    private Definition definition(Archive.Entry entry) {
        return definitions.current(entry.kind(), entry.name()).orElseThrow();
    }
}
