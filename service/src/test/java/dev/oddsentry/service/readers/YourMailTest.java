package dev.oddsentry.service.readers;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What a recipient without an account sees and does by the link in each message. */
class YourMailTest extends ReaderLab {
    @Test
    void saysWhatTheReaderGetsAndWhyAndLookingChangesNothing() {
        active("to: [" + reader + ", " + other + "]");
        late("SK-1");
        mails.sent(reader, 1);
        mails.sent(other, 1);
        String page = page(link(reader));
        assertThat(page)
                .contains("Everything that is sent to " + reader, "Late sailings of " + sailings.name)
                .contains("Traffic reporting sends it to you as a named recipient.", "1 message in the last 30 days.")
                .contains(
                        "You get each message when it is ready.",
                        "All messages of a day together",
                        "Nothing for a while")
                .doesNotContain("SK-1", other, "<script");
        assertThat(api.get("/api/rules/" + sailings.name + "/reader-choices")).isEmpty();
        assertThat(link(reader)).isNotEqualTo(link(other));
        String stored = api.get("/api/outbox/" + link(reader).split("/")[2])
                .path("text")
                .asString();
        for (String wrong : List.of(
                link(reader) + "x",
                link(reader).replaceAll("/your-mail/[^/]+", "/your-mail/" + java.util.UUID.randomUUID()),
                link(reader).replace("your-mail", "leave"),
                "/your-mail/x/y",
                stored.replaceAll("(?s).*Change what you get:\\s+https?://[^/]+(\\S+).*", "$1")))
            assertThat(stranger.send("GET", wrong, null, Map.of()).status())
                    .as(wrong)
                    .isEqualTo(404);
    }

    @Test
    void theOwnerSaysWhatMayBeChosenAndEndsAChoice() {
        active("to: [" + reader + "], refuse_choices: [pause, link], allow_unsubscribe: true");
        late("SK-1");
        mails.sent(reader, 1);
        String link = link(reader);
        assertThat(page(link))
                .contains("All messages of a day")
                .doesNotContain("Nothing for a while", "Files as links");
        var refused = act(link, "act=choose&definition={id}&how=pause&until=2099-01-01");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("The sender does not allow this choice.");
        act(link, "act=choose&definition={id}&how=daily&hour=23");
        late("SK-2");
        mails.sent(reader, 1);
        api.delete("/api/rules/" + sailings.name + "/reader-choices/" + reader);
        mails.sent(reader, 2);
        assertThat(mails.lastText(reader)).contains("SK-2");

        act(link, "act=choose&definition={id}&how=daily&hour=23");
        api.push(sailings.rule()
                .replace(
                        "delivery: { to: [" + reader + "] }",
                        "delivery: { to: [" + reader + "], refuse_choices: [pause, collect, link] }"));
        late("SK-3");
        mails.sent(reader, 3);
        assertThat(page(link(reader)))
                .contains("The sender does not offer other ways", "You get each message when it is ready.");
        assertThat(act(link, "act=leave&definition={id}").status())
                .as("the rule does not allow it any more")
                .isEqualTo(422);
        assertThat(api.send(
                                "DELETE",
                                "/api/rules/" + sailings.name + "/reader-choices/nobody@skerryline.example",
                                null,
                                Map.of())
                        .status())
                .isEqualTo(404);
    }

    @Test
    void aReaderLeavesAndComesBackAndWhatWaitedIsNotSent() {
        active("to: [" + reader + ", " + other + "], allow_unsubscribe: true");
        late("SK-1");
        mails.sent(reader, 1);
        String link = link(reader);
        act(link, "act=choose&definition={id}&how=daily&hour=23");
        late("SK-2");
        mails.sent(other, 2);
        assertThat(act(link, "act=leave&definition={id}").text()).contains("You are unsubscribed", "Resubscribe");
        itsTime();
        RunningService.await(
                "what waited is cancelled",
                () -> api.get("/api/outbox?rule=" + sailings.name).toString().contains("The recipient unsubscribed."));
        assertThat(act(link, "act=return&definition={id}").text()).contains("You are subscribed to");
        mails.sent(reader, 1);
    }

    @Test
    void aReaderWithoutAnAccountGetsNoFilesBehindTheLogIn() {
        HttpApi.newUser(service, "harbour-" + sailings.name, "READER", List.of(), other);
        active("to: [" + reader + ", " + other + "], attach: [csv]");
        late("SK-1");
        mails.sent(reader, 1);
        mails.sent(other, 1);
        assertThat(page(link(reader))).doesNotContain("Files as links");
        assertThat(page(link(other))).contains("Files as links");
        act(link(other), "act=choose&definition={id}&how=each&link=yes");
        late("SK-2");
        mails.sent(reader, 2);
        mails.sent(other, 2);
        assertThat(mails.lastText(other)).contains("Files in the online report, as you chose: ");
        assertThat(mails.lastText(reader)).doesNotContain("as you chose");
    }

    @Test
    void aReaderAsksTheOwnerAndSetsTheirLanguage() {
        String team = "Harbour " + sailings.name;
        String desk = "desk-" + reader;
        api.put("/api/teams/" + team.replace(" ", "%20"), Map.of("addresses", List.of(desk)));
        sailings.saved();
        api.push(sailings.rule().replace("owner: Traffic reporting", "owner: " + team));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        late("SK-1");
        mails.sent(reader, 1);
        String link = link(reader);
        assertThat(act(link, "act=ask&definition={id}&question=+").status()).isEqualTo(422);
        assertThat(act(link, "act=ask&definition={id}&question=Why+%3CSK-1%3E%3F%0D%0ABcc%3A+x%40y")
                        .text())
                .contains("Your question was sent to " + team);
        mails.sent(desk, 1);
        assertThat(mails.subjects(desk)).containsExactly("Question about \"Late sailings of " + sailings.name + "\"");
        assertThat(mails.lastText(desk)).contains("> Why <SK-1>?", "> Bcc: x@y", "Your answer goes to " + reader);
        assertThat(service.mailTo(desk).getLast())
                .satisfies(mail -> assertThat(mail.getReplyTo()[0].toString()).isEqualTo(reader));
        for (int i = 1; i < OwnerQuestions.MOST_A_DAY; i++) act(link, "act=ask&definition={id}&question=again");
        var tooMany = act(link, "act=ask&definition={id}&question=once+more");
        assertThat(tooMany.status()).isEqualTo(422);
        assertThat(tooMany.text()).contains("You asked 5 questions in a day.", "once more");

        assertThat(act(link, "act=language&language=nb").text())
                .contains("E-posten din fra Odd Sentry", "Språket ditt er lagret.");
        assertThat(act(link, "act=language&language=xx").status()).isEqualTo(422);
        late("SK-2");
        mails.sent(reader, 2);
        assertThat(mails.lastText(reader)).contains("Endre hva du får");
        assertThat(act(link, "act=something&definition={id}").status()).isEqualTo(422);
        assertThat(act(link, "act=choose&definition=" + java.util.UUID.randomUUID())
                        .status())
                .isEqualTo(422);
    }
}
