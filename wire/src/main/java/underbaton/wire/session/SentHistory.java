package underbaton.wire.session;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;

/**
 * What one peer has been told since it last acknowledged, and the recovery journal that says it again (RFC 6295 §4–5,
 * appendix A): program with bank (chapter P), controllers (chapter C), notes (chapter N). The loop is closed by the
 * peer's feedback: what it has acknowledged leaves the journal, so that on a clean line there is none.
 *
 * <p>Packet numbers are counted without wrapping here; only the wire's are 16 bits. Thread-safe.
 */
final class SentHistory {

    /** A journal keeps inside this, so that packet and journal are not cut up on the way; older history yields. */
    private static final int MOST_BYTES = 900;

    private static final int HEADER = 3;
    private static final int ALL_SOUND_OFF = 120;
    private static final int ALL_NOTES_OFF = 123;
    private static final int MOST_LOGS = 127;

    private final Map<Integer, Channel> channels = new TreeMap<>();
    private long acknowledged;

    /** A controller's value or a note's velocity (−1 when it is off), and the packet that last changed it. */
    private record Told(int value, long packet) {}

    /** A program with the bank that was chosen before it; bank −1 for none. */
    private record Program(int program, int bankHigh, int bankLow, long packet) {}

    private static final class Channel {
        private Program program;
        private int bankHigh = -1;
        private int bankLow = -1;
        private final Map<Integer, Told> controllers = new TreeMap<>();
        private final Map<Integer, Told> notes = new TreeMap<>();

        private boolean isEmpty() {
            return program == null && controllers.isEmpty() && notes.isEmpty();
        }

        private void forgetUpTo(long packet) {
            program = program != null && program.packet <= packet ? null : program;
            controllers.values().removeIf(t -> t.packet <= packet);
            notes.values().removeIf(t -> t.packet <= packet);
        }
    }

    /** @param packet the number of the packet that carries it, rising */
    synchronized void sent(MidiMessage command, long packet) {
        if (!(command instanceof ChannelMessage message)) {
            return;
        }
        Channel channel = channels.computeIfAbsent(message.channel(), c -> new Channel());
        if (message instanceof ProgramChange p) {
            channel.program = new Program(p.program(), channel.bankHigh, channel.bankLow, packet);
            channel.controllers.remove(0);
            channel.controllers.remove(32);
        } else if (message instanceof ControlChange c) {
            control(channel, c, packet);
        } else if (message instanceof NoteOn on && on.velocity() > 0) {
            channel.notes.put(on.note(), new Told(on.velocity(), packet));
        } else if (message instanceof NoteOn silent) {
            channel.notes.put(silent.note(), new Told(-1, packet));
        } else if (message instanceof NoteOff off) {
            channel.notes.put(off.note(), new Told(-1, packet));
        }
    }

    private static void control(Channel channel, ControlChange c, long packet) {
        channel.controllers.put(c.controller(), new Told(c.value(), packet));
        if (c.controller() == 0) {
            channel.bankHigh = c.value();
            channel.bankLow = Math.max(0, channel.bankLow);
        } else if (c.controller() == 32) {
            channel.bankLow = c.value();
            channel.bankHigh = Math.max(0, channel.bankHigh);
        } else if (c.controller() == ALL_SOUND_OFF || c.controller() == ALL_NOTES_OFF) {
            channel.notes.replaceAll((note, told) -> new Told(-1, packet));
        }
    }

    /** The peer has this packet, and from its journal all before it. */
    synchronized void acknowledged(long packet) {
        if (packet > acknowledged) {
            acknowledged = packet;
            channels.values().forEach(c -> c.forgetUpTo(packet));
        }
    }

    synchronized boolean isEmpty() {
        return channels.values().stream().allMatch(Channel::isEmpty);
    }

    /** A new session begins: what was told in the last one is no longer anybody's history. */
    synchronized void restart(long packet) {
        channels.clear();
        acknowledged = packet;
    }

    /**
     * The journal for the packet with this number; empty when there is nothing to say again.
     *
     * @param packet the number of the packet that it will stand in
     */
    synchronized byte[] journal(long packet) {
        byte[] journal = write(packet);
        while (journal.length > MOST_BYTES) {
            long oldest = channels.values().stream()
                    .mapToLong(SentHistory::oldest)
                    .min()
                    .orElse(packet);
            acknowledged(oldest);
            journal = write(packet);
        }
        return journal;
    }

    private static long oldest(Channel c) {
        long oldest = c.program == null ? Long.MAX_VALUE : c.program.packet;
        for (Map<Integer, Told> told : List.of(c.controllers, c.notes)) {
            for (Told t : told.values()) {
                oldest = Math.min(oldest, t.packet);
            }
        }
        return oldest;
    }

    private byte[] write(long packet) {
        List<byte[]> written = new ArrayList<>();
        boolean quiet = true;
        for (Map.Entry<Integer, Channel> entry : channels.entrySet()) {
            if (!entry.getValue().isEmpty()) {
                byte[] channel = channelJournal(entry.getKey(), entry.getValue(), packet - 1);
                quiet &= (channel[0] & 0x80) != 0;
                written.add(channel);
            }
        }
        if (written.isEmpty()) {
            return new byte[0];
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        // S: nothing here is of the packet just before; A: channel journals follow, their number less one.
        out.write((quiet ? 0x80 : 0) | 0x20 | written.size() - 1);
        long checkpoint = acknowledged + 1;
        out.write((int) (checkpoint >> 8));
        out.write((int) checkpoint);
        written.forEach(out::writeBytes);
        return out.toByteArray();
    }

    /** Header S CHAN H LENGTH, table of contents P C M W N E T A, then the chapters in that order. */
    private static byte[] channelJournal(int number, Channel channel, long before) {
        ByteArrayOutputStream chapters = new ByteArrayOutputStream();
        boolean quiet = true;
        int contents = 0;
        if (channel.program != null) {
            contents |= 0x80;
            quiet &= channel.program.packet != before;
            chapterP(channel.program, before, chapters);
        }
        if (!channel.controllers.isEmpty()) {
            contents |= 0x40;
            quiet &= chapterC(channel.controllers, before, chapters);
        }
        if (!channel.notes.isEmpty()) {
            contents |= 0x08;
            quiet &= chapterN(channel.notes, before, chapters);
        }
        int length = HEADER + chapters.size();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write((quiet ? 0x80 : 0) | number << 3 | length >> 8);
        out.write(length);
        out.write(contents);
        out.writeBytes(chapters.toByteArray());
        return out.toByteArray();
    }

    private static int quietBit(long packet, long before) {
        return packet != before ? 0x80 : 0;
    }

    private static void chapterP(Program p, long before, ByteArrayOutputStream out) {
        boolean banked = p.bankHigh >= 0;
        out.write(quietBit(p.packet, before) | p.program);
        out.write(banked ? 0x80 | p.bankHigh : 0);
        out.write(banked ? p.bankLow : 0);
    }

    private static boolean chapterC(Map<Integer, Told> controllers, long before, ByteArrayOutputStream out) {
        boolean quiet = controllers.values().stream().allMatch(t -> t.packet != before);
        out.write((quiet ? 0x80 : 0) | controllers.size() - 1);
        controllers.forEach((number, told) -> {
            out.write(quietBit(told.packet, before) | number);
            out.write(told.value);
        });
        return quiet;
    }

    /** Logs of notes that sound, then a bit for each note that ended, in the octets from LOW to HIGH. */
    private static boolean chapterN(Map<Integer, Told> notes, long before, ByteArrayOutputStream out) {
        List<Map.Entry<Integer, Told>> on = notes.entrySet().stream()
                .filter(e -> e.getValue().value >= 0)
                .limit(MOST_LOGS)
                .toList();
        List<Map.Entry<Integer, Told>> off =
                notes.entrySet().stream().filter(e -> e.getValue().value < 0).toList();
        int low = off.stream().mapToInt(e -> e.getKey() / 8).min().orElse(15);
        int high = off.stream().mapToInt(e -> e.getKey() / 8).max().orElse(0);
        boolean quietOffs = off.stream().allMatch(e -> e.getValue().packet != before);
        boolean quietOns = on.stream().allMatch(e -> e.getValue().packet != before);
        out.write((quietOffs ? 0x80 : 0) | on.size());
        out.write(low << 4 | high);
        for (Map.Entry<Integer, Told> note : on) {
            out.write(quietBit(note.getValue().packet, before) | note.getKey());
            // Y: play it, even though it is late; a look that comes late is right and one that does not come is wrong.
            out.write(0x80 | note.getValue().value);
        }
        if (!off.isEmpty()) {
            byte[] bits = new byte[high - low + 1];
            off.forEach(e -> bits[e.getKey() / 8 - low] |= (byte) (0x80 >> e.getKey() % 8));
            out.writeBytes(bits);
        }
        return quietOffs && quietOns;
    }
}
