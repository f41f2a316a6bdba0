package underbaton.web.record;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import underbaton.core.rig.Refusal;
import underbaton.core.store.StoredForm;
import underbaton.core.traffic.Entry;

/**
 * What of the log is not in the database yet: a file that lines of JSON are appended to, and read from in their order. It
 * outlives the application; a line that was cut off by a crash is passed over. Thread-safe.
 */
final class Spool implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Spool.class);
    private static final int ROOM_BYTES = 1 << 20;
    private static final int TRIAL_BYTES = 1 << 16;

    private final FileChannel file;
    private final long mostBytes;
    private long size;
    private long read;
    /** Where the portion that was given out ends. */
    private long given;

    private long waiting;

    /** @throws IOException when the file cannot be had */
    Spool(Path path, long mostBytes) throws IOException {
        Files.createDirectories(path.getParent());
        this.mostBytes = mostBytes;
        file = FileChannel.open(path, StandardOpenOption.CREATE, StandardOpenOption.READ, StandardOpenOption.WRITE);
        size = file.size();
        waiting = lines();
        // A line that a crash cut off must not swallow the next one.
        if (size > 0) {
            append("\n".getBytes(StandardCharsets.UTF_8));
        }
    }

    /** How much of its room is used, 0–1 and above. */
    synchronized double full() {
        return (double) size / mostBytes;
    }

    private long lines() throws IOException {
        long lines = 0;
        ByteBuffer room = ByteBuffer.allocate(ROOM_BYTES);
        for (long at = 0; at < size; at += room.position()) {
            room.clear();
            if (file.read(room, at) <= 0) {
                break;
            }
            for (int i = 0; i < room.position(); i++) {
                lines += room.get(i) == '\n' ? 1 : 0;
            }
        }
        return lines;
    }

    /** The number of the last entry that can be read; 0 for none. Numbers go up from line to line. */
    synchronized long lastNumber() throws IOException {
        ByteBuffer room = ByteBuffer.allocate((int) Math.min(ROOM_BYTES, size));
        file.read(room, size - room.capacity());
        List<Entry> last = new ArrayList<>();
        String text = new String(room.array(), 0, room.position(), StandardCharsets.UTF_8);
        // The first line may be half a one.
        String whole = room.capacity() < size ? text.substring(text.indexOf('\n') + 1) : text;
        whole.lines().filter(l -> !l.isBlank()).forEach(l -> read(l, last));
        return last.stream().mapToLong(Entry::number).max().orElse(0);
    }

    /** How many entries wait. */
    synchronized long waiting() {
        return waiting;
    }

    /** @throws IOException when the disk does not take them; then none of them is there */
    synchronized void append(List<Entry> entries) throws IOException {
        StringBuilder lines = new StringBuilder();
        entries.forEach(e -> lines.append(StoredForm.write(e)).append('\n'));
        append(lines.toString().getBytes(StandardCharsets.UTF_8));
        waiting += entries.size();
    }

    /** Whether the disk takes anything again; nothing is left behind. @throws IOException when it does not */
    synchronized void tryDisk() throws IOException {
        long before = size;
        append(new byte[TRIAL_BYTES]);
        size = before;
        file.truncate(size);
    }

    private void append(byte[] bytes) throws IOException {
        ByteBuffer out = ByteBuffer.wrap(bytes);
        long at = size;
        try {
            while (out.hasRemaining()) {
                at += file.write(out, at);
            }
            size = at;
        } catch (IOException full) {
            file.truncate(size);
            throw full;
        }
    }

    /** The oldest entries, a portion of them; the same ones again until {@link #taken} is called. */
    synchronized List<Entry> next(int most) throws IOException {
        List<Entry> entries = new ArrayList<>();
        given = read;
        while (entries.isEmpty() && given < size) {
            ByteBuffer room = ByteBuffer.allocate((int) Math.min(ROOM_BYTES, size - given));
            int got = file.read(room, given);
            if (got <= 0) {
                break;
            }
            given += collect(
                    new String(room.array(), 0, got, StandardCharsets.ISO_8859_1), most, entries, given + got == size);
        }
        return entries;
    }

    /** @return how many bytes of the portion were read: up to the last whole line */
    private static int collect(String portion, int most, List<Entry> entries, boolean atEnd) {
        int from = 0;
        while (entries.size() < most) {
            int end = portion.indexOf('\n', from);
            if (end < 0) {
                // Longer than the room, or the end of the file without its line end: nothing can be made of it.
                return from == 0 || atEnd ? portion.length() : from;
            }
            byte[] line = portion.substring(from, end).getBytes(StandardCharsets.ISO_8859_1);
            if (line.length > 0) {
                read(new String(line, StandardCharsets.UTF_8), entries);
            }
            from = end + 1;
        }
        return from;
    }

    private static void read(String line, List<Entry> entries) {
        try {
            entries.add(StoredForm.read(line, Entry.class));
        } catch (Refusal cutOff) {
            // What a crash left of a line says nothing.
            LOG.warn("A line of the log that waits cannot be read and is passed over: {}", cutOff.getMessage());
        }
    }

    /** What {@link #next} gave is in the database. */
    synchronized void taken(int entries) throws IOException {
        read = given;
        waiting = Math.max(0, waiting - entries);
        if (read >= size && size > 0) {
            file.truncate(0);
            size = 0;
            read = 0;
            given = 0;
            waiting = 0;
        }
    }

    @Override
    public synchronized void close() throws IOException {
        file.close();
    }
}
