package dev.oddsentry.service.readers;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import java.util.regex.Pattern;

/** A rule, the recipients whom it mails, and the link in their messages, made for each test. */
abstract class ReaderLab {
    private static final Map<String, String> FORM = Map.of("Content-Type", "application/x-www-form-urlencoded");

    final RunningService service = RunningService.get();
    final HttpApi api = service.api();
    final HttpApi stranger = HttpApi.stranger(service.baseUrl());
    final LateSailings sailings = new LateSailings(service);
    final Mails mails = new Mails(service);
    final String reader = sailings.recipient;
    final String other = "other-" + sailings.recipient;

    final void active(String delivery) {
        sailings.saved();
        api.push(sailings.rule().replace("delivery: { to: [" + reader + "] }", "delivery: { " + delivery + " }"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
    }

    final void late(String sailing) {
        sailings.late(sailing, 20);
        api.check(sailings.name);
    }

    final String link(String address) {
        var found =
                Pattern.compile("Change what you get:\\s+https?://[^/]+(\\S+)").matcher(mails.lastText(address));
        assertThat(found.find()).as(mails.lastText(address)).isTrue();
        return found.group(1);
    }

    final String page(String link) {
        var answer = stranger.send("GET", link, null, Map.of());
        assertThat(answer.status()).isEqualTo(200);
        return answer.text();
    }

    final HttpApi.Answer act(String link, String form) {
        var id = Pattern.compile("name=\"definition\" value=\"([^\"]+)\"").matcher(page(link));
        assertThat(id.find()).isTrue();
        return stranger.send("POST", link, form.replace("{id}", id.group(1)), FORM);
    }

    final String chosen(String field) {
        return api.get("/api/rules/" + sailings.name + "/reader-choices")
                .path(0)
                .path(field)
                .asString();
    }

    /** As if the time of the next collection had come. */
    final void itsTime() {
        service.changeRecords(
                "update reader_choice set next_collection = now() - interval '1 second', paused_until = case when"
                        + " paused_until is null then null else now() end where address = '" + reader + "'");
    }
}
