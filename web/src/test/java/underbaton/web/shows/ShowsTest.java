package underbaton.web.shows;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.transaction.support.TransactionTemplate;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;
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

    /** Everything that a machine and a phrase can be. */
    @Test
    void everyWayOfCountingReachingAndSayingIsKept() {
        Shows shows = baton.bean(Shows.class);
        Numbering numbering = new Numbering(0, 8, Numbering.Values.PER_CENT, -1, true, 0);
        SpeechWording words = new SpeechWording(Numbering.WIRE);
        int id = shows.create("Everything", s -> {
                    Show show = s;
                    for (Connection connection : List.of(
                            new Connection.LocalMidi("Loop 1"),
                            new Connection.NetworkMidi("desk.local", 5004),
                            new Connection.Osc("10.0.0.3", 9000, "/a", Connection.Carrier.TCP_SLIP),
                            new Connection.Osc("10.0.0.3", 9000, "", Connection.Carrier.TCP_SIZE))) {
                        show = show.withDevice(new Device(
                                0,
                                "Machine " + show.devices().size(),
                                Department.KEYS,
                                connection,
                                9,
                                numbering,
                                20,
                                150,
                                Levels.of("-∞=0, -10=80, 0=100"),
                                Optional.of(new PositionList(PositionList.Kind.PROGRAM, 3)),
                                List.of()));
                    }
                    show = show.withPhrase(
                            1,
                            new Phrase(
                                    0,
                                    "Level",
                                    words.read("after 20 ms control 0 to ?"),
                                    Optional.of(Argument.of("decibels −40 to 0")),
                                    Effect.of("levels Vox 1"),
                                    true,
                                    false,
                                    new Remarks(Remarks.Mark.SKY, "gently", "Strips")));
                    show = show.withPhrase(
                            3,
                            new Phrase(
                                    0,
                                    "Title",
                                    words.read("osc /title 2 ?"),
                                    Optional.of(Argument.of("text")),
                                    Effect.of("starts film for 4:37"),
                                    false,
                                    false,
                                    Remarks.NONE));
                    show = show.withItem(
                            new Item(0, ItemKind.FILM, "Film", 0, List.of())
                                    .withScore(
                                            Optional.of(
                                                    Score.of(
                                                            "pick-up 1 quarter\n1 3/4\n3 quarter = 90 over 2 bars\n5 A\n7 B as A\n20 film 0:30"))),
                            0);
                    List<Call> calls = List.of(
                            Call.of(show.devices().get(0), "Level -7.5 dB"),
                            Call.of(show.devices().get(2), "Title → Über den Fluss; “2”"),
                            Call.of(show.devices().get(0), "Level -7.5 dB in 3 s, S-curve @ 200 ms"),
                            Call.of(show.devices().get(0), "Level -5 dB in 4 beats, through 25 %: -8 dB"),
                            Call.of(show.devices().get(0), "Level -5 dB ± 2 saw 4 Hz, within -8 dB to -1 dB"));
                    return show.withCue(7, new Cue(0, CueNumber.of("1"), Start.BY_HAND, "", calls, 0));
                })
                .id();
        assertThat(loadedAnew(id)).isEqualTo(shows.get(id));
        assertThat(loadedAnew(id).cues().findFirst().orElseThrow().calls())
                .extracting(Call::amount)
                .startsWith(Optional.of(new Amount.Measure(-7.5)), Optional.of(new Amount.Text("Über den Fluss; “2”")));
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
