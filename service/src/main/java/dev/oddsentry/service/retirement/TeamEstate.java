package dev.oddsentry.service.retirement;

import static dev.oddsentry.service.db.generated.Tables.RULE_DRAFT;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.TeamReferences;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.definitions.Archive;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Teams;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.web.RefusedException;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;

/** What a team owns and is mailed: handed over to another, and taken along when the team is renamed. */
@Component
public class TeamEstate {
    private static final TypeReference<Map<String, Object>> TREE = new TypeReference<>() {};

    private final DSLContext db;
    private final DefinitionChanges changes;
    private final Archive archive;
    private final Teams teams;
    private final Audit audit;
    private final Sources sources;

    TeamEstate(DSLContext db, DefinitionChanges changes, Archive archive, Teams teams, Audit audit, Sources sources) {
        this.sources = sources;
        this.db = db;
        this.changes = changes;
        this.archive = archive;
        this.teams = teams;
        this.audit = audit;
    }

    /**
     * A definition that names a team.
     *
     * @param owned whether the team owns it
     * @param mailed whether the team is among its recipients
     * @param shown whether it is shown to the team, which does not own it
     */
    public record TeamDefinition(
            String kind, String name, String title, boolean owned, boolean mailed, boolean shown, boolean retired) {}

    /** By kind and name, the retired ones too. */
    @Transactional(readOnly = true)
    public List<TeamDefinition> of(String team) {
        return changes.ever()
                .map(each -> view(each.definition(), team))
                .filter(each -> each.owned() || each.mailed() || each.shown())
                .toList();
    }

    private TeamDefinition view(Definition definition, String team) {
        return new TeamDefinition(
                definition.kind().code(),
                definition.name(),
                definition.title(),
                team.equals(definition.owner()),
                TeamReferences.mails(Document.tree(definition), team),
                !team.equals(definition.owner()) && TeamReferences.shows(Document.tree(definition), team),
                archive.of(definition.kind(), definition.name()).isPresent());
    }

    /**
     * The other team becomes the owner of all that this one owns, each as a new revision. Recipients stay.
     *
     * @throws RefusedException if there is no such team to take it, or nothing to hand over
     */
    @Transactional
    public List<TeamDefinition> handOver(Person by, String from, String to, String reason) {
        if (!teams.names().contains(to))
            throw RefusedException.invalid("to: there is no team \"" + to + "\". Save the team first.");
        if (from.equals(to)) throw RefusedException.invalid("to: name another team than " + from + ".");
        var owned = changes.ever()
                .filter(each -> from.equals(each.definition().owner()))
                .toList();
        if (owned.isEmpty()) throw RefusedException.conflict("The team " + from + " owns nothing.");
        String why = "handed over from " + from + (reason.isBlank() ? "" : ": " + reason.strip());
        owned.forEach(each -> changes.change(by, each, why, tree -> TeamReferences.ownedBy(tree, to)));
        audit.record(db, by.id(), AuditAct.HAND_OVER, from, "to " + to + ": " + DefinitionChanges.listed(owned));
        return owned.stream().map(each -> view(each.definition(), from)).toList();
    }

    /**
     * Members, saved filters, what it owns and where it is a recipient go along.
     *
     * @throws RefusedException if there is no such team, or one of the new name
     */
    @Transactional
    public Teams.Team rename(Person by, String from, String to) {
        if (to.isBlank() || !to.equals(to.strip()))
            throw RefusedException.invalid("name: give a name without spaces around it.");
        if (teams.names().contains(to)) throw RefusedException.conflict("There is a team \"" + to + "\" already.");
        if (!teams.rename(from, to)) throw noTeam(from);
        var named = changes.ever()
                .filter(each -> !renamed(each, from, to).equals(Document.tree(each.definition())))
                .toList();
        named.forEach(each -> changes.change(
                by, each, "team " + from + " renamed to " + to, tree -> TeamReferences.renamed(tree, from, to)));
        sources.renameTeam(from, to);
        db.selectFrom(RULE_DRAFT)
                .forEach(draft -> db.update(RULE_DRAFT)
                        .set(
                                RULE_DRAFT.DOCUMENT,
                                Json.writeInOrder(TeamReferences.renamed(
                                        Json.read(
                                                JSONB.valueOf(
                                                        draft.getDocument().data()),
                                                TREE),
                                        from,
                                        to)))
                        .where(RULE_DRAFT.RULE_ID.eq(draft.getRuleId()))
                        .execute());
        audit.record(db, by.id(), AuditAct.RENAME_TEAM, to, "from " + from + ": " + DefinitionChanges.listed(named));
        return teams.all().stream()
                .filter(team -> team.name().equals(to))
                .findFirst()
                .orElseThrow();
    }

    /** @throws RefusedException if there is no such team, or something names it */
    @Transactional
    public void remove(Person by, String team) {
        if (!teams.names().contains(team)) throw noTeam(team);
        var named = of(team);
        if (!named.isEmpty())
            throw RefusedException.conflict("The team " + team + " is named by "
                    + named.stream()
                            .map(each -> each.kind() + " " + each.name() + (each.retired() ? " (retired)" : ""))
                            .collect(Collectors.joining(", "))
                    + ". Hand over what it owns, and change recipients and who sees it, first.");
        var granted = sources.all().stream()
                .filter(source -> source.teams().contains(team))
                .map(Source::name)
                .toList();
        if (!granted.isEmpty())
            throw RefusedException.conflict("The team " + team + " may use the source " + String.join(", ", granted)
                    + ", which every team could use without it. Save the source for other teams first.");
        teams.remove(team);
        audit.record(db, by.id(), AuditAct.REMOVE_TEAM, team, null);
    }

    private static RefusedException noTeam(String name) {
        return RefusedException.notFound("There is no team \"" + name + "\".");
    }

    private static Map<String, Object> renamed(Current<Definition> each, String from, String to) {
        return TeamReferences.renamed(Document.tree(each.definition()), from, to);
    }
}
