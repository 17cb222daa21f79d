package dev.oddsentry.service.api.findings;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleNames;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.jooq.DSLContext;
import org.springframework.http.HttpHeaders;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** A rule's memory as files. */
@RestController
@RequestMapping("/api/rules/{name}")
class ExportController {
    private final RuleNames names;
    private final DefinitionStore definitions;
    private final FindingExport export;
    private final Audit audit;
    private final DSLContext db;

    ExportController(RuleNames names, DefinitionStore definitions, FindingExport export, Audit audit, DSLContext db) {
        this.names = names;
        this.definitions = definitions;
        this.export = export;
        this.audit = audit;
        this.db = db;
    }

    @GetMapping(path = "/findings.csv", produces = "text/csv;charset=UTF-8")
    void exportFindingsAsCsv(@AuthenticationPrincipal Person by, @PathVariable String name, HttpServletResponse to)
            throws IOException {
        export.findings(begin(by, name, "findings.csv", "text/csv", to), false, to.getOutputStream());
    }

    @GetMapping(path = "/findings.json", produces = "application/json;charset=UTF-8")
    void exportFindingsAsJson(@AuthenticationPrincipal Person by, @PathVariable String name, HttpServletResponse to)
            throws IOException {
        export.findings(begin(by, name, "findings.json", "application/json", to), true, to.getOutputStream());
    }

    @GetMapping(path = "/events.csv", produces = "text/csv;charset=UTF-8")
    void exportEventsAsCsv(@AuthenticationPrincipal Person by, @PathVariable String name, HttpServletResponse to)
            throws IOException {
        export.events(begin(by, name, "events.csv", "text/csv", to), false, to.getOutputStream());
    }

    @GetMapping(path = "/events.json", produces = "application/json;charset=UTF-8")
    void exportEventsAsJson(@AuthenticationPrincipal Person by, @PathVariable String name, HttpServletResponse to)
            throws IOException {
        export.events(begin(by, name, "events.json", "application/json", to), true, to.getOutputStream());
    }

    private Current<RuleDefinition> begin(Person by, String name, String file, String type, HttpServletResponse to) {
        var rule = definitions.rule(names.idOf(name)).orElseThrow();
        audit.record(db, by.id(), AuditAct.EXPORT_FINDINGS, name, file);
        to.setContentType(type + ";charset=UTF-8");
        to.setHeader(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "-" + file + "\"");
        return rule;
    }
}
