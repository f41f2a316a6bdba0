package underbaton.core.engine;

import java.util.Optional;
import java.util.OptionalLong;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.pcollections.TreePMap;
import underbaton.core.engine.call.Pending;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.move.Move;
import underbaton.core.engine.music.FollowOn;
import underbaton.core.engine.music.MusicState;
import underbaton.core.plan.Plan;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;

/**
 * What one item hands on to the next when the book is played straight through; moments count from where the next one begins.
 */
record Carried(
        Optional<FollowOn> followOn,
        TreePMap<Pending.Key, Pending> agenda,
        PMap<Control, Move> moves,
        PMap<Connection, Long> lines,
        DeviceStates told) {

    /** What the book takes for granted when the show begins. */
    static Carried first(Plan plan) {
        return new Carried(
                Optional.empty(),
                TreePMap.empty(),
                HashTreePMap.empty(),
                HashTreePMap.empty(),
                DeviceStates.first(plan));
    }

    /** Waves without an end go on, and the plan says no more of them. */
    static Carried of(PlaybackState state) {
        PMap<Control, Move> moves = state.moves();
        for (Move move : state.moves().values()) {
            if (move.isEndless()) {
                moves = moves.plus(move.motion().control(), move.silent());
            }
        }
        PMap<Connection, Long> lines = state.lines();
        for (var line : state.lines().entrySet()) {
            lines = line.getValue() <= state.nowNanos() ? lines.minus(line.getKey()) : lines;
        }
        return new Carried(state.followOn(), state.agenda(), moves, lines, state.told());
    }

    /**
     * At the beginning of an item.
     *
     * @param standby the place of its first cue
     * @param limit what is heard there or later is left out, ns since the item begins
     */
    PlaybackState into(Plan plan, int standby, long limit) {
        return PlaybackState.beginning(plan, OptionalLong.of(limit), MusicState.beginning(standby, followOn), this);
    }
}
