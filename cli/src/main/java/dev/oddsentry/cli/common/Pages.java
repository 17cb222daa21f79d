package dev.oddsentry.cli.common;

import dev.oddsentry.cli.client.Api;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** A list that the service gives page by page. */
public final class Pages {
    private Pages() {}

    /**
     * @param path of the first page, with its query
     * @param entries of a page
     * @param next where the next page begins; null on the last
     * @param whole the first page with the entries of all
     */
    public static <P, E> P all(
            Api api,
            String path,
            Class<P> page,
            Function<P, List<E>> entries,
            Function<P, @Nullable String> next,
            BiFunction<P, List<E>, P> whole) {
        var first = api.get(path, page);
        var all = new ArrayList<>(entries.apply(first));
        for (String after = next.apply(first); after != null; ) {
            var more = api.get(path + (path.contains("?") ? "&" : "?") + "after=" + after, page);
            all.addAll(entries.apply(more));
            after = next.apply(more);
        }
        return whole.apply(first, all);
    }
}
