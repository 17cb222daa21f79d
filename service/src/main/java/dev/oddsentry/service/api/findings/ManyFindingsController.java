package dev.oddsentry.service.api.findings;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Marks.Kind;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.handling.ManyFindings;
import dev.oddsentry.service.handling.ManyFindings.ManyHandled;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.overview.FindingsAcross;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Findings of any rules that are handled in one request: some that are named, or all that match a filter. */
@RestController
@RequestMapping(path = "/api/findings/handling", produces = "application/json")
class ManyFindingsController {
    private static final int MOST = 10_000;

    private final FindingsAcross across;
    private final ManyFindings many;
    private final DefinitionStore definitions;

    ManyFindingsController(FindingsAcross across, ManyFindings many, DefinitionStore definitions) {
        this.across = across;
        this.many = many;
        this.definitions = definitions;
    }

    /** As the list of findings is filtered. */
    record FindingFilter(
            @Nullable FindingState state,
            @Nullable Severity severity,
            FindingsAcross.@Nullable HandledBy handling,
            @Nullable String rule,
            @Nullable String q) {}

    /**
     * @param findings their numbers; null where a filter is given
     * @param filter which findings; null where they are named
     * @param expected how many findings the person saw that match the filter; if there are others now, nothing is done
     * @param kind null to add a note alone
     * @param until a date, a local date and time in the zone of each rule, or an instant; null for none
     * @param withdraw true to end the handling of that kind
     */
    record ManyHandlingBody(
            @Nullable @Size(max = MOST) List<Long> findings,
            @Nullable @Valid FindingFilter filter,
            @Nullable Integer expected,
            @Nullable Kind kind,
            @Nullable @Size(max = 2000) String note,
            @Nullable String until,
            @Nullable Boolean withdraw) {}

    @PostMapping
    ManyHandled handleFindings(@AuthenticationPrincipal Person by, @Valid @RequestBody ManyHandlingBody body) {
        var ids = idsOf(body);
        String note = body.note() == null ? "" : body.note();
        if (body.kind() == null) return many.note(by, ids, note);
        if (Boolean.TRUE.equals(body.withdraw())) return many.withdraw(by, ids, body.kind());
        return many.mark(by, ids, body.kind(), note, ends(body.until()));
    }

    private Collection<Long> idsOf(ManyHandlingBody body) {
        if ((body.findings() == null) == (body.filter() == null))
            throw RefusedException.invalid("Give either \"findings\" or \"filter\".");
        if (body.findings() != null) return new HashSet<>(body.findings());
        var filter = Objects.requireNonNull(body.filter());
        if (body.expected() == null)
            throw RefusedException.invalid("With a filter, give \"expected\": the number of findings that you saw.");
        var ids = across.ids(
                new FindingsAcross.Ask(
                        filter.state(),
                        filter.severity(),
                        filter.handling(),
                        filter.rule(),
                        filter.q() == null ? "" : filter.q(),
                        null),
                MOST + 1);
        if (ids.size() > MOST)
            throw RefusedException.invalid(
                    "More than " + MOST + " findings match. Narrow the filter, for example to one rule.");
        if (ids.size() != body.expected())
            throw RefusedException.conflict("The filter now matches " + ids.size() + " findings; you saw "
                    + body.expected() + ". Look at the list again.");
        return ids;
    }

    private Function<RuleId, @Nullable Instant> ends(@Nullable String until) {
        if (until == null) return _ -> null;
        return rule -> HandlingEnd.of(
                until, definitions.rule(rule).orElseThrow().definition().zone());
    }
}
