package dev.oddsentry.core.condition;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Type;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Stream;

/** The counts of a whole check that {@code fire when} may ask for: {@code exceptions()}, {@code updates('new')}. */
final class CheckCounts {
    static final String EXCEPTIONS = "exceptions";
    static final String UPDATES = "updates";

    private CheckCounts() {}

    static Type check(Expression.Call call, TypeChecker checker) {
        var known = kindsOf(call.name());
        var arguments = call.arguments();
        if (arguments.isEmpty()) return Type.NUMBER;
        var only = arguments.getFirst();
        boolean text =
                arguments.size() == 1 && only instanceof Expression.Literal(var type, var _) && type == Type.TEXT;
        checker.check(only);
        if (!text) {
            checker.refuse("write " + call.name() + "() or " + call.name() + "('" + known.getFirst() + "')", call);
        } else if (!known.contains(kindOf(call))) {
            checker.refuse("'" + kindOf(call) + "' is none of " + String.join(", ", known), only, known, kindOf(call));
        }
        return Type.NUMBER;
    }

    static List<String> kindsOf(String count) {
        return count.equals(UPDATES)
                ? codes(UpdateKind.values(), UpdateKind::code)
                : codes(Severity.values(), Severity::word);
    }

    private static <T> List<String> codes(T[] values, Function<T, String> code) {
        return Stream.of(values).map(code).toList();
    }

    /** The kind that a checked call asks for; empty for all. */
    static String kindOf(Expression.Call call) {
        return call.arguments().isEmpty()
                ? ""
                : String.valueOf(((Expression.Literal) call.arguments().getFirst()).value());
    }
}
