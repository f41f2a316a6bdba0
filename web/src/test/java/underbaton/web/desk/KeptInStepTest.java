package underbaton.web.desk;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Page;
import java.util.Arrays;
import java.util.List;
import java.util.stream.LongStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Show;
import underbaton.core.midi.TimeCode;
import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.RiverScreen;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** A film that gets the time code of the music: written in the Rig, sent over the wire, shown on the Desk. */
class KeptInStepTest {

    private static final double FRAMES = 25;

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);
    private Show show;

    @BeforeEach
    void open() {
        Show vigil = shows.get(baton.show("Midsummer Vigil"));
        show = shows.create("In step", s -> s.withContentOf(vigil).renamed("In step"));
        baton.bean(Stage.class).open(show.id());
    }

    @AfterEach
    void close() {
        baton.bean(Stage.class).close();
        shows.delete(show.id());
    }

    private Device film() {
        return shows.get(show.id()).devices().stream()
                .filter(d -> d.name().equals("River screen"))
                .findFirst()
                .orElseThrow();
    }

    private RiverScreen screen() {
        return (RiverScreen) baton.bean(RehearsalRoom.class)
                .named("River screen")
                .orElseThrow()
                .model();
    }

    private static double seconds(String code) {
        List<Integer> parts =
                Arrays.stream(code.split("[:;]")).map(Integer::parseInt).toList();
        return (parts.get(0) * 60 + parts.get(1)) * 60 + parts.get(2) + parts.get(3) / FRAMES;
    }

    private static String onDesk(Page desk) {
        return desk.locator("[data-code]").textContent();
    }

    @Test
    void aFilmShowsTheFrameThatTheDeskShows() {
        Page rig = baton.open("/shows/" + show.id() + "/rig?device=" + film().id());
        rig.locator(".ways > summary").click();
        rig.getByLabel("time code").check();
        rig.locator("#ways button.main").click();
        until("it is kept", () -> film().inStep().filter(InStep::code).isPresent());
        assertThat(rig.locator(".ways > summary")).containsText("gets time code at 25");

        Page desk = baton.open("/shows/" + show.id() + "/desk");
        assertThat(desk.locator("[data-code]")).hasText("");
        desk.keyboard().press("Enter");
        assertThat(desk.locator("[data-code]")).containsText("01:00:0");
        until("the film runs", () -> screen().code().startsWith("01:00:0"));
        // Two frames lie between the frame that eight pieces tell and the last of them.
        until("both show one frame", () -> {
            double first = seconds(onDesk(desk));
            double there = seconds(screen().code());
            double then = seconds(onDesk(desk));
            return there >= first - 4 / FRAMES && there <= then + 4 / FRAMES;
        });
        desk.keyboard().press("h");
        assertThat(desk.locator("body")).containsText("paused");
        // The word and the music are told to the page one after the other: a last frame may be drawn between them.
        String[] stands = {onDesk(desk)};
        until("the Desk's frame stands", () -> {
            String before = stands[0];
            desk.waitForTimeout(500);
            stands[0] = onDesk(desk);
            return stands[0].equals(before);
        });
        assertThat(seconds(screen().code()))
                .isBetween(seconds(stands[0]) - 4 / FRAMES, seconds(stands[0]) + 4 / FRAMES);
    }

    @Test
    void thePageNamesFramesAsTheDocumentHasThem() {
        Page page = baton.open("/shows/" + show.id() + "/desk");
        for (Rate rate : Rate.values()) {
            List<Long> counts = LongStream.range(0, 3000)
                    .map(i -> i < 2000 ? i * 1201 : i * 9)
                    .boxed()
                    .toList();
            Object named = page.evaluate(
                    "async ([counts, rate]) => { const { frameName } = await import('/js/music.js');"
                            + " return counts.map((c) => frameName(c, rate)); }",
                    List.of(counts.stream().map(Long::intValue).toList(), rate.words()));
            assertThat((List<?>) named)
                    .isEqualTo(counts.stream()
                            .map(c -> TimeCode.ofCount(rate, c).toString().replace(';', ':'))
                            .toList());
        }
    }
}
