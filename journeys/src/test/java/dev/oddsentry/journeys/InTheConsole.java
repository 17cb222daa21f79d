package dev.oddsentry.journeys;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import dev.oddsentry.service.RunningService;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;

/** A service, its console in headless Chromium, and someone who logs in. */
abstract class InTheConsole {
    static Playwright playwright;
    static Browser browser;

    final RunningService service = RunningService.get();
    final List<String> complaints = new ArrayList<>();
    Page page;

    @BeforeAll
    static void startBrowser() {
        PlaywrightAssertions.setDefaultAssertionTimeout(20_000);
        playwright = Playwright.create();
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--disable-dev-shm-usage",
                                "--disable-gpu",
                                "--disable-background-networking")));
    }

    @AfterAll
    static void stopBrowser() {
        browser.close();
        playwright.close();
    }

    @BeforeEach
    void open() {
        page = anotherPage();
    }

    /** Of someone who shares nothing with the others. */
    final Page anotherPage() {
        var another = browser.newPage(new Browser.NewPageOptions()
                .setViewportSize(1280, 800)
                .setTimezoneId("Europe/Oslo")
                .setLocale("en-GB"));
        another.onConsoleMessage(message -> {
            if (message.type().equals("error") && !message.text().contains("status of 401"))
                complaints.add(message.text());
        });
        another.onPageError(complaints::add);
        return another;
    }

    @AfterEach
    void close() {
        page.close();
    }

    void logIn(String path) {
        logIn(page, path);
    }

    final void logIn(Page page, String path) {
        page.navigate(service.baseUrl() + path);
        page.getByLabel("Log-in name").fill("operator");
        page.getByLabel("Password").fill(RunningService.OPERATOR_PASSWORD);
        page.keyboard().press("Enter");
        // On a narrow screen it is folded into the menu.
        assertThat(page.locator("header.top .who")).isAttached();
    }

    final void press(String button) {
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName(button).setExact(true))
                .click();
    }
}
