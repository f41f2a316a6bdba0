package underbaton.web.library;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import javax.sql.DataSource;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.RandomShows;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Refusal;
import underbaton.web.UnderBaton;
import underbaton.web.kernel.KnownDays;

/** What is saved as differences is loaded whole. */
class ShowsTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int SEEDS = 60;

    private static Shows shelfAnew() {
        return new Shows(
                baton.bean(ShowMapper.class),
                baton.bean(TransactionTemplate.class),
                baton.bean(Clock.class),
                baton.bean(KnownDays.class));
    }

    private static Show loadedAnew(int showId) {
        return shelfAnew().get(showId);
    }

    @Test
    void theDemoShowsComeBackFromTheDatabaseAsTheyWere() {
        for (Show show : baton.bean(Shows.class).all()) {
            assertThat(loadedAnew(show.id())).isEqualTo(show);
        }
        Show ferryman = baton.bean(Shows.class).get(baton.show("The Ferryman’s Lantern"));
        assertThat(ferryman.items()).hasSizeGreaterThanOrEqualTo(8);
        assertThat(ferryman.cues().count()).isGreaterThanOrEqualTo(40);
        assertThat(ferryman.devices()).hasSize(17);
        assertThat(ferryman.listeners()).hasSize(11);
        assertThat(ferryman.hands()).hasSize(2);
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

    /** Through the real database: every kind of everything, and names that people should not give but may. */
    @Test
    void whateverTheConstructorsTakeComesBackEqual() {
        Shows shows = baton.bean(Shows.class);
        for (int seed = 0; seed < SEEDS; seed++) {
            Show content = RandomShows.show(1, seed);
            Show other = RandomShows.show(1, seed + SEEDS);
            Show kept = shows.create("Random " + seed, s -> s.withContentFrom(content));
            assertThat(loadedAnew(kept.id())).as("seed %d", seed).isEqualTo(kept);
            Show edited = shows.edit(kept.id(), "all anew", s -> s.withContentFrom(other));
            assertThat(loadedAnew(kept.id())).as("seed %d, edited", seed).isEqualTo(edited);
            shows.undo(kept.id());
            assertThat(loadedAnew(kept.id()).items())
                    .as("seed %d, undone", seed)
                    .isEqualTo(kept.items());
            shows.delete(kept.id());
        }
    }

    @Test
    void aShowThatIsDeletedCanBeBroughtBackAndItsNameIsFreeMeanwhile() {
        Shows shows = baton.bean(Shows.class);
        Show first = shows.create("Brought back", s -> s.withContentFrom(RandomShows.show(1, 5)));
        shows.delete(first.id());
        assertThatThrownBy(() -> shows.get(first.id())).isInstanceOf(NoSuchShow.class);
        int second = shows.create("Brought back").id();
        shows.bringBack(first.id());
        assertThat(shows.get(first.id()).name()).isEqualTo("Brought back 2");
        assertThat(shows.get(first.id()).items()).isEqualTo(first.items());
        shows.delete(first.id());
        shows.delete(second);
    }

    @Test
    void aNameThatAnotherShowHasByNowStopsNoUndo() {
        Shows shows = baton.bean(Shows.class);
        int id = shows.create("Dusk").id();
        shows.edit(id, "add Song", s -> s.withItem(new Item(0, ItemKind.SONG, "Song", 60, List.of()), 0));
        shows.rename(id, "Dawn");
        int other = shows.create("dusk").id();
        assertThat(shows.undo(id)).hasValueSatisfying(w -> assertThat(w).contains("“Dusk”, which another show has"));
        assertThat(shows.get(id).name()).isEqualTo("Dawn");
        assertThat(shows.undo(id)).as("and the next step is undone").hasValueSatisfying(w -> assertThat(w)
                .startsWith("add Song"));
        assertThat(shows.get(id).items()).isEmpty();
        shows.delete(id);
        shows.delete(other);
    }

    @Test
    void aRowThatCannotBeReadLeavesAllOtherShowsUsable() {
        Shows shows = baton.bean(Shows.class);
        int id = shows.create("Poisoned", s -> s.withContentFrom(RandomShows.show(1, 3)))
                .id();
        JdbcTemplate sql = new JdbcTemplate(baton.bean(DataSource.class));
        String deep = "{\"x\":" + "[".repeat(5000);
        for (String poison : List.of("", "{", "null", "{\"id\":1}", deep, "17", "\u0000")) {
            sql.update("UPDATE parts SET content = ? WHERE show_id = ? AND kind = 'item' LIMIT 1", poison, id);
            Shows anew = shelfAnew();
            assertThat(anew.find(id)).as(poison).isEmpty();
            assertThatThrownBy(() -> anew.get(id)).isInstanceOf(UnreadableShow.class);
            assertThat(anew.spines())
                    .filteredOn(s -> !s.trouble().isEmpty())
                    .extracting(Spine::name)
                    .containsExactly("Poisoned");
            assertThat(anew.get(baton.show("Midsummer Vigil"))).isEqualTo(shows.get(baton.show("Midsummer Vigil")));
        }
        assertThat(shelfAnew().raw(id)).contains("Poisoned");
        shows.delete(id);
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
