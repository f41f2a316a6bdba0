package underbaton.web.view;

import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.engine.music.Playing;
import underbaton.core.loop.Clock;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.web.Measured;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/**
 * How far the bar and beat of a view are from those of the engine: when each is first seen in the page, by the browser's own clock, and
 * when the engine has it; one computer, so one clock. Part of {@code ./baton bench views}.
 */
@Tag("bench")
class ViewsBench {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int BEATS = 240;

    /** Each bar and beat, with the time at which it was first seen, ms since 1970. */
    private static final String WATCH =
            """
            () => {
              window.seen = [];
              const bar = document.querySelector('[data-bar]');
              new MutationObserver(() => window.seen.push(`${bar.textContent} ${performance.timeOrigin + performance.now()}`))
                .observe(bar, { childList: true, characterData: true, subtree: true });
            }
            """;

    @Test
    void howFarACountdownIsFromTheBeat() throws Exception {
        Show show = baton.bean(Shows.class).get(baton.show("The Ferryman’s Lantern"));
        baton.bean(Stage.class).open(show.id());
        Item song = show.items().stream()
                .filter(i -> i.name().equals("Cold dawn"))
                .findFirst()
                .orElseThrow();
        Page page = baton.open("/view/lx");
        baton.bean(Stage.class).order(show.id(), "play", new Order.Play(song.id(), 0));
        UnderBaton.until(
                "it plays", () -> page.locator("[data-bar]").textContent().contains(":"));
        page.evaluate(WATCH);
        page.waitForFunction(
                "beats => window.seen.length >= beats", BEATS, new Page.WaitForFunctionOptions().setTimeout(300_000));
        @SuppressWarnings("unchecked")
        List<String> seen = (List<String>) page.evaluate("window.seen");
        Playing playing = baton.bean(Stage.class)
                .playback(show.id())
                .flatMap(s -> s.playing())
                .orElseThrow();
        Score.Times times = song.score().orElseThrow().read();
        List<Double> off = new ArrayList<>();
        for (String each : seen.subList(0, BEATS)) {
            String[] parts = each.split(" ");
            off.add(Double.parseDouble(parts[1]) - due(playing, times, parts[0]));
        }
        Measured.head(BEATS + " beats, from the engine’s to the page’s");
        Measured.row("a view (aim p99 < 50)", off);
        baton.bean(Stage.class).close();
    }

    private static double due(Playing playing, Score.Times times, String barAndBeat) {
        String[] parts = barAndBeat.split(":");
        Position at = new Position(Integer.parseInt(parts[0]), Integer.parseInt(parts[1]), 0);
        return baton.bean(Clock.class).epochMicrosAt(playing.dueAt(times.nanos(at))) / 1000.0;
    }
}
