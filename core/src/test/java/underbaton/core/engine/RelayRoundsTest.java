package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalInt;
import java.util.PriorityQueue;
import java.util.Random;
import java.util.Set;
import java.util.function.IntUnaryOperator;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Shows;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.SpeechWording;
import underbaton.core.signal.Filling;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Scale;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/**
 * Relays between machines that answer what they are told, and machines that only say what a hand or a clock brings. Only
 * the first are loops; the world here knows which is which, the relays do not.
 */
class RelayRoundsTest extends PlayedShow {

    private static final int MACHINES = 4;
    private static final int TOLD = 30;
    private static final int SAYS = 50;

    private final int[] machines = new int[MACHINES];
    private final List<String> looped = new ArrayList<>();
    private final PriorityQueue<Coming> coming = new PriorityQueue<>(Comparator.comparingLong(Coming::nanos));

    /** Something that a machine will say. */
    private record Coming(long nanos, int machine, Message message) {}

    /** How a machine answers what it is told. @param nanos how long that takes */
    private record Answer(long nanos, IntUnaryOperator value) {}

    /** No way is exact to the millisecond. */
    private final Random jitter = new Random(7);

    private final Answer[] answers = new Answer[MACHINES];

    @BeforeEach
    void rig() {
        for (int i = 0; i < MACHINES; i++) {
            show = Shows.device(show, "Box " + i, Department.KEYS, i);
            Device device = show.devices().get(show.devices().size() - 1);
            machines[i] = device.id();
            show = show.withDevice(device.withConnection(new Connection.NetworkMidi("10.0.0." + (i + 1), 5004)));
        }
    }

    private void relay(int from, Pattern pattern, Passage passage) {
        show = show.withListener(new Listener(
                0,
                "relay " + from,
                Set.of(machines[from]),
                OptionalInt.empty(),
                pattern,
                new Reaction.PassOn(passage),
                0,
                0,
                false,
                true));
    }

    private Passage told(int to) {
        return new Passage.Written(
                machines[to],
                new SpeechWording(Numbering.WIRE).read("control " + TOLD + " to ?"),
                new Filling.Scaled(Scale.straight(0, 127, 0, 127)));
    }

    private void controls(int from, int to) {
        relay(from, new Pattern.Controller(SAYS, Pattern.Way.WITHIN, 0, 127), told(to));
    }

    // ---- the world

    private void say(long nanos, int machine, Message message) {
        coming.add(new Coming(nanos, machine, message));
    }

    /** @return how often the first machine said something */
    private int playUntil(long end) {
        int said = 0;
        while (true) {
            long next = coming.isEmpty() ? Long.MAX_VALUE : coming.peek().nanos;
            long moment = Math.min(Math.min(next, wake), end);
            Step step = Engine.step(state, Event.pass(moment));
            take(step);
            if (next <= moment && (coming.peek() != null && coming.peek().nanos <= moment)) {
                Coming c = coming.remove();
                said += c.machine == 0 ? 1 : 0;
                Device device = show.device(machines[c.machine]).orElseThrow();
                Source source = new Source(device.id(), device.name(), device.numbering());
                Signal signal = new Signal(c.message, ((MidiMessage) c.message).encode(), moment);
                take(Engine.step(state, Event.of(moment, new Order.Heard(source, signal))));
            } else if (moment >= end) {
                return said;
            }
        }
    }

    private long wake = Long.MAX_VALUE;

    private void take(Step step) {
        wake = step.wakeNanos();
        hear(step);
        for (Happening happening : step.happenings()) {
            if (happening instanceof Happening.Looped l) {
                looped.add(l.words());
            }
        }
        step.messages().forEach(this::answer);
    }

    private void answer(ScheduledMessage m) {
        for (int i = 0; i < MACHINES; i++) {
            if (machines[i] == m.deviceId() && answers[i] != null) {
                say(
                        m.dueNanos() + answers[i].nanos + jitter.nextInt(3) * MS,
                        i,
                        answered(m.message(), answers[i].value));
            }
        }
    }

    private static Message answered(Message message, IntUnaryOperator value) {
        if (message instanceof NoteOn n) {
            return new NoteOn(n.channel(), value.applyAsInt(n.note()), n.velocity());
        } else if (message instanceof NoteOff n) {
            return new NoteOff(n.channel(), value.applyAsInt(n.note()), n.velocity());
        }
        ControlChange c = (ControlChange) message;
        return new ControlChange(c.channel(), SAYS, value.applyAsInt(c.value()));
    }

    // ---- loops

    private static final List<IntUnaryOperator> CHANGES = List.of(
            v -> v,
            v -> (v + 1) & 127,
            v -> Math.max(0, v - 1),
            v -> 127 - v,
            v -> v * 3 + 1 & 127,
            v -> (v + 5) % 100);

    @Test
    void loopsOfAllKindsAreStoppedWithinTwentyRoundsAndTheWayIsFreeWhenItIsQuiet() {
        List<String> table = new ArrayList<>();
        int most = 0;
        for (int seed = 0; seed < 50; seed++) {
            Random random = new Random(seed);
            looped.clear();
            coming.clear();
            Arrays.fill(answers, null);
            show = Shows.small();
            rig();
            int relays = 2 + random.nextInt(3);
            boolean notes = random.nextInt(3) == 0;
            long round = 0;
            for (int i = 0; i < relays; i++) {
                int to = (i + 1) % relays;
                long takes = (long) (random.nextDouble() * 3 * SECOND / relays * (seed % 2 == 0 ? 1 : 0.02)) + MS;
                round += takes;
                IntUnaryOperator change = CHANGES.get(random.nextInt(CHANGES.size()));
                if (notes) {
                    relay(
                            i,
                            new Pattern.Note(0, 63, 1, 127, true),
                            new Passage.Through(machines[to], OptionalInt.of(to), 64));
                    answers[to] = new Answer(takes, v -> v - (v == 127 ? 64 : 63));
                } else {
                    controls(i, to);
                    answers[to] = new Answer(takes, change);
                }
            }
            state = PlaybackState.of(Planner.plan(show), 0);
            wake = Long.MAX_VALUE;
            say(SECOND, 0, notes ? new NoteOn(0, 40, 90) : new ControlChange(0, SAYS, 64));
            if (notes) {
                say(SECOND + Math.min(round / 3, 200 * MS), 0, new NoteOff(0, 40, 0));
            }
            int said = 0;
            long now = 0;
            while (looped.isEmpty() && now < 30 * round + 30 * SECOND) {
                now += round / 4 + MS;
                said += playUntil(now);
            }
            int rounds = notes ? said / 2 : said;
            table.add("seed %d: %d relays, a round of %d ms, %s: stopped after %d rounds"
                    .formatted(seed, relays, round / MS, notes ? "notes" : "controls", rounds));
            assertThat(looped).as(table.get(seed)).hasSize(1);
            assertThat(rounds).as(table.get(seed)).isLessThanOrEqualTo(20);
            most = Math.max(most, rounds);
            playUntil(now + 20 * SECOND);
            assertThat(looped).as(table.get(seed)).hasSize(2);
            assertThat(looped.get(1)).startsWith("listens again");
        }
        System.out.println("50 loops, each stopped after at most " + most + " rounds");
    }

    // ---- hands and clocks

    @Test
    void whatHandsAndClocksSayIsNoLoopAndComesInTime() {
        List<String> table = new ArrayList<>();
        long latestOfAll = 0;
        int lateOfAll = 0;
        int all = 0;
        for (int seed = 0; seed < 50; seed++) {
            Random random = new Random(seed);
            coming.clear();
            sent.clear();
            show = Shows.small();
            rig();
            controls(0, 1);
            state = PlaybackState.of(Planner.plan(show), 0);
            wake = Long.MAX_VALUE;
            int kind = seed % 5;
            List<Coming> hand = kind == 0 ? ride(random) : kind == 1 ? taps(random) : regular(random, kind);
            hand.forEach(coming::add);
            playUntil(hand.get(hand.size() - 1).nanos + 5 * SECOND);
            assertThat(looped).as("seed %d", seed).isEmpty();
            List<Integer> values = sent.stream()
                    .map(m -> ((ControlChange) m.message()).value())
                    .toList();
            assertThat(values)
                    .isEqualTo(hand.stream()
                            .map(c -> ((ControlChange) c.message).value())
                            .toList());
            long latest = 0;
            int late = 0;
            for (int i = 0; i < hand.size(); i++) {
                long by = sent.get(i).dueNanos() - hand.get(i).nanos;
                latest = Math.max(latest, by);
                late += by > 0 ? 1 : 0;
            }
            table.add("seed %d, %s: %d of %d late, by %d ms at most"
                    .formatted(
                            seed,
                            List.of("a ride", "taps", "a beat", "a wave", "a slow clock")
                                    .get(kind),
                            late,
                            hand.size(),
                            latest / MS));
            assertThat(latest).as(table.get(seed)).isLessThan(150 * MS);
            latestOfAll = Math.max(latestOfAll, latest);
            lateOfAll += late;
            all += hand.size();
        }
        System.out.println("50 hands and clocks, none stopped: %d of %d signals were kept back, by %d ms at most"
                .formatted(lateOfAll, all, latestOfAll / MS));
    }

    private List<Coming> ride(Random random) {
        List<Coming> ride = new ArrayList<>();
        long now = SECOND;
        for (int gesture = 0; gesture < 12; gesture++) {
            int steps = 20 + random.nextInt(300);
            double apart = SECOND * (0.3 + 3 * random.nextDouble()) / steps;
            for (int i = 0; i <= steps; i++) {
                now += (long) Math.max(MS, apart * (1 + random.nextGaussian() * 0.2));
                int value = 127 * i / steps;
                ride.add(new Coming(now, 0, new ControlChange(0, SAYS, gesture % 2 == 0 ? value : 127 - value)));
            }
            now += random.nextInt(1500) * MS;
        }
        return ride;
    }

    private List<Coming> taps(Random random) {
        List<Coming> taps = new ArrayList<>();
        long now = SECOND;
        long apart = (125 + random.nextInt(900)) * MS;
        for (int i = 0; i < 200; i++) {
            now += Math.max(20 * MS, apart + (long) (random.nextGaussian() * 15 * MS));
            taps.add(new Coming(now, 0, new ControlChange(0, SAYS, i % 2 * 127)));
        }
        return taps;
    }

    private List<Coming> regular(Random random, int kind) {
        List<Coming> beats = new ArrayList<>();
        long apart = kind == 2
                ? 60 * SECOND / (60 + random.nextInt(120)) / (1 + random.nextInt(4))
                : kind == 3 ? (5 + random.nextInt(45)) * MS : (1 + random.nextInt(4)) * SECOND;
        for (int i = 0; i < 200; i++) {
            beats.add(new Coming(SECOND + i * apart, 0, new ControlChange(0, SAYS, kind == 2 ? 100 : i * 7 % 128)));
        }
        return beats;
    }
}
