package dev.oddsentry.service.api.checks;

import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.service.api.PageCodes;
import dev.oddsentry.service.checks.CheckStore;
import dev.oddsentry.service.checks.CopyStore;
import dev.oddsentry.service.checks.OnDemandChecks;
import dev.oddsentry.service.db.PagePlace;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.previews.OpenFindingsSender;
import dev.oddsentry.service.previews.Preview;
import dev.oddsentry.service.previews.PreviewFiles;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Checks of rules: asking for one, looking at them, and previews. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class CheckController {
    private static final Duration LONGEST_WAIT = Duration.ofSeconds(25);
    private static final int MOST_LISTED = 100;

    private final RuleNames names;
    private final OnDemandChecks onDemand;
    private final CheckStore store;
    private final Preview preview;
    private final PreviewFiles files;
    private final CopyStore copies;
    private final OpenFindingsSender sendingOpen;
    private final Clock clock;

    CheckController(
            RuleNames names,
            OnDemandChecks onDemand,
            CheckStore store,
            Preview preview,
            PreviewFiles files,
            CopyStore copies,
            OpenFindingsSender sendingOpen,
            Clock clock) {
        this.names = names;
        this.onDemand = onDemand;
        this.store = store;
        this.preview = preview;
        this.files = files;
        this.copies = copies;
        this.sendingOpen = sendingOpen;
        this.clock = clock;
    }

    /**
     * Asks for a check and waits a while for it: 200 with its outcome, or 202 while it still runs. If a good check of the rule has ended within the last
     * minute and nothing was saved since, that one is the answer.
     *
     * @param again true to check even so
     */
    @PostMapping("/rules/{name}/checks")
    ResponseEntity<CheckView> checkRule(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestParam(defaultValue = "false") boolean again,
            @RequestHeader(name = "Idempotency-Key", required = false) @Size(max = 200) @Nullable String requestKey) {
        CheckId id = onDemand.ask(by, names.idOf(name), requestKey, again);
        var check = onDemand.await(id, LONGEST_WAIT);
        return ResponseEntity.status(check.getState() == CheckState.RUNNING ? 202 : 200)
                .body(CheckView.of(check));
    }

    /** @param next where the next page begins; null on the last one */
    record CheckList(List<CheckView> checks, @Nullable String next) {}

    /**
     * Newest first.
     *
     * @param after the value of {@code next} of the page before
     */
    @GetMapping("/rules/{name}/checks")
    CheckList listChecks(@PathVariable String name, @RequestParam(required = false) @Nullable String after) {
        var checks = store.latest(names.idOf(name), after == null ? null : PageCodes.read(after), MOST_LISTED).stream()
                .map(CheckView::of)
                .toList();
        return new CheckList(
                checks,
                PagePlace.next(
                        checks,
                        MOST_LISTED,
                        last -> new PagePlace(last.slot(), last.id().value())));
    }

    record SendOpenBody(@NotNull @Size(max = 320) String to) {}

    record QueuedMessages(int messages) {}

    /** Sends one of those who hear of the rule everything that is open now, as to a person who was added. */
    @PostMapping("/rules/{name}/send-open")
    QueuedMessages sendOpenFindings(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody SendOpenBody body) {
        return new QueuedMessages(sendingOpen
                .to(by, names.idOf(name), body.to().strip(), clock.instant())
                .size());
    }

    /** Sends the person who asks what a check now would send, marked as a preview. */
    @PostMapping("/rules/{name}/preview-to-me")
    QueuedMessages emailPreview(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestParam(required = false) @Nullable String copy) {
        return new QueuedMessages(files.sendTo(by, names.idOf(name), clock.instant(), copy));
    }

    /** How each personal copy of a check went. */
    @GetMapping("/checks/{id}/copies")
    List<CopyView> listCheckCopies(@PathVariable UUID id) {
        getCheck(id);
        return copies.of(new CheckId(id)).stream().map(CopyView::of).toList();
    }

    @GetMapping("/checks/{id}")
    CheckView getCheck(@PathVariable UUID id) {
        return store.find(new CheckId(id))
                .map(CheckView::of)
                .orElseThrow(() -> RefusedException.notFound("No such check."));
    }

    /** Ends a running check, wherever it runs; its query is cancelled in the source. */
    @PostMapping("/checks/{id}/stop")
    CheckView stopCheck(@AuthenticationPrincipal Person by, @PathVariable UUID id) {
        onDemand.stop(by, new CheckId(id));
        return getCheck(id);
    }

    /** Runs a check that was kept back again for its slot, and lets it through. */
    @PostMapping("/checks/{id}/approve")
    CheckView approveCheck(@AuthenticationPrincipal Person by, @PathVariable UUID id) {
        onDemand.release(by, new CheckId(id));
        return CheckView.of(onDemand.await(new CheckId(id), LONGEST_WAIT));
    }

    @PostMapping("/checks/{id}/discard")
    CheckView discardCheck(@AuthenticationPrincipal Person by, @PathVariable UUID id) {
        onDemand.discard(by, new CheckId(id));
        return getCheck(id);
    }

    /**
     * @param at the slot to calculate from; now if absent
     * @param copy whose personal copy; if absent, what each would come to, and the rows of the first that would hear
     */
    @PostMapping("/rules/{name}/preview")
    Preview.PreviewResult previewRule(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestParam(required = false) @Nullable Instant at,
            @RequestParam(required = false) @Nullable String copy) {
        return preview.run(by, names.idOf(name), at == null ? clock.instant() : at, copy);
    }

    /**
     * @param copy whose personal copy; the first one's if absent
     * @param split whose part of a split; the first one's if absent
     */
    @GetMapping(path = "/rules/{name}/preview.eml", produces = "message/rfc822")
    ResponseEntity<byte[]> previewMessage(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestParam(required = false) @Nullable String copy,
            @RequestParam(required = false) @Nullable String split,
            @RequestParam(required = false) @Nullable Instant at) {
        var mail = files.mail(by, names.idOf(name), at == null ? clock.instant() : at, copy, split);
        return file(name + ".eml", mail.mime());
    }

    /** @param layout another than the rule's, such as one of one's own; @param format {@code xlsx}, {@code csv}, {@code pdf}, {@code html} or {@code json} */
    @GetMapping(path = "/rules/{name}/extract.{format}", produces = "application/octet-stream")
    ResponseEntity<byte[]> extractRule(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @PathVariable String format,
            @RequestParam(required = false) @Nullable String copy,
            @RequestParam(required = false) @Nullable String layout,
            @RequestParam(required = false) @Nullable Instant at) {
        var wanted = Arrays.stream(Format.values())
                .filter(each -> each.code().equals(format))
                .findFirst()
                .orElseThrow(() -> RefusedException.notFound(
                        "\"" + format + "\" is not an extract format; use xlsx, csv, pdf, html or json."));
        var extract = files.extract(by, names.idOf(name), at == null ? clock.instant() : at, copy, layout, wanted);
        return file(extract.name(), extract.bytes());
    }

    private static ResponseEntity<byte[]> file(String name, byte[] bytes) {
        return ResponseEntity.ok()
                .header("Content-Disposition", "attachment; filename=\"" + name + "\"")
                .body(bytes);
    }

    /** A rule's document that is not saved, previewed and held against the rule of its name. */
    @PostMapping(
            path = "/preview",
            consumes = {"application/yaml", "text/plain"})
    Preview.DraftPreview previewDefinition(
            @AuthenticationPrincipal Person by,
            @RequestBody String document,
            @RequestParam(required = false) @Nullable Instant at) {
        return preview.runDraft(by, document, at == null ? clock.instant() : at);
    }
}
