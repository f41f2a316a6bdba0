package underbaton.core.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.pcollections.TreePMap;
import underbaton.core.engine.answer.Reply;
import underbaton.core.engine.call.Agenda;
import underbaton.core.engine.call.Pending;
import underbaton.core.engine.catchup.CatchUp;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.catchup.MachineStates;
import underbaton.core.engine.device.Absence;
import underbaton.core.engine.device.DeviceState;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.device.Pointer;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.follow.FollowState;
import underbaton.core.engine.instep.InStepState;
import underbaton.core.engine.key.HandKeys;
import underbaton.core.engine.key.KeyLight;
import underbaton.core.engine.light.LightState;
import underbaton.core.engine.move.Move;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.music.FollowOn;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.engine.music.MusicState;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.operator.OperatorInput;
import underbaton.core.engine.out.HeldUp;
import underbaton.core.engine.out.WayOut;
import underbaton.core.engine.patch.Patched;
import underbaton.core.engine.patch.Sounding;
import underbaton.core.plan.Level;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.PlannedKey;
import underbaton.core.plan.PlannedMotion;
import underbaton.core.plan.TimedCalls;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.signal.Hearing;

/**
 * A playing show at a moment: all that {@link Engine#step} needs to know of what has been, a record a part. Immutable; any thread may
 * read it.
 *
 * @param nowNanos the moment up to which everything has happened, by the clock of the events
 * @param operator what the operator did last
 * @param told what each device has been told, or would have been had it been there
 * @param absent by device id, those that could not be reached for a while, or are out tonight
 * @param wayOut what bears on the next message that leaves
 * @param moves the controls under way
 * @param patched the patch set in use
 * @param sounding what sounds by what is played, and the ends that are owed
 * @param agenda what was called and leaves later, in the order of the times
 * @param music where the show stands in its book, and what of it time brings
 * @param keys what was done with the keys of the hand cues
 * @param hearing what is remembered of what came in
 * @param replies what the machines have said of what they were told last
 * @param lights what the lights of pads were told last
 * @param inStep how far machines were given the time of the music
 * @param follow what machines that lead have said of their time, and how the item in hand gets on
 * @param straightUntil only in a dry run, where vamps are played once: what is to be heard at this place of an item or behind
 *     it is left out, ns since the item began
 */
public record PlaybackState(
        Plan plan,
        long nowNanos,
        OperatorInput operator,
        DeviceStates told,
        PMap<Integer, Absence> absent,
        WayOut wayOut,
        PMap<Control, Move> moves,
        Patched patched,
        Sounding sounding,
        TreePMap<Pending.Key, Pending> agenda,
        MusicState music,
        HandKeys keys,
        Hearing hearing,
        PMap<Reply.Of, Reply> replies,
        LightState lights,
        InStepState inStep,
        FollowState follow,
        OptionalLong straightUntil) {

    /** Before anything has been played: the first cue that waits for GO stands by, and nothing is known of any machine. */
    public static PlaybackState of(Plan plan, long nowNanos) {
        return first(
                plan,
                nowNanos,
                DeviceStates.NOTHING,
                WayOut.FREE,
                HashTreePMap.empty(),
                TreePMap.empty(),
                MusicState.first(plan.waitingFrom(0)),
                OptionalLong.empty());
    }

    /** An item of a dry run is about to begin, at 0 by its clock. */
    static PlaybackState beginning(Plan plan, OptionalLong straightUntil, MusicState music, Carried before) {
        WayOut way = WayOut.of(before.lines());
        return first(plan, 0, before.told(), way, before.moves(), before.agenda(), music, straightUntil);
    }

    private static PlaybackState first(
            Plan plan,
            long nowNanos,
            DeviceStates told,
            WayOut wayOut,
            PMap<Control, Move> moves,
            TreePMap<Pending.Key, Pending> agenda,
            MusicState music,
            OptionalLong straightUntil) {
        return new PlaybackState(
                plan,
                nowNanos,
                OperatorInput.FIRST,
                told,
                HashTreePMap.empty(),
                wayOut,
                moves,
                Patched.NOTHING,
                Sounding.NOTHING,
                agenda,
                music,
                HandKeys.UNTOUCHED,
                Hearing.FIRST,
                HashTreePMap.empty(),
                LightState.FIRST,
                InStepState.NOTHING,
                FollowState.NOTHING,
                straightUntil);
    }

    // ---- what is asked of it

    /** The place in the plan's cues of the one that comes next; behind the last one when none does. */
    public int standby() {
        return music.standby();
    }

    /** The cue that was carried out last, and when. */
    public Optional<MusicState.Fired> last() {
        return music.last();
    }

    /** The cue that comes by itself after another one, if one waits. */
    public Optional<FollowOn> followOn() {
        return music.followOn();
    }

    /** The music that plays or is held, if any does. */
    public Optional<Playing> playing() {
        return music.playing();
    }

    /** The item that began last, and what of it was given. */
    public ItemProgress progress() {
        return music.progress();
    }

    /** Whether stop all was the last thing done. */
    public boolean stopped() {
        return music.stopped();
    }

    /** Until when each line is busy with what was sent before, ns; for lines on which bytes take their time. */
    public PMap<Connection, Long> lines() {
        return wayOut.lines();
    }

    /** Controls that a relay holds above what the book says. */
    public HeldUp heldUp() {
        return wayOut.heldUp();
    }

    /** How many messages all steps that led here have brought forth. */
    public long brought() {
        return wayOut.brought();
    }

    /** All machines, with nothing else of the show. */
    public MachineStates machines() {
        return new MachineStates(plan, told, moves, absent, nowNanos);
    }

    /** What it takes to bring the machines to where the book has them in another state, whose moment is taken for this one's. */
    public List<Correction> correctionsTo(PlaybackState book) {
        return CatchUp.between(book.shifted(nowNanos - book.nowNanos).machines(), machines());
    }

    /** The same for a show whose music stands: what has been called, or waits to go on, is taken for made in both. */
    public List<Correction> correctionsWhereItStands(PlaybackState book) {
        PlaybackState there = book.shifted(nowNanos - book.nowNanos);
        return CatchUp.atRest(
                CatchUp.between(there.machines(), machines()),
                CatchUp.between(there.atRest().machines(), atRest().machines()),
                key -> Agenda.steps(agenda, key.deviceId(), key.name())
                        .equals(Agenda.steps(there.agenda, key.deviceId(), key.name())));
    }

    /** What a device that was away has missed. */
    public List<Correction> behind(int deviceId) {
        return CatchUp.behind(machines(), deviceId);
    }

    /** How a hand cue's key is lit. */
    public KeyLight light(PlannedKey key) {
        return KeyLight.of(key, told, keys.touched(), nowNanos);
    }

    /** The cue that comes next, if one does. */
    public Optional<PlannedCue> standbyCue() {
        return standby() < plan.cues().size() ? Optional.of(plan.cues().get(standby())) : Optional.empty();
    }

    /** Where a control is at a moment, 0–127; empty when nobody knows. */
    public OptionalDouble standsAt(Control control, long nanos) {
        Move move = moves.get(control);
        if (move != null) {
            return OptionalDouble.of(move.at(nanos).exact());
        }
        Level level = told.levels().get(control);
        return level == null ? OptionalDouble.empty() : OptionalDouble.of(level.exact());
    }

    /** What becomes of a fade of a cue of which nobody knows where it would begin now: {@code is at its amount at once}; empty for all others. */
    public Optional<String> untoldFade(PlannedCue cue, Device device) {
        boolean untold = cue.calls().stream()
                .filter(c -> c.deviceId() == device.id())
                .flatMap(c -> c.motion().stream())
                .map(PlannedMotion::control)
                .anyMatch(control -> standsAt(control, nowNanos).isEmpty()
                        && Moves.byBook(plan, told.device(device.id()), cue.label(), control)
                                .isEmpty());
        return untold ? Optional.of(device.care().untoldFade().words()) : Optional.empty();
    }

    /** Where a device stands in a list that it steps through, as far as it was told; empty when nobody knows. */
    public OptionalInt place(int deviceId, String list) {
        Absence missed = absent.get(deviceId);
        DeviceState device = missed == null ? told.device(deviceId) : missed.state();
        return device.pointer(Slot.key(list)).map(Pointer::place).orElse(OptionalInt.empty());
    }

    /** Whether a place of the plan lies behind the standby cue, and in none of the items that play or have begun. */
    public boolean liesAhead(int place) {
        int item = place < plan.cues().size() ? plan.cues().get(place).item().id() : 0;
        boolean plays = playing().filter(p -> p.item().item().id() == item).isPresent();
        return place > standby() && !plays;
    }

    /** How many timed cues of the playing item GO would leave unplayed. */
    public long skippedByGo() {
        return music.skippedBefore(plan, standby()).stream()
                .filter(TimedCalls::strikes)
                .count();
    }

    /** What machines have not confirmed of what they were told, or say otherwise, by device. */
    public Map<Integer, List<Reply>> unanswered() {
        Map<Integer, List<Reply>> open = new LinkedHashMap<>();
        replies.forEach((of, reply) -> {
            if (reply.kind().isWrong()) {
                open.computeIfAbsent(of.deviceId(), id -> new ArrayList<>()).add(reply);
            }
        });
        return open;
    }

    /** Whether a GO waits for its second press. */
    public boolean asksAt(long nanos) {
        return operator.waitsAt(nanos);
    }

    /** What runs by itself at a moment, by device. */
    public Map<Integer, List<Slot>> runningAt(long nanos) {
        Map<Integer, List<Slot>> running = new LinkedHashMap<>();
        plan.devices().forEach(d -> {
            List<Slot> slots = told.device(d.id()).slots().stream()
                    .filter(s -> s.runsAt(nanos))
                    .toList();
            if (!slots.isEmpty()) {
                running.put(d.id(), slots);
            }
        });
        return running;
    }

    /** A cue that comes by itself, and when. */
    public record Coming(PlannedCue cue, long dueNanos) {}

    /** The next cue that comes by itself, as things stand. */
    public Optional<Coming> coming() {
        Optional<Coming> chained = followOn().map(f -> new Coming(f.cue(), f.dueNanos()));
        Optional<Coming> strikes = playing().filter(p -> !p.paused()).flatMap(p -> p.nextStrike()
                .map(t -> new Coming(t.cue(), p.dueAt(t.nanos()))));
        if (chained.isPresent() && strikes.isPresent()) {
            return chained.get().dueNanos <= strikes.get().dueNanos ? chained : strikes;
        }
        return chained.or(() -> strikes);
    }

    /** The item in which the show stands, once it has begun. */
    public Optional<PlannedItem> begunItem() {
        return plan.item(progress().itemId());
    }

    /** The item whose bars are meant: the one that plays, or was stopped, or else that of the standby cue. */
    public Optional<PlannedItem> itemInHand() {
        Optional<PlannedItem> stoppedItem = stopped() ? begunItem() : Optional.empty();
        return playing().map(Playing::item).or(() -> stoppedItem).or(() -> standbyCue()
                .flatMap(c -> plan.item(c.item().id())));
    }

    // ---- the same otherwise

    /** Nothing new comes: only what has been called goes on. */
    PlaybackState leftAlone() {
        Parts parts = new Parts(this);
        parts.jumps.leaveAlone();
        return parts.state();
    }

    /** Just before the next item begins by itself: what this one's cues call late comes in that one. */
    PlaybackState handingOn() {
        Parts parts = new Parts(this);
        followOn().ifPresent(f -> parts.cues.keepLateCalls(f.cue().item().id()));
        return parts.state();
    }

    /** What has been called is made at once, and every move is where it ends. */
    PlaybackState atRest() {
        return comingToRest().next();
    }

    /** What it takes to have all at once that has been called, and every move where it ends. */
    Step comingToRest() {
        Parts parts = new Parts(this);
        parts.calls.comeToRest();
        return parts.done();
    }

    /** Some of what the music still comes to comes now. @param places of the cues in the item that plays */
    Step bringing(Set<Integer> places) {
        Parts parts = new Parts(this);
        List<TimedCalls> brought = playing().stream()
                .flatMap(p -> p.ahead().stream())
                .filter(t -> places.contains(t.order()))
                .toList();
        parts.music.without(brought);
        brought.forEach(t -> parts.cues.land(List.of(t), nowNanos));
        return parts.done();
    }

    /** The music has stood here for so long, though what was under way has not. */
    Step standing(long nanos) {
        Step stands = Engine.step(this, Event.of(nowNanos, new Order.Pause()));
        Step stood = Engine.step(stands.next(), Event.pass(nowNanos + nanos));
        PlaybackState goesOn = Engine.step(stood.next(), Event.of(nowNanos + nanos, new Order.Resume()))
                .next();
        return new Step(goesOn.shifted(-nanos), stood.messages(), stood.happenings(), stood.wakeNanos());
    }

    /** Nothing comes by itself any more, and nothing moves. */
    public PlaybackState withNothingToCome() {
        return new PlaybackState(
                plan,
                nowNanos,
                operator.movedTo(true),
                told,
                absent,
                wayOut,
                HashTreePMap.empty(),
                patched,
                sounding,
                TreePMap.empty(),
                music.silent(),
                keys,
                hearing,
                replies,
                lights,
                inStep,
                follow,
                straightUntil);
    }

    /** The same as a dry run: vamps are played once. */
    PlaybackState straight() {
        return at(nowNanos, OptionalLong.of(Long.MAX_VALUE), moves);
    }

    /** The same with everything done up to a later moment, though nothing was: nobody asks what comes at that moment. */
    PlaybackState justBefore(long nanos) {
        return at(nanos, straightUntil, moves);
    }

    PlaybackState withMoves(PMap<Control, Move> newMoves) {
        return at(nowNanos, straightUntil, newMoves);
    }

    PlaybackState withFollowOn(FollowOn cue) {
        MusicState with = new MusicState(
                music.standby(), music.last(), Optional.of(cue), music.playing(), music.progress(), music.stopped());
        return at(nowNanos, straightUntil, moves, with);
    }

    private PlaybackState at(long nanos, OptionalLong newStraightUntil, PMap<Control, Move> newMoves) {
        return at(nanos, newStraightUntil, newMoves, music);
    }

    private PlaybackState at(
            long nanos, OptionalLong newStraightUntil, PMap<Control, Move> newMoves, MusicState newMusic) {
        return new PlaybackState(
                plan,
                nanos,
                operator,
                told,
                absent,
                wayOut,
                newMoves,
                patched,
                sounding,
                agenda,
                newMusic,
                keys,
                hearing,
                replies,
                lights,
                inStep,
                follow,
                newStraightUntil);
    }

    /** The same with all moments so much later. */
    PlaybackState shifted(long nanos) {
        if (nanos == 0) {
            return this;
        }
        Map<Control, Move> laterMoves = new HashMap<>();
        moves.forEach((control, move) -> laterMoves.put(control, move.shifted(nanos)));
        PMap<Integer, Absence> laterAbsent = absent;
        for (Map.Entry<Integer, Absence> each : absent.entrySet()) {
            laterAbsent = laterAbsent.plus(each.getKey(), each.getValue().shifted(nanos));
        }
        return new PlaybackState(
                plan,
                nowNanos + nanos,
                operator.shifted(nanos),
                told.shifted(nanos),
                laterAbsent,
                wayOut.shifted(nanos),
                HashTreePMap.from(laterMoves),
                patched,
                sounding,
                Agenda.shifted(agenda, nanos),
                music.shifted(nanos),
                keys,
                hearing,
                Reply.shifted(replies, nanos),
                lights,
                inStep.shifted(nanos),
                follow.shifted(nanos),
                straightUntil);
    }
}
