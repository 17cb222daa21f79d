package dev.oddsentry.service.incidents;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What the team that owns a rule is told while its checks fail. */
class IncidentMailTest {
    private static final RunningService service = RunningService.withItsOwnTime();

    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String path = "/api/rules/" + sailings.name;
    private final String team = sailings.name + "-team";
    private final String owner = team + "@skerryline.example";

    @AfterAll
    static void end() {
        service.close();
    }

    @BeforeEach
    void teamHasAnAddress() {
        api.put("/api/teams/" + team, Map.of("addresses", List.of(owner)));
    }

    @Test
    void whileChecksFailThereIsOneNoticeADay() {
        api.push(sailings.schedule("schedule: { when_empty: fail }")
                .saved()
                .replace("owner: Traffic reporting", "owner: " + team));
        api.post(path + "/activate", "");
        api.check(sailings.name);
        mails.sent(owner, 1);
        api.check(sailings.name);
        service.pass(Duration.ofHours(25));
        mails.sent(owner, 2);
        assertThat(mails.subjects(owner).getLast())
                .startsWith("Checks still failing: Late sailings of " + sailings.name);
        sailings.late("SK-1", 20);
        api.check(sailings.name);
        mails.sent(owner, 3);
        assertThat(mails.subjects(owner).getLast()).startsWith("Checks recovered");
    }

    @Test
    void eachMemberOfTheTeamIsToldInTheirLanguage() {
        String norwegian = "no-" + owner;
        api.put("/api/languages/" + norwegian, Map.of("language", "NB"));
        api.put("/api/teams/" + team, Map.of("addresses", List.of(owner, norwegian)));
        sailings.saved();
        api.push(sailings.rule()
                .replace("owner: Traffic reporting", "owner: " + team)
                .replace("delivery: { ", "delivery: { language: de, "));
        api.post(path + "/activate", "");
        sailings.change("alter table sailing_table drop column delay_min");
        var failed = api.check(sailings.name);
        assertThat(failed.path("failure").asString()).isEqualTo("SOURCE_REFUSED");
        assertThat(failed.path("reason").asString()).contains("delay_min");
        mails.sent(owner, 1);
        mails.sent(norwegian, 1);
        assertThat(mails.subjects(owner))
                .containsExactly("Prüfungen schlagen fehl: Late sailings of " + sailings.name + " (Regel "
                        + sailings.name + ")");
        assertThat(mails.lastText(owner))
                .contains("Die Quelle hat die Abfrage abgelehnt.", "Sie erhalten diese E-Mail")
                .doesNotContain("delay_min", "column", "refused");
        assertThat(mails.subjects(norwegian))
                .containsExactly(
                        "Kontroller feiler: Late sailings of " + sailings.name + " (regel " + sailings.name + ")");
        assertThat(mails.lastText(norwegian))
                .contains("Kilden avviste spørringen.")
                .doesNotContain("delay_min", "column");
    }
}
