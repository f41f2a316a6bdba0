package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;

/** A state of which all moments are so much later plays on the same, so much later: nothing counts from anywhere else. */
class ShiftedTest {

    private static final long MS = 1_000_000;
    private static final long LATER = 12_345_678_901L;

    static LongStream seeds() {
        return LongStream.range(0, 40);
    }

    private static PlaybackState somewhere(Random random, long seed) {
        Plan plan = Planner.plan(PlayableShows.show(seed, true));
        PlaybackState state = PlaybackState.of(plan, 1000 * MS);
        Device some = plan.devices().iterator().next();
        state = after(state, new Order.Behave(GoOptions.CAREFUL));
        for (int i = random.nextInt(7); i >= 0; i--) {
            state = after(state, new Order.Go());
            state = pass(state, 400 + random.nextInt(3000));
            if (random.nextInt(3) == 0) {
                state = after(state, new Order.Lost(some.id()));
            }
        }
        if (!some.phrases().isEmpty()) {
            PlannedCall call = PlannedCall.of(some, some.phrases().get(0));
            state = after(state, new Order.Fire(call, "by hand"));
        }
        state = after(state, new Order.Go());
        // A second one at once, or one that would skip something, asks and waits.
        return after(state, new Order.Go());
    }

    private static PlaybackState after(PlaybackState state, Order order) {
        return Engine.step(state, Event.of(state.nowNanos(), order)).next();
    }

    private static PlaybackState pass(PlaybackState state, long millis) {
        return Engine.step(state, Event.pass(state.nowNanos() + millis * MS)).next();
    }

    private static List<ScheduledMessage> later(List<ScheduledMessage> messages) {
        return messages.stream()
                .map(m -> new ScheduledMessage(
                        m.deviceId(),
                        m.message(),
                        m.dueNanos() + LATER,
                        m.wantedNanos() + LATER,
                        m.bornNanos() + LATER,
                        m.cause().shifted(LATER),
                        m.beforeStart()))
                .toList();
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void itPlaysOnTheSameSoMuchLater(long seed) {
        PlaybackState state = somewhere(new Random(seed), seed);
        PlaybackState shifted = state.shifted(LATER);
        assertThat(state.shifted(0)).isSameAs(state);
        assertThat(shifted.shifted(-LATER)).isEqualTo(state);
        assertThat(shifted.operator().waitsAt(shifted.nowNanos()))
                .isEqualTo(state.operator().waitsAt(state.nowNanos()));
        assertThat(shifted.coming().map(c -> c.dueNanos() - LATER))
                .isEqualTo(state.coming().map(PlaybackState.Coming::dueNanos));
        for (long millis : new long[] {1, 700, 4000, 30_000}) {
            Step here = Engine.step(state, Event.pass(state.nowNanos() + millis * MS));
            Step there = Engine.step(shifted, Event.pass(shifted.nowNanos() + millis * MS));
            assertThat(there.messages()).isEqualTo(later(here.messages()));
            assertThat(there.wakeNanos())
                    .isEqualTo(here.wakeNanos() == Long.MAX_VALUE ? Long.MAX_VALUE : here.wakeNanos() + LATER);
            assertThat(there.next()).isEqualTo(here.next().shifted(LATER));
            state = here.next();
            shifted = there.next();
        }
    }
}
