package underbaton.core.cue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;

/** Small made-up shows for tests. */
public final class Shows {

    private Shows() {}

    /** Lights with three looks, a player with start and stop; items One (cues 1, 2) and Two (cues 10, 11). */
    public static Show small() {
        Show show = Show.empty(1, "Small");
        show = device(show, "Lights", Department.LIGHTS, 0);
        show = phrase(show, "Amber", "note 1", Effect.HOLDS);
        show = phrase(show, "Blue", "note 2", Effect.HOLDS);
        show = phrase(show, "Dark", "note 0", Effect.STOPS);
        show = device(show, "Player", Department.VIDEO, 1);
        show = phrase(show, "Play", "note 36", Effect.STARTS);
        show = phrase(show, "Stop", "note 35", Effect.STOPS);
        show = show.withItem(new Item(0, ItemKind.SONG, "One", 60, List.of()), 0);
        show = cue(show, "1", "by hand", "Amber");
        show = cue(show, "2", "by hand", "Blue", "Play");
        show = show.withItem(new Item(0, ItemKind.SCENE, "Two", 0, List.of()), 1);
        show = cue(show, "10", "by hand", "Amber");
        return cue(show, "11", "by hand", "Dark", "Stop");
    }

    public static Show device(Show show, String name, Department department, int channel) {
        return show.withDevice(new Device(
                0,
                name,
                department,
                new Connection.NetworkMidi("127.0.0.1", 5004),
                channel,
                Numbering.WIRE,
                0,
                List.of()));
    }

    /** Into the phrasebook of the last device. */
    public static Show phrase(Show show, String name, String says, Effect effect) {
        Device device = show.devices().get(show.devices().size() - 1);
        return show.withPhrase(
                device.id(),
                new Phrase(
                        0,
                        name,
                        new SpeechWording(Numbering.WIRE).read(says),
                        Optional.empty(),
                        effect,
                        false,
                        false,
                        Remarks.NONE));
    }

    /** Into the last item. */
    public static Show cue(Show show, String number, String starts, String... phrases) {
        List<Call> calls = new ArrayList<>();
        for (String name : phrases) {
            show.devices().forEach(d -> d.phraseNamed(name).ifPresent(p -> calls.add(new Call(d.id(), p.id()))));
        }
        int item = show.items().get(show.items().size() - 1).id();
        return show.withCue(item, new Cue(0, CueNumber.of(number), Start.of(starts), "cue " + number, calls, 0));
    }

    static Item item(Show show, String name) {
        return show.items().stream()
                .filter(i -> i.name().equals(name))
                .findFirst()
                .orElseThrow();
    }
}
