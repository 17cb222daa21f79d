package dev.oddsentry.service.api.status;

import dev.oddsentry.service.status.Status;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** How the service fares, for people and their scripts. */
@RestController
class StatusController {
    private final Status status;

    StatusController(Status status) {
        this.status = status;
    }

    @GetMapping(path = "/api/status", produces = "application/json")
    Status.StatusView getStatus() {
        return status.look();
    }
}
