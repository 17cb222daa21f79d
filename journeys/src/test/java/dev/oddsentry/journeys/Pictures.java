package dev.oddsentry.journeys;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * Takes the pictures of the README from a demo that runs: one for each main page, and one of the command line.
 *
 * <p>Arguments: the console's address, the mailbox's address, the log-in's password, the command {@code odd}, the folder to write to.
 */
final class Pictures {
    private static final int PHONE = 360;

    private final Page page;
    private final String console;
    private final Path folder;

    private Pictures(Page page, String console, Path folder) {
        this.page = page;
        this.console = console;
        this.folder = folder;
    }

    public static void main(String[] arguments) throws IOException, InterruptedException {
        try (var playwright = Playwright.create()) {
            var browser = playwright
                    .chromium()
                    .launch(new BrowserType.LaunchOptions()
                            .setExecutablePath(Path.of("/usr/bin/chromium"))
                            .setArgs(List.of("--no-sandbox", "--disable-dev-shm-usage", "--disable-gpu")));
            var page = browser.newPage(new Browser.NewPageOptions()
                    .setViewportSize(1280, 800)
                    .setTimezoneId("Europe/Oslo")
                    .setLocale("en-GB"));
            var pictures = new Pictures(page, arguments[0], Path.of(arguments[4]));
            pictures.logIn(arguments[2]);
            pictures.ofPages();
            pictures.ofMail(arguments[1]);
            pictures.ofCommands(arguments[3]);
            browser.close();
        }
    }

    private void logIn(String password) {
        page.navigate(console + "/today");
        page.getByLabel("Log-in name").fill("ines");
        page.getByLabel("Password").fill(password);
        page.keyboard().press("Enter");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Log out"))
                .waitFor();
    }

    private void ofPages() {
        take("/today", "today");
        open("/queries/sailings-lately");
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("Run").setExact(true))
                .click();
        page.getByText("rows").first().waitFor();
        save("query");
        take("/rules", "rules");
        take("/rules/late-sailings", "rule");
        take("/week", "week");
        open("/rules/late-sailings/edit");
        page.getByText("exceptions").first().waitFor();
        page.evaluate("document.getElementById('conditions').scrollIntoView()");
        save("editor");
        take("/findings", "findings");
        take("/recipients/per.aune@skerryline.example", "recipients");
        take("/outbox", "outbox");
        take("/setup", "setup");
        take("/calendars/norway", "calendar");
        take("/thresholds/fuel_per_mile", "threshold");
        open("/rules/late-sailings");
        page.getByText("Why?").first().click();
        save("explanation");
        open("/documents/rule/late-sailings");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Preview message"))
                .click();
        page.frameLocator("iframe").locator("h1").first().waitFor();
        save("document");
    }

    private void ofMail(String mailbox) {
        page.navigate(mailbox);
        save("mailbox");
        page.getByText("Late sailings without a reason").first().click();
        save("mail");
        String own = page.frames().stream()
                .map(frame -> frame.locator("a[href*='/your-mail/']"))
                .filter(links -> links.count() > 0)
                .map(links -> links.first().getAttribute("href"))
                .findFirst()
                .orElseThrow();
        page.setViewportSize(PHONE, 740);
        save("mail-phone");
        page.setViewportSize(1280, 800);
        page.navigate(own);
        page.getByText("Change how you get it").first().click();
        save("your-mail");
    }

    /** What the commands print, in a page of its own. */
    private void ofCommands(String odd) throws IOException, InterruptedException {
        var text = new StringBuilder();
        for (String command : List.of(
                "rules", "explain late-sailings", "preview late-sailings", "statement late-sailings", "doctor")) {
            text.append("$ odd ")
                    .append(command)
                    .append('\n')
                    .append(run(odd, command))
                    .append('\n');
        }
        page.setContent("<pre style=\"font: 13px/1.45 monospace; padding: 1rem\"></pre>");
        page.locator("pre").evaluate("(pre, text) => { pre.textContent = text }", text.toString());
        save("command-line");
    }

    private static String run(String odd, String command) throws IOException, InterruptedException {
        var call = new ArrayList<String>();
        call.add(odd);
        call.addAll(List.of(command.split(" ")));
        var process = new ProcessBuilder(call).redirectErrorStream(true).start();
        String text = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        process.waitFor();
        return text;
    }

    private void open(String path) {
        page.navigate(console + path);
        page.locator("h1").first().waitFor();
    }

    private void take(String path, String name) {
        open(path);
        save(name);
    }

    private void save(String name) {
        // Lists come in, and charts settle.
        page.waitForTimeout(1_500);
        page.screenshot(new Page.ScreenshotOptions().setPath(folder.resolve(name + ".png")));
    }
}
