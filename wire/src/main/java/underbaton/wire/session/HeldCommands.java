package underbaton.wire.session;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;

/**
 * A journal says what is, not what was in between: a note that begins and ends inside a lost stretch, and a program that is
 * sent again, leave no trace in it. So the end of a note, the same note again, and the same program again are held back
 * until what they end or repeat is known to have arrived; on a line that loses nothing that is at once. Not thread-safe.
 */
final class HeldCommands {

    private static final int MOST = 64;
    /** Programs have keys behind those of the 16 times 128 notes. */
    private static final int PROGRAMS = 16 << 7;

    private final SentHistory history;
    /** By key: the packet that said it last, and the program that it said. */
    private final Map<Integer, Long> saidIn = new HashMap<>();

    private final Map<Integer, Integer> programs = new HashMap<>();
    private final List<Held> held = new ArrayList<>();

    private record Held(ChannelMessage command, int key, long untilNanos) {}

    HeldCommands(SentHistory history) {
        this.history = history;
    }

    private static int key(MidiMessage command) {
        if (command instanceof NoteOn on) {
            return on.channel() << 7 | on.note();
        } else if (command instanceof NoteOff off) {
            return off.channel() << 7 | off.note();
        }
        return command instanceof ProgramChange p ? PROGRAMS + p.channel() : -1;
    }

    boolean isEmpty() {
        return held.isEmpty();
    }

    /**
     * Whether a command was held back; if not, it may leave, behind those of {@link #before}.
     *
     * @param leaving what leaves just before it
     */
    boolean takes(MidiMessage command, List<MidiMessage> leaving, long now, long patience) {
        int key = key(command);
        boolean queued = held.stream().anyMatch(h -> h.key == key)
                || leaving.stream().anyMatch(m -> key(m) == key && !(m instanceof NoteOff));
        boolean other = command instanceof ProgramChange p && programs.getOrDefault(key, -1) != p.program();
        boolean waits = key >= 0 && !other && patience > 0 && (queued || isAwaited(key));
        if (waits && held.size() < MOST) {
            held.add(new Held((ChannelMessage) command, key, now + patience));
            return true;
        }
        return false;
    }

    private boolean isAwaited(int key) {
        return saidIn.containsKey(key) && history.awaits(saidIn.get(key));
    }

    /** What has to leave before a command, because that touches the same thing, or all of its channel. */
    List<MidiMessage> before(MidiMessage command) {
        List<MidiMessage> leaving = new ArrayList<>();
        int key = key(command);
        int channel = command instanceof ControlChange c ? c.channel() : -1;
        held.removeIf(h -> {
            boolean goes = h.key == key || h.command.channel() == channel;
            if (goes) {
                leaving.add(h.command);
            }
            return goes;
        });
        return leaving;
    }

    void sent(MidiMessage command, long packet) {
        int key = key(command);
        // The end of a note that is lost is said by the journal; only beginnings have to be waited for.
        if (key >= 0 && !(command instanceof NoteOff)) {
            saidIn.put(key, packet);
        }
        if (command instanceof ProgramChange p) {
            programs.put(key, p.program());
        }
    }

    /** What need not wait any longer, in the order in which it came; of each note and program one at a time. */
    List<MidiMessage> due(long now) {
        List<MidiMessage> due = new ArrayList<>();
        Set<Integer> passed = new HashSet<>();
        for (Iterator<Held> all = held.iterator(); all.hasNext(); ) {
            Held one = all.next();
            boolean free = one.untilNanos - now <= 0 || !isAwaited(one.key);
            if (passed.add(one.key) && free) {
                due.add(one.command);
                all.remove();
            }
        }
        return due;
    }

    /** All that is held, which then is held no more. */
    List<MidiMessage> all() {
        List<MidiMessage> all = new ArrayList<>();
        held.forEach(h -> all.add(h.command));
        held.clear();
        return all;
    }

    void restart() {
        saidIn.clear();
        programs.clear();
        held.clear();
    }
}
