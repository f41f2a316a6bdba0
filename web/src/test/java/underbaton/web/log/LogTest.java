package underbaton.web.log;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.midi.Bytes;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;

/** The Log as somebody hunts for a mistake in it: filtered, live, paused. */
class LogTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Traffic traffic = baton.bean(Traffic.class);
    private int show;
    private Page page;
    private Locator rows;

    @BeforeEach
    void open() {
        show = baton.bean(Shows.class).create("Log test").id();
        add(Entry.Direction.OUT, "Lights", "90 1C 7F", "cue 1", "");
        add(Entry.Direction.IN, "Pedal", "B0 43 7F", "", "");
        add(Entry.Direction.OUT, "Screen", "", "cue 1", "no answer at 10.0.0.9 port 5004");
        page = baton.open("/shows/" + show + "/log");
        rows = page.locator("#rows tr");
    }

    @AfterEach
    void close() {
        baton.bean(Shows.class).delete(show);
    }

    private void add(Entry.Direction direction, String device, String bytes, String cause, String trouble) {
        int deviceId = List.of("Lights", "Pedal", "Screen").indexOf(device) + 1;
        traffic.add(new Entry(
                0,
                1_700_000_000_123_456L,
                direction,
                show,
                deviceId,
                device,
                Bytes.ofHex(bytes),
                "meant so",
                cause,
                250,
                trouble));
    }

    @Test
    void showsTimeToTheMicrosecondBytesMeaningCauseAndWhatWasNotSent() {
        assertThat(rows).hasCount(3);
        assertThat(rows.nth(2)).containsText(":20.123456");
        assertThat(rows.nth(2)).containsText("90 1C 7F");
        assertThat(rows.nth(2)).containsText("0.25 ms");
        assertThat(rows.nth(1)).containsText("from Pedal");
        assertThat(rows.nth(0)).containsText("not sent: no answer at 10.0.0.9 port 5004");
    }

    @Test
    void isFilteredByDirectionAndByWords() {
        page.locator("[name=direction]").selectOption("in");
        assertThat(rows).hasCount(1);
        assertThat(rows).containsText("Pedal");
        page.locator("[name=direction]").selectOption("trouble");
        assertThat(rows).containsText(new String[] {"Screen"});
        page.locator("[name=direction]").selectOption("");
        page.locator("#log-text").pressSequentially("1c 7f");
        assertThat(rows).hasCount(1);
        add(Entry.Direction.OUT, "Lights", "90 1C 7F", "cue 2", "");
        assertThat(rows).hasCount(2);
        add(Entry.Direction.OUT, "Lights", "90 1D 7F", "cue 3", "");
        page.locator("#log-text").fill("");
        page.locator("#log-text").press("Backspace");
        assertThat(rows).hasCount(5);
    }

    /** Two faders under way at once: each is a line that opens, and a line of another cue stays as it is. */
    @Test
    void anEmptyLogSaysWhatItIsAlsoWhereNothingFits() {
        assertThat(page.locator(".only-when-empty")).isHidden();
        // Pasted with the mouse: no key is pressed for it.
        page.locator("#log-text").fill("no such thing");
        assertThat(rows).hasCount(0);
        assertThat(page.locator(".only-when-empty")).containsText("Nothing has passed the wire that fits");
    }

    @Test
    void theStepsOfAMoveAreOneLineThatOpens() {
        for (int value = 0; value < 6; value++) {
            add(Entry.Direction.OUT, "Console", "B4 0D 0" + value, "cue 7", "");
            add(Entry.Direction.OUT, "Console", "B4 0E 1" + value, "cue 7", "");
        }
        add(Entry.Direction.OUT, "Console", "B4 0D 22", "cue 8", "");
        Locator shown =
                rows.filter(new Locator.FilterOptions().setHasText("Console")).locator("visible=true");
        assertThat(shown.locator("td.bytes")).hasText(new String[] {"B4 0D 22", "B4 0E 15", "B4 0D 05"});
        page.getByText("and 5 steps before it").first().click();
        assertThat(shown.locator("td.bytes")).hasCount(8);
        assertThat(shown.locator("td.bytes").nth(3)).hasText("B4 0E 14");
        page.getByText("fold").click();
        assertThat(shown.locator("td.bytes")).hasCount(3);
    }

    @Test
    void pausedItHoldsStillAndLosesNothing() {
        page.keyboard().press("p");
        assertThat(page.locator("#pause")).hasAttribute("aria-pressed", "true");
        add(Entry.Direction.OUT, "Lights", "90 01 7F", "cue 4", "");
        page.waitForTimeout(300);
        assertThat(rows).hasCount(3);
        page.keyboard().press("p");
        assertThat(rows).hasCount(4);
        assertThat(rows.nth(0)).containsText("cue 4");
    }
}
