package dev.oddsentry.service.api.previews;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.previews.Audiences;
import dev.oddsentry.service.previews.MailPreview;
import dev.oddsentry.service.previews.QueryEffect;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What a definition that is being written would do. */
@RestController
class EditPreviewController {
    private final MailPreview mail;
    private final Audiences audiences;
    private final QueryEffect effect;

    EditPreviewController(MailPreview mail, QueryEffect effect, Audiences audiences) {
        this.audiences = audiences;
        this.mail = mail;
        this.effect = effect;
    }

    /** @throws dev.oddsentry.core.problem.InvalidDefinitionException with every problem of the document and its place */
    @PostMapping(
            path = "/api/mail-preview",
            consumes = {"application/yaml", "text/plain"},
            produces = "application/json")
    ResponseEntity<MailPreview.MessagePreview> previewMessagesOfDefinition(
            @AuthenticationPrincipal Person by, @RequestBody String text) {
        return ResponseEntity.ok().header(HttpHeaders.CACHE_CONTROL, "no-store").body(mail.of(by, text));
    }

    /** @param messages sent to the person who asks */
    record PreviewMessagesSent(int messages) {}

    /** Sends the person who asks what a definition would send, marked as a preview; nothing is saved or reported. */
    @PostMapping(
            path = "/api/mail-preview/to-me",
            consumes = {"application/yaml", "text/plain"},
            produces = "application/json")
    PreviewMessagesSent emailPreviewOfDefinition(@AuthenticationPrincipal Person by, @RequestBody String text) {
        return new PreviewMessagesSent(mail.sendTo(by, text));
    }

    /** @throws dev.oddsentry.core.problem.InvalidDefinitionException with every problem, rules that it would break among them */
    @PostMapping(
            path = "/api/query-effect",
            consumes = {"application/yaml", "text/plain"},
            produces = "application/json")
    QueryEffect.QueryEffectView showQueryEffect(@AuthenticationPrincipal Person by, @RequestBody String text) {
        return effect.of(by, text);
    }

    /** @throws dev.oddsentry.core.problem.InvalidDefinitionException with every problem */
    @PostMapping(
            path = "/api/audiences",
            consumes = {"application/yaml", "text/plain"},
            produces = "application/json")
    Audiences.AudienceList listAudiencesOfDefinition(@RequestBody String text) {
        return audiences.of(text);
    }
}
