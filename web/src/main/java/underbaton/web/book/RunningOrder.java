package underbaton.web.book;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import underbaton.core.cue.PlannedLength;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedItem;

/**
 * The running order for paper.
 *
 * @param planned how long it lasts by the plan, in words; empty without any plan
 */
public record RunningOrder(List<Row> rows, String planned) {

    /**
     * @param from when it begins by the plan, since the show began
     * @param cues the first and the last of its cues; empty for none
     * @param lasted how long it lasted in the newest performance; empty where it has not been played
     */
    public record Row(
            int place,
            String name,
            String kind,
            String cues,
            String from,
            String planned,
            String lasted,
            boolean out) {}

    /** @param lastedMicros by item */
    static RunningOrder of(Plan plan, Map<Integer, Long> lastedMicros) {
        List<Row> rows = new ArrayList<>();
        int from = 0;
        for (PlannedItem item : plan.items()) {
            int seconds = item.seconds();
            Long lasted = lastedMicros.get(item.item().id());
            rows.add(new Row(
                    rows.size() + 1,
                    item.item().name(),
                    item.item().kind().title().toLowerCase(Locale.ROOT),
                    cues(item),
                    clock(from),
                    PlannedLength.tell(seconds),
                    lasted == null ? "" : clock((int) Math.round(lasted / 1e6)),
                    !item.armed()));
            from += item.armed() ? seconds : 0;
        }
        return new RunningOrder(rows, from == 0 ? "" : clock(from));
    }

    private static String cues(PlannedItem item) {
        if (item.cues().isEmpty()) {
            return "";
        }
        String first = item.cues().get(0).number().toString();
        String last = item.cues().get(item.cues().size() - 1).number().toString();
        return first.equals(last) ? first : first + "–" + last;
    }

    private static String clock(int seconds) {
        return "%d:%02d:%02d".formatted(seconds / 3600, seconds / 60 % 60, seconds % 60);
    }
}
