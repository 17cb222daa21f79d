package dev.oddsentry.service.api.roundups;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.ScheduleWords;
import dev.oddsentry.extracts.mail.RoundUp;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.mail.MessageParts;
import dev.oddsentry.service.mail.NewMessage;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.roundups.RoundUpRun;
import dev.oddsentry.service.roundups.RoundUpUpdates;
import dev.oddsentry.service.roundups.RoundUps;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Round-ups: where each stands, what it would say now, and sending it before its time. */
@RestController
@RequestMapping("/api/round-ups")
class RoundUpController {
    private final DefinitionStore definitions;
    private final RoundUps roundUps;
    private final RoundUpUpdates news;
    private final RoundUpRun run;
    private final MessageBuilder messages;
    private final Audit audit;
    private final DSLContext db;
    private final Clock clock;

    private final UnknownNames unknown;
    private final VisibleDefinitions visible;

    RoundUpController(
            DefinitionStore definitions,
            RoundUps roundUps,
            RoundUpUpdates news,
            RoundUpRun run,
            MessageBuilder messages,
            Audit audit,
            DSLContext db,
            Clock clock,
            UnknownNames unknown,
            VisibleDefinitions visible) {
        this.visible = visible;
        this.unknown = unknown;
        this.definitions = definitions;
        this.roundUps = roundUps;
        this.news = news;
        this.run = run;
        this.messages = messages;
        this.audit = audit;
        this.db = db;
        this.clock = clock;
    }

    /** @param when its times in words */
    record RoundUpView(
            String name,
            String title,
            String owner,
            int revision,
            String zone,
            List<String> rules,
            List<String> to,
            @Nullable String atOnce,
            String when,
            boolean paused,
            @Nullable Instant nextSlot,
            @Nullable Instant lastSlot) {}

    /** @param message its number in the outbox; null where there was nothing to say */
    record RoundUpSentView(@Nullable MessageId message) {}

    /** @param subject null, as the text is empty, where there is nothing to say */
    record RoundUpPreviewView(@Nullable String subject, String text) {}

    @GetMapping(produces = "application/json")
    List<RoundUpView> listRoundUps() {
        return visible.roundUps().stream().map(this::view).toList();
    }

    @GetMapping(path = "/{name}", produces = "application/json")
    RoundUpView getRoundUp(@PathVariable String name) {
        return view(require(name));
    }

    private RoundUpView view(Current<RoundUpDefinition> roundUp) {
        var definition = roundUp.definition();
        var standing = roundUps.standing(roundUp.id());
        return new RoundUpView(
                definition.name(),
                definition.title(),
                definition.owner(),
                roundUp.revision(),
                definition.zone().getId(),
                definition.rules(),
                definition.to(),
                definition.sendImmediately() == null
                        ? null
                        : definition.sendImmediately().word(),
                ScheduleWords.of(definition.schedule()),
                standing.paused(),
                standing.nextSlot(),
                standing.lastSlot());
    }

    /** What it would say now; nothing is reported. */
    @GetMapping(path = "/{name}/preview", produces = "application/json")
    RoundUpPreviewView previewRoundUp(@AuthenticationPrincipal Person by, @PathVariable String name) {
        var message = message(by, require(name));
        return message == null
                ? new RoundUpPreviewView(null, "")
                : new RoundUpPreviewView(
                        message.subject(), MessageParts.of(message.mime()).text());
    }

    @GetMapping(path = "/{name}/preview.html", produces = "text/html;charset=UTF-8")
    ResponseEntity<String> previewRoundUpHtml(@AuthenticationPrincipal Person by, @PathVariable String name) {
        return ResponseEntity.ok()
                .header("Content-Security-Policy", MessageParts.CAN_DO_NOTHING)
                .body(MessageParts.of(required(by, name).mime()).html());
    }

    @GetMapping(path = "/{name}/preview.eml", produces = "message/rfc822")
    ResponseEntity<byte[]> previewRoundUpSource(@AuthenticationPrincipal Person by, @PathVariable String name) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + ".eml\"")
                .body(required(by, name).mime());
    }

    private NewMessage required(Person by, String name) {
        var message = message(by, require(name));
        if (message == null) throw RefusedException.notFound("The round-up has nothing to say now.");
        return message;
    }

    private @Nullable NewMessage message(Person by, Current<RoundUpDefinition> roundUp) {
        audit.record(
                db, by.id(), AuditAct.PREVIEW_ROUND_UP, roundUp.definition().name(), null);
        var last = roundUps.standing(roundUp.id()).lastSlot();
        RoundUp said = news.gather(new RoundUpUpdates.Asked(null, roundUp, clock.instant(), null), last)
                .said();
        return said == null ? null : messages.build(MessageId.random(), null, roundUp.definition(), said);
    }

    @PostMapping(path = "/{name}/send", produces = "application/json")
    RoundUpSentView sendRoundUp(@AuthenticationPrincipal Person by, @PathVariable String name) {
        var roundUp = require(name);
        audit.record(db, by.id(), AuditAct.SEND_ROUND_UP, name, null);
        return new RoundUpSentView(run.now(roundUp.id()).orElse(null));
    }

    @PostMapping(path = "/{name}/pause", produces = "application/json")
    RoundUpView pauseRoundUp(@AuthenticationPrincipal Person by, @PathVariable String name) {
        roundUps.pause(by, require(name).id(), name);
        return getRoundUp(name);
    }

    @PostMapping(path = "/{name}/resume", produces = "application/json")
    RoundUpView resumeRoundUp(@AuthenticationPrincipal Person by, @PathVariable String name) {
        var roundUp = require(name);
        roundUps.resume(by, roundUp.id(), roundUp.definition());
        return getRoundUp(name);
    }

    private Current<RoundUpDefinition> require(String name) {
        return definitions.roundUp(name).orElseThrow(() -> unknown.of(Kind.ROUND_UP, name));
    }
}
