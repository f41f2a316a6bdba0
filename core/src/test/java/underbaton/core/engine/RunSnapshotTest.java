package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import underbaton.core.engine.music.Playing;
import underbaton.core.plan.Plan;
import underbaton.core.plan.Planner;
import underbaton.core.store.StoredForm;

/** What is kept over a crash comes back as it was, through the form in which it is written down. */
class RunSnapshotTest {

    private static final long SECOND = 1_000_000_000L;

    static LongStream seeds() {
        return LongStream.range(0, Long.getLong("baton.seeds", 60));
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void machinesAreAsTheyWereToldAndTheMusicStandsWhereItWas(long seed) {
        Random random = new Random(seed);
        Plan plan = Planner.plan(PlayableShows.show(seed, false));
        PlaybackState state = PlaybackState.of(plan, 5 * SECOND);
        for (int i = random.nextInt(9); i >= 0; i--) {
            state = Engine.step(state, Event.of(state.nowNanos(), new Order.Go()))
                    .next();
            state = Engine.step(state, Event.pass(state.nowNanos() + random.nextInt(4000) * 1_000_000L))
                    .next();
        }
        // Moves are kept as where they were.
        PlaybackState stopped =
                state.withMoves(state.moves().minusAll(state.moves().keySet()));
        RunSnapshot kept = RunSnapshot.of(stopped, 1_000_000);
        RunSnapshot read = StoredForm.read(StoredForm.write(kept), RunSnapshot.class);
        assertThat(read).isEqualTo(kept);

        long away = 7;
        PlaybackState back = read.into(plan, 90 * SECOND, 1_000_000 + away * 1_000_000);
        assertThat(back.standby()).isEqualTo(state.standby());
        assertThat(back.last().map(l -> l.cue().cueId()))
                .isEqualTo(state.last().map(l -> l.cue().cueId()));
        assertThat(back.playing().map(Playing::item)).isEqualTo(state.playing().map(Playing::item));
        long now = state.nowNanos();
        assertThat(back.playing().map(p -> p.position(90 * SECOND)))
                .isEqualTo(state.playing().map(p -> p.position(now)));
        PlaybackState later = Engine.step(stopped.leftAlone(), Event.pass(now + away * SECOND))
                .next();
        assertThat(back.correctionsTo(later))
                .as("as they were told, and %d s older", away)
                .isEmpty();
    }
}
