package dev.oddsentry.journeys;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.fail;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;

/** The workbench, in the order people work: a first rule from nothing, edits that meet, and all of it without a mouse. */
class WorkbenchTest extends InTheConsole {
    private static final int MOST_TABS = 250;

    /** A table that nothing reads yet. */
    private String table() {
        String name = "refund_" + UUID.randomUUID().toString().substring(0, 8);
        service.ferry("create table " + name + " (ticket text, amount int)");
        service.ferry("insert into " + name + " values ('T-1', 20), ('T-2', 900), ('T-3', null)");
        return name;
    }

    @Test
    void aFirstRuleIsMadeFromNothingAndItsMailArrives() {
        String table = table();
        String recipient = table + "@skerryline.example";
        logIn("/today");
        link("Queries").first().click();
        link("New query").first().click();
        page.getByLabel("Title").fill("Refunds " + table);
        typeSql("select ticket, amount from " + table);
        press("Run");
        assertThat(page.getByText("3 rows").first()).isVisible();
        assertThat(page.getByRole(AriaRole.CELL, new Page.GetByRoleOptions().setName("T-2")))
                .isVisible();
        press("Save");
        assertThat(link("Create rule").first()).isVisible();
        link("Create rule").first().click();

        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("New rule")))
                .isVisible();
        page.getByLabel("Title").fill("Great refunds " + table);
        page.getByLabel("Owner (team)").fill("Traffic reporting");
        var exceptions = page.getByLabel("Exception: each row where", new Page.GetByLabelOptions().setExact(true));
        exceptions.fill("amount > 100");
        assertThat(page.getByText("1 exception", new Page.GetByTextOptions().setExact(true))
                        .first())
                .isVisible();
        // The missing amount is said, and counted by one press.
        assertThat(page.getByText("Unknown: 1 row (amount is missing).")).isVisible();
        page.getByLabel("ticket", new Page.GetByLabelOptions().setExact(true))
                .first()
                .check();
        page.getByLabel("Repeat").selectOption("every day");
        page.getByLabel("At", new Page.GetByLabelOptions().setExact(true)).fill("05:40");
        assertThat(page.getByText("Every day at 05:40").first()).isVisible();
        assertThat(page.getByText("Show what is required")).isVisible();
        page.locator("#to").fill(recipient);
        page.locator("#to").blur();
        assertThat(page.locator("#review")).not().containsText("✕ missing");
        press("Save and activate");
        assertThat(page.getByText("active, revision 1")).isVisible();
        press("Check now");
        assertThat(page.getByText("1 finding reported in 1 message.").first()).isVisible();
        RunningService.await("the message", () -> !service.mailTo(recipient).isEmpty());
        assertThat(complaints).isEmpty();
    }

    @Test
    void theBuilderAndTheTextAlwaysSayTheSame() {
        var sailings =
                new LateSailings(service).late("SK-1", 20).late("SK-2", 60).active();
        logIn("/rules/" + sailings.name + "/edit");
        var text = page.getByLabel("Exception: each row where", new Page.GetByLabelOptions().setExact(true));
        page.getByLabel("Part 1: value").fill("30");
        page.getByLabel("Part 1: value").press("Enter");
        assertThat(text).hasValue("delay_min > 30 and reason is null");
        press("Remove part 2");
        assertThat(text).hasValue("delay_min > 30");
        // What has no fields is edited as it is written, and nothing locks.
        text.fill("delay_min > 30 and lower(reason) = 'fog'");
        assertThat(page.getByLabel("Part 2, as it is written")).hasValue("lower(reason) = 'fog'");
        page.getByLabel("Part 1: comparison").selectOption("is at least");
        assertThat(text).hasValue("delay_min >= 30 and lower(reason) = 'fog'");
        assertThat(complaints).isEmpty();
    }

    @Test
    void nothingTypedIsLostByLeavingOrByAnExpiredLogIn() {
        var sailings = new LateSailings(service).late("SK-1", 20).active();
        logIn("/rules/" + sailings.name + "/edit");
        var text = page.getByLabel("Exception: each row where", new Page.GetByLabelOptions().setExact(true));
        text.fill("delay_min > 33");
        assertThat(page.getByText("Not saved. Kept in this browser.")).isVisible();
        page.goBack();
        page.goForward();
        assertThat(text).hasValue("delay_min > 33");
        page.context().clearCookies();
        page.reload();
        page.getByLabel("Log-in name").fill("operator");
        page.getByLabel("Password").fill(RunningService.OPERATOR_PASSWORD);
        page.keyboard().press("Enter");
        assertThat(text).hasValue("delay_min > 33");
        assertThat(page.getByText("were restored")).isVisible();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Discard draft"))
                .click();
        assertThat(text).hasValue("delay_min > 15 and reason is null");
    }

    @Test
    void secondOfTwoEditsOfARuleIsRefused() {
        var sailings = new LateSailings(service).late("SK-1", 20).active();
        var other = anotherPage();
        logIn("/rules/" + sailings.name + "/edit");
        logIn(other, "/rules/" + sailings.name + "/edit");
        var mine = page.getByLabel("Exception: each row where", new Page.GetByLabelOptions().setExact(true));
        var theirs = other.getByLabel("Exception: each row where", new Page.GetByLabelOptions().setExact(true));
        mine.fill("delay_min > 18");
        theirs.fill("delay_min > 25");
        other.getByLabel("Reason for this change").fill("twenty-five was agreed");
        other.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Apply changes"))
                .click();
        assertThat(other.getByText("revision 2")).isVisible();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("saved revision 2");
        press("Apply changes");
        assertThat(page.getByText("Someone saved revision 2 while you edited revision 1")
                        .first())
                .isVisible();
        assertThat(mine).hasValue("delay_min > 18");
        press("Show their changes");
        assertThat(page.getByText("delay_min > 25").first()).isVisible();
        press("I have merged their changes; save mine");
        press("Apply changes");
        assertThat(page.getByText("revision 3")).isVisible();
        other.close();
    }

    @Test
    void aThresholdIsChangedAndItsEffectIsSeenBefore() {
        String threshold = "late_" + UUID.randomUUID().toString().substring(0, 8);
        service.api().push("kind: threshold\nname: " + threshold + "\nunit: min\n");
        service.api()
                .post(
                        "/api/thresholds/" + threshold + "/values",
                        Map.of("reason", "as agreed", "values", List.of(Map.of("number", 15))));
        var sailings = new LateSailings(service)
                .exceptions("delay_min > threshold('" + threshold + "')")
                .late("SK-1", 20)
                .late("SK-2", 60)
                .active();
        service.api().check(sailings.name);
        logIn("/thresholds/" + threshold);
        press("Edit or plan values");
        page.getByLabel("Value of line 1").fill("30");
        press("Show effect");
        assertThat(page.getByText("Late sailings of " + sailings.name).last()).isVisible();
        page.getByLabel("Reason").first().fill("twenty is usual in winter");
        press("Save");
        assertThat(page.getByRole(AriaRole.CELL, new Page.GetByRoleOptions().setName("twenty is usual in winter")))
                .isVisible();
        page.navigate(service.baseUrl() + "/rules/" + sailings.name);
        press("Check now");
        assertThat(page.getByText("2 rows read, 1 exception").first()).isVisible();
        assertThat(complaints).isEmpty();
    }

    @Test
    void openPageShowsTheCheckOfAnotherUser() {
        var sailings = new LateSailings(service).late("SK-1", 60).active();
        logIn("/findings?rule=" + sailings.name);
        assertThat(page.getByText("No findings match.")).isVisible();
        service.api().check(sailings.name);
        assertThat(page.getByText("1 finding, worst and newest first.")).isVisible();
        assertThat(complaints).isEmpty();
    }

    @Test
    void manyRulesAreFoundChosenAndPausedAfterTheList() {
        var one = new LateSailings(service).late("SK-1", 60).active();
        new LateSailings(service).active();
        logIn("/rules?q=" + one.name);
        assertThat(page.getByText("1 rule of")).isVisible();
        page.getByLabel("Select all results").check();
        press("Preview");
        press("Pause: 1 rule");
        assertThat(page.getByText("Changed: 1 rule.")).isVisible();
        assertThat(service.api()
                        .get("/api/rules/" + one.name)
                        .path("rule")
                        .path("state")
                        .asString())
                .isEqualTo("PAUSED");
        assertThat(complaints).isEmpty();
    }

    @Test
    void fromLogInToTheMailByTheKeyboardAlone() {
        String table = table();
        String recipient = table + "@skerryline.example";
        service.api()
                .push("kind: query\nname: " + table.replace('_', '-')
                        + "\nsource: ferry\nsql: select ticket, amount from " + table + "\n");
        page.navigate(service.baseUrl() + "/rules/new?query=" + table.replace('_', '-'));
        tabTo(page.getByLabel("Log-in name"));
        page.keyboard().type("operator");
        tabTo(page.getByLabel("Password"));
        page.keyboard().type(RunningService.OPERATOR_PASSWORD);
        page.keyboard().press("Enter");
        tabTo(page.getByLabel("Title"));
        page.keyboard().type("Refunds " + table);
        tabTo(page.getByLabel("Owner (team)"));
        page.keyboard().type("Traffic reporting");
        tabTo(page.getByLabel("Exception: each row where", new Page.GetByLabelOptions().setExact(true)));
        page.keyboard().type("amount > 100");
        // What is offered while one types is left by Escape, so that Tab goes on.
        page.keyboard().press("Escape");
        tabTo(page.getByLabel("ticket", new Page.GetByLabelOptions().setExact(true))
                .first());
        page.keyboard().press("Space");
        tabTo(page.locator("#to"));
        page.keyboard().type(recipient);
        assertThat(page.getByText("1 exception", new Page.GetByTextOptions().setExact(true))
                        .first())
                .isVisible();
        page.keyboard().press("Tab");
        assertThat(page.locator("#review")).not().containsText("✕ missing");
        tabTo(page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Save and activate")));
        page.keyboard().press("Enter");
        assertThat(page.getByText("active, revision 1")).isVisible();
        tabTo(page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Check now")));
        page.keyboard().press("Enter");
        assertThat(page.getByText("1 finding reported in 1 message.").first()).isVisible();
        RunningService.await("the message", () -> !service.mailTo(recipient).isEmpty());
        assertThat(complaints).isEmpty();
    }

    private Locator link(String name) {
        return page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(name));
    }

    private void typeSql(String sql) {
        var editor = page.locator(".cm-content");
        editor.click();
        page.keyboard().insertText(sql);
        assertThat(editor).containsText(sql);
    }

    /** As a person does: on and on until it has the focus, which must be seen. */
    private void tabTo(Locator wanted) {
        assertThat(wanted).isVisible();
        for (int i = 0; i < MOST_TABS; i++) {
            if ((Boolean) wanted.evaluate("each => each === document.activeElement")) {
                String outline = (String) wanted.evaluate(
                        "each => { const s = getComputedStyle(each); return s.outlineStyle + s.boxShadow }");
                assertThat(outline).as("the focus is seen on " + wanted).isNotEqualTo("nonenone");
                return;
            }
            page.keyboard().press("Tab");
        }
        fail("no way by Tab to " + wanted);
    }
}
