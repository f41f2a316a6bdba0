package underbaton.core.engine.key;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedKey;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Remarks.Mark;

/** A key is lit when the machines are as it makes them. */
class KeyLightTest {

    private static final long SECOND = 1_000_000_000L;

    private final Device box = box();
    private DeviceStates told = DeviceStates.NOTHING;

    private static Device box() {
        Show show = Shows.device(Show.empty(1, "Keys"), "Box", Department.SOUND, 0);
        Device box = show.devices().get(0);
        String[][] phrases = {
            {"Amber", "note 1", "holds look"},
            {"Blue", "note 2", "holds look"},
            {"Film", "note 3", "starts film for 0:10"},
            {"Film out", "note 4", "stops film"},
            {"All out", "note 5", "stops"},
            {"Flash", "note 6", "moment"},
            {"Fader", "control 7 to ?", "levels"},
        };
        for (int i = 0; i < phrases.length; i++) {
            Optional<Argument> argument =
                    phrases[i][1].endsWith("?") ? Optional.of(Argument.of("per cent")) : Optional.empty();
            box = box.withPhrase(PartsOnPaper.phrase(phrases[i][0], phrases[i][1], argument, Effect.of(phrases[i][2]))
                    .withId(10 + i));
        }
        return box;
    }

    private PlannedCall call(String typed) {
        Call call = Call.of(box, typed);
        return PlannedCall.of(box, box.phrase(call.phraseId()).orElseThrow(), call.amount());
    }

    private void told(String... typed) {
        for (String each : typed) {
            PlannedCall call = call(each);
            told = new DeviceStates(
                    told.devices().plus(box.id(), told.device(box.id()).after(call, 0, List.of())),
                    told.levels().plusAll(call.levels()));
        }
    }

    private KeyLight light(List<String> on, List<String> off, HandKey.Way way, Boolean touched, long nanos) {
        HandKey key = new HandKey(7, 0, 0, "Key", Mark.NONE, way, List.of(), List.of(), false);
        List<PlannedCall> makes = on.stream().map(this::call).toList();
        List<PlannedCall> lets = off.stream().map(this::call).toList();
        return KeyLight.of(
                new PlannedKey(key, makes, lets), told, touched == null ? Map.of() : Map.of(7, touched), nanos);
    }

    private KeyLight light(String... on) {
        return light(List.of(on), List.of(), HandKey.Way.PRESS, null, 0);
    }

    @Test
    void what_is_held_is_on_until_another_takes_its_slot() {
        assertThat(light("Amber")).isEqualTo(KeyLight.UNKNOWN);
        told("Amber");
        assertThat(light("Amber")).isEqualTo(KeyLight.ON);
        assertThat(light("Blue")).isEqualTo(KeyLight.OFF);
        assertThat(light("Amber", "Blue")).as("half of it").isEqualTo(KeyLight.OFF);
        assertThat(light("Amber", "Flash")).as("a flash leaves no trace").isEqualTo(KeyLight.ON);
        assertThat(light("Amber", "Film")).as("of the film nobody knows").isEqualTo(KeyLight.ON);
        told("All out");
        assertThat(light("Amber")).isEqualTo(KeyLight.OFF);
        assertThat(light("Film")).isEqualTo(KeyLight.OFF);
    }

    @Test
    void what_runs_is_on_until_it_is_over_or_stopped() {
        assertThat(light("Film out")).isEqualTo(KeyLight.UNKNOWN);
        told("Film");
        assertThat(light("Film")).isEqualTo(KeyLight.ON);
        assertThat(light("Film out")).isEqualTo(KeyLight.OFF);
        assertThat(light(List.of("Film"), List.of(), HandKey.Way.PRESS, null, 11 * SECOND))
                .isEqualTo(KeyLight.OFF);
        told("Film out");
        assertThat(light("Film out")).isEqualTo(KeyLight.ON);
        assertThat(light("All out")).as("all that is known of has stopped").isEqualTo(KeyLight.ON);
        told("Amber");
        assertThat(light("All out")).isEqualTo(KeyLight.OFF);
        assertThat(light("Film out")).as("another slot").isEqualTo(KeyLight.ON);
    }

    @Test
    void a_level_is_on_where_it_stands() {
        assertThat(light("Fader 50 %")).isEqualTo(KeyLight.UNKNOWN);
        told("Fader 50 %");
        assertThat(light("Fader 50 %")).isEqualTo(KeyLight.ON);
        assertThat(light("Fader 60 %")).isEqualTo(KeyLight.OFF);
        assertThat(light("Fader 50 %", "Amber")).isEqualTo(KeyLight.ON);
    }

    @Test
    void what_switches_off_is_known_too_and_without_a_trace_the_last_touch_counts() {
        told("Blue");
        assertThat(light(List.of("Film"), List.of("Blue"), HandKey.Way.ON_OFF, null, 0))
                .as("it is as going off makes it")
                .isEqualTo(KeyLight.OFF);
        assertThat(light(List.of("Flash"), List.of("Flash"), HandKey.Way.ON_OFF, null, 0))
                .isEqualTo(KeyLight.UNKNOWN);
        assertThat(light(List.of("Flash"), List.of("Flash"), HandKey.Way.ON_OFF, true, 0))
                .isEqualTo(KeyLight.ON);
        assertThat(light(List.of("Flash"), List.of("Flash"), HandKey.Way.HELD, false, 0))
                .isEqualTo(KeyLight.OFF);
        assertThat(light(List.of("Flash"), List.of(), HandKey.Way.PRESS, true, 0))
                .as("what is only pressed is not on")
                .isEqualTo(KeyLight.UNKNOWN);
        assertThat(light(List.of("Film"), List.of("Film out"), HandKey.Way.ON_OFF, true, 0))
                .as("a film leaves a trace, and nobody knows of it")
                .isEqualTo(KeyLight.UNKNOWN);
    }
}
