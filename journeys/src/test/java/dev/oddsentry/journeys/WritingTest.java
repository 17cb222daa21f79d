package dev.oddsentry.journeys;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Keyboard;
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
