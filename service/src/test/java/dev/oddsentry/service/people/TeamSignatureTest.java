package dev.oddsentry.service.people;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import jakarta.mail.MessagingException;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** The signature and the logo of the team that owns a rule are part of its messages. */
class TeamSignatureTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String team = sailings.name + "-team";
    private final String path = "/api/teams/" + team;

    private static byte[] picture(String format, int width) throws IOException {
        var bytes = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, 40, BufferedImage.TYPE_INT_RGB), format, bytes);
        return bytes.toByteArray();
    }

    private String source() throws MessagingException, IOException {
        var bytes = new ByteArrayOutputStream();
        service.mailTo(sailings.recipient).getLast().writeTo(bytes);
        return bytes.toString(StandardCharsets.UTF_8);
    }

    @Test
    void messagesEndWithThem() throws MessagingException, IOException {
        var addresses = List.of(team + "@skerryline.example");
        api.put(path, Map.of("addresses", addresses, "signature", "Traffic <reporting>\nHamnegata 1"));
        assertThat(api.put(path + "/logo", "image/png", picture("png", 120)).status())
                .isEqualTo(200);
        sailings.late("SK-1", 20).active();
        api.push(sailings.rule().replace("owner: Traffic reporting", "owner: " + team));
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient))
                .containsSubsequence("Traffic <reporting>", "Hamnegata 1", "Owner: ");
        assertThat(source()).contains("Content-ID: <logo>", "image/png", "cid:logo", "Traffic &lt;reporting&gt;");
        assertThat(api.bytes(path + "/logo")).isEqualTo(picture("png", 120));
        api.put(path, Map.of("addresses", addresses));
        api.delete(path + "/logo");
        var seen = api.get("/api/teams")
                .valueStream()
                .filter(each -> each.path("name").asString().equals(team))
                .findFirst()
                .orElseThrow();
        assertThat(seen.path("signature").asString()).startsWith("Traffic");
        assertThat(seen.path("hasLogo").asBoolean()).isFalse();
        sailings.late("SK-2", 20);
        api.check(sailings.name);
        mails.sent(sailings.recipient, 2);
        assertThat(source()).doesNotContain("cid:logo");
    }

    @Test
    void aPictureIsOneAndNotTooLarge() throws IOException {
        api.put(path, Map.of("addresses", List.of(team + "@skerryline.example")));
        assertThat(api.put(path + "/logo", "image/png", "<svg/>".getBytes(StandardCharsets.UTF_8))
                        .text())
                .contains("The logo is neither a PNG nor a JPEG picture.");
        assertThat(api.put(path + "/logo", "image/png", picture("gif", 10)).text())
                .contains("neither a PNG nor a JPEG");
        assertThat(api.put(path + "/logo", "image/png", picture("png", 2001)).text())
                .contains("2001 × 40 pixels; max 2000");
        assertThat(api.put(path + "/logo", "image/png", new byte[100_001]).text())
                .contains("101 kB; max 100 kB");
        assertThat(api.put("/api/teams/nobody-" + team + "/logo", "image/jpeg", picture("jpg", 10))
                        .status())
                .isEqualTo(404);
        assertThat(api.send("GET", path + "/logo", "", Map.of()).status()).isEqualTo(404);
        // What it is called is not what it is.
        assertThat(api.put(path + "/logo", "image/png", picture("jpg", 10)).status())
                .isEqualTo(200);
        assertThat(api.send("GET", path + "/logo", "", Map.of()).header("Content-Type"))
                .isEqualTo("image/jpeg");
    }
}
