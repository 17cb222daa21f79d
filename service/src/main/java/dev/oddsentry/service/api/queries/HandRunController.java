package dev.oddsentry.service.api.queries;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.queries.HandRuns;
import dev.oddsentry.service.web.RefusedException;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The queries that run by hand on the node that answers: one's own, and everybody's for an operator. */
@RestController
@RequestMapping(path = "/api/query-runs", produces = "application/json")
class HandRunController {
    private final HandRuns runs;

    HandRunController(HandRuns runs) {
        this.runs = runs;
    }

    @GetMapping
    List<HandRuns.QueryRunView> listQueryRuns(@AuthenticationPrincipal Person by) {
        return runs.all().stream().filter(run -> mayStop(by, run)).toList();
    }

    /** Cancels it in its source. The answer to its own request names who stopped it. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stopQueryRun(@AuthenticationPrincipal Person by, @PathVariable UUID id) {
        var run = runs.find(id).filter(found -> mayStop(by, found));
        if (run.isEmpty() || !runs.stop(id, by.login()))
            throw RefusedException.notFound("No query of that number runs on this node; it may have ended.");
    }

    private static boolean mayStop(Person by, HandRuns.QueryRunView run) {
        return by.role() == Role.OPERATOR || by.login().equals(run.login());
    }
}
