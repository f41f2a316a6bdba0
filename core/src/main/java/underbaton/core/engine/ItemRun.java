package underbaton.core.engine;

import java.util.List;
import java.util.Map;
import underbaton.core.plan.Plan.MoveStart;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedItem;

/**
 * One item of the dry run.
 *
 * @param before what the items before it hand on
 * @param shown for each cue, by its place in the item: device id to what the device shows after it. Cues between which
 *     nothing changes share one map.
 * @param starts where the moves of its cues begin, 0–127; what nobody knows is not in it
 * @param lastsNanos from its beginning to that of the next item
 * @param after what it hands on
 */
record ItemRun(
        PlannedItem item,
        Carried before,
        List<Map<Integer, PlannedCall>> shown,
        Map<MoveStart, Double> starts,
        long lastsNanos,
        Carried after) {}
