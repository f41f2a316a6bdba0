package underbaton.core.engine.device;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Along;
import underbaton.core.rig.Effect;
import underbaton.core.rig.StepList;

/**
 * What a device holds, and where it stands in its lists. Immutable.
 *
 * @param slots in the order in which they were taken, the newest last
 * @param pointers in the order in which they were moved
 */
public record DeviceState(List<Slot> slots, List<Pointer> pointers) {

    private static final long INSTANT_NANOS = 1_000;

    public static final DeviceState UNKNOWN = new DeviceState(List.of(), List.of());

    /** Before the show begins, as the book has it: each list stands at its first place. */
    public static DeviceState first(List<StepList> lists) {
        return lists.isEmpty() ? UNKNOWN : new DeviceState(List.of(), firstPlaces(lists, 0));
    }

    private static List<Pointer> firstPlaces(List<StepList> lists, long nanos) {
        return lists.stream()
                .map(l -> new Pointer(Slot.key(l.of()), OptionalInt.of(StepList.FIRST), Optional.empty(), nanos))
                .toList();
    }

    /** What stands in the slot of this name; empty when nobody knows. */
    public Optional<Slot> slot(String name) {
        return slots.stream().filter(s -> s.name().equals(name)).findFirst();
    }

    /** Where the pointer of this name stands; empty when nobody knows. */
    public Optional<Pointer> pointer(String name) {
        return pointers.stream().filter(p -> p.name().equals(name)).findFirst();
    }

    /**
     * The device after a call.
     *
     * @param nanos when it was made
     * @param lists those that the device steps through
     */
    public DeviceState after(PlannedCall call, long nanos, List<StepList> lists) {
        return made(call, behindAll(nanos), lists);
    }

    /** Of calls of one instant the later one is known to be later. */
    private long behindAll(long nanos) {
        long last = nanos - 1;
        for (Slot slot : slots) {
            last = slot.sinceNanos() - nanos < INSTANT_NANOS ? Math.max(last, slot.sinceNanos()) : last;
        }
        for (Pointer pointer : pointers) {
            last = pointer.sinceNanos() - nanos < INSTANT_NANOS ? Math.max(last, pointer.sinceNanos()) : last;
        }
        return last + 1;
    }

    private DeviceState made(PlannedCall call, long nanos, List<StepList> lists) {
        return switch (call.effect().kind()) {
            case HOLDS, STARTS, STOPS ->
                new DeviceState(
                        taken(call, nanos),
                        call.effect().takesAlong(Along.LISTS) ? firstPlaces(lists, nanos) : pointers);
            case STEPS, SETS -> new DeviceState(slots, moved(call, nanos, lists));
            case MOMENT, LEVELS -> this;
        };
    }

    /** With something that runs, in its slot, set going by an item. */
    public DeviceState setGoingBy(int itemId, String slot) {
        List<Slot> owned = slots.stream()
                .map(s -> s.name().equals(slot) && s.itemId() != itemId ? s.of(itemId) : s)
                .toList();
        return owned.equals(slots) ? this : new DeviceState(owned, pointers);
    }

    /** Without the slots whose call says a message that the device never got. */
    public DeviceState without(Message cut) {
        List<Slot> left = slots.stream()
                .filter(s ->
                        s.call().messages().stream().noneMatch(t -> t.message().equals(cut)))
                .toList();
        return left.size() == slots.size() ? this : new DeviceState(left, pointers);
    }

    /** The same, of the call alone whose message was due then. */
    DeviceState without(Message cut, long dueNanos) {
        List<Slot> left = slots.stream().filter(s -> !s.says(cut, dueNanos)).toList();
        return left.size() == slots.size() ? this : new DeviceState(left, pointers);
    }

    /** With a pointer that stands somewhere else. */
    public DeviceState with(Pointer pointer) {
        List<Pointer> all = new ArrayList<>(pointers);
        all.removeIf(p -> p.name().equals(pointer.name()));
        all.add(pointer);
        return new DeviceState(slots, List.copyOf(all));
    }

    /** What stops with no name ends all that is held or goes on; what takes levels along changes all that is held; what takes along what runs ends it. */
    private List<Slot> taken(PlannedCall call, long nanos) {
        Slot now = Slot.of(call, nanos);
        List<Slot> left = new ArrayList<>(slots.size() + 1);
        boolean all = now.stopped() && now.name().isEmpty();
        boolean levels = call.effect().takesAlong(Along.LEVELS);
        boolean runs = call.effect().takesAlong(Along.RUNS);
        for (Slot slot : slots) {
            boolean taken = all || slot.name().equals(now.name()) || levels && slot.holds() || runs && slot.starts();
            if (!taken) {
                left.add(slot);
            }
        }
        left.add(now);
        return List.copyOf(left);
    }

    private List<Pointer> moved(PlannedCall call, long nanos, List<StepList> lists) {
        Effect effect = call.effect();
        String name = Slot.key(effect);
        List<Pointer> left = new ArrayList<>(pointers.size() + 1);
        OptionalInt place = effect.kind() == Effect.Kind.SETS ? OptionalInt.of(effect.amount()) : OptionalInt.empty();
        for (Pointer pointer : pointers) {
            if (!pointer.name().equals(name)) {
                left.add(pointer);
            } else if (effect.kind() == Effect.Kind.STEPS && pointer.place().isPresent()) {
                place = OptionalInt.of(within(pointer.place().getAsInt() + effect.amount(), name, lists));
            }
        }
        left.add(new Pointer(name, place, Optional.of(call), nanos));
        return List.copyOf(left);
    }

    /** A machine that is at either end of a list stays there. */
    private static int within(int place, String name, List<StepList> lists) {
        for (StepList list : lists) {
            if (Slot.key(list.of()).equals(name)) {
                return Math.max(StepList.FIRST, Math.min(list.places(), place));
            }
        }
        return place;
    }

    /** What a glance at the device shows: what it was told last of all that lasts. */
    public Optional<PlannedCall> shows() {
        Slot slot = null;
        for (Slot s : slots) {
            slot = s.stopped() ? slot : s;
        }
        Pointer pointer = pointers.isEmpty() ? null : pointers.get(pointers.size() - 1);
        if (slot == null || pointer != null && pointer.sinceNanos() > slot.sinceNanos()) {
            return Optional.ofNullable(pointer).flatMap(Pointer::call);
        }
        return Optional.of(slot.call());
    }

    /** Whether it holds the same and stands at the same places, since whenever it does. */
    public boolean isAlso(DeviceState other) {
        return slots.size() == other.slots.size()
                && pointers.size() == other.pointers.size()
                && slots.stream().allMatch(s -> other.slot(s.name())
                        .filter(o -> o.call().equals(s.call()))
                        .isPresent())
                && pointers.stream().allMatch(p -> other.pointer(p.name())
                        .filter(o -> o.place().equals(p.place()))
                        .isPresent());
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public DeviceState shifted(long nanos) {
        return nanos == 0 || slots.isEmpty() && pointers.isEmpty()
                ? this
                : new DeviceState(
                        slots.stream().map(s -> s.shifted(nanos)).toList(),
                        pointers.stream().map(p -> p.shifted(nanos)).toList());
    }
}
