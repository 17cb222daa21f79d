package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.List;

/** The tokens of one source with a place in them, and the refusals that tell where that place is. */
final class TokenStream {
    private final String source;
    private final List<Token> tokens;
    private int at;

    TokenStream(String source) {
        this.source = source;
        this.tokens = Lexer.tokens(source);
    }

    Token peek() {
        return tokens.get(at);
    }

    Token peek(int ahead) {
        return tokens.get(Math.min(at + ahead, tokens.size() - 1));
    }

    Token next() {
        Token token = peek();
        if (at < tokens.size() - 1) at++;
        return token;
    }

    int start() {
        return peek().offset();
    }

    /** The end of the token taken last, so that a node's place has no blanks after it. */
    int previousEnd() {
        return at == 0 ? 0 : tokens.get(at - 1).end();
    }

    boolean take(String word) {
        if (!peek().isWord(word)) return false;
        next();
        return true;
    }

    boolean takeSign(String sign) {
        if (!peek().isSign(sign)) return false;
        next();
        return true;
    }

    boolean takeIfFollowedBy(String word, List<String> followers) {
        if (!peek().isWord(word) || followers.stream().noneMatch(peek(1)::isWord)) return false;
        next();
        return true;
    }

    void expect(String word) {
        if (!take(word)) throw refuse(word);
    }

    void expectSign(String sign) {
        if (!takeSign(sign)) throw refuse(sign);
    }

    void expectEnd() {
        if (peek().kind() == Token.Kind.END) return;
        if (peek().isSign(")")) throw refuseBecause("this ) closes nothing");
        throw refuse("and, or, or the end");
    }

    ConditionSyntaxException refuse(String expected) {
        var problem = problem("unexpected " + peek().describe() + ", expected " + expected);
        boolean misspeltWord = peek().kind() == Token.Kind.WORD && !Words.RESERVED.contains(peek().text());
        return new ConditionSyntaxException(
                misspeltWord
                        ? problem.suggesting(
                                Nearest.to(peek().text(), Words.RESERVED).orElse(null))
                        : problem);
    }

    ConditionSyntaxException refuseBecause(String message) {
        return new ConditionSyntaxException(problem(message));
    }

    private Problem problem(String message) {
        return Problem.error(message, "", Place.in(source, peek().offset(), peek().length()));
    }
}
