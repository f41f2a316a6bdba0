package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Exclusive;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.ShowControl;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.score.Score;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Hearing;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.core.store.StoredForm;

/** What is done when something comes in, and why nothing is. */
class ListeningTest {

    private static final long MS = 1_000_000;
    private static final int SUSTAIN = 64;

    /** A machine of the rig that counts its programs from 1. */
    private static final Source PEDALS = new Source(1, "Pedals", new Numbering(1, 0, -2));

    private static final Source STRANGER = new Source(Source.OTHERS, "somebody", Numbering.WIRE);

    private Show show = Shows.small();
    private PlaybackState state;
    private final List<ScheduledMessage> sent = new ArrayList<>();
    private final List<Outcome> outcomes = new ArrayList<>();

    private Listener listener(String name, Pattern pattern, Reaction reaction) {
        return new Listener(0, name, Set.of(), OptionalInt.empty(), pattern, reaction, 0, 0, false, true);
    }

    private void listen(Listener listener) {
        show = show.withListener(listener);
    }

    private void listen(String name, Pattern pattern, Deed deed) {
        listen(listener(name, pattern, new Reaction.Give(deed)));
    }

    private void begin() {
        state = PlaybackState.of(Planner.plan(show), 0);
    }

    private void order(Order order) {
        Step step = Engine.step(state, Event.of(state.nowNanos(), order));
        state = step.next();
        sent.addAll(step.messages());
        step.happenings().forEach(h -> {
            if (h instanceof Happening.Heard heard) {
                outcomes.add(heard.outcome());
            }
        });
    }

    private void pass(long millis) {
        state = Engine.step(state, Event.pass(state.nowNanos() + millis * MS)).next();
    }

    /** @return what was done by whom, or the nearest and why not */
    private String hear(Source source, Message message) {
        order(new Order.Heard(
                source,
                message instanceof MidiMessage m
                        ? Signal.of(m, state.nowNanos())
                        : new Signal(message, underbaton.core.midi.Bytes.NONE, state.nowNanos())));
        Outcome last = outcomes.get(outcomes.size() - 1);
        return last.isTaken()
                ? String.join(
                        "; ",
                        last.taken().stream()
                                .map(t -> t.name() + ": " + t.did())
                                .toList())
                : last.nearest() + " not: " + last.why();
    }

    private String hear(Message message) {
        return hear(PEDALS, message);
    }

    private String standby() {
        return state.standbyCue().map(c -> c.number().toString()).orElse("end");
    }

    private static ControlChange pedal(int controller, int value) {
        return new ControlChange(0, controller, value);
    }

    /** Of those that wait for a GO of show control, the one with the number is told, not the first. */
    @Test
    void theNearestIsTheOneThatWaitsForThatNumber() {
        listen(listener("storm", new Pattern.Show(ShowControl.Command.GO, "", "17"), new Reaction.Give(Deed.GO)));
        listen(listener("dusk", new Pattern.Show(ShowControl.Command.GO, "", "5"), new Reaction.Give(Deed.GO)));
        begin();
        assertThat(hear(new ShowControl(1, ShowControl.LIGHTING, ShowControl.Command.GO, "5.0", "", "")))
                .isEqualTo("dusk not: cue 5.0, listens for 5");
    }

    @Test
    void aSoftPedalIsNextAndASostenutoIsBack() {
        listen("soft", Pattern.Controller.pressed(67), Deed.NEXT);
        listen("sostenuto", Pattern.Controller.pressed(66), Deed.BACK);
        begin();
        assertThat(hear(pedal(67, 127))).isEqualTo("soft: standby on");
        assertThat(standby()).isEqualTo("2");
        assertThat(hear(pedal(67, 100))).isEqualTo("soft not: it is down already");
        assertThat(hear(pedal(67, 0))).isEqualTo("soft not: value 0 is not pressed");
        assertThat(hear(pedal(66, 127))).isEqualTo("sostenuto: standby back");
        assertThat(standby()).isEqualTo("1");
        assertThat(hear(pedal(SUSTAIN, 127))).startsWith("soft not: control 64");
        assertThat(sent).isEmpty();
    }

    @Test
    void aPadIsGoHoweverHardItIsStruckAndItsReleaseIsNot() {
        listen("pad", Pattern.Note.struck(36), Deed.GO);
        begin();
        for (int velocity : new int[] {1, 64, 127}) {
            assertThat(hear(new NoteOn(9, 36, velocity))).isEqualTo("pad: GO");
            assertThat(hear(new NoteOn(9, 36, 0))).isEqualTo("pad not: velocity 0 is a release");
        }
        assertThat(sent).isNotEmpty();
    }

    @Test
    void aProgramCallsTheCueThatItsMachinePrints() {
        listen(listener("scenes", new Pattern.Program(-1, 0, 127), new Reaction.ToCue(0, 3, true)));
        begin();
        // Program 7 on the wire is 8 there, and 3 on is cue 11.
        assertThat(hear(new ProgramChange(0, 7))).isEqualTo("scenes: GO 11");
        assertThat(sent).extracting(m -> m.cause().words()).contains("cue 11");
        assertThat(hear(new ProgramChange(0, 90))).isEqualTo("scenes: there is no cue 94");
        assertThat(hear(new ProgramChange(0, 0))).isEqualTo("scenes: there is no cue 4");
    }

    @Test
    void aSongIsPlayedByItsNameOrFromASection() {
        Item item = show.items().get(0);
        show = show.withItem(item.withScore(Optional.of(Score.of("1 4/4\n1 quarter = 120\n9 B Verse\n20 end"))), 0);
        listen(listener("player", new Pattern.Osc("/song", List.of()), new Reaction.Play(0, 0, "")));
        listen(listener("verse", Pattern.Note.struck(36), new Reaction.Play(item.id(), 0, "B")));
        listen(listener("gone", Pattern.Note.struck(37), new Reaction.Play(item.id(), 0, "Z")));
        begin();
        assertThat(hear(new OscMessage("/song", List.of(item.name().toUpperCase()))))
                .isEqualTo("player: plays " + item.name());
        assertThat(hear(new OscMessage("/song", List.of("nobody’s")))).isEqualTo("player: there is no item nobody’s");
        assertThat(hear(new NoteOn(0, 36, 9))).isEqualTo("verse: plays " + item.name() + " from B");
        // Eight bars of four quarters at 120 are 16 s.
        assertThat(state.playing().orElseThrow().position(state.nowNanos())).isEqualTo(16_000_000_000L);
        assertThat(hear(new NoteOn(0, 37, 9))).isEqualTo("gone: " + item.name() + " has no section Z");
    }

    @Test
    void fourTapsGiveTheTempoAndTheTrackCountsItsOwnBeat() {
        Item item = show.items().get(0);
        show = show.withItem(item.withScore(Optional.of(Score.of("1 6/8\n1 dotted quarter = 60\n40 end"))), 0);
        listen("tap", Pattern.Note.struck(40), Deed.TAP);
        begin();
        order(new Order.Play(item.id(), 0));
        for (int i = 0; i < 4; i++) {
            hear(new NoteOn(0, 40, 9));
            pass(800);
        }
        // Beats of 0.8 s where 1 s is written: 1.25 times as fast.
        assertThat(state.playing().orElseThrow().anchor().permille()).isEqualTo(1250);
        pass(3000);
        hear(new NoteOn(0, 40, 9));
        assertThat(state.playing().orElseThrow().anchor().permille()).isEqualTo(1250);
        // Twice a beat, a little slower than written: understood as that.
        pass(505);
        hear(new NoteOn(0, 40, 9));
        assertThat(state.playing().orElseThrow().anchor().permille()).isEqualTo(990);
    }

    /** Two listeners that take one signal, a contact that bounces: one tap. */
    @Test
    @Timeout(10)
    void whatIsTappedTwiceInOneMomentIsOneTap() {
        Item item = show.items().get(0);
        show = show.withItem(item.withScore(Optional.of(Score.of("1 quarter = 60\n40 end"))), 0);
        listen("foot", Pattern.Note.struck(40), Deed.TAP);
        listen("hand", Pattern.Note.struck(40), Deed.TAP);
        begin();
        order(new Order.Play(item.id(), 0));
        for (int i = 0; i < 4; i++) {
            hear(new NoteOn(0, 40, 9));
            pass(20);
            hear(new NoteOn(0, 40, 9));
            pass(780);
        }
        assertThat(state.playing().orElseThrow().anchor().permille()).isEqualTo(1250);
    }

    @Test
    void aGroupIsDisarmedAtOnceAndStaysSoOverACrash() {
        listen("one", Pattern.Note.struck(36), Deed.NEXT);
        listen("two", Pattern.Note.struck(37), Deed.NEXT);
        Set<Integer> both = show.listeners().stream().map(Listener::id).collect(Collectors.toSet());
        listen(listener("off", Pattern.Note.struck(38), new Reaction.Arm(both, false)));
        begin();
        assertThat(hear(new NoteOn(0, 38, 9))).isEqualTo("off: one, two disarmed");
        order(new Order.Listen(false));
        RunSnapshot kept = StoredForm.read(StoredForm.write(RunSnapshot.of(state, 0)), RunSnapshot.class);
        state = kept.into(Planner.plan(show), 0, 0);
        assertThat(hear(new NoteOn(0, 37, 9))).isEqualTo("two not: listeners are off");
        order(new Order.Listen(true));
        assertThat(hear(new NoteOn(0, 37, 9))).isEqualTo("two not: it is disarmed");
    }

    @Test
    void aPhraseIsFiredAGuardedOneByTwoActsAndOneThatIsGoneIsTold() {
        Device lights = show.devices().get(0);
        show = show.withPhrase(
                lights.id(), new Phrase(0, "Panic", List.of(new NoteOn(0, 99, 127)), Effect.MOMENT, true));
        lights = show.devices().get(0);
        int panic = lights.phraseNamed("Panic").orElseThrow().id();
        int amber = lights.phraseNamed("Amber").orElseThrow().id();
        listen(listener("amber", Pattern.Note.struck(36), new Reaction.Fire(lights.id(), amber)));
        listen(listener("panic", Pattern.Note.struck(37), new Reaction.Fire(lights.id(), panic)));
        listen(listener("gone", Pattern.Note.struck(38), new Reaction.Fire(lights.id(), 4711)));
        begin();
        assertThat(hear(new NoteOn(0, 36, 9))).isEqualTo("amber: Amber");
        assertThat(sent).extracting(m -> m.cause().words()).containsExactly("signal: amber");
        assertThat(hear(new NoteOn(0, 37, 9))).isEqualTo("panic: Panic: once more within three seconds");
        assertThat(sent).hasSize(1);
        pass(2999);
        assertThat(hear(new NoteOn(0, 37, 9))).isEqualTo("panic: Panic");
        assertThat(sent).hasSize(2);
        assertThat(hear(new NoteOn(0, 38, 9))).isEqualTo("gone: its phrase is gone");
    }

    @Test
    void aCueThatIsGoneAndAnItemThatIsGoneAreTold() {
        int cue = show.cueNumbered(CueNumber.of("2")).orElseThrow().id();
        Reaction.ToCue.Row row = new Reaction.ToCue.Row("7", cue);
        listen(listener("fixed", Pattern.Note.struck(36), new Reaction.ToCue(4711, 0, true)));
        listen(listener("table", new Pattern.Program(-1, 0, 127), new Reaction.ToCue(0, 0, List.of(row), false)));
        listen(listener("item", Pattern.Note.struck(37), new Reaction.Play(4711, 0, "")));
        begin();
        assertThat(hear(new NoteOn(0, 36, 9))).isEqualTo("fixed: its cue is no longer in the book");
        assertThat(hear(new ProgramChange(0, 6))).as("printed 7").isEqualTo("table: standby 2");
        assertThat(standby()).isEqualTo("2");
        assertThat(hear(new ProgramChange(0, 9)))
                .as("what is not in the table is a cue's number")
                .isEqualTo("table: standby 10");
        assertThat(hear(new NoteOn(0, 37, 9))).isEqualTo("item: an item that is gone");
        assertThat(sent).isEmpty();
    }

    @Test
    void aPedalThatPausesLetsTheMusicGoOnTheNextTime() {
        Item item = show.items().get(0);
        show = show.withItem(item.withScore(Optional.of(Score.of("1 4/4\n1 quarter = 120\n40 end"))), 0);
        listen("pause", Pattern.Note.struck(36), Deed.PAUSE);
        begin();
        order(new Order.Play(item.id(), 0));
        hear(new NoteOn(0, 36, 9));
        assertThat(state.playing().orElseThrow().paused()).isTrue();
        hear(new NoteOn(0, 36, 9));
        assertThat(state.playing().orElseThrow().paused()).isFalse();
    }

    @Test
    void aTimedGoIsAGo() {
        listen(listener(
                "console", new Pattern.Show(ShowControl.Command.TIMED_GO, "", ""), new Reaction.ToCue(0, 0, true)));
        begin();
        // RP-002/014: GO of cue 2 in one second, 25 frames: hours with the rate, minutes, seconds, frames, hundredths.
        Bytes body = Bytes.of(0x7F, 0x02, 0x02, 0x01, 0x04, 0x20, 0x00, 0x01, 0x00, 0x00, 0x32);
        assertThat(hear(Exclusive.decode(body))).isEqualTo("console: GO 2");
    }

    @Test
    void aNumberComesWithAnOscArgumentInWhateverForm() {
        listen(listener("video", new Pattern.Osc("/cue", List.of()), new Reaction.ToCue(0, 0, false)));
        begin();
        for (Object number : new Object[] {11, 11f, 11.0, "11", 11L}) {
            order(new Order.StandBy(
                    show.cueNumbered(CueNumber.of("10")).orElseThrow().id()));
            assertThat(hear(new OscMessage("/cue", List.of(number)))).isEqualTo("video: standby 11");
            assertThat(standby()).isEqualTo("11");
        }
        assertThat(hear(new OscMessage("/cue", List.of("eleven")))).isEqualTo("video: there is no cue eleven");
        assertThat(hear(new OscMessage("/cue", List.of()))).isEqualTo("video: no number came with it");
    }

    @Test
    void aSongIsCalledByItsPlaceWhileAnotherPlays() {
        listen(listener("player", new Pattern.Program(-1, 0, 127), new Reaction.Play(0, 0, "")));
        begin();
        order(new Order.Go());
        assertThat(hear(new ProgramChange(0, 1)))
                .isEqualTo("player: plays " + show.items().get(1).name());
        assertThat(state.progress().itemId()).isEqualTo(show.items().get(1).id());
        assertThat(hear(new ProgramChange(0, 50))).isEqualTo("player: there is no item 51");
    }

    @Test
    void withinItsPauseAListenerTakesNothing() {
        listen(new Listener(
                0,
                "pad",
                Set.of(),
                OptionalInt.of(9),
                Pattern.Note.struck(36),
                new Reaction.Give(Deed.NEXT),
                300,
                0,
                false,
                true));
        begin();
        assertThat(hear(new NoteOn(8, 36, 9))).isEqualTo("pad not: channel 9, listens on 10");
        assertThat(hear(new NoteOn(9, 36, 9))).isEqualTo("pad: standby on");
        pass(299);
        assertThat(hear(new NoteOn(9, 36, 9))).isEqualTo("pad not: it is in its pause of 300 ms");
        pass(1);
        assertThat(hear(new NoteOn(9, 36, 9))).isEqualTo("pad: standby on");
    }

    @Test
    void aListenerOfAnItemListensWhileThatItemPlaysOrStandsBy() {
        Item second = show.items().get(1);
        listen(new Listener(
                0,
                "pad",
                Set.of(),
                OptionalInt.empty(),
                Pattern.Note.struck(36),
                new Reaction.Give(Deed.GO),
                0,
                second.id(),
                false,
                true));
        begin();
        assertThat(hear(new NoteOn(0, 36, 9))).isEqualTo("pad not: it belongs to " + second.name());
        order(new Order.StandBy(second.cues().get(0).id()));
        assertThat(hear(new NoteOn(0, 36, 9))).isEqualTo("pad: GO");
    }

    @Test
    void stopAllAndGuardedPhrasesWantASecondActUnlessTheListenerSaysOtherwise() {
        listen("panic", Pattern.Note.struck(1), Deed.STOP_ALL);
        listen(new Listener(
                0,
                "red key",
                Set.of(),
                OptionalInt.empty(),
                Pattern.Note.struck(2),
                new Reaction.Give(Deed.STOP_ALL),
                0,
                0,
                true,
                true));
        begin();
        order(new Order.Go());
        assertThat(hear(new NoteOn(0, 1, 9))).isEqualTo("panic: stop all: once more within three seconds");
        assertThat(state.stopped()).isFalse();
        pass(3_100);
        assertThat(hear(new NoteOn(0, 1, 9))).endsWith("once more within three seconds");
        assertThat(hear(new NoteOn(0, 1, 9))).isEqualTo("panic: stop all");
        assertThat(state.stopped()).isTrue();
        order(new Order.Go());
        assertThat(hear(new NoteOn(0, 2, 9))).isEqualTo("red key: stop all");
        assertThat(state.stopped()).isTrue();
    }

    @Test
    void nothingIsTakenWhileTheMasterSwitchIsOffOrTheListenerIsDisarmed() {
        listen("pad", Pattern.Note.struck(36), Deed.NEXT);
        int pad = show.listeners().get(0).id();
        listen(listener("off", Pattern.Note.struck(37), new Reaction.Arm(Set.of(pad), false)));
        listen(listener("on", Pattern.Note.struck(38), new Reaction.Arm(Set.of(pad), true)));
        begin();
        order(new Order.Listen(false));
        assertThat(hear(new NoteOn(0, 36, 9))).isEqualTo("pad not: listeners are off");
        order(new Order.Listen(true));
        assertThat(hear(new NoteOn(0, 37, 9))).isEqualTo("off: pad disarmed");
        assertThat(hear(new NoteOn(0, 36, 9))).isEqualTo("pad not: it is disarmed");
        assertThat(hear(new NoteOn(0, 38, 9))).isEqualTo("on: pad armed");
        assertThat(hear(new NoteOn(0, 36, 9))).isEqualTo("pad: standby on");
    }

    @Test
    void strangersAreListenedToOnlyWhereAListenerSaysSoAndWhatWeSaidIsNoSignal() {
        listen("pad", Pattern.Note.struck(1), Deed.NEXT);
        begin();
        assertThat(hear(STRANGER, new NoteOn(0, 1, 9))).isEqualTo("pad not: it listens to another machine");
        order(new Order.Go());
        NoteOn own = (NoteOn) sent.get(0).message();
        Source machine = new Source(sent.get(0).deviceId(), "Lights", Numbering.WIRE);
        assertThat(hear(machine, own)).isEqualTo(" not: we said it ourselves a moment ago");
        pass(400);
        assertThat(hear(machine, own)).isEqualTo("pad: standby on");
    }

    @Test
    void oneSignalMayBeBoundToTwoThingsAndBothAreDone() {
        listen("one", Pattern.Note.struck(36), Deed.NEXT);
        listen("two", Pattern.Note.struck(36), Deed.NEXT);
        begin();
        assertThat(hear(new NoteOn(0, 36, 9))).isEqualTo("one: standby on; two: standby on");
        assertThat(standby()).isEqualTo("10");
    }

    /** Ten thousand messages by chance, held against a second reading of the rules that knows bytes alone. */
    @Test
    void tenThousandMessagesAreTakenAsANaiveReadingTakesThem() {
        Random random = new Random(11);
        List<Listener> all = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            int low = 1 + random.nextInt(10);
            int high = low + random.nextInt(4);
            Pattern pattern =
                    switch (random.nextInt(4)) {
                        case 0 -> new Pattern.Note(low, high, 1 + random.nextInt(60), 127, true);
                        case 1 -> new Pattern.Note(low, high, 1, 127, false);
                        case 2 -> new Pattern.Controller(low, Pattern.Way.values()[random.nextInt(4)], 64, 100);
                        default -> new Pattern.Program(random.nextInt(3) - 1, low, high);
                    };
            all.add(new Listener(
                    100 + i,
                    "L" + i,
                    Set.of(),
                    random.nextBoolean() ? OptionalInt.empty() : OptionalInt.of(random.nextInt(3)),
                    pattern,
                    new Reaction.Give(Deed.HOLD),
                    random.nextBoolean() ? 0 : random.nextInt(400),
                    0,
                    false,
                    random.nextInt(8) > 0));
        }
        Naive naive = new Naive();
        Hearing hearing = Hearing.FIRST;
        long now = 0;
        int taken = 0;
        for (int i = 0; i < 10_000; i++) {
            now += random.nextInt(200) * MS;
            MidiMessage message = message(random);
            for (Listener listener : all) {
                boolean takes = listener.pattern().speaksOf(message)
                        && hearing.missed(
                                        listener, PEDALS, message, hearing.memory(PEDALS, message), now, 0, 0, id -> "")
                                .isEmpty();
                assertThat(takes)
                        .as("%d: %s by %s", i, message, listener)
                        .isEqualTo(naive.takes(listener, message.encode().toArray(), now));
                if (takes) {
                    hearing = hearing.took(listener.id(), now);
                    taken++;
                }
            }
            hearing = hearing.after(PEDALS, message);
            naive.remember(message.encode().toArray());
        }
        assertThat(taken).isGreaterThan(2000);
    }

    private static MidiMessage message(Random random) {
        int channel = random.nextInt(3);
        int number = 1 + random.nextInt(12);
        return switch (random.nextInt(5)) {
            case 0 -> new NoteOn(channel, number, random.nextInt(128));
            case 1 -> new NoteOff(channel, number, random.nextInt(128));
            case 2 -> new ControlChange(channel, random.nextInt(6) == 0 ? 32 : number, random.nextInt(128));
            case 3 -> new ControlChange(channel, 0, random.nextInt(2));
            default -> new ProgramChange(channel, number);
        };
    }

    /** The rules again, from the bytes, with no regard for haste. */
    private static final class Naive {

        private final Map<Integer, Integer> values = new TreeMap<>();
        private final Map<Integer, Long> taken = new TreeMap<>();

        void remember(byte[] b) {
            if ((b[0] & 0xF0) == 0xB0) {
                values.put((b[0] & 15) << 8 | b[1], (int) b[2]);
            }
        }

        boolean takes(Listener l, byte[] b, long now) {
            int kind = b[0] & 0xF0;
            int channel = b[0] & 15;
            boolean there = l.listens() && (l.channel().isEmpty() || l.channel().getAsInt() == channel);
            boolean rested = !taken.containsKey(l.id()) || (now - taken.get(l.id())) / 1e6 >= l.pauseMs();
            boolean meant = there && rested && meant(l.pattern(), kind, channel, b);
            if (meant) {
                taken.put(l.id(), now);
            }
            return meant;
        }

        private boolean meant(Pattern pattern, int kind, int channel, byte[] b) {
            if (pattern instanceof Pattern.Note n) {
                boolean on = kind == 0x90 && b[2] > 0;
                boolean off = kind == 0x80 || kind == 0x90 && b[2] == 0;
                boolean hard = !n.struck() || b.length > 2 && b[2] >= n.softest() && b[2] <= n.hardest();
                return (n.struck() ? on : off) && hard && b[1] >= n.from() && b[1] <= n.to();
            }
            if (pattern instanceof Pattern.Program p) {
                int bank = values.getOrDefault(channel << 8, 0) * 128 + values.getOrDefault(channel << 8 | 32, 0);
                return kind == 0xC0 && b[1] >= p.from() && b[1] <= p.to() && (p.bank() < 0 || p.bank() == bank);
            }
            Pattern.Controller c = (Pattern.Controller) pattern;
            if (kind != 0xB0 || b[1] != c.controller()) {
                return false;
            }
            Integer before = values.get(channel << 8 | b[1]);
            return switch (c.way()) {
                case PRESSED -> b[2] >= c.from() && (before == null || before < c.from());
                case RELEASED -> b[2] < c.from() && before != null && before >= c.from();
                case WITHIN -> b[2] >= c.from() && b[2] <= c.to();
                case CHANGED -> before != null && Math.abs(b[2] - before) >= c.from();
            };
        }
    }
}
