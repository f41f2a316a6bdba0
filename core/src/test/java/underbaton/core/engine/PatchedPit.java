package underbaton.core.engine;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchRange;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/** A pit of keyboards and sound modules with made-up patch sets, being played by hands that are remembered, and outputs that only hear. */
final class PatchedPit {

    static final int MACHINES = 4;
    static final List<Integer> PEDALS = List.of(64, 66, 67, 69);

    /** What is down under somebody's hands or feet. @param kind n for a note, p for a pedal, b for the wheel, a for pressure */
    record Down(int deviceId, int channel, char kind, int number) {}

    final Random random;
    private final Set<PatchLine> pool = new HashSet<>();
    Show show;
    PlaybackState state;
    /** With the message by which it went down. */
    final Map<Down, Message> down = new HashMap<>();

    /** By what is down, where it sounds by a plain reading of the lines that were in use when it went down, and since. */
    final Map<Down, Set<String>> sounding = new HashMap<>();

    final List<ScheduledMessage> said = new ArrayList<>();

    /** What an output is doing that counts how often a note was begun. */
    final Map<String, Integer> counting = new HashMap<>();

    /** What an output is doing where the first end ends a note. */
    final Set<String> plain = new TreeSet<>();

    PatchedPit(long seed) {
        random = new Random(seed);
        show = Show.empty(1, "Pit");
        for (int i = 1; i <= MACHINES; i++) {
            show = show.withDevice(machine("Keys " + i, i));
        }
        for (int i = 1; i <= 12; i++) {
            show = PatchBay.withNew(show, "Set " + i, wiring());
        }
        state = PlaybackState.of(Planner.plan(show), 0);
    }

    static Device machine(String name, int number) {
        return new Device(
                0,
                name,
                Department.KEYS,
                new Connection.NetworkMidi("10.0.0." + number, 5004),
                number - 1,
                Numbering.WIRE,
                0,
                List.of());
    }

    int anyMachine() {
        return show.devices().get(random.nextInt(MACHINES)).id();
    }

    Wiring wiring() {
        // Sets of one pit have lines in common.
        while (pool.size() < 12) {
            pool.add(line());
        }
        Set<PatchLine> lines = new HashSet<>(pool);
        lines.removeIf(l -> random.nextBoolean());
        Set<Integer> off = random.nextBoolean() ? Set.of(anyMachine()) : Set.of();
        return new Wiring(new ArrayList<>(lines), off);
    }

    PatchLine line() {
        Set<PatchKind> kinds = new HashSet<>();
        while (kinds.isEmpty()) {
            for (PatchKind kind : PatchKind.values()) {
                if (random.nextInt(4) > 0) {
                    kinds.add(kind);
                }
            }
        }
        return new PatchLine(
                anyMachine(),
                random.nextBoolean() ? OptionalInt.empty() : OptionalInt.of(random.nextInt(2)),
                anyMachine(),
                random.nextBoolean() ? OptionalInt.empty() : OptionalInt.of(random.nextInt(3)),
                kinds,
                range(0),
                range(1),
                range(0),
                range(0),
                random.nextInt(3) == 0 ? random.nextInt(25) - 12 : 0);
    }

    private PatchRange range(int least) {
        if (random.nextBoolean()) {
            return new PatchRange(least, 127);
        }
        int one = least + random.nextInt(128 - least);
        int other = least + random.nextInt(128 - least);
        return new PatchRange(Math.min(one, other), Math.max(one, other));
    }

    void load(Phrase set) {
        Device bay = PatchBay.of(show).orElseThrow();
        order(new Order.Fire(PlannedCall.of(bay, set), "by hand"));
    }

    void order(Order order) {
        Step step = Engine.step(state, Event.of(state.nowNanos() + 20_000_000, order));
        state = step.next();
        step.messages().forEach(this::hear);
    }

    /** Something on an input goes down or up, or something is moved that does not stay. */
    void playSomething() {
        if (!down.isEmpty() && random.nextInt(100) < 45) {
            letGo(new ArrayList<>(down.keySet()).get(random.nextInt(down.size())));
            return;
        }
        int device = anyMachine();
        int channel = random.nextInt(2);
        int number = 40 + random.nextInt(24);
        int value = 1 + random.nextInt(127);
        switch (random.nextInt(10)) {
            case 0, 1 -> {
                int pedal = PEDALS.get(random.nextInt(PEDALS.size()));
                press(new Down(device, channel, 'p', pedal), new ControlChange(channel, pedal, value));
            }
            case 2 -> press(new Down(device, channel, 'b', 0), new PitchBend(channel, 8193 + random.nextInt(8000)));
            case 3 -> press(new Down(device, channel, 'a', 0), new ChannelPressure(channel, value));
            case 4 -> play(device, new ControlChange(channel, 70 + random.nextInt(8), value));
            default -> press(new Down(device, channel, 'n', number), new NoteOn(channel, number, value));
        }
    }

    private void press(Down what, MidiMessage message) {
        if (what.kind != 'n' || !down.containsKey(what)) {
            down.put(what, message);
            Set<String> places = notes(what, state.patched().wiring().lines());
            places.addAll(sounding.getOrDefault(what, Set.of()));
            sounding.put(what, places);
            play(what.deviceId, message);
        }
    }

    /** Where a note that is down would sound by these lines. */
    Set<String> notes(Down what, Collection<PatchLine> lines) {
        Set<String> places = new HashSet<>();
        lines.forEach(line -> line.carried(what.deviceId, down.get(what)).ifPresent(m -> {
            if (m instanceof NoteOn on) {
                places.add(line.to() + " note " + on.channel() + " " + on.note());
            }
        }));
        return places;
    }

    void letGo(Down what) {
        down.remove(what);
        sounding.remove(what);
        MidiMessage end =
                switch (what.kind) {
                    case 'n' ->
                        random.nextBoolean()
                                ? new NoteOff(what.channel, what.number, random.nextInt(128))
                                : new NoteOn(what.channel, what.number, 0);
                    case 'p' -> new ControlChange(what.channel, what.number, 0);
                    case 'b' -> new PitchBend(what.channel, PitchBend.CENTRE);
                    default -> new ChannelPressure(what.channel, 0);
                };
        play(what.deviceId, end);
    }

    void play(int device, MidiMessage message) {
        Source source = Source.of(show.device(device).orElseThrow());
        order(new Order.Heard(source, Signal.of(message, state.nowNanos())));
    }

    private void hear(ScheduledMessage sent) {
        said.add(sent);
        Message message = sent.message();
        if (message instanceof NoteOn on) {
            String note = sent.deviceId() + " note " + on.channel() + " " + on.note();
            counting.merge(note, 1, Integer::sum);
            plain.add(note);
        } else if (message instanceof NoteOff off) {
            String note = sent.deviceId() + " note " + off.channel() + " " + off.note();
            counting.merge(note, -1, Integer::sum);
            counting.values().removeIf(n -> n == 0);
            plain.remove(note);
        } else if (message instanceof ControlChange change && PEDALS.contains(change.controller())) {
            stands(sent.deviceId() + " pedal " + change.channel() + " " + change.controller(), change.value() > 0);
        } else if (message instanceof PitchBend bend) {
            stands(sent.deviceId() + " bend " + bend.channel(), bend.bend() != PitchBend.CENTRE);
        } else if (message instanceof ChannelPressure pressure) {
            stands(sent.deviceId() + " pressure " + pressure.channel(), pressure.pressure() > 0);
        }
    }

    private void stands(String what, boolean down) {
        if (down) {
            plain.add(what);
        } else {
            plain.remove(what);
        }
    }
}
