package dev.oddsentry.service.secrets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.mail.MailLab;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Base64;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SecretBoxTest {
    private static final String KEY = Base64.getEncoder().encodeToString(new byte[32]);

    @TempDir
    Path folder;

    private static SecretBox box(@Nullable String key, @Nullable Path file) {
        var mail = MailLab.settings(25);
        var work = new Settings.Work(1, 1, Duration.ofSeconds(1), Duration.ofSeconds(1), Duration.ofSeconds(1));
        return new SecretBox(new Settings(
                URI.create("http://127.0.0.1"),
                null,
                null,
                key,
                file,
                mail,
                work,
                new Settings.IncidentMails(Duration.ofSeconds(1), Duration.ofSeconds(1)),
                new Settings.Retention(1, 1, 1, 1, 1, 1, 1, 1),
                new Settings.SignOn(Duration.ofMinutes(15)),
                new Settings.FirstOperator("o", "o", "o@o.example", null)));
    }

    @Test
    void opensWhatItSealedAndSealsEachTimeDifferently() {
        var box = box(KEY, null);
        byte[] sealed = box.seal("pässword");
        assertThat(box.open(sealed)).isEqualTo("pässword");
        assertThat(box.seal("pässword")).isNotEqualTo(sealed);
        assertThat(new String(sealed, StandardCharsets.ISO_8859_1)).doesNotContain("ssword");
    }

    @Test
    void anotherKeyOrAChangedByteOpensNothingAndSaysSo() {
        byte[] sealed = box(KEY, null).seal("secret");
        String other =
                Base64.getEncoder().encodeToString("another key of thirty-two bytes!".getBytes(StandardCharsets.UTF_8));
        assertThatThrownBy(() -> box(other, null).open(sealed)).hasMessageContaining("was the key changed?");
        sealed[sealed.length - 1] ^= 1;
        assertThatThrownBy(() -> box(KEY, null).open(sealed)).isInstanceOf(IllegalStateException.class);
    }

    @Test
    void theKeyMayComeFromAFile() throws IOException {
        Path file = Files.writeString(folder.resolve("key"), KEY + "\n");
        assertThat(box(null, file).open(box(KEY, null).seal("secret"))).isEqualTo("secret");
        assertThatThrownBy(() -> box(null, folder.resolve("none"))).hasMessageContaining("cannot be read");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "not base64 !", "c2hvcnQ="})
    void aKeyOfAnotherShapeStopsTheStartWithoutShowingIt(String key) {
        assertThatThrownBy(() -> box(key, null))
                .hasMessageContaining("32 bytes in Base64")
                .hasMessageNotContaining("c2hvcnQ");
        assertThatThrownBy(() -> box(null, null)).hasMessageContaining("ODDSENTRY_KEY");
    }
}
