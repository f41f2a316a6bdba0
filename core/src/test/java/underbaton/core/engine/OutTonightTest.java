package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.OutTonight.Kind;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Effect;

/** What is out tonight sends nothing and is passed over; what is put back takes part again. */
class OutTonightTest {

    private static final long SECOND = 1_000_000_000L;

    private Show show = Shows.small();
    private PlaybackState state;
    private final List<ScheduledMessage> sent = new ArrayList<>();

    private void begin() {
        state = PlaybackState.of(Planner.plan(show), 0);
    }

    private void order(Order order) {
        Step step = Engine.step(state, Event.of(state.nowNanos(), order));
        state = step.next();
        sent.addAll(step.messages());
    }

    private void arm(Kind kind, int id, boolean armed) {
        OutTonight out = state.plan().out().with(kind, id, armed);
        order(new Order.Adopt(Planner.plan(show).tonight(out)));
    }

    private int cue(String number) {
        return show.cueNumbered(CueNumber.of(number)).orElseThrow().id();
    }

    private String standby() {
        return state.standbyCue().map(c -> c.number().toString()).orElse("end");
    }

    private List<String> sent() {
        List<String> words = sent.stream()
                .map(m -> m.cause().words() + " "
                        + ((MidiMessage) m.message()).encode().hex())
                .toList();
        sent.clear();
        return words;
    }

    @Test
    void aCueThatIsTakenOutIsPassedOverAndStandsByAgainWhenItIsPutBack() {
        show = Shows.cue(show, "12", "by hand", "Amber");
        begin();
        String first = standby();
        arm(Kind.CUE, cue(first), false);
        assertThat(standby()).isNotEqualTo(first);
        arm(Kind.CUE, cue(first), true);
        assertThat(standby()).isEqualTo(first);
        assertThat(sent()).isEmpty();
    }

    @Test
    void aCueThatFollowsOneThatIsOutComesNevertheless() {
        show = Shows.cue(show, "12", "by hand", "Amber");
        show = Shows.cue(show, "13", "after 2 s", "Amber");
        begin();
        order(new Order.StandBy(cue("12")));
        arm(Kind.CUE, cue("12"), false);
        assertThat(standby()).isEqualTo("12");
        order(new Order.Go());
        assertThat(sent()).isEmpty();
        Step later = Engine.step(state, Event.pass(state.nowNanos() + 2 * SECOND));
        assertThat(later.messages()).extracting(m -> m.cause().words()).containsOnly("cue 13");
    }

    @Test
    void aMachineThatIsOutIsToldWhatItHasMissedWhenItIsPutBack() {
        show = Shows.cue(show, "12", "by hand", "Amber");
        begin();
        order(new Order.StandBy(cue("12")));
        int machine = state.standbyCue().orElseThrow().calls().get(0).deviceId();
        arm(Kind.MACHINE, machine, false);
        order(new Order.Go());
        assertThat(sent()).isEmpty();
        arm(Kind.MACHINE, machine, true);
        assertThat(sent()).hasSize(1);
        arm(Kind.MACHINE, machine, false);
        arm(Kind.MACHINE, machine, true);
        assertThat(sent()).isEmpty();
    }

    @Test
    void aMachineThatIsPutBackWhileItIsAwayIsToldWhenItCanBeReached() {
        show = Shows.cue(show, "12", "by hand", "Amber");
        begin();
        order(new Order.StandBy(cue("12")));
        int machine = state.standbyCue().orElseThrow().calls().get(0).deviceId();
        arm(Kind.MACHINE, machine, false);
        order(new Order.Lost(machine));
        order(new Order.Go());
        order(new Order.Found(machine));
        assertThat(state.absent().get(machine).back()).isFalse();
        order(new Order.Lost(machine));
        arm(Kind.MACHINE, machine, true);
        assertThat(sent()).isEmpty();
        order(new Order.Found(machine));
        assertThat(state.absent().get(machine).back()).isTrue();
        order(new Order.BringUp(machine));
        assertThat(sent()).hasSize(1);
    }

    /** One message of two has left: the machine is not where the phrase would have brought it. */
    @Test
    void aPhraseOfWhichOnlyTheBeginningLeftIsToldAnew() {
        show = Shows.phrase(show, "Patch", "program 1; after 20 ms control 80 to 1", Effect.HOLDS);
        show = Shows.cue(show, "12", "by hand", "Patch");
        begin();
        order(new Order.StandBy(cue("12")));
        int machine = state.standbyCue().orElseThrow().calls().get(0).deviceId();
        order(new Order.Go());
        assertThat(sent()).hasSize(1);
        arm(Kind.MACHINE, machine, false);
        pass();
        assertThat(sent()).isEmpty();
        arm(Kind.MACHINE, machine, true);
        pass();
        assertThat(sent()).containsExactly("catch-up C1 01", "catch-up B1 50 01");
        order(new Order.Fire(
                state.plan().cues().get(state.plan().indexOf(cue("12"))).calls().get(0), "by hand"));
        order(new Order.Lost(machine));
        pass();
        order(new Order.Found(machine));
        order(new Order.BringUp(machine));
        pass();
        assertThat(sent())
                .as("said into the void, and once more")
                .containsExactly("by hand C1 01", "by hand B1 50 01", "catch-up C1 01", "catch-up B1 50 01");
    }

    private void pass() {
        Step step = Engine.step(state, Event.pass(state.nowNanos() + SECOND));
        state = step.next();
        sent.addAll(step.messages());
    }

    static LongStream seeds() {
        return LongStream.range(0, Long.getLong("baton.seeds", 100));
    }

    /** A show of which any cues and items are out is played to its end: nothing of them is sent, all the rest comes. */
    @ParameterizedTest
    @MethodSource("seeds")
    void nothingOfWhatIsOutIsSentAndAllTheRestComes(long seed) {
        Random random = new Random(seed);
        Plan whole = Planner.plan(PlayableShows.show(seed, false));
        OutTonight out = OutTonight.NONE;
        for (PlannedCue cue : whole.cues()) {
            out = random.nextInt(3) == 0 ? out.with(Kind.CUE, cue.cueId(), false) : out;
            out = random.nextInt(12) == 0 ? out.with(Kind.ITEM, cue.item().id(), false) : out;
        }
        Plan plan = whole.tonight(out);
        Set<Integer> silent = new HashSet<>();
        Set<Integer> armed = new HashSet<>();
        plan.cues().forEach(c -> (c.armed() ? armed : silent).add(c.cueId()));
        state = PlaybackState.of(plan, 0);
        Set<Integer> fired = new HashSet<>();
        for (int i = 0; i < whole.cues().size() && state.standbyCue().isPresent(); i++) {
            int before = state.standby();
            Step go = Engine.step(state, Event.of(state.nowNanos(), new Order.Go()));
            Step rest = Engine.step(go.next(), Event.pass(state.nowNanos() + 900 * SECOND));
            state = rest.next();
            for (Step step : List.of(go, rest)) {
                sent.addAll(step.messages());
                step.happenings().forEach(h -> {
                    if (h instanceof Happening.Fired f) {
                        fired.add(f.cue().cueId());
                    }
                });
            }
            assertThat(state.standby()).isGreaterThanOrEqualTo(before);
        }
        assertThat(sent).extracting(m -> m.cause().cueId()).doesNotContainAnyElementsOf(silent);
        assertThat(fired).doesNotContainAnyElementsOf(silent).containsAll(armed);
        assertThat(DryRun.of(plan).messages().map(PlannedMessage::cueId)).doesNotContainAnyElementsOf(silent);
    }
}
