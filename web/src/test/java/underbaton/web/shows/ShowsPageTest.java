package underbaton.web.shows;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Dialog;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.FormData;
import com.microsoft.playwright.options.RequestOptions;
import com.microsoft.playwright.options.SelectOption;
import java.io.IOException;
import java.nio.file.Files;
import javax.sql.DataSource;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.jdbc.core.JdbcTemplate;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.rig.Connection;
import underbaton.core.store.ShowFile;
import underbaton.web.UnderBaton;
import underbaton.web.library.Backups;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;
import underbaton.web.stage.Takeover;

/** The shelf: names are unique, deleting asks, and a show that runs is not put away by a slip. */
class ShowsPageTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Stage stage = baton.bean(Stage.class);

    @AfterEach
    void away() {
        stage.close();
    }

    private static Locator spine(Page page, String name) {
        return page.locator(".spines li[data-name='" + name + "']");
    }

    @Test
    void aShowIsRenamedAndDeleted() {
        Shows shows = baton.bean(Shows.class);
        shows.create("Draft");
        Page page = baton.open("/");
        spine(page, "Draft").locator(".tools .word").first().click();
        spine(page, "Draft").getByLabel("Name of the show").fill("Midsummer Vigil");
        spine(page, "Draft").locator(".firm").click();
        assertThat(page.locator("#notice")).containsText("There is a show “Midsummer Vigil” already");
        spine(page, "Draft").getByLabel("Name of the show").fill("Final");
        spine(page, "Draft").locator(".firm").click();
        assertThat(spine(page, "Final")).isVisible();
        page.onceDialog(Dialog::dismiss);
        spine(page, "Final").getByText("delete").click();
        assertThat(spine(page, "Final")).isVisible();
        page.onceDialog(Dialog::accept);
        spine(page, "Final").getByText("delete").click();
        assertThat(spine(page, "Final")).hasCount(0);
        assertThat(shows.all()).noneMatch(s -> s.name().equals("Final"));
    }

    @Test
    void aShowIsSavedDeletedOpenedFromItsFileAndBroughtBack() throws IOException {
        Shows shows = baton.bean(Shows.class);
        Show vigil = shows.get(baton.show("Midsummer Vigil"));
        Show far = shows.create("Far away", s -> s.withContentOf(vigil).renamed("Far away"));
        shows.edit(
                far.id(),
                "another house",
                s -> s.withDevice(s.devices().get(0).withConnection(new Connection.NetworkMidi("10.9.8.7", 5004))));
        Page page = baton.open("/");
        Download saved = page.waitForDownload(() -> spine(page, "Far away")
                .getByText("save", new Locator.GetByTextOptions().setExact(true))
                .click());
        assertThat(saved.suggestedFilename()).isEqualTo("Far away.json");
        byte[] file = Files.readAllBytes(saved.path());
        page.onceDialog(Dialog::accept);
        spine(page, "Far away").getByText("delete").click();
        assertThat(spine(page, "Far away")).hasCount(0);
        page.getByText("Open a show file").click();
        page.locator("#show-file input[type=file]")
                .setInputFiles(new FilePayload("wrong.json", "application/json", "{\"format\":\"x\"}".getBytes()));
        assertThat(page.locator("#show-file")).containsText("This is no file of a show");
        page.locator("#show-file input[type=file]")
                .setInputFiles(new FilePayload("far.json", "application/json", file));
        assertThat(page.locator("#show-file .opened")).containsText("10.9.8.7:5004");
        assertThat(page.getByLabel("Put it on the shelf as")).hasValue("Far away");
        page.getByLabel("Point its machines at")
                .selectOption(new SelectOption().setLabel("the rig of Midsummer Vigil"));
        assertThat(page.locator("#show-file .opened tbody tr").first())
                .containsText(vigil.devices().get(0).connection().where());
        page.getByText("Put it on the shelf", new Page.GetByTextOptions().setExact(true))
                .click();
        assertThat(spine(page, "Far away")).isVisible();
        Show opened = shows.get(baton.show("Far away"));
        assertThat(ShowFile.write(opened)).isEqualTo(ShowFile.write(vigil.renamed("Far away")));
        page.locator("[data-deleted='Far away']").getByText("bring back").click();
        assertThat(spine(page, "Far away 2")).isVisible();
        assertThat(shows.get(far.id()).devices().get(0).connection().where()).isEqualTo("10.9.8.7:5004");
        shows.delete(far.id());
        shows.delete(opened.id());
    }

    @Test
    void aShowThatCannotBeReadIsToldAndABackupBringsItBack() {
        Shows shows = baton.bean(Shows.class);
        Show vigil = shows.get(baton.show("Midsummer Vigil"));
        int id = shows.create("Torn", s -> s.withContentOf(vigil).renamed("Torn"))
                .id();
        stage.open(id);
        Backups backups = baton.bean(Backups.class);
        UnderBaton.until("a backup", () -> !backups.of(id).isEmpty());
        stage.close();
        shows.delete(id);
        new JdbcTemplate(baton.bean(DataSource.class))
                .update("UPDATE parts SET content = '{\"id\": true}' WHERE show_id = ? AND kind = 'cue' LIMIT 1", id);
        shows.bringBack(id);
        Page page = baton.open("/");
        assertThat(spine(page, "Torn")).containsText("It cannot be read.");
        assertThat(spine(page, "Midsummer Vigil")).containsText("cues");
        assertThat(page.request().get(baton.url("/shows/" + id + "/raw.txt")).text())
                .contains("{\"id\": true}");
        page.navigate(baton.url("/shows/" + id + "/book"));
        assertThat(page.locator("main")).containsText("This show cannot be read");
        page.navigate(baton.url("/"));
        spine(page, "Torn").getByText("backups").click();
        page.onceDialog(Dialog::accept);
        page.locator("#backups").getByText("bring back").first().click();
        assertThat(spine(page, "Torn")).containsText("cues");
        assertThat(ShowFile.write(shows.get(id))).isEqualTo(ShowFile.write(vigil.renamed("Torn")));
        shows.delete(id);
    }

    /** Its parts are the same ones, so the song goes on; what waits says so where it would not. */
    @Test
    void aBackupThatIsBroughtBackLeavesTheRunningShowRunning() {
        Shows shows = baton.bean(Shows.class);
        Show ferryman = shows.get(baton.show("The Ferryman’s Lantern"));
        int id = shows.create("Runs", s -> s.withContentOf(ferryman).renamed("Runs"))
                .id();
        stage.open(id);
        Backups backups = baton.bean(Backups.class);
        Page page = baton.open("/shows/" + id + "/desk");
        backups.keep(shows.get(id));
        int song = shows.get(id).items().stream()
                .filter(i -> i.name().equals("The toll"))
                .findFirst()
                .orElseThrow()
                .id();
        page.keyboard().press("Enter");
        assertThat(page.locator(".done")).isVisible();
        stage.order(id, "play", new Order.Play(song, 0));
        assertThat(page.locator(".now h1")).hasText("The toll");
        shows.edit(id, "a song is dropped", s -> s.withoutItem(song));
        assertThat(page.locator(".waits")).containsText("taking over ends “The toll”, which plays");
        page.request()
                .post(
                        baton.url("/shows/" + id + "/backup"),
                        RequestOptions.create()
                                .setHeader("Origin", baton.url(""))
                                .setHeader("Baton-Page", "yes")
                                .setForm(FormData.create()
                                        .set("file", backups.of(id).get(0).file())));
        assertThat(page.locator(".waits")).not().containsText("taking over ends");
        baton.bean(Takeover.class).takeOver(id);
        assertThat(page.locator(".waits")).hasCount(0);
        assertThat(stage.playback(id).orElseThrow().playing().map(p -> p.item()
                        .item()
                        .id()))
                .contains(song);
        // From elsewhere nobody deletes it.
        APIResponse refused = page.request()
                .post(
                        baton.url("/shows/" + id + "/delete"),
                        RequestOptions.create()
                                .setHeader("Origin", baton.url(""))
                                .setHeader("Baton-Page", "yes"));
        assertThat(refused.text()).contains("End its run on the Desk first");
        assertThat(shows.find(id)).isPresent();
        page.navigate(baton.url("/"));
        page.onceDialog(dialog -> {
            assertThat(dialog.message()).startsWith("Runs is running on the desk");
            dialog.accept();
        });
        spine(page, "Runs").getByText("delete").click();
        assertThat(spine(page, "Runs")).hasCount(0);
    }

    @Test
    void aRunningShowIsPutAwayOnlyAfterAsking() {
        int ferryman = baton.show("The Ferryman’s Lantern");
        int vigil = baton.show("Midsummer Vigil");
        stage.open(ferryman);
        stage.performer(ferryman).order(new Order.Go());
        UnderBaton.until(
                "running", () -> stage.playback(ferryman).orElseThrow().last().isPresent());
        Page page = baton.open("/");
        page.onceDialog(dialog -> {
            assertThat(dialog.message()).contains("is running on the desk, at cue 1");
            dialog.dismiss();
        });
        spine(page, "Midsummer Vigil").locator(".title button").first().click();
        assertThat(stage.isOpen(ferryman)).isTrue();
        page.onceDialog(Dialog::accept);
        spine(page, "Midsummer Vigil").locator(".title button").first().click();
        page.waitForURL("**/book");
        assertThat(stage.isOpen(vigil)).isTrue();
    }

    @Test
    void aShowThatIsNotOnTheDeskCanBeReadAndSaysSo() {
        int ferryman = baton.show("The Ferryman’s Lantern");
        stage.open(baton.show("Midsummer Vigil"));
        Page page = baton.open("/shows/" + ferryman + "/desk");
        assertThat(page.locator(".elsewhere")).containsText("On the desk is Midsummer Vigil");
        assertThat(page.locator(".go")).hasCount(0);
        int status = page.request()
                .post(baton.url("/shows/" + ferryman + "/desk/go"))
                .status();
        assertThat(status).isEqualTo(409);
        page.getByText("Put The Ferryman’s Lantern on the desk").click();
        assertThat(page.locator(".go")).isVisible();
    }
}
