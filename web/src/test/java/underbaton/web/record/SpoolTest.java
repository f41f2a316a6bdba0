package underbaton.web.record;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import underbaton.core.midi.Bytes;
import underbaton.core.traffic.Entry;

/** What waits for the database is on disk whole and in order, also for the next run, and however the last one ended. */
class SpoolTest {

    private static final int MANY = 20_000;

    @TempDir
    private Path folder;

    private static Entry entry(long number) {
        String words = number % 3 == 0 ? "Über den Fluß;\nzwei \u2028 “Zeilen” 🛶" : "";
        Bytes bytes = number % 2 == 0 ? Bytes.NONE : Bytes.of(0x90, 60, 127);
        return number % 5 == 0
                ? Entry.order(number, 3, "GO")
                : new Entry(number, 7, Entry.Direction.OUT, 3, 1, "Lights", bytes, words, words, 12, words);
    }

    private static Entry numbered(long number) {
        Entry e = entry(number);
        return new Entry(
                number,
                e.epochMicros(),
                e.direction(),
                e.showId(),
                e.deviceId(),
                e.device(),
                e.bytes(),
                e.meaning(),
                e.cause(),
                e.lateMicros(),
                e.trouble());
    }

    private Spool spool() throws IOException {
        return new Spool(folder.resolve("log").resolve("waiting"), 1L << 30);
    }

    private static List<Entry> drain(Spool spool) throws IOException {
        List<Entry> all = new ArrayList<>();
        for (List<Entry> next = spool.next(500); !next.isEmpty(); next = spool.next(500)) {
            assertThat(spool.next(500)).isEqualTo(next);
            all.addAll(next);
            spool.taken(next.size());
        }
        return all;
    }

    @Test
    void tryingTheDiskLeavesNothingBehind() throws IOException {
        try (Spool spool = spool()) {
            spool.append(List.of(numbered(1)));
            double before = spool.full();
            spool.tryDisk();
            spool.append(List.of(numbered(1)));
            assertThat(spool.full()).isEqualTo(2 * before);
            assertThat(drain(spool)).containsExactly(numbered(1), numbered(1));
        }
    }

    @Test
    void allComesBackInItsOrderAndTheFileIsEmptyThen() throws IOException {
        List<Entry> sent = new ArrayList<>();
        try (Spool spool = spool()) {
            for (int i = 1; i <= MANY; i += 100) {
                List<Entry> some = new ArrayList<>();
                for (int j = i; j < i + 100; j++) {
                    some.add(numbered(j));
                }
                spool.append(some);
                sent.addAll(some);
            }
            assertThat(drain(spool)).isEqualTo(sent);
            assertThat(spool.waiting()).isZero();
            assertThat(spool.full()).isZero();
            spool.append(List.of(numbered(1)));
            assertThat(drain(spool)).containsExactly(numbered(1));
        }
    }

    /** Where the system lets us mount a small disk of our own; elsewhere this is passed over. */
    @Test
    void aFullDiskRefusesWholePortionsAndTakesThemWhenThereIsRoomAgain() throws Exception {
        Path disk = Files.createDirectories(folder.resolve("disk"));
        assumeTrue(run("mount", "-t", "tmpfs", "-o", "size=512k", "tmpfs", disk.toString()) == 0, "no disk of our own");
        try (Spool spool = new Spool(disk.resolve("waiting"), 1L << 30)) {
            Path other = Files.write(disk.resolve("other"), new byte[300_000]);
            List<Entry> sent = new ArrayList<>();
            int refused = 0;
            for (int i = 1; refused < 3; i += 100) {
                List<Entry> some = IntStream.range(i, i + 100)
                        .mapToObj(SpoolTest::numbered)
                        .toList();
                try {
                    spool.append(some);
                    sent.addAll(some);
                } catch (IOException full) {
                    refused++;
                }
            }
            assertThatThrownBy(spool::tryDisk).isInstanceOf(IOException.class);
            assertThat(sent).isNotEmpty();
            Files.delete(other);
            spool.tryDisk();
            List<Entry> later = List.of(numbered(77), numbered(78));
            spool.append(later);
            sent.addAll(later);
            assertThat(drain(spool)).isEqualTo(sent);
        } finally {
            run("umount", disk.toString());
        }
    }

    private static int run(String... command) throws Exception {
        return new ProcessBuilder(command).redirectErrorStream(true).start().waitFor();
    }

    @Test
    void theNextRunFindsWhatWasLeftAndALineThatWasCutOffHarmsNoOther() throws IOException {
        try (Spool spool = spool()) {
            spool.append(List.of(numbered(1), numbered(2), numbered(3)));
            assertThat(spool.next(1)).containsExactly(numbered(1));
        }
        Path file = folder.resolve("log").resolve("waiting");
        Files.writeString(file, "{\"number\":4,\"epochMi", StandardOpenOption.APPEND);
        try (Spool spool = spool()) {
            spool.append(List.of(numbered(5)));
            assertThat(drain(spool)).containsExactly(numbered(1), numbered(2), numbered(3), numbered(5));
        }
    }

    /** The start does not wait for what an earlier run has left: it needs its last number alone, and how many there are. */
    @Test
    void theLastNumberIsKnownWithoutReadingAllThatWaits() throws IOException {
        try (Spool spool = spool()) {
            assertThat(spool.lastNumber()).isZero();
            spool.append(
                    IntStream.rangeClosed(1, MANY).mapToObj(SpoolTest::numbered).toList());
        }
        Path file = folder.resolve("log").resolve("waiting");
        Files.writeString(file, "{\"number\": 99999, \"epochMi", StandardOpenOption.APPEND);
        try (Spool spool = spool()) {
            assertThat(spool.lastNumber()).isEqualTo(MANY);
            assertThat(spool.waiting()).isEqualTo(MANY);
            assertThat(drain(spool)).hasSize(MANY);
            assertThat(spool.waiting()).isZero();
        }
    }
}
