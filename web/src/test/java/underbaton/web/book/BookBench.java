package underbaton.web.book;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wording;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.web.Measured;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;

/**
 * How quickly the Book answers, of the size of a demo show and of a hundred times that: its first page, an edit at the
 * server and to the painted frame, a step from cell to cell. {@code ./baton bench book} runs it.
 */
@Tag("bench")
class BookBench {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int MACHINES = 9;
    private static final int LOOKS = 20;
    /** As many as a show may have, or nearly. */
    private static final int MANY_MACHINES = 40;

    private static final int MANY_LOOKS = 498;
    private static final int MANY_CUES = 3001;
    private static final int TIMES = 15;
    private static final int KEYS = 40;
    private static final int OPENINGS = 8;

    /** The time since the page was asked for. */
    private static final String PAINTED =
            "() => new Promise((done) => requestAnimationFrame(() => setTimeout(() => done(performance.now()))))";

    /** Writes into the chosen cell and waits until the book shows it, painted; answers all and the server's part. */
    private static final String EDITS =
            """
            async ([times, looks]) => {
              const painted = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
              const key = (target, k) => target.dispatchEvent(new KeyboardEvent('keydown', { key: k, bubbles: true, cancelable: true }));
              const all = []; const server = [];
              for (let i = 0; i < times; i++) {
                const words = `Look ${1 + (i + 9) % looks}`;
                const cell = document.querySelector('.sel');
                const { cue } = cell.parentElement.dataset; const { column } = cell.dataset;
                key(document.body, 'Enter');
                const input = document.querySelector('.editing input');
                input.value = words;
                input.dispatchEvent(new Event('input', { bubbles: true }));
                performance.clearResourceTimings();
                const from = performance.now();
                key(input, 'Enter');
                const there = () => document.querySelector(`tr.cue[data-cue="${cue}"] [data-column="${column}"] .said`)?.textContent === words
                  && !document.querySelector('.editing');
                while (!there()) await new Promise((done) => setTimeout(done, 1));
                await painted();
                all.push(performance.now() - from);
                await new Promise((done) => setTimeout(done, 150));
                const posted = performance.getEntriesByType('resource').find((e) => /cell/.test(e.name));
                server.push(posted.responseEnd - posted.requestStart);
              }
              return { all, server };
            }""";

    private static final String STEPS =
            """
            async ([times]) => {
              const painted = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
              const all = [];
              for (let i = 0; i < times; i++) {
                const from = performance.now();
                document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
                await painted();
                all.push(performance.now() - from);
              }
              return all;
            }""";

    private static Show book(Show empty, int machines, int looksEach, int items, int cuesEach) {
        Show show = empty;
        List<Department> departments = List.of(Department.values());
        for (int d = 0; d < machines; d++) {
            show = show.withDevice(new Device(
                    0,
                    "Machine " + (d + 1),
                    departments.get(d % departments.size()),
                    new Connection.NetworkMidi("127.0.0.1", 9),
                    0,
                    Numbering.WIRE,
                    0,
                    List.of()));
            Device device = show.devices().get(d);
            List<Phrase> looks = new ArrayList<>();
            for (int l = 1; l <= looksEach; l++) {
                var says = new Wording(Numbering.WIRE).read("note " + l % 128);
                looks.add(new Phrase(0, "Look " + l, says, Effect.HOLDS, false));
            }
            show = show.withPhrasebook(device.withPhrases(looks));
        }
        int number = 0;
        for (int i = 0; i < items; i++) {
            show = show.withItem(new Item(0, ItemKind.SONG, "Item " + (i + 1), 180, List.of()), i);
            List<Cue> cues = new ArrayList<>();
            for (int c = 0; c < cuesEach; c++) {
                List<Call> calls = new ArrayList<>();
                for (int k = 0; k < 3; k++) {
                    Device device = show.devices().get((number + 3 * k) % machines);
                    calls.add(new Call(
                            device.id(),
                            device.phrases().get((number + k) % looksEach).id()));
                }
                String says = "What happens at line " + ++number;
                cues.add(new Cue(0, CueNumber.of(Integer.toString(number)), Start.BY_HAND, says, calls, 0));
            }
            show = show.withCues(show.items().get(i).id(), cues);
        }
        return show;
    }

    @Test
    void howQuicklyABookAnswers() throws Exception {
        measure(7, 8);
        measure(200, 27);
    }

    /** 5,400 cues and 40 machines of 498 phrases; the score has a song of 3,001 cues on its beats. */
    @Test
    void howQuicklyTheLargestRigAnswers() throws Exception {
        Shows shows = baton.bean(Shows.class);
        int show = shows.create("Large bench", s -> withSong(book(s, MANY_MACHINES, MANY_LOOKS, 89, 27)))
                .id();
        int song = shows.get(show).items().get(89).id();
        String of = "/shows/" + show;
        Measured.head("5,404 cues, 40 machines of 498 phrases, a song of 3,001 cues");
        pages("the rig", of + "/rig");
        pages("the book", of + "/book");
        pages("the score", of + "/score?item=" + song);
        pages("the line check", of + "/linecheck");
        pages("the paper", of + "/book/paper");
        painted("the rig, painted", of + "/rig", ".machine-list");
        painted("the book, painted", of + "/book", "tr.cue");
        painted("the score, painted", of + "/score?item=" + song, ".measure");
        painted("the line check, painted", of + "/linecheck", "h1");
        shows.delete(show);
    }

    private static Show withSong(Show show) {
        Item song = new Item(0, ItemKind.SONG, "Dense", 0, List.of())
                .withScore(Optional.of(Score.of("1 quarter = 120\n751 end")));
        Show with = show.withItem(song, show.items().size());
        Device device = with.devices().get(0);
        List<Cue> cues = new ArrayList<>();
        for (int i = 0; i < MANY_CUES; i++) {
            Start at = new Start.AtPosition(new Position(1 + i / 4, 1 + i % 4, 0), 0);
            List<Call> calls = List.of(
                    new Call(device.id(), device.phrases().get(i % MANY_LOOKS).id()));
            cues.add(new Cue(0, CueNumber.of(Integer.toString(10_000 + i)), at, "", calls, 0));
        }
        return with.withCues(with.items().get(with.items().size() - 1).id(), cues);
    }

    private static void pages(String what, String path) throws Exception {
        HttpClient client = HttpClient.newHttpClient();
        HttpRequest request =
                HttpRequest.newBuilder(URI.create(baton.url(path))).build();
        List<Double> took = new ArrayList<>();
        int bytes = 0;
        for (int i = 0; i < TIMES; i++) {
            long from = System.nanoTime();
            bytes = client.send(request, HttpResponse.BodyHandlers.ofByteArray())
                    .body()
                    .length;
            took.add((System.nanoTime() - from) / 1e6);
        }
        Measured.row(what + ", " + bytes / 1000 + " kB", took);
    }

    private static void painted(String what, String path, String there) {
        Page page = baton.open(path);
        List<Object> opened = new ArrayList<>();
        for (int i = 0; i < OPENINGS / 2; i++) {
            page.navigate(baton.url(path));
            assertThat(page.locator(there).first()).isAttached();
            opened.add(page.evaluate(PAINTED));
        }
        Measured.row(what, opened);
        page.close();
    }

    private void measure(int items, int cuesEach) throws Exception {
        Shows shows = baton.bean(Shows.class);
        int show = shows.create("Book bench", s -> book(s, MACHINES, LOOKS, items, cuesEach))
                .id();
        String path = "/shows/" + show + "/book";
        Measured.head(items * cuesEach + " cues in " + items + " items, " + MACHINES + " machines");
        pages("the page, at the server", path);
        Page page = baton.open(path);
        List<Object> opened = new ArrayList<>();
        for (int i = 0; i < OPENINGS; i++) {
            page.navigate(baton.url(path));
            assertThat(page.locator("tr.cue").first()).isVisible();
            opened.add(page.evaluate(PAINTED));
        }
        Measured.row("opened, to the painted frame", opened);
        page.locator("tr.cue").first().locator("[data-column]").nth(3).click();
        Map<?, ?> edits = (Map<?, ?>) page.evaluate(EDITS, List.of(TIMES, LOOKS));
        Measured.row("an edit, at the server", edits.get("server"));
        Measured.row("an edit, to the painted frame", edits.get("all"));
        Measured.row("a step, to the painted frame", page.evaluate(STEPS, List.of(KEYS)));
        page.close();
        shows.delete(show);
    }
}
