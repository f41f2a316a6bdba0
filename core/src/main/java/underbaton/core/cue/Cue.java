package underbaton.core.cue;

import java.util.List;
import java.util.stream.Stream;
import underbaton.core.rig.Refusal;

/**
 * A numbered moment of an item.
 *
 * @param id unique in the show
 * @param what what happens, in a few words; may be empty
 * @param calls in the order in which they are sent
 * @param version the show's revision at the last change of this cue, so that a late editor can be told
 */
public record Cue(int id, CueNumber number, Start start, String what, List<Call> calls, int version) {

    private static final int MOST_CALLS = 64;

    public Cue {
        what = Refusal.requireShort("what happens", what.strip(), 200);
        calls = List.copyOf(calls);
        if (calls.size() > MOST_CALLS) {
            throw new Refusal("calls", "A cue holds at most " + MOST_CALLS + " calls; split it into two.");
        }
    }

    public Cue withVersion(int newVersion) {
        return new Cue(id, number, start, what, calls, newVersion);
    }

    public Cue withNumber(CueNumber newNumber) {
        return new Cue(id, newNumber, start, what, calls, version);
    }

    public Cue withStart(Start newStart) {
        return new Cue(id, number, newStart, what, calls, version);
    }

    public Cue withWhat(String newWhat) {
        return new Cue(id, number, start, newWhat, calls, version);
    }

    public Cue withCalls(List<Call> newCalls) {
        return new Cue(id, number, start, what, newCalls, version);
    }

    /** The cue with one device's calls exchanged; the other devices' calls keep their places. */
    public Cue withCallsFor(int deviceId, List<Call> deviceCalls) {
        return withCalls(Stream.concat(calls.stream().filter(c -> c.deviceId() != deviceId), deviceCalls.stream())
                .toList());
    }

    public List<Call> callsFor(int deviceId) {
        return calls.stream().filter(c -> c.deviceId() == deviceId).toList();
    }
}
