package underbaton.web.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import underbaton.core.cue.Show;
import underbaton.core.plan.Plan;
import underbaton.core.plan.Planner;
import underbaton.core.store.ShowFile;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;

/**
 * Edits of every kind that a page allows, found by asking Spring, on the demo's shows and with what people might type: whatever was kept
 * plans, is read back from the database as it was, goes out as a file and comes in again, and its pages open. What is refused changes
 * nothing. {@code -Dbaton.edits=2000} for more.
 */
class EveryEditTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int EDITS = Integer.getInteger("baton.edits", 100);
    private static final long SEED = Long.getLong("baton.seed", 22);
    private static final int LOOKED_AT_EACH = 25;
    private static final String MAPPING = "requestMappingHandlerMapping";

    private final HttpClient client = HttpClient.newHttpClient();
    private Shows shows;
    private int id;

    @Test
    void whateverIsKeptPlansOpensAndIsReadBackAsItWas() throws Exception {
        shows = baton.bean(Shows.class);
        Show demo = shows.get(baton.show("The Ferryman’s Lantern"));
        id = shows.create("Every edit", s -> s.withContentOf(demo).renamed("Every edit"))
                .id();
        List<AnyEdit.Edit> edits = AnyEdit.all(baton);
        AnyEdit any = new AnyEdit(baton, id, SEED);
        Map<String, int[]> table = new TreeMap<>();
        edits.forEach(e -> table.put(e.path(), new int[2]));
        Set<String> faults = new TreeSet<>();
        int kept = 0;
        for (int i = 0; kept < EDITS && i < EDITS * 40; i++) {
            // All in turn, so that each has its chance whatever the seed.
            AnyEdit.Edit edit = edits.get(i % edits.size());
            Show before = shows.get(id);
            HttpResponse<String> answer = any.send(edit);
            table.get(edit.path())[0]++;
            // 503: the database took too long on a machine that is shared; then nothing is kept, which is no fault of
            // ours.
            if (answer.statusCode() >= 500 && answer.statusCode() != 503) {
                faults.add(edit.path());
                continue;
            }
            Show after = shows.get(id);
            boolean steps = edit.path().endsWith("/undo") || edit.path().endsWith("/redo");
            if (answer.statusCode() >= 400 && !steps) {
                assertThat(after)
                        .as("refused by %s: %s", edit.path(), answer.body())
                        .isSameAs(before);
            } else if (after != before) {
                kept++;
                table.get(edit.path())[1]++;
                holds(edit.path(), after, kept % LOOKED_AT_EACH == 0);
            }
            if (after.items().size() < 3 || after.devices().size() < 5 || i % 400 == 399) {
                shows.edit(id, "again", s -> s.withContentOf(demo).renamed("Every edit"));
            }
        }
        List<String> never = table.entrySet().stream()
                .filter(e -> e.getValue()[1] == 0)
                .map(Map.Entry::getKey)
                .toList();
        int all = table.values().stream().mapToInt(n -> n[0]).sum();
        System.out.println(
                kept + " edits kept of " + all + " asked for, " + table.size() + " kinds; never kept: " + never);
        assertThat(faults).as("faults of ours; see the log").isEmpty();
        assertThat(kept).isEqualTo(EDITS);
        shows.delete(id);
    }

    private void holds(String path, Show show, boolean looks) throws Exception {
        Plan plan = Planner.plan(show);
        assertThat(plan.items()).as(path).hasSameSizeAs(show.items());
        // As after a restart: what stands in the database, and nothing that is remembered.
        Show read = baton.bean(MAPPING, RequestMappingHandlerMapping.class)
                .getApplicationContext()
                .getAutowireCapableBeanFactory()
                .createBean(Shows.class)
                .get(id);
        assertThat(read.saysTheSameAs(show)).as("read back after %s", path).isTrue();
        byte[] file = ShowFile.write(show);
        assertThat(ShowFile.write(ShowFile.read(id, file)))
                .as("file after %s", path)
                .isEqualTo(file);
        if (looks) {
            for (String page :
                    List.of("book", "score", "rig", "signals", "patch", "hands", "linecheck", "book/paper")) {
                HttpResponse<String> drawn = client.send(
                        HttpRequest.newBuilder(URI.create(baton.url("/shows/" + id + "/" + page)))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
                assertThat(drawn.statusCode()).as("%s after %s", page, path).isEqualTo(200);
            }
        }
    }
}
