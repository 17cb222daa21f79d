package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.Seeded;
import dev.oddsentry.core.document.YamlPrinter;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Documents that nobody wrote: what is read is printed and read as the same, and what is wrong is refused with its place. */
class DocumentAdversaryTest {
    private static final List<Object> JUNK =
            List.of("", " ", "~", "none of it", -1, 0, true, 1.5, List.of(), List.of(List.of("x")), Map.of("x", "y"));

    private static Definition read(String text) {
        return Document.read(text).definition();
    }

    @Test
    void whatIsReadIsPrintedAndReadAsTheSame() {
        Seeded.cases(2000, random -> {
            String text = YamlPrinter.print(new RandomDocuments(random).any());
            var definition = read(text);
            String printed = Document.print(definition);
            assertThat(read(printed)).as(text).isEqualTo(definition);
            assertThat(Document.print(read(printed))).as("printed again").isEqualTo(printed);
        });
    }

    @Test
    void oneFieldOfJunkIsReadOrRefusedWithItsPlace() {
        Seeded.cases(3000, random -> {
            var tree = copied(new RandomDocuments(random).any());
            String path = spoil(tree, random);
            String text = YamlPrinter.print(tree);
            try {
                var definition = read(text);
                assertThat(read(Document.print(definition)))
                        .as(path + " in\n" + text)
                        .isEqualTo(definition);
            } catch (InvalidDefinitionException refused) {
                assertThat(refused.problems())
                        .as(path + " in\n" + text)
                        .isNotEmpty()
                        .allSatisfy(problem -> assertThat(problem.message()).isNotBlank())
                        .anySatisfy(
                                problem -> assertThat(isAbout(problem, path)).isTrue());
            }
        });
    }

    /** The fields that are wrong because of another, which decides what they mean. */
    private static final Map<String, List<String>> DEPEND =
            Map.of("kind", List.of(""), "per", List.of("measures", "expected_groups", "memory.key"));

    /** A problem is of the field itself, of one in it, of one that it is in, or of one beside it that it makes wrong. */
    private static boolean isAbout(Problem problem, String path) {
        String field = problem.field();
        if (field.startsWith(path) || (!field.isEmpty() && path.startsWith(field))) return true;
        if (DEPEND.getOrDefault(path, List.of()).stream().anyMatch(field::startsWith)) return true;
        int end = path.lastIndexOf('.');
        return end > 0 && field.startsWith(path.substring(0, end));
    }

    private static Map<String, Object> copied(Map<?, ?> tree) {
        var copy = new LinkedHashMap<String, Object>();
        tree.forEach((name, value) ->
                copy.put(String.valueOf(name), value instanceof Map<?, ?> inner ? copied(inner) : value));
        return copy;
    }

    /** @return the field that was given junk, or that nobody knows */
    private static String spoil(Map<String, Object> tree, Random random) {
        var names = List.copyOf(tree.keySet());
        String name = names.get(random.nextInt(names.size()));
        if (tree.get(name) instanceof Map<?, ?> inner && !inner.isEmpty() && random.nextBoolean()) {
            @SuppressWarnings("unchecked")
            var mapping = (Map<String, Object>) inner;
            return name + "." + spoil(mapping, random);
        }
        String spoiled = random.nextInt(6) == 0 ? name + "_" : name;
        tree.put(spoiled, JUNK.get(random.nextInt(JUNK.size())));
        return spoiled;
    }
}
