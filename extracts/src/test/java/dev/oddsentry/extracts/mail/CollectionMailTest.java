package dev.oddsentry.extracts.mail;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.mail.CollectionMail.Collection;
import dev.oddsentry.extracts.mail.CollectionMail.Item;
import dev.oddsentry.extracts.mail.CollectionMail.Reason;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class CollectionMailTest {
    private static final Instant SLOT = Instant.parse("2026-12-01T06:00:00Z");
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");

    private static Item item(String subject, String html) {
        return new Item(subject, SLOT.minusSeconds(3_600), "SK-412 is late\n", html);
    }

    private static Collection collection(Language language, Reason reason, int part, int parts, Item... items) {
        return new Collection(language, OSLO, SLOT, reason, part, parts, List.of(items), "http://odd/your-mail/1/x");
    }

    @Test
    void saysWhatEachMessageSaidInTheirOrder() {
        var two = collection(
                Language.EN,
                Reason.DAILY,
                1,
                1,
                item("1 new: Late sailings", "<p>first</p>"),
                item("Fuel", "<p>second</p>"));
        assertThat(CollectionMail.subject(two)).isEqualTo("Daily collection: 2 messages");
        assertThat(CollectionMail.text(two))
                .containsSubsequence(
                        "- 1 new: Late sailings", "- Fuel", "== 1 new: Late sailings", "SK-412 is late", "== Fuel")
                .contains("06:00", "Change what you get: http://odd/your-mail/1/x");
        assertThat(CollectionMail.html(two))
                .containsSubsequence("<p>first</p>", "<p>second</p>", "Change what you get</a>");
    }

    @ParameterizedTest
    @EnumSource(Language.class)
    void eachLanguageHasAllItsWords(Language language) {
        for (var reason : Reason.values()) {
            var one = collection(language, reason, 2, 3, item("Fuel", "<p>x</p>"));
            assertThat(CollectionMail.subject(one)).contains("1 ", "2", "3").doesNotContain("{");
            assertThat(CollectionMail.text(one)).doesNotContain("{");
            assertThat(CollectionMail.html(one)).contains("lang=\"" + language.code() + "\"");
        }
    }

    @Test
    void aSubjectIsNeitherMarkupNorALineOfItsOwn() {
        var nasty = collection(Language.EN, Reason.PAUSE, 1, 1, item("<script>\r\nBcc: x\u202E", ""));
        assertThat(CollectionMail.html(nasty)).doesNotContain("<script", "\u202E");
        assertThat(CollectionMail.text(nasty)).doesNotContain("\nBcc");
    }

    @Test
    void takesTheBlocksOfAMailWithoutItsFrame() {
        var whole = CollectionMail.html(collection(Language.EN, Reason.ENDED, 1, 1, item("Fuel", "<p>inner</p>")));
        assertThat(CollectionMail.said(whole))
                .contains("<p>inner</p>", "Collected so far: 1 message")
                .doesNotContain("<body", "<!doctype", "</body>", "display:none");
        assertThat(CollectionMail.said("<html><body style=\"x\"><p>plain</p></body></html>"))
                .isEqualTo("<p>plain</p>");
        assertThat(CollectionMail.said("<p>no frame</p>")).isEqualTo("<p>no frame</p>");
    }
}
