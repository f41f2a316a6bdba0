package underbaton.core.engine;

import java.util.Optional;
import java.util.OptionalLong;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.pcollections.TreePMap;
import underbaton.core.engine.PlaybackState.FollowOn;
import underbaton.core.engine.PlaybackState.Later;
import underbaton.core.plan.Plan;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;
import underbaton.core.signal.Hearing;

/**
 * What one item hands on to the next when the book is played straight through; moments count from where the next one begins.
 */
record Carried(
        Optional<FollowOn> followOn,
        TreePMap<Later.Key, Later> agenda,
        PMap<Control, Move> moves,
        PMap<Connection, Long> lines,
        Told told) {

    /** What the book takes for granted when the show begins. */
    static Carried first(Plan plan) {
        return new Carried(
                Optional.empty(), TreePMap.empty(), HashTreePMap.empty(), HashTreePMap.empty(), Told.first(plan));
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
        return new PlaybackState(
                plan,
                0,
                standby,
                Optional.empty(),
                followOn,
                Optional.empty(),
                Begun.NONE,
                Hand.FIRST,
                agenda,
                moves,
                lines,
                told,
                HashTreePMap.empty(),
                false,
                Hearing.FIRST,
                HeldUp.NOTHING,
                Patched.NOTHING,
                Sounding.NOTHING,
                0,
                OptionalLong.of(limit));
    }
}
