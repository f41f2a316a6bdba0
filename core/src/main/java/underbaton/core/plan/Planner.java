package underbaton.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;

/** A pure function from a show to its plan. */
public final class Planner {

    private Planner() {}

    /** Never throws: what does not fit is a doubt that sends nothing. Some ms for each thousand calls. */
    public static Plan plan(Show show) {
        return plan(show, Plan.EMPTY);
    }

    /**
     * The same, with the items taken over that are still what they were.
     *
     * @param before an earlier plan, of this show or of any
     */
    public static Plan plan(Show show, Plan before) {
        boolean sameRig = before.devices() == show.devices() || before.devices().equals(show.devices());
        Map<Integer, PlannedItem> known = new HashMap<>();
        if (sameRig) {
            before.items().forEach(i -> known.put(i.item().id(), i));
        }
        ItemPlanner planner = new ItemPlanner(show.devices());
        List<PlannedItem> items = new ArrayList<>(show.items().size());
        for (Item item : show.items()) {
            PlannedItem there = known.get(item.id());
            boolean same =
                    there != null && (there.item() == item || there.item().equals(item));
            items.add(same ? there : planner.planned(item));
        }
        Map<Integer, PlannedKey> keys = new HashMap<>();
        show.hands().forEach(page -> page.keys().forEach(k -> keys.put(k.id(), planner.planned(k))));
        return new Plan(sameRig ? before.devices() : show.devices(), items, show.listeners(), keys);
    }
}
