package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.words.Phrases;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/** Several messages to one reader in one mail: what each said, in the order in which they came. */
public final class CollectionMail {
    private static final String SAID = "<!-- said -->";

    private final Collection collection;
    private final Wording words;
    private final Phrases phrases;

    private CollectionMail(Collection collection) {
        this.collection = collection;
        this.words = Wording.of(collection);
        this.phrases = words.phrases();
    }

    /** Why the messages were kept back. */
    public enum Reason {
        DAILY,
        WEEKLY,
        /** The reader wanted nothing until this day. */
        PAUSE,
        /** The reader wants each message on its own from now on. */
        ENDED
    }

    /**
     * @param part which of the mails of one collection it is, from 1; several where one would be too long
     * @param own the page where the reader changes what they get
     */
    public record Collection(
            Language language,
            ZoneId zone,
            Instant slot,
            Reason reason,
            int part,
            int parts,
            List<Item> items,
            String own) {}

    /**
     * @param text what the message says in plain text, without the links in its foot
     * @param html what {@link #said} gives of it
     */
    public record Item(String subject, Instant slot, String text, String html) {}

    /** One line without controls, fit for a header. */
    public static String subject(Collection collection) {
        return new CollectionMail(collection).subject();
    }

    public static String text(Collection collection) {
        return new CollectionMail(collection).text();
    }

    public static String html(Collection collection) {
        return new CollectionMail(collection).html();
    }

    /** What a mail's HTML says, without the frame around it. */
    public static String said(String html) {
        int from = html.indexOf(SAID);
        if (from >= 0) return html.substring(from + SAID.length(), end(html, "</div></body>"));
        int body = html.indexOf("<body");
        return body < 0 ? html : html.substring(html.indexOf('>', body) + 1, end(html, "</body>"));
    }

    private static int end(String html, String mark) {
        int end = html.lastIndexOf(mark);
        return end < 0 ? html.length() : end;
    }

    private String subject() {
        String all = phrases.of("collection." + collection.reason(), count());
        return collection.parts() == 1
                ? all
                : all + " " + phrases.of("collection.part", collection.part(), collection.parts());
    }

    private String count() {
        int items = collection.items().size();
        return items == 1 ? phrases.of("collection.one") : phrases.of("collection.many", items);
    }

    private String text() {
        var lines = new ArrayList<String>();
        lines.add(words.slot(collection.slot(), collection.zone()));
        lines.add("");
        lines.add(subject());
        for (var item : collection.items()) lines.add("- " + listed(item));
        for (var item : collection.items()) {
            lines.add("");
            lines.add("== " + listed(item) + " ==");
            lines.add("");
            lines.add(item.text().strip());
        }
        lines.add("");
        lines.add(phrases.of("collection.foot"));
        lines.add(phrases.of("own") + ": " + collection.own());
        return String.join("\n", lines) + "\n";
    }

    private String listed(Item item) {
        return Wording.oneLine(item.subject()) + " · " + words.slot(item.slot(), collection.zone());
    }

    private String html() {
        var page = new MailPage(words)
                .kicker(words.slot(collection.slot(), collection.zone()))
                .headline(subject())
                .paragraphs(collection.items().stream().map(this::listed).collect(Collectors.joining("\n")));
        collection.items().forEach(item -> page.collected(item.html()));
        return page.foot(phrases.of("collection.foot"), words.readerLinks(null, collection.own()))
                .html(subject(), listed(collection.items().getFirst()));
    }
}
