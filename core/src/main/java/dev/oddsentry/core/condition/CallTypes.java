package dev.oddsentry.core.condition;

import dev.oddsentry.core.value.Type;
import java.util.ArrayList;
import java.util.List;

/** The type checker's part for calls: which function is meant, and whether its arguments fit. */
final class CallTypes {
    private final TypeChecker checker;

    CallTypes(TypeChecker checker) {
        this.checker = checker;
    }

    Type of(Expression.Call call) {
        boolean ofCheck = checker.scope().place() == Scope.Place.CHECK;
        return switch (call.name()) {
            case Functions.COALESCE -> coalesce(call);
            case Functions.NULLIF -> nullIf(call);
            case CheckCounts.EXCEPTIONS, CheckCounts.UPDATES ->
                ofCheck ? CheckCounts.check(call, checker) : function(call);
            default -> function(call);
        };
    }

    private Type coalesce(Expression.Call call) {
        if (call.arguments().isEmpty()) checker.refuse("coalesce takes one argument or more", call);
        Type type = Type.NULL;
        for (var argument : call.arguments()) type = checker.together(type, argument);
        return type;
    }

    private Type nullIf(Expression.Call call) {
        if (call.arguments().size() != 2) {
            checker.refuse("nullif takes two arguments: nullif(value, the value that counts as missing)", call);
            return Type.NULL;
        }
        Type type = checker.check(call.arguments().getFirst());
        checker.comparable(
                call.arguments().getFirst(),
                type,
                call.arguments().getLast(),
                checker.check(call.arguments().getLast()));
        return type;
    }

    private Type function(Expression.Call call) {
        var types = call.arguments().stream().map(checker::check).toList();
        var function = Functions.byName().get(call.name());
        if (function == null) {
            var known = new ArrayList<>(Functions.byName().keySet());
            known.addAll(List.of(Functions.COALESCE, Functions.NULLIF));
            checker.refuse("unknown function \"" + call.name() + "\"", call, known, call.name());
            return Type.NULL;
        }
        var signature = function.signatures().stream()
                .filter(each -> each.parameters().size() == types.size())
                .findFirst();
        if (signature.isEmpty()) {
            checker.refuse("write " + function.usage() + ", this has " + types.size() + " arguments", call);
            return function.signatures().getFirst().result();
        }
        for (int i = 0; i < types.size(); i++) {
            if (!signature.get().parameters().get(i).takes(types.get(i))) {
                checker.refuse(
                        "write " + function.usage() + ", this is "
                                + types.get(i).word(),
                        call.arguments().get(i));
            }
        }
        return signature.get().result();
    }
}
