package dev.oddsentry.service.web;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.lang.reflect.AnnotatedParameterizedType;
import java.lang.reflect.AnnotatedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/**
 * Holds JSON to what the code says of its records, before anything else reads the request: what is not {@code @Nullable} must be there, in lists and maps too,
 * and none of those is longer than anybody needs.
 */
@ControllerAdvice
class RequiredFields extends RequestBodyAdviceAdapter {
    private static final int MOST_ENTRIES = 10_000;

    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        return parameter.getParameterType().isRecord();
    }

    @Override
    public Object afterBodyRead(
            @Nullable Object body,
            HttpInputMessage message,
            MethodParameter parameter,
            Type type,
            Class<? extends HttpMessageConverter<?>> converter) {
        if (body == null) throw RefusedException.malformed("The request needs a body, as JSON.");
        var problems = new ArrayList<Problem>();
        check((Record) body, "", problems);
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
        return body;
    }

    private static void check(Record read, String path, List<Problem> problems) {
        for (var component : read.getClass().getRecordComponents()) {
            String field = path.isEmpty() ? component.getName() : path + "." + component.getName();
            check(value(read, component), component.getAnnotatedType(), field, problems);
        }
    }

    private static void check(@Nullable Object value, AnnotatedType type, String field, List<Problem> problems) {
        switch (value) {
            case null -> {
                if (!type.isAnnotationPresent(Nullable.class))
                    problems.add(Problem.error("\"" + field + "\" is required", field, null));
            }
            case Record inner -> check(inner, field, problems);
            case List<?> list when list.size() > MOST_ENTRIES -> problems.add(tooMany(field, list.size()));
            case Map<?, ?> map when map.size() > MOST_ENTRIES -> problems.add(tooMany(field, map.size()));
            case List<?> list -> {
                int index = 0;
                for (Object each : list) check(each, argument(type, 0), field + "[" + index++ + "]", problems);
            }
            case Map<?, ?> map ->
                map.forEach((key, each) -> check(each, argument(type, 1), field + "." + key, problems));
            default -> {}
        }
    }

    private static Problem tooMany(String field, int entries) {
        return Problem.error(
                "\"" + field + "\" has " + entries + " entries; at most " + MOST_ENTRIES + " are allowed", field, null);
    }

    private static AnnotatedType argument(AnnotatedType type, int index) {
        return type instanceof AnnotatedParameterizedType generic
                ? generic.getAnnotatedActualTypeArguments()[index]
                : type;
    }

    private static @Nullable Object value(Record read, RecordComponent component) {
        try {
            var accessor = component.getAccessor();
            accessor.setAccessible(true);
            return accessor.invoke(read);
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
