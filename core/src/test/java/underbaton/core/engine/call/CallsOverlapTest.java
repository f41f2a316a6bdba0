package underbaton.core.engine.call;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.cue.Call;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;

/** Which call takes the place of one that still waits, written down by hand for each kind beside each. */
class CallsOverlapTest {

    private static PlannedCall call(String effect, int device) {
        Show show = Shows.device(Show.empty(1, "Two"), "One", Department.SOUND, 0);
        show = Shows.device(show, "Other", Department.SOUND, 1);
        Device machine = show.devices().get(device);
        String says = effect.startsWith("levels") ? "control " + effect.replaceAll("\\D", "") + " to ?" : "note 1";
        Optional<Argument> argument =
                effect.startsWith("levels") ? Optional.of(Argument.of("per cent")) : Optional.empty();
        machine = machine.withPhrase(
                PartsOnPaper.phrase("It", says, argument, Effect.of(effect)).withId(9));
        Call call = Call.of(machine, argument.isPresent() ? "It 50 %" : "It");
        return PlannedCall.of(machine, machine.phrases().get(0), call.amount());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "holds look       | holds look                          | true",
                "holds look       | holds scene                         | false",
                "holds look       | stops look                          | true",
                "holds look       | stops                               | true",
                "holds look       | stops film                          | false",
                "holds look       | holds scene, takes along levels     | true",
                "starts film      | holds scene, takes along levels     | false",
                "starts film      | holds reel, takes along what runs   | true",
                "holds look       | holds reel, takes along what runs   | false",
                "starts film      | starts film                         | true",
                "starts film      | moment                              | false",
                "holds look       | steps look by +1                    | false",
                "steps page by +1 | sets page to 3                      | true",
                "steps page by +1 | sets verse to 3                     | false",
                "steps page by +1 | steps page by +1                    | false",
                "sets page to 2   | sets page to 3                      | true",
                "steps page by +1 | holds song, takes along lists       | true",
                "steps page by +1 | holds song                          | false",
                "levels 7         | levels 7                            | true",
                "levels 7         | levels 8                            | false",
                "levels 7         | holds scene, takes along levels     | true",
                "levels 7         | holds scene                         | false",
                "moment           | moment                              | false",
                "moment           | holds scene, takes along levels     | false",
            })
    void it_sets_what_the_other_would(String waits, String made, boolean sets) {
        assertThat(Overlap.setsTheSame(call(waits, 0), call(made, 0))).isEqualTo(sets);
        assertThat(Overlap.setsTheSame(call(waits, 0), call(made, 1)))
                .as("on another machine")
                .isFalse();
    }

    @Test
    void a_control_is_set_by_its_own_level_and_by_what_takes_levels_along() {
        PlannedCall level = call("levels 7", 0);
        for (var control : level.levels().keySet()) {
            assertThat(Overlap.sets(call("levels 7", 0), control)).isTrue();
            assertThat(Overlap.sets(call("levels 8", 0), control)).isFalse();
            assertThat(Overlap.sets(call("holds scene, takes along levels", 0), control))
                    .isTrue();
            assertThat(Overlap.sets(call("holds scene, takes along levels", 1), control))
                    .isFalse();
        }
        assertThat(level.levels()).hasSize(1);
        assertThat(List.of(
                        Overlap.isOfSameName(call("holds Look", 0), call("stops look", 0)),
                        Overlap.isOfSameName(call("holds look", 0), call("holds scene", 0))))
                .containsExactly(true, false);
    }
}
