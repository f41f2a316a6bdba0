package underbaton.web.stage;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import underbaton.core.engine.RunSnapshot;
import underbaton.core.plan.OutTonight;
import underbaton.core.rig.Refusal;
import underbaton.core.store.StoredForm;
import underbaton.web.kernel.Alarm;
import underbaton.web.kernel.Settings;

/**
 * The file that says how the show on the desk stands. It is there while a show is on the desk; one that is found at the start
 * is left from a crash. A disk that takes nothing more takes it all the same, in room that was set aside for it; what cannot be written at
 * all is an alarm, and the show goes on. Any thread may call it.
 */
@Component
class DeskFile implements Alarm {

    private static final Logger LOG = LoggerFactory.getLogger(DeskFile.class);
    private static final long LARGEST = 8_000_000;
    /** Bytes that are set aside: many times what a large show needs. */
    private static final int RESERVE = 1_000_000;

    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("HH:mm:ss").withZone(ZoneId.systemDefault());

    private final Path file;
    private final Path reserve;
    /** When it was written last, µs since 1970; 0 for never. */
    private long writtenMicros;

    private volatile String alarm = "";

    /**
     * @param showId of the show on the desk
     * @param out what was out tonight
     * @param run the performance that went on, by the moment it began, µs since 1970; 0 for none
     */
    record Standing(int showId, RunSnapshot kept, OutTonight out, long run) {}

    @Autowired
    DeskFile(Settings settings) {
        this(settings.data());
    }

    DeskFile(Path folder) {
        file = folder.resolve("desk.json");
        reserve = folder.resolve("desk.reserve");
    }

    synchronized void write(Standing standing) {
        byte[] content = StoredForm.write(standing).getBytes(StandardCharsets.UTF_8);
        try {
            Files.createDirectories(file.getParent());
            Path fresh = file.resolveSibling("desk.json.new");
            put(fresh, content);
            Files.move(fresh, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            setAside();
            written(standing, "");
        } catch (IOException full) {
            writeWithoutRoom(standing, content, full);
        }
    }

    /** On the disk, and not only on its way there, before it gets the name by which it is found. */
    private static void put(Path where, byte[] content) throws IOException {
        try (FileChannel out = FileChannel.open(
                where, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.TRUNCATE_EXISTING)) {
            out.write(ByteBuffer.wrap(content));
            out.force(true);
        }
    }

    private void setAside() throws IOException {
        if (!Files.exists(reserve) || Files.size(reserve) < RESERVE) {
            byte[] blank = new byte[RESERVE];
            Arrays.fill(blank, (byte) ' ');
            put(reserve, blank);
        }
    }

    /** Over what stands there, with blanks behind it: no new room is needed. */
    private void writeWithoutRoom(Standing standing, byte[] content, IOException full) {
        try (FileChannel out = FileChannel.open(reserve, StandardOpenOption.WRITE)) {
            if (content.length > out.size()) {
                throw new IOException("what was set aside is too small");
            }
            byte[] padded = Arrays.copyOf(content, (int) out.size());
            Arrays.fill(padded, content.length, padded.length, (byte) ' ');
            out.write(ByteBuffer.wrap(padded), 0);
            out.force(false);
            written(
                    standing,
                    "The disk takes nothing more (" + full.getMessage()
                            + "). How the show stands is kept in room that was set aside; make room before the next start.");
        } catch (IOException nowhere) {
            String since = writtenMicros == 0 ? "" : " It would come back as it was at " + time(writtenMicros) + ".";
            tell("How the show stands cannot be written (" + full.getMessage()
                    + "), so after a crash it cannot go on from there." + since + " Make room on the disk.");
        }
    }

    private static String time(long micros) {
        return TIME.format(Instant.ofEpochMilli(micros / 1000));
    }

    private void written(Standing standing, String words) {
        writtenMicros = standing.kept.epochMicros();
        tell(words);
    }

    private void tell(String words) {
        if (!words.isEmpty() && alarm.isEmpty()) {
            LOG.warn(words);
        }
        alarm = words;
    }

    @Override
    public List<String> alarms() {
        return alarm.isEmpty() ? List.of() : List.of(alarm);
    }

    /** What a crash has left, if it has and can be read: the newest. */
    synchronized Optional<Standing> read() {
        return Stream.of(file, reserve)
                .flatMap(f -> read(f).stream())
                .max(Comparator.comparingLong(s -> s.kept.epochMicros()));
    }

    private static Optional<Standing> read(Path from) {
        try {
            if (!Files.exists(from) || Files.size(from) > LARGEST) {
                return Optional.empty();
            }
            String text = Files.readString(from);
            return text.isBlank() ? Optional.empty() : Optional.of(StoredForm.read(text, Standing.class));
        } catch (IOException | Refusal unreadable) {
            LOG.warn("How the show stood before the crash cannot be read from {}: {}", from, unreadable.toString());
            return Optional.empty();
        }
    }

    synchronized void forget() {
        for (Path each : List.of(file, reserve)) {
            try {
                Files.deleteIfExists(each);
            } catch (IOException stays) {
                LOG.warn("{} could not be deleted ({}).", each, stays.toString());
            }
        }
        alarm = "";
    }
}
