package underbaton.standins;

import java.util.List;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicBoolean;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;

/**
 * A keyboard with one sound of its own, played from the room. Its keys sound by themselves as long as local control is on (MIDI 1.0,
 * controller 122), and whatever comes in on its channel sounds too.
 */
public final class StageKeyboard implements Model.Midi, Keyed {

    private static final int[] CHORD = {60, 64, 67};
    private static final int SUSTAIN = 64;
    private static final int SOFT = 67;
    private static final int LOCAL = 122;
    private static final int ON = 64;
    private static final int STRUCK = 90;

    private final int channel;
    private final TreeSet<Integer> sounding = new TreeSet<>();
    private final AtomicBoolean down = new AtomicBoolean();
    private boolean local = true;

    /** @param channel 0–15 */
    public StageKeyboard(int channel) {
        this.channel = channel;
    }

    @Override
    public synchronized void hear(MidiMessage message, long nanos) {
        if (message instanceof NoteOn on && on.channel() == channel && on.velocity() > 0) {
            sounding.add(on.note());
        } else if (message instanceof NoteOn off && off.channel() == channel) {
            sounding.remove(off.note());
        } else if (message instanceof NoteOff off && off.channel() == channel) {
            sounding.remove(off.note());
        } else if (message instanceof ControlChange c && c.channel() == channel && c.controller() == LOCAL) {
            local = c.value() >= ON;
        } else if (message instanceof ControlChange c && c.channel() == channel && c.controller() == 123) {
            sounding.clear();
        }
    }

    @Override
    public List<String> keys() {
        return List.of("chord", "let go", "sustain", "pedal");
    }

    @Override
    public void press(String key, Mouth mouth) {
        switch (key) {
            case "chord" -> {
                for (int note : CHORD) {
                    play(new NoteOn(channel, note, STRUCK), mouth);
                }
            }
            case "let go" -> {
                for (int note : CHORD) {
                    play(new NoteOff(channel, note, 0), mouth);
                }
            }
            case "sustain" -> {
                boolean nowDown = !down.get();
                down.set(nowDown);
                mouth.say(new ControlChange(channel, SUSTAIN, nowDown ? 127 : 0));
            }
            case "pedal" -> mouth.say(new ControlChange(channel, SOFT, 127), new ControlChange(channel, SOFT, 0));
            default -> {}
        }
    }

    private void play(MidiMessage message, Mouth mouth) {
        if (isLocal()) {
            hear(message, 0);
        }
        mouth.say(message);
    }

    /** Whether its keys play its own sound. */
    public synchronized boolean isLocal() {
        return local;
    }

    /** The notes that sound, the lowest first. */
    public synchronized List<Integer> sounding() {
        return List.copyOf(sounding);
    }
}
