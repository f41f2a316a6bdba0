package underbaton.core.plan;

import java.util.List;

/** What an edit has changed in a plan. */
public final class Changes {

    private Changes() {}

    /**
     * How much of the beginning is the same in both.
     *
     * @return the place, in the plan before, of the first cue that is another one or is played otherwise; its number of cues when
     *     nothing but the end has changed; 0 when the rig has
     */
    public static int firstPlace(Plan before, Plan after) {
        if (before.devices() != after.devices() && !before.devices().equals(after.devices())) {
            return 0;
        }
        List<PlannedItem> then = before.items();
        List<PlannedItem> now = after.items();
        for (int i = 0; i < then.size(); i++) {
            int first = before.firstOf(then.get(i).item().id());
            if (i >= now.size() || !sameMusic(then.get(i), now.get(i))) {
                return first;
            }
            int same = sameCues(then.get(i).cues(), now.get(i).cues());
            boolean all = same == then.get(i).cues().size()
                    && same == now.get(i).cues().size();
            if (!all) {
                return first + same;
            }
        }
        return before.cues().size();
    }

    private static boolean sameMusic(PlannedItem one, PlannedItem other) {
        return one == other
                || one.item().id() == other.item().id()
                        && one.armed() == other.armed()
                        && one.item().score().equals(other.item().score())
                        && one.vamps().equals(other.vamps());
    }

    /** The item that a cue carries has changed with every edit of it; what is played is the rest. */
    private static int sameCues(List<PlannedCue> one, List<PlannedCue> other) {
        int same = 0;
        while (same < one.size() && same < other.size() && isSame(one.get(same), other.get(same))) {
            same++;
        }
        return same;
    }

    private static boolean isSame(PlannedCue one, PlannedCue other) {
        return one == other
                || one.cueId() == other.cueId()
                        && one.copy().equals(other.copy())
                        && one.armed() == other.armed()
                        && one.number().equals(other.number())
                        && one.start().equals(other.start())
                        && one.atNanos().equals(other.atNanos())
                        && one.calls().equals(other.calls());
    }
}
