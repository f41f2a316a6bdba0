package underbaton.core.engine.device;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.rig.StepList;

/** What a machine holds and where it stands after each call, and what the operator's hand has done. */
class DeviceStateTest {

    private static final long SECOND = 1_000_000_000L;
    private static final List<StepList> LISTS = List.of(new StepList("page", 5, 0), new StepList("", 3, 0));

    private static PlannedCall call(String name, String effect, Message... messages) {
        return call(name, effect, 0, messages);
    }

    private static PlannedCall call(String name, String effect, long fromNanos, Message... messages) {
        List<Timed> timed =
                java.util.Arrays.stream(messages).map(m -> new Timed(0, m)).toList();
        return new PlannedCall(1, 1, name, Effect.of(effect), timed, Optional.empty(), Map.of(), 0, 0, fromNanos);
    }

    private static DeviceState after(PlannedCall... calls) {
        DeviceState state = DeviceState.UNKNOWN;
        long at = 0;
        for (PlannedCall call : calls) {
            state = state.after(call, at++, LISTS);
        }
        return state;
    }

    private static List<String> slots(DeviceState state) {
        return state.slots().stream()
                .map(s -> s.name() + "=" + s.call().phrase())
                .toList();
    }

    private static OptionalInt place(DeviceState state, String list) {
        return state.pointer(list).map(Pointer::place).orElse(OptionalInt.of(-1));
    }

    @Test
    void aSlotIsTakenByTheLastAndOthersStay() {
        PlannedCall look = call("Look", "holds look");
        assertThat(slots(after(look, call("Reel", "holds reel"), call("Other", "holds look"))))
                .containsExactly("reel=Reel", "look=Other");
        assertThat(slots(after(look, call("Bed", "starts bed"), call("Scene", "holds scene, takes along levels"))))
                .as("a scene takes what is held along, and leaves what runs")
                .containsExactly("bed=Bed", "scene=Scene");
        assertThat(slots(after(look, call("Bed", "starts bed"), call("Reel", "holds reel, takes along what runs"))))
                .as("a reel ends what runs, and leaves what is held")
                .containsExactly("look=Look", "reel=Reel");
        assertThat(slots(after(look, call("Bed", "starts bed"), call("Bed out", "stops bed"))))
                .containsExactly("look=Look", "bed=Bed out");
        assertThat(slots(after(look, call("Bed", "starts bed"), call("All out", "stops"))))
                .containsExactly("=All out");
        assertThat(after(look, call("Flash", "moment")).slots()).hasSize(1);
    }

    @Test
    void aListIsSteppedThroughNoFurtherThanItsEnds() {
        PlannedCall next = call("Next", "steps page by 1");
        PlannedCall previous = call("Previous", "steps page by -1");
        PlannedCall four = call("Four", "sets page to 4");
        assertThat(place(after(next), "page")).as("from nobody knows where").isEmpty();
        assertThat(place(after(four), "page")).hasValue(4);
        assertThat(place(after(four, next), "page")).hasValue(5);
        assertThat(place(after(four, next, next), "page")).hasValue(5);
        assertThat(place(after(four, previous, previous, previous, previous), "page"))
                .hasValue(1);
        assertThat(place(after(four), "")).as("another list").hasValue(-1);
        assertThat(place(after(call("Six", "sets chapter to 6"), call("On", "steps chapter by 90")), "chapter"))
                .as("a list of nobody knows how many places")
                .hasValue(96);
        DeviceState song = after(four, call("Song", "holds song, takes along lists"));
        assertThat(place(song, "page")).hasValue(1);
        assertThat(place(song, "")).hasValue(1);
    }

    @Test
    void whatIsShownIsTheNewestOfWhatLasts() {
        PlannedCall look = call("Look", "holds look");
        PlannedCall next = call("Next", "sets page to 2");
        assertThat(after().shows()).isEmpty();
        assertThat(after(look, next).shows()).hasValue(next);
        assertThat(after(next, look).shows()).hasValue(look);
        assertThat(after(look, call("Out", "stops look")).shows()).isEmpty();
        assertThat(after(next).shows()).hasValue(next);
        Pointer seen = new Pointer("page", OptionalInt.of(3), Optional.empty(), 9);
        assertThat(after(look).with(seen).shows())
                .as("somebody has looked, and told it nothing")
                .isEmpty();
        assertThat(place(after(next, call("On", "sets to 2")).with(seen), "page"))
                .hasValue(3);
        assertThat(place(after(next, call("On", "sets to 2")).with(seen), "")).hasValue(2);
    }

    @Test
    void whatWasCutIsForgottenAndNothingElse() {
        DeviceState state = after(
                call("Look", "holds look", new NoteOn(0, 1, 9)),
                call("Reel", "holds reel", new ProgramChange(0, 1), new NoteOn(0, 2, 9)));
        assertThat(slots(state.without(new NoteOn(0, 2, 9)))).containsExactly("look=Look");
        assertThat(state.without(new NoteOn(0, 3, 9))).isSameAs(state);
    }

    @Test
    void whatHasALengthIsOverWhenThatHasPassed() {
        Slot film = Slot.of(call("Film", "starts film for 1:00"), 100);
        assertThat(film.runsAt(100 + 60 * SECOND - 1)).isTrue();
        assertThat(film.runsAt(100 + 60 * SECOND)).isFalse();
        Slot middle = Slot.of(call("Film", "starts film for 1:00", 20 * SECOND), 100);
        assertThat(middle.sinceNanos()).as("begun in the middle").isEqualTo(100 - 20 * SECOND);
        assertThat(Slot.of(call("Bed", "starts bed"), 0).runsAt(Long.MAX_VALUE)).isTrue();
        assertThat(Slot.of(call("Look", "holds look"), 0).runsAt(1)).isFalse();
    }
}
