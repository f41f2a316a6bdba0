package underbaton.core.engine.catchup;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import underbaton.core.engine.catchup.Correction.Kind;
import underbaton.core.engine.device.Pointer;
import underbaton.core.engine.device.Slot;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Along;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;

/**
 * What makes one device right, worked out by telling it, on paper, one thing after the other: first what must stop, then what
 * it should hold and run, in the order in which the book came to it; then, with what those took along, its levels and its
 * places. Whatever turns out not to be needed is left out again.
 */
final class Difference {

    private static final long SECOND = 1_000_000_000;

    private final Plan plan;
    private final Device device;
    private final DeviceSnapshot wants;
    private final DeviceSnapshot before;
    private DeviceSnapshot has;
    private final List<Correction> found = new ArrayList<>();

    Difference(Plan plan, Device device, DeviceSnapshot wants, DeviceSnapshot has) {
        this.plan = plan;
        this.device = device;
        this.wants = wants;
        this.before = has;
        this.has = has;
    }

    List<Correction> corrections() {
        stopWhatRuns();
        wants.state().slots().forEach(this::make);
        leaveOut();
        found.sort(Comparator.comparingInt(Difference::rank));
        List<Correction> slots = List.copyOf(found);
        has = before;
        slots.forEach(c -> has = has.after(c));
        LevelDifference levels = new LevelDifference(device, wants, has);
        wants.levels().forEach((control, want) -> levels.of(control, want).ifPresent(found::add));
        wants.state().pointers().forEach(this::place);
        return List.copyOf(found);
    }

    /** Where steps come: before what the book has the device hold after them, for a step may show what was hidden. */
    private int placeOf(Pointer pointer) {
        for (int i = 0; i < found.size(); i++) {
            Correction c = found.get(i);
            boolean slot = c.key().kind() == Kind.SLOT || c.key().kind() == Kind.RUNS;
            if (slot
                    && takenAfter(pointer).anyMatch(s -> s.name().equals(c.key().name()))) {
                return i;
            }
        }
        return found.size();
    }

    /** What the book has the device take after it came to this place. */
    private Stream<Slot> takenAfter(Pointer pointer) {
        return wants.state().slots().stream()
                .filter(s -> s.sinceNanos() > pointer.sinceNanos())
                .filter(s -> !s.call().effect().takesAlong(Along.LISTS));
    }

    /** Steps may show what is hidden: what is right before them is told once more after them. */
    private void hideAgain(Pointer pointer) {
        Set<String> told = found.stream().map(c -> c.key().name()).collect(Collectors.toSet());
        takenAfter(pointer)
                .filter(s -> (s.holds() || s.stopped()) && !told.contains(s.name()))
                .forEach(s ->
                        add(Kind.SLOT, s.name(), words(Optional.of(s)), s.call().phrase(), Optional.of(s.call())));
    }

    /** What stops comes before what starts; then programs, controls, notes. */
    private static int rank(Correction correction) {
        if (correction.calls().isEmpty()) {
            return Integer.MAX_VALUE;
        }
        PlannedCall first = correction.calls().get(0);
        return first.effect().kind() == Effect.Kind.STOPS ? -1 : first.kind();
    }

    /** A correction without which all would be as right is none. */
    private void leaveOut() {
        int i = found.size() - 1;
        while (i >= 0) {
            List<Correction> others = new ArrayList<>(found);
            others.remove(i);
            DeviceSnapshot without = before;
            for (Correction other : others) {
                without = without.after(other);
            }
            if (found.get(i).isPossible() && slotsAreRight(without)) {
                found.remove(i);
                // What was needed because of it may not be any more.
                i = found.size();
            }
            i--;
        }
    }

    private boolean slotsAreRight(DeviceSnapshot snapshot) {
        Difference rest = new Difference(plan, device, wants, snapshot);
        rest.stopWhatRuns();
        wants.state().slots().forEach(rest::make);
        return rest.found.stream().noneMatch(Correction::isPossible);
    }

    // ---- what is held, and what runs

    private void stopWhatRuns() {
        for (Slot slot : before.state().slots()) {
            boolean stillRuns = has.state().slots().contains(slot) && slot.runsAt(has.nanos());
            if (stillRuns && wants.state().slot(slot.name()).isEmpty()) {
                Optional<PlannedCall> stop = Stops.of(plan, device.id(), slot);
                add(Kind.RUNS, slot.name(), slot.call().phrase() + " runs", "nothing runs", stop);
            }
        }
    }

    private void make(Slot want) {
        if (want.stopped()) {
            stop(want);
        } else if (want.holds()) {
            hold(want);
        } else if (want.runsAt(wants.nanos())) {
            run(want);
        } else {
            over(want);
        }
    }

    /** The book has ended this, or everything before it. */
    private void stop(Slot want) {
        List<Slot> goesOn = has.state().slots().stream()
                .filter(s -> want.name().isEmpty()
                        ? wants.state()
                                .slot(s.name())
                                .filter(w -> !w.equals(want))
                                .isEmpty()
                        : s.name().equals(want.name()))
                .filter(s -> s.holds() || s.runsAt(has.nanos()))
                .toList();
        if (goesOn.isEmpty() && isKnown(want.name())) {
            return;
        }
        String now =
                goesOn.isEmpty() ? "" : goesOn.get(goesOn.size() - 1).call().phrase();
        add(Kind.SLOT, want.name(), now, want.call().phrase(), Optional.of(want.call()));
    }

    /** Whether it was told of a slot; of no name in particular, of all that its phrases can take. */
    private boolean isKnown(String name) {
        if (has.state().slot("").filter(Slot::stopped).isPresent()) {
            return true;
        }
        if (!name.isEmpty() && has.state().slot(name).isPresent()) {
            return true;
        }
        List<Effect> takers = device.phrases().stream()
                .map(Phrase::effect)
                .filter(e -> e.kind() == Effect.Kind.STARTS || e.kind() == Effect.Kind.HOLDS)
                .filter(e -> name.isEmpty() || Slot.key(e).equals(name))
                .toList();
        return (name.isEmpty() || !takers.isEmpty()) && takers.stream().allMatch(this::isKnown);
    }

    /** What takes along what runs leaves nothing running that was not set going after it. */
    private boolean isKnown(Effect effect) {
        boolean ended = effect.kind() == Effect.Kind.STARTS
                && has.state().slots().stream().anyMatch(s -> s.call().effect().takesAlong(Along.RUNS));
        return ended || has.state().slot(Slot.key(effect)).isPresent();
    }

    private void hold(Slot want) {
        Optional<Slot> now = has.state().slot(want.name());
        boolean same = now.filter(s -> isAgain(s.call(), want.call())).isPresent();
        if (!same || movedSince(want) || isShownAgain(now.get(), want)) {
            add(Kind.SLOT, want.name(), words(now), want.call().phrase(), Optional.of(want.call()));
        }
    }

    /** Something was set after the scene that the book leaves as the scene has it: only the scene itself brings it back. */
    private boolean movedSince(Slot scene) {
        if (!scene.call().effect().takesAlong(Along.LEVELS)) {
            return false;
        }
        boolean levels =
                has.levels().keySet().stream().anyMatch(c -> !wants.levels().containsKey(c));
        boolean slots = has.state().slots().stream()
                .anyMatch(s -> s.holds() && wants.state().slot(s.name()).isEmpty());
        return levels || slots;
    }

    /** Stepped on since then, it may show what was hidden; in the book no step came after it. */
    private boolean isShownAgain(Slot now, Slot want) {
        return !want.call().effect().takesAlong(Along.LISTS)
                && has.state().pointers().stream()
                        .filter(p -> p.call().isPresent() && p.sinceNanos() > now.sinceNanos())
                        .anyMatch(p -> wants.state()
                                .pointer(p.name())
                                .filter(w -> w.sinceNanos() > want.sinceNanos())
                                .isEmpty());
    }

    private void run(Slot want) {
        Optional<Slot> now = has.state().slot(want.name());
        long elapsed = wants.nanos() - want.sinceNanos();
        boolean timed = Restart.isTimed(device, want);
        boolean runs = now.filter(s -> isSamePhrase(s.call(), want.call()) && s.runsAt(has.nanos()))
                .filter(s -> !timed || Math.abs(has.nanos() - s.sinceNanos() - elapsed) <= Restart.TOLERANCE_NANOS)
                .isPresent();
        if (runs) {
            return;
        }
        Optional<PlannedCall> call = Restart.of(device, want, elapsed);
        if (timed && now.isPresent() && call.isPresent() && isNoNearer(now.get(), want, call.get(), elapsed)) {
            return;
        }
        String since = timed ? " at %d:%02d".formatted(elapsed / SECOND / 60, elapsed / SECOND % 60) : "";
        add(Kind.RUNS, want.name(), words(now), want.call().phrase() + since, call);
    }

    /** Whether it runs already, and no farther from its time than the machine can be told. */
    private boolean isNoNearer(Slot now, Slot want, PlannedCall call, long elapsed) {
        return isSamePhrase(now.call(), want.call())
                && now.runsAt(has.nanos())
                && Math.abs(has.nanos() - now.sinceNanos() - elapsed)
                        <= Math.abs(call.fromNanos() - elapsed) + Restart.TOLERANCE_NANOS / 2;
    }

    /** What has come to its end by itself; a device that nobody knows of may be in the middle of it. */
    private void over(Slot want) {
        Optional<Slot> now = has.state().slot(want.name());
        boolean goesOn = now.filter(s -> s.holds() || s.runsAt(has.nanos())).isPresent();
        if (goesOn || !isKnown(want.name())) {
            String over = want.call().phrase() + " is over";
            add(Kind.RUNS, want.name(), words(now), over, Stops.of(plan, device.id(), now.orElse(want)));
        }
    }

    private static boolean isSamePhrase(PlannedCall one, PlannedCall other) {
        return one.phraseId() == other.phraseId();
    }

    private static boolean isAgain(PlannedCall one, PlannedCall other) {
        return isSamePhrase(one, other) && one.messages().equals(other.messages());
    }

    private static String words(Optional<Slot> slot) {
        return slot.map(s -> s.call().phrase()).orElse("");
    }

    // ---- places

    private void place(Pointer want) {
        if (want.place().isEmpty()) {
            return;
        }
        OptionalInt now = has.state().pointer(want.name()).map(Pointer::place).orElse(OptionalInt.empty());
        if (now.isPresent() && now.getAsInt() == want.place().getAsInt()) {
            return;
        }
        List<PlannedCall> way =
                new Steps(device, want.name()).way(now, want.place().getAsInt());
        String list = want.name().isEmpty() ? "place" : want.name();
        found.add(
                placeOf(want),
                new Correction(
                        new Correction.Key(device.id(), Kind.PLACE, want.name()),
                        now.isPresent() ? list + " " + now.getAsInt() : "",
                        list + " " + want.place().getAsInt(),
                        way,
                        Optional.empty(),
                        way.stream().anyMatch(this::isGuarded)));
        if (!way.isEmpty()) {
            hideAgain(want);
        }
    }

    // ---- what was found

    private void add(Kind kind, String name, String now, String wanted, Optional<PlannedCall> call) {
        Correction correction = new Correction(
                new Correction.Key(device.id(), kind, name),
                now,
                wanted,
                call.map(List::of).orElse(List.of()),
                Optional.empty(),
                call.filter(this::isGuarded).isPresent());
        found.add(correction);
        has = has.after(correction);
    }

    private boolean isGuarded(PlannedCall call) {
        return device.phrase(call.phraseId()).filter(Phrase::guarded).isPresent();
    }
}
