package dev.oddsentry.service.visibility;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static org.jooq.impl.DSL.arrayOverlap;
import static org.jooq.impl.DSL.not;
import static org.jooq.impl.DSL.val;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.recipients.Directory;
import dev.oddsentry.service.sources.Source;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;

/**
 * Who sees what. A definition says which teams see it; whom a rule or a round-up mails by name or address sees it, too, and so do operators
 * and auditors. What comes of a rule is seen by those who see the rule.
 */
@Component
public class Visibility {
    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Directory directory;

    Visibility(DSLContext db, DefinitionStore definitions, Directory directory) {
        this.db = db;
        this.definitions = definitions;
        this.directory = directory;
    }

    /** What the person sees who asks now. Work that nobody asks for, such as a check, sees everything. */
    public Visible now() {
        return person().map(this::of).orElse(Visible.EVERYTHING);
    }

    public Visible of(Person person) {
        if (person.is(Role.OPERATOR) || person.is(Role.AUDITOR)) return Visible.EVERYTHING;
        var teams = val(person.teams().toArray(String[]::new), DEFINITION.VISIBLE_TO);
        var ofOthers = DEFINITION.VISIBLE_TO.isNotNull().and(not(arrayOverlap(DEFINITION.VISIBLE_TO, teams)));
        var private_ = DEFINITION.PRIVATE_TO.isNotNull().and(DEFINITION.PRIVATE_TO.ne(person.login()));
        var hidden = new HashMap<UUID, Visible.Hidden>();
        db.select(DEFINITION.ID, DEFINITION.KIND, DEFINITION.NAME)
                .from(DEFINITION)
                .where(ofOthers.or(private_))
                .forEach(row -> hidden.put(row.value1(), new Visible.Hidden(row.value2(), row.value3())));
        openWhatMails(person, hidden);
        return hidden.isEmpty() ? Visible.EVERYTHING : new Visible(person.id(), Map.copyOf(hidden));
    }

    /** Whether the person who asks may read through the source with SQL of their own, and see its tables. */
    public boolean mayUse(Source source) {
        return source.teams().isEmpty()
                || person().map(person -> mayUse(person, source)).orElse(true);
    }

    private static boolean mayUse(Person person, Source source) {
        return person.is(Role.OPERATOR)
                || person.is(Role.AUDITOR)
                || source.teams().stream().anyMatch(person.teams()::contains);
    }

    private static Optional<Person> person() {
        var authentication = SecurityContextHolder.getContext().getAuthentication();
        return authentication != null && authentication.getPrincipal() instanceof Person person
                ? Optional.of(person)
                : Optional.empty();
    }

    private void openWhatMails(Person person, Map<UUID, Visible.Hidden> hidden) {
        for (var kind : List.of(Kind.RULE, Kind.ROUND_UP)) {
            if (hidden.values().stream().noneMatch(each -> each.kind() == kind)) continue;
            for (var each : definitions.ever(kind))
                if (hidden.containsKey(each.id()) && mails(each.definition(), person)) hidden.remove(each.id());
        }
    }

    private boolean mails(Definition definition, Person person) {
        var recipients = switch (definition) {
            case RuleDefinition rule -> rule.delivery().named();
            case RoundUpDefinition roundUp -> roundUp.to();
            default -> List.<String>of();
        };
        return directory.written(List.copyOf(recipients)).stream()
                .anyMatch(address -> MailAddress.bare(address).equalsIgnoreCase(person.email()));
    }
}
