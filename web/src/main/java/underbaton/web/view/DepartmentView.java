package underbaton.web.view;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.TreeMap;
import java.util.stream.Collectors;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.music.FollowOn;
import underbaton.core.engine.music.Playing;
import underbaton.core.loop.Clock;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;

/**
 * What a department has now and what it gets next, as the show stands.
 *
 * @param whose the department, or one machine of it, in words
 * @param item that plays, or began last
 * @param now what each machine shows
 * @param coming the next that it gets, the first first
 * @param standsBy whether the next of it comes with the next GO
 * @param given the cue of it that was given last
 * @param givenEpochMs when
 * @param told what is not as usual, in words: held, stopped, jumped
 */
record DepartmentView(
        Department department,
        String whose,
        Optional<String> item,
        List<Now> now,
        List<Coming> coming,
        boolean standsBy,
        String given,
        long givenEpochMs,
        Optional<String> told) {

    private static final int MOST_COMING = 3;

    /** @param phrase empty where it was told nothing yet */
    record Now(Device device, String phrase) {}

    /**
     * Something that comes.
     *
     * @param words what the department gets
     * @param what the cue's own words
     * @param when where it comes, in words
     * @param atMs when it comes by itself, ms since the item began; below 0 where that is not known
     * @param epochMs when it comes by itself behind another cue, by the time of day; 0 for not so
     */
    record Coming(String label, String words, String what, String when, long atMs, long epochMs) {}

    /** Which machines are meant, and how they are called. */
    record Whose(Department department, Optional<Device> device) {

        boolean has(Device other) {
            return device.map(d -> d.id() == other.id()).orElse(other.department() == department);
        }

        String words() {
            return device.map(Device::name).orElse(department.title());
        }
    }

    static DepartmentView of(Show show, PlaybackState state, Whose whose, Clock clock) {
        Map<Integer, Device> devices = state.plan().devices().stream()
                .filter(whose::has)
                .collect(Collectors.toMap(Device::id, d -> d, (a, b) -> a, TreeMap::new));
        List<Now> now = state.plan().devices().stream()
                .filter(d -> devices.containsKey(d.id()))
                .map(d -> new Now(
                        d,
                        state.told()
                                .device(d.id())
                                .shows()
                                .map(PlannedCall::phrase)
                                .orElse("")))
                .toList();
        List<Coming> coming = coming(state, devices, clock);
        boolean standsBy = !coming.isEmpty()
                && state.standbyCue()
                        .filter(c -> c.label().equals(coming.get(0).label))
                        .isPresent();
        Optional<PlannedCue> last =
                state.last().map(f -> f.cue()).filter(c -> !words(c, devices).isEmpty());
        return new DepartmentView(
                whose.department,
                whose.words(),
                state.begunItem().map(PlannedItem::item).map(Item::name).or(() -> Optional.of(show.name())),
                now,
                coming,
                standsBy,
                last.map(PlannedCue::label).orElse(""),
                last.flatMap(c -> state.last())
                        .map(f -> clock.epochMicrosAt(f.atNanos()) / 1000)
                        .orElse(0L),
                told(state));
    }

    static Optional<String> told(PlaybackState state) {
        if (state.progress().held()) {
            return Optional.of("held: the band has stopped");
        } else if (state.stopped()) {
            return Optional.of("stopped");
        } else if (state.playing().filter(Playing::paused).isPresent()) {
            return Optional.of("paused");
        }
        return state.operator().moved()
                ? Optional.of("jumped: the standby is not where the show stands")
                : Optional.empty();
    }

    /** In the order of the book: what comes by itself while the item plays, what follows, and what waits for GO. */
    private static List<Coming> coming(PlaybackState state, Map<Integer, Device> devices, Clock clock) {
        Map<Integer, Coming> byPlace = new TreeMap<>();
        Optional<Playing> playing = state.playing();
        playing.ifPresent(p -> p.ahead().stream()
                .filter(TimedCalls::strikes)
                .forEach(t -> put(
                        byPlace,
                        state,
                        t.cue(),
                        devices,
                        when(p, t),
                        p.waitsForRelease(t) ? -1 : t.nanos() / 1_000_000,
                        0)));
        state.followOn()
                .ifPresent(f ->
                        put(byPlace, state, f.cue(), devices, f.cue().start().toString(), -1, epochMs(f, clock)));
        int itemId = playing.map(p -> p.item().item().id()).orElse(0);
        List<PlannedCue> cues = state.plan().cues();
        for (int i = state.standby(); i < cues.size() && byPlace.size() < 2 * MOST_COMING; i++) {
            PlannedCue cue = cues.get(i);
            if (cue.atNanos().isEmpty() || cue.item().id() != itemId) {
                put(byPlace, state, cue, devices, byHand(state, cue, i), -1, 0);
            }
        }
        // What comes by itself soonest comes first, wherever the book has it.
        List<Coming> all = new ArrayList<>(byPlace.values());
        OptionalLong here = playing.filter(p -> !p.vamping())
                .map(p -> OptionalLong.of(p.position(clock.nanos())))
                .orElse(OptionalLong.empty());
        if (here.isPresent()) {
            all.sort((a, b) -> Boolean.compare(a.atMs < 0 && a.epochMs == 0, b.atMs < 0 && b.epochMs == 0));
        }
        return all.stream().limit(MOST_COMING).toList();
    }

    private static long epochMs(FollowOn follows, Clock clock) {
        return clock.epochMicrosAt(follows.dueNanos()) / 1000;
    }

    private static String byHand(PlaybackState state, PlannedCue cue, int place) {
        if (cue.byHand()) {
            return place == state.standby() ? "at GO" : "at a later GO";
        }
        return state.plan()
                .item(cue.item().id())
                .map(i -> i.starts(cue))
                .orElse(cue.start().toString());
    }

    private static String when(Playing p, TimedCalls t) {
        String starts = p.item().starts(t.cue());
        return p.waitsForRelease(t) ? starts + ", when the vamp is left" : starts;
    }

    private static void put(
            Map<Integer, Coming> byPlace,
            PlaybackState state,
            PlannedCue cue,
            Map<Integer, Device> devices,
            String when,
            long atMs,
            long epochMs) {
        String words = words(cue, devices);
        if (!words.isEmpty() && cue.armed()) {
            byPlace.putIfAbsent(
                    state.plan().indexOf(cue), new Coming(cue.label(), words, cue.what(), when, atMs, epochMs));
        }
    }

    /** What a cue says to these machines; with their names where there are several of them. */
    private static String words(PlannedCue cue, Map<Integer, Device> devices) {
        return devices.values().stream()
                .map(d -> {
                    String said = cue.calls().stream()
                            .filter(c -> c.deviceId() == d.id())
                            .map(PlannedCall::phrase)
                            .collect(Collectors.joining(" + "));
                    return said.isEmpty() || devices.size() == 1 ? said : d.name() + ": " + said;
                })
                .filter(s -> !s.isEmpty())
                .collect(Collectors.joining(", "));
    }
}
