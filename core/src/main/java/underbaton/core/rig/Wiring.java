package underbaton.core.rig;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;

/**
 * The lines of a patch set, and which keyboards do not play their own sounds meanwhile.
 *
 * @param lines each of them once
 * @param localOff machines with local control off (MIDI 1.0, controller 122): their keys reach their own sounds through us alone
 */
public record Wiring(List<PatchLine> lines, Set<Integer> localOff) {

    public static final Wiring NONE = new Wiring(List.of(), Set.of());

    private static final int MOST = 500;

    public Wiring {
        lines = List.copyOf(lines);
        localOff = Collections.unmodifiableSet(new TreeSet<>(localOff));
        if (lines.size() > MOST) {
            throw new Refusal("lines", "A patch set has at most " + MOST + " lines; make it two sets.");
        }
        if (new HashSet<>(lines).size() < lines.size()) {
            throw new Refusal("line", "This line is in the set already, just so.");
        }
    }

    /** With one line more, behind the others. */
    public Wiring with(PatchLine line) {
        List<PatchLine> all = new ArrayList<>(lines);
        all.add(line);
        return new Wiring(all, localOff);
    }

    /** One line in the place of another, which is among them. */
    public Wiring with(PatchLine before, PatchLine line) {
        List<PatchLine> all = new ArrayList<>(lines);
        all.replaceAll(l -> l.equals(before) ? line : l);
        return new Wiring(all, localOff);
    }

    /** Without this line; as it was when it is not there. */
    public Wiring without(PatchLine line) {
        return new Wiring(lines.stream().filter(l -> !l.equals(line)).toList(), localOff);
    }

    /** A keyboard that is to sound by itself no longer, or again. */
    public Wiring withLocalOff(int machine, boolean off) {
        Set<Integer> all = new HashSet<>(localOff);
        if (off) {
            all.add(machine);
        } else {
            all.remove(machine);
        }
        return new Wiring(lines, all);
    }

    /** What of it lies between machines that are there. */
    public Wiring among(Predicate<Integer> isThere) {
        List<PatchLine> left = lines.stream()
                .filter(l -> isThere.test(l.from()) && isThere.test(l.to()))
                .toList();
        Set<Integer> off = new HashSet<>(localOff);
        off.removeIf(isThere.negate());
        return left.size() == lines.size() && off.size() == localOff.size() ? this : new Wiring(left, off);
    }
}
