package dev.oddsentry.service;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.Dependency;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** docs/architecture.md and its picture show the rooms as the code has them. {@code -Dodd.write-docs=true} writes both. */
class ArchitecturePageTest {
    private static final String BASE = "dev.oddsentry.service.";
    private static final Path SOURCES = Path.of("src/main/java/dev/oddsentry/service");
    private static final Path PAGE = Path.of("../docs/architecture.md");
    private static final Path PICTURE = Path.of("../docs/architecture.svg");
    private static final String BEGIN = "<!-- rooms -->\n";
    private static final String END = "<!-- end of rooms -->";
    private static final Pattern COMMENT = Pattern.compile("/\\*\\*(.*?)\\*/", Pattern.DOTALL);

    private static final int WIDTH = 960;
    private static final int BOX_HEIGHT = 34;
    private static final int GAP = 10;

    private final Map<String, TreeSet<String>> uses = new TreeMap<>();

    ArchitecturePageTest() {
        new ClassFileImporter()
                .withImportOption(new ImportOption.DoNotIncludeTests()).importPackages("dev.oddsentry.service").stream()
                        .filter(each -> !each.getPackageName().contains(".db.generated"))
                        .forEach(this::read);
    }

    private void read(JavaClass from) {
        String room = room(from);
        if (room.isEmpty()) return;
        var used = uses.computeIfAbsent(room, _ -> new TreeSet<>());
        for (Dependency each : from.getDirectDependenciesFromSelf()) {
            var to = each.getTargetClass();
            String other = to.getPackageName().contains(".db.generated") ? "" : room(to);
            if (!other.isEmpty() && !other.equals(room)) used.add(other);
        }
    }

    private static String room(JavaClass each) {
        String name = each.getPackageName() + ".";
        if (!name.startsWith(BASE)) return "";
        String rest = name.substring(BASE.length());
        return rest.isEmpty() ? "" : rest.substring(0, rest.indexOf('.'));
    }

    private int level(String room) {
        return uses.get(room).stream().mapToInt(each -> level(each) + 1).max().orElse(0);
    }

    private TreeMap<Integer, List<String>> levels() {
        var levels = new TreeMap<Integer, List<String>>();
        uses.keySet()
                .forEach(room -> levels.computeIfAbsent(-level(room), _ -> new ArrayList<>())
                        .add(room));
        return levels;
    }

    private static String meaning(String room) throws IOException {
        Path about = SOURCES.resolve(room).resolve("package-info.java");
        if (!Files.exists(about))
            return room.equals("api") ? "Controllers and the views they show, a folder for each concept." : "";
        var comment = COMMENT.matcher(Files.readString(about));
        if (!comment.find()) return "";
        String text = comment.group(1).replaceAll("\\s*\\n \\* ?", " ").replaceAll("\\{@\\w+ ([^}]*)}", "`$1`");
        return text.strip().replaceAll("\\s+", " ");
    }

    private String table() throws IOException {
        var table = new StringBuilder("| room | what it holds | uses |\n|---|---|---|\n");
        for (var level : levels().values())
            for (String room : level)
                table.append("| `")
                        .append(room)
                        .append("` | ")
                        .append(meaning(room))
                        .append(" | ")
                        .append(String.join(", ", uses.get(room)))
                        .append(" |\n");
        return table.toString();
    }

    private String picture() {
        var boxes = new StringBuilder();
        int y = GAP;
        for (var level : levels().values()) {
            int width = (WIDTH - GAP * (level.size() + 1)) / level.size();
            for (int i = 0; i < level.size(); i++) {
                int x = GAP + i * (width + GAP);
                boxes.append("<rect x=\"%d\" y=\"%d\" width=\"%d\" height=\"%d\" rx=\"5\"/>"
                                .formatted(x, y, width, BOX_HEIGHT))
                        .append("<text x=\"%d\" y=\"%d\">%s</text>\n"
                                .formatted(x + width / 2, y + BOX_HEIGHT / 2 + 5, level.get(i)));
            }
            y += BOX_HEIGHT + GAP;
        }
        return """
                <svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" font-family="sans-serif" font-size="13" text-anchor="middle">
                <title>Rooms of the service: each uses only rooms below it</title>
                <style>rect { fill: #faf8f4; stroke: #22303c } text { fill: #22303c }</style>
                <rect x="0" y="0" width="%d" height="%d" style="fill: #ffffff; stroke: none"/>
                %s</svg>
                """.formatted(WIDTH, y, WIDTH, y, boxes);
    }

    @Test
    void pageAndPictureShowTheRoomsOfTheCode() throws IOException {
        String page = Files.readString(PAGE);
        int begin = page.indexOf(BEGIN) + BEGIN.length();
        String present = page.substring(0, begin) + table() + page.substring(page.indexOf(END));
        if (Boolean.getBoolean("odd.write-docs")) {
            Files.writeString(PAGE, present);
            Files.writeString(PICTURE, picture());
        }
        assertThat(Files.readString(PAGE)).isEqualTo(present);
        assertThat(Files.readString(PICTURE)).isEqualTo(picture());
    }

    @Test
    void eachRoomSaysWhatItHolds() throws IOException {
        for (String room : uses.keySet()) assertThat(meaning(room)).as(room).isNotBlank();
        assertThat(levels().values().stream().flatMap(List::stream).collect(Collectors.toSet()))
                .isEqualTo(uses.keySet());
    }
}
