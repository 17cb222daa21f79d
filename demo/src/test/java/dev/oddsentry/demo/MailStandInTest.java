package dev.oddsentry.demo;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.testkit.FreePorts;
import jakarta.activation.DataHandler;
import jakarta.mail.Message;
import jakarta.mail.Session;
import jakarta.mail.Transport;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import jakarta.mail.util.ByteArrayDataSource;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.Date;
import java.util.Properties;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class MailStandInTest {
    @TempDir
    Path folder;

    private static void send(int port, String subject, String... to) throws Exception {
        var properties = new Properties();
        properties.put("mail.smtp.host", "127.0.0.1");
        properties.put("mail.smtp.port", String.valueOf(port));
        var message = new MimeMessage(Session.getInstance(properties));
        message.setFrom("odd-sentry@skerryline.example");
        for (String address : to) message.addRecipient(Message.RecipientType.TO, new InternetAddress(address));
        message.setSubject(subject, "UTF-8");
        var html = new MimeBodyPart();
        html.setContent(
                "<p>Gråvik &lt;late&gt;</p><img src=\"cid:logo\"><script>alert(1)</script>",
                "text/html; charset=UTF-8");
        var logo = new MimeBodyPart();
        logo.setDataHandler(new DataHandler(new ByteArrayDataSource(new byte[] {1, 2, 3}, "image/jpeg")));
        logo.setContentID("<logo>");
        message.setContent(new MimeMultipart("related", html, logo));
        message.setSentDate(new Date());
        Transport.send(message);
    }

    private static HttpResponse<String> get(int port, String path) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void mailIsShownOnceEachAndKeptOverARestart() throws Exception {
        int smtp = FreePorts.next();
        int page = FreePorts.next();
        var server = new MailStandIn(smtp, FreePorts.next(), folder);
        new MailboxPage(server).start(page);
        assertThat(get(page, "/").body()).contains("No mail yet");
        send(smtp, "2 critical: <Late>", "ines.holm@skerryline.example", "per.aune@skerryline.example");
        for (int i = 0; i < 100 && server.messages().isEmpty(); i++) Thread.sleep(50);
        assertThat(server.messages()).hasSize(1);
        String name = server.messages().getFirst().name();
        assertThat(get(page, "/").body())
                .contains("2 critical: &lt;Late&gt;", "ines.holm@skerryline.example, per.aune@skerryline.example");
        assertThat(get(page, "/" + name + "/html").headers().firstValue("Content-Security-Policy"))
                .contains("default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox");
        assertThat(get(page, "/" + name + "/html").body()).contains("src=\"data:image/jpeg;base64,AQID\"");
        assertThat(get(page, "/" + name + "/source").body()).contains("Subject: 2 critical: <Late>");
        assertThat(get(page, "/nothing").statusCode()).isEqualTo(404);
        assertThat(new MailStandIn(FreePorts.next(), FreePorts.next(), folder).messages())
                .extracting(MailStandIn.Kept::name)
                .containsExactly(name);
    }
}
