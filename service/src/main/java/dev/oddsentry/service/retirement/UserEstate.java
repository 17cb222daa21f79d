package dev.oddsentry.service.retirement;

import static dev.oddsentry.service.db.generated.Tables.ACCESS_TOKEN;
import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.MEMBERSHIP;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.RULE_DRAFT;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.notExists;
import static org.jooq.impl.DSL.selectOne;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.PersonReferences;
import dev.oddsentry.core.definition.PersonReferences.Named;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.Archive;
import dev.oddsentry.service.handling.FindingHandling;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Teams;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** What depends on a user: seen before they are disabled, and handed over to another. */
@Component
public class UserEstate {
    private final DSLContext db;
    private final DefinitionChanges changes;
    private final Archive archive;
    private final People people;
    private final Teams teams;
    private final FindingHandling handling;
    private final Audit audit;
    private final Clock clock;

    UserEstate(
            DSLContext db,
            DefinitionChanges changes,
            Archive archive,
            People people,
            Teams teams,
            FindingHandling handling,
            Audit audit,
            Clock clock) {
        this.db = db;
        this.changes = changes;
        this.archive = archive;
        this.people = people;
        this.teams = teams;
        this.handling = handling;
        this.audit = audit;
        this.clock = clock;
    }

    /** A definition that mails the user by name or address; one that is retired mails nobody now. */
    public record MailingDefinition(String kind, String name, String title, boolean retired) {}

    /** A rule with findings that the user has taken, or with changes that they have not applied. */
    public record RuleOfUser(String name, int count) {}

    /**
     * @param aloneIn teams that nobody else is in who can log in
     * @param reachedFor teams whose mail goes to the user's address
     * @param mailedBy by kind and name
     * @param taken findings that are not over, by rule
     * @param drafts changes that are not applied, one for each rule
     * @param tokens that have not expired
     */
    public record UserBelongings(
            List<String> aloneIn,
            List<String> reachedFor,
            List<MailingDefinition> mailedBy,
            List<RuleOfUser> taken,
            List<RuleOfUser> drafts,
            int tokens) {}

    /** @throws RefusedException if there is no such user */
    @Transactional(readOnly = true)
    public UserBelongings of(String login) {
        var person = people.require(login);
        return new UserBelongings(
                aloneIn(person),
                teams.reachedAt(person.email()),
                mailedBy(person),
                taken(person),
                drafts(person),
                tokens(person));
    }

    private List<String> aloneIn(Person person) {
        var others = MEMBERSHIP.as("others");
        return db.select(MEMBERSHIP.TEAM)
                .from(MEMBERSHIP)
                .where(
                        MEMBERSHIP.PERSON_ID.eq(person.id()),
                        notExists(selectOne()
                                .from(others)
                                .join(PERSON)
                                .on(PERSON.ID.eq(others.PERSON_ID))
                                .where(
                                        others.TEAM.eq(MEMBERSHIP.TEAM),
                                        others.PERSON_ID.ne(person.id()),
                                        PERSON.ACTIVE.isTrue())))
                .orderBy(MEMBERSHIP.TEAM)
                .fetch(MEMBERSHIP.TEAM);
    }

    private List<MailingDefinition> mailedBy(Person person) {
        return changes.ever()
                .map(each -> each.definition())
                .filter(each -> PersonReferences.mails(Document.tree(each), named(person)))
                .map(each -> new MailingDefinition(
                        each.kind().code(),
                        each.name(),
                        each.title(),
                        archive.of(each.kind(), each.name()).isPresent()))
                .toList();
    }

    private static Named named(Person person) {
        return new Named(person.login(), person.email());
    }

    private List<RuleOfUser> taken(Person person) {
        return db.select(DEFINITION.NAME, count())
                .from(HANDLING)
                .join(FINDING)
                .on(FINDING.ID.eq(HANDLING.FINDING_ID))
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(FINDING.RULE_ID.coerce(DEFINITION.ID)))
                .where(FindingHandling.isTakenBy(person))
                .groupBy(DEFINITION.NAME)
                .orderBy(DEFINITION.NAME)
                .fetch(mapping(RuleOfUser::new));
    }

    private List<RuleOfUser> drafts(Person person) {
        return db.select(DEFINITION.NAME, count())
                .from(RULE_DRAFT)
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(RULE_DRAFT.RULE_ID.coerce(DEFINITION.ID)))
                .where(RULE_DRAFT.AUTHOR_ID.eq(person.id()))
                .groupBy(DEFINITION.NAME)
                .orderBy(DEFINITION.NAME)
                .fetch(mapping(RuleOfUser::new));
    }

    private int tokens(Person person) {
        return db.fetchCount(
                ACCESS_TOKEN, ACCESS_TOKEN.PERSON_ID.eq(person.id()), ACCESS_TOKEN.EXPIRES_AT.gt(clock.instant()));
    }

    /**
     * @param definitions that mail the other user now
     * @param teams whose mail goes to the other now
     * @param findings that the other has taken now
     */
    public record HandedOver(List<MailingDefinition> definitions, List<String> teams, int findings) {}

    /**
     * Another user gets the mail and has taken the findings from now on. Teams, drafts and tokens stay.
     *
     * @throws RefusedException if there is no such user, the other cannot log in, or there is nothing to hand over
     */
    @Transactional
    public HandedOver handOver(Person by, String login, String to, String reason) {
        var from = people.require(login);
        var other = people.active(people.require(to).id())
                .orElseThrow(() -> RefusedException.invalid("to: \"" + to + "\" is disabled. Name another user."));
        if (other.id().equals(from.id())) throw RefusedException.invalid("to: name another user than " + login + ".");
        if (other.email().isEmpty() && !from.email().isEmpty())
            throw RefusedException.invalid("to: " + other.name() + " has no address. Name another user.");
        var mailing = mailedBy(from);
        var reached = teams.reachedAt(from.email());
        reached.forEach(team -> teams.replaceAddress(team, from.email(), other.email()));
        var all = changes.ever()
                .filter(each -> PersonReferences.mails(Document.tree(each.definition()), named(from)))
                .toList();
        String why = "handed over from " + from.name() + (reason.isBlank() ? "" : ": " + reason.strip());
        all.forEach(each ->
                changes.change(by, each, why, tree -> PersonReferences.replaced(tree, named(from), named(other))));
        int findings = handling.handOver(by, from, other);
        if (all.isEmpty() && reached.isEmpty() && findings == 0)
            throw RefusedException.conflict("Nothing mails " + from.name() + ", and they have taken no finding.");
        audit.record(
                db,
                by.id(),
                AuditAct.HAND_OVER,
                from.login(),
                "to " + other.login() + ": " + findings + " findings; "
                        + (reached.isEmpty() ? "" : "teams " + String.join(", ", reached) + "; ")
                        + DefinitionChanges.listed(all));
        return new HandedOver(mailing, reached, findings);
    }
}
