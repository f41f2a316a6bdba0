package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Shows;
import underbaton.core.engine.catchup.Stops;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Precautions;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;

/** What machines are kept from: guarded phrases, what runs on after stop all, fades from nobody knows where. */
class PrecautionsTest extends PlayedShow {

    private Device lights() {
        return show.devices().get(0);
    }

    private void phrase(String name, String says, String effect, boolean guarded) {
        Phrase phrase = new Phrase(
                0,
                name,
                new SpeechWording(Numbering.WIRE).read(says),
                Optional.empty(),
                Effect.of(effect),
                guarded,
                false,
                Remarks.NONE);
        show = show.withPhrase(lights().id(), phrase);
    }

    private Order.Fire fire(String name) {
        return new Order.Fire(
                PlannedCall.of(lights(), lights().phraseNamed(name).orElseThrow()), "fired");
    }

    @Test
    void aGuardedPhraseIsFiredByTheSecondOfTwoActs() {
        phrase("Strobe", "note 99", "holds", true);
        phrase("Blinder", "note 98", "holds", true);
        begin();
        order(fire("Strobe"));
        assertThat(sent()).isEmpty();
        order(fire("Blinder"));
        order(fire("Strobe"));
        assertThat(sent()).as("each waits for its own second act").isEmpty();
        pass(3_100);
        order(fire("Strobe"));
        assertThat(sent()).as("too late").isEmpty();
        pass(2_900);
        order(fire("Strobe"));
        assertThat(sent()).containsExactly("fired 90 63 7F @ 6000");
        order(fire("Strobe"));
        assertThat(sent()).as("a third act is the first of two").isEmpty();
    }

    @Test
    void afterAllWasStoppedAMachineGetsItsSafePhrase() {
        phrase("Fan", "note 97", "starts fan", false);
        phrase("Fan off", "note 96", "stops fan", false);
        phrase("House light", "note 95", "holds", true);
        show = show.withDevice(
                lights().withPrecautions(new Precautions("House light", Precautions.UntoldFade.AT_ONCE, false)));
        begin();
        order(fire("Fan"));
        sent();
        order(new Order.StopAll());
        assertThat(sent()).containsExactly("stop all 90 60 7F @ 0", "stop all, made safe 90 5F 7F @ 0");
        // Renamed, it is the safe phrase still.
        Phrase safe = lights().phraseNamed("House light").orElseThrow();
        show = show.withPhrase(lights().id(), safe.withName("Work light"));
        assertThat(lights().safePhrase().orElseThrow().name()).isEqualTo("Work light");
    }

    @Test
    void aFadeThatNobodyKnowsTheStartOfBeginsWhereTheRigSays() {
        show = fader(show);
        fade("20", "by hand", "Bed → 50 % in 1 s");
        for (Precautions.UntoldFade way : Precautions.UntoldFade.values()) {
            Device console = show.devices().get(show.devices().size() - 1);
            show = show.withDevice(console.withPrecautions(new Precautions("", way, false)));
            begin();
            standBy("20");
            go();
            pass(2_000);
            List<String> values = sent().stream().map(s -> s.split(" ")[4]).toList();
            assertThat(values.get(values.size() - 1)).isEqualTo("40");
            switch (way) {
                case AT_ONCE -> assertThat(values).hasSize(1);
                case FROM_LOWEST -> assertThat(values).startsWith("00", "01").isSorted();
                case FROM_HIGHEST ->
                    assertThat(values).startsWith("7F", "7E").isSortedAccordingTo(Comparator.reverseOrder());
            }
        }
    }

    @Test
    void aMachineThatIsBroughtUpGetsWhatIsGuardedOnlyWhenItIsAskedForAgain() {
        phrase("Scene 1", "note 99", "holds scene", true);
        show = Shows.cue(show, "20", "by hand", "Amber");
        show = Shows.cue(show, "21", "by hand", "Scene 1");
        begin();
        order(new Order.Lost(lights().id()));
        standBy("20");
        go();
        go();
        order(new Order.Found(lights().id()));
        sent();
        order(new Order.BringUp(lights().id()));
        assertThat(sent()).hasSize(1).noneMatch(s -> s.contains("90 63"));
        order(new Order.BringUp(lights().id()));
        assertThat(sent()).containsExactly("catch-up 90 63 7F @ 0");
        assertThat(state.absent()).isEmpty();
    }

    @Test
    void whatNothingStopsIsNamedBeforeTheShow() {
        phrase("Fan", "note 97", "starts fan", false);
        Phrase all = lights().phraseNamed("Dark").orElseThrow();
        show = show.withoutPhrase(lights().id(), all.id());
        phrase("Haze", "note 94", "starts haze", false);
        phrase("Fan off", "note 96", "stops fan", false);
        show = Shows.cue(show, "20", "by hand", "Fan");
        show = Shows.cue(show, "21", "by hand", "Haze");
        show = Shows.cue(show, "22", "by hand", "Haze");
        assertThat(Stops.missing(Planner.plan(show)))
                .extracting(Stops.Unstoppable::phrase)
                .containsExactly("Haze");
        phrase("All off", "note 93", "stops", false);
        assertThat(Stops.missing(Planner.plan(show))).isEmpty();
    }
}
