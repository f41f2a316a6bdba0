package underbaton.core.perform;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Bytes;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;

/** What left is written in its order, by another thread than the one that sent it, and nothing is lost at the end. */
class ScribeTest {

    private static final int MANY = 500;

    private final Traffic traffic = new Traffic(2 * MANY);
    private final List<Thread> threads = new ArrayList<>();
    private final Scribe scribe = new Scribe(traffic, new Loops(work -> {
        Thread thread = new Thread(work);
        threads.add(thread);
        return thread;
    }));

    private static Entry entry(int number) {
        return new Entry(0, 0, Entry.Direction.OUT, 1, 1, "Lights", Bytes.NONE, "note " + number, "cue 1", 0, "");
    }

    private List<String> meanings() {
        return traffic.after(0, 2 * MANY).stream().map(Entry::meaning).toList();
    }

    @Test
    void allIsWrittenInItsOrderAlsoWhatStillWaitsAtTheEnd() throws InterruptedException {
        List<Thread> wording = new ArrayList<>();
        for (int i = 0; i < MANY; i++) {
            int number = i;
            scribe.later(() -> {
                wording.add(Thread.currentThread());
                return entry(number);
            });
        }
        scribe.close();
        assertThat(meanings())
                .containsExactlyElementsOf(
                        IntStream.range(0, MANY).mapToObj(i -> "note " + i).toList());
        // Only what still waited when it was closed may be worded by whoever closed it.
        assertThat(wording).isSubsetOf(threads.get(0), Thread.currentThread());
    }

    @Test
    void aScribeThatRestsIsWokenByTheNextEntry() throws InterruptedException {
        for (int i = 0; i < 3; i++) {
            CountDownLatch written = new CountDownLatch(1);
            traffic.watch(written::countDown);
            scribe.later(() -> entry(0));
            assertThat(written.await(30, TimeUnit.SECONDS)).isTrue();
        }
        assertThat(meanings()).hasSize(3);
        scribe.close();
    }
}
