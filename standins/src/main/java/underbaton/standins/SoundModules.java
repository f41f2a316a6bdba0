package underbaton.standins;

import java.util.List;
import java.util.TreeSet;
import java.util.stream.IntStream;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;

/** A rack of four sounds, one on each of the channels 13 to 16, without keys of its own. */
public final class SoundModules implements Model.Midi {

    public static final List<String> PARTS = List.of("Grand piano", "Strings", "Brass", "Glass bells");
    private static final int FIRST = 12;
    private static final int SUSTAIN = 64;
    private static final int ALL_NOTES_OFF = 123;

    /** @param notes that sound, the lowest first @param sustained whether its pedal is down */
    public record Part(String name, List<Integer> notes, boolean sustained) {}

    private final List<TreeSet<Integer>> sounding =
            PARTS.stream().map(p -> new TreeSet<Integer>()).toList();
    private final boolean[] sustained = new boolean[PARTS.size()];

    @Override
    public synchronized void hear(MidiMessage message, long nanos) {
        if (!(message instanceof ChannelMessage played) || played.channel() < FIRST) {
            return;
        }
        int part = played.channel() - FIRST;
        if (message instanceof NoteOn on && on.velocity() > 0) {
            sounding.get(part).add(on.note());
        } else if (message instanceof NoteOn off) {
            sounding.get(part).remove(off.note());
        } else if (message instanceof NoteOff off) {
            sounding.get(part).remove(off.note());
        } else if (message instanceof ControlChange c && c.controller() == SUSTAIN) {
            sustained[part] = c.value() >= 64;
        } else if (message instanceof ControlChange c && c.controller() == ALL_NOTES_OFF) {
            sounding.get(part).clear();
        }
    }

    public synchronized List<Part> parts() {
        return IntStream.range(0, PARTS.size())
                .mapToObj(i -> new Part(PARTS.get(i), List.copyOf(sounding.get(i)), sustained[i]))
                .toList();
    }
}
