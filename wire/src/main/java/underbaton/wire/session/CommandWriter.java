package underbaton.wire.session;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Exclusive;
import underbaton.core.midi.MidiMessage;

/**
 * Writes MIDI command sections (RFC 6295 §3) that hold no more than a datagram carries without being cut up. All
 * commands of a section have the packet's own time; an exclusive too long for one packet is sent in segments (§3.2).
 */
final class CommandWriter {

    /** Commands a packet carries at the most, in bytes: half a packet, so that a journal has room beside them. */
    static final int MOST_BYTES = 700;

    private static final int LONG_HEADER = 0x80;
    private static final int SHORT_LENGTH = 0x0F;

    /** The J flag, to be set in a section's first byte when a recovery journal follows. */
    static final int JOURNAL_FOLLOWS = 0x40;

    /**
     * One packet's commands.
     *
     * @param commands those that are whole in it
     * @param segment whether it is a part of an exclusive
     */
    record Section(byte[] bytes, List<MidiMessage> commands, boolean segment) {

        /** Whether all of it comes back by the journal when it is lost. */
        boolean isCarried() {
            return !segment && commands.stream().allMatch(SentHistory::carries);
        }
    }

    private final List<Section> sections = new ArrayList<>();
    private final List<MidiMessage> inSection = new ArrayList<>();
    private final ByteArrayOutputStream list = new ByteArrayOutputStream();

    private CommandWriter() {}

    /** @return one or more command sections, header included, to be sent in this order in packets of their own */
    static List<Section> sections(List<? extends MidiMessage> messages) {
        CommandWriter writer = new CommandWriter();
        for (MidiMessage message : messages) {
            for (MidiMessage command : message.commands()) {
                writer.add(command);
            }
        }
        writer.close();
        return writer.sections;
    }

    private void add(MidiMessage command) {
        Bytes bytes = command.encode();
        if (command instanceof Exclusive && bytes.length() > MOST_BYTES - 1) {
            addInSegments(bytes);
        } else {
            addWhole(bytes.toArray());
            inSection.add(command);
        }
    }

    private void addWhole(byte[] command) {
        int deltaLength = list.size() == 0 ? 0 : 1;
        if (list.size() + deltaLength + command.length > MOST_BYTES) {
            close();
        }
        if (list.size() > 0) {
            // Without the Z flag the first command has no delta time; each later one has: 0, the same moment.
            list.write(0);
        }
        list.writeBytes(command);
    }

    /** First segment F0 … F0, middle ones F7 … F0, the last F7 … F7. */
    private void addInSegments(Bytes exclusive) {
        close();
        int end = exclusive.length() - 1;
        int room = MOST_BYTES - 2;
        for (int from = 1; from < end; from += room) {
            int to = Math.min(from + room, end);
            list.write(from == 1 ? 0xF0 : 0xF7);
            list.writeBytes(exclusive.slice(from, to).toArray());
            list.write(to == end ? 0xF7 : 0xF0);
            close(true);
        }
    }

    private void close() {
        close(false);
    }

    private void close(boolean segment) {
        if (list.size() == 0) {
            return;
        }
        byte[] commands = list.toByteArray();
        list.reset();
        ByteArrayOutputStream section = new ByteArrayOutputStream();
        if (commands.length <= SHORT_LENGTH) {
            section.write(commands.length);
        } else {
            section.write(LONG_HEADER | commands.length >> 8);
            section.write(commands.length & 0xFF);
        }
        section.writeBytes(commands);
        sections.add(new Section(section.toByteArray(), List.copyOf(inSection), segment));
        inSection.clear();
    }
}
