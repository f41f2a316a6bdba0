package underbaton.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A list of the machine's own that it steps through, such as the songs of a tablet that only knows next and previous. It
 * stands at its first place when the show begins.
 *
 * @param of its name, as the effects of the machine's phrases call it; empty where the machine has but one
 * @param places how many there are, 1–999
 * @param gapMs how long after a step the machine takes the next one, 0–10,000 ms
 */
public record StepList(String of, int places, int gapMs) {

    public static final int FIRST = 1;

    private static final int MOST = 8;
    private static final Pattern WRITTEN =
            Pattern.compile("(.*?)(?:^| )of (\\d{1,4})(?: places)?(?:,? every (\\d{1,6}) ?ms)?");

    public StepList {
        of = Refusal.requireShort("lists", of.strip(), 40);
        if (places < 1 || places > 999) {
            throw new Refusal("lists", "A list has 1 to 999 places.");
        }
        if (gapMs < 0 || gapMs > 10_000) {
            throw new Refusal("lists", "A machine takes a step each 0 to 10,000 ms, not " + gapMs + ".");
        }
    }

    /**
     * Reads what {@link #tell} writes: lists parted by semicolons, {@code song of 6 every 80 ms; page of 40}.
     *
     * @throws Refusal quoting the list that cannot be read
     */
    public static List<StepList> read(String typed) {
        List<StepList> lists = new ArrayList<>();
        for (String part : typed.split(";")) {
            if (part.isBlank()) {
                continue;
            }
            Matcher m = WRITTEN.matcher(part.strip());
            if (!m.matches()) {
                throw new Refusal(
                        "lists", "“" + part.strip() + "” is no list to step through; write: song of 6 every 80 ms.");
            }
            int gap = m.group(3) == null ? 0 : Integer.parseInt(m.group(3));
            lists.add(new StepList(m.group(1), Integer.parseInt(m.group(2)), gap));
        }
        requireApart(lists);
        return List.copyOf(lists);
    }

    static void requireApart(List<StepList> lists) {
        long names = lists.stream()
                .map(l -> l.of.toLowerCase(Locale.ROOT))
                .distinct()
                .count();
        if (lists.size() > MOST || names < lists.size()) {
            throw new Refusal(
                    "lists", "A machine has at most " + MOST + " lists to step through, each with its own name.");
        }
    }

    /** As it is typed: lists parted by semicolons. */
    public static String tell(List<StepList> lists) {
        return lists.stream().map(StepList::toString).collect(Collectors.joining("; "));
    }

    @Override
    public String toString() {
        return (of + " of " + places).strip() + (gapMs == 0 ? "" : " every " + gapMs + " ms");
    }
}
