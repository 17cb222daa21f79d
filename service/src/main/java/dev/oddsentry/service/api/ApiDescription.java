package dev.oddsentry.service.api;

import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.media.ArraySchema;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.IntegerSchema;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.ObjectSchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import java.lang.reflect.AnnotatedParameterizedType;
import java.lang.reflect.AnnotatedType;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.ResourceBundle;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.GlobalOpenApiCustomizer;
import org.springdoc.core.customizers.GlobalOperationCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import tools.jackson.databind.JsonNode;

/**
 * Makes the OpenAPI document true: each type has a name of its own, fields are required unless they are {@code @Nullable} in a request, operations are tagged by
 * their concept, and refusals are described.
 */
@Component
class ApiDescription implements GlobalOpenApiCustomizer, GlobalOperationCustomizer {
    private static final String REFERENCE = "#/components/schemas/";
    private static final String REFUSAL = "Refusal";
    private static final ResourceBundle SENTENCES = ResourceBundle.getBundle("dev.oddsentry.service.api.operations");
    private static final String PARAMETERS = "QueryParameters";

    static {
        for (var id : List.of(CheckId.class, MessageId.class, RuleId.class))
            SpringDocUtils.getConfig().replaceWithSchema(id, new StringSchema().format("uuid"));
    }

    @Override
    public Operation customize(Operation operation, HandlerMethod handler) {
        String concept = handler.getBeanType().getPackageName();
        operation.setTags(List.of(concept.substring(concept.lastIndexOf('.') + 1)));
        operation.setSummary(SENTENCES.getString(operation.getOperationId()));
        describeStream(operation, handler);
        operation
                .getResponses()
                .setDefault(new ApiResponse()
                        .description("Refused, or failed")
                        .content(new Content()
                                .addMediaType(
                                        "application/problem+json",
                                        new MediaType().schema(new Schema<>().$ref(REFERENCE + REFUSAL)))));
        return operation;
    }

    /** A method that writes its answer itself returns nothing that would describe it. */
    private static void describeStream(Operation operation, HandlerMethod handler) {
        var mapping = handler.getMethodAnnotation(GetMapping.class);
        var answer = operation.getResponses().get("200");
        if (mapping == null || answer == null || handler.getReturnType().getParameterType() != void.class) return;
        var content = new Content();
        for (String type : mapping.produces())
            content.addMediaType(
                    type.replaceAll(";.*", ""), new MediaType().schema(new StringSchema().format("binary")));
        answer.setContent(content);
    }

    @Override
    public void customise(OpenAPI api) {
        var classes = new LinkedHashMap<String, Class<?>>();
        api.getComponents().getSchemas().keySet().forEach(key -> classes.put(key, classOf(key)));
        var names = names(classes);
        var schemas = new TreeMap<String, Schema>();
        api.getComponents().getSchemas().forEach((key, schema) -> {
            if (classes.get(key) != null && classes.get(key).isRecord()) nullness(schema, classes.get(key));
            schemas.put(names.get(key), described(schema, classes.get(key)));
        });
        schemas.remove(JsonNode.class.getSimpleName());
        schemas.put(REFUSAL, refusal());
        api.getComponents().setSchemas(new LinkedHashMap<>(schemas));
        var seen = new LinkedHashSet<Schema<?>>();
        schemas.values().forEach(schema -> rename(schema, names, seen));
        api.getPaths()
                .values()
                .forEach(path -> path.readOperations().forEach(operation -> rename(operation, names, seen)));
    }

    /** The class of that full name, nested or not; {@code null} for a generic type. */
    private static @Nullable Class<?> classOf(String name) {
        String binary = name;
        while (true) {
            try {
                return Class.forName(binary);
            } catch (ClassNotFoundException notSo) {
                int dot = binary.lastIndexOf('.');
                if (dot < 0) return null;
                binary = binary.substring(0, dot) + "$" + binary.substring(dot + 1);
            }
        }
    }

    private static Map<String, String> names(Map<String, Class<?>> classes) {
        var names = new HashMap<String, String>();
        var taken = new HashMap<String, String>();
        classes.forEach((key, type) -> {
            String name = type == null ? PARAMETERS : type.getSimpleName();
            String other = taken.putIfAbsent(name, key);
            if (other != null)
                throw new IllegalStateException("two types are named " + name + ": " + key + ", " + other);
            names.put(key, name);
        });
        return names;
    }

    /** The Java properties of a type that is not one of ours say nothing of what is sent; {@code null} is a map of query parameters. */
    private static Schema<?> described(Schema<?> schema, @Nullable Class<?> type) {
        if (type == null) return new ObjectSchema().additionalProperties(new ArraySchema().items(new StringSchema()));
        if (type == SseEmitter.class) return new StringSchema();
        return schema;
    }

    private static void nullness(Schema<?> schema, Class<?> type) {
        if (schema.getProperties() == null) return;
        for (var component : type.getRecordComponents()) {
            Schema<?> property = schema.getProperties().get(component.getName());
            if (property == null) continue;
            nullnessWithin(property, component.getAnnotatedType());
            // A tree of any shape.
            if (component.getType() == JsonNode.class) property = new ObjectSchema().additionalProperties(true);
            boolean mayBeNull = component.getAnnotatedType().isAnnotationPresent(Nullable.class);
            schema.getProperties().put(component.getName(), mayBeNull ? orNull(property) : property);
            // An answer has all its fields; a request may leave out what is null.
            boolean required = !mayBeNull || !type.getSimpleName().endsWith("Body");
            boolean listed =
                    schema.getRequired() != null && schema.getRequired().contains(component.getName());
            if (required && !listed) schema.addRequiredItem(component.getName());
        }
    }

    /** Of the entries of lists and maps. */
    private static void nullnessWithin(Schema<?> schema, AnnotatedType type) {
        if (!(type instanceof AnnotatedParameterizedType generic)) return;
        var arguments = generic.getAnnotatedActualTypeArguments();
        var last = arguments[arguments.length - 1];
        boolean orNull = last.isAnnotationPresent(Nullable.class);
        if (schema.getItems() != null) {
            nullnessWithin(schema.getItems(), last);
            if (orNull) schema.setItems(orNull(schema.getItems()));
        }
        if (schema.getAdditionalProperties() instanceof Schema<?> values) {
            nullnessWithin(values, last);
            if (orNull) schema.setAdditionalProperties(orNull(values));
        }
    }

    private static Schema<?> orNull(Schema<?> property) {
        if (property.get$ref() != null) {
            var none = new Schema<>();
            none.setTypes(Set.of("null"));
            return new Schema<>().anyOf(List.of(new Schema<>().$ref(property.get$ref()), none));
        }
        if (property.getTypes() != null) {
            var types = new LinkedHashSet<>(property.getTypes());
            types.add("null");
            property.setTypes(types);
            if (property.getEnum() != null && !property.getEnum().contains(null)) addNull(property);
        }
        return property;
    }

    @SuppressWarnings("unchecked")
    private static void addNull(Schema<?> property) {
        var values = new ArrayList<@Nullable Object>(property.getEnum());
        values.add(null);
        ((Schema<Object>) property).setEnum((List<Object>) (List<?>) values);
    }

    private static void rename(Operation operation, Map<String, String> names, Set<Schema<?>> seen) {
        if (operation.getParameters() != null)
            operation.getParameters().forEach(each -> rename(each.getSchema(), names, seen));
        if (operation.getRequestBody() != null)
            rename(operation.getRequestBody().getContent(), names, seen);
        operation.getResponses().values().forEach(each -> rename(each.getContent(), names, seen));
    }

    private static void rename(@Nullable Content content, Map<String, String> names, Set<Schema<?>> seen) {
        if (content != null) content.values().forEach(each -> rename(each.getSchema(), names, seen));
    }

    private static void rename(@Nullable Schema<?> schema, Map<String, String> names, Set<Schema<?>> seen) {
        if (schema == null) return;
        String reference = schema.get$ref();
        if (reference != null) {
            String name = names.get(reference.substring(REFERENCE.length()));
            if (name != null) schema.set$ref(REFERENCE + name);
            return;
        }
        if (!seen.add(schema)) return;
        if (schema.getProperties() != null) schema.getProperties().values().forEach(each -> rename(each, names, seen));
        rename(schema.getItems(), names, seen);
        if (schema.getAdditionalProperties() instanceof Schema<?> values) rename(values, names, seen);
        for (var some : new List<?>[] {schema.getAllOf(), schema.getAnyOf(), schema.getOneOf()})
            if (some != null) some.forEach(each -> rename((Schema<?>) each, names, seen));
    }

    /** RFC 9457, with the problems of a definition. */
    private static Schema<?> refusal() {
        return new ObjectSchema()
                .addProperty("title", new StringSchema())
                .addProperty("status", new IntegerSchema())
                .addProperty("detail", new StringSchema())
                .addProperty("instance", new StringSchema())
                .addProperty("problems", new ArraySchema().items(new Schema<>().$ref(REFERENCE + "Problem")))
                .required(List.of("title", "status", "detail"));
    }
}
