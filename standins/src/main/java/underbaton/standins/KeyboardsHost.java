package underbaton.standins;

import java.util.List;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;

/**
 * A keyboard player's rack of patches. A program picks the patch and puts both switches off and the expression up, as
 * such racks do; controllers 80 and 81 are the switches (64 and over is on), controller 11 the expression.
 */
public final class KeyboardsHost implements Model.Midi, Keyed {

    public static final List<String> PATCHES = List.of(
            "Upright piano",
            "Reed organ",
            "Strings, soft",
            "Bells",
            "Harmonium",
            "Low pad",
            "Electric piano",
            "Brass, far off");

    /**
     * @param patch 1 for the first, as its display prints it
     * @param expression 0–127
     * @param sounding how many keys are held
     */
    public record State(int patch, String name, boolean switch1, boolean switch2, int expression, int sounding) {}

    private static final int[] CHORD = {48, 55, 60};
    private static final int STRUCK = 80;
    private static final int CHANNEL = 5;
    private static final int SWITCH_1 = 80;
    private static final int SWITCH_2 = 81;
    private static final int EXPRESSION = 11;
    private static final int ON = 64;
    private static final int FULL = 127;

    private volatile State state = new State(1, PATCHES.get(0), false, false, FULL, 0);

    @Override
    public void hear(MidiMessage message, long nanos) {
        State s = state;
        if (message instanceof ProgramChange p && p.channel() == CHANNEL && p.program() < PATCHES.size()) {
            state = new State(p.program() + 1, PATCHES.get(p.program()), false, false, FULL, s.sounding);
        } else if (message instanceof ControlChange c && c.channel() == CHANNEL) {
            boolean on = c.value() >= ON;
            switch (c.controller()) {
                case SWITCH_1 -> state = new State(s.patch, s.name, on, s.switch2, s.expression, s.sounding);
                case SWITCH_2 -> state = new State(s.patch, s.name, s.switch1, on, s.expression, s.sounding);
                case EXPRESSION -> state = new State(s.patch, s.name, s.switch1, s.switch2, c.value(), s.sounding);
                default -> {}
            }
        } else if (message instanceof NoteOn n && n.channel() == CHANNEL) {
            keys(n.velocity() > 0 ? 1 : -1);
        } else if (message instanceof NoteOff n && n.channel() == CHANNEL) {
            keys(-1);
        }
    }

    private void keys(int change) {
        State s = state;
        int sounding = Math.max(0, s.sounding + change);
        state = new State(s.patch, s.name, s.switch1, s.switch2, s.expression, sounding);
    }

    public State state() {
        return state;
    }

    @Override
    public List<String> keys() {
        return List.of("chord", "let go");
    }

    /** Its own keys reach the rack by the patch alone, as in many a pit. */
    @Override
    public void press(String key, Mouth mouth) {
        for (int note : CHORD) {
            switch (key) {
                case "chord" -> mouth.say(new NoteOn(CHANNEL, note, STRUCK));
                case "let go" -> mouth.say(new NoteOff(CHANNEL, note, 0));
                default -> {}
            }
        }
    }
}
