package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Arithmetic;
import dev.oddsentry.core.condition.Expression.Comparison;
import dev.oddsentry.core.time.Window;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Second stage: tokens to a tree, by recursive descent, one method for each level of SQL's precedence, loosest first:
 * {@code or}, {@code and}, {@code not}, {@code is null}, comparison, {@code between / in}, {@code ||}, {@code + -},
 * {@code * /}, sign.
 */
final class Parser {
    /** Deeper nesting than anyone writes; beyond it the parser refuses rather than runs out of stack. */
    private static final int DEEPEST = 200;

    /** Operators in one row make a tree that is as deep as the row is long. */
    private static final int LONGEST_ROW = 1_000;

    private static final Map<String, Comparison.Operator> COMPARISONS = Map.of(
            "=", Comparison.Operator.EQUAL,
            "<>", Comparison.Operator.UNEQUAL,
            "<", Comparison.Operator.LESS,
            "<=", Comparison.Operator.AT_MOST,
            ">", Comparison.Operator.MORE,
            ">=", Comparison.Operator.AT_LEAST);

    private final TokenStream tokens;
    private final TextPositions places;
    private int depth;

    private Parser(String source, TextPositions places) {
        this.tokens = new TokenStream(source);
        this.places = places;
    }

    /** @throws ConditionSyntaxException at the first place that cannot be read on from */
    static Expression parse(String source, TextPositions places) {
        var parser = new Parser(source, places);
        if (parser.tokens.peek().kind() == Token.Kind.END) throw parser.tokens.refuse("a condition");
        Expression tree = parser.or();
        parser.tokens.expectEnd();
        return tree;
    }

    private Expression or() {
        if (++depth > DEEPEST) throw tokens.refuseBecause("this is nested more than " + DEEPEST + " deep");
        Expression tree = chain("or", this::and, Expression.Or::new);
        depth--;
        return tree;
    }

    private Expression and() {
        return chain("and", this::not, Expression.And::new);
    }

    private Expression chain(String word, Supplier<Expression> operand, Function<List<Expression>, Expression> join) {
        int start = tokens.start();
        var operands = new ArrayList<>(List.of(operand.get()));
        while (tokens.take(word)) operands.add(operand.get());
        return operands.size() == 1 ? operands.getFirst() : placed(join.apply(List.copyOf(operands)), start);
    }

    private Expression not() {
        int start = tokens.start();
        if (!tokens.take("not")) return is();
        if (++depth > DEEPEST) throw tokens.refuseBecause("this is nested more than " + DEEPEST + " deep");
        Expression tree = placed(new Expression.Not(not()), start);
        depth--;
        return tree;
    }

    private Expression is() {
        int start = tokens.start();
        Expression tree = comparison();
        int length = 0;
        while (tokens.take("is")) {
            refuseLongRow(++length);
            boolean negated = tokens.take("not");
            if (!tokens.take("null")) throw tokens.refuse("null");
            tree = placed(new Expression.IsNull(tree, negated), start);
        }
        return tree;
    }

    private Expression comparison() {
        int start = tokens.start();
        Expression left = range();
        var operator = takeComparison();
        if (operator == null) return left;
        Expression tree = placed(new Comparison(operator, left, range()), start);
        if (COMPARISONS.containsKey(tokens.peek().text()) && tokens.peek().kind() == Token.Kind.SIGN) {
            throw tokens.refuseBecause("a comparison cannot be compared again; join two comparisons with and");
        }
        return tree;
    }

    private Comparison.@Nullable Operator takeComparison() {
        Token token = tokens.peek();
        if (token.kind() != Token.Kind.SIGN) return null;
        var operator = COMPARISONS.get(token.text());
        if (operator != null) tokens.next();
        return operator;
    }

    private Expression range() {
        int start = tokens.start();
        Expression operand = concatenation();
        boolean negated = tokens.peek().isWord("not")
                && tokens.takeIfFollowedBy("not", List.of("between", "in", "older", "like", "matches"));
        if (tokens.take("between")) return placed(between(operand, negated), start);
        if (tokens.take("in")) return placed(in(operand, negated), start);
        if (tokens.take("like")) return placed(like(operand, negated), start);
        if (tokens.take("matches")) {
            return placed(new Expression.Matches(operand, text("a regular expression in quotes"), negated), start);
        }
        if (tokens.take("older")) {
            tokens.expect("than");
            var window = new Window.OlderThan(windows().length());
            return placed(new Expression.Within(operand, window, negated), start);
        }
        return operand;
    }

    private Expression like(Expression operand, boolean negated) {
        Expression pattern = concatenation();
        if (!tokens.take("escape")) return new Expression.Like(operand, pattern, null, negated);
        Token escape = tokens.peek();
        if (escape.text().codePointCount(0, escape.text().length()) != 1)
            throw tokens.refuse("one character in quotes");
        return new Expression.Like(operand, pattern, text("one character in quotes"), negated);
    }

    private String text(String expected) {
        if (tokens.peek().kind() != Token.Kind.TEXT) throw tokens.refuse(expected);
        return tokens.next().text();
    }

    private Expression between(Expression operand, boolean negated) {
        Expression low = concatenation();
        tokens.expect("and");
        return new Expression.Between(operand, low, concatenation(), negated);
    }

    private Expression in(Expression operand, boolean negated) {
        var window = windows().takeWindow();
        if (window != null) return new Expression.Within(operand, window, negated);
        if (!tokens.takeSign("(")) throw tokens.refuse("( and a list, or a window such as last 7 days");
        var options = new ArrayList<Expression>();
        do options.add(concatenation());
        while (tokens.takeSign(","));
        tokens.expectSign(")");
        return new Expression.In(operand, List.copyOf(options), negated);
    }

    private WindowParser windows() {
        return new WindowParser(tokens);
    }

    private Expression concatenation() {
        return leftToRight(this::sum, Map.of("||", Arithmetic.Operator.CONCATENATE));
    }

    private Expression sum() {
        return leftToRight(this::product, Map.of("+", Arithmetic.Operator.ADD, "-", Arithmetic.Operator.SUBTRACT));
    }

    private Expression product() {
        return leftToRight(this::signed, Map.of("*", Arithmetic.Operator.MULTIPLY, "/", Arithmetic.Operator.DIVIDE));
    }

    private Expression leftToRight(Supplier<Expression> operand, Map<String, Arithmetic.Operator> operators) {
        int start = tokens.start();
        Expression left = operand.get();
        int length = 0;
        while (tokens.peek().kind() == Token.Kind.SIGN
                && operators.containsKey(tokens.peek().text())) {
            refuseLongRow(++length);
            var operator = Objects.requireNonNull(operators.get(tokens.next().text()));
            left = placed(new Arithmetic(operator, left, operand.get()), start);
        }
        return left;
    }

    private void refuseLongRow(int length) {
        if (length > LONGEST_ROW)
            throw tokens.refuseBecause("more than " + LONGEST_ROW + " operators follow one another");
    }

    private Expression signed() {
        int start = tokens.start();
        if (tokens.takeSign("-")) {
            if (++depth > DEEPEST) throw tokens.refuseBecause("this is nested more than " + DEEPEST + " deep");
            Expression tree = placed(new Expression.Negation(signed()), start);
            depth--;
            return tree;
        }
        while (tokens.takeSign("+")) {
            if (tokens.peek().kind() == Token.Kind.SIGN && tokens.peek().text().equals("-")) return signed();
        }
        return primary();
    }

    private Expression primary() {
        int start = tokens.start();
        if (tokens.takeSign("(")) {
            Expression inner = or();
            tokens.expectSign(")");
            return inner;
        }
        if (tokens.peek().isWord("case")) return placed(cases(), start);
        return placed(new LiteralParser(tokens).takeLiteralOr(this::nameOrCall), start);
    }

    private Expression cases() {
        tokens.expect("case");
        Expression operand = tokens.peek().isWord("when") ? null : or();
        var whens = new ArrayList<Expression.Case.When>();
        do {
            tokens.expect("when");
            Expression when = or();
            tokens.expect("then");
            whens.add(new Expression.Case.When(when, or()));
        } while (tokens.peek().isWord("when"));
        Expression otherwise = tokens.take("else") ? or() : null;
        tokens.expect("end");
        return new Expression.Case(operand, List.copyOf(whens), otherwise);
    }

    private Expression nameOrCall() {
        Token token = tokens.peek();
        if (token.kind() == Token.Kind.QUOTED_NAME)
            return new Expression.ColumnName(tokens.next().text(), true);
        if (token.kind() != Token.Kind.WORD || Words.RESERVED.contains(token.text())) {
            throw tokens.refuse("a column, a value or (");
        }
        tokens.next();
        return tokens.takeSign("(")
                ? new CallParser(tokens, this::or).afterParenthesis(token)
                : new Expression.ColumnName(token.seen(), false);
    }

    private Expression placed(Expression tree, int start) {
        places.put(tree, start, tokens.previousEnd() - start);
        return tree;
    }
}
