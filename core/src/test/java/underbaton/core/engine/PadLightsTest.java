package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.cue.Call;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Shows;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Listener;
import underbaton.core.signal.PadLight;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;

/** A row of pads with lamps that knows its bytes alone: what each stands for is seen on it. */
class PadLightsTest extends PlayedShow {

    /** Velocities; a note of velocity 0 would be a release. */
    private static final int DARK = 1;

    private static final int RED = 2;
    private static final int GREEN = 3;
    private static final int WHITE = 4;

    private int page;
    private int pads;
    private int sound;
    private int read;

    /** By note, how a lamp is lit, and the last value of the machine's own control; both by their bytes. */
    private final int[] lamps = new int[4];

    private int talk = -1;

    @BeforeEach
    void rig() {
        show = Shows.device(show, "Sound", Department.SOUND, 2);
        sound = last().id();
        show = Shows.phrase(show, "Talk open", "control 20 to 127", Effect.of("holds talkback"));
        show = Shows.phrase(show, "Talk shut", "control 20 to 0", Effect.of("holds talkback"));
        show = Shows.phrase(show, "Gong", "note 3", Effect.of("starts gong for 0:05"));
        show = Shows.device(show, "Pads", Department.KEYS, 9);
        pads = last().id();
        for (int pad = 0; pad < lamps.length; pad++) {
            for (int colour = DARK; colour <= WHITE; colour++) {
                show = Shows.phrase(show, "Lamp " + pad + " " + colour, "note " + pad + " at " + colour, Effect.MOMENT);
            }
        }
        show = Hands.withPage(show, "Night");
        page = show.hands().get(0).id();
        Arrays.fill(lamps, -1);
    }

    private Device last() {
        return show.devices().get(show.devices().size() - 1);
    }

    private int lampPhrase(int pad, int colour) {
        Device device = show.device(pads).orElseThrow();
        return device.phraseNamed("Lamp " + pad + " " + colour).orElseThrow().id();
    }

    private void pad(int pad, Reaction reaction) {
        PadLight light = new PadLight(
                pads, lampPhrase(pad, GREEN), lampPhrase(pad, DARK), lampPhrase(pad, WHITE), lampPhrase(pad, RED));
        show = show.withListener(new Listener(
                0,
                "pad " + pad,
                Set.of(pads),
                OptionalInt.empty(),
                new Pattern.Note(pad, pad, 1, 127, true),
                reaction,
                0,
                0,
                false,
                true,
                Optional.of(light)));
    }

    private int key(String name, HandKey.Way way, boolean guarded) {
        Device d = show.device(sound).orElseThrow();
        int column = (int) Hands.keys(show).count();
        show = Hands.withKey(
                show,
                page,
                new HandKey(
                        0,
                        0,
                        column,
                        name,
                        Mark.NONE,
                        way,
                        List.of(Call.of(d, "Talk open")),
                        List.of(Call.of(d, "Talk shut")),
                        guarded));
        return Hands.named(show, name).orElseThrow().id();
    }

    /** What the machines have heard since. */
    private void hear() {
        for (; read < sent.size(); read++) {
            if (sent.get(read).message() instanceof NoteOn note && note.channel() == 9) {
                lamps[note.note()] = note.velocity();
            } else if (sent.get(read).message() instanceof ControlChange change && change.channel() == 2) {
                talk = change.value();
            }
        }
    }

    private int lamp(int pad) {
        hear();
        return lamps[pad];
    }

    @Test
    void a_key_lights_its_pad_by_what_the_machine_was_told_and_asks_for_its_second_touch() {
        int key = key("Talk", HandKey.Way.ON_OFF, true);
        pad(0, new Reaction.Hand(key));
        begin();
        order(new Order.Pass());
        assertThat(lamp(0)).as("nobody knows: dark").isEqualTo(DARK);
        order(new Order.Touch(key, KeyTouch.PRESS, ""));
        assertThat(lamp(0)).isEqualTo(WHITE);
        pass(3_100);
        assertThat(lamp(0)).as("nobody touched it again").isEqualTo(DARK);
        order(new Order.Touch(key, KeyTouch.PRESS, ""));
        order(new Order.Touch(key, KeyTouch.PRESS, ""));
        assertThat(lamp(0)).isEqualTo(GREEN);
    }

    @Test
    void what_runs_for_a_while_goes_dark_when_it_is_over() {
        Device d = show.device(sound).orElseThrow();
        pad(0, new Reaction.Fire(sound, d.phraseNamed("Gong").orElseThrow().id()));
        begin();
        order(new Order.Fire(PlannedCall.of(d, d.phraseNamed("Gong").orElseThrow()), "test"));
        assertThat(lamp(0)).isEqualTo(GREEN);
        pass(4_900);
        assertThat(lamp(0)).isEqualTo(GREEN);
        pass(200);
        assertThat(lamp(0)).isEqualTo(DARK);
    }

    @Test
    void a_cue_stands_by_in_its_colour_and_is_lit_once_given() {
        show = Shows.cue(show, "30", "by hand", "Amber");
        show = Shows.cue(show, "31", "by hand", "Amber");
        pad(0, new Reaction.ToCue(id("30"), 0, true));
        pad(1, new Reaction.Give(Deed.GO));
        pad(2, new Reaction.Give(Deed.STOP_ALL));
        begin();
        standBy("30");
        assertThat(List.of(lamp(0), lamp(1), lamp(2))).containsExactly(RED, RED, DARK);
        go();
        assertThat(lamp(0)).isEqualTo(GREEN);
        order(new Order.StopAll());
        assertThat(lamp(2)).isEqualTo(GREEN);
        go();
        assertThat(lamp(2)).isEqualTo(DARK);
        assertThat(lamp(0)).isEqualTo(DARK);
    }

    @Test
    void a_pad_that_was_plugged_in_again_is_told_anew_and_all_are_dark_when_the_show_leaves_the_desk() {
        int key = key("Talk", HandKey.Way.ON_OFF, false);
        pad(0, new Reaction.Hand(key));
        begin();
        order(new Order.Touch(key, KeyTouch.PRESS, ""));
        assertThat(lamp(0)).isEqualTo(GREEN);
        order(new Order.Lost(pads));
        lamps[0] = -1;
        order(new Order.Found(pads));
        assertThat(lamp(0)).isEqualTo(GREEN);
        order(new Order.PutAway());
        assertThat(lamp(0)).isEqualTo(DARK);
        order(new Order.Pass());
        assertThat(lamp(0)).isEqualTo(DARK);
    }

    @Test
    void a_listener_that_is_gone_leaves_its_pad_dark() {
        int key = key("Talk", HandKey.Way.ON_OFF, false);
        pad(0, new Reaction.Hand(key));
        begin();
        order(new Order.Touch(key, KeyTouch.PRESS, ""));
        order(new Order.Adopt(
                Planner.plan(show.withoutListener(show.listeners().get(0).id()))));
        assertThat(lamp(0)).isEqualTo(DARK);
    }

    @Test
    void a_light_with_no_phrase_at_all_is_none() {
        assertThatThrownBy(() -> new PadLight(pads, 0, 0, 0, 0)).isInstanceOf(Refusal.class);
    }

    /** Whatever is done: the lamp says what the machine was told last, by bytes that left to each. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void the_lamp_is_as_the_machine_whatever_is_done(long seed) {
        Random random = new Random(seed);
        int key = key("Talk", HandKey.Way.ON_OFF, false);
        pad(0, new Reaction.Hand(key));
        show = Shows.cue(show, "30", "by hand", "Talk open");
        show = Shows.cue(show, "31", "by hand", "Talk shut");
        begin();
        boolean there = true;
        for (int i = 0; i < 200; i++) {
            switch (random.nextInt(8)) {
                case 0, 1 -> order(new Order.Touch(key, KeyTouch.PRESS, ""));
                case 2 -> go();
                case 3 -> standBy(random.nextBoolean() ? "30" : "31");
                case 4 -> order(new Order.StopAll());
                case 5 -> {
                    there = !there;
                    order(there ? new Order.Found(pads) : new Order.Lost(pads));
                }
                case 6 -> order(new Order.Hush());
                default -> pass(random.nextInt(2000));
            }
            hear();
            if (there && talk >= 0) {
                assertThat(lamps[0]).as("after %d", i).isEqualTo(talk == 127 ? GREEN : DARK);
            }
        }
    }
}
