package underbaton.web;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.Dependency;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.junit.ArchTest;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** The drawing of the house in {@code docs/house.md} is made from the code; {@code -Dbaton.draw=true} draws it anew. A part of {@link ArrowsTest}. */
final class HouseDrawing {

    private static final Path PAGE = Path.of("../docs/house.md");
    private static final String FROM = "```mermaid\n";
    private static final String TO = "```\n";
    private static final Set<String> TOP = Set.of("web");

    private static String room(JavaClass of) {
        String name = of.getPackageName().replaceFirst("^underbaton\\.", "");
        // A part of the engine or a way out is a closet of its room.
        return name.replaceFirst("^(core\\.\\w+|wire)\\..*$", "$1");
    }

    private static Map<String, Set<String>> arrows(JavaClasses classes) {
        Map<String, Set<String>> arrows = new TreeMap<>();
        classes.stream()
                .filter(c -> !c.getPackageName().startsWith("underbaton.bench"))
                .forEach(c -> {
                    Set<String> to = arrows.computeIfAbsent(room(c), r -> new TreeSet<>());
                    for (Dependency d : c.getDirectDependenciesFromSelf()) {
                        JavaClass target = d.getTargetClass();
                        if (target.getPackageName().startsWith("underbaton.")
                                && !room(target).equals(room(c))) {
                            to.add(room(target));
                        }
                    }
                });
        arrows.keySet().removeAll(TOP);
        return arrows;
    }

    /** Without the arrows that others say already. */
    private static Map<String, Set<String>> fewest(Map<String, Set<String>> arrows) {
        Map<String, Set<String>> fewest = new TreeMap<>();
        arrows.forEach((from, all) -> fewest.put(
                from,
                all.stream()
                        .filter(to -> all.stream().noneMatch(by -> !by.equals(to) && reaches(by, to, arrows)))
                        .collect(Collectors.toCollection(TreeSet::new))));
        return fewest;
    }

    private static boolean reaches(String from, String to, Map<String, Set<String>> arrows) {
        return arrows.getOrDefault(from, Set.of()).stream().anyMatch(n -> n.equals(to) || reaches(n, to, arrows));
    }

    private static String floor(String room) {
        return switch (room) {
            case "web.stage", "web.record" -> "web: running";
            case "web.library" -> "web: library";
            case "web.kernel", "web.live" -> "web: kernel";
            default -> room.startsWith("web.") ? "web: pages" : room.replaceFirst("\\..*", "");
        };
    }

    private static String drawing(JavaClasses classes) {
        Map<String, Set<String>> arrows = fewest(arrows(classes));
        StringBuilder text = new StringBuilder("graph TD\n");
        Map<String, Set<String>> floors = new TreeMap<>();
        arrows.keySet().forEach(r -> floors.computeIfAbsent(floor(r), f -> new TreeSet<>())
                .add(r));
        floors.forEach((floor, rooms) -> {
            text.append("  subgraph ")
                    .append("floor_")
                    .append(floor.replace(": ", "_"))
                    .append("[\"")
                    .append(floor)
                    .append("\"]\n");
            rooms.forEach(r -> text.append("    ")
                    .append(r)
                    .append("[")
                    .append(r.replaceFirst(".*\\.", ""))
                    .append("]\n"));
            text.append("  end\n");
        });
        arrows.forEach((from, all) -> all.forEach(
                to -> text.append("  ").append(from).append(" --> ").append(to).append('\n')));
        return text.toString();
    }

    @ArchTest
    static void theDrawingIsThatOfTheCode(JavaClasses classes) throws IOException {
        String page = Files.readString(PAGE);
        int from = page.indexOf(FROM) + FROM.length();
        int to = page.indexOf(TO, from);
        if (Boolean.getBoolean("baton.draw")) {
            Files.writeString(PAGE, page.substring(0, from) + drawing(classes) + page.substring(to));
        } else {
            assertThat(page.substring(from, to)).isEqualTo(drawing(classes));
        }
    }
}
