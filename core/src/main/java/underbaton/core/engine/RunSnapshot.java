package underbaton.core.engine;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import org.pcollections.HashTreePMap;
import org.pcollections.IntTreePMap;
import org.pcollections.PMap;
import org.pcollections.TreePMap;
import underbaton.core.cue.HandKey;
import underbaton.core.engine.call.Agenda;
import underbaton.core.engine.call.Pending;
import underbaton.core.engine.device.Absence;
import underbaton.core.engine.device.DeviceState;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.device.Pointer;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.follow.FollowState;
import underbaton.core.engine.instep.InStepState;
import underbaton.core.engine.music.FollowOn;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.engine.music.MusicState;
import underbaton.core.engine.music.MusicState.Fired;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.music.Suspended;
import underbaton.core.engine.operator.OperatorInput;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.patch.Patched;
import underbaton.core.engine.patch.Sounding;
import underbaton.core.engine.patch.Tone;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.plan.Level;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;
import underbaton.core.rig.Control;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.rig.Wiring;
import underbaton.core.score.Anchor;
import underbaton.core.signal.Hearing;

/**
 * What of a playing show is worth keeping over a crash, in values that can be written down: where it stood, and what each
 * machine has been told. Moves under way are kept as where they were.
 *
 * @param epochMicros when it was so, µs since 1970
 * @param standbyCueId 0 for the end of the book
 * @param lastCueId the cue fired last; 0 for none
 * @param itemId the item whose music ran; 0 for none
 * @param positionNanos where in it, ns since it began
 * @param paused whether it stood still
 * @param permille how fast it went, 1,000 being as written
 * @param listened whether listeners took part: the master switch
 * @param armed the listeners that were armed for the night though written otherwise
 * @param disarmed those that were disarmed
 * @param patch the patch set in use, if one was
 * @param sounding what machines had not been told to end
 * @param early of what the music still comes to, what had been told already
 * @param later what cues had still to call
 * @param follows the cue that was to follow by itself
 * @param held the hand cues that work while they are held, and were
 * @param given the cues of the item that were given
 */
public record RunSnapshot(
        long epochMicros,
        int standbyCueId,
        int lastCueId,
        int itemId,
        long positionNanos,
        boolean paused,
        int permille,
        boolean listened,
        Set<Integer> armed,
        Set<Integer> disarmed,
        List<KeptDevice> devices,
        Optional<KeptPatch> patch,
        List<Tone.Key> sounding,
        List<TimedCalls.Key> early,
        List<KeptLater> later,
        Optional<KeptFollow> follows,
        Set<Integer> held,
        List<KeptCue> given) {

    /**
     * A cue or, with a letter, its copy in that linked section.
     *
     * @param nanos where in the item it was given; below 0 for in its place
     * @param stood how long the music had stood there then, ns; empty where it went on
     */
    public record KeptCue(int cueId, String copy, long nanos, OptionalLong stood) {

        private static KeptCue of(ItemProgress.Given cue, ItemProgress.Where where) {
            long stood = where.stoodNanos();
            return new KeptCue(
                    cue.cueId(), cue.copy(), where.nanos(), stood == 0 ? OptionalLong.empty() : OptionalLong.of(stood));
        }

        private ItemProgress.Where where() {
            return new ItemProgress.Where(nanos, stood.orElse(0));
        }
    }

    /**
     * @param place of the call among those of its cue
     * @param inNanos how long after the crash it was due
     */
    public record KeptLater(int cueId, String copy, int place, long inNanos) {}

    /** @param inNanos how long after the crash it was due */
    public record KeptFollow(int cueId, String copy, long inNanos, int sinceCueId) {}

    /** By then it is known which machines are there. */
    private static final long REACHED_NANOS = 2_000_000_000L;

    public record KeptPatch(int setId, Wiring wiring) {}

    /** @param levels where its controls stood, as far as they had been told */
    public record KeptDevice(int deviceId, List<KeptSlot> slots, List<KeptPointer> pointers, List<KeptLevel> levels) {}

    /** @param agoNanos how long it had been so */
    public record KeptSlot(
            String name, int phraseId, String phrase, Effect effect, List<Timed> messages, int itemId, long agoNanos) {}

    /** @param place 0 when nobody knew */
    public record KeptPointer(String name, int place) {}

    /** @param address of the control */
    public record KeptLevel(String address, Level level) {}

    /** @param epochMicros the state's moment as time of day */
    public static RunSnapshot of(PlaybackState state, long epochMicros) {
        List<KeptDevice> devices = new ArrayList<>();
        state.plan().devices().forEach(d -> {
            KeptDevice kept = device(state, d.id());
            if (!kept.slots.isEmpty() || !kept.pointers.isEmpty() || !kept.levels.isEmpty()) {
                devices.add(kept);
            }
        });
        Optional<Playing> playing = state.playing();
        return new RunSnapshot(
                epochMicros,
                state.standbyCue().map(c -> c.cueId()).orElse(0),
                state.last().map(l -> l.cue().cueId()).orElse(0),
                playing.map(p -> p.item().item().id()).orElse(0),
                playing.map(p -> Math.max(0, p.position(state.nowNanos()))).orElse(0L),
                playing.filter(Playing::paused).isPresent(),
                playing.map(p -> p.anchor().permille()).orElse(Anchor.AS_WRITTEN),
                state.hearing().on(),
                listeners(state, true),
                listeners(state, false),
                devices,
                patch(state.patched()),
                sounding(state),
                playing.map(p -> p.toldEarly(p.position(state.nowNanos()))).orElse(Set.of()).stream()
                        .sorted(Comparator.comparingInt(TimedCalls.Key::cueId)
                                .thenComparing(TimedCalls.Key::copy)
                                .thenComparing(TimedCalls.Key::sinceCueNanos)
                                .thenComparing(TimedCalls.Key::leadNanos)
                                .thenComparing(TimedCalls.Key::strikes))
                        .toList(),
                later(state),
                follows(state)
                        .map(f -> new KeptFollow(
                                f.cue().cueId(), f.cue().copy(), f.dueNanos() - stood(state), f.sinceCueId())),
                held(state),
                state.progress().given().entrySet().stream()
                        .map(g -> KeptCue.of(g.getKey(), g.getValue()))
                        .sorted(Comparator.comparingInt(KeptCue::cueId).thenComparing(KeptCue::copy))
                        .toList());
    }

    private static Optional<KeptPatch> patch(Patched patched) {
        return patched.setId() == 0 ? Optional.empty() : Optional.of(new KeptPatch(patched.setId(), patched.wiring()));
    }

    /** By what is played, and what phrases have struck for a while. */
    private static List<Tone.Key> sounding(PlaybackState state) {
        Set<Tone.Key> all = new LinkedHashSet<>(state.sounding().all());
        state.agenda().values().forEach(later -> {
            if (later instanceof Pending.ToSend end && ChannelMessage.endsNote(end.message())) {
                Tone.Key.of(end.deviceId(), end.message()).ifPresent(all::add);
            }
        });
        return List.copyOf(all);
    }

    /** Since when what is under way stood still: now, or since the band has stopped. */
    private static long stood(PlaybackState state) {
        return state.progress().suspended().map(Suspended::sinceNanos).orElse(state.nowNanos());
    }

    private static Optional<FollowOn> follows(PlaybackState state) {
        return state.progress().suspended().map(Suspended::followOn).orElse(state.followOn());
    }

    private static List<KeptLater> later(PlaybackState state) {
        List<KeptLater> later = new ArrayList<>();
        state.agenda().forEach((key, each) -> {
            if (each instanceof Pending.ToCall call) {
                kept(state, call, key.dueNanos() - state.nowNanos()).ifPresent(later::add);
            }
        });
        state.progress().suspended().ifPresent(s -> s.later()
                .forEach(l ->
                        kept(state, l.call(), l.dueNanos() - s.sinceNanos()).ifPresent(later::add)));
        return later;
    }

    private static Optional<KeptLater> kept(PlaybackState state, Pending.ToCall later, long inNanos) {
        return state.plan().cues().stream()
                .filter(c -> c.cueId() == later.cause().cueId() && c.calls().contains(later.call()))
                .findFirst()
                .map(c -> new KeptLater(c.cueId(), c.copy(), c.calls().indexOf(later.call()), inNanos));
    }

    private static Set<Integer> held(PlaybackState state) {
        Set<Integer> held = new TreeSet<>();
        state.keys().touched().forEach((id, on) -> {
            boolean works = state.plan()
                    .key(id)
                    .filter(k -> k.key().way() == HandKey.Way.HELD)
                    .isPresent();
            if (on && works) {
                held.add(id);
            }
        });
        return held;
    }

    private static Set<Integer> listeners(PlaybackState state, boolean listens) {
        Set<Integer> ids = new TreeSet<>();
        state.hearing().armed().forEach((id, now) -> {
            // What was disarmed since it came round is armed again by itself.
            if (now == listens && !state.hearing().passed(id).isStopped()) {
                ids.add(id);
            }
        });
        return ids;
    }

    private static KeptDevice device(PlaybackState state, int deviceId) {
        Absence away = state.absent().get(deviceId);
        DeviceState device = away == null ? state.told().device(deviceId) : away.state();
        PMap<Control, Level> levels = away == null ? state.machines().toldLevels(deviceId) : away.levels();
        // What it was told by halves, nobody knows of it.
        for (Pending pending : state.agenda().values()) {
            if (pending instanceof Pending.ToSend cut
                    && cut.deviceId() == deviceId
                    && !ChannelMessage.endsNote(cut.message())) {
                device = device.without(cut.message());
                levels = levels.minus(Control.of(deviceId, cut.message()));
            }
        }
        long now = state.nowNanos();
        return new KeptDevice(
                deviceId,
                device.slots().stream()
                        .map(s -> new KeptSlot(
                                s.name(),
                                s.call().phraseId(),
                                s.call().phrase(),
                                s.call().effect(),
                                s.call().messages(),
                                s.itemId(),
                                now - s.sinceNanos()))
                        .toList(),
                device.pointers().stream()
                        .map(p -> new KeptPointer(p.name(), p.place().orElse(0)))
                        .toList(),
                levels.entrySet().stream()
                        .map(e -> new KeptLevel(e.getKey().address(), heldUp(state, e.getKey(), e.getValue())))
                        .toList());
    }

    /** What a relay holds up is kept as where it really is: nobody holds it after the crash. */
    private static Level heldUp(PlaybackState state, Control control, Level book) {
        return state.heldUp()
                .of(control)
                .filter(held -> held.exact() > book.exact())
                .map(held -> book.at(held.exact()))
                .orElse(book);
    }

    /**
     * The show as it stood: its music stands still where it was, held until somebody says how it goes on.
     *
     * @param plan of the show as it is now; what it has no more is left out
     * @param nowNanos by the clock that goes on from here
     * @param nowMicros the same moment as time of day, µs since 1970
     */
    public PlaybackState into(Plan plan, long nowNanos, long nowMicros) {
        long away = Math.max(0, nowMicros - epochMicros) * 1000;
        PlaybackState first = PlaybackState.of(plan, nowNanos);
        OperatorInput operator = first.operator().movedTo(true);
        int index = standbyCueId == 0 ? plan.cues().size() : plan.indexOf(standbyCueId);
        int last = plan.indexOf(lastCueId);
        Optional<PlannedItem> item = plan.item(itemId);
        MusicState music = new MusicState(
                index < 0 ? first.standby() : index,
                last < 0 ? Optional.empty() : Optional.of(new Fired(plan.cues().get(last), nowNanos - away)),
                Optional.empty(),
                item.map(i -> Playing.from(i, positionNanos, nowNanos)
                        .withoutTold(early)
                        .pace(permille, nowNanos)
                        .pause(nowNanos)),
                item.map(i -> progress(plan, nowNanos, away)).orElse(ItemProgress.NONE),
                false);
        return new PlaybackState(
                plan,
                nowNanos,
                item.isPresent() ? operator.paced(itemId, permille) : operator,
                told(plan, nowNanos - away),
                first.absent(),
                first.wayOut(),
                first.moves(),
                patched(plan),
                // What sounded when the crash came is ended as soon as its output is reached.
                Sounding.NOTHING.owing(sounding.stream()
                        .filter(k -> plan.device(k.deviceId()).isPresent())
                        .toList()),
                letGo(plan, nowNanos),
                music,
                first.keys(),
                hearing(),
                first.replies(),
                first.lights(),
                InStepState.unknown(plan.inStep()),
                FollowState.takenOver(item.isPresent() ? itemId : 0),
                first.straightUntil());
    }

    private ItemProgress progress(Plan plan, long nowNanos, long away) {
        ItemProgress progress =
                ItemProgress.of(itemId, nowNanos - away - positionNanos).holding(suspended(plan, nowNanos));
        for (KeptCue cue : given) {
            progress = progress.gave(new ItemProgress.Given(cue.cueId, cue.copy), cue.where());
        }
        return progress;
    }

    private DeviceStates told(Plan plan, long then) {
        PMap<Integer, DeviceState> told = IntTreePMap.empty();
        Map<Control, Level> levels = new HashMap<>();
        for (KeptDevice device : devices) {
            if (plan.device(device.deviceId).isPresent()) {
                told = told.plus(device.deviceId, state(device, then));
                device.levels.forEach(l -> levels.put(new Control(device.deviceId, l.address), l.level));
            }
        }
        return new DeviceStates(told, HashTreePMap.from(levels));
    }

    private Patched patched(Plan plan) {
        return patch.map(p -> Patched.NOTHING.using(
                        p.setId, p.wiring.among(id -> plan.device(id).isPresent())))
                .orElse(Patched.NOTHING);
    }

    private Hearing hearing() {
        Hearing hearing = Hearing.FIRST.switched(listened);
        for (int id : armed) {
            hearing = hearing.arming(id, true);
        }
        for (int id : disarmed) {
            hearing = hearing.arming(id, false);
        }
        return hearing;
    }

    /** No finger is on a key any more that works while it is held; by then it is known which machines are there to hear it. */
    private TreePMap<Pending.Key, Pending> letGo(Plan plan, long nowNanos) {
        Cause cause = Cause.outside("let go, held when the crash came", nowNanos);
        Agenda agenda = new Agenda(TreePMap.empty());
        held.stream()
                .flatMap(id -> plan.key(id).stream())
                .flatMap(key -> key.off().stream())
                .forEach(call -> agenda.add(nowNanos + REACHED_NANOS, new Pending.ToCall(call, cause)));
        return agenda.state();
    }

    /** What was under way goes on with the music, as if it had stood still since the crash. */
    private Suspended suspended(Plan plan, long nowNanos) {
        List<Suspended.LaterCall> calls = new ArrayList<>();
        for (KeptLater l : later) {
            cue(plan, l.cueId, l.copy)
                    .filter(c -> l.place < c.calls().size())
                    .ifPresent(c -> calls.add(new Suspended.LaterCall(
                            nowNanos + l.inNanos,
                            new Pending.ToCall(c.calls().get(l.place), Cause.cue(c.label(), c.cueId(), 0, nowNanos)))));
        }
        Optional<FollowOn> next = follows.flatMap(f ->
                cue(plan, f.cueId, f.copy).map(c -> new FollowOn(c, nowNanos + f.inNanos, f.sinceCueId, nowNanos)));
        return new Suspended(nowNanos, calls, next, List.of(), List.of());
    }

    private static Optional<PlannedCue> cue(Plan plan, int cueId, String copy) {
        return plan.cues().stream()
                .filter(c -> c.cueId() == cueId && c.copy().equals(copy))
                .findFirst();
    }

    private static DeviceState state(KeptDevice device, long then) {
        return new DeviceState(
                device.slots.stream()
                        .map(s -> new Slot(s.name, call(device.deviceId, s), s.itemId, then - s.agoNanos))
                        .toList(),
                device.pointers.stream()
                        .map(p -> new Pointer(
                                p.name,
                                p.place == 0 ? OptionalInt.empty() : OptionalInt.of(p.place),
                                Optional.empty(),
                                then))
                        .toList());
    }

    private static PlannedCall call(int deviceId, KeptSlot slot) {
        return new PlannedCall(
                deviceId,
                slot.phraseId,
                slot.phrase,
                slot.effect,
                slot.messages,
                Optional.empty(),
                HashTreePMap.empty(),
                0,
                0,
                0);
    }
}
