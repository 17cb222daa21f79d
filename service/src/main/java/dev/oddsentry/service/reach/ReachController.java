package dev.oddsentry.service.reach;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.web.RefusedException;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Whom mail does not reach, seen and mended by people who log in. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class ReachController {
    private final Reach reach;
    private final RuleNames rules;

    ReachController(Reach reach, RuleNames rules) {
        this.reach = reach;
        this.rules = rules;
    }

    /** Addresses from which mail came back, to which nothing goes. */
    @GetMapping("/bad-addresses")
    List<Reach.BadAddress> badAddresses() {
        return reach.badAddresses();
    }

    /** The address is right again. */
    @DeleteMapping("/bad-addresses/{address}")
    List<Reach.BadAddress> release(@AuthenticationPrincipal Person by, @PathVariable String address) {
        reach.release(by, address);
        return reach.badAddresses();
    }

    /** Readers who stopped the rule's mails, those who came back too. */
    @GetMapping("/rules/{name}/leavers")
    List<Reach.Leaver> leavers(@PathVariable String name) {
        return reach.leavers(rules.idOf(name));
    }

    /** Mails a reader again, who asked for it. */
    @DeleteMapping("/rules/{name}/leavers/{address}")
    List<Reach.Leaver> comeBack(
            @AuthenticationPrincipal Person by, @PathVariable String name, @PathVariable String address) {
        if (!reach.comeBack(rules.idOf(name), address, by))
            throw RefusedException.notFound(address + " has not stopped the mails of " + name + ".");
        return reach.leavers(rules.idOf(name));
    }
}
