package dev.oddsentry.demo;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.internet.ContentType;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.Base64;
import java.util.Locale;
import java.util.concurrent.Executors;
import org.jspecify.annotations.Nullable;

/** A page over the stand-in's mail, for people who try the demo: the list, and one message as its recipient sees it. */
final class MailboxPage {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
    private static final String HEAD = """
            <!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
            <title>Mailbox of the demo</title><style>
            body { margin:0; background:#faf8f4; color:#22303c; font:16px/1.45 system-ui,sans-serif }
            header, main { max-width:760px; margin:0 auto; padding:16px } h1 { font-size:22px; margin:0 }
            p { color:#5d6b78; margin:4px 0 } a { color:inherit; text-underline-offset:3px }
            ol { list-style:none; margin:0; padding:0; background:#fff; border:1px solid #e3ded4; border-radius:6px }
            li { border-bottom:1px solid #e3ded4; padding:10px 14px } li:last-child { border:0 } li a { font-weight:600; text-decoration:none; display:block }
            small { color:#5d6b78 } iframe { width:100%; height:70vh; border:1px solid #e3ded4; border-radius:6px; background:#fff }
            pre { background:#fff; border:1px solid #e3ded4; border-radius:6px; padding:14px; white-space:pre-wrap }
            </style>""";

    private final MailStandIn mail;

    MailboxPage(MailStandIn mail) {
        this.mail = mail;
    }

    void start(int port) throws IOException {
        var server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.createContext("/", this::answer);
        server.start();
    }

    private void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            String[] path = exchange.getRequestURI().getPath().split("/");
            if (path.length < 2) page(exchange, list());
            else answer(exchange, mail.message(path[1]), path.length > 2 ? path[2] : "");
        } catch (MessagingException e) {
            send(exchange, 500, "text/plain; charset=utf-8", e.toString().getBytes(StandardCharsets.UTF_8));
        }
    }

    private static void answer(HttpExchange exchange, MailStandIn.@Nullable Kept kept, String view)
            throws IOException, MessagingException {
        if (kept == null) {
            send(
                    exchange,
                    404,
                    "text/plain; charset=utf-8",
                    "There is no such message.".getBytes(StandardCharsets.UTF_8));
            return;
        }
        switch (view) {
            case "html" -> {
                exchange.getResponseHeaders()
                        .set(
                                "Content-Security-Policy",
                                "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox");
                send(
                        exchange,
                        200,
                        "text/html; charset=utf-8",
                        withPictures(content(kept.message(), "text/html"), kept.message())
                                .getBytes(StandardCharsets.UTF_8));
            }
            case "source" -> {
                var bytes = new ByteArrayOutputStream();
                kept.message().writeTo(bytes);
                send(exchange, 200, "message/rfc822", bytes.toByteArray());
            }
            default -> page(exchange, one(kept));
        }
    }

    private String list() throws IOException, MessagingException {
        var html = new StringBuilder(
                "<header><h1>Mailbox of the demo</h1><p>Everything that the service has mailed, to whomever. It belongs to the demo, not to the service.</p></header><main>");
        var messages = mail.messages();
        if (messages.isEmpty()) html.append("<p>No mail yet. Press <b>Check now</b> on a rule in the console.</p>");
        html.append("<ol>");
        for (var kept : messages) {
            html.append("<li><a href=\"/")
                    .append(kept.name())
                    .append("\">")
                    .append(escape(kept.message().getSubject()))
                    .append("</a><small>")
                    .append(escape(about(kept)))
                    .append("</small></li>");
        }
        return html.append("</ol></main>").toString();
    }

    private static String about(MailStandIn.Kept kept) throws MessagingException {
        String when = TIME.format(kept.message().getSentDate().toInstant().atZone(Demo.ZONE));
        return when + ", to "
                + String.join(
                        ", ",
                        Arrays.stream(kept.message().getAllRecipients())
                                .map(Object::toString)
                                .toList());
    }

    private static String one(MailStandIn.Kept kept) throws IOException, MessagingException {
        String link = "/" + kept.name();
        return "<header><p><a href=\"/\">All mail</a> · <a href=\"" + link + "/source\">source</a></p><h1>"
                + escape(kept.message().getSubject())
                + "</h1><p>" + escape(about(kept)) + "</p></header><main><iframe title=\"The mail\" sandbox src=\""
                + link + "/html\"></iframe>"
                + "<h2>As plain text</h2><pre>" + escape(content(kept.message(), "text/plain")) + "</pre></main>";
    }

    private static String content(Part part, String type) throws MessagingException, IOException {
        if (part.getFileName() != null) return "";
        if (part.isMimeType(type)) return (String) part.getContent();
        if (part.getContent() instanceof Multipart several) {
            for (int i = 0; i < several.getCount(); i++) {
                String found = content(several.getBodyPart(i), type);
                if (!found.isEmpty()) return found;
            }
        }
        return "";
    }

    /** A browser has no parts of a mail to look into. */
    private static String withPictures(String html, Part part) throws MessagingException, IOException {
        if (part.isMimeType("image/*") && part.getHeader("Content-ID") != null) {
            try (var bytes = part.getInputStream()) {
                return html.replace(
                        "\"cid:" + part.getHeader("Content-ID")[0].replaceAll("[<>]", "") + "\"",
                        "\"data:" + new ContentType(part.getContentType()).getBaseType() + ";base64,"
                                + Base64.getEncoder().encodeToString(bytes.readAllBytes()) + "\"");
            }
        }
        String found = html;
        if (part.getFileName() == null && part.getContent() instanceof Multipart several)
            for (int i = 0; i < several.getCount(); i++) found = withPictures(found, several.getBodyPart(i));
        return found;
    }

    private static void page(HttpExchange exchange, String body) throws IOException {
        send(exchange, 200, "text/html; charset=utf-8", (HEAD + body).getBytes(StandardCharsets.UTF_8));
    }

    private static void send(HttpExchange exchange, int status, String type, byte[] body) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", type);
        exchange.sendResponseHeaders(status, body.length);
        exchange.getResponseBody().write(body);
    }

    private static String escape(@Nullable String text) {
        return text == null
                ? ""
                : text.replace("&", "&amp;")
                        .replace("<", "&lt;")
                        .replace(">", "&gt;")
                        .replace("\"", "&quot;");
    }
}
