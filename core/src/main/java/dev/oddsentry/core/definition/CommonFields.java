package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** The fields that every kind of document has, and the types of field that several kinds have. */
record CommonFields(@Nullable String id, String name, String title) {
    static final ScalarType<ZoneId> ZONE =
            new ScalarType<>(Shape.text("time zone, such as `Europe/Oslo`"), CommonFields::zone, ZoneId::getId);

    /** Words without commas, since lists of them are written with commas. */
    static final ScalarType<String> LABEL = FieldTypes.text("word or phrase", CommonFields::label);

    private static final int LONGEST_LABEL = 60;
    private static final ScalarType<String> ID =
            new ScalarType<>(new Shape("UUID", Map.of("type", "string", "format", "uuid")), CommonFields::id, id -> id);
    private static final ScalarType<String> NAME =
            FieldTypes.name("lower-case letters, digits, hyphens and underscores");
    private static final Part<Definition> PART = new Part<>("common", "What every definition has.");
    private static final Field<Definition, String> ID_FIELD = PART.field(
            "id",
            ID,
            Definition::id,
            "The service assigns it. A definition with an id can be renamed and keeps its memory.");
    private static final Field<Definition, String> NAME_FIELD = PART.field(
                    "name", NAME, Definition::name, "The name in commands, addresses and other definitions.")
            .required("late-sailings");
    private static final Field<Definition, String> TITLE = PART.field(
                    "title", FieldTypes.TEXT, Definition::title, "What people see.")
            .usually("the name");

    private static final Part<Definition> SHARED =
            new Part<>("shared", "What definitions have that several rules use.");
    private static final Field<Definition, String> OWNER = SHARED.field(
                    "owner",
                    FieldTypes.text("name of a team"),
                    Definition::owner,
                    "The team that it belongs to, whose members change it where teams decide.")
            .usually("every team shares it");
    private static final Part<Definition> VISIBILITY = new Part<>("visibility", "Who sees a definition.");
    private static final Field<Definition, List<String>> VISIBLE_TO = VISIBILITY
            .field(
                    "visible_to",
                    FieldTypes.text("name of a team").list(),
                    Definition::visibleTo,
                    "The teams that see it and what comes of it. Its owner and the people whom it mails always do; others do not.")
            .usual(List.of())
            .usually("everybody sees it");

    /** A table of what several rules use: it may belong to a team. */
    static <D extends Definition> Part<D> sharedTable(Kind kind, String help) {
        Part<D> part = table(kind, help);
        part.include(SHARED, definition -> definition);
        addVisibility(part);
        return part;
    }

    /** Adds who sees it, behind its owner. */
    static <D extends Definition> void addVisibility(Part<D> part) {
        part.include(VISIBILITY, definition -> definition);
    }

    /** The teams that see it beside its owner; empty for all. */
    static List<String> visibleTo(Fields top) {
        var teams = VISIBLE_TO.in(top).stream().distinct().toList();
        if (!teams.isEmpty() && !top.has(OWNER.name()))
            top.refuse(
                    VISIBLE_TO.name(),
                    "only what a team owns can be hidden from others; add owner: " + teams.getFirst());
        return teams;
    }

    /** The team that a shared definition belongs to; null for all. */
    static @Nullable String owner(Fields top) {
        return OWNER.orNull(top);
    }

    /** A table that begins with the kind and these fields. */
    static <D extends Definition> Part<D> table(Kind kind, String help) {
        var code = kind.code();
        var part = new Part<D>(code, help);
        part.field(
                        "kind",
                        new ScalarType<>(
                                new Shape("`" + code + "`", Map.of("const", code)), text -> text, text -> text),
                        definition -> code,
                        "What is defined.")
                .required(code);
        return part.include(PART, definition -> definition);
    }

    static CommonFields read(Fields top) {
        String id = ID_FIELD.orNull(top);
        String name = NAME_FIELD.read(top).orElse("");
        return new CommonFields(id, name, TITLE.read(top).orElse(name));
    }

    private static String id(String text) {
        try {
            if (UUID.fromString(text).toString().equals(text)) return text;
        } catch (IllegalArgumentException notOne) {
            // The words below say it.
        }
        throw InvalidDefinitionException.of(
                "\"" + text + "\": an id is a UUID; leave it out and the service assigns one");
    }

    private static ZoneId zone(String text) {
        try {
            return ZoneId.of(text);
        } catch (DateTimeException unknown) {
            throw InvalidDefinitionException.of("\"" + text + "\" is not a time zone. Example: Europe/Oslo");
        }
    }

    private static String label(String text) {
        if (!text.isBlank() && !text.contains(",") && text.length() <= LONGEST_LABEL) return text;
        throw InvalidDefinitionException.of("\"" + text
                + "\" is not a label. Use a word or a phrase without commas, max " + LONGEST_LABEL + " characters");
    }
}
