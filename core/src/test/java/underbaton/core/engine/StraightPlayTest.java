package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.music.ItemProgress;
import underbaton.core.engine.out.Happening;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Control;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.StepList;
import underbaton.core.score.Score;

/** When the book, played straight, presses GO, when an item is over, and what stands just before a place of it. */
class StraightPlayTest extends PlayedShow {

    @BeforeEach
    void aConsoleAndAnEmptyItem() {
        show = Shows.device(Show.empty(1, "Straight"), "Lights", Department.LIGHTS, 0);
        show = Shows.phrase(show, "Amber", "note 1", Effect.HOLDS);
        show = Shows.phrase(show, "Blue", "note 2", Effect.HOLDS);
        show = Shows.phrase(show, "Red", "note 3", Effect.HOLDS);
        show = Shows.device(show, "Console", Department.SOUND, 4);
        Device console = show.devices().get(1);
        show = show.withPhrase(console.id(), phrase("Bed", "control 3 to ?", Optional.of("per cent"), "levels"));
        show = show.withPhrase(console.id(), phrase("Oar", "note 40 for 500 ms", Optional.empty(), "moment"));
        item("One", 0);
    }

    private static Phrase phrase(String name, String says, Optional<String> argument, String effect) {
        return new Phrase(
                0,
                name,
                new SpeechWording(Numbering.WIRE).read(says),
                argument.map(Argument::of),
                Effect.of(effect),
                false,
                false,
                Remarks.NONE);
    }

    private void item(String name, int seconds) {
        show = show.withItem(
                new Item(0, ItemKind.SONG, name, seconds, List.of()),
                show.items().size());
    }

    private void score(String score) {
        Item item = show.items().get(show.items().size() - 1);
        show = show.withItem(item.withScore(Optional.of(Score.of(score))), 0);
    }

    private void cue(String number, String starts, String phrase) {
        if (phrase.startsWith("Bed")) {
            fade(number, starts, phrase);
        } else {
            show = Shows.cue(show, number, starts, phrase);
        }
    }

    private StraightPlay play(int place) {
        Plan plan = Planner.plan(show);
        PlannedItem item = plan.items().get(place);
        return new StraightPlay(plan, item, Carried.first(plan));
    }

    /** {@code 10 @ 4000}: each cue of the first item and when it comes, ms. */
    private List<String> fired() {
        StraightPlay play = play(0);
        List<String> fired = new ArrayList<>();
        for (Optional<Step> step = play.next(); step.isPresent(); step = play.next()) {
            step.get().happenings().forEach(h -> {
                if (h instanceof Happening.Fired f) {
                    fired.add(f.cue().label() + " @ " + Math.round(f.atNanos() / 1e6));
                }
            });
        }
        return fired;
    }

    private long lasts(int place) {
        StraightPlay play = play(place);
        while (play.next().isPresent()) {
            continue;
        }
        return play.endNanos() / MS;
    }

    private DryRun run() {
        return DryRun.of(Planner.plan(show));
    }

    private String lights(PlaybackState at) {
        return at.told()
                .device(show.devices().get(0).id())
                .shows()
                .map(c -> c.phrase())
                .orElse("nothing");
    }

    private int index(String number) {
        return Planner.plan(show).indexOf(id(number));
    }

    @Test
    void goIsPressedWhenAllThatMovesHasComeToRest() {
        cue("1", "by hand", "Amber");
        cue("2", "by hand", "Bed → 0 %");
        cue("3", "by hand", "Bed → 100 % in 4 s");
        cue("4", "by hand", "Oar");
        cue("5", "by hand", "Blue");
        cue("6", "after 2 s", "Amber");
        cue("7", "by hand", "Blue");
        assertThat(fired()).containsExactly("1 @ 0", "2 @ 0", "3 @ 0", "4 @ 4000", "5 @ 4500", "6 @ 6500", "7 @ 6500");
    }

    @Test
    void aWaveWithoutAnEndHoldsNobodyUpAndIsShownForAMinute() {
        cue("1", "by hand", "Bed → 50 % ± 20 % sine every 2 s");
        cue("2", "by hand", "Amber");
        assertThat(fired()).containsExactly("1 @ 0", "2 @ 0");
        List<PlannedMessage> messages = run().messages().toList();
        long last = messages.stream().mapToLong(PlannedMessage::atNanos).max().orElseThrow();
        assertThat(last).isBetween(59 * SECOND, 60 * SECOND + 20 * MS);
        assertThat(messages).hasSizeGreaterThan(30 * 50);
    }

    @Test
    void goComesBehindWhatTheBookPutsBeforeItAndBeforeWhatItPutsBehind() {
        score("1 4/4\n1 quarter = 120\n20 end");
        cue("1", "by hand", "Amber");
        cue("2", "at 2:1", "Blue");
        cue("3", "by hand", "Amber");
        cue("4", "at 3:1", "Blue");
        cue("5", "by hand", "Amber");
        assertThat(fired()).containsExactly("1 @ 0", "2 @ 2000", "3 @ 2000", "4 @ 4000", "5 @ 4000");
    }

    @Test
    void aFadeThatLastsLongerThanTheBookWaitsDoesNotHoldGoUp() {
        score("1 4/4\n1 quarter = 120\n20 end");
        cue("1", "by hand", "Bed → 0 %");
        cue("2", "at 2:1", "Bed → 100 % in 8 s");
        cue("3", "by hand", "Amber");
        cue("4", "at 3:1", "Blue");
        // GO comes a nanosecond before what comes by itself behind it.
        assertThat(fired()).containsExactly("1 @ 0", "2 @ 2000", "3 @ 4000", "4 @ 4000");
    }

    @Test
    void anItemIsOverByItsOwnLengthOrWhenTheLastOfItHasCome() {
        cue("1", "by hand", "Bed → 0 %");
        cue("2", "by hand", "Bed → 100 % in 4 s");
        assertThat(lasts(0)).isEqualTo(4000);
        item("Two", 60);
        cue("10", "by hand", "Amber");
        assertThat(lasts(1)).isEqualTo(60_000);
        item("Three", 2);
        cue("20", "by hand", "Bed → 0 %");
        cue("21", "by hand", "Bed → 100 % in 4 s");
        assertThat(lasts(2)).isEqualTo(4000);
        item("Four", 0);
        score("1 4/4\n1 quarter = 120\n20 end");
        cue("30", "at 1:1", "Amber");
        assertThat(lasts(3)).as("bars 1 to 20").isEqualTo(40_000);
        item("Five", 0);
        assertThat(lasts(4)).isZero();
    }

    @Test
    void anItemThatGoesStraightOnLastsUntilTheNextBegins() {
        show = show.withItem(new Item(show.items().get(0).id(), ItemKind.SONG, "One", 60, List.of()), 0);
        cue("1", "by hand", "Amber");
        cue("2", "after 3 s", "Blue");
        item("Two", 0);
        cue("10", "after 1 s", "Amber");
        assertThat(lasts(0)).isEqualTo(4000);
        assertThat(run().messages())
                .extracting(m -> m.cause() + " " + m.atNanos() / MS)
                .contains("cue 10 0");
    }

    @Test
    void aVampIsPlayedOnceInTheBook() {
        score("1 4/4\n1 quarter = 120\n3 vamp 2 bars\n20 end");
        cue("1", "at 1:1", "Amber");
        cue("2", "at 5:1", "Blue");
        assertThat(fired()).containsExactly("1 @ 0", "2 @ 8000");
    }

    @Test
    void justBeforeAPlaceWhatIsToBeHeardThereIsNotYetToldHoweverEarlyItLeaves() {
        show = show.withDevice(show.devices().get(0).withTiming(300, 0));
        score("1 4/4\n1 quarter = 120\n20 end");
        cue("1", "at 1:1", "Amber");
        cue("2", "at 2:1", "Blue");
        int item = show.items().get(0).id();
        DryRun run = run();
        assertThat(lights(run.before(item, 2 * SECOND))).isEqualTo("Amber");
        assertThat(lights(run.before(item, 2 * SECOND + 1))).isEqualTo("Blue");
        assertThat(lights(run.before(item, 0))).isEqualTo("nothing");
        assertThat(lights(run.before(item, 1))).isEqualTo("Amber");
        assertThat(lights(run.before(index("2")))).isEqualTo("Amber");
        assertThat(lights(run.before(index("1")))).isEqualTo("nothing");
        assertThat(run.before(item, 2 * SECOND).nowNanos()).isEqualTo(2 * SECOND);
        assertThat(lights(run.before(4711, 0)))
                .as("of no item the end of the book")
                .isEqualTo("Blue");
    }

    @Test
    void GOIsPressedWhenAFadeHasBeenCutShortAndNotWhenItWouldHaveEnded() {
        score("1 4/4\n1 quarter = 120\n20 end");
        cue("1", "at 1:1", "Bed → 0 %");
        cue("2", "at 1:2", "Bed → 100 % in 8 s");
        cue("3", "at 2:1", "Bed → 10 %");
        cue("4", "by hand", "Blue");
        cue("5", "at 5:1", "Red");
        assertThat(fired()).containsExactly("1 @ 0", "2 @ 500", "3 @ 2000", "4 @ 2000", "5 @ 8000");
    }

    @Test
    void whatFollowsAcrossAnItemWithoutCuesComesOnce() {
        show = Shows.device(show, "Tablet", Department.WORDS, 5);
        Device tablet = show.devices().get(2).withStepLists(StepList.read("song of 9 every 50 ms"));
        show = Shows.phrase(show.withDevice(tablet), "Next", "note 48", Effect.of("steps song by +1"));
        cue("1", "by hand", "Amber");
        item("Empty", 0);
        item("Three", 0);
        cue("2", "after 3.3 s", "Next");
        cue("3", "by hand", "Blue");
        PlaybackState there = run().before(index("3"));
        assertThat(there.told()
                        .device(tablet.id())
                        .pointer("song")
                        .orElseThrow()
                        .place())
                .hasValue(2);
    }

    @Test
    void justBeforeACueWhatWaitsForItHasComeToRest() {
        cue("1", "by hand", "Amber");
        cue("2", "by hand", "Bed → 0 %");
        cue("3", "by hand", "Bed → 100 % in 4 s");
        cue("4", "after 1 s", "Blue");
        cue("5", "with", "Bed → 10 %");
        cue("6", "by hand", "Amber");
        DryRun run = run();
        assertThat(lights(run.before(index("3")))).isEqualTo("Amber");
        PlaybackState four = run.before(index("4"));
        assertThat(four.nowNanos()).as("a nanosecond before it comes").isEqualTo(SECOND - 1);
        assertThat(four.moves()).hasSize(1);
        assertThat(lights(four)).isEqualTo("Amber");
        PlaybackState five = run.before(index("5"));
        assertThat(five.nowNanos()).as("it comes with the one before it").isEqualTo(SECOND - 1);
        PlaybackState six = run.before(index("6"));
        assertThat(lights(six)).isEqualTo("Blue");
        assertThat(six.moves()).isEmpty();
        assertThat(lights(run.before(99))).as("the end of the book").isEqualTo("Amber");
    }

    @Test
    void aMachinesLevelsAreThoseOfTheItemBefore() {
        cue("1", "by hand", "Bed → 0 %");
        cue("2", "by hand", "Bed → 100 % in 4 s");
        item("Two", 0);
        cue("10", "by hand", "Amber");
        DryRun run = run();
        assertThat(run.before(index("1")).told().levels()).isEmpty();
        assertThat(run.before(index("10")).told().levels().values())
                .extracting(l -> ((MidiMessage) l.message()).encode().hex())
                .containsExactly("B4 03 7F");
        assertThat(run.messages(4711)).isEmpty();
        assertThat(run.shown(4711)).isEmpty();
    }

    private double bed(long nanos, long... given) {
        PlaybackState at = run().at(
                        show.items().get(0).id(),
                        nanos,
                        order -> order == 1 || order == 2 ? given[order - 1] : ItemProgress.BEFORE);
        Control bed = new Control(show.devices().get(1).id(), "ControlChange 4 3");
        return at.moves().containsKey(bed) ? -1 : at.told().levels().get(bed).exact();
    }

    /** A fade of four seconds by hand, and a look by hand behind it, in a song; looked at after a second. */
    @Test
    void whatWasGivenLongBeforeHasComeToRestAndWhatWasGivenHereHasNot() {
        score("1 4/4\n1 quarter = 120\n20 end");
        cue("1", "at 1:1", "Bed → 0 %");
        cue("2", "by hand", "Bed → 100 % in 4 s");
        cue("3", "by hand", "Amber");
        cue("4", "at 8:1", "Blue");
        int item = show.items().get(0).id();
        assertThat(bed(SECOND, ItemProgress.BEFORE, ItemProgress.BEFORE))
                .as("given before: it is over")
                .isEqualTo(127);
        assertThat(bed(SECOND, SECOND / 2, ItemProgress.NOT_GIVEN))
                .as("on its way")
                .isEqualTo(-1);
        assertThat(bed(SECOND, ItemProgress.NOT_GIVEN, SECOND / 2))
                .as("not given")
                .isZero();
        assertThat(bed(SECOND, ItemProgress.BEFORE, SECOND / 2))
                .as("given before one that was given half a second ago")
                .isEqualTo(127);
        assertThat(bed(6 * SECOND, 3 * SECOND, 5 * SECOND))
                .as("on its way still")
                .isEqualTo(-1);
        assertThat(bed(8 * SECOND, 3 * SECOND, 5 * SECOND)).isEqualTo(127);
        assertThat(lights(run().at(item, SECOND, c -> ItemProgress.NOT_GIVEN))).isEqualTo("nothing");
        assertThat(lights(run().at(item, SECOND, c -> ItemProgress.BEFORE))).isEqualTo("Amber");
        assertThat(lights(run().at(item, 14 * SECOND - 1, c -> ItemProgress.BEFORE)))
                .isEqualTo("Amber");
        assertThat(lights(run().at(item, 14 * SECOND, c -> ItemProgress.BEFORE)))
                .isEqualTo("Blue");
    }

    private String lightsHad(long... given) {
        return lights(run().at(show.items().get(0).id(), SECOND, order -> given[order]));
    }

    @Test
    void whatFollowsACueThatWasGivenBeforeHasComeToo() {
        score("1 4/4\n1 quarter = 120\n20 end");
        cue("1", "by hand", "Amber");
        cue("2", "after 1.9 s", "Blue");
        cue("3", "by hand", "Red");
        assertThat(lightsHad(ItemProgress.BEFORE, ItemProgress.BEFORE, ItemProgress.NOT_GIVEN))
                .isEqualTo("Blue");
        assertThat(lightsHad(ItemProgress.BEFORE, ItemProgress.BEFORE, 0)).isEqualTo("Red");
        assertThat(lightsHad(ItemProgress.BEFORE, ItemProgress.NOT_GIVEN, ItemProgress.NOT_GIVEN))
                .isEqualTo("Amber");
        assertThat(lightsHad(0, SECOND / 2, ItemProgress.NOT_GIVEN))
                .as("somebody did not wait for it")
                .isEqualTo("Blue");
        assertThat(lightsHad(0, 3 * SECOND, ItemProgress.NOT_GIVEN))
                .as("the music has been put back")
                .isEqualTo("Blue");
    }
}
