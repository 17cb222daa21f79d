package dev.oddsentry.service.api.conditions;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.condition.Expression;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.Window;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * The JSON form of a condition's tree. Each node says what it {@code is} and holds its parts by their names in {@link Expression};
 * literals, windows and lengths of time stand as they are written in the text form, so that nothing is lost of numbers and dates.
 */
final class ConditionTrees {
    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
    private static final Map<String, Class<? extends Expression>> KINDS = new LinkedHashMap<>();

    static {
        KINDS.put("literal", Expression.Literal.class);
        KINDS.put("column", Expression.ColumnName.class);
        KINDS.put("negation", Expression.Negation.class);
        KINDS.put("arithmetic", Expression.Arithmetic.class);
        KINDS.put("comparison", Expression.Comparison.class);
        KINDS.put("between", Expression.Between.class);
        KINDS.put("in", Expression.In.class);
        KINDS.put("missing", Expression.IsNull.class);
        KINDS.put("within", Expression.Within.class);
        KINDS.put("like", Expression.Like.class);
        KINDS.put("matches", Expression.Matches.class);
        KINDS.put("call", Expression.Call.class);
        KINDS.put("case", Expression.Case.class);
        KINDS.put("threshold", Expression.Threshold.class);
        KINDS.put("aggregate", Expression.Aggregate.class);
        KINDS.put("history", Expression.History.class);
        KINDS.put("not", Expression.Not.class);
        KINDS.put("and", Expression.And.class);
        KINDS.put("or", Expression.Or.class);
    }

    private ConditionTrees() {}

    static JsonNode json(Expression tree) {
        return jsonOf(tree);
    }

    private static JsonNode jsonOf(@Nullable Object part) {
        return switch (part) {
            case null -> NODES.nullNode();
            case Expression.Literal literal ->
                NODES.objectNode().put("is", "literal").put("text", Condition.print(literal));
            case Expression node -> fields(NODES.objectNode().put("is", nameOf(node)), (Record) node);
            case Window window -> NODES.stringNode(Condition.print(window));
            case Record other -> fields(NODES.objectNode(), other);
            case List<?> many -> {
                var array = NODES.arrayNode();
                many.forEach(each -> array.add(jsonOf(each)));
                yield array;
            }
            case Enum<?> choice -> NODES.stringNode(code(choice));
            case Boolean truth -> NODES.booleanNode(truth);
            case Integer number -> NODES.numberNode(number);
            default -> NODES.stringNode(part.toString());
        };
    }

    private static String nameOf(Expression node) {
        return KINDS.entrySet().stream()
                .filter(kind -> kind.getValue() == node.getClass())
                .findFirst()
                .orElseThrow()
                .getKey();
    }

    private static String code(Enum<?> choice) {
        return choice.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private static ObjectNode fields(ObjectNode json, Record node) {
        for (var component : node.getClass().getRecordComponents()) {
            json.set(component.getName(), jsonOf(valueOf(component, node)));
        }
        return json;
    }

    private static @Nullable Object valueOf(RecordComponent component, Record node) {
        Object value;
        try {
            value = component.getAccessor().invoke(node);
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException(impossible);
        }
        if (value instanceof Span span) return Condition.print(span);
        return value instanceof BigDecimal number ? number.toPlainString() : value;
    }

    /** @throws InvalidDefinitionException if it is no tree of a condition */
    static Expression tree(JsonNode json) {
        var tree = (Expression) read(json, Expression.class, "tree");
        try {
            // What printing and reading do not give back is no tree that a text could have.
            if (tree != null && Condition.parse(Condition.print(tree)).equals(tree)) return tree;
        } catch (NullPointerException missing) {
            throw refused("a part is missing", "tree");
        }
        throw refused("no text reads as this tree", "tree");
    }

    private static @Nullable Object read(JsonNode json, Type type, String path) {
        if (json.isNull() || json.isMissingNode()) return null;
        if (type instanceof ParameterizedType list) {
            if (!json.isArray()) throw refused("expected a list", path);
            var many = new ArrayList<Object>();
            for (int i = 0; i < json.size(); i++) {
                Object item = read(json.path(i), list.getActualTypeArguments()[0], path + "[" + i + "]");
                if (item == null) throw refused("a part is missing", path + "[" + i + "]");
                many.add(item);
            }
            return List.copyOf(many);
        }
        var wanted = (Class<?>) type;
        if (wanted == Expression.class) return readNode(json, path);
        if (wanted.isRecord() && wanted != Span.class) return readRecord(json, wanted, path);
        if (wanted == boolean.class) return json.asBoolean(false);
        if (wanted == Integer.class) return json.isIntegralNumber() ? json.asInt() : null;
        if (!json.isString()) throw refused("expected a text", path);
        return readText(json.asString(), wanted, path);
    }

    private static Object readText(String text, Class<?> wanted, String path) {
        if (wanted == String.class) return text;
        if (wanted == Span.class) {
            if (Condition.parse(text) instanceof Expression.Literal(var _, Span span)) return span;
            throw refused("\"" + text + "\" is not a length of time", path);
        }
        if (wanted == Window.class) {
            if (Condition.parse("x " + (text.startsWith("older") ? text : "in " + text))
                    instanceof Expression.Within(var _, var window, var _)) return window;
            throw refused("\"" + text + "\" is not a window", path);
        }
        if (wanted == BigDecimal.class && text.matches("\\d{1,3}(\\.\\d{1,17})?")) return new BigDecimal(text);
        for (var choice : wanted.isEnum() ? wanted.getEnumConstants() : new Object[0])
            if (code((Enum<?>) choice).equals(text)) return choice;
        throw refused("\"" + text + "\" is not known here", path);
    }

    private static Expression readNode(JsonNode json, String path) {
        String is = json.path("is").asString("");
        var kind = KINDS.get(is);
        if (kind == null) throw refused("\"" + is + "\" is none of " + String.join(", ", KINDS.keySet()), path + ".is");
        if (kind == Expression.Literal.class) {
            if (Condition.parse(json.path("text").asString("")) instanceof Expression.Literal literal) return literal;
            throw refused("\"" + json.path("text").asString("") + "\" is not a value", path + ".text");
        }
        return (Expression) readRecord(json, kind, path);
    }

    private static Object readRecord(JsonNode json, Class<?> wanted, String path) {
        var components = wanted.getRecordComponents();
        var types = new Class<?>[components.length];
        var values = new @Nullable Object[components.length];
        for (int i = 0; i < components.length; i++) {
            types[i] = components[i].getType();
            String field = path + "." + components[i].getName();
            values[i] = read(json.path(components[i].getName()), components[i].getGenericType(), field);
            if (values[i] == null && types[i].isPrimitive()) values[i] = Boolean.FALSE;
        }
        try {
            return wanted.getDeclaredConstructor(types).newInstance(values);
        } catch (ReflectiveOperationException impossible) {
            throw refused("a part is missing", path);
        }
    }

    private static InvalidDefinitionException refused(String why, String path) {
        return new InvalidDefinitionException(
                List.of(Problem.error("this is not a condition tree: " + why, path, null)));
    }
}
