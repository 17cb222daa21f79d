package dev.oddsentry.journeys;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import dev.oddsentry.identity.IdentityProviderStandIn;
import dev.oddsentry.identity.KnownUser;
import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.testkit.FreePorts;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;

/**
 * Logs in through an identity provider in a real browser. The provider is at {@code localhost}, the service at {@code 127.0.0.1}: to a browser these are two
 * sites, as they are in a company, so that it keeps strict cookies back on the way between them.
 */
class SingleSignOnTest extends InTheConsole {
    private static final String SECRET = "the-secret-of-this-client";

    private final int port = FreePorts.next();
    private final String address = "http://127.0.0.1:" + port;
    private IdentityProviderStandIn directory;
    private ConfigurableApplicationContext node;

    @BeforeEach
    void start() {
        String records = "records_sso_" + System.nanoTime();
        service.execute("postgres", "create database " + records);
        node = service.startNode(
                "sso", service.postgres().jdbcUrl(records), "--server.port=" + port, "--oddsentry.base-url=" + address);
        var client = new IdentityProviderStandIn.Client(
                "odd-sentry", SECRET, List.of(address + "/sign-on/skerry/return"), address + "/login");
        var kari = new KnownUser("kari", "Kari Nes", "kari@skerryline.example", "kari-knows-2", Set.of("staff"));
        directory = IdentityProviderStandIn.start(0, client, List.of(kari));
        HttpApi.loggedIn(address, "operator", RunningService.OPERATOR_PASSWORD)
                .put(
                        "/api/identity-providers/skerry",
                        Map.of(
                                "title",
                                "Skerry directory",
                                "issuer",
                                directory.issuer().replace("127.0.0.1", "localhost"),
                                "clientId",
                                "odd-sentry",
                                "clientSecret",
                                SECRET,
                                "addsPeople",
                                true,
                                "otherRole",
                                "ANALYST",
                                "addressesVerified",
                                false,
                                "active",
                                true,
                                "groups",
                                List.of()));
    }

    @AfterEach
    void stop() {
        directory.close();
        node.close();
    }

    private void logInAtTheProvider() {
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Log in through Skerry directory"))
                .click();
        page.waitForURL(Pattern.compile("http://localhost:.*/login.*"));
        page.getByLabel("Username").fill("kari");
        page.getByLabel("Password").fill("kari-knows-2");
        page.keyboard().press("Enter");
    }

    @Test
    void leadsToThePageThatWasAskedForAndOutAgain() {
        page.navigate(address + "/queries");
        logInAtTheProvider();
        assertThat(page.locator("header.top .who")).containsText("Kari Nes");
        assertThat(page).hasURL(address + "/queries");
        page.reload();
        assertThat(page.locator("header.top .who")).containsText("Kari Nes");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Log out"))
                .click();
        assertThat(page).hasURL(address + "/login");
        logInAtTheProvider();
        assertThat(page).hasURL(address + "/today");
        assertThat(complaints).isEmpty();
    }

    /** What was typed stays, since the provider opens beside it. */
    @Test
    void logsInBesideAPageWhoseSessionHasExpired() {
        page.navigate(address + "/queries/new");
        logInAtTheProvider();
        assertThat(page.locator("header.top .who")).containsText("Kari Nes");
        page.context().clearCookies();
        page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Rules").setExact(true))
                .click();
        var dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog).isVisible();
        var beside = page.waitForPopup(() -> dialog.getByRole(AriaRole.LINK).click());
        beside.getByLabel("Username").fill("kari");
        beside.getByLabel("Password").fill("kari-knows-2");
        beside.keyboard().press("Enter");
        assertThat(beside.locator("header.top .who")).containsText("Kari Nes");
        beside.close();
        page.bringToFront();
        page.evaluate("window.dispatchEvent(new Event('focus'))");
        assertThat(dialog).isHidden();
        assertThat(page.locator("header.top .who")).containsText("Kari Nes");
    }
}
