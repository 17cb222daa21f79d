package dev.oddsentry.service.api.readers;

import com.samskivert.mustache.Mustache;
import com.samskivert.mustache.Template;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.ReaderChoice;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.service.mail.ReaderLinks;
import dev.oddsentry.service.overview.RecipientIndex;
import dev.oddsentry.service.readers.OwnMail;
import dev.oddsentry.service.readers.OwnerQuestions;
import dev.oddsentry.service.recipients.CollectionTime;
import dev.oddsentry.service.recipients.ReaderChoices.Chosen;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.ResourceBundle;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * All that an address is mailed, as a plain page without a script: what, why, and how the recipient gets it.
 *
 * @param language null where the recipient has set none
 * @param shown the language of the page
 */
record YourMailPage(
        String address,
        String token,
        @Nullable Language language,
        Language shown,
        Instant now,
        List<OwnMail.Entry> entries) {
    private static final String PLACE = "/dev/oddsentry/service/readers/your-mail";
    private static final Template TEMPLATE = template();

    private static Template template() {
        try (var in = new InputStreamReader(
                Objects.requireNonNull(YourMailPage.class.getResourceAsStream(PLACE + ".mustache")),
                StandardCharsets.UTF_8)) {
            return Mustache.compiler().emptyStringIsFalse(true).defaultValue("").compile(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * What came of the form that was sent.
     *
     * @param about the entry whose form it was; null for the language
     * @param question as it was typed, where it was not sent
     */
    record Outcome(
            @Nullable String said,
            @Nullable String wrong,
            OwnMail.@Nullable Entry about,
            @Nullable String question) {
        static final Outcome NONE = new Outcome(null, null, null, null);
    }

    String word(String key, Object... values) {
        String text = words().getString(key);
        for (int i = 0; i < values.length; i++) text = text.replace("{" + i + "}", String.valueOf(values[i]));
        return text;
    }

    private ResourceBundle words() {
        return ResourceBundle.getBundle(
                PLACE.substring(1).replace('/', '.'),
                shown.locale(),
                ResourceBundle.Control.getNoFallbackControl(ResourceBundle.Control.FORMAT_PROPERTIES));
    }

    String html(Outcome outcome) {
        var all = new HashMap<String, Object>();
        var words = words();
        words.keySet().forEach(key -> all.put("w." + key, words.getString(key)));
        all.put("lang", shown.code());
        all.put("intro", word("intro", address));
        all.put("to", token);
        all.put("said", Objects.requireNonNullElse(outcome.said(), ""));
        all.put("wrong", Objects.requireNonNullElse(outcome.wrong(), ""));
        all.put("languages", languages());
        all.put("mostCharacters", OwnerQuestions.MOST_CHARACTERS);
        all.put(
                "entries",
                IntStream.range(0, entries.size())
                        .mapToObj(n -> entry(n, entries.get(n), outcome))
                        .toList());
        return TEMPLATE.execute(all);
    }

    private Map<String, Object> entry(int n, OwnMail.Entry entry, Outcome outcome) {
        var chosen = entry.chosen().orElse(null);
        var time = chosen == null ? null : chosen.time();
        boolean paused = chosen != null && chosen.pausedUntil() != null;
        boolean isAbout =
                outcome.about() != null && outcome.about().definition().equals(entry.definition());
        boolean asked = isAbout && outcome.question() != null;
        boolean mayChoose = !entry.unsubscribed() && !entry.allowed().isEmpty();
        var all = new HashMap<String, Object>();
        all.put("n", n);
        all.put("id", entry.definition());
        all.put("title", entry.title());
        all.put("why", why(entry));
        all.put("lately", count("lately", entry.sent().messages()));
        all.put("state", state(entry));
        all.put("choices", mayChoose);
        all.put("isOpen", isAbout && outcome.wrong() != null && !asked);
        all.put("none", !entry.unsubscribed() && entry.allowed().isEmpty());
        all.put("isEach", !paused && time == null);
        all.put("isDaily", !paused && time != null && time.day() == null);
        all.put("isWeekly", !paused && time != null && time.day() != null);
        all.put("isPaused", paused);
        all.put("mayCollect", entry.allowed().contains(ReaderChoice.COLLECT));
        all.put("mayPause", entry.allowed().contains(ReaderChoice.PAUSE));
        all.put("mayLink", entry.allowed().contains(ReaderChoice.LINK));
        all.put("byLink", chosen != null && chosen.filesByLink());
        all.put("days", days(time));
        all.put("hours", hours(time));
        all.put("zone", entry.zone().getId());
        all.put("earliest", earliest(entry));
        all.put("latest", latest(entry));
        all.put(
                "until",
                entry.chosen()
                        .map(Chosen::pausedUntil)
                        .map(until -> until.atZone(entry.zone()).toLocalDate().toString())
                        .orElse(""));
        all.put("mayLeave", entry.mayLeave() && !entry.unsubscribed());
        all.put("hasLeft", entry.unsubscribed());
        all.put("ask", word("ask", entry.owner()));
        all.put("isAsked", asked);
        all.put("question", asked ? outcome.question() : "");
        return all;
    }

    /** The first day on which a pause can end. */
    LocalDate earliest(OwnMail.Entry entry) {
        return now.atZone(entry.zone()).toLocalDate().plusDays(1);
    }

    LocalDate latest(OwnMail.Entry entry) {
        return now.atZone(entry.zone()).toLocalDate().plusDays(ReaderLinks.WORK_FOR.toDays());
    }

    private String why(OwnMail.Entry entry) {
        if (entry.reasons().isEmpty()) return word("why.data", entry.owner());
        return String.join(
                " ",
                entry.reasons().stream()
                        .map(each -> why(entry.owner(), each))
                        .distinct()
                        .toList());
    }

    private String why(String owner, RecipientIndex.Reason reason) {
        if (reason.field().equals("escalation")) return word("why.escalation", owner);
        if (reason.part() != null) return word("why.part", owner, reason.part());
        var reference = reason.reference() == null
                ? null
                : MailAddress.reference(reason.reference()).orElse(null);
        if (reference == null) return word("why.named", owner);
        return switch (reference.target()) {
            case TEAM -> word("why.team", owner, reference.name());
            case LIST -> word("why.list", owner, reference.name());
            case PERSON -> word("why.named", owner);
        };
    }

    private String count(String key, int count) {
        if (count == 0) return key.equals("waiting") ? "" : word(key + ".none");
        return count == 1 ? word(key + ".one") : word(key + ".many", count);
    }

    /** How the recipient gets it now. */
    String state(OwnMail.Entry entry) {
        if (entry.unsubscribed()) return word("state.left");
        String waiting = count("waiting", entry.waiting());
        String way = entry.chosen().map(chosen -> way(entry, chosen)).orElseGet(() -> word("state.each"));
        return (way + " " + waiting).strip();
    }

    private String way(OwnMail.Entry entry, Chosen chosen) {
        if (chosen.pausedUntil() != null)
            return word(
                    "state.paused",
                    date(chosen.pausedUntil().atZone(entry.zone()).toLocalDate()));
        if (chosen.time() == null) return word("state.each");
        var next = Objects.requireNonNull(chosen.nextCollection()).atZone(entry.zone());
        String key = chosen.time().day() == null ? "state.daily" : "state.weekly";
        return word(
                key,
                DateTimeFormatter.ofLocalizedDateTime(FormatStyle.LONG, FormatStyle.SHORT)
                        .withLocale(shown.locale())
                        .format(next));
    }

    String date(LocalDate date) {
        return DateTimeFormatter.ofLocalizedDate(FormatStyle.LONG)
                .withLocale(shown.locale())
                .format(date);
    }

    private List<Map<String, Object>> days(@Nullable CollectionTime time) {
        var selected = time == null || time.day() == null ? DayOfWeek.MONDAY : time.day();
        return Arrays.stream(DayOfWeek.values())
                .map(day -> option(
                        String.valueOf(day.getValue()),
                        day.getDisplayName(TextStyle.FULL, shown.locale()),
                        day == selected))
                .toList();
    }

    private static List<Map<String, Object>> hours(@Nullable CollectionTime time) {
        int selected = time == null ? CollectionTime.USUAL_HOUR : time.hour();
        return IntStream.range(0, 24)
                .mapToObj(hour -> option(String.valueOf(hour), "%02d:00".formatted(hour), hour == selected))
                .toList();
    }

    private List<Map<String, Object>> languages() {
        var options = new ArrayList<Map<String, Object>>();
        options.add(option("", word("language.usual"), language == null));
        for (var each : Language.values())
            options.add(option(each.code(), each.locale().getDisplayLanguage(each.locale()), each == language));
        return options;
    }

    private static Map<String, Object> option(String value, String text, boolean selected) {
        return Map.of("value", value, "text", text, "selected", selected);
    }
}
