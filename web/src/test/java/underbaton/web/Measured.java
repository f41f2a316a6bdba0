package underbaton.web;

import java.util.List;
import java.util.Locale;

/** Prints what a bench measured: a row a thing, with its median, the ninth of ten, the 99th of a hundred and the worst. */
public final class Measured {

    private Measured() {}

    public static void head(String what) {
        System.out.printf("%s; ms%n%-32s %8s %8s %8s %8s%n", what, "", "p50", "p90", "p99", "max");
    }

    /** @param measured numbers, as a page or a loop gives them */
    public static void row(String what, Object measured) {
        double[] all = ((List<?>) measured)
                .stream().mapToDouble(n -> ((Number) n).doubleValue()).sorted().toArray();
        System.out.printf(
                Locale.ROOT,
                "%-32s %8.1f %8.1f %8.1f %8.1f%n",
                what,
                all[all.length / 2],
                all[all.length * 9 / 10],
                all[all.length * 99 / 100],
                all[all.length - 1]);
    }
}
