package underbaton.web.library;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import underbaton.core.cue.Show;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.rig.Refusal;
import underbaton.core.store.ShowFile;
import underbaton.web.kernel.Alarm;
import underbaton.web.kernel.Settings;

/**
 * Show files that are kept by themselves, in the data folder: whenever a show goes to the desk, and every ten minutes in
 * which it was changed. The last fifty of each show stay. They are written by a thread of their own; nobody waits for the
 * disk.
 */
@Component
public class Backups implements Alarm {

    private static final Logger LOG = LoggerFactory.getLogger(Backups.class);
    private static final int MOST = 50;
    private static final long EVERY_NANOS = TimeUnit.MINUTES.toNanos(10);
    private static final long PAUSE_NANOS = TimeUnit.SECONDS.toNanos(1);
    /** With the offset: when summer time ends, an hour comes twice. */
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("uuuu-MM-dd HH.mm.ss xx");

    private static final DateTimeFormatter LOCAL = DateTimeFormatter.ofPattern("uuuu-MM-dd HH.mm.ss");
    /** The first had no offset. */
    private static final Pattern NAME =
            Pattern.compile("(\\d{4}-\\d\\d-\\d\\d \\d\\d\\.\\d\\d\\.\\d\\d)( [+-]\\d{4})? r(\\d+)\\.json");

    private final Path folder;
    private final Clock clock;
    private final Loop loop;
    /** By the ids of their shows: what is to be written soon, and since when a show has changed. */
    private final Map<Integer, Show> wanted = new ConcurrentHashMap<>();

    private final Map<Integer, Changed> changed = new ConcurrentHashMap<>();
    private volatile String trouble = "";

    private record Changed(long sinceNanos, Show show) {}

    /**
     * One that is there.
     *
     * @param file its name in the show's folder
     * @param at when it was written
     * @param revision of the show
     * @param bytes its size
     */
    public record Backup(String file, OffsetDateTime at, int revision, long bytes) {}

    Backups(Settings settings, Shows shows, Clock clock, Loops loops) {
        folder = settings.data().resolve("backups");
        this.clock = clock;
        shows.watch((show, edit) -> changed.compute(
                show.id(), (id, before) -> new Changed(before == null ? clock.nanos() : before.sinceNanos, show)));
        loop = loops.start("backups", this::turn);
    }

    /** Writes a show as soon as the disk lets; returns at once. */
    public void keep(Show show) {
        wanted.put(show.id(), show);
        loop.wake();
    }

    @Override
    public List<String> alarms() {
        return trouble.isEmpty() ? List.of() : List.of(trouble + "; the show itself is not touched by it.");
    }

    private void turn() {
        LockSupport.parkNanos(this, PAUSE_NANOS);
        changed.forEach((id, one) -> {
            if (clock.nanos() - one.sinceNanos >= EVERY_NANOS) {
                wanted.put(id, one.show);
                changed.remove(id, one);
            }
        });
        writeWanted();
    }

    private void writeWanted() {
        for (Integer id : List.copyOf(wanted.keySet())) {
            Show show = wanted.remove(id);
            try {
                if (show != null) {
                    write(show);
                }
                trouble = "";
            } catch (IOException full) {
                if (trouble.isEmpty()) {
                    LOG.warn("The backup of {} cannot be written: {}", show.name(), full.toString());
                }
                trouble = "Backups cannot be written to " + folder + " (" + full.getMessage() + ")";
                wanted.putIfAbsent(id, show);
                return;
            }
        }
    }

    private void write(Show show) throws IOException {
        Optional<Backup> newest = of(show.id()).stream().findFirst();
        if (newest.isPresent() && newest.get().revision() == show.revision()) {
            return;
        }
        Path own = Files.createDirectories(folder.resolve(Integer.toString(show.id())));
        put(own, stamp() + " r" + show.revision() + ".json", ShowFile.write(show));
        List<Backup> kept = of(show.id());
        for (Backup old : kept.subList(Math.min(MOST, kept.size()), kept.size())) {
            Files.deleteIfExists(own.resolve(old.file()));
        }
    }

    private String stamp() {
        return STAMP.format(
                OffsetDateTime.ofInstant(Instant.ofEpochMilli(clock.epochMicros() / 1000), ZoneId.systemDefault()));
    }

    /** Whole or not at all: a file that is half written when the power goes is none. */
    private static void put(Path folder, String name, byte[] content) throws IOException {
        Path half = Files.createTempFile(folder, "half", ".tmp");
        try {
            Files.write(half, content);
            Files.move(half, folder.resolve(name), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(half);
        }
    }

    /** Keeps what the database has of a show that cannot be read, before it is replaced. */
    public void keepRaw(int showId, String raw) {
        try {
            Path own = Files.createDirectories(folder.resolve(Integer.toString(showId)));
            put(own, "unread " + stamp() + ".txt", raw.getBytes(StandardCharsets.UTF_8));
        } catch (IOException full) {
            throw new Refusal(
                    "file",
                    "What is there of it could not be put aside (" + full.getMessage() + "), so it stays as it is.");
        }
    }

    /** The newest first. */
    public List<Backup> of(int showId) {
        Path own = folder.resolve(Integer.toString(showId));
        if (!Files.isDirectory(own)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(own)) {
            return files.flatMap(Backups::backup)
                    .sorted(Comparator.comparing((Backup b) -> b.at().toInstant())
                            .thenComparing(Backup::revision)
                            .reversed())
                    .toList();
        } catch (IOException unreadable) {
            return List.of();
        }
    }

    private static Stream<Backup> backup(Path file) {
        Matcher m = NAME.matcher(file.getFileName().toString());
        try {
            return m.matches()
                    ? Stream.of(new Backup(
                            file.getFileName().toString(),
                            at(m.group(1), m.group(2)),
                            Integer.parseInt(m.group(3)),
                            Files.size(file)))
                    : Stream.empty();
        } catch (IOException | RuntimeException gone) {
            return Stream.empty();
        }
    }

    private static OffsetDateTime at(String local, String offset) {
        return offset == null
                ? LocalDateTime.parse(local, LOCAL)
                        .atZone(ZoneId.systemDefault())
                        .toOffsetDateTime()
                : OffsetDateTime.parse(local + offset, STAMP);
    }

    /** @throws Refusal when it is not there any more, or cannot be read */
    public byte[] content(int showId, String file) {
        if (!NAME.matcher(file).matches()) {
            throw gone();
        }
        try {
            return Files.readAllBytes(folder.resolve(Integer.toString(showId)).resolve(file));
        } catch (IOException unreadable) {
            throw gone();
        }
    }

    private static Refusal gone() {
        return new Refusal("file", "That backup is gone; open the list again.");
    }

    /** What has changed is kept also when the application ends before ten minutes are over. */
    @PreDestroy
    void close() {
        loop.close();
        changed.values().forEach(c -> wanted.putIfAbsent(c.show.id(), c.show));
        writeWanted();
    }
}
