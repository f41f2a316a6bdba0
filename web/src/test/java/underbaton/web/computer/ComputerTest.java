package underbaton.web.computer;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import underbaton.web.UnderBaton;
import underbaton.web.library.Backups;
import underbaton.web.library.SecondPlace;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** What runs is told, and a stick that is pulled out and put in again gets all backups in the end. */
class ComputerTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    @TempDir
    Path disk;

    @AfterEach
    void noSecondPlace() {
        baton.bean(SecondPlace.class).beAt("");
    }

    private static void keeps(Page page, String folder) {
        page.getByLabel("Folder").fill(folder);
        page.getByText("Keep them there too").click();
    }

    private static List<String> files(Path folder) {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(Files::isRegularFile)
                    .map(f -> f.getFileName().toString())
                    .sorted()
                    .toList();
        } catch (IOException gone) {
            return List.of();
        }
    }

    @Test
    void backupsGoToASecondPlaceAndItIsToldWhenThatIsMissing() throws Exception {
        int show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(baton.show("Midsummer Vigil"));
        baton.bean(Stage.class).open(show);
        Backups backups = baton.bean(Backups.class);
        until("one backup", () -> !backups.of(show).isEmpty());
        Path stick = Files.createDirectory(disk.resolve("stick"));
        Page page = baton.open("/computer");
        keeps(page, stick.toString());
        String newest = backups.of(show).get(0).file();
        until("copied", () -> files(stick).contains(newest));
        assertThat(page.getByLabel("Folder")).hasValue(stick.toString());

        // The stick is pulled out; where it was there is still an empty folder.
        Path pocket = disk.resolve("pocket");
        Files.move(stick, pocket);
        Files.createDirectory(stick);
        until("told", () -> page.locator(".alarms").textContent().contains("is missing"));
        baton.bean(Shows.class).edit(show, "another name", s -> s.renamed(s.name() + " II"));
        backups.keep(baton.bean(Shows.class).get(show));
        until("kept here", () -> !backups.of(show).get(0).file().equals(newest));
        assertThat(files(stick)).as("nothing is written beside the stick").isEmpty();
        Files.delete(stick);
        Files.move(pocket, stick);
        until("caught up", () -> files(stick).contains(backups.of(show).get(0).file()));
        until("all is well", () -> !page.locator(".alarms").textContent().contains("second place"));
        baton.bean(Shows.class).undone(show);
    }

    @Test
    void whatCannotBeASecondPlaceIsRefused() {
        Page page = baton.open("/computer");
        keeps(page, "/no/such/folder");
        assertThat(page.locator("#notice")).containsText("There is no folder “/no/such/folder”");
        assertThat(page.getByLabel("Folder")).hasValue("/no/such/folder");
        keeps(page, "stick");
        assertThat(page.locator("#notice")).containsText("type the whole path");
        assertThat(baton.bean(SecondPlace.class).state()).isEmpty();
    }

    @Test
    void thePageSaysWhatRunsSinceWhenAndHowFullTheDiskIs() {
        Page page = baton.open("/");
        page.getByText("this computer").click();
        assertThat(page.locator(".facts")).containsText("started by hand");
        assertThat(page.locator(".facts")).containsText("GB free");
        assertThat(page.locator(".facts")).containsText("answers");
        assertThat(UnderBaton.serious(new AxeBuilder(page))).isEmpty();
    }
}
