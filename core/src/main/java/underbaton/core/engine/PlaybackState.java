package underbaton.core.engine;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.pcollections.TreePMap;
import underbaton.core.midi.Message;
import underbaton.core.plan.Level;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;
import underbaton.core.signal.Hearing;

/**
 * A playing show at a moment: all that {@link Engine#step} needs to know of what has been. Immutable; any thread may read
 * it.
 *
 * @param nowNanos the moment up to which everything has happened, by the clock of the events
 * @param standby place of the standby cue in the plan; the number of cues when the book is at its end
 * @param last the cue fired last
 * @param followOn a cue that follows the one before it by itself
 * @param playing the item whose music runs, or stands still in a pause
 * @param begun the item that began last
 * @param hand what the operator did last
 * @param agenda what was called and leaves later, in the order of the times
 * @param moves the controls under way
 * @param lines when each line that carries one byte after the other is free again
 * @param told what each device has been told, or would have been had it been there
 * @param away by device id, those that could not be reached for a while
 * @param stopped whether stop all was the last thing done
 * @param hearing what is remembered of what came in
 * @param heldUp the controls that relays hold up
 * @param patched the patch set in use
 * @param sounding what sounds by what is played, and the ends that are owed
 * @param brought how many messages all steps that led here have brought forth
 * @param straightUntil only in a dry run, where vamps are played once: what is to be heard at this place of an item or behind
 *     it is left out, ns since the item began
 */
public record PlaybackState(
        Plan plan,
        long nowNanos,
        int standby,
        Optional<Fired> last,
        Optional<FollowOn> followOn,
        Optional<Playing> playing,
        Begun begun,
        Hand hand,
        TreePMap<Later.Key, Later> agenda,
        PMap<Control, Move> moves,
        PMap<Connection, Long> lines,
        Told told,
        PMap<Integer, Away> away,
        boolean stopped,
        Hearing hearing,
        HeldUp heldUp,
        Patched patched,
        Sounding sounding,
        long brought,
        OptionalLong straightUntil) {

    /** @param atNanos when it was fired */
    public record Fired(PlannedCue cue, long atNanos) {}

    /**
     * @param dueNanos when it comes
     * @param sinceCueId the cue whose GO it follows
     * @param sinceNanos the moment of that GO
     */
    public record FollowOn(PlannedCue cue, long dueNanos, int sinceCueId, long sinceNanos) {

        FollowOn shifted(long by) {
            return new FollowOn(cue, dueNanos + by, sinceCueId, sinceNanos + by);
        }
    }

    /** Something that leaves later: a call, one message of a call that was made, or a move that goes on. */
    sealed interface Later {

        Later shifted(long nanos);

        /** @param count of coming in, for what is due at the same moment */
        record Key(long dueNanos, long count) implements Comparable<Key> {
            @Override
            public int compareTo(Key other) {
                return dueNanos != other.dueNanos
                        ? Long.compare(dueNanos, other.dueNanos)
                        : Long.compare(count, other.count);
            }
        }

        record ALaterCall(PlannedCall call, Cause cause) implements Later {
            @Override
            public Later shifted(long nanos) {
                return new ALaterCall(call, cause.shifted(nanos));
            }
        }

        record AMove(Move move, Cause cause) implements Later {
            @Override
            public Later shifted(long nanos) {
                return new AMove(move.shifted(nanos), cause.shifted(nanos));
            }
        }

        record ALaterMessage(int deviceId, Message message, Cause cause) implements Later {
            @Override
            public Later shifted(long nanos) {
                return new ALaterMessage(deviceId, message, cause.shifted(nanos));
            }
        }
    }

    /** Before anything has been played: the first cue that waits for GO stands by, and nothing is known of any machine. */
    public static PlaybackState of(Plan plan, long nowNanos) {
        return new PlaybackState(
                plan,
                nowNanos,
                plan.waitingFrom(0),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Begun.NONE,
                Hand.FIRST,
                TreePMap.empty(),
                HashTreePMap.empty(),
                HashTreePMap.empty(),
                Told.NOTHING,
                HashTreePMap.empty(),
                false,
                Hearing.FIRST,
                HeldUp.NOTHING,
                Patched.NOTHING,
                Sounding.NOTHING,
                0,
                OptionalLong.empty());
    }

    /** Nothing new comes: only what has been called goes on. */
    PlaybackState leftAlone() {
        Turn turn = new Turn(this);
        turn.leaveAlone();
        return turn.done().next();
    }

    /** Nothing comes by itself any more, and nothing moves. */
    public PlaybackState withNothingToCome() {
        Turn turn = new Turn(this);
        turn.followOn = Optional.empty();
        turn.playing = Optional.empty();
        turn.agenda = TreePMap.empty();
        turn.moves = HashTreePMap.empty();
        turn.hand = hand.movedTo(true);
        return turn.done().next();
    }

    /** What has been called is made at once, and every move is where it ends. */
    PlaybackState atRest() {
        Turn turn = new Turn(this);
        turn.comeToRest();
        return turn.done().next();
    }

    /** The same as a dry run: vamps are played once. */
    PlaybackState straight() {
        Turn turn = new Turn(this);
        turn.straightUntil = OptionalLong.of(Long.MAX_VALUE);
        return turn.done().next();
    }

    public Optional<PlannedCue> standbyCue() {
        return standby < plan.cues().size() ? Optional.of(plan.cues().get(standby)) : Optional.empty();
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

    /** Where a device stands in a list that it steps through, as far as it was told; empty when nobody knows. */
    public OptionalInt place(int deviceId, String list) {
        Away missed = away.get(deviceId);
        DeviceState device = missed == null ? told.device(deviceId) : missed.state();
        return device.pointer(Slot.key(list)).map(Pointer::place).orElse(OptionalInt.empty());
    }

    /** Whether a place of the plan lies behind the standby cue, and in none of the items that play or have begun. */
    public boolean liesAhead(int place) {
        int item = place < plan.cues().size() ? plan.cues().get(place).item().id() : 0;
        boolean plays = playing.filter(p -> p.item().item().id() == item).isPresent();
        return place > standby && !plays;
    }

    /** How many timed cues of the playing item GO would leave unplayed. */
    public long skippedByGo() {
        return new Turn(this)
                .skippedBefore(standby).stream().filter(TimedCalls::strikes).count();
    }

    /** Whether a GO waits for its second press. */
    public boolean asksAt(long nanos) {
        return hand.waitsAt(nanos);
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
        Optional<Coming> chained = followOn.map(f -> new Coming(f.cue, f.dueNanos));
        Optional<Coming> strikes = playing.filter(p -> !p.paused())
                .flatMap(p -> p.nextStrike().map(t -> new Coming(t.cue(), p.dueAt(t.nanos()))));
        if (chained.isPresent() && strikes.isPresent()) {
            return chained.get().dueNanos <= strikes.get().dueNanos ? chained : strikes;
        }
        return chained.or(() -> strikes);
    }

    public Optional<PlannedItem> begunItem() {
        return plan.item(begun.itemId());
    }

    /** The item whose bars are meant: the one that plays, or was stopped, or else that of the standby cue. */
    public Optional<PlannedItem> itemInHand() {
        Optional<PlannedItem> stoppedItem = stopped ? begunItem() : Optional.empty();
        return playing.map(Playing::item).or(() -> stoppedItem).or(() -> standbyCue()
                .flatMap(c -> plan.item(c.item().id())));
    }

    /** The same with everything done up to a later moment, though nothing was: nobody asks what comes at that moment. */
    PlaybackState justBefore(long nanos) {
        Turn turn = new Turn(this);
        turn.now = nanos;
        return turn.done().next();
    }

    PlaybackState withMoves(PMap<Control, Move> newMoves) {
        Turn turn = new Turn(this);
        turn.moves = newMoves;
        return turn.done().next();
    }

    /** The same with all moments so much later. */
    PlaybackState shifted(long nanos) {
        if (nanos == 0) {
            return this;
        }
        TreePMap<Later.Key, Later> laterAgenda = TreePMap.empty();
        for (Map.Entry<Later.Key, Later> each : agenda.entrySet()) {
            Later.Key key = each.getKey();
            laterAgenda = laterAgenda.plus(
                    new Later.Key(key.dueNanos + nanos, key.count),
                    each.getValue().shifted(nanos));
        }
        Map<Control, Move> laterMoves = new HashMap<>();
        moves.forEach((control, move) -> laterMoves.put(control, move.shifted(nanos)));
        PMap<Integer, Away> laterAway = away;
        for (Map.Entry<Integer, Away> each : away.entrySet()) {
            laterAway = laterAway.plus(each.getKey(), each.getValue().shifted(nanos));
        }
        Map<Connection, Long> laterLines = new HashMap<>();
        lines.forEach((line, free) -> laterLines.put(line, free + nanos));
        return new PlaybackState(
                plan,
                nowNanos + nanos,
                standby,
                last.map(l -> new Fired(l.cue, l.atNanos + nanos)),
                followOn.map(f -> f.shifted(nanos)),
                playing.map(p -> p.shifted(nanos)),
                begun.shifted(nanos),
                hand.shifted(nanos),
                laterAgenda,
                HashTreePMap.from(laterMoves),
                HashTreePMap.from(laterLines),
                told.shifted(nanos),
                laterAway,
                stopped,
                hearing,
                heldUp,
                patched,
                sounding,
                brought,
                straightUntil);
    }
}
