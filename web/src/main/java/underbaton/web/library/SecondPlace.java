package underbaton.web.library;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.rig.Refusal;
import underbaton.core.store.StoredForm;
import underbaton.web.kernel.Alarm;
import underbaton.web.kernel.Settings;
import underbaton.web.kernel.SettingsMapper;

/**
 * Another folder, on a stick or another computer, to which all backups are copied. It has a mark of ours: where a stick was pulled out its
 * folder may still be there, and then nothing is written into it. A loop of its own does it, so that a place that does not answer keeps
 * nobody waiting.
 */
@Component
public class SecondPlace implements Alarm {

    private static final String KEPT = "second place";
    private static final String OURS = "under-baton-backups";
    private static final long EVERY_NANOS = TimeUnit.SECONDS.toNanos(2);
    private static final long SILENT_NANOS = TimeUnit.SECONDS.toNanos(60);
    private static final int LONGEST = 500;

    /**
     * Where it is.
     *
     * @param folder empty for nowhere
     * @param mark the name of what is ours in it
     */
    public record Place(String folder, String mark) {

        Path own() {
            return Path.of(folder, OURS, mark);
        }
    }

    /**
     * How it is.
     *
     * @param copiedMs when it was last seen to have all, ms since 1970; 0 for never since the start
     * @param trouble why not; empty when it has all
     */
    public record State(Place place, long copiedMs, String trouble) {}

    private final SettingsMapper settings;
    private final Path backups;
    private final Clock clock;
    private final Loop loop;
    private volatile Optional<State> state;
    private volatile long turnedNanos;

    SecondPlace(SettingsMapper settings, Settings house, Clock clock, Loops loops) {
        this.settings = settings;
        this.clock = clock;
        backups = house.data().resolve("backups").toAbsolutePath();
        state = settings.get(KEPT)
                .map(k -> StoredForm.read(k, Place.class))
                .filter(p -> !p.folder.isEmpty())
                .map(p -> new State(p, 0, ""));
        turnedNanos = clock.nanos();
        loop = loops.start("second place", this::turn);
    }

    /** Empty where there is none. */
    public Optional<State> state() {
        return state;
    }

    /**
     * Backups are copied there from now on.
     *
     * @param folder empty for nowhere any more
     * @throws Refusal when there is no such folder, or nothing can be written there
     */
    public void beAt(String folder) {
        String typed = folder.strip();
        Place place = typed.isEmpty() ? new Place("", "") : marked(typed);
        settings.put(KEPT, StoredForm.write(place));
        state = typed.isEmpty() ? Optional.empty() : Optional.of(new State(place, 0, ""));
        loop.wake();
    }

    private Place marked(String typed) {
        Refusal.requireShort("folder", typed, LONGEST);
        try {
            Path folder = Path.of(typed);
            if (!folder.isAbsolute() || !Files.isDirectory(folder)) {
                throw new Refusal(
                        "folder",
                        "There is no folder “" + typed
                                + "” on this computer; type the whole path, such as /media/stick.");
            }
            if (folder.toAbsolutePath()
                    .normalize()
                    .startsWith(backups.getParent().normalize())) {
                throw new Refusal("folder", "That is the first place itself; choose a folder on another disk.");
            }
            Place place = new Place(
                    folder.toString(),
                    HexFormat.of().toHexDigits(ThreadLocalRandom.current().nextInt()));
            Files.createDirectories(place.own());
            return place;
        } catch (InvalidPathException none) {
            throw new Refusal("folder", "“" + typed + "” is no path; type one such as /media/stick.");
        } catch (IOException readOnly) {
            throw new Refusal("folder", "Nothing can be written to “" + typed + "”: " + why(readOnly) + ".");
        }
    }

    private static String why(IOException fault) {
        return fault instanceof FileSystemException f && f.getReason() != null ? f.getReason() : fault.toString();
    }

    @Override
    public List<String> alarms() {
        State now = state.orElse(null);
        if (now == null) {
            return List.of();
        }
        String wrong = clock.nanos() - turnedNanos > SILENT_NANOS ? "does not answer" : now.trouble;
        return wrong.isEmpty()
                ? List.of()
                : List.of("The second place for backups, " + now.place.folder + ", " + wrong
                        + ". They are kept on this computer meanwhile, and copied as soon as it is back.");
    }

    private void turn() {
        state.ifPresent(before -> {
            String trouble;
            try {
                trouble = Files.isDirectory(before.place.own()) ? "" : "is missing";
                if (trouble.isEmpty()) {
                    copyAll(before.place.own());
                }
            } catch (IOException fault) {
                trouble = "cannot be written (" + why(fault) + ")";
            }
            State after =
                    new State(before.place, trouble.isEmpty() ? clock.epochMicros() / 1000 : before.copiedMs, trouble);
            state = state.filter(s -> s.place.equals(before.place))
                    .map(s -> after)
                    .or(() -> state);
        });
        turnedNanos = clock.nanos();
        LockSupport.parkNanos(this, EVERY_NANOS);
    }

    private void copyAll(Path own) throws IOException {
        if (Files.isDirectory(backups)) {
            for (Path show : list(backups)) {
                copy(show, Files.createDirectories(own.resolve(show.getFileName())));
            }
        }
    }

    /** What the first place keeps no longer, the second keeps no longer either. */
    private static void copy(Path from, Path to) throws IOException {
        List<Path> there = list(to);
        List<String> names = list(from).stream()
                .map(f -> f.getFileName().toString())
                .filter(n -> !n.endsWith(".tmp"))
                .toList();
        // First what makes room.
        for (Path old : there) {
            if (!names.contains(old.getFileName().toString())) {
                Files.deleteIfExists(old);
            }
        }
        for (String name : names) {
            Path copy = to.resolve(name);
            if (!there.contains(copy)) {
                Path half = to.resolve(name + ".tmp");
                Files.copy(from.resolve(name), half, StandardCopyOption.REPLACE_EXISTING);
                Files.move(half, copy, StandardCopyOption.ATOMIC_MOVE);
            }
        }
    }

    private static List<Path> list(Path folder) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.sorted(Comparator.naturalOrder()).collect(Collectors.toList());
        }
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
