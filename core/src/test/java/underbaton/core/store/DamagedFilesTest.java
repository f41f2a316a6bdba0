package underbaton.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.RandomShows;
import underbaton.core.cue.Show;
import underbaton.core.engine.DryRun;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Refusal;

/** Files of shows with something wrong in them: each is refused in words, or it is a show that can be planned, played and kept. */
class DamagedFilesTest {

    private static final int FILES = Integer.getInteger("baton.damaged", 250);
    private static final Pattern NUMBER = Pattern.compile("(?<=: )-?\\d+(\\.\\d+)?");
    private static final Pattern TEXT = Pattern.compile("(?<=: )\"[^\"]*\"");
    private static final Pattern ENTRY = Pattern.compile("\"[a-zA-Z]+\" : [^\\n,{\\[]+,?");
    private static final List<String> NUMBERS = List.of(
            "-1",
            "0",
            "127",
            "128",
            "16384",
            "2147483647",
            "2147483648",
            "1e99",
            "0.5",
            "\"7\"",
            "null",
            "-0",
            "\"Infinity\"");
    private static final List<String> TEXTS = List.of(
            "\"\"",
            "\"x\"",
            "\"−∞\"",
            "null",
            "5",
            "[]",
            "{}",
            "\"\\u0000\"",
            "\"" + "y".repeat(5000) + "\"",
            "true",
            "\"go\"");

    @Test
    void eachIsRefusedInWordsOrCanBePlayed() {
        Map<String, Integer> became = new TreeMap<>();
        for (int seed = 0; seed < FILES; seed++) {
            Random random = new Random(seed);
            String file = new String(ShowFile.write(RandomShows.show(7, seed % 40)), StandardCharsets.UTF_8);
            String damaged = file;
            for (int i = 1 + random.nextInt(3); i > 0; i--) {
                damaged = damage(damaged, random);
            }
            String end;
            try {
                Show show = ShowFile.read(7, damaged.getBytes(StandardCharsets.UTF_8));
                assertThat(DryRun.of(Planner.plan(show)).messages().count()).isNotNegative();
                byte[] kept = ShowFile.write(show);
                assertThat(ShowFile.write(ShowFile.read(7, kept)))
                        .as("seed %d", seed)
                        .isEqualTo(kept);
                end = "played";
            } catch (Refusal refused) {
                assertThat(refused.getMessage())
                        .as("seed %d", seed)
                        .hasSizeBetween(10, 400)
                        .doesNotContain("underbaton.");
                end = "refused";
            } catch (RuntimeException fault) {
                throw new AssertionError("seed " + seed, fault);
            }
            became.merge(end, 1, Integer::sum);
        }
        System.out.println(FILES + " damaged files: " + became);
        assertThat(became.get("refused")).isGreaterThan(FILES / 4);
        assertThat(became.get("played")).isGreaterThan(FILES / 20);
    }

    private static String damage(String file, Random random) {
        return switch (random.nextInt(6)) {
            case 0 -> exchanged(file, NUMBER, NUMBERS, random);
            case 1 -> exchanged(file, NUMBER, NUMBERS, random);
            case 2 -> exchanged(file, TEXT, TEXTS, random);
            case 3 -> exchanged(file, ENTRY, List.of(""), random);
            case 4 -> {
                int at = random.nextInt(file.length());
                yield file.substring(0, at) + (char) (32 + random.nextInt(90)) + file.substring(at + 1);
            }
            default -> {
                // One part in the place of another.
                List<String> all = new ArrayList<>(
                        TEXT.matcher(file).results().map(MatchResult::group).toList());
                yield exchanged(file, TEXT, all.isEmpty() ? TEXTS : all, random);
            }
        };
    }

    private static String exchanged(String file, Pattern what, List<String> by, Random random) {
        List<MatchResult> there = what.matcher(file).results().toList();
        if (there.isEmpty()) {
            return file;
        }
        MatchResult one = there.get(random.nextInt(there.size()));
        return file.substring(0, one.start()) + by.get(random.nextInt(by.size())) + file.substring(one.end());
    }
}
