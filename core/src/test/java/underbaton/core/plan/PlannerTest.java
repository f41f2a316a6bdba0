package underbaton.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.midi.ChannelMessage.NoteOn;

class PlannerTest {

    private final Show show = Shows.cue(Shows.small(), "12", "with", "Amber");
    private final Plan plan = Planner.plan(show);

    @Test
    void cuesComeInRunningOrderWithMessagesOnTheDevicesOwnChannels() {
        assertThat(plan.cues()).extracting(c -> c.number().toString()).containsExactly("1", "2", "10", "11", "12");
        PlannedCue second = plan.cues().get(1);
        assertThat(second.item().name()).isEqualTo("One");
        assertThat(second.calls())
                .extracting(c -> c.messages().get(0).message())
                .containsExactly(new NoteOn(0, 2, 127), new NoteOn(1, 36, 127));
    }

    @Test
    void aDeviceHasTheCallsThatStopSomethingOnIt() {
        assertThat(show.devices())
                .flatExtracting(d -> plan.stops(d.id()))
                .extracting(PlannedCall::phrase)
                .containsExactly("Dark", "Stop");
    }

    @Test
    void onlyCuesByHandWaitForGoAndTheVeryFirstAlwaysDoes() {
        assertThat(plan.waitingFrom(4)).isEqualTo(5);
        assertThat(plan.waitingBefore(5)).isEqualTo(3);
        assertThat(plan.waitingBefore(0)).isZero();
        int first = show.cueNumbered(CueNumber.of("1")).orElseThrow().id();
        Plan follows = Planner.plan(show.withCue(
                show.items().get(0).id(), show.cue(first).orElseThrow().withStart(Start.WITH_PREVIOUS)));
        assertThat(follows.waitingFrom(0)).isZero();
    }

    @Test
    void aCallWhosePhraseIsGoneIsLeftOut() {
        int lights = show.devices().get(0).id();
        int amber = show.devices().get(0).phraseNamed("Amber").orElseThrow().id();
        Show broken = show.withDevice(show.devices().get(0).withoutPhrase(amber));
        assertThat(Planner.plan(broken).cues().get(0).calls()).isEmpty();
        assertThat(Planner.plan(broken).cues().get(1).calls())
                .extracting(PlannedCall::deviceId)
                .contains(lights);
    }
}
