package dev.oddsentry.service.api.rules;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.access.Access;
import dev.oddsentry.service.authoring.Saved;
import dev.oddsentry.service.authoring.Saving;
import dev.oddsentry.service.checks.OnDemandChecks;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.definitions.Archive;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.web.RefusedException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * The same act on many rules, each for itself: one that cannot be acted on keeps no other from it. The list of what would be done is made
 * by the same steps, short of the last.
 */
@Component
class BulkActions {
    private final RuleNames names;
    private final DefinitionStore definitions;
    private final RuleStates states;
    private final OnDemandChecks onDemand;
    private final Saving saving;
    private final Access access;

    private final Archive archive;

    BulkActions(
            RuleNames names,
            DefinitionStore definitions,
            RuleStates states,
            OnDemandChecks onDemand,
            Saving saving,
            Access access,
            Archive archive) {
        this.archive = archive;
        this.access = access;
        this.names = names;
        this.definitions = definitions;
        this.states = states;
        this.onDemand = onDemand;
        this.saving = saving;
    }

    /** What is asked of each. */
    sealed interface Act {
        record Pause() implements Act {}

        /** Tells what is new, as a rule does that was paused. */
        record Activate() implements Act {}

        record Check() implements Act {}

        record HandOver(String owner) implements Act {}

        /**
         * @param add to those who hear of everything
         * @param remove from every list
         */
        record Recipients(List<String> add, List<String> remove) implements Act {}
    }

    /**
     * @param result what is or would be done
     * @param refused why not; null where it is
     */
    record BulkActionResult(
            String rule,
            String title,
            String result,
            @Nullable String refused) {}

    /** @param apply false for the list alone */
    List<BulkActionResult> act(Person by, List<String> rules, Act act, String reason, boolean apply) {
        return rules.stream()
                .distinct()
                .map(name -> one(by, name, act, reason, apply))
                .toList();
    }

    private BulkActionResult one(Person by, String name, Act act, String reason, boolean apply) {
        var rule = definitions.rule(names.idOf(name)).orElseThrow();
        String words = words(rule.definition(), act);
        try {
            if (act instanceof Act.Activate) access.requireLead(by, rule.definition());
            else access.requireWrite(by, rule.definition());
            archive.refuse(Definition.Kind.RULE, name);
            refuseIdle(rule, act);
            if (apply) carryOut(by, rule, act, reason);
            return new BulkActionResult(name, rule.definition().title(), words, null);
        } catch (RefusedException refused) {
            return new BulkActionResult(name, rule.definition().title(), words, refused.getMessage());
        } catch (InvalidDefinitionException invalid) {
            String why = invalid.problems().stream()
                    .filter(Problem::stopsSave)
                    .map(Problem::message)
                    .collect(Collectors.joining("; "));
            return new BulkActionResult(name, rule.definition().title(), words, why);
        }
    }

    private static String words(RuleDefinition rule, Act act) {
        return switch (act) {
            case Act.Pause _ -> "pause";
            case Act.Activate _ ->
                "make active, mailing " + people(rule.delivery().named());
            case Act.Check _ -> "check now, mailing " + people(rule.delivery().named());
            case Act.HandOver(String owner) -> "from " + rule.owner() + " to " + owner;
            case Act.Recipients change ->
                people(rule.delivery().named()) + " → "
                        + people(changed(rule, change).delivery().named());
        };
    }

    private static String people(Set<String> named) {
        return named.isEmpty() ? "nobody" : String.join(", ", named);
    }

    /** What can be told before anything is done. */
    private void refuseIdle(Current<RuleDefinition> rule, Act act) {
        var state = states.of(rule.ruleId());
        switch (act) {
            case Act.Pause _ -> {
                if (!state.isActive()) throw RefusedException.conflict("Only an active rule can be paused.");
            }
            case Act.Activate _ -> {
                if (state.isActive()) throw RefusedException.conflict("The rule is active already.");
                states.refuseUnready(rule.ruleId(), rule.definition());
            }
            case Act.Check _ -> {
                if (!state.isActive()) throw RefusedException.conflict("Only an active rule can be checked.");
            }
            case Act.HandOver(String owner) -> {
                if (rule.definition().owner().equals(owner))
                    throw RefusedException.conflict("It is owned by " + owner + " already.");
            }
            case Act.Recipients change -> {
                var after = changed(rule.definition(), change);
                if (after.equals(rule.definition())) throw RefusedException.conflict("Nothing would differ.");
                if (state.isActive()) states.refuseUnready(rule.ruleId(), after);
            }
        }
    }

    private void carryOut(Person by, Current<RuleDefinition> rule, Act act, String reason) {
        switch (act) {
            case Act.Pause _ -> states.pause(by, rule.ruleId(), rule.definition());
            case Act.Activate _ -> states.activate(by, rule.ruleId(), rule.definition(), ReportChoice.NONE);
            case Act.Check _ -> onDemand.ask(by, rule.ruleId(), null, false);
            case Act.HandOver(String owner) -> save(by, rule, rule.definition().ownedBy(owner), reason);
            case Act.Recipients change -> save(by, rule, changed(rule.definition(), change), reason);
        }
    }

    private static RuleDefinition changed(RuleDefinition rule, Act.Recipients change) {
        var delivery = rule.delivery()
                .withPeople(people -> people.stream()
                        .filter(each -> change.remove().stream().noneMatch(each::equalsIgnoreCase))
                        .toList());
        var to = new LinkedHashSet<>(delivery.to());
        to.addAll(change.add());
        return rule.withDelivery(delivery.to(new ArrayList<>(to)));
    }

    private Saved save(Person by, Current<RuleDefinition> before, RuleDefinition after, String reason) {
        return saving.save(by, text(after), reason, false, before.revision());
    }

    private static String text(RuleDefinition rule) {
        return Json.writeInOrder(Document.tree(rule)).data();
    }

    /**
     * A new rule that says the same, as a draft that remembers nothing and tells nobody.
     *
     * @throws RefusedException if the name is taken
     */
    Saved copy(Person by, String name, String newName, String newTitle) {
        var rule = definitions.rule(names.idOf(name)).orElseThrow().definition();
        if (definitions.rule(newName).isPresent())
            throw RefusedException.conflict("There is a rule \"" + newName + "\" already; give the copy another name.");
        return saving.save(by, text(rule.copyAs(newName, newTitle)), "copied from " + name, false, null);
    }
}
