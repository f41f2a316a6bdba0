package underbaton.core.engine.operator;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.OptionalLong;
import org.junit.jupiter.api.Test;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.Plan;

class OperatorTest {

    private static final long SECOND = 1_000_000_000L;
    private static final Guarded PHRASE = new Guarded.APhrase(1, 2);

    private final StepContext step = new StepContext(Plan.EMPTY, 0, OptionalLong.empty());
    private final Operator operator = new Operator(step, OperatorInput.FIRST);

    @Test
    void a_GO_right_behind_another_is_not_meant() {
        operator.behave(GoOptions.CAREFUL);
        assertThat(operator.isTooSoon()).as("nothing was pressed yet").isFalse();
        operator.gone();
        step.advance(GoOptions.CAREFUL.againNanos() - 1);
        assertThat(operator.isTooSoon()).isTrue();
        step.advance(GoOptions.CAREFUL.againNanos());
        assertThat(operator.isTooSoon()).isFalse();
    }

    @Test
    void the_second_press_is_waited_for_just_so_long() {
        assertThat(operator.nextAsk()).isEqualTo(StepContext.NEVER);
        operator.ask();
        step.advance(GoOptions.PATIENCE_NANOS);
        assertThat(operator.isSecondPress()).isTrue();
        step.advance(GoOptions.PATIENCE_NANOS + 1);
        assertThat(operator.isSecondPress()).isFalse();
        assertThat(operator.nextAsk()).isEqualTo(step.now());
        operator.stopAsking(step.now());
        assertThat(operator.nextAsk()).isEqualTo(StepContext.NEVER);
        assertThat(step.happenings()).containsExactly(new Happening.Turned(step.now()));
    }

    @Test
    void neither_a_GO_nor_a_chosen_standby_leaves_one_waiting() {
        operator.ask();
        operator.gone();
        assertThat(operator.isSecondPress()).isFalse();
        operator.ask();
        operator.movedTo(true);
        assertThat(operator.isSecondPress()).isFalse();
        assertThat(operator.state().moved()).isTrue();
        operator.gone();
        assertThat(operator.state().moved()).isFalse();
    }

    @Test
    void what_is_guarded_is_done_by_the_second_of_two_acts() {
        assertThat(operator.mayDo(PHRASE, true)).isFalse();
        step.advance(OperatorInput.GUARD_NANOS);
        assertThat(operator.mayDo(PHRASE, true)).isTrue();
        assertThat(operator.mayDo(PHRASE, true)).as("the next one anew").isFalse();
        step.advance(2 * OperatorInput.GUARD_NANOS + 1);
        assertThat(operator.mayDo(PHRASE, true)).as("three seconds later").isFalse();
    }

    @Test
    void each_guarded_thing_has_its_own_two_acts_and_what_is_not_guarded_takes_none() {
        operator.mayDo(PHRASE, true);
        assertThat(operator.mayDo(new Guarded.APhrase(1, 3), false)).isTrue();
        assertThat(operator.mayDo(new Guarded.AHandCue(2), true)).isFalse();
        assertThat(operator.mayDo(PHRASE, true)).as("another came in between").isFalse();
        assertThat(operator.mayDo(new Guarded.APhrase(2, 2), true)).isFalse();
        assertThat(operator.mayDo(new Guarded.AListener(2), true)).isFalse();
    }

    @Test
    void the_tempo_of_the_day_is_that_of_its_item_or_if_it_is_kept_the_last() {
        operator.pace(7, 900);
        assertThat(operator.paceOf(7)).isEqualTo(900);
        assertThat(operator.paceOf(8)).isEqualTo(1000);
        operator.behave(new GoOptions(false, true, 0, true));
        assertThat(operator.paceOf(8)).isEqualTo(900);
    }

    @Test
    void taps_of_one_tempo_are_no_more_than_two_seconds_apart() {
        assertThat(operator.tap()).isEmpty();
        step.advance(2 * SECOND);
        assertThat(operator.tap()).hasValue(2 * SECOND);
        step.advance(4 * SECOND + 1);
        assertThat(operator.tap()).as("one tempo later").isEmpty();
    }

    @Test
    void of_taps_the_last_five_count_and_two_at_once_are_one() {
        for (long at : new long[] {0, 900, 1800, 2800, 3800, 4800, 5800}) {
            step.advance(at * 1_000_000);
            operator.tap();
            assertThat(operator.tap())
                    .as("a bouncing contact")
                    .isEqualTo(operator.state().tappedBeat());
        }
        assertThat(operator.state().tappedBeat()).hasValue(SECOND);
    }
}
