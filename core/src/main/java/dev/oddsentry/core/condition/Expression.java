package dev.oddsentry.core.condition;

import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.Window;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * The tree of a condition. It holds meaning only: where each part stood in a text is kept beside it, so that a tree from the
 * text view and one from the builder are equal when they mean the same.
 */
public sealed interface Expression {

    /** @param value an object of the class that {@code type} names; null only for {@link Type#NULL} */
    record Literal(Type type, @Nullable Object value) implements Expression {}

    record ColumnName(String name, boolean quoted) implements Expression {}

    record Negation(Expression operand) implements Expression {}

    record Arithmetic(Operator operator, Expression left, Expression right) implements Expression {
        public enum Operator {
            ADD("+"),
            SUBTRACT("-"),
            MULTIPLY("*"),
            DIVIDE("/"),
            CONCATENATE("||");

            final String sign;

            Operator(String sign) {
                this.sign = sign;
            }
        }
    }

    record Comparison(Operator operator, Expression left, Expression right) implements Expression {
        public enum Operator {
            EQUAL("="),
            UNEQUAL("<>"),
            LESS("<"),
            AT_MOST("<="),
            MORE(">"),
            AT_LEAST(">=");

            final String sign;

            Operator(String sign) {
                this.sign = sign;
            }

            boolean holds(int comparison) {
                return switch (this) {
                    case EQUAL -> comparison == 0;
                    case UNEQUAL -> comparison != 0;
                    case LESS -> comparison < 0;
                    case AT_MOST -> comparison <= 0;
                    case MORE -> comparison > 0;
                    case AT_LEAST -> comparison >= 0;
                };
            }
        }
    }

    record Between(Expression operand, Expression low, Expression high, boolean negated) implements Expression {}

    record In(Expression operand, List<Expression> options, boolean negated) implements Expression {}

    record IsNull(Expression operand, boolean negated) implements Expression {}

    record Within(Expression operand, Window window, boolean negated) implements Expression {}

    /** @param escape one character, or null: nothing is an escape unless one is given */
    record Like(
            Expression operand,
            Expression pattern,
            @Nullable String escape,
            boolean negated) implements Expression {}

    /** A regular expression that is found somewhere in the text. */
    record Matches(Expression operand, String pattern, boolean negated) implements Expression {}

    /** @param name in small letters */
    record Call(String name, List<Expression> arguments) implements Expression {}

    /**
     * @param operand compared with each {@code when}; null where each is a condition
     * @param otherwise null for null
     */
    record Case(
            @Nullable Expression operand,
            List<When> whens,
            @Nullable Expression otherwise) implements Expression {
        public record When(Expression when, Expression then) {}
    }

    /** @param key in the order of the threshold's key; empty for one that is not kept by key */
    record Threshold(String name, List<Expression> key) implements Expression {}

    /**
     * One value for the rows of a group.
     *
     * @param argument what each row adds; null for {@code count()}
     * @param percent of a percentile, 0 to 100; else null
     * @param filter only rows for which this is true are counted; null for all
     */
    record Aggregate(
            Kind kind,
            @Nullable Expression argument,
            @Nullable BigDecimal percent,
            boolean distinct,
            @Nullable Expression filter)
            implements Expression {
        public enum Kind {
            COUNT("how many rows; of an argument, how many have it; distinct, how many different ones"),
            SUM("all added up"),
            AVG("the mean"),
            MIN("the lowest"),
            MAX("the highest"),
            MEDIAN("the middle one"),
            PERCENTILE("the value at this percentage of the sorted values, interpolated"),
            STDDEV("the standard deviation of a sample"),
            SHARE("the part of all rows for which a condition is true, from 0 to 1");

            final String meaning;

            Kind(String meaning) {
                this.meaning = meaning;
            }

            String word() {
                return name().toLowerCase(Locale.ROOT);
            }
        }
    }

    /**
     * A measured value held against what earlier checks measured.
     *
     * @param points how many of the last are looked at; null where the kind needs none
     * @param target and {@code within}: of {@link Kind#REACHES} alone
     */
    record History(
            Kind kind,
            Expression measured,
            @Nullable Integer points,
            @Nullable Expression target,
            @Nullable Span within)
            implements Expression {
        public enum Kind {
            PREVIOUS("at the previous check"),
            CHANGE("the present less the previous"),
            CHANGE_PCT("the change in percent of the previous"),
            USUAL("the median of the last N checks"),
            SPREAD("the typical distance from the usual in the last N checks"),
            REACHES("whether it gets to a value within a time, going on as over as long before");

            final String meaning;

            Kind(String meaning) {
                this.meaning = meaning;
            }

            String word() {
                return name().toLowerCase(Locale.ROOT);
            }
        }
    }

    record Not(Expression operand) implements Expression {}

    /** Two or more operands; each is a <em>part</em> of the condition where this stands at the top. */
    record And(List<Expression> operands) implements Expression {}

    record Or(List<Expression> operands) implements Expression {}

    static Literal number(Object value) {
        return new Literal(Type.NUMBER, value);
    }

    static Literal text(String value) {
        return new Literal(Type.TEXT, value);
    }

    static Literal duration(Span span) {
        return new Literal(Type.DURATION, span);
    }
}
