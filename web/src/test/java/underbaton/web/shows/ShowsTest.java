package underbaton.web.shows;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.transaction.support.TransactionTemplate;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.rig.Refusal;
import underbaton.web.UnderBaton;

/** What is saved as differences is loaded whole. */
class ShowsTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private Show loadedAnew(int showId) {
        return new Shows(baton.bean(ShowMapper.class), baton.bean(TransactionTemplate.class)).get(showId);
    }

    @Test
    void theDemoShowsComeBackFromTheDatabaseAsTheyWere() {
        for (Show show : baton.bean(Shows.class).all()) {
            assertThat(loadedAnew(show.id())).isEqualTo(show);
        }
        Show ferryman = baton.bean(Shows.class).get(baton.show("The Ferryman’s Lantern"));
        assertThat(ferryman.items()).hasSizeGreaterThanOrEqualTo(8);
        assertThat(ferryman.cues().count()).isGreaterThanOrEqualTo(40);
        assertThat(ferryman.devices()).hasSize(9);
    }

    @Test
    void editsUndoAndRedoAreSaved() {
        Shows shows = baton.bean(Shows.class);
        int id = shows.create("Undo").id();
        shows.edit(id, "add Song", s -> s.withItem(new Item(0, ItemKind.SONG, "Song", 60, List.of()), 0));
        int item = shows.get(id).items().get(0).id();
        Cue cue = new Cue(0, CueNumber.of("12.5"), Start.of("after 4 s"), "Oars", List.of(), 0);
        Show full = shows.edit(id, "add a cue", s -> s.withCue(item, cue));
        assertThat(loadedAnew(id)).isEqualTo(full);
        assertThat(shows.undo(id)).contains("add a cue");
        assertThat(loadedAnew(id).cues()).isEmpty();
        assertThat(shows.redo(id)).contains("add a cue");
        assertThat(loadedAnew(id).items()).isEqualTo(full.items());
        assertThat(shows.redo(id)).isEmpty();
        shows.delete(id);
        assertThatThrownBy(() -> loadedAnew(id)).isInstanceOf(NoSuchShow.class);
    }

    @Test
    void aRefusedEditChangesNothing() {
        Shows shows = baton.bean(Shows.class);
        int id = shows.create("Refused").id();
        Show before = shows.get(id);
        assertThatThrownBy(() -> shows.edit(id, "rename", s -> s.renamed("Midsummer Vigil")))
                .isInstanceOf(Refusal.class);
        assertThat(shows.get(id)).isSameAs(before);
        shows.delete(id);
    }
}
