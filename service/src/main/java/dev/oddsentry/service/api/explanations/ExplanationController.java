package dev.oddsentry.service.api.explanations;

import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.explanations.Explanation;
import dev.oddsentry.service.explanations.Explanations;
import dev.oddsentry.service.explanations.ReportedOnDay;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.web.RefusedException;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Answers why something was, or was not, told. */
@RestController
@RequestMapping(path = "/api/rules/{name}", produces = "application/json")
class ExplanationController {
    private static final Pattern NUMBER = Pattern.compile("\\d{1,18}");

    private final RuleNames names;
    private final DefinitionStore definitions;
    private final Explanations stories;
    private final ReportedOnDay reportedOnDay;

    ExplanationController(
            RuleNames names, DefinitionStore definitions, Explanations stories, ReportedOnDay reportedOnDay) {
        this.names = names;
        this.definitions = definitions;
        this.stories = stories;
        this.reportedOnDay = reportedOnDay;
    }

    /**
     * @param asked {@code key}: the values of the key columns in their order, once for each column; {@code missing} for none
     * @param copy whose personal copy; if absent, the one that has found it
     * @param finding its number, or the digest of its key that links in mail have, instead
     */
    @GetMapping("/explanation")
    Explanation explainRow(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestParam MultiValueMap<String, String> asked,
            @RequestParam(required = false) @Nullable String copy,
            @RequestParam(required = false) @Nullable String finding) {
        var rule = definitions.rule(names.idOf(name)).orElseThrow();
        if (finding == null) return stories.ofKey(by, rule, asked.getOrDefault("key", List.of()), copy);
        if (NUMBER.matcher(finding).matches()) return stories.ofNumber(by, rule, Long.parseLong(finding));
        try {
            return stories.ofDigest(by, rule, UUID.fromString(finding), copy);
        } catch (IllegalArgumentException neither) {
            throw RefusedException.notFound("The rule has no finding " + finding + ".");
        }
    }

    /** @param on a date in the rule's zone */
    @GetMapping("/reported")
    ReportedOnDay.ReportedDay explainDay(
            @PathVariable String name, @RequestParam String to, @RequestParam LocalDate on) {
        return reportedOnDay.of(definitions.rule(names.idOf(name)).orElseThrow(), to, on);
    }
}
