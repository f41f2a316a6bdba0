package underbaton.core.engine;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Shows;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.follow.Doing;
import underbaton.core.follow.Following;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.SystemCommon.QuarterFrame;
import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.core.rig.InStep.Vamping;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/**
 * Two shows with the same song and the same cues: one plays by itself and gives its time to a machine; what that machine gets goes over a
 * line that loses and delays, and is what the other one hears. Nobody but the line connects them.
 */
abstract class LedShow extends PlayedShow {

    /** How long whoever has the book worked out takes for that. */
    private static final long WORKS_OUT_NANOS = 20 * MS;

    static final long SLICE = 2 * MS;

    final PlayedShow leader = new PlayedShow() {};
    /** What is under way on the line: what arrives when. */
    private final Deque<Arrival> line = new ArrayDeque<>();

    private final List<MidiMessage> recovers = new ArrayList<>();
    final List<Happening> happened = new ArrayList<>();
    private Optional<Happening.PlaceWanted> wanted = Optional.empty();
    private long wantedSince;
    /** Of the leader's code. */
    Rate rate = Rate.PAL_25;

    Random random = new Random(1);
    double loss;
    long jitterNanos;
    /** Nothing goes over the line any more. */
    boolean cut;

    private long leaderNanos;

    private record Arrival(long nanos, MidiMessage message) {}

    /** @param score of both; @param starts of the cues */
    void both(Following.Kind kind, int aloneMillis, String score, String... starts) {
        show = Shows.small();
        newSong(this);
        song(score, starts);
        both(kind, aloneMillis, song());
        standBy(item());
    }

    /** The show that is there is played by both. @param itemId of the item that goes by the other's time */
    void both(Following.Kind kind, int aloneMillis, int itemId) {
        leader.show = Shows.device(show, "Other desk", Department.SOUND, 5);
        show = leader.show;
        boolean code = kind == Following.Kind.CODE;
        leader.show = leader.show.withDevice(
                last(leader).withInStep(new InStep(!code, code, false, rate, Vamping.COUNTS_ON)));
        leader.begin();
        Following how = new Following(last(this).id(), kind, Rate.PAL_25, aloneMillis, 10);
        show = show.withItem(show.item(itemId).orElseThrow().withFollows(Optional.of(how)), 0);
        begin();
    }

    private static void newSong(PlayedShow of) {
        of.show = of.show.withItem(
                new Item(0, ItemKind.SONG, "Song", 0, List.of()),
                of.show.items().size());
    }

    /** Begins anew with two others. */
    void clear() {
        line.clear();
        recovers.clear();
        happened.clear();
        sent.clear();
        leader.sent.clear();
        carried = 0;
        leaderNanos = 0;
        wanted = Optional.empty();
    }

    static Device last(PlayedShow of) {
        return of.show.devices().get(of.show.devices().size() - 1);
    }

    int song() {
        return show.items().get(show.items().size() - 1).id();
    }

    /** The first cue of the song. */
    String item() {
        return Planner.plan(show).cues().stream()
                .filter(c -> c.item().id() == song())
                .findFirst()
                .orElseThrow()
                .number()
                .toString();
    }

    void lead(Order order) {
        leader.order(order);
        carry();
    }

    /** Both go on for so long. */
    void together(long millis) {
        long end = leaderNanos + millis * MS;
        while (leaderNanos < end) {
            leaderNanos += SLICE;
            leader.hear(Engine.step(leader.state, Event.pass(leaderNanos)));
            carry();
            follow(leaderNanos);
        }
    }

    private int carried;

    private void carry() {
        for (; carried < leader.sent.size(); carried++) {
            ScheduledMessage m = leader.sent.get(carried);
            if (m.deviceId() == last(leader).id()) {
                carry((MidiMessage) m.message(), m.dueNanos());
            }
        }
    }

    /** A clock that is lost comes again with what comes next, as by the journal of a session; a quarter frame does not. */
    private void carry(MidiMessage message, long due) {
        boolean lost = cut || random.nextDouble() < loss;
        if (lost && message instanceof QuarterFrame) {
            return;
        }
        recovers.add(message);
        if (lost) {
            return;
        }
        long late = 5 * MS + (jitterNanos == 0 ? 0 : random.nextLong(2 * jitterNanos) - jitterNanos);
        long at = Math.max(due + late, line.isEmpty() ? 0 : line.peekLast().nanos);
        recovers.forEach(r -> line.add(new Arrival(at, r)));
        recovers.clear();
    }

    private void follow(long until) {
        while (true) {
            long arrives = line.isEmpty() ? Long.MAX_VALUE : line.peek().nanos;
            long worked = wanted.isPresent() ? wantedSince + WORKS_OUT_NANOS : Long.MAX_VALUE;
            if (Math.min(arrives, worked) > until) {
                break;
            }
            if (worked < arrives) {
                passTo(worked);
                bring();
            } else {
                MidiMessage message = line.poll().message;
                passTo(arrives);
                order(new Order.Heard(Source.of(last(this)), Signal.of(message, arrives)));
            }
        }
        passTo(until);
    }

    private void passTo(long nanos) {
        if (nanos > state.nowNanos()) {
            hear(Engine.step(state, Event.pass(nanos)));
        }
    }

    private void bring() {
        Happening.PlaceWanted to = wanted.orElseThrow();
        wanted = Optional.empty();
        Destination there = Destination.of(
                new Whereto.InItem(to.itemId(), to.fromNanos(), to.asOfNanos()),
                state,
                DryRun.of(state.plan()),
                state.nowNanos());
        there.before().forEach(this::order);
        order(there.catchUp(Set.of()));
        there.after().forEach(this::order);
    }

    @Override
    void hear(Step step) {
        super.hear(step);
        happened.addAll(step.happenings());
        for (Happening h : step.happenings()) {
            if (h instanceof Happening.PlaceWanted to) {
                wanted = Optional.of(to);
                wantedSince = step.next().nowNanos();
            }
        }
    }

    Doing doing() {
        return state.follow().doing().doing();
    }

    /** How much later the follower's music is than the leader's, ms. */
    double behindMillis() {
        long there = leader.state.playing().orElseThrow().position(leaderNanos);
        return (there - state.playing().orElseThrow().position(leaderNanos)) / 1e6;
    }

    /** When what goes to the lights was sent: bytes and ms. */
    static List<String> toLights(PlayedShow of) {
        int lights = of.show.devices().get(0).id();
        return of.sent.stream()
                .filter(m -> m.deviceId() == lights)
                .map(m -> ((MidiMessage) m.message()).encode().hex() + " @ " + m.dueNanos() / 1e6)
                .toList();
    }
}
