package underbaton.core.exchange;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import underbaton.core.exchange.MidiFile.Channel;
import underbaton.core.exchange.MidiFile.Event;
import underbaton.core.exchange.MidiFile.Frames;
import underbaton.core.exchange.MidiFile.Meta;
import underbaton.core.exchange.MidiFile.Quarters;
import underbaton.core.exchange.MidiFile.SystemExclusive;
import underbaton.core.exchange.MidiFile.Track;
import underbaton.core.midi.MidiMessage;

/** Writes a Standard MIDI File, each event with its own status, so that equal files are equal bytes. */
final class MidiFileWriter {

    private static final long FARTHEST = 0x0FFF_FFFF;

    private MidiFileWriter() {}

    static byte[] write(MidiFile file) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        int division = file.division() instanceof Quarters q
                ? q.ticks()
                : (256 - ((Frames) file.division()).frames()) << 8 | ((Frames) file.division()).ticks();
        ByteBuffer header = ByteBuffer.allocate(6)
                .putShort((short) file.format())
                .putShort((short) file.tracks().size())
                .putShort((short) division);
        chunk(out, "MThd", header.array());
        file.tracks().forEach(t -> chunk(out, "MTrk", track(t)));
        return out.toByteArray();
    }

    private static void chunk(ByteArrayOutputStream out, String name, byte[] content) {
        out.writeBytes(name.getBytes(StandardCharsets.US_ASCII));
        out.writeBytes(ByteBuffer.allocate(4).putInt(content.length).array());
        out.writeBytes(content);
    }

    private static byte[] track(Track track) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        long tick = 0;
        for (Event event : track.events()) {
            if (event.content() instanceof Channel channel) {
                // A bank and its program are several messages at one tick.
                for (MidiMessage command : channel.message().commands()) {
                    delta(out, event.tick() - tick);
                    out.writeBytes(command.encode().toArray());
                    tick = event.tick();
                }
                continue;
            }
            delta(out, event.tick() - tick);
            tick = event.tick();
            if (event.content() instanceof SystemExclusive exclusive) {
                out.write(exclusive.status());
                variable(out, exclusive.data().length());
                out.writeBytes(exclusive.data().toArray());
            } else if (event.content() instanceof Meta meta) {
                out.write(0xFF);
                out.write(meta.type());
                variable(out, meta.data().length());
                out.writeBytes(meta.data().toArray());
            }
        }
        delta(out, track.end() - tick);
        out.writeBytes(new byte[] {(byte) 0xFF, MidiFile.END_OF_TRACK, 0});
        return out.toByteArray();
    }

    /** What is farther away than four such bytes say is reached by way of empty texts. */
    private static void delta(ByteArrayOutputStream out, long ticks) {
        long left = ticks;
        while (left > FARTHEST) {
            variable(out, FARTHEST);
            out.writeBytes(new byte[] {(byte) 0xFF, MidiFile.TEXT, 0});
            left -= FARTHEST;
        }
        variable(out, left);
    }

    /** Seven bits a byte, the highest first, all but the last with their top bit set. @param value 0–0FFFFFFF */
    static void variable(ByteArrayOutputStream out, long value) {
        for (int shift = 21; shift > 0; shift -= 7) {
            if (value >> shift != 0) {
                out.write((int) (value >> shift & 0x7F | 0x80));
            }
        }
        out.write((int) (value & 0x7F));
    }
}
