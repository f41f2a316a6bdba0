package underbaton.web.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.cue.Call;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.follow.Following;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Standing;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Source;
import underbaton.standins.FohLights;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.SoundConsole;
import underbaton.web.UnderBaton;
import underbaton.web.kernel.Settings;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** The demo shows fit the stand-ins, whatever ports those have in this run. */
class DemoShowsTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);

    private List<Integer> ports(String show) {
        return shows.get(baton.show(show)).devices().stream()
                .map(d -> ((Connection.Network) d.connection()).port())
                .toList();
    }

    @ParameterizedTest
    @ValueSource(strings = {"/demo/ferryman.book", "/demo/vigil.book"})
    void everyShowHasEightItemsFortyCuesAndUsesAllItsMachines(String resource) {
        Show show = new DemoBook(resource, 5000).writeInto(Show.empty(1, "Demo"));
        assertThat(show.items()).hasSizeGreaterThanOrEqualTo(8);
        assertThat(show.cues().count()).isGreaterThanOrEqualTo(40);
        Set<Integer> used =
                show.cues().flatMap(c -> c.calls().stream()).map(Call::deviceId).collect(Collectors.toSet());
        show.listeners().forEach(l -> {
            l.from().stream().filter(id -> id != Source.OTHERS).forEach(used::add);
            l.passage().map(Passage::deviceId).ifPresent(used::add);
        });
        show.items().forEach(i -> i.follows()
                .map(Following::deviceId)
                .filter(id -> id != 0)
                .ifPresent(used::add));
        PatchBay.sets(show).forEach(s -> s.patch().orElseThrow().kept().lines().forEach(l -> {
            used.add(l.from());
            used.add(l.to());
        }));
        assertThat(used).isEqualTo(show.devices().stream().map(Device::id).collect(Collectors.toSet()));
        assertThat(show.devices().stream().filter(d -> !PatchBay.is(d)))
                .extracting(Device::name)
                .isSubsetOf(RehearsalRoom.NAMES);
    }

    @Test
    void theLightsListIsTheStandInsOwn() {
        Show show = new DemoBook("/demo/ferryman.book", 5000).writeInto(Show.empty(1, "Demo"));
        assertThat(show.devices().get(0).listed())
                .extracting(p -> p.name())
                .containsExactlyElementsOf(
                        FohLights.LOOKS.stream().map(FohLights.Look::name).toList());
    }

    /** What the book says of the console's scenes is what the console does. */
    @Test
    void scenesLeaveTheFadersWhereTheBookSaysSo() {
        Show show = new DemoBook("/demo/ferryman.book", 5000).writeInto(Show.empty(1, "Demo"));
        Device console = show.devices().stream()
                .filter(d -> d.name().equals("Sound console"))
                .findFirst()
                .orElseThrow();
        int scenes = 0;
        for (Phrase scene : console.phrases()) {
            SoundConsole desk = new SoundConsole();
            console.messagesFor(scene, Optional.empty()).forEach(t -> desk.hear((MidiMessage) t.message(), 0));
            for (Standing standing : scene.leaves()) {
                int fader = ((ControlChange) standing.open()).controller();
                assertThat(Math.round(standing.exact()))
                        .as("%s, fader %d", scene.name(), fader)
                        .isEqualTo(desk.state().strips().get(fader).fader());
            }
            scenes += scene.leaves().isEmpty() ? 0 : 1;
        }
        assertThat(scenes).isEqualTo(2);
    }

    @Test
    void machinesArePointedAtThePortsOfThisRunAndChangesStay() {
        List<Integer> before = ports("Midsummer Vigil");
        int vigil = baton.show("Midsummer Vigil");
        shows.edit(vigil, "plan", s -> s.withoutItem(s.items().get(9).id()));
        start(47_000);
        assertThat(ports("Midsummer Vigil")).containsExactly(47_000, 47_002, 47_004, 47_006, 47_008, 47_018);
        assertThat(shows.get(vigil).items()).hasSize(9);
        start(before.get(0));
        assertThat(ports("Midsummer Vigil")).isEqualTo(before);
        while (shows.get(vigil).items().size() < 10) {
            shows.undo(vigil);
        }
        start(before.get(0));
        baton.bean(Stage.class).close();
    }

    private void start(int firstPort) {
        Settings now = baton.bean(Settings.class);
        Settings asked = new Settings(true, false, now.data(), now.wires(), new Settings.StandIns(firstPort));
        new DemoShows(asked, shows, baton.bean(Stage.class)).run(null);
    }
}
