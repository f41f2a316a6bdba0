package underbaton.core.cue;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchSet;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Wiring;

/**
 * A show's patch sets. They are the phrases of a machine of its own, our patch bay, each said by a program: so a cue calls one as it
 * calls anything, its number never shifts, and what is in use is known as of any machine. The edits answer another show each.
 */
public final class PatchBay {

    public static final String NAME = "Patch";
    private static final int PROGRAMS = 128;

    private PatchBay() {}

    /** The bay of this show, if it has patch sets. */
    public static Optional<Device> of(Show show) {
        return show.devices().stream().filter(PatchBay::is).findFirst();
    }

    /** Whether this machine is the bay: one of ours, behind no wire. */
    public static boolean is(Device device) {
        return device.connection() instanceof Connection.PatchBay;
    }

    /** In the order of their numbers. */
    public static List<Phrase> sets(Show show) {
        return of(show).map(Device::phrases).orElse(List.of()).stream()
                .filter(p -> p.patch().isPresent())
                .sorted((a, b) -> Integer.compare(program(a), program(b)))
                .toList();
    }

    /** The program that loads a set, 0–127; −1 for a phrase that says something else. */
    public static int program(Phrase set) {
        List<Message> says = set.says().messages();
        return says.size() == 1 && says.get(0) instanceof ProgramChange change ? change.program() : -1;
    }

    /** A new set with the next number, and the patch bay where there was none. @throws Refusal when all 128 numbers are given */
    public static Show withNew(Show show, String name, Wiring wiring) {
        Show with = of(show).isPresent() ? show : show.withDevice(bay(show));
        Device bay = of(with).orElseThrow();
        Set<Integer> taken = new HashSet<>();
        bay.phrases().forEach(p -> taken.add(program(p)));
        int program = IntStream.range(0, PROGRAMS)
                .filter(n -> !taken.contains(n))
                .findFirst()
                .orElseThrow(() -> new Refusal("name", "All 128 numbers are given; take a set away first."));
        Phrase set = new Phrase(0, name, List.of(new ProgramChange(0, program)), Effect.HOLDS, false);
        return with.withPhrase(bay.id(), set.withPatch(new PatchSet(wiring, Optional.empty())));
    }

    /** Exchanges a set for a changed one. @throws Refusal when its name or number is another's */
    public static Show with(Show show, Phrase set) {
        Device bay = of(show).orElseThrow(PatchBay::gone);
        require(show, set.id());
        bay.phrases().stream()
                .filter(p -> p.id() != set.id() && program(p) == program(set))
                .findFirst()
                .ifPresent(p -> {
                    throw new Refusal("number", "“" + p.name() + "” has that number already; take another.");
                });
        return show.withPhrase(bay.id(), set);
    }

    /** @throws underbaton.core.rig.Refusal when the set is gone */
    public static Phrase require(Show show, int setId) {
        return of(show).flatMap(b -> b.phrase(setId)).orElseThrow(PatchBay::gone);
    }

    private static Refusal gone() {
        return new Refusal("set", "That patch set is no longer in the show; reload the page.");
    }

    /** It counts its sets from 1, whatever else is on its line. */
    private static Device bay(Show show) {
        String name = NAME;
        for (int n = 2; taken(show, name); n++) {
            name = NAME + " " + n;
        }
        Numbering numbering = new Numbering(1, 0, Numbering.WIRE.firstOctave());
        return new Device(0, name, Department.KEYS, new Connection.PatchBay(), 0, numbering, 0, List.of());
    }

    private static boolean taken(Show show, String name) {
        return show.devices().stream().anyMatch(d -> d.name().equalsIgnoreCase(name));
    }
}
