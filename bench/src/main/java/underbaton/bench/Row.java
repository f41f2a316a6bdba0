package underbaton.bench;

import java.util.Arrays;

/** One row of figures. */
final class Row {

    private Row() {}

    static void head(String title) {
        System.out.printf("%s%n", title);
        System.out.printf("%-44s %8s %8s %8s %8s%n", "", "first", "p50", "p99", "max");
    }

    static void print(String name, long[] nanos) {
        long first = nanos[0];
        long[] sorted = nanos.clone();
        Arrays.sort(sorted);
        System.out.printf(
                "%-44s %8.3f %8.3f %8.3f %8.3f%n",
                name,
                first / 1e6,
                sorted[sorted.length / 2] / 1e6,
                sorted[sorted.length * 99 / 100] / 1e6,
                sorted[sorted.length - 1] / 1e6);
    }
}
