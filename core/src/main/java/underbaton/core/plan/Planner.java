package underbaton.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.rig.Control;

/** The dry run: a pure function from a show to what it will send. */
public final class Planner {

    private Planner() {}

    public static Plan plan(Show show) {
        return plan(show, Plan.EMPTY);
    }

    /**
     * The same, with the items taken over that are still what they were and begin with the controls where they were: of an
     * edit of one cue, that is all but its item, unless the levels at the item's end have changed.
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
        Map<Control, Double> controls = Map.of();
        for (Item item : show.items()) {
            PlannedItem planned = Optional.ofNullable(known.get(item.id()))
                    .filter(sameAs(item, controls)::matches)
                    .orElse(null);
            if (planned == null) {
                planned = planner.planned(item, controls);
            }
            items.add(planned);
            controls = planned.after();
        }
        return new Plan(show.devices(), items);
    }

    private interface Check {
        boolean matches(PlannedItem known);
    }

    private static Check sameAs(Item item, Map<Control, Double> controls) {
        return known -> (known.item() == item || known.item().equals(item))
                && known.before().equals(controls);
    }
}
