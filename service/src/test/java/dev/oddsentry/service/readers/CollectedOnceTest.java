package dev.oddsentry.service.readers;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.ReaderChoice;
import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.mail.MessageParts;
import dev.oddsentry.service.recipients.CollectionTime;
import dev.oddsentry.service.recipients.ReaderChoices;
import dev.oddsentry.service.recipients.ReaderChoices.Wish;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Whatever a recipient chooses, and whenever: each finding reaches them once. Nothing is said of how; it is counted in the mailbox.
 */
class CollectedOnceTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");

    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final ReaderChoices choices = service.bean(ReaderChoices.class);
    private final LateSailings sailings = new LateSailings(service);
    private final String reader = sailings.recipient;
    private final List<String> reported = new ArrayList<>();

    private UUID active() {
        sailings.saved();
        api.push(sailings.rule().replace("delivery: { to", "delivery: { max_per_hour: 200, to"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        return service.bean(DefinitionStore.class)
                .rule(sailings.name)
                .orElseThrow()
                .id();
    }

    private void report() {
        String sailing = "SK-%03d".formatted(reported.size() + 1);
        sailings.late(sailing, 20);
        api.check(sailings.name);
        reported.add(sailing);
    }

    private void choose(UUID rule, Wish wish) {
        choices.choose(rule, reader, wish, false, OSLO);
    }

    private static Wish any(Random random) {
        return switch (random.nextInt(3)) {
            case 0 -> new Wish.EachMessage();
            case 1 -> new Wish.Collected(new CollectionTime(CollectionTime.Every.DAILY, random.nextInt(24), null));
            default -> new Wish.Paused(Instant.now().plus(9, ChronoUnit.DAYS));
        };
    }

    private void itsTime() {
        service.changeRecords("update reader_choice set next_collection = now() - interval '1 second' where address = '"
                + reader + "' and next_collection is not null");
    }

    /** Whether each message is wanted again, and what was kept has not been sent yet. */
    private boolean isEnding(UUID rule) {
        return choices.of(rule, reader).isEmpty()
                && !choices.kept(rule, List.of(ReaderChoice.values())).isEmpty();
    }

    /** The sailings in the mails, in the order in which they arrived. */
    private List<String> arrived() {
        return service.mailTo(reader).stream()
                .flatMap(mail -> Pattern.compile("(?m)^◆ warning, new.*?(SK-\\d{3})")
                        .matcher(text(mail))
                        .results()
                        .map(found -> found.group(1)))
                .toList();
    }

    private static String text(MimeMessage mail) {
        var bytes = new ByteArrayOutputStream();
        try {
            mail.writeTo(bytes);
        } catch (MessagingException | IOException e) {
            throw new IllegalStateException(e);
        }
        return MessageParts.of(bytes.toByteArray()).text();
    }

    private void allArrive() {
        RunningService.await("all that was reported", () -> arrived().size() >= reported.size());
    }

    @ParameterizedTest
    @CsvSource({"1, false", "7, false", "20261201, false", "3, true", "11, true"})
    void inTheirOrderWhateverIsChosenWhen(long seed, boolean mayBeHeld) {
        var random = new Random(seed);
        var rule = active();
        boolean held = false;
        for (int step = 0; step < 14; step++) {
            switch (random.nextInt(5)) {
                case 0 -> {
                    choose(rule, any(random));
                    if (!held) RunningService.await("what was kept is sent", () -> !isEnding(rule));
                }
                case 1 -> {
                    itsTime();
                    if (!held) allArrive();
                }
                case 2 -> {
                    if (!mayBeHeld) break;
                    if (!held) api.post("/api/holds", Map.of("rule", sailings.name, "reason", "a test"));
                    held = true;
                }
                default -> report();
            }
            // What is on its way arrives before the next is chosen, so that the order says something.
            if (!held && choices.kept(rule, List.of(ReaderChoice.values())).isEmpty()) allArrive();
        }
        for (var hold : api.get("/api/holds"))
            if (hold.path("rule").asString().equals(sailings.name))
                api.post("/api/holds/" + hold.path("id").asLong() + "/end", "");
        choose(rule, new Wish.EachMessage());
        RunningService.await("nothing is kept", () -> !isEnding(rule));
        allArrive();
        report();
        allArrive();
        assertThat(arrived()).as("seed " + seed).containsExactlyInAnyOrderElementsOf(reported);
        if (!held) assertThat(arrived()).as("seed " + seed).containsExactlyElementsOf(reported);
    }

    /** A check commits while the collection is sent, and the choice is changed meanwhile. */
    @Test
    void whileChecksAndChoicesMeet() {
        var rule = active();
        var random = new Random(42);
        var changing = CompletableFuture.runAsync(() -> IntStream.range(0, 150).forEach(_ -> {
            choose(rule, any(random));
            if (random.nextBoolean()) itsTime();
        }));
        for (int i = 0; i < 20; i++) report();
        changing.join();
        choose(rule, new Wish.EachMessage());
        allArrive();
        assertThat(arrived()).containsExactlyInAnyOrderElementsOf(reported);
        assertThat(service.countRecords("select count(*) from message_recipient where state = 'WAITING' and address = '"
                        + reader + "'"))
                .isZero();
    }
}
