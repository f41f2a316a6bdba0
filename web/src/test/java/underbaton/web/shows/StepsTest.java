package underbaton.web.shows;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.PatchBay;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Wiring;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;

/** Undo and redo are the same on every page and say what they take back; and a page about a thing that is gone says so. */
class StepsTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);
    private int show;

    @BeforeEach
    void aShow() {
        show = shows.create("Steps", s -> {
                    Connection line = new Connection.NetworkMidi("127.0.0.1", 5004);
                    return PatchBay.withNew(
                            Hands.withPage(
                                    s.withDevice(new Device(
                                                    0,
                                                    "Lights",
                                                    Department.LIGHTS,
                                                    line,
                                                    0,
                                                    Numbering.WIRE,
                                                    0,
                                                    List.of()))
                                            .withItem(new Item(0, ItemKind.SONG, "First", 0, List.of()), 0),
                                    "Night"),
                            "Set",
                            Wiring.NONE);
                })
                .id();
        shows.edit(show, "add Encore", s -> s.withItem(new Item(0, ItemKind.SONG, "Encore", 0, List.of()), 1));
    }

    @AfterEach
    void away() {
        shows.delete(show);
    }

    private int items() {
        return shows.get(show).items().size();
    }

    @ParameterizedTest
    @ValueSource(strings = {"rig", "book", "score", "signals", "patch", "hands/edit"})
    void theKeysAndTheButtonsUndoAndDoAgainAndSayWhat(String path) {
        Page page = baton.open("/shows/" + show + "/" + path);
        Locator undo = page.locator("[data-step=undo]");
        Locator redo = page.locator("[data-step=redo]");
        assertThat(undo).containsText("add Encore");
        assertThat(redo).isDisabled();
        page.keyboard().press("Control+z");
        until("undone", () -> items() == 1);
        assertThat(redo).containsText("add Encore");
        assertThat(page.locator("#notice")).containsText("Undone: add Encore.");
        page.keyboard().press("Control+Shift+z");
        until("done again", () -> items() == 2);
        assertThat(page.locator("#notice")).containsText("Done again: add Encore.");
        assertThat(undo).containsText("add Encore");
        undo.click();
        until("undone by its button", () -> items() == 1);
        assertThat(page.locator("#notice")).containsText("Undone: add Encore.");
        assertThat(redo).isEnabled();
        page.keyboard().press("Control+y");
        until("done again", () -> items() == 2);
    }

    @Test
    void whatSomebodyElseDidIsWhatUndoSaysNow() {
        Page page = baton.open("/shows/" + show + "/rig");
        assertThat(page.locator("[data-step=undo]")).containsText("add Encore");
        shows.edit(show, "rename it", s -> s.withDevice(s.devices().get(0).withChannel(3)));
        assertThat(page.locator("[data-step=undo]")).containsText("rename it");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "rig?device=999 | no longer in the rig",
                "score?item=999 | This item is gone",
                "patch?set=999 | This patch set is gone",
                "hands/edit?page=999 | This page is gone",
                "hands?page=999 | This page is gone"
            })
    void aPageAboutSomethingThatIsGoneSaysSoAndOffersNothingOfAnother(String which) {
        String[] parts = which.split(" \\| ");
        Page page = baton.open("/shows/" + show + "/" + parts[0]);
        assertThat(page.locator("main .empty").first()).containsText(parts[1]);
        assertThat(page.locator(".phrases, .prose, #lines, #places, .keys, #sheet"))
                .hasCount(0);
    }

    @Test
    void aMachineThatWasDeletedByMistakeComesBackWhereItWas() {
        int device = shows.get(show).devices().get(0).id();
        Page page = baton.open("/shows/" + show + "/rig?device=" + device);
        shows.edit(show, "remove Lights", s -> s.withoutDevice(device));
        page.reload();
        assertThat(page.locator("#gone")).isVisible();
        page.keyboard().press("Control+z");
        assertThat(page.locator(".ways > summary")).containsText("Lights");
        assertThat(page.locator("#notice")).containsText("Undone: remove Lights.");
    }
}
