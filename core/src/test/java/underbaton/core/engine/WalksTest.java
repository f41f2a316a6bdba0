package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.ToLongFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Cue;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.engine.move.Move;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.engine.music.Playing;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.store.StoredForm;

/**
 * Walks with every order of the Desk, each ended by one of its ways to get right again, played on for ten seconds; and the same show
 * played straight to there by GO alone. The judge is what the machines, which know bytes and no book, are doing in the two worlds.
 */
class WalksTest {

    private static final long SECOND = WalkedWorld.SECOND;
    private static final int WALKS = Integer.getInteger("baton.walks", 400);
    /** A key of the pit that nobody plays on the way. */
    private static final int PROBE = 50;

    private static final long FIRST = Long.getLong("baton.walk", 0);

    @Test
    void every_machine_is_right_after_every_walk() {
        List<String> wrong = new ArrayList<>();
        Map<String, Integer> ends = new TreeMap<>();
        for (long seed = FIRST; seed < FIRST + WALKS; seed++) {
            Walk walk = new Walk(seed);
            String found;
            try {
                found = walk.judged();
            } catch (RuntimeException | AssertionError fault) {
                found = fault.toString();
                if (WALKS == 1) {
                    throw fault;
                }
            }
            ends.merge(walk.end, 1, Integer::sum);
            if (!found.isEmpty()) {
                wrong.add("seed " + seed + ", " + walk.end + ": " + found + (WALKS == 1 ? walk.told : ""));
            }
        }
        System.out.println(WALKS + " walks, " + wrong.size() + " wrong; by their ends: " + ends);
        assertThat(wrong).isEmpty();
    }

    /** One walk through a show by chance, and its judgement. */
    private static final class Walk {

        private final Random random;
        private Show show;
        private Plan plan;
        private WalkedWorld world;
        private final Set<String> notKnown = new HashSet<>();
        private final List<String> told = new ArrayList<>();
        /** Keys of the pit under somebody's hands. */
        private final Set<Integer> down = new TreeSet<>();

        /** Whether the book had loaded a patch set before the probe. */
        private boolean patched;

        private boolean crashed;
        /** Whether GO began an item while something of the one before was still to come. */
        private boolean leftBusy;
        /** Whether it ends before a timed cue, where what machines would be told early is not heard. */
        private boolean stands;

        private long crashedNanos;
        String end = "";

        Walk(long seed) {
            random = new Random(seed);
            show = PlayableShows.wide(seed);
            plan = Planner.plan(show);
            world = new WalkedWorld(plan, 1, random.nextInt(1_000_000));
            order(new Order.StandsAt(device("Tablet"), "song", 1));
        }

        private int device(String name) {
            return plan.devices().stream()
                    .filter(d -> d.name().equals(name))
                    .findFirst()
                    .orElseThrow()
                    .id();
        }

        private void order(Order order) {
            told.add("\n" + world.state.nowNanos() / 1_000_000 + " "
                    + (order instanceof Order.Play || order instanceof Order.StandBy || order instanceof Order.PlayOn
                            ? order
                            : order.getClass().getSimpleName()));
            int item = world.state.progress().itemId();
            boolean busy = !world.state.agenda().isEmpty();
            world.order(order);
            if (order instanceof Order.Go && busy && world.state.progress().itemId() != item) {
                leftBusy = true;
            } else if (order instanceof Order.Play) {
                leftBusy = false;
            }
        }

        // ---- the walk

        private void walk() {
            for (int i = random.nextInt(14); i > 0; i--) {
                any();
                world.pass((long) (random.nextDouble() * 5 * SECOND));
            }
            if (random.nextInt(8) == 0) {
                crash();
            } else if (random.nextInt(3) == 0) {
                order(new Order.Hold());
                world.pass((long) (random.nextDouble() * 5 * SECOND));
            }
        }

        private void any() {
            PlannedItem item = plan.items().get(random.nextInt(plan.items().size()));
            switch (random.nextInt(26)) {
                case 0 -> order(new Order.StandBy(cueOfItsOwn().cueId()));
                case 1 -> {
                    long place = (long) (random.nextDouble() * 30 * SECOND);
                    // A scene has no places.
                    order(new Order.Play(item.item().id(), item.times().isPresent() ? place : 0));
                }
                case 2 -> order(random.nextBoolean() ? new Order.Pause() : new Order.Resume());
                case 3 -> {
                    List<PlannedCall> calls = anyCue().calls();
                    if (!calls.isEmpty()) {
                        order(new Order.Fire(calls.get(random.nextInt(calls.size())), "by hand"));
                    }
                }
                case 4 -> switched();
                case 5 -> order(random.nextInt(3) == 0 ? new Order.StopAll() : new Order.Release());
                case 6 -> {
                    long place = (long) (random.nextDouble() * 30 * SECOND);
                    // A scene has no places.
                    if (world.state
                            .playing()
                            .filter(p -> p.item().times().isPresent())
                            .isPresent()) {
                        order(new Order.Locate(place));
                    }
                }
                case 7 -> order(new Order.Nudge((random.nextInt(400) - 200) * 1_000_000L));
                case 8 -> order(new Order.Pace(700 + random.nextInt(600)));
                case 9 -> order(new Order.Hold());
                case 10 -> order(random.nextBoolean() ? new Order.Back() : new Order.Next());
                case 11 -> tonight();
                case 12 -> edit();
                case 13 -> {
                    order(new Order.Tap());
                    world.pass(SECOND / 2);
                    order(new Order.Tap());
                }
                case 14 -> rejoin(whereto());
                case 15, 16 -> touch();
                case 17 -> order(new Order.Hush());
                case 18, 19 -> play();
                default -> order(new Order.Go());
            }
        }

        /** Hands and a foot in the pit. */
        private void play() {
            int note = 60 + random.nextInt(3);
            switch (random.nextInt(6)) {
                case 0 -> swell(random.nextInt(128));
                case 1 -> {
                    heard(new NoteOn(0, PlayableShows.PAD, 100));
                    heard(new NoteOff(0, PlayableShows.PAD, 0));
                }
                case 2, 3 -> {
                    if (down.add(note)) {
                        heard(new NoteOn(0, note, 100));
                    }
                }
                default -> {
                    if (down.remove(note)) {
                        heard(new NoteOff(0, note, 0));
                    }
                }
            }
        }

        private void swell(int value) {
            heard(new ControlChange(0, 11, value));
        }

        private void heard(MidiMessage message) {
            told.add("\n" + world.state.nowNanos() / 1_000_000 + " " + message);
            int item = world.state.progress().itemId();
            boolean busy = !world.state.agenda().isEmpty();
            world.hear(message);
            leftBusy |= busy && world.state.progress().itemId() != item;
        }

        /** What a key and a foot do now, in either world; a key that was down may be let go only now. */
        private void probed(WalkedWorld one) {
            one.hear(new NoteOn(0, PROBE, 100));
            one.hear(new ControlChange(0, 11, 27));
            one.pass(SECOND / 10);
        }

        private void touch() {
            List<HandKey> keys = show.hands().get(0).keys();
            HandKey key = keys.get(random.nextInt(keys.size()));
            KeyTouch how = KeyTouch.values()[random.nextInt(KeyTouch.values().length)];
            order(new Order.Touch(key.id(), how, "somebody "));
            // Whoever still holds a key means to let it go, whatever the book says then.
            if (key.way() == HandKey.Way.HELD || random.nextBoolean()) {
                world.pass(SECOND / 4);
                order(new Order.Touch(key.id(), KeyTouch.LET_GO, "somebody "));
            }
        }

        /** One that comes by GO, or at its own time. */
        private PlannedCue cueOfItsOwn() {
            PlannedCue cue = anyCue();
            while (cue.follows()) {
                cue = anyCue();
            }
            return cue;
        }

        /** Where the music stands when a cue by hand of a song is given, is the operator's own affair. */
        private PlannedCue cueOfItsOwnTime() {
            PlannedCue cue = cueOfItsOwn();
            for (int i = 0; i < 50; i++) {
                boolean alone = plan.item(cue.item().id()).orElseThrow().timed().isEmpty();
                if (cue.atNanos().isPresent() || alone) {
                    return cue;
                }
                cue = cueOfItsOwn();
            }
            return cue;
        }

        private PlannedCue anyCue() {
            return plan.cues().get(random.nextInt(plan.cues().size()));
        }

        /** One of the book's, which can be switched off; what comes from the pit has no second chance. */
        private int anyMachine() {
            List<Device> all = plan.devices().stream()
                    .filter(d -> !PatchBay.is(d) && !d.phrases().isEmpty())
                    .toList();
            return all.get(random.nextInt(all.size())).id();
        }

        private void switched() {
            int id = anyMachine();
            if (world.off.remove(id)) {
                order(new Order.Found(id));
                if (random.nextBoolean()) {
                    order(new Order.BringUp(id));
                }
            } else {
                world.off.add(id);
                order(new Order.Lost(id));
            }
        }

        private void tonight() {
            int id = anyMachine();
            OutTonight out = plan.out();
            adopt(out.with(OutTonight.Kind.MACHINE, id, out.devices().contains(id)));
        }

        private void adopt(OutTonight out) {
            plan = Planner.plan(show).tonight(out);
            order(new Order.Adopt(plan));
            told.add(" out: " + out.devices());
        }

        private void edit() {
            List<Cue> cues = show.cues().toList();
            if (cues.size() < 4) {
                return;
            }
            Cue gone = cues.get(1 + random.nextInt(cues.size() - 1));
            show = show.withoutCue(gone.id());
            told.add("\nwithout cue " + gone.number());
            adopt(plan.out());
        }

        private void crash() {
            told.add("\n" + world.state.nowNanos() / 1_000_000 + " crash");
            long micros = world.state.nowNanos() / 1000;
            RunSnapshot kept =
                    StoredForm.read(StoredForm.write(RunSnapshot.of(world.state, micros)), RunSnapshot.class);
            crashedNanos = world.state.nowNanos();
            long away = (long) (random.nextDouble() * 10 * SECOND) / 1000 * 1000;
            world.state = kept.into(Planner.plan(show), crashedNanos + away, micros + away / 1000);
            world.take(Engine.step(world.state, Event.pass(world.state.nowNanos())));
            order(new Order.Adopt(plan));
            plan.devices().stream().filter(d -> !PatchBay.is(d)).forEach(d -> {
                order(new Order.Lost(d.id()));
                if (!world.off.contains(d.id())) {
                    order(new Order.Found(d.id()));
                }
            });
            crashed = true;
        }

        // ---- its end

        private Whereto whereto() {
            boolean plays = world.state.playing().isPresent();
            return switch (random.nextInt(7)) {
                case 0 -> new Whereto.Bar(1 + random.nextInt(16));
                case 1 -> new Whereto.ThisSection();
                case 2 -> new Whereto.Next(random.nextInt(5) * SECOND);
                case 3 -> new Whereto.AtCue(cueOfItsOwnTime().number());
                case 4 -> plays && !world.state.progress().held() ? new Whereto.Present() : new Whereto.Standby();
                case 5 ->
                    crashed && plays && world.state.playing().get().paused()
                            ? new Whereto.AsIfSince(crashedNanos)
                            : new Whereto.Standby();
                default -> plays ? new Whereto.Here() : new Whereto.Standby();
            };
        }

        private Destination rejoin(Whereto to) {
            try {
                Destination there = Destination.of(to, world.state, DryRun.of(plan), world.state.nowNanos());
                there.corrections(world.state).stream()
                        .filter(c -> !c.isPossible())
                        .forEach(c -> notKnown.add(part(c)));
                told.add("\n" + world.state.nowNanos() / 1_000_000 + " " + to + " " + there.words() + ": "
                        + there.corrections(world.state).stream()
                                .map(c -> c.key() + " " + c.has() + " -> " + c.wants())
                                .toList());
                there.before().forEach(this::order);
                order(there.catchUp(Set.of()));
                there.after().forEach(this::order);
                return there;
            } catch (Refusal noSuchPlace) {
                return null;
            }
        }

        /** What nothing can make right is told on the sheet. */
        private String part(Correction c) {
            String name = plan.device(c.key().deviceId()).orElseThrow().name();
            assertThat(name)
                    .as("the one machine that can stand nobody knows where: %s", c)
                    .isEqualTo("Tablet");
            return "tablet song";
        }

        String judged() {
            walk();
            notKnown.clear();
            Whereto to = whereto();
            end = to.getClass().getSimpleName();
            PlaybackState before = world.state;
            boolean wasPaused = before.playing().filter(Playing::paused).isPresent();
            Destination there = rejoin(to);
            if (there == null) {
                end = "refused";
                return "";
            }
            if (to instanceof Whereto.Present && wasPaused) {
                order(new Order.Resume());
            }
            // Where nothing plays on, what a machine is told early is not heard.
            stands = there.after().isEmpty()
                    && there.before().stream()
                            .filter(Order.Leave.class::isInstance)
                            .map(o -> plan.indexOf(((Order.Leave) o).cueId()))
                            .anyMatch(
                                    i -> i >= 0 && plan.cues().get(i).atNanos().isPresent());
            StraightWorld straight = new StraightWorld(
                    Planner.plan(stands ? inTime() : show).tonight(cuesOnly(plan.out())), Planner.plan(show));
            long plays = 10 * SECOND;
            boolean music = straightTo(straight, to, there, before);
            if (straight.wasFree()) {
                end = "a cue by hand in a hurry";
                return "";
            }
            world.playOn(plays);
            if (music) {
                straight.playOn(plays + 1);
            } else {
                straight.take(Engine.step(straight.state.leftAlone(), Event.pass(straight.state.nowNanos() + plays)));
            }
            List.copyOf(world.off).forEach(id -> {
                world.off.remove(id);
                order(new Order.Found(id));
                if (world.state.absent().containsKey(id)
                        && !plan.out().devices().contains(id)) {
                    order(new Order.BringUp(id));
                }
            });
            for (int id : List.copyOf(plan.out().devices())) {
                adopt(plan.out().with(OutTonight.Kind.MACHINE, id, true));
            }
            world.playOn(SECOND);
            if (music) {
                straight.playOn(SECOND);
            } else {
                straight.pass(SECOND);
            }
            List.copyOf(down).forEach(note -> heard(new NoteOff(0, note, 0)));
            // What comes with the probe, or behind it, has not led it.
            patched = straight.patched;
            probed(world);
            probed(straight);
            return wrong(straight);
        }

        /** Machines that need no lead: what they are doing is what is heard. */
        private Show inTime() {
            Show left = show;
            for (Device device :
                    show.devices().stream().filter(d -> !PatchBay.is(d)).toList()) {
                left = left.withDevice(device.withTiming(0, device.settleMs()));
            }
            return left;
        }

        private static OutTonight cuesOnly(OutTonight out) {
            OutTonight left = out;
            for (int id : List.copyOf(out.devices())) {
                left = left.with(OutTonight.Kind.MACHINE, id, true);
            }
            return left;
        }

        /** @return whether the music plays on from there */
        private boolean straightTo(StraightWorld straight, Whereto to, Destination there, PlaybackState before) {
            int pace = world.state.playing().map(p -> p.anchor().permille()).orElse(1000);
            for (Order order : there.after()) {
                if (order instanceof Order.Play play) {
                    if (play.cueId() == 0) {
                        jumped(straight, play.itemId(), play.fromNanos(), pace);
                    } else if (play.fromNanos() <= 0) {
                        straight.playFromTheTop(play.itemId(), pace);
                    } else {
                        straight.playTo(play.itemId(), play.fromNanos(), pace, byOrder(play.itemId(), play.cueId()));
                    }
                    return true;
                } else if (order instanceof Order.PlayOn on) {
                    int item = before.playing().orElseThrow().item().item().id();
                    jumped(straight, item, on.fromNanos(), pace);
                    return true;
                }
            }
            boolean goesOn = there.before().stream().anyMatch(Order.Resume.class::isInstance);
            if (goesOn || to instanceof Whereto.Present) {
                Playing p = before.playing().orElse(null);
                if (p == null) {
                    return false;
                }
                long position = world.state
                        .playing()
                        .map(plays -> plays.position(world.state.nowNanos()))
                        .orElseGet(() -> p.position(before.nowNanos()));
                if (leftBusy) {
                    straight.isHurried();
                }
                straight.playTo(
                        p.item().item().id(),
                        Math.max(0, position),
                        pace,
                        before.progress()::whereGiven,
                        before.progress()::stoodWhenGiven);
                // Behind its end it does not go on.
                return world.state.playing().isPresent();
            }
            boolean fires = there.after().stream().anyMatch(Order.Go.class::isInstance);
            Order.Leave leave = there.before().stream()
                    .filter(Order.Leave.class::isInstance)
                    .map(Order.Leave.class::cast)
                    .findFirst()
                    .orElse(null);
            PlannedCue cue = leave == null || leave.cueId() == 0
                    ? null
                    : straight.state.plan().cues().get(straight.state.plan().indexOf(leave.cueId()));
            if (cue == null) {
                straight.playBefore(0);
                return false;
            }
            if (cue.atNanos().isPresent()
                    && straight.state.plan().indexOf(cue)
                            != straight.state.plan().firstOf(cue.item().id())) {
                long at = cue.atNanos().getAsLong();
                straight.playTo(cue.item().id(), at, 1000, byOrder(cue.item().id(), cue.cueId()));
                return false;
            }
            straight.playToCue(cue);
            if (fires) {
                straight.order(new Order.Go());
                return true;
            }
            return false;
        }

        private void jumped(StraightWorld straight, int itemId, long position, int pace) {
            if (position <= 0) {
                straight.playFromTheTop(itemId, pace);
            } else {
                straight.playTo(itemId, position, pace, byPlace(itemId, position));
            }
        }

        /** Of a cue that is jumped to all that stand before it. */
        private ToLongFunction<PlannedCue> byOrder(int itemId, int cueId) {
            List<String> labels = labels(itemId);
            int order = labels.indexOf(plan.cues().get(plan.indexOf(cueId)).label());
            return c -> labels.indexOf(c.label()) < order ? ItemProgress.BEFORE : ItemProgress.NOT_GIVEN;
        }

        /** Of a place that is jumped to those cues count as given that stand in the book before one that has come. */
        private ToLongFunction<PlannedCue> byPlace(int itemId, long position) {
            List<PlannedCue> cues = plan.item(itemId).orElseThrow().cues();
            OptionalInt last = IntStream.range(0, cues.size())
                    .filter(i -> cues.get(i).atNanos().orElse(Long.MAX_VALUE) < position)
                    .max();
            List<String> labels = labels(itemId);
            return c -> labels.indexOf(c.label()) < last.orElse(0) ? ItemProgress.BEFORE : ItemProgress.NOT_GIVEN;
        }

        private List<String> labels(int itemId) {
            return plan.item(itemId).orElseThrow().cues().stream()
                    .map(PlannedCue::label)
                    .toList();
        }

        private String wrong(StraightWorld straight) {
            Map<String, String> wants = straight.parts();
            Map<String, String> has = world.parts();
            Map<String, String> wrong = new TreeMap<>();
            Set<String> waves = waves(straight);
            wants.forEach((part, value) -> {
                String now = has.get(part);
                boolean film = part.equals(Machines.FILM)
                        && (straight.filmIsOld() || !value.equals("off") && now != null && !now.equals("off"));
                boolean crossed = stands && straight.crossed.contains(part.split(" ")[0]);
                boolean near = crossed || waves.contains(part) || film || comesToTheSame(straight.state, part);
                if (!value.equals(now) && !near && !notKnown.contains(part)) {
                    wrong.put(part, now + " instead of " + value);
                }
            });
            has.forEach((part, value) -> {
                boolean lines = part.startsWith("module") && part.endsWith(" " + PROBE);
                if (lines && !patched) {
                    // The book has loaded no set there.
                    return;
                }
                boolean runs = value.equals("runs") || part.equals(Machines.FILM) && !value.equals("off");
                if (!wants.containsKey(part) && runs) {
                    wrong.put(part, "runs");
                }
            });
            return wrong.isEmpty() ? "" : wrong.toString();
        }

        /** Where a fade is on its way to the same place depends on where it began, which nobody may have known. */
        private boolean comesToTheSame(PlaybackState straight, String part) {
            return straight.plan().devices().stream()
                    .filter(d -> d.name().equals("Console"))
                    .map(d -> new Control(d.id(), part.replace("console fader ", "ControlChange 1 ")))
                    .filter(c -> straight.moves().containsKey(c)
                            || world.state.moves().containsKey(c))
                    .anyMatch(c -> Objects.equals(
                            straight.told().levels().get(c),
                            world.state.told().levels().get(c)));
        }

        /** Where a wave is when something comes is nobody's affair, nor where a fade is that began in a wave. */
        private static Set<String> waves(StraightWorld straight) {
            Set<String> parts = new HashSet<>();
            for (Move move : straight.state.moves().values()) {
                if (move.isEndless() || straight.waved.contains(move.motion().control())) {
                    parts.add(
                            "console fader " + move.motion().control().address().replaceAll(".* ", ""));
                }
            }
            return parts;
        }
    }
}
