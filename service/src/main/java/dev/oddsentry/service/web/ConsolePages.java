package dev.oddsentry.service.web;

import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** The console is one page that reads its own address; every address of its map answers with it, so that links and reloads work. */
@Controller
class ConsolePages {

    @GetMapping({
        "/",
        "/account",
        "/calendars/**",
        "/device",
        "/documents/**",
        "/extracts/**",
        "/findings/**",
        "/layouts/**",
        "/login",
        "/outbox/**",
        "/password",
        "/queries/**",
        "/recipient-lists/**",
        "/recipients/**",
        "/round-ups/**",
        "/rules/**",
        "/setup/**",
        "/statements",
        "/thresholds/**",
        "/today",
        "/week"
    })
    String page() {
        return "forward:/index.html";
    }
}
