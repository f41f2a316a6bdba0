package underbaton.web.score;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
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
import underbaton.web.stage.Stage;

/**
 * How quickly the page Score answers with a song of 400 bars and 300 cues of three calls: from a key to the painted frame,
 * from an edit to the painted frame, and from frame to frame while the music moves. {@code ./baton bench score} runs it.
 */
@Tag("bench")
class ScoreBench {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int BARS = 400;
    private static final int CUES = 300;
    private static final int KEYS = 60;
    private static final int EDITS = 30;
    private static final int FRAMES = 600;

    private static final String PAINTED =
            """
            async ([times, keys]) => {
              const painted = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
              const drawn = () => new Promise((done) => {
                const o = new MutationObserver(() => { o.disconnect(); done(); });
                o.observe(document.getElementById('sheet'), { childList: true });
              });
              const all = [];
              for (let i = 0; i < times; i++) {
                const from = performance.now();
                const edited = keys.length > 1 ? drawn() : null;
                document.body.dispatchEvent(new KeyboardEvent('keydown', { key: keys[i % keys.length], bubbles: true }));
                await edited;
                await painted();
                all.push(performance.now() - from);
              }
              return all;
            }""";

    private static final String MOVING =
            """
            (frames) => new Promise((done) => {
              const all = [];
              let last = performance.now();
              const next = (now) => { all.push(now - last); last = now; if (all.length < frames) requestAnimationFrame(next); else done(all); };
              requestAnimationFrame(next);
            })""";

    private static Show song(Show empty) {
        Show show = empty;
        for (Department department : List.of(Department.LIGHTS, Department.VIDEO, Department.WORDS)) {
            show = show.withDevice(new Device(
                    0,
                    department.title(),
                    department,
                    new Connection.NetworkMidi("127.0.0.1", 9),
                    0,
                    Numbering.WIRE,
                    0,
                    List.of()));
            int id = show.devices().get(show.devices().size() - 1).id();
            var says = new Wording(Numbering.WIRE).read("note 60");
            show = show.withPhrase(id, new Phrase(0, "Change " + department.title(), says, Effect.HOLDS, false));
        }
        Score score = Score.of("1 4/4\n1 quarter = 120\n1 A Verse\n200 B Chorus\n" + BARS + " end");
        show = show.withItem(new Item(0, ItemKind.SONG, "Long", 0, List.of()).withScore(Optional.of(score)), 0);
        List<Call> calls = show.devices().stream()
                .map(d -> new Call(d.id(), d.phrases().get(0).id()))
                .toList();
        List<Cue> cues = new ArrayList<>();
        for (int i = 0; i < CUES; i++) {
            Start start = new Start.AtPosition(new Position(1 + i * BARS / CUES, 1 + i % 4, 0), 0);
            cues.add(new Cue(0, CueNumber.of(Integer.toString(i + 1)), start, "", calls, 0));
        }
        return show.withCues(show.items().get(0).id(), cues);
    }

    @Test
    void howQuicklyALongSongAnswers() {
        int show =
                baton.bean(Shows.class).create("Score bench", ScoreBench::song).id();
        baton.bean(Stage.class).open(show);
        Page page = baton.open("/shows/" + show + "/score");
        assertThat(page.locator(".note")).hasCount(3 * CUES);
        Measured.head(BARS + " bars, " + CUES + " cues of three calls");
        Measured.row("key to painted", page.evaluate(PAINTED, List.of(KEYS, List.of("ArrowRight"))));
        page.keyboard().press("Home");
        page.keyboard().press("Space");
        Measured.row("edit to painted", page.evaluate(PAINTED, List.of(EDITS, List.of("ArrowRight", "ArrowLeft"))));
        page.keyboard().press("Escape");
        page.keyboard().press("p");
        assertThat(page.locator(".music.long")).isVisible();
        page.waitForTimeout(2000);
        Measured.row("frame to frame, playing", page.evaluate(MOVING, FRAMES));
        baton.bean(Stage.class).close();
    }
}
