package dev.oddsentry.core.time;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A point in time written relative to the check, such as {@code now}, {@code today - 7 days}, {@code previous working day} or
 * {@code start of period - 1 period}; or a plain date or timestamp, which does not move.
 *
 * @param steps added one after the other, so that {@code start of month - 1 day} is the last day of the month before
 */
public record RelativeDate(Anchor anchor, List<Step> steps) {
    private static final Pattern ANCHOR = Pattern.compile(
            "(now|today|last check|(?<side>previous|next) working day|start of (?<unit>day|week|month|quarter|year|period))(?=\\s|[+-]|$)",
            Pattern.CASE_INSENSITIVE);
    private static final Pattern STEP = Pattern.compile(
            "\\s*(?<sign>[+-])\\s*(?<amount>\\d{1,6})\\s+(?<unit>second|minute|hour|working day|day|week|month|quarter|year|period)s?(?=\\s|[+-]|$)",
            Pattern.CASE_INSENSITIVE);

    /** Where the calculation starts. */
    public sealed interface Anchor {
        record Now() implements Anchor {}

        record Today() implements Anchor {}

        /** The slot of the last good check; before any, where the rule says that it starts. */
        record LastCheck() implements Anchor {}

        record StartOf(Span.Unit unit) implements Anchor {}

        record StartOfPeriod() implements Anchor {}

        /** @param distance -1 for the last before today, 1 for the first after it */
        record WorkingDay(int distance) implements Anchor {}

        record Fixed(LocalDateTime local) implements Anchor {}
    }

    /** What is added to the anchor. */
    public sealed interface Step {
        record Time(Span span) implements Step {}

        record WorkingDays(int days) implements Step {}

        /** To the first day of another period. */
        record Periods(int periods) implements Step {}
    }

    /** @throws InvalidDefinitionException with the place in the text and the forms that would be right */
    public static RelativeDate parse(String text) {
        var matcher = ANCHOR.matcher(text);
        if (!matcher.lookingAt()) return new RelativeDate(new Anchor.Fixed(fixed(text)), List.of());
        Anchor anchor = anchorOf(matcher);
        var steps = new ArrayList<Step>();
        int at = matcher.end();
        for (var step = STEP.matcher(text); at < text.stripTrailing().length(); at = step.end()) {
            if (!step.find(at) || step.start() != at) throw refused(text, at);
            steps.add(stepOf(step));
        }
        return new RelativeDate(anchor, List.copyOf(steps));
    }

    private static Anchor anchorOf(Matcher matcher) {
        String unit = matcher.group("unit");
        if (unit != null) return isPeriod(unit) ? new Anchor.StartOfPeriod() : new Anchor.StartOf(unit(matcher));
        if (matcher.group("side") != null)
            return new Anchor.WorkingDay(matcher.group("side").equalsIgnoreCase("previous") ? -1 : 1);
        return switch (matcher.group().toLowerCase(Locale.ROOT)) {
            case "now" -> new Anchor.Now();
            case "last check" -> new Anchor.LastCheck();
            default -> new Anchor.Today();
        };
    }

    private static boolean isPeriod(String unit) {
        return unit.equalsIgnoreCase("period");
    }

    private static Step stepOf(Matcher step) {
        int amount = Integer.parseInt(step.group("amount"));
        boolean back = step.group("sign").equals("-");
        String unit = step.group("unit");
        if (isPeriod(unit)) return new Step.Periods(back ? -amount : amount);
        if (unit.equalsIgnoreCase("working day")) return new Step.WorkingDays(back ? -amount : amount);
        Span span = Span.of(amount, unit(step));
        return new Step.Time(back ? span.negated() : span);
    }

    private static Span.Unit unit(Matcher matcher) {
        return Span.Unit.valueOf(matcher.group("unit").toUpperCase(Locale.ROOT));
    }

    private static LocalDateTime fixed(String text) {
        String iso = text.strip().replace(' ', 'T');
        try {
            return iso.contains("T")
                    ? LocalDateTime.parse(iso)
                    : LocalDate.parse(iso).atStartOfDay();
        } catch (DateTimeException notFixed) {
            throw refused(text, 0);
        }
    }

    private static InvalidDefinitionException refused(String text, int offset) {
        String seen = text.substring(offset).strip();
        String message =
                "\"" + seen + "\" is not a relative date. Examples: now, today, start of month, today - 7 days,"
                        + " start of month - 1 month, previous working day, start of period, last check - 10 minutes, or a date such as 2026-03-01";
        return new InvalidDefinitionException(
                List.of(Problem.error(message, "", Place.in(text, offset, seen.length()))));
    }

    /** True unless it is a plain date, so that what it selects moves on with the slot. */
    public boolean moves() {
        return !(anchor instanceof Anchor.Fixed);
    }

    /** True of the last check as it is: what was stamped before its slot and committed after it is never seen. */
    public boolean isUnsettled() {
        return anchor instanceof Anchor.LastCheck && steps.isEmpty();
    }

    /**
     * The local date and time in the moment's zone. A date is meant where the caller takes only the date of it.
     *
     * @throws InvalidDefinitionException if the moment's calendar does not know the period, or there was no check and nobody says where
     *     it starts
     */
    public LocalDateTime localAt(Moment moment) {
        LocalDateTime local = switch (anchor) {
            case Anchor.Now _ -> moment.local().toLocalDateTime();
            case Anchor.Today _ -> moment.today().atStartOfDay();
            case Anchor.LastCheck _ -> lastCheck(moment);
            case Anchor.StartOf(var unit) ->
                Window.startOf(unit, moment.today()).atTime(LocalTime.MIDNIGHT);
            case Anchor.StartOfPeriod _ ->
                moment.days().startOfPeriod(moment.today(), 0).atStartOfDay();
            case Anchor.WorkingDay(int distance) ->
                moment.days().plus(moment.today(), distance).atStartOfDay();
            case Anchor.Fixed(var fixed) -> fixed;
        };
        for (var step : steps) local = add(step, local, moment.days());
        return local;
    }

    /** In the hour that happens twice the first is taken, so that the window is rather too wide than too narrow. */
    private static LocalDateTime lastCheck(Moment moment) {
        if (moment.lastCheck() != null)
            return moment.lastCheck().atZone(moment.zone()).toLocalDateTime();
        throw new InvalidDefinitionException(List.of(Problem.error(
                "\"last check\" is not known before there was one: write under schedule: start: where it begins",
                "",
                null)));
    }

    private static LocalDateTime add(Step step, LocalDateTime local, WorkingDays days) {
        return switch (step) {
            case Step.Time(var span) -> span.addTo(local);
            case Step.WorkingDays(int number) ->
                days.plus(local.toLocalDate(), number).atTime(local.toLocalTime());
            case Step.Periods(int number) ->
                days.startOfPeriod(local.toLocalDate(), number).atStartOfDay();
        };
    }
}
