package dev.oddsentry.core.extract;

import com.samskivert.mustache.BasicCollector;
import com.samskivert.mustache.Mustache;
import com.samskivert.mustache.MustacheException;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A text with fields, such as {@code {{new}} new at {{split}}}: no logic but that a section is left out where its field is empty, and told once
 * for each row. What comes out is plain text; the caller who puts it into HTML escapes it.
 */
public final class Template {
    /** The section that is told once for each of the first rows. */
    public static final String ROWS = "rows";

    private static final Pattern UNESCAPED = Pattern.compile("\\{\\{\\{|\\{\\{\\s*&");
    private static final Pattern SECTION = Pattern.compile("\\{\\{\\s*([#^/])\\s*([^}]*?)\\s*\\}\\}");
    private static final int DEEPEST = 10;
    private static final int MOST_CHARACTERS = 50_000;
    private static final Pattern OTHERS = Pattern.compile("\\{\\{\\s*[>=<$]");

    /** Reads nothing but maps, so that a template never reaches into objects. */
    private static final Mustache.Collector MAPS_ALONE = new BasicCollector() {
        @Override
        public Mustache.VariableFetcher createFetcher(Object context, String name) {
            return (of, field) -> {
                if (!(of instanceof Map<?, ?> map) || !map.containsKey(FieldFormat.nameIn(field)))
                    return com.samskivert.mustache.Template.NO_FETCHER_FOUND;
                return FieldFormat.in(field)
                        .<Object>map(format -> format.written(map))
                        .orElseGet(() -> map.get(field));
            };
        }

        @Override
        public <K, V> Map<K, V> createFetcherCache() {
            // A template is rendered by several threads at once.
            return new ConcurrentHashMap<>();
        }
    };

    private static final Mustache.Compiler COMPILER = Mustache.compiler()
            .escapeHTML(false)
            .emptyStringIsFalse(true)
            .zeroIsFalse(true)
            .withCollector(MAPS_ALONE);

    private final com.samskivert.mustache.Template compiled;

    private Template(com.samskivert.mustache.Template compiled) {
        this.compiled = compiled;
    }

    /** @throws InvalidDefinitionException if it cannot be read */
    public static Template of(String text) {
        if (text.length() > MOST_CHARACTERS) throw refused("the text has more than " + MOST_CHARACTERS + " characters");
        refuseRepeatedSections(text);
        if (UNESCAPED.matcher(text).find())
            throw refused(
                    "{{{…}}} and {{&…}} are not known here: write {{…}}, which is never read as anything but text");
        if (OTHERS.matcher(text).find())
            throw refused("only fields {{…}}, sections {{#…}}…{{/…}} and {{^…}}…{{/…}} are known");
        try {
            var template = new Template(COMPILER.compile(text));
            template.formats();
            return template;
        } catch (MustacheException unreadable) {
            throw refused(String.valueOf(unreadable.getMessage()));
        }
    }

    /** A section in one of the same name would say all rows again for each row. */
    private static void refuseRepeatedSections(String text) {
        var open = new ArrayDeque<String>();
        var sections = SECTION.matcher(text);
        while (sections.find()) {
            String name = sections.group(2);
            if (sections.group(1).equals("/")) open.pollLast();
            else if (open.contains(name)) throw refused("the section " + name + " is inside itself");
            else open.addLast(name);
            if (open.size() > DEEPEST) throw refused("sections are nested more than " + DEEPEST + " deep");
        }
    }

    /** The same text, once it was found readable. */
    public static String check(String text) {
        of(text);
        return text;
    }

    /** The fields that it names, in order and without formats: those inside {@link #ROWS} too. */
    public Set<String> fields() {
        var fields = new LinkedHashSet<String>();
        visit((name, _) -> fields.add(FieldFormat.nameIn(name)));
        return fields;
    }

    /** The formats of its fields. */
    public List<FieldFormat> formats() {
        var formats = new ArrayList<FieldFormat>();
        visit((name, section) -> FieldFormat.in(name).ifPresent(format -> {
            if (section) throw refused("a section has no format: write {{#" + format.field() + "}}");
            formats.add(format);
        }));
        return formats;
    }

    @FunctionalInterface
    private interface NameVisitor {
        void visit(String name, boolean section);
    }

    private void visit(NameVisitor names) {
        compiled.visit(new Mustache.Visitor() {
            @Override
            public void visitText(String text) {}

            @Override
            public void visitVariable(String name) {
                names.visit(name, false);
            }

            @Override
            public boolean visitInclude(String name) {
                return false;
            }

            @Override
            public boolean visitSection(String name) {
                names.visit(name, true);
                return true;
            }

            @Override
            public boolean visitInvertedSection(String name) {
                names.visit(name, true);
                return true;
            }
        });
    }

    /** @param values by field; every field that it names is among them, even if it is null */
    public String render(Map<String, ? extends @Nullable Object> values) {
        return compiled.execute(values);
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }
}
