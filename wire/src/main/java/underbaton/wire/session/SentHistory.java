package underbaton.wire.session;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Exclusive;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.SongSelect;
import underbaton.core.midi.SystemCommon.TuneRequest;

/**
 * What one peer has been told since it last acknowledged, and the recovery journal that says it again (RFC 6295 §4–5,
 * appendices A and B): the channels' chapters ({@link ChannelHistory}), and of the system journal song, tune request and
 * reset (chapter D) and short exclusives (chapter X). The loop is closed by the peer's feedback: what it has acknowledged
 * leaves the journal, so that on a clean line there is none.
 *
 * <p>Packet numbers are counted without wrapping here; only the wire's are 16 bits. Thread-safe.
 */
final class SentHistory {

    /** An exclusive whose body is longer, in bytes, is not said again: a journal has to fit beside commands. */
    static final int LONGEST_EXCLUSIVE = 128;

    private static final int SYSTEM_FOLLOWS = 0x40;
    private static final int CHANNELS_FOLLOW = 0x20;
    private static final int QUIET = 0x80;
    private static final int CHAPTER_D = 0x4000;
    private static final int CHAPTER_X = 0x0400;
    /** Chapter X: a count and the data are there, by the list tool, of a command that was ended as usual. */
    private static final int LOG_X = 0x20 | 0x08 | 0x04 | 0x03;

    private final Map<Integer, ChannelHistory> channels = new TreeMap<>();
    private final List<Told<Bytes>> exclusives = new ArrayList<>();
    private Told<Integer> song;
    private Told<Integer> tune;
    private Told<Integer> reset;
    private int exclusivesSoFar;
    private int tunesSoFar;
    private int resetsSoFar;
    private long acknowledged;

    /**
     * Something that was told.
     *
     * @param number which one of its kind, for those that are counted; else 0
     * @param packet the one that told it last
     */
    record Told<T>(T value, int number, long packet) {
        boolean until(long last) {
            return packet <= last;
        }
    }

    /** Whether a command that is lost comes back by the journal. */
    static boolean carries(MidiMessage command) {
        return command instanceof ChannelMessage
                || command instanceof SongSelect
                || command instanceof TuneRequest
                || command == RealTime.RESET
                || command instanceof Exclusive exclusive && exclusive.body().length() <= LONGEST_EXCLUSIVE;
    }

    /** @param packet the number of the packet that carries it, rising */
    synchronized void sent(MidiMessage command, long packet) {
        if (command instanceof ChannelMessage message) {
            channels.computeIfAbsent(message.channel(), ChannelHistory::new).sent(message, packet);
        } else if (command instanceof Exclusive exclusive) {
            exclusivesSoFar = exclusivesSoFar + 1 & 0xFF;
            if (carries(command)) {
                exclusives.add(new Told<>(exclusive.body(), exclusivesSoFar, packet));
            }
        } else if (command instanceof SongSelect select) {
            song = new Told<>(select.song(), 0, packet);
        } else if (command instanceof TuneRequest) {
            tunesSoFar = tunesSoFar + 1 & 0x7F;
            tune = new Told<>(tunesSoFar, 0, packet);
        } else if (command == RealTime.RESET) {
            resetsSoFar = resetsSoFar + 1 & 0x7F;
            reset = new Told<>(resetsSoFar, 0, packet);
        }
    }

    /** The peer has this packet, and from its journal all before it. */
    synchronized void acknowledged(long packet) {
        if (packet > acknowledged) {
            acknowledged = packet;
            channels.values().forEach(c -> c.forgetUpTo(packet));
            exclusives.removeIf(t -> t.until(packet));
            song = left(song, packet);
            tune = left(tune, packet);
            reset = left(reset, packet);
        }
    }

    private static Told<Integer> left(Told<Integer> told, long packet) {
        return told == null || told.until(packet) ? null : told;
    }

    synchronized boolean isEmpty() {
        return exclusives.isEmpty()
                && song == null
                && tune == null
                && reset == null
                && channels.values().stream().allMatch(ChannelHistory::isEmpty);
    }

    /** Whether the peer is not known to have this packet yet. */
    synchronized boolean awaits(long packet) {
        return packet > acknowledged;
    }

    /** A new session begins: what was told in the last one is no longer anybody's history. */
    synchronized void restart(long packet) {
        channels.clear();
        exclusives.clear();
        song = null;
        tune = null;
        reset = null;
        exclusivesSoFar = 0;
        tunesSoFar = 0;
        resetsSoFar = 0;
        acknowledged = packet;
    }

    /**
     * The journal for the packet with this number; empty when there is nothing to say again. Where there is more than room
     * for it, the oldest yields.
     *
     * @param packet the number of the packet that it will stand in
     * @param room how many bytes it may have
     */
    synchronized byte[] journal(long packet, int room) {
        byte[] journal = write(packet);
        while (journal.length > room) {
            acknowledged(oldest(packet));
            journal = write(packet);
        }
        return journal;
    }

    private long oldest(long none) {
        long oldest = none;
        for (ChannelHistory channel : channels.values()) {
            oldest = Math.min(oldest, channel.oldest());
        }
        for (Told<?> told : exclusives) {
            oldest = Math.min(oldest, told.packet);
        }
        for (Told<Integer> told : ones()) {
            oldest = Math.min(oldest, told.packet);
        }
        return oldest;
    }

    private List<Told<Integer>> ones() {
        List<Told<Integer>> ones = new ArrayList<>();
        for (Told<Integer> one : Arrays.asList(reset, tune, song)) {
            if (one != null) {
                ones.add(one);
            }
        }
        return ones;
    }

    private byte[] write(long packet) {
        ByteArrayOutputStream system = new ByteArrayOutputStream();
        boolean quiet = writeSystem(packet - 1, system);
        List<byte[]> written = new ArrayList<>();
        for (ChannelHistory channel : channels.values()) {
            if (!channel.isEmpty()) {
                byte[] journal = channel.journal(packet - 1);
                quiet &= (journal[0] & QUIET) != 0;
                written.add(journal);
            }
        }
        if (written.isEmpty() && system.size() == 0) {
            return new byte[0];
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        // S: nothing here is of the packet just before; Y: a system journal; A: channel journals, their number less
        // one.
        out.write((quiet ? QUIET : 0)
                | (system.size() > 0 ? SYSTEM_FOLLOWS : 0)
                | (written.isEmpty() ? 0 : CHANNELS_FOLLOW | written.size() - 1));
        long checkpoint = acknowledged + 1;
        out.write((int) (checkpoint >> 8));
        out.write((int) checkpoint);
        out.writeBytes(system.toByteArray());
        written.forEach(out::writeBytes);
        return out.toByteArray();
    }

    /** Header S D V Q F X LENGTH, then the chapters. @return whether nothing of it is of the packet before */
    private boolean writeSystem(long before, ByteArrayOutputStream out) {
        if (exclusives.isEmpty() && ones().isEmpty()) {
            return true;
        }
        ByteArrayOutputStream chapters = new ByteArrayOutputStream();
        int contents = 0;
        boolean quiet = true;
        if (!ones().isEmpty()) {
            contents |= CHAPTER_D;
            quiet = chapterD(before, chapters);
        }
        for (Told<Bytes> told : exclusives) {
            contents |= CHAPTER_X;
            quiet &= chapterX(told, before, chapters);
        }
        int header = (quiet ? 0x8000 : 0) | contents | 2 + chapters.size();
        out.write(header >> 8);
        out.write(header);
        out.writeBytes(chapters.toByteArray());
        return quiet;
    }

    /** S B G H J K Y Z: reset, tune request and song, one octet each (appendix B.1). */
    private boolean chapterD(long before, ByteArrayOutputStream out) {
        boolean quiet = ones().stream().allMatch(t -> t.packet != before);
        out.write((quiet ? QUIET : 0)
                | (reset != null ? 0x40 : 0)
                | (tune != null ? 0x20 : 0)
                | (song != null ? 0x10 : 0));
        ones().forEach(t -> out.write((t.packet != before ? QUIET : 0) | t.value));
        return quiet;
    }

    /** A log of an exclusive, its number among all of the session, its octets with the last one marked (appendix B.5). */
    private static boolean chapterX(Told<Bytes> told, long before, ByteArrayOutputStream out) {
        boolean quiet = told.packet != before;
        Bytes body = told.value;
        int data = body.length() > 0 ? LOG_X : LOG_X & ~0x08;
        out.write((quiet ? QUIET : 0) | data);
        out.write(told.number);
        for (int i = 0; i < body.length(); i++) {
            out.write(body.at(i) | (i == body.length() - 1 ? 0x80 : 0));
        }
        return quiet;
    }
}
