package dev.oddsentry.service.api.readers;

import dev.oddsentry.core.extract.Language;
import java.nio.charset.StandardCharsets;
import java.util.ResourceBundle;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.util.HtmlUtils;

/** What a reader sees who opens their link: plain pages without a script, in the language of the mail. */
record UnsubscribePages(Language language, String title, String owner, String address, String token) {
    private static final String POLICY =
            "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";
    private static final String STYLE = """
            body{margin:0;background:#faf8f4;color:#22303c;font:16px/1.5 -apple-system,'Segoe UI',Roboto,Helvetica,Arial,sans-serif}
            main{max-width:34rem;margin:12vh auto 0;padding:0 18px}
            h1{font-size:22px;line-height:1.25;margin:0 0 .5em}
            button{font:inherit;font-weight:600;background:#22303c;color:#faf8f4;border:1px solid #22303c;border-radius:6px;padding:10px 18px}
            button:focus-visible{outline:3px solid #c77d0a;outline-offset:2px}
            p.quiet{color:#5d6b78}
            @media(prefers-color-scheme:dark){body{background:#1b242c;color:#ece7dc}button{background:#ece7dc;color:#22303c}p.quiet{color:#a9b4be}}
            """;

    private ResourceBundle words() {
        return ResourceBundle.getBundle(
                "dev.oddsentry.service.reach.pages",
                language.locale(),
                ResourceBundle.Control.getNoFallbackControl(ResourceBundle.Control.FORMAT_PROPERTIES));
    }

    private String word(String key) {
        return escape(words().getString(key)
                .replace("{title}", title)
                .replace("{owner}", owner)
                .replace("{address}", address));
    }

    String input() {
        return page(
                language.code(),
                word("question"),
                "<p>" + word("question.more") + "</p>" + button(token, word("stop")) + "<p class=\"quiet\">"
                        + word("question.none") + "</p>");
    }

    String left() {
        return page(
                language.code(),
                word("left"),
                "<p>" + word("left.more") + "</p>" + button(token + "/back", word("again")));
    }

    String back() {
        return page(language.code(), word("back"), "<p>" + word("back.more") + "</p>");
    }

    /** As a page that nobody keeps, and that says nothing of its address to others. */
    static ResponseEntity<String> answer(HttpStatus status, String html) {
        return ResponseEntity.status(status)
                .header("Content-Security-Policy", POLICY)
                .header("Referrer-Policy", "no-referrer")
                .header("Cache-Control", "no-store")
                .body(html);
    }

    /** A visitor without a valid link learns nothing of what is there. */
    static ResponseEntity<String> unknown() {
        return answer(
                HttpStatus.NOT_FOUND,
                page(
                        "en",
                        "This link is invalid or has expired",
                        "<p>Each link is for one message and one recipient, and works for 90 days. Open it from the email you received, or ask the sender.</p>"));
    }

    /** @param to relative to the page, which may stand below another path */
    private static String button(String to, String text) {
        return "<form method=\"post\" action=\"" + escape(to) + "\"><button type=\"submit\">" + text
                + "</button></form>";
    }

    private static String page(String language, String heading, String body) {
        return "<!doctype html><html lang=\"" + language + "\"><head><meta charset=\"utf-8\">"
                + "<meta name=\"viewport\" content=\"width=device-width\"><meta name=\"robots\" content=\"noindex\"><title>"
                + heading + "</title><style>" + STYLE + "</style></head><body><main><h1>" + heading + "</h1>" + body
                + "</main></body></html>";
    }

    private static String escape(String text) {
        return HtmlUtils.htmlEscape(text, StandardCharsets.UTF_8.name());
    }
}
