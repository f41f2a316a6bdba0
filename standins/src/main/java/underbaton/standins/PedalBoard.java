package underbaton.standins;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;

/**
 * Two pedals, an expression pedal and four pads with lamps, lit by their own notes, as bright as the velocity. The pedals are the sostenuto (66) and the soft pedal (67) of the MIDI 1.0
 * specification, pressed and let go on channel 1; the pads are struck as hard as it happens, on channel 10, as drums are.
 */
public final class PedalBoard implements Model.Midi, Keyed {

    private static final int SEED = 7;
    private static final int DRUMS = 9;
    private static final int FIRST_PAD = 36;
    private static final int PADS = 4;
    private static final int EXPRESSION = 11;

    private final Random velocities = new Random(SEED);
    private final int[] lamps = new int[PADS];
    private volatile String last = "";

    @Override
    public synchronized void hear(MidiMessage message, long nanos) {
        if (message instanceof NoteOn note && note.channel() == DRUMS) {
            light(note.note(), note.velocity());
        } else if (message instanceof NoteOff note && note.channel() == DRUMS) {
            light(note.note(), 0);
        }
    }

    private void light(int note, int velocity) {
        int pad = note - FIRST_PAD;
        if (pad >= 0 && pad < PADS) {
            lamps[pad] = velocity;
        }
    }

    /** How bright the lamps of the pads are, 0–127, the first pad first. */
    public synchronized List<Integer> lamps() {
        return Arrays.stream(lamps).boxed().toList();
    }

    /** What was touched last; empty at first. */
    public String last() {
        return last;
    }

    @Override
    public List<String> keys() {
        return List.of("back", "next", "pad 1", "pad 2", "pad 3", "pad 4", "heel", "half", "toe");
    }

    @Override
    public synchronized void press(String key, Mouth mouth) {
        switch (key) {
            case "back" -> step(66, mouth);
            case "next" -> step(67, mouth);
            case "heel" -> mouth.say(new ControlChange(0, EXPRESSION, 0));
            case "half" -> mouth.say(new ControlChange(0, EXPRESSION, 64));
            case "toe" -> mouth.say(new ControlChange(0, EXPRESSION, 127));
            default -> strike(key, mouth);
        }
        last = key;
    }

    private static void step(int pedal, Mouth mouth) {
        mouth.say(new ControlChange(0, pedal, 127));
        mouth.say(new ControlChange(0, pedal, 0));
    }

    private void strike(String key, Mouth mouth) {
        if (key.matches("pad [1-4]")) {
            int note = FIRST_PAD + key.charAt(4) - '1';
            mouth.say(new NoteOn(DRUMS, note, 1 + velocities.nextInt(127)));
            mouth.say(new NoteOff(DRUMS, note, 0));
        }
    }
}
