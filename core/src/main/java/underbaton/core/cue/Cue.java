package underbaton.core.cue;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import underbaton.core.rig.Department;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;

/**
 * A numbered moment of an item.
 *
 * @param id unique in the show
 * @param what what happens, in a few words; may be empty
 * @param calls in the order in which they are sent
 * @param mark a colour for the eye; nothing of it is sent
 * @param note for other people, free text; may be empty
 * @param version the show's revision at the last change of this cue, so that a late editor can be told
 */
public record Cue(
        int id, CueNumber number, Start start, String what, List<Call> calls, Mark mark, String note, int version) {

    private static final int MOST_CALLS = 64;
    private static final int LONGEST_NOTE = 500;

    public Cue {
        what = Refusal.requireShort("what happens", what.strip(), 200);
        note = Refusal.requireShort("note", note.strip(), LONGEST_NOTE);
        calls = List.copyOf(calls);
        if (calls.size() > MOST_CALLS) {
            throw new Refusal("calls", "A cue holds at most " + MOST_CALLS + " calls; split it into two.");
        }
    }

    /** A cue without mark and note. */
    public Cue(int id, CueNumber number, Start start, String what, List<Call> calls, int version) {
        this(id, number, start, what, calls, Mark.NONE, "", version);
    }

    /** The cue as another one of the show, or, with id 0, as one that is still to be added. */
    public Cue withId(int newId) {
        return new Cue(newId, number, start, what, calls, mark, note, version);
    }

    /** The same with another version. */
    public Cue withVersion(int newVersion) {
        return new Cue(id, number, start, what, calls, mark, note, newVersion);
    }

    /** The same with another number. */
    public Cue withNumber(CueNumber newNumber) {
        return new Cue(id, newNumber, start, what, calls, mark, note, version);
    }

    /** The same with another start. */
    public Cue withStart(Start newStart) {
        return new Cue(id, number, newStart, what, calls, mark, note, version);
    }

    /** The same with another what. */
    public Cue withWhat(String newWhat) {
        return new Cue(id, number, start, newWhat, calls, mark, note, version);
    }

    /** The same with other calls. */
    public Cue withCalls(List<Call> newCalls) {
        return new Cue(id, number, start, what, newCalls, mark, note, version);
    }

    /** The same with other remarks. */
    public Cue withRemarks(Mark newMark, String newNote) {
        return new Cue(id, number, start, what, calls, newMark, newNote, version);
    }

    /** The cue with one device's calls exchanged; the other devices' calls keep their places. */
    public Cue withCallsFor(int deviceId, List<Call> deviceCalls) {
        return withCalls(Stream.concat(calls.stream().filter(c -> c.deviceId() != deviceId), deviceCalls.stream())
                .toList());
    }

    /**
     * What of its note is for a department: of its parts, between semicolons or on lines of their own, those that begin with its code and
     * a colon ({@code CM: close on the oar; LX: haze}), without that, and those that begin with none.
     */
    public String noteFor(Department department) {
        return note.lines()
                .flatMap(line -> Stream.of(line.split(";")))
                .map(String::strip)
                .filter(part -> Department.begins(part).map(department::equals).orElse(true))
                .map(part -> Department.begins(part).isEmpty()
                        ? part
                        : part.substring(part.indexOf(':') + 1).strip())
                .filter(part -> !part.isEmpty())
                .collect(Collectors.joining("; "));
    }

    /** What it says to this machine, in the order of the calls. */
    public List<Call> callsFor(int deviceId) {
        return calls.stream().filter(c -> c.deviceId() == deviceId).toList();
    }
}
