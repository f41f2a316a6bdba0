package underbaton.web.linecheck;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.traffic.Traffic;
import underbaton.standins.CameraSwitcher;
import underbaton.standins.RehearsalRoom;
import underbaton.web.UnderBaton;
import underbaton.web.stage.Lamp;
import underbaton.web.stage.Lamps;
import underbaton.web.stage.Stage;
import underbaton.web.stage.Tried;

/** Down the rig by keyboard: sent, arrived, seen; kept for the next day; a dead machine says why. */
class LineCheckTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    @AfterEach
    void leave() throws Exception {
        baton.bean(RehearsalRoom.class).switchOn();
        baton.bean(Stage.class).close();
    }

    private Page open() {
        int show = baton.show("Midsummer Vigil");
        Stage stage = baton.bean(Stage.class);
        stage.open(show);
        until("all reached", () -> baton.bean(Lamps.class).all().stream().allMatch(Lamp::reached));
        return baton.open("/shows/" + show + "/linecheck");
    }

    @Test
    void theRigIsCheckedByKeyboardAndTheResultsAreKept() {
        Page page = open();
        Locator rows = page.locator(".lines tbody tr");
        assertThat(rows.nth(0)).containsText("not checked yet");
        page.keyboard().press("Enter");
        assertThat(rows.nth(0).locator(".yes")).hasCount(2);
        page.keyboard().press("y");
        assertThat(rows.nth(0).locator(".answer .yes")).hasText("yes");
        assertThat(page.locator("tr.here")).containsText("River screen");
        for (int i = 0; i < 2; i++) {
            page.keyboard().press("ArrowDown");
        }
        rows.nth(3).locator("[name=phrase]").selectOption("3 band");
        page.locator("h1").click();
        page.keyboard().press("Enter");
        assertThat(rows.nth(3).locator(".yes")).hasCount(2);
        CameraSwitcher cameras = (CameraSwitcher) baton.bean(RehearsalRoom.class)
                .named("Camera switcher")
                .orElseThrow()
                .model();
        assertThat(cameras.program()).isEqualTo(3);
        assertThat(baton.bean(Traffic.class).after(0, 9999))
                .anyMatch(e -> e.cause().equals("line check"));
        page.keyboard().press("n");
        assertThat(rows.nth(3).locator(".answer .no")).hasText("no");

        page.reload();
        assertThat(rows.nth(3).locator(".answer .no")).hasText("no");
        rows.nth(3).locator("[data-send]").click();
        assertThat(rows.nth(3).locator(".before")).containsText("not seen");
    }

    @Test
    void aMachineThatIsOffSaysWhy() {
        Page page = open();
        baton.bean(RehearsalRoom.class).named("Words screen").orElseThrow().switchOff();
        Locator row = page.locator(".lines tbody tr").nth(2);
        row.locator("[data-send]").click();
        assertThat(row.locator(".no")).hasText("no");
        assertThat(row.locator(".why")).not().isEmpty();
        assertThat(row.locator("[data-seen]")).hasCount(0);
    }

    @Test
    void theLeadSuggestedIsHalfTheRoundTripRoundedUp() {
        assertThat(new Tried(true, true, 200, "", Optional.empty()).suggestedLeadMs())
                .isEqualTo(1);
        assertThat(new Tried(true, true, 2000, "", Optional.empty()).suggestedLeadMs())
                .isEqualTo(1);
        assertThat(new Tried(true, true, 2001, "", Optional.empty()).suggestedLeadMs())
                .isEqualTo(2);
        assertThat(new Tried(true, true, 40_000, "", Optional.empty()).suggestedLeadMs())
                .isEqualTo(20);
        assertThat(new Tried(false, false, -1, "", Optional.empty()).suggestedLeadMs())
                .isEqualTo(-1);
    }
}
