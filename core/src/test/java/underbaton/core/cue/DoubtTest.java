package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchSet;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.Wiring;

/** What a cue says that cannot be meant. */
class DoubtTest {

    private final Device console = new Device(
                    3, "Console", Department.SOUND, new Connection.LocalMidi("Loop 1"), 0, Numbering.WIRE, 0, List.of())
            .withPhrase(new Phrase(
                    11,
                    "Mute",
                    new SpeechWording(Numbering.WIRE).read("control 40 to 127 | control 40 to 0"),
                    Optional.empty(),
                    Effect.LEVELS,
                    false,
                    false,
                    Remarks.NONE))
            .withPhrase(new Phrase(
                    12,
                    "Scene",
                    new SpeechWording(Numbering.WIRE).read("program 1"),
                    Optional.empty(),
                    Effect.HOLDS,
                    false,
                    false,
                    Remarks.NONE));

    private Optional<String> doubt(String start, String... calls) {
        List<Call> all = Stream.of(calls).map(c -> Call.of(console, c)).toList();
        return Doubt.of(new Cue(1, CueNumber.of("1"), Start.of(start), "", all, 1), console);
    }

    @Test
    void bothHalvesOfASwitchInOneMomentAreTold() {
        assertThat(doubt("by hand", "Mute on", "Mute off"))
                .contains("“Mute” is switched on and off in the same moment");
        assertThat(doubt("by hand", "Mute on", "Mute off @ 2 s")).isEmpty();
        assertThat(doubt("by hand", "Mute on", "Scene")).isEmpty();
        assertThat(doubt("by hand", "Mute on", "Mute on")).isEmpty();
    }

    @Test
    void whatIsToComeBeforeAGoIsTold() {
        assertThat(doubt("by hand", "Scene @ -2 s"))
                .hasValueSatisfying(d -> assertThat(d).startsWith("−2 s lies before GO"));
        assertThat(doubt("at 9:1", "Scene @ -2 s")).isEmpty();
        assertThat(doubt("by hand", "Scene @ 2 s")).isEmpty();
    }

    /** Silent keyboards are heard of too late when only the Patch page says that a set carries nothing. */
    @Test
    void aPatchSetWithoutLinesOrWithLinesThatAreNotKeptIsDoubtful() {
        Show small = Shows.small();
        int lights = small.devices().get(0).id();
        Wiring line = new Wiring(List.of(PatchLine.open(lights, lights)), Set.of());
        assertThat(loading(Wiring.NONE, Optional.empty()))
                .contains("“Set” has no lines: nothing that is played goes anywhere");
        assertThat(loading(line, Optional.empty())).isEmpty();
        assertThat(loading(line, Optional.of(Wiring.NONE)))
                .contains("“Set” has been edited and not kept: it is loaded as it was kept");
    }

    private static Optional<String> loading(Wiring kept, Optional<Wiring> draft) {
        Show show = PatchBay.withNew(Shows.small(), "Set", kept);
        Phrase set = PatchBay.sets(show).iterator().next();
        show = PatchBay.with(show, set.withPatch(new PatchSet(kept, draft)));
        show = Shows.cue(show, "30", "by hand", "Set");
        return Doubt.of(
                show.cueNumbered(CueNumber.of("30")).orElseThrow(),
                PatchBay.of(show).orElseThrow());
    }
}
