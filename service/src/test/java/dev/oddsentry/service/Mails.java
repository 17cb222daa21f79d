package dev.oddsentry.service;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import java.io.IOException;
import java.util.List;

/** What arrived at an address, as its reader sees it. */
public final class Mails {
    private final RunningService service;

    public Mails(RunningService service) {
        this.service = service;
    }

    /** Waits for so many, and that there are no more. */
    public void sent(String address, int messages) {
        RunningService.await("mail to " + address, () -> service.mailTo(address).size() >= messages);
        assertThat(service.mailTo(address)).hasSize(messages);
    }

    public List<String> subjects(String address) {
        return service.mailTo(address).stream().map(Mails::subject).toList();
    }

    private static String subject(Message message) {
        try {
            return message.getSubject();
        } catch (MessagingException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The plain text of the latest. */
    public String lastText(String address) {
        try {
            return (String) ((Multipart) firstPart(service.mailTo(address).getLast()))
                    .getBodyPart(0)
                    .getContent();
        } catch (MessagingException | IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Text and HTML stand in the first part where something is attached. */
    private static Object firstPart(Message message) throws MessagingException, IOException {
        var content = (Multipart) message.getContent();
        return content.getContentType().contains("mixed")
                ? content.getBodyPart(0).getContent()
                : content;
    }
}
