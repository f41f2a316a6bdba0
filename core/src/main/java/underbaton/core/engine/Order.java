package underbaton.core.engine;

import java.util.OptionalLong;
import java.util.Set;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Wiring;
import underbaton.core.score.Anchor;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/** What can happen to a playing show. Unknown ids are ignored. */
public sealed interface Order {

    /** Time passes, and what is due happens. */
    record Pass() implements Order {}

    /**
     * Fires the standby cue and what comes with it; the next cue that waits for GO becomes the standby. While a vamp goes
     * round, it is released instead.
     */
    record Go() implements Order {}

    /** The standby goes back to the cue before; nothing is sent. */
    record Back() implements Order {}

    /** The standby goes on to the next cue that waits for GO; nothing is sent. */
    record Next() implements Order {}

    /**
     * Wants every machine brought to where the cue before the standby begins, and that cue given: it is told to whoever has the book
     * worked out ({@link Whereto.CueBefore}), and changes nothing by itself.
     */
    record CueBefore() implements Order {}

    /** Makes any cue the standby, also one that would come by itself; nothing is sent. */
    record StandBy(int cueId) implements Order {}

    /**
     * Plays an item from a place of it on, ns since it began; what comes before that place is not sent.
     *
     * @param cueId a cue that lands there, of which all that the book puts before it counts as given; 0 for none
     */
    record Play(int itemId, long fromNanos, int cueId) implements Order {

        /** Not to any cue of it. */
        public Play(int itemId, long fromNanos) {
            this(itemId, fromNanos, 0);
        }
    }

    /** The music stands still where it is; moves that have begun go on. */
    record Pause() implements Order {}

    /** The music goes on from where it stands. */
    record Resume() implements Order {}

    /** Goes to another place of the item that plays, ns since it began. */
    record Locate(long toNanos) implements Order {}

    /**
     * The music goes on from another place of the item that plays.
     *
     * @param fromNanos since the item began
     * @param asOfNanos the moment at which it is to have been there, by the clock of the events; empty for now
     */
    record PlayOn(long fromNanos, OptionalLong asOfNanos) implements Order {}

    /** Shifts the music against the performers by so many ns, forward or, below 0, back. */
    record Nudge(long nanos) implements Order {}

    /** The music goes so fast from now on, 1,000 being as written; 500 to 2,000. Cues that lie ahead come earlier or later by that. */
    record Pace(int permille) implements Order {}

    /** The music goes so much faster, or, below 0, slower. */
    record PaceBy(int permille) implements Order {}

    /** The music stands still, or goes on where it stands still already. */
    record PauseOrGoOn() implements Order {}

    /**
     * One beat of the tempo, as somebody hears it: from the second on the music goes as fast as the last few come. Taps more than two
     * seconds apart begin anew.
     */
    record Tap() implements Order {}

    /** Lets the vamp that goes round be left as it was told to. */
    record Release() implements Order {}

    /** Makes one call outside the running order; that of a guarded phrase only when it is ordered again within three seconds. @param words why, for the log */
    record Fire(PlannedCall call, String words) implements Order {}

    /** Drops what is still to come, leaves moves where they are, and stops all that goes on by itself. */
    record StopAll() implements Order {}

    /** The show leaves the desk: nothing more of it comes, what goes on by itself or sounds is ended; looks and levels stay as they are. */
    record PutAway() implements Order {}

    /** Takes over a changed book; the standby stays on its cue, or on the one that took its place. */
    record Adopt(Plan plan) implements Order {}

    /**
     * Makes devices what the book says they should be now.
     *
     * @param book the book's state at the moment that is to be reached
     * @param leftOut what is not to be made right
     * @param stands whether the music has stood, so that what has been called is taken for made
     */
    record CatchUp(PlaybackState book, Set<Correction.Key> leftOut, boolean stands) implements Order {

        /** Where the music has not stood. */
        public CatchUp(PlaybackState book, Set<Correction.Key> leftOut) {
            this(book, leftOut, false);
        }
    }

    /**
     * Breaks off what is under way in the item that plays, for it is to go on elsewhere: the music stands, calls that were to come late and
     * cues that follow do not come, moves stand where they are. Nothing is sent.
     */
    record BreakOff() implements Order {}

    /**
     * What the book has under way at the place from which is played on comes in its time: calls that come late, and a cue that follows.
     *
     * @param book the book's state at that place
     */
    record TakeUp(PlaybackState book) implements Order {}

    /**
     * The playing item is taken from the machine that leads it, or goes by its time again; one that stands by begins where the machine
     * is.
     */
    record Follow() implements Order {}

    /** An order that brings the show to where the machine is that leads it, and is nobody's own. */
    record Led(Order order) implements Order {}

    /** Leaves what plays: the music, what follows by itself and what is under way; a cue stands by, and nothing is sent. */
    record Leave(int cueId) implements Order {}

    /** A device can no longer be reached: what is sent to it from now on is not heard. */
    record Lost(int deviceId) implements Order {}

    /** It can be reached again, and has missed what was sent meanwhile. */
    record Found(int deviceId) implements Order {}

    /** Tells a device that was away what it has missed. */
    record BringUp(int deviceId) implements Order {}

    /** Somebody has looked: a device stands at a place of a list that it steps through. */
    record StandsAt(int deviceId, String list, int place) implements Order {}

    /** Something has come in. */
    record Heard(Source source, Signal signal) implements Order {}

    /** A hand cue's key is touched or let go. @param by who did it, for the log, with a blank behind it; may be empty */
    record Touch(int keyId, KeyTouch how, String by) implements Order {}

    /** Ends all that sounds at the outputs of the patch, whether we know of it or not; its lines stay. */
    record Hush() implements Order {}

    /** These lines are in use from now on, kept or not. @param setId the phrase that they are tried for */
    record TryPatch(int setId, Wiring wiring) implements Order {}

    /** From now on what comes in is listened to, or nothing is: the master switch. */
    record Listen(boolean on) implements Order {}

    /** Listeners listen tonight, or do so no longer, whatever is written of them. */
    record Arm(Set<Integer> listenerIds, boolean listens) implements Order {}

    /** From now on GO behaves so. */
    record Behave(GoOptions options) implements Order {}

    /**
     * The band has stopped: the music stands still, moves stop where they are, what the item set going gets its stop, and
     * looks stay.
     */
    record Hold() implements Order {}

    /** How far {@link Deed#EARLIER} and {@link Deed#LATER} shift the music. */
    long NUDGE_NANOS = 20_000_000;

    /** A hundredth, by which {@link Deed#FASTER} and {@link Deed#SLOWER} change the tempo. */
    int PACE_STEP = 10;

    /** What a deed orders, whichever way it comes. */
    static Order of(Deed deed) {
        return switch (deed) {
            case GO -> new Go();
            case BACK -> new Back();
            case NEXT -> new Next();
            case CUE_BEFORE -> new CueBefore();
            case STOP_ALL -> new StopAll();
            case HOLD -> new Hold();
            case PAUSE -> new PauseOrGoOn();
            case RESUME -> new Resume();
            case RELEASE -> new Release();
            case FOLLOW -> new Follow();
            case TAP -> new Tap();
            case FASTER -> new PaceBy(PACE_STEP);
            case SLOWER -> new PaceBy(-PACE_STEP);
            case AS_WRITTEN -> new Pace(Anchor.AS_WRITTEN);
            case EARLIER -> new Nudge(NUDGE_NANOS);
            case LATER -> new Nudge(-NUDGE_NANOS);
        };
    }
}
