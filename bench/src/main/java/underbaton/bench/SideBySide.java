package underbaton.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.ToDoubleFunction;
import underbaton.core.loop.Clock;

/** How late our messages leave beside those of the JDK's sequencer, by turns, idle and with every core busy. */
final class SideBySide {

    static final Clock CLOCK = new Clock() {
        @Override
        public long nanos() {
            return System.nanoTime();
        }

        @Override
        public long epochMicros() {
            return System.currentTimeMillis() * 1000;
        }
    };

    private static final int ROUNDS = 5;

    private SideBySide() {}

    /** Plays all, and says how late each message left, ns. */
    interface Play {
        long[] late() throws InterruptedException;
    }

    static void compare(Play ours, Play jdk) throws IOException, InterruptedException {
        int cores = Runtime.getRuntime().availableProcessors();
        System.out.printf("%-6s %-12s %8s %8s %8s %8s %8s%n", "cores", "who", "p50", "p99", "p99.9", "max", "stolen");
        List<double[]> idle = new ArrayList<>();
        List<double[]> busy = new ArrayList<>();
        for (int round = 0; round < ROUNDS; round++) {
            idle.add(both("idle", ours, jdk));
            List<Process> hogs = new ArrayList<>();
            try {
                for (int i = 0; i < cores; i++) {
                    hogs.add(new ProcessBuilder("sh", "-c", "while :; do :; done").start());
                }
                busy.add(both("busy", ours, jdk));
            } finally {
                hogs.forEach(Process::destroyForcibly);
            }
        }
        System.out.println(
                "The middle of " + ROUNDS + " rounds: p99 of ours, of the JDK's, and the one as a part of the other");
        middle("idle", idle);
        middle("busy", busy);
    }

    private static void middle(String cores, List<double[]> rounds) {
        System.out.printf(
                "%-6s %8.3f %8.3f %8.2f%n",
                cores, middle(rounds, r -> r[0]), middle(rounds, r -> r[1]), middle(rounds, r -> r[0] / r[1]));
    }

    private static double middle(List<double[]> rounds, ToDoubleFunction<double[]> figure) {
        return rounds.stream().mapToDouble(figure).sorted().toArray()[rounds.size() / 2];
    }

    private static double[] both(String cores, Play ours, Play jdk) throws InterruptedException, IOException {
        return new double[] {told(cores, "Under Baton", ours), told(cores, "JDK", jdk)};
    }

    /** @return p99 in ms */
    private static double told(String cores, String who, Play play) throws InterruptedException, IOException {
        long[] before = cpu();
        long[] late = play.late();
        long[] after = cpu();
        Arrays.sort(late);
        double p99 = late[late.length * 99 / 100] / 1e6;
        System.out.printf(
                "%-6s %-12s %8.3f %8.3f %8.3f %8.3f %6d %%%n",
                cores,
                who,
                late[late.length / 2] / 1e6,
                p99,
                late[(int) (late.length * 999L / 1000)] / 1e6,
                late[late.length - 1] / 1e6,
                100 * (after[0] - before[0]) / Math.max(1, after[1] - before[1]));
        return p99;
    }

    /** Time that the host of a virtual machine gave to others, and all time, as Linux counts them. */
    private static long[] cpu() throws IOException {
        String[] counts =
                Files.readAllLines(Path.of("/proc/stat")).get(0).trim().split("\\s+");
        long all = Arrays.stream(counts).skip(1).mapToLong(Long::parseLong).sum();
        return new long[] {Long.parseLong(counts[8]), all};
    }

    /** Nobody says when the JDK began: the message that was least late is taken to have been in time, for both alike. */
    static long[] sinceEarliest(long[] late) {
        long earliest = Arrays.stream(late).min().orElseThrow();
        return Arrays.stream(late).map(l -> l - earliest).toArray();
    }
}
