package underbaton.web.kernel;

import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import org.springframework.stereotype.Component;
import org.springframework.web.multipart.MultipartFile;
import underbaton.core.rig.Refusal;

/**
 * Reads the files that people open: one at a time, and behind everything that a running show needs. Whoever opens one waits
 * for it, but no longer than half a minute.
 */
@Component
public class Reading {

    private static final int MOST_WAITING = 8;
    private static final int LONGEST_SECONDS = 30;

    private final ThreadPoolExecutor one = new ThreadPoolExecutor(
            1, 1, LONGEST_SECONDS, TimeUnit.SECONDS, new ArrayBlockingQueue<>(MOST_WAITING), Reading::behindAll);

    Reading() {
        one.allowCoreThreadTimeOut(true);
    }

    private static Thread behindAll(Runnable reading) {
        Thread thread = new Thread(reading, "reading");
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    }

    /**
     * @param largest in bytes; of a larger file not one byte is read into memory
     * @throws Refusal when it is larger, or what {@code read} refuses
     */
    public <T> T of(MultipartFile file, int largest, Function<byte[], T> read) {
        if (file.getSize() > largest) {
            throw new Refusal(
                    "file",
                    "The file has " + file.getSize() / 1000 + " kB, and none of its kind needs more than "
                            + largest / 1000 + "; is it another one?");
        }
        try {
            return after(one.submit(() -> read.apply(file.getBytes())));
        } catch (RejectedExecutionException many) {
            throw new Refusal("file", "Several files are being read already; try again in a moment.");
        }
    }

    private static <T> T after(Future<T> reading) {
        try {
            return reading.get(LONGEST_SECONDS, TimeUnit.SECONDS);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException known) {
                throw known;
            }
            throw new IllegalStateException(e.getCause());
        } catch (TimeoutException e) {
            reading.cancel(true);
            throw new Refusal("file", "The file could not be read within half a minute; is it the right one?");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
