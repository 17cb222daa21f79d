package dev.oddsentry.journeys;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Keyboard;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import dev.oddsentry.service.LateSailings;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Fields in which somebody types, with pauses between the keys and without. */
class WritingTest extends InTheConsole {

    /** Entries are offered meanwhile; none of them takes the place of what was typed. */
    @ParameterizedTest
    @ValueSource(ints = {0, 80})
    void enterEndsTheLineWhateverIsOffered(int pause) {
        logIn("/queries/new?source=ferry");
        var editor = page.locator(".cm-content").first();
        editor.click();
        page.keyboard().press("Control+A");
        page.keyboard().press("Delete");
        page.keyboard().type("select 1 as s from pg_class s", new Keyboard.TypeOptions().setDelay(pause));
        page.waitForTimeout(pause * 5.0);
        page.keyboard().press("Enter");
        page.keyboard().type("where true", new Keyboard.TypeOptions().setDelay(pause));
        assertThat(page.locator(".cm-line").nth(0)).hasText("select 1 as s from pg_class s");
        assertThat(page.locator(".cm-line").nth(1)).hasText("where true");
    }

    /** What is typed stays, and counts without a press of Enter. */
    @ParameterizedTest
    @ValueSource(ints = {0, 80, 300})
    void aValueOfTheBuilderCountsWhileItIsTyped(int pause) {
        var sailings = new LateSailings(service);
        sailings.saved();
        logIn("/rules/new?query=" + sailings.name);
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Add a comparison"))
                .click();
        page.getByLabel("Part 1: column").selectOption("delay_min");
        page.getByLabel("Part 1: comparison").selectOption(">");
        var value = page.getByLabel("Part 1: value");
        value.click();
        page.keyboard().press("Control+A");
        page.keyboard().type("127", new Keyboard.TypeOptions().setDelay(pause));
        assertThat(page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Exception: each row where")))
                .hasValue("delay_min > 127");
        assertThat(value).hasValue("127");
        assertThat(value).isFocused();
    }

    /** The address follows when typing pauses, and takes back no key. */
    @ParameterizedTest
    @ValueSource(ints = {0, 80, 300})
    void aSearchKeepsEachKey(int pause) {
        service.api().push(new LateSailings(service).saved());
        logIn("/rules");
        var field = page.locator("input[type=search]").first();
        field.click();
        page.keyboard().type("late UA 7", new Keyboard.TypeOptions().setDelay(pause));
        assertThat(field).hasValue("late UA 7");
        page.waitForURL(url -> url.endsWith("/rules?q=late+UA+7"));
        assertThat(field).hasValue("late UA 7");
    }
}
