package underbaton.core.engine.device;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.pcollections.HashTreePMap;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.rig.Control;

class DevicesTest {

    private final PartsOnPaper parts = new PartsOnPaper();
    private final Devices devices = parts.devices;
    private final int lights = parts.device("Lights");
    private final int tablet = parts.device("Tablet");
    private final Control bed = Control.of(parts.device("Console"), new ControlChange(4, 3, 0));

    private void call(String device, String cell) {
        devices.called(parts.call(device, cell), 5, parts.step.plan().stepLists(parts.device(device)));
    }

    private String holds(DeviceState state) {
        return state.slot("").map(s -> s.call().phrase()).orElse("");
    }

    @Test
    void where_nothing_was_told_the_state_is_the_very_same() {
        DeviceStates before = devices.told();
        assertThat(devices.told()).isSameAs(before);
        call("Lights", "Amber");
        assertThat(devices.told()).isNotSameAs(before);
        assertThat(new Devices(before, HashTreePMap.empty()).told()).isSameAs(before);
    }

    @Test
    void one_that_is_away_misses_what_it_is_told_until_it_is_back() {
        call("Lights", "Amber");
        devices.lose(lights, HashTreePMap.empty());
        assertThat(devices.hears(lights)).isFalse();
        call("Lights", "Blue");
        assertThat(holds(devices.of(lights))).as("told").isEqualTo("Blue");
        assertThat(holds(devices.absent().get(lights).state())).as("heard").isEqualTo("Amber");
        devices.find(lights);
        assertThat(devices.hears(lights)).isTrue();
        call("Lights", "Amber");
        call("Lights", "Dark");
        assertThat(holds(devices.absent().get(lights).state())).as("heard").isEqualTo("Dark");
    }

    @Test
    void lost_and_out_tonight_are_two_things_and_both_must_be_over() {
        devices.lose(lights, HashTreePMap.empty());
        devices.disarm(lights, HashTreePMap.empty());
        devices.find(lights);
        assertThat(devices.hears(lights)).isFalse();
        devices.arm(lights);
        assertThat(devices.hears(lights)).isTrue();
        devices.find(tablet);
        devices.arm(tablet);
        assertThat(devices.absent()).as("it was never away").doesNotContainKey(tablet);
    }

    @Test
    void taken_as_it_is_what_was_meant_for_it_is_forgotten() {
        call("Lights", "Amber");
        call("Console", "Bed 10 %");
        devices.lose(lights, HashTreePMap.empty());
        call("Lights", "Blue");
        assertThat(devices.takeAsItIs(tablet)).isFalse();
        assertThat(devices.takeAsItIs(lights)).isTrue();
        assertThat(holds(devices.of(lights))).isEqualTo("Amber");
        assertThat(devices.absent()).as("it is still away").containsKey(lights);
        devices.find(lights);
        devices.takeAsItIs(lights);
        assertThat(devices.absent()).isEmpty();
        assertThat(devices.levels().get(bed).value())
                .as("another machine keeps its levels")
                .isEqualTo(13);
    }

    @Test
    void a_look_at_a_list_is_known_of_one_that_is_away_too() {
        Pointer third = new Pointer("song", OptionalInt.of(3), Optional.empty(), 7);
        devices.lose(tablet, HashTreePMap.empty());
        devices.standsAt(tablet, third);
        assertThat(devices.of(tablet).pointer("song")).contains(third);
        assertThat(devices.absent().get(tablet).state().pointer("song")).contains(third);
        devices.standsAt(lights, third);
        assertThat(devices.absent()).doesNotContainKey(lights);
    }

    @Test
    void of_what_was_told_by_halves_nothing_is_known() {
        call("Lights", "Amber");
        call("Console", "Bed 10 %");
        devices.forget(lights, new NoteOn(0, 2, 127));
        assertThat(holds(devices.of(lights))).isEqualTo("Amber");
        devices.forget(lights, new NoteOn(0, 1, 127));
        assertThat(devices.of(lights).slots()).isEmpty();
        devices.forget(bed.deviceId(), new ControlChange(4, 3, 13));
        assertThat(devices.levels().get(bed)).isNull();
    }

    @Test
    void after_an_edit_nothing_is_known_of_machines_that_are_gone() {
        call("Lights", "Amber");
        call("Tablet", "Top");
        devices.keepOnly(id -> id == tablet);
        assertThat(devices.states().keySet()).isEqualTo(Set.of(tablet));
        assertThat(List.copyOf(devices.absent().keySet())).isEmpty();
    }
}
