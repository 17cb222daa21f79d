package dev.oddsentry.service.web;

import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** The console is one page that reads its own address; every address of its map answers with it, so that links and reloads work. */
@Controller
class ConsolePages {

    @GetMapping({
        "/",
        "/login",
        "/today",
        "/queries",
        "/queries/**",
        "/rules",
        "/rules/**",
        "/thresholds",
        "/thresholds/**",
        "/findings",
        "/recipients",
        "/recipients/**",
        "/setup",
        "/setup/**",
        "/outbox",
        "/outbox/**",
        "/extracts/**",
        "/documents/**"
    })
    String page() {
        return "forward:/index.html";
    }
}
