package dev.oddsentry.core.condition;

import dev.oddsentry.core.threshold.ThresholdTable;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** What may come next at a place in a text that is being written. */
public final class Completion {
    private static final Set<String> BEFORE_VALUE = Set.of(
            "and",
            "or",
            "not",
            "when",
            "then",
            "else",
            "case",
            "like",
            "between",
            "where",
            "distinct",
            "matches",
            "escape");

    private final Scope scope;
    private final List<Token> tokens;
    private final String prefix;
    private final List<CompletionOption> options = new ArrayList<>();

    private Completion(Scope scope, List<Token> tokens, String prefix) {
        this.scope = scope;
        this.tokens = tokens;
        this.prefix = prefix.toLowerCase(Locale.ROOT);
    }

    /** @param kind column, measure, function, aggregate, history, threshold, word or window */
    public record CompletionOption(String text, String kind, String detail) {}

    /** @param from where what is being written starts; the options replace it up to {@code to} */
    public record CompletionOptions(int from, int to, List<CompletionOption> options) {}

    /** @param offset in UTF-16 units; what stands after it is not looked at */
    public static CompletionOptions at(String text, int offset, Columns columns, Thresholds thresholds) {
        return at(text, offset, Scope.ofRows(columns, thresholds));
    }

    static CompletionOptions at(String text, int offset, Scope scope) {
        String before = text.substring(0, Math.clamp(offset, 0, text.length()));
        int start = startOfWord(before);
        var quoted = openQuote(before);
        if (quoted != null) return quoted.options(before, scope);
        List<Token> tokens;
        try {
            tokens = Lexer.tokens(before.substring(0, start));
        } catch (ConditionSyntaxException unreadable) {
            return new CompletionOptions(start, before.length(), List.of());
        }
        var completion = new Completion(scope, tokens, before.substring(start));
        completion.collect();
        return new CompletionOptions(start, before.length(), completion.options);
    }

    private static int startOfWord(String before) {
        int start = before.length();
        while (start > 0 && isPartOfWord(before.charAt(start - 1))) start--;
        return start;
    }

    private static boolean isPartOfWord(char c) {
        return Character.isLetterOrDigit(c) || c == '_' || Character.isSurrogate(c);
    }

    /** A text in quotes that is being written: a threshold's name, if it is one. */
    private record OpenQuote(int start) {
        CompletionOptions options(String before, Scope scope) {
            String head = before.substring(0, start - 1).stripTrailing();
            boolean names = head.endsWith("(")
                    && head.substring(0, head.length() - 1)
                            .stripTrailing()
                            .toLowerCase(Locale.ROOT)
                            .endsWith(CallParser.THRESHOLD);
            if (!names) return new CompletionOptions(before.length(), before.length(), List.of());
            String written = before.substring(start);
            var options = scope.thresholds().byName().values().stream()
                    .filter(table -> table.name().startsWith(written))
                    .map(table -> new CompletionOption(table.name(), "threshold", table.title()))
                    .sorted(Comparator.comparing(CompletionOption::text))
                    .toList();
            return new CompletionOptions(start, before.length(), options);
        }
    }

    private static @Nullable OpenQuote openQuote(String before) {
        int open = -1;
        for (int i = 0; i < before.length(); i++) {
            if (before.charAt(i) == '\'') open = open < 0 ? i : -1;
        }
        return open < 0 ? null : new OpenQuote(open + 1);
    }

    private void collect() {
        Token last = tokens.size() < 2 ? null : tokens.get(tokens.size() - 2);
        Token beforeLast = tokens.size() < 3 ? null : tokens.get(tokens.size() - 3);
        if (last == null || isBeforeValue(last) && !deniesComparison(beforeLast, last)) values();
        else if (last.isWord("not") && beforeLast != null && beforeLast.isWord("is")) words("null");
        else if (last.isWord("not")) words("in", "between", "like", "matches");
        else if (last.isWord("in")) windows();
        else if (last.isWord("last") || last.isWord("next") || last.isWord("than")) numbers();
        else if (last.isWord("this") || last.isWord("previous")) units(false);
        else if (last.isWord("older")) offer("than", "word", "");
        else if (last.isWord("is")) words("null", "not null");
        else if (last.isWord("within")) numbers();
        else if (last.kind() == Token.Kind.NUMBER && isLength()) units(true);
        else afterValue(last);
    }

    private static boolean isBeforeValue(Token last) {
        if (last.kind() == Token.Kind.SIGN) return !last.isSign(")");
        return last.kind() == Token.Kind.WORD && BEFORE_VALUE.contains(last.text());
    }

    /** True of the {@code not} in {@code reason not in …}, false of that in {@code not training}. */
    private static boolean deniesComparison(@Nullable Token before, Token last) {
        return last.isWord("not") && before != null && !isBeforeValue(before);
    }

    /** True behind a number that counts time: {@code last 7}, {@code older than 2}. */
    private boolean isLength() {
        Token before = tokens.size() < 3 ? null : tokens.get(tokens.size() - 3);
        return before != null
                && List.of("last", "next", "than", "within").stream().anyMatch(before::isWord);
    }

    private void values() {
        for (Column column : scope.columns().inOrder()) {
            boolean measure = scope.place() == Scope.Place.GROUP
                    && scope.rows().indexOf(column.name(), true).isEmpty();
            offer(
                    written(column.name()),
                    measure ? "measure" : "column",
                    column.type().word());
        }
        if (scope.place() == Scope.Place.GROUP) rowColumns();
        for (ThresholdTable table : scope.thresholds().byName().values()) {
            String key = table.key().isEmpty() ? "" : ", " + String.join(", ", table.key());
            offer("threshold('" + table.name() + "'" + key + ")", "threshold", table.title());
        }
        Functions.byName()
                .values()
                .forEach(function ->
                        offer(function.name() + "(", "function", function.usage() + ": " + function.meaning()));
        offer(Functions.COALESCE + "(", "function", "coalesce(x, y, …): the first that is not missing");
        offer(Functions.NULLIF + "(", "function", "nullif(x, y): missing where both are equal");
        if (scope.place() == Scope.Place.CHECK) {
            offer("exceptions()", "function", "how many exceptions there are");
            offer("updates()", "function", "number of updates");
        }
        words("not", "case", "true", "false", "null", "date '", "timestamp '", "time '");
        if (tokens.size() > 1 && tokens.get(tokens.size() - 2).isWord("case")) words("when");
    }

    private void rowColumns() {
        for (var kind : Expression.Aggregate.Kind.values()) {
            offer(kind.word() + "(", "aggregate", kind.meaning);
        }
        for (var kind : Expression.History.Kind.values()) offer(kind.word() + "(", "history", kind.meaning);
        boolean insideCall = tokens.stream().anyMatch(token -> token.isSign("("));
        if (!insideCall) return;
        for (Column column : scope.rows().inOrder()) {
            if (scope.columns().indexOf(column.name(), true).isEmpty())
                offer(written(column.name()), "column", column.type().word());
        }
    }

    private static String written(String name) {
        boolean plain =
                name.matches("[\\p{L}_][\\p{L}\\p{N}_]*") && !Words.RESERVED.contains(name.toLowerCase(Locale.ROOT));
        return plain ? name : "\"" + name.replace("\"", "\"\"") + "\"";
    }

    private void afterValue(Token last) {
        Type type = typeOf(last);
        if (type != Type.TRUTH) words("=", "<>");
        if (type != Type.TRUTH && type != Type.TEXT) words("<", "<=", ">", ">=", "between");
        if (type == null || type == Type.TEXT) words("like", "matches");
        words("in");
        if (type == null || type.isMoment()) words("older than");
        words("is null", "is not null", "not", "and", "or");
        if (type == Type.NUMBER) words("+", "-", "*", "/");
        if (type == Type.TEXT) words("||");
        if (tokens.size() > 2 && tokens.get(tokens.size() - 3).isWord("like")) words("escape");
        if (last.isSign(")") && scope.place() == Scope.Place.GROUP) words("filter (where", "within");
        boolean inCase = tokens.stream().anyMatch(token -> token.isWord("case"));
        if (inCase) words("when", "then", "else", "end");
    }

    private @Nullable Type typeOf(Token last) {
        if (last.kind() == Token.Kind.NUMBER) return Type.NUMBER;
        if (last.kind() == Token.Kind.TEXT) return Type.TEXT;
        boolean name = last.kind() == Token.Kind.QUOTED_NAME || last.kind() == Token.Kind.WORD;
        if (!name) return null;
        String written = last.kind() == Token.Kind.WORD ? last.seen() : last.text();
        var index = scope.columns().indexOf(written, last.kind() == Token.Kind.QUOTED_NAME);
        return index.isPresent() ? scope.columns().at(index.getAsInt()).type() : null;
    }

    private void windows() {
        for (String window : List.of("last 7 days", "next 30 days", "this week", "previous month", "this month")) {
            offer(window, "window", "from the check's slot");
        }
        offer("(", "word", "a list of values");
    }

    private void numbers() {
        for (String length : List.of("1 day", "7 days", "30 days", "2 hours")) offer(length, "window", "");
    }

    private void units(boolean many) {
        for (var unit : Span.Unit.values()) {
            boolean fits = many || !unit.isClock();
            if (fits) offer(unit.name().toLowerCase(Locale.ROOT) + (many ? "s" : ""), "word", "");
        }
    }

    private void words(String... words) {
        for (String word : words) offer(word, "word", "");
    }

    private void offer(String text, String kind, String detail) {
        String bare = text.startsWith("\"") ? text.substring(1) : text;
        if (bare.toLowerCase(Locale.ROOT).startsWith(prefix)) options.add(new CompletionOption(text, kind, detail));
    }
}
