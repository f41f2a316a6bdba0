package underbaton.wire.session;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Exclusive;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.MidiParser;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SysEx;
import underbaton.core.midi.SystemCommon;

/**
 * Reads the MIDI command sections (RFC 6295 §3) of one sender: short and long headers, delta times, running status
 * inside a packet, exclusives in segments over several packets. The recovery journal behind them is {@link Recovery}'s.
 *
 * <p>Keeps an unfinished exclusive between packets, so there is one reader a sender. Not thread-safe.
 */
final class CommandReader {

    private static final int MOST_EXCLUSIVE_BYTES = SysEx.LONGEST;
    /** As sessions count. */
    private static final long TICK_NANOS = 100_000;

    private static final long OLDEST_NANOS = 1_000_000_000L;

    private final ByteArrayOutputStream exclusive = new ByteArrayOutputStream();
    private boolean inExclusive;

    /**
     * What a payload held.
     *
     * @param messages in order; those before the trouble when there is one
     * @param ages how long before the last command of the packet each was said, by the sender's delta times: ns, a second at most
     * @param trouble what was wrong with the rest, empty when nothing was
     */
    record Result(List<MidiMessage> messages, List<Long> ages, Optional<String> trouble) {}

    /** Something that no sender may write. */
    private static final class Malformed extends Exception {
        Malformed(String what) {
            super(what);
        }
    }

    /** Whether a payload has a recovery journal; the payload positioned behind the RTP header. */
    static boolean hasJournal(ByteBuffer payload) {
        return payload.hasRemaining() && (payload.get(payload.position()) & 0x40) != 0;
    }

    /** Where the recovery journal of a payload begins; at its end when the packet lies about its length. */
    static ByteBuffer journal(ByteBuffer payload) {
        ByteBuffer journal = payload.duplicate();
        int flags = journal.get() & 0xFF;
        boolean isLong = (flags & 0x80) != 0;
        int length = isLong && journal.hasRemaining() ? (flags & 0x0F) << 8 | journal.get() & 0xFF : flags & 0x0F;
        return journal.position(Math.min(journal.limit(), journal.position() + length));
    }

    /** @param payload positioned behind the RTP header */
    Result read(ByteBuffer payload) {
        List<MidiMessage> messages = new ArrayList<>();
        List<Long> times = new ArrayList<>();
        Optional<String> trouble = Optional.empty();
        try {
            readSection(payload, messages, times);
        } catch (Malformed malformed) {
            trouble = Optional.of(malformed.getMessage());
        }
        List<Long> ages = new ArrayList<>(messages.size());
        for (int i = 0; i < messages.size(); i++) {
            long age = i < times.size() ? times.get(times.size() - 1) - times.get(i) : 0;
            ages.add(Math.min(OLDEST_NANOS, age * TICK_NANOS));
        }
        return new Result(messages, ages, trouble);
    }

    /** @param times of the messages, in ticks since the packet's own time */
    private void readSection(ByteBuffer payload, List<MidiMessage> messages, List<Long> times) throws Malformed {
        int flags = octet(payload);
        int length = flags & 0x0F;
        if ((flags & 0x80) != 0) {
            length = length << 8 | octet(payload);
        }
        if (length > payload.remaining()) {
            throw new Malformed("the packet says " + length + " bytes of commands and has " + payload.remaining());
        }
        ByteBuffer list = payload.slice(payload.position(), length);
        boolean firstHasDelta = (flags & 0x20) != 0;
        int running = 0;
        long time = 0;
        for (boolean first = true; list.hasRemaining(); first = false) {
            if (!first || firstHasDelta) {
                time += delta(list);
            }
            if (list.hasRemaining()) {
                running = readCommand(list, running, messages);
                while (times.size() < messages.size()) {
                    times.add(time);
                }
            }
        }
    }

    /** @return the running status for the next command, 0 for none */
    private int readCommand(ByteBuffer list, int running, List<MidiMessage> messages) throws Malformed {
        int octet = list.get(list.position()) & 0xFF;
        if (octet >= 0xF8) {
            list.get();
            RealTime.of(octet).ifPresent(messages::add);
            return running;
        }
        int status = octet >= 0x80 ? list.get() & 0xFF : running;
        if (status == 0) {
            throw new Malformed("a command has no status");
        }
        if (status == 0xF0 || status == 0xF7) {
            readExclusive(list, status, messages);
            return 0;
        }
        if (status == 0xF4 || status == 0xF5) {
            return 0;
        }
        int needed = MidiParser.dataBytes(status);
        int one = needed > 0 ? data(list) : 0;
        int two = needed > 1 ? data(list) : 0;
        if (status >= 0xF0) {
            messages.add(SystemCommon.decode(status, one, two));
            return 0;
        }
        messages.add(ChannelMessage.decode(status, one, two));
        return status;
    }

    private void readExclusive(ByteBuffer list, int opening, List<MidiMessage> messages) throws Malformed {
        if (opening == 0xF0) {
            exclusive.reset();
            inExclusive = true;
        }
        int octet = octet(list);
        while (octet < 0x80 || octet >= 0xF8) {
            if (octet >= 0xF8) {
                RealTime.of(octet).ifPresent(messages::add);
            } else if (exclusive.size() >= MOST_EXCLUSIVE_BYTES) {
                inExclusive = false;
            } else if (inExclusive) {
                exclusive.write(octet);
            }
            octet = octet(list);
        }
        // F0 closes a segment that goes on in a later one; F7 closes the whole; F4 takes it back.
        if (octet == 0xF7 && inExclusive) {
            messages.add(Exclusive.decode(Bytes.copyOf(exclusive.toByteArray())));
        }
        if (octet != 0xF0) {
            exclusive.reset();
            inExclusive = false;
        }
    }

    /** RFC 6295 §3.1: one to four octets, seven bits each, the highest first. */
    private static long delta(ByteBuffer list) throws Malformed {
        long delta = 0;
        for (int i = 0; i < 4; i++) {
            int octet = octet(list);
            delta = delta << 7 | octet & 0x7F;
            if ((octet & 0x80) == 0) {
                return delta;
            }
        }
        throw new Malformed("a delta time is longer than four bytes");
    }

    private static int octet(ByteBuffer in) throws Malformed {
        if (!in.hasRemaining()) {
            throw new Malformed("the packet ends inside a command");
        }
        return in.get() & 0xFF;
    }

    private static int data(ByteBuffer list) throws Malformed {
        int octet = octet(list);
        if (octet >= 0x80) {
            throw new Malformed("a status stands where data must be");
        }
        return octet;
    }
}
