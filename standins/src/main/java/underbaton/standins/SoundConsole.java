package underbaton.standins;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;

/**
 * A mixing console of sixteen strips. A program on its first channel recalls a scene: a position for every fader, with
 * all mutes off and pans centred. One controller a strip, counted from 0: on the first channel it moves the fader, on
 * the second it mutes (64 and over is muted), on the third it pans (0 left, 127 right). It says the scene that it has, and where a
 * fader stands, when it was told so or its own keys did it. It can be made to go astray at the next recall, or to say nothing.
 */
public final class SoundConsole implements Model.Midi, Keyed {

    public static final int STRIPS = 16;

    /**
     * @param fader 0–127
     * @param pan 0 left – 127 right
     */
    public record Strip(String name, int fader, boolean muted, int pan) {}

    /** @param scene 1 for the first, as its display prints it; 0 when none was recalled */
    public record State(int scene, List<Strip> strips) {}

    private static final int FADERS = 4;
    private static final int MUTES = 5;
    private static final int PANS = 6;
    private static final int SCENES = 20;
    private static final int CENTRE = 64;
    private static final int BED = 13;
    private static final String ASTRAY = "astray";
    private static final String SILENT = "silent";
    private static final List<String> NAMES = List.of(
            "Vox 1", "Vox 2", "Vox 3", "Vox 4", "Gtr", "Bass", "Keys L", "Keys R", "Kick", "Snare", "Tom", "Over",
            "Click", "Bed", "Film", "Room");

    private boolean astray;
    private boolean silent;
    private volatile State state = new State(0, strips(0));

    /** Every scene has its own, made-up, fader positions. */
    private static List<Strip> strips(int scene) {
        List<Strip> strips = new ArrayList<>();
        for (int i = 0; i < STRIPS; i++) {
            int fader = scene == 0 ? 0 : 20 + (scene * 37 + i * 29) % 90;
            strips.add(new Strip(NAMES.get(i), fader, false, CENTRE));
        }
        return Collections.unmodifiableList(strips);
    }

    @Override
    public synchronized void hear(MidiMessage message, long nanos) {
        if (message instanceof ProgramChange p && p.channel() == FADERS && p.program() < SCENES) {
            int scene = (p.program() + (astray ? 1 : 0)) % SCENES + 1;
            astray = false;
            state = new State(scene, strips(scene));
        } else if (message instanceof ControlChange c && c.controller() < STRIPS) {
            Strip strip = state.strips.get(c.controller());
            switch (c.channel()) {
                case FADERS -> put(c.controller(), new Strip(strip.name, c.value(), strip.muted, strip.pan));
                case MUTES -> put(c.controller(), new Strip(strip.name, strip.fader, c.value() >= CENTRE, strip.pan));
                case PANS -> put(c.controller(), new Strip(strip.name, strip.fader, strip.muted, c.value()));
                default -> {}
            }
        }
    }

    @Override
    public synchronized List<MidiMessage> answers(MidiMessage heard) {
        if (silent) {
            return List.of();
        }
        if (heard instanceof ProgramChange p && p.channel() == FADERS && state.scene > 0) {
            return List.of(new ProgramChange(FADERS, state.scene - 1));
        }
        return heard instanceof ControlChange c && c.channel() == FADERS && c.controller() < STRIPS
                ? List.of(new ControlChange(FADERS, c.controller(), state.strips.get(c.controller()).fader))
                : List.of();
    }

    private void put(int index, Strip strip) {
        List<Strip> strips = new ArrayList<>(state.strips);
        strips.set(index, strip);
        state = new State(state.scene, Collections.unmodifiableList(strips));
    }

    public State state() {
        return state;
    }

    @Override
    public List<String> keys() {
        return List.of("scene 1", "scene 5", "scene 9", "scene 12", "bed up", "bed down", ASTRAY, SILENT);
    }

    @Override
    public synchronized void press(String key, Mouth mouth) {
        if (key.equals(ASTRAY)) {
            astray = true;
        } else if (key.equals(SILENT)) {
            silent = !silent;
        } else if (key.startsWith("bed ")) {
            ControlChange moved = new ControlChange(FADERS, BED, key.equals("bed up") ? 110 : 20);
            hear(moved, 0);
            mouth.say(moved);
        } else if (keys().contains(key)) {
            ProgramChange recalled = new ProgramChange(FADERS, Integer.parseInt(key.substring(6)) - 1);
            hear(recalled, 0);
            mouth.say(recalled);
        }
    }
}
