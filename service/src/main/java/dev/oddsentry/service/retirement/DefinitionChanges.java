package dev.oddsentry.service.retirement;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.people.Person;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Changes who owns definitions or is mailed by them, each as a new revision. Part of the caller's transaction. */
@Component
class DefinitionChanges {
    private final DefinitionStore definitions;

    DefinitionChanges(DefinitionStore definitions) {
        this.definitions = definitions;
    }

    /** By kind and name, the retired ones too. */
    Stream<Current<Definition>> ever() {
        return Arrays.stream(Kind.values()).flatMap(kind -> definitions.ever(kind).stream());
    }

    /** No query is asked, since neither owner nor recipients say what a check finds. */
    void change(Person by, Current<Definition> each, String reason, UnaryOperator<Map<String, Object>> how) {
        var kind = each.definition().kind();
        var now = definitions.lock(kind, each.id(), "").orElseThrow();
        var tree = how.apply(Document.tree(now.definition()));
        var after = Document.read(Json.writeInOrder(tree).data())
                .definition()
                .withId(each.id().toString());
        int revision = now.revision() + 1;
        definitions.moveTo(each.id(), after, revision);
        definitions.addRevision(each.id(), revision, after, reason, by.id());
        if (now.definition() instanceof QueryDefinition query)
            definitions.addColumns(
                    each.id(), revision, definitions.columns(new Current<>(each.id(), now.revision(), query)));
    }

    static String listed(List<Current<Definition>> all) {
        return all.stream()
                .map(each -> each.definition().kind().words() + " "
                        + each.definition().name())
                .collect(Collectors.joining(", "));
    }
}
