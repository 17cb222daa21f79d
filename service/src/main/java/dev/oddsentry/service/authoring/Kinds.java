package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.service.web.RefusedException;
import java.util.Arrays;
import java.util.stream.Collectors;

/** Kinds of definitions as they stand in addresses. */
public final class Kinds {
    private Kinds() {}

    /** @throws RefusedException if there is no such kind */
    public static Kind of(String code) {
        for (Kind kind : Kind.values()) if (kind.code().equals(code)) return kind;
        String all = Arrays.stream(Kind.values()).map(Kind::code).collect(Collectors.joining(", "));
        throw RefusedException.notFound("\"" + code + "\" is none of " + all + ".");
    }
}
