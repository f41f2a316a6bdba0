package underbaton.web.stage;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import underbaton.core.cue.Shows;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.RunSnapshot;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Planner;

/** How the show stands is on the disk, also on one that takes nothing more. */
class DeskFileTest {

    @TempDir
    private Path folder;

    private static DeskFile.Standing at(long micros) {
        PlaybackState state = PlaybackState.of(Planner.plan(Shows.small()), 0);
        return new DeskFile.Standing(1, RunSnapshot.of(state, micros), OutTonight.NONE, 7);
    }

    /** No new file can be made where a folder has its name, as on a full disk; what is there can be written. */
    private void fill() throws IOException {
        Files.createDirectories(folder.resolve("desk.json.new").resolve("full"));
    }

    @Test
    void whatWasWrittenIsReadAndForgotten() {
        DeskFile file = new DeskFile(folder);
        assertThat(file.read()).isEmpty();
        file.write(at(1_000_000));
        assertThat(new DeskFile(folder).read()).contains(at(1_000_000));
        file.forget();
        assertThat(folder).isEmptyDirectory();
    }

    @Test
    void aFullDiskKeepsTheNewestStandInTheRoomThatWasSetAside() throws IOException {
        DeskFile file = new DeskFile(folder);
        file.write(at(1_000_000));
        fill();
        file.write(at(2_000_000));
        file.write(at(3_000_000));
        assertThat(file.alarms()).singleElement().asString().contains("room that was set aside");
        assertThat(new DeskFile(folder).read()).contains(at(3_000_000));
        Files.delete(folder.resolve("desk.json.new").resolve("full"));
        Files.delete(folder.resolve("desk.json.new"));
        file.write(at(4_000_000));
        assertThat(file.alarms()).isEmpty();
        assertThat(new DeskFile(folder).read()).contains(at(4_000_000));
    }

    @Test
    void whatCannotBeWrittenAtAllIsAnAlarmThatSaysHowOldTheDeskWouldBe() throws IOException {
        DeskFile file = new DeskFile(folder);
        file.write(at(1_000_000));
        fill();
        Files.delete(folder.resolve("desk.reserve"));
        file.write(at(2_000_000));
        assertThat(file.alarms())
                .singleElement()
                .asString()
                .contains("come back as it was at")
                .contains(":00:01");
        assertThat(new DeskFile(folder).read()).contains(at(1_000_000));
    }

    /** A crash in the middle of writing over it leaves half of it: the older whole one counts. */
    @Test
    void halfOfAStandIsNone() throws IOException {
        DeskFile file = new DeskFile(folder);
        file.write(at(1_000_000));
        String half = "{\"showId\": 1, \"kept\"";
        Files.writeString(folder.resolve("desk.reserve"), half + " ".repeat(1000));
        assertThat(new DeskFile(folder).read()).contains(at(1_000_000));
    }
}
