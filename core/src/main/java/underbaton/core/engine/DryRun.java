package underbaton.core.engine;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.pcollections.IntTreePMap;
import org.pcollections.PMap;
import underbaton.core.engine.device.DeviceState;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.plan.Plan;
import underbaton.core.plan.Plan.MoveStart;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;

/**
 * The book played straight through: every message of the show, and what every device is doing at each cue. The engine folded
 * over the events of {@link StraightPlay}, item after item; each item begins at 0 by its clock. What is kept is what each
 * item hands on and what the devices show; messages are worked out again when they are asked for, an item at a time.
 * Immutable.
 */
public final class DryRun {

    private static final Comparator<PlannedMessage> BY_TIME = Comparator.comparingLong(PlannedMessage::atNanos);

    private final Plan plan;
    private final List<ItemRun> items;
    private final Map<Integer, ItemRun> byItem = new HashMap<>();

    private DryRun(Plan plan, List<ItemRun> items) {
        this.plan = plan;
        this.items = items;
        items.forEach(i -> byItem.put(i.item().item().id(), i));
    }

    /** From the beginning to the end, without a clock; as long as the plan, some ms for thousands of messages. */
    public static DryRun of(Plan plan) {
        return of(plan, new DryRun(Plan.EMPTY, List.of()));
    }

    /**
     * The same, with the items taken over that are still what they were and to which the same is handed on: of an edit of
     * one cue, that is all but its item, unless what the item leaves behind has changed.
     *
     * @param before an earlier one, of this show or of any
     */
    public static DryRun of(Plan plan, DryRun before) {
        boolean sameRig = before.plan.devices() == plan.devices();
        List<ItemRun> runs = new ArrayList<>(plan.items().size());
        Carried carried = Carried.first(plan);
        for (PlannedItem item : plan.items()) {
            ItemRun known = sameRig ? before.byItem.get(item.item().id()) : null;
            boolean same =
                    known != null && known.item() == item && known.before().equals(carried);
            ItemRun run = same ? known : new Recording(plan, item, carried).run();
            // The same in other words is taken for the same, so that the next comparison is short.
            boolean leavesTheSame = known != null && run != known && run.after().equals(known.after());
            carried = leavesTheSame ? known.after() : run.after();
            runs.add(run);
        }
        return new DryRun(plan, runs);
    }

    /** What was run. */
    public Plan plan() {
        return plan;
    }

    /** The plan with what its straight play has found out: where moves begin on machines that have been told nothing. */
    public Plan knowing() {
        Map<MoveStart, Double> starts = new HashMap<>();
        items.forEach(i -> starts.putAll(i.starts()));
        return plan.withStarts(starts);
    }

    /** Every message of the show, item after item. */
    public Stream<PlannedMessage> messages() {
        return items.stream().flatMap(i -> messages(i).stream());
    }

    /** The messages of an item, by the GO they count from and then by time; none for an item that is not there. */
    public List<PlannedMessage> messages(int itemId) {
        ItemRun run = byItem.get(itemId);
        return run == null ? List.of() : messages(run);
    }

    private List<PlannedMessage> messages(ItemRun run) {
        Messages messages = new Messages(run.item());
        StraightPlay play = new StraightPlay(plan, run.item(), run.before());
        for (var step = play.next(); step.isPresent(); step = play.next()) {
            step.get().messages().forEach(messages::add);
        }
        return messages.inOrder();
    }

    /** By device id, what each device is doing after a cue itself, not its copies; nothing for a cue that is not there. */
    public Map<Integer, PlannedCall> shown(int cueId) {
        return shownAt(plan.indexOf(cueId));
    }

    /** By device id, what each device is doing after a cue or after that copy of it. */
    public Map<Integer, PlannedCall> shown(PlannedCue cue) {
        return shownAt(plan.indexOf(cue));
    }

    private Map<Integer, PlannedCall> shownAt(int index) {
        if (index < 0) {
            return Map.of();
        }
        int itemId = plan.cues().get(index).item().id();
        return byItem.get(itemId).shown().get(index - plan.firstOf(itemId));
    }

    /**
     * What the book says of every device just before a cue is fired in its order.
     *
     * @param index place of the cue in the plan; the number of cues for the end of the book
     */
    public PlaybackState before(int index) {
        if (index >= plan.cues().size()) {
            return end();
        }
        PlannedCue cue = plan.cues().get(index);
        int itemId = cue.item().id();
        ItemRun run = byItem.get(itemId);
        return StraightPlay.before(
                plan, run.item(), run.before(), index - plan.firstOf(itemId), order -> ItemProgress.BEFORE, s -> {});
    }

    /** What the book says of every device just before a timed cue lands, with all cues that the book puts before it. @param index place of the cue in the plan */
    PlaybackState beforeLanding(int index) {
        PlannedCue cue = plan.cues().get(index);
        ItemRun run = byItem.get(cue.item().id());
        int order = index - plan.firstOf(cue.item().id());
        return StraightPlay.before(
                plan,
                run.item(),
                run.before(),
                cue.atNanos().orElseThrow(),
                o -> o < order ? ItemProgress.BEFORE : ItemProgress.NOT_GIVEN,
                s -> {});
    }

    /**
     * What the book says of every device after a cue, had of its item only those been given that were.
     *
     * @param index place of the cue in the plan
     */
    PlaybackState after(int index, GivenCues given) {
        PlannedCue cue = plan.cues().get(index);
        ItemRun run = byItem.get(cue.item().id());
        int next = index + 1 - plan.firstOf(run.item().item().id());
        return next < run.item().cues().size()
                ? StraightPlay.before(plan, run.item(), run.before(), next, given, s -> {})
                : StraightPlay.at(plan, run.item(), run.before(), run.lastsNanos(), given);
    }

    /** What the book says of every device just before a moment of an item. @param nanos since the item began */
    public PlaybackState before(int itemId, long nanos) {
        ItemRun run = byItem.get(itemId);
        return run == null ? end() : StraightPlay.before(plan, run.item(), run.before(), nanos, s -> {});
    }

    /**
     * What the book says of every device at a moment of an item that is being played, with all that is told early by then.
     *
     * @param nanos since the item began
     */
    PlaybackState at(int itemId, long nanos, GivenCues given) {
        ItemRun run = byItem.get(itemId);
        return run == null ? end() : StraightPlay.at(plan, run.item(), run.before(), nanos, given);
    }

    private PlaybackState end() {
        Carried carried = items.isEmpty()
                ? Carried.first(plan)
                : items.get(items.size() - 1).after();
        return carried.into(plan, plan.cues().size(), Long.MAX_VALUE);
    }

    /** The messages of one item, by the GO they count from. */
    private static final class Messages {

        private final PlannedItem item;
        private final Map<Integer, List<PlannedMessage>> strands = new LinkedHashMap<>();
        private final Set<Integer> ownCues = new HashSet<>();

        Messages(PlannedItem item) {
            this.item = item;
            item.cues().forEach(c -> ownCues.add(c.cueId()));
            strands.put(0, new ArrayList<>());
        }

        void add(ScheduledMessage m) {
            boolean own = ownCues.contains(m.cause().cueId());
            strands.computeIfAbsent(own ? m.cause().sinceCueId() : 0, s -> new ArrayList<>())
                    .add(PlannedMessage.of(item.item().id(), m, own));
        }

        List<PlannedMessage> inOrder() {
            List<PlannedMessage> all = new ArrayList<>();
            strands.values().forEach(strand -> {
                strand.sort(BY_TIME);
                all.addAll(strand);
            });
            return List.copyOf(all);
        }
    }

    /** One item being played and written down. */
    private static final class Recording {

        private final Plan plan;
        private final PlannedItem item;
        private final Carried before;
        private final StraightPlay play;
        private final List<Map<Integer, PlannedCall>> shown = new ArrayList<>();
        private final Map<MoveStart, Double> starts = new HashMap<>();
        private PMap<Integer, PlannedCall> now = IntTreePMap.empty();
        private PMap<Integer, DeviceState> seen = IntTreePMap.empty();

        Recording(Plan plan, PlannedItem item, Carried before) {
            this.plan = plan;
            this.item = item;
            this.before = before;
            play = new StraightPlay(plan, item, before);
            show(before.told().devices());
            item.cues().forEach(c -> shown.add(null));
        }

        ItemRun run() {
            for (var step = play.next(); step.isPresent(); step = play.next()) {
                look(step.get());
            }
            fillUp();
            long lasts = play.endNanos();
            // What begins the next item is for that one to give.
            long last = play.goesStraightOn() ? lasts - 1 : lasts;
            PlaybackState rests = play.state();
            // One without cues is over at once, when a later item begins by itself behind the one before.
            PlaybackState end = last < rests.nowNanos()
                    ? rests.handingOn()
                    : Engine.step(rests, Event.pass(last)).next().handingOn();
            return new ItemRun(item, before, shown, starts, lasts, Carried.of(end.shifted(-lasts)));
        }

        private void look(Step step) {
            for (Happening happening : step.happenings()) {
                if (happening instanceof Happening.Moves moves) {
                    starts.putIfAbsent(new MoveStart(moves.cue(), moves.control()), moves.from());
                }
                if (happening instanceof Happening.Fired fired) {
                    show(fired.told());
                    if (fired.cue().item().id() == item.item().id()) {
                        shown.set(order(fired.cue()), now);
                    }
                }
            }
        }

        private void show(PMap<Integer, DeviceState> told) {
            if (told == seen) {
                return;
            }
            for (Map.Entry<Integer, DeviceState> each : told.entrySet()) {
                if (each.getValue() != seen.get(each.getKey())) {
                    show(each.getKey(), each.getValue());
                }
            }
            seen = told;
        }

        private int order(PlannedCue cue) {
            return plan.indexOf(cue) - plan.firstOf(item.item().id());
        }

        private void show(int deviceId, DeviceState state) {
            PlannedCall shows = state.shows().orElse(null);
            if (shows == null) {
                now = now.minus(deviceId);
            } else if (shows != now.get(deviceId)) {
                now = now.plus(deviceId, shows);
            }
        }

        /** A cue that nothing leads to leaves everything as it is. */
        private void fillUp() {
            Map<Integer, PlannedCall> last = Map.of();
            for (int i = 0; i < shown.size(); i++) {
                if (shown.get(i) == null) {
                    shown.set(i, last);
                }
                last = shown.get(i);
            }
        }
    }
}
