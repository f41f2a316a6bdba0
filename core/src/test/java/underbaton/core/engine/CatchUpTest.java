package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import underbaton.core.engine.catchup.CatchUp;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.device.Absence;
import underbaton.core.engine.move.Move;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.Message;
import underbaton.core.plan.Level;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Control;

/**
 * From any moment of a walk through a show to any moment of its book: after catch-up the machines are as they are when the
 * book was played straight through to there, and not one message could have been left out.
 */
class CatchUpTest {

    private static final int SHOWS = 500;
    private static final long SECOND = 1_000_000_000L;
    /** Longer than any move that comes to an end. */
    private static final long GOES_ON = 10 * SECOND;

    static LongStream seeds() {
        return LongStream.range(0, Long.getLong("baton.seeds", SHOWS));
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void everyMachineIsRightAndNoMessageIsTooMany(long seed) {
        Random random = new Random(seed);
        Plan plan = Planner.plan(PlayableShows.show(seed, true));
        Straight straight = new Straight(plan, random);
        Walk walk = new Walk(plan, random);
        walk.go(20);
        walk.order(new Order.Leave(0));

        List<Correction> corrections = walk.state.correctionsTo(straight.book);
        List<Correction> made = CatchUp.without(corrections, Set.of());
        noMessageIsTooMany(seed, walk, straight, made);

        Set<String> notKnown = impossible(corrections, plan);
        walk.order(new Order.CatchUp(straight.book, Set.of()));
        walk.pass(GOES_ON);
        Set<String> inWaves = straight.inWaves();
        straight.goOn(GOES_ON);
        Map<String, String> wants = straight.parts();
        wants.keySet().removeAll(notKnown);
        assertThat(wrong(wants, walk.machines.parts(walk.state.nowNanos()), inWaves))
                .as("seed %d, made %s", seed, made)
                .isEmpty();
        assertThat(CatchUp.without(walk.state.correctionsTo(straight.book), Set.of()))
                .as("seed %d: nothing is left to be made right", seed)
                .isEmpty();
    }

    private static void noMessageIsTooMany(long seed, Walk walk, Straight straight, List<Correction> made) {
        List<Message> messages = walk.messages(made);
        Map<String, String> wants = straight.parts();
        Map<String, String> all = walk.heardWith(messages, -1);
        for (int i = 0; i < messages.size(); i++) {
            Map<String, String> without = walk.heardWith(messages, i);
            assertThat(asWanted(without, wants))
                    .as("seed %d: %s of %s is of no use", seed, messages.get(i), messages)
                    .isNotEqualTo(asWanted(all, wants));
        }
    }

    /** Of the parts of some machines those that the book speaks of, and those that go on though the book does not. */
    private static Map<String, String> asWanted(Map<String, String> parts, Map<String, String> wants) {
        Map<String, String> left = new TreeMap<>(parts);
        left.keySet().removeIf(part -> !wants.containsKey(part) && !runs(part, parts.get(part)));
        return left;
    }

    private static boolean runs(String part, String value) {
        return value.equals("runs") || part.equals(Machines.FILM) && !value.equals("off");
    }

    private static Map<String, String> wrong(Map<String, String> wants, Map<String, String> has, Set<String> inWaves) {
        Map<String, String> wrong = new TreeMap<>();
        wants.forEach((part, value) -> {
            String now = has.get(part);
            boolean near = inWaves.contains(part)
                    ? Math.abs(number(now) - number(value)) <= 1
                    : part.equals(Machines.FILM) && Math.abs(number(now) - number(value)) <= 3;
            if (!value.equals(now) && !near) {
                wrong.put(part, now + " instead of " + value);
            }
        });
        has.forEach((part, value) -> {
            if (!wants.containsKey(part) && runs(part, value)) {
                wrong.put(part, "runs");
            }
        });
        return wrong;
    }

    /** Half a second more or less, and a second for the phrase's own step, are near; a film's end is its last moment. */
    private static int number(String value) {
        return "off".equals(value)
                ? (int) (PlayableShows.FILM_NANOS / Machines.FILM_STEP)
                : value != null && value.matches("\\d+") ? Integer.parseInt(value) : -1000;
    }

    /** What nothing can make right is told, and must be so. */
    private static Set<String> impossible(List<Correction> corrections, Plan plan) {
        Set<String> parts = new HashSet<>();
        for (Correction c : corrections) {
            if (!c.isPossible()) {
                assertThat(plan.device(c.key().deviceId()).orElseThrow().name())
                        .as("the one machine that can stand nobody knows where: %s", c)
                        .isEqualTo("Tablet");
                parts.add("tablet song");
            }
        }
        return parts;
    }

    /** The book played straight through to some moment of it. */
    private static final class Straight {

        private final Machines machines = new Machines(1);
        private PlaybackState book;
        /** When the item that it is in began, had the clock gone on from the first. */
        private long began;

        Straight(Plan plan, Random random) {
            int index = random.nextInt(plan.cues().size());
            PlannedItem last = random.nextBoolean()
                    ? plan.item(plan.cues().get(index).item().id()).orElseThrow()
                    : plan.items().get(random.nextInt(plan.items().size()));
            boolean byCue = plan.firstOf(last.item().id()) <= index
                    && index < plan.firstOf(last.item().id()) + last.cues().size();
            Carried carried = Carried.first(plan);
            for (PlannedItem item : plan.items()) {
                if (item == last) {
                    book = byCue
                            ? StraightPlay.before(
                                    plan,
                                    item,
                                    carried,
                                    index - plan.firstOf(item.item().id()),
                                    order -> ItemProgress.BEFORE,
                                    this::hear)
                            : StraightPlay.before(
                                    plan, item, carried, (long) (random.nextDouble() * 34 * SECOND), this::hear);
                    return;
                }
                StraightPlay play = new StraightPlay(plan, item, carried);
                for (Optional<Step> step = play.next(); step.isPresent(); step = play.next()) {
                    hear(step.get());
                }
                Step end = Engine.step(play.state(), Event.pass(play.endNanos()));
                hear(end);
                carried = Carried.of(end.next().shifted(-play.endNanos()));
                began += play.endNanos();
            }
        }

        private void hear(Step step) {
            step.messages().forEach(m -> machines.hear(m.message(), began + m.dueNanos()));
        }

        Map<String, String> parts() {
            return machines.parts(began + book.nowNanos());
        }

        /** Nothing new comes, and what is under way goes on; also the waves of which a plan does not tell all. */
        void goOn(long nanos) {
            PlaybackState s = book;
            for (Move move : book.moves().values()) {
                if (move.isEndless()) {
                    Level now = move.at(s.nowNanos());
                    Move goesOn = move.from(s.nowNanos() - move.began(), now.exact(), 1_000_000, move.cause());
                    machines.hear(now.message(), began + s.nowNanos());
                    s = s.withMoves(s.moves().plus(move.motion().control(), goesOn));
                }
            }
            Step step = Engine.step(s.leftAlone(), Event.pass(s.nowNanos() + nanos));
            hear(step);
            book = step.next();
        }

        Set<String> inWaves() {
            Set<String> parts = new HashSet<>();
            for (Move move : book.moves().values()) {
                if (move.isEndless()) {
                    Control control = move.motion().control();
                    parts.add("console fader " + control.address().replaceAll(".* ", ""));
                }
            }
            return parts;
        }
    }

    /** A show being played by somebody who does not play it straight. */
    private static final class Walk {

        private final Plan plan;
        private final Random random;
        private final int song;
        private final Machines machines;
        private final List<ScheduledMessage> heard = new ArrayList<>();
        private final Set<Integer> off = new HashSet<>();
        private PlaybackState state;

        Walk(Plan plan, Random random) {
            this.plan = plan;
            this.random = random;
            state = PlaybackState.of(plan, random.nextInt(1_000_000));
            song = random.nextInt(4) > 0 ? 1 : 0;
            machines = new Machines(song);
            if (song > 0) {
                order(new Order.StandsAt(device("Tablet"), "song", 1));
            }
        }

        private int device(String name) {
            return plan.devices().stream()
                    .filter(d -> d.name().equals(name))
                    .findFirst()
                    .orElseThrow()
                    .id();
        }

        void go(int most) {
            for (int i = random.nextInt(most); i > 0; i--) {
                order(any());
                pass((long) (random.nextDouble() * 6 * SECOND));
            }
            for (Integer id : Set.copyOf(off)) {
                off.remove(id);
                order(new Order.Found(id));
            }
        }

        private Order any() {
            PlannedItem item = plan.items().get(random.nextInt(plan.items().size()));
            return switch (random.nextInt(9)) {
                case 0 -> new Order.StandBy(anyCue());
                case 1 -> new Order.Play(item.item().id(), (long) (random.nextDouble() * 30 * SECOND));
                case 2 -> random.nextBoolean() ? new Order.Pause() : new Order.Resume();
                case 3 -> {
                    List<PlannedCall> calls =
                            plan.cues().get(random.nextInt(plan.cues().size())).calls();
                    yield new Order.Fire(calls.get(random.nextInt(calls.size())), "by hand");
                }
                case 4 -> state.agenda().isEmpty() ? switched() : new Order.Pause();
                case 5 -> random.nextInt(3) == 0 ? new Order.StopAll() : new Order.Release();
                default -> new Order.Go();
            };
        }

        private int anyCue() {
            return plan.cues().get(random.nextInt(plan.cues().size())).cueId();
        }

        /** Off for a while, or back. */
        private Order switched() {
            int id = plan.devices().get(random.nextInt(plan.devices().size())).id();
            if (off.remove(id)) {
                return new Order.Found(id);
            }
            off.add(id);
            return new Order.Lost(id);
        }

        void order(Order order) {
            hear(Engine.step(state, Event.of(state.nowNanos(), order)));
        }

        void pass(long nanos) {
            hear(Engine.step(state, Event.pass(state.nowNanos() + nanos)));
        }

        private void hear(Step step) {
            state = step.next();
            for (ScheduledMessage m : step.messages()) {
                if (!off.contains(m.deviceId())) {
                    heard.add(m);
                    machines.hear(m.message(), m.dueNanos());
                }
            }
        }

        /** What the machines would be like after some messages, one of them left out. */
        Map<String, String> heardWith(List<Message> messages, int leftOut) {
            Machines like = new Machines(song);
            heard.forEach(m -> like.hear(m.message(), m.dueNanos()));
            for (int i = 0; i < messages.size(); i++) {
                if (i != leftOut) {
                    like.hear(messages.get(i), state.nowNanos());
                }
            }
            return like.parts(state.nowNanos());
        }

        /** What the corrections say, without the steps of moves that go on. */
        List<Message> messages(List<Correction> made) {
            List<Message> messages = new ArrayList<>();
            for (Correction c : made) {
                c.calls().forEach(call -> call.messages().forEach(t -> messages.add(t.message())));
                c.goesOn()
                        .map(m -> m.at(state.nowNanos()))
                        .filter(level -> !stands(c, level))
                        .ifPresent(level -> messages.add(level.message()));
            }
            return messages;
        }

        private boolean stands(Correction c, Level level) {
            Control control = c.goesOn().orElseThrow().motion().control();
            Absence away = state.absent().get(control.deviceId());
            Level known = away == null
                    ? state.told().levels().get(control)
                    : away.levels().get(control);
            return known != null && known.isAlso(level);
        }
    }
}
