package dev.oddsentry.cli.common;

import dev.oddsentry.cli.client.Api;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** A list that the service gives page by page. */
public final class Pages {
    private Pages() {}

    /**
     * @param path of the first page, with its query
     * @param field the array in each answer that holds the entries
     * @return the first answer with the entries of all pages
     */
    public static JsonNode all(Api api, String path, String field) {
        var first = api.get(path);
        if (!(first instanceof ObjectNode whole) || !(first.path(field) instanceof ArrayNode entries)) return first;
        String next = next(first);
        while (next != null) {
            var page = api.get(path + (path.contains("?") ? "&" : "?") + "after=" + next);
            page.path(field).forEach(entries::add);
            next = next(page);
        }
        whole.putNull("next");
        return whole;
    }

    private static @Nullable String next(JsonNode page) {
        var next = page.path("next");
        return next.isString() ? next.asString() : null;
    }
}
