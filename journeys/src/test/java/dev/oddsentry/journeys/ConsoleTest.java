package dev.oddsentry.journeys;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import dev.oddsentry.service.LateSailings;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** The console in headless Chromium, from log-in to the mail. */
class ConsoleTest extends InTheConsole {
    @Test
    void fromLogInToTheMailAndTheSecondCheckThatMailsNothing() {
        var sailings = new LateSailings(service)
                .late("SK-412 <b>", 71)
                .late("SK-208", 22)
                .active();
        logIn("/rules");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Late sailings of " + sailings.name))
                .click();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Check now"))
                .click();
        assertThat(page.getByRole(AriaRole.STATUS).first())
                .containsText("2 findings reported in 1 message. 2 rows read, 2 exceptions.");
        assertThat(page.getByRole(
                        AriaRole.CELL,
                        new Page.GetByRoleOptions().setName("SK-412 <b>").setExact(true)))
                .isVisible();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Check now"))
                .click();
        // Pressing twice is not asking twice.
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Check again"))
                .click();
        assertThat(page.getByRole(AriaRole.STATUS).first()).containsText("Nothing new, so nothing was sent.");
        page.navigate(service.baseUrl() + "/outbox?rule=" + sailings.name);
        page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("1 critical, 1 warning: Late sailings of " + sailings.name))
                .click();
        var mail = page.frameLocator("iframe");
        assertThat(mail.getByRole(AriaRole.HEADING)).hasText("2 new (1 critical)");
        assertThat(mail.getByText("SK-412 <b>").last()).isVisible();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Plain text"))
                .click();
        assertThat(page.getByText("*Late by 71 min*")
                        .or(page.getByText("71 min"))
                        .first())
                .isVisible();
        assertThat(complaints).isEmpty();
    }

    @Test
    void aFailingSourceIsSeenAndExplained() {
        var sailings =
                new LateSailings(service).late("SK-1", 20).late("SK-1", 25).active();
        service.api().check(sailings.name);
        logIn("/today");
        assertThat(page.getByText("Late sailings of " + sailings.name + " could not be checked")
                        .first())
                .isVisible();
        assertThat(page.getByText("Two rows have the same key values (sailing): SK-1")
                        .first())
                .isVisible();
    }

    @Test
    void loggingOutLeavesNothingToSee() {
        logIn("/today");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Log out"))
                .click();
        assertThat(page.getByLabel("Password")).isVisible();
        page.navigate(service.baseUrl() + "/rules");
        assertThat(page.getByLabel("Password")).isVisible();
    }

    @ParameterizedTest
    @EnumSource(
            value = ColorScheme.class,
            names = {"LIGHT", "DARK"})
    void axeFindsNothingOnAnyPageAndNothingIsCutOffOnAPhone(ColorScheme scheme) {
        var sailings =
                new LateSailings(service).late("SK-1", 20).late("SK-2", 60).active();
        service.api().check(sailings.name);
        String message = service.api()
                .get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0)
                .path("id")
                .asString();
        String threshold = thresholdKeptByRoute();
        page.emulateMedia(new Page.EmulateMediaOptions().setColorScheme(scheme));
        page.setViewportSize(360, 740);
        page.navigate(service.baseUrl() + "/login");
        assertThat(page.getByLabel("Password")).isVisible();
        assertAccessible("/login");
        logIn("/today");
        for (String path : List.of(
                "/today",
                "/queries",
                "/queries/new",
                "/queries/" + sailings.name,
                "/rules",
                "/rules/new",
                "/findings",
                "/recipients",
                "/recipients/ines.holm@skerryline.example",
                "/rules/" + sailings.name,
                "/rules/" + sailings.name + "/edit",
                "/thresholds",
                "/thresholds/" + threshold,
                "/thresholds/new",
                "/thresholds/" + threshold + "/edit",
                "/statements",
                "/week",
                "/findings/over-time",
                "/recipient-lists/new",
                "/setup",
                "/setup/schedules",
                "/setup/mail",
                "/setup/people",
                "/calendars/new",
                "/round-ups/new",
                "/layouts/new",
                "/outbox",
                "/documents/rule/" + sailings.name,
                "/documents/new",
                "/outbox/" + message,
                "/extracts/" + message)) {
            page.navigate(service.baseUrl() + path);
            assertThat(page.getByRole(AriaRole.HEADING).first()).isVisible();
            page.waitForTimeout(300);
            openWhatIsFolded(path);
            assertAccessible(path);
            assertThat((Boolean) page.evaluate("document.documentElement.scrollWidth <= window.innerWidth"))
                    .as(path + " fits 360 px")
                    .isTrue();
        }
    }

    private void openWhatIsFolded(String path) {
        if (path.equals("/today")) {
            press("Menu");
            assertThat(page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Log out")))
                    .isVisible();
        }
        if (path.equals("/rules")) press("Columns");
        if (path.matches("/thresholds/(?!new$)[^/]+")) press("Edit or plan values");
        if (path.matches("/rules/.+/edit")) {
            press("Preview");
            assertThat(page.getByText("a check now would report").first()).isVisible();
            press("Run");
            assertThat(page.getByText("cannot be compared")
                            .or(page.getByText("no past slots"))
                            .first())
                    .isVisible();
        }
    }

    private String thresholdKeptByRoute() {
        String name = "load_" + UUID.randomUUID().toString().substring(0, 8);
        service.api().push("kind: threshold\nname: " + name + "\ntitle: poor load\nunit: heads\nkey: [route]\n");
        service.api()
                .post(
                        "/api/thresholds/" + name + "/values",
                        Map.of(
                                "reason",
                                "as agreed",
                                "values",
                                List.of(Map.of("number", 112), Map.of("key", List.of("Holm – Vik"), "number", 95))));
        return name;
    }

    @Test
    void anErrorInAConditionIsPutRightInTheEditorPreviewedAndSaved() {
        var sailings =
                new LateSailings(service).late("SK-1", 20).late("SK-2", 60).active();
        logIn("/rules/" + sailings.name);
        page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Edit").setExact(true))
                .click();
        var exceptions = page.getByLabel("Exception: each row where", new Page.GetByLabelOptions().setExact(true));
        exceptions.fill("delay_min > 30 and resaon is null");
        assertThat(page.getByText("did you mean “reason”? (line 1, column 20)").first())
                .isVisible();
        exceptions.fill("delay_min > 30 and reas");
        exceptions.press("Control+ ");
        assertThat(page.locator("li[role=option]").filter(new Locator.FilterOptions().setHasText("reason")))
                .isVisible();
        page.keyboard().press("Enter");
        // Typed any sooner, it would go where the caret was.
        assertThat(exceptions).hasValue("delay_min > 30 and reason");
        page.keyboard().type(" is null");
        assertThat(page.getByText("Late by more than 30 min and reason is missing."))
                .isVisible();
        press("Preview");
        assertThat(page.getByText("1 removed (SK-1)")).isVisible();
        press("Save draft");
        assertThat(page.getByText("Draft changes by")).isVisible();
        assertThat(page.getByText("revision 1")).isVisible();
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Show"))
                .click();
        assertThat(page.getByText("The active rule is unchanged until these changes are applied"))
                .isVisible();
        page.getByLabel("Reason for this change").fill("thirty was meant");
        press("Apply changes");
        assertThat(page.getByText("revision 2")).isVisible();
        assertThat(page.getByText("Draft changes by")).isHidden();
        assertThat(page.getByText("delay_min > 30 and reason is null").first()).isVisible();
        assertThat(complaints).isEmpty();
    }

    @Test
    void aLeadPlansAValueAsATableAndSeesItsEffectBeforeAndItsReasonAfter() {
        String threshold = thresholdKeptByRoute();
        logIn("/thresholds/" + threshold);
        press("Edit or plan values");
        press("Add line");
        page.getByLabel("route of line 3").fill("Varsund – Holm");
        page.getByLabel("From, of line 3; empty for always").fill("2031-06-01");
        page.getByLabel("Value of line 3").fill("140.5");
        press("Show effect");
        assertThat(page.getByText("No rule uses it.")).isVisible();
        page.getByLabel("Reason").first().fill("summer timetable");
        press("Save");
        assertThat(page.getByText("planned", new Page.GetByTextOptions().setExact(true)))
                .isVisible();
        assertThat(page.getByRole(AriaRole.CELL, new Page.GetByRoleOptions().setName("summer timetable")))
                .isVisible();
        assertThat(page.getByText("140.5 heads")).isVisible();
        assertThat(complaints).isEmpty();
    }

    @SuppressWarnings("unchecked")
    private void assertAccessible(String path) {
        // Not as a script element: the page's own policy refuses foreign scripts, as it should.
        page.evaluate(axe());
        var result = (Map<String, Object>)
                page.evaluate(
                        "async () => ({ found: (await axe.run(document, { iframes: false })).violations.map(v => v.id + ': ' + v.nodes.map(n => n.html).join(' | ')) })");
        assertThat((List<String>) result.get("found")).as("axe on " + path).isEmpty();
    }

    private static String axe() {
        try {
            return Files.readString(Path.of(System.getProperty("odd.axe")));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
