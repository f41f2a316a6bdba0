package underbaton.web.kernel;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import underbaton.core.loop.Clock;

/**
 * The days on which the application was started, so that one start with a wrong date forgets nothing for good: what is thrown away by its
 * age waits until the clock agrees with the starts before.
 */
@Component
public class KnownDays {

    private static final Logger LOG = LoggerFactory.getLogger(KnownDays.class);
    private static final String NAME = "days of starts";
    private static final int KEPT = 8;
    /** So many days before this one must lie near it. */
    private static final int AGREEING = 3;

    private static final long NEAR_DAYS = 60;
    private static final long MICROS_OF_A_DAY = 24L * 3600 * 1_000_000;

    private final boolean agree;

    KnownDays(SettingsMapper settings, Clock clock) {
        long today = clock.epochMicros() / MICROS_OF_A_DAY;
        List<Long> before = settings.get(NAME).map(KnownDays::read).orElse(List.of());
        agree = agree(before, today);
        List<Long> now = Stream.concat(Stream.of(today), before.stream())
                .distinct()
                .limit(KEPT)
                .toList();
        if (!now.equals(before)) {
            settings.put(NAME, now.stream().map(String::valueOf).collect(Collectors.joining(" ")));
        }
        if (!agree && before.size() >= AGREEING) {
            LOG.warn(
                    "The clock says {}, far from the days of the starts before; nothing is thrown away for its age.",
                    LocalDate.ofEpochDay(today));
        }
    }

    private static List<Long> read(String value) {
        return Arrays.stream(value.split(" "))
                .filter(d -> d.matches("-?\\d{1,9}"))
                .map(Long::valueOf)
                .toList();
    }

    /** @param before days of starts since 1970, the newest first */
    static boolean agree(List<Long> before, long today) {
        List<Long> others =
                before.stream().filter(d -> d != today).limit(AGREEING).toList();
        return others.size() == AGREEING && others.stream().allMatch(d -> Math.abs(today - d) <= NEAR_DAYS);
    }

    /** Whether what is old by the clock is old. */
    public boolean agree() {
        return agree;
    }
}
