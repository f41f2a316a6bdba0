package underbaton.core.engine.call;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.pcollections.TreePMap;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.StepContext;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Effect;

class AgendaTest {

    private final Cause why = Cause.outside("test", 0);
    private Agenda agenda = new Agenda(TreePMap.empty());

    private void add(long due, int note) {
        agenda.add(due, new Pending.ToSend(1, new NoteOn(0, note, 1), why));
    }

    private List<Integer> notes() {
        List<Integer> notes = new ArrayList<>();
        while (!agenda.isEmpty()) {
            notes.add(((NoteOn) ((Pending.ToSend) agenda.takeFirst().what()).message()).note());
        }
        return notes;
    }

    @Test
    void it_leaves_in_the_order_of_the_times_and_at_one_moment_as_it_came() {
        assertThat(agenda.nextNanos()).isEqualTo(StepContext.NEVER);
        add(20, 2);
        add(10, 1);
        add(20, 3);
        assertThat(agenda.nextNanos()).isEqualTo(10);
        assertThat(notes()).containsExactly(1, 2, 3);
    }

    @Test
    void what_comes_later_takes_nobodys_place_though_what_is_due_last_came_first() {
        add(30, 1);
        add(20, 2);
        agenda = new Agenda(agenda.state());
        add(20, 3);
        agenda = new Agenda(agenda.state());
        add(20, 4);
        assertThat(notes()).containsExactly(2, 3, 4, 1);
    }

    @Test
    void what_is_taken_back_is_told_and_the_rest_stays() {
        add(20, 2);
        add(10, 1);
        agenda.add(15, new Pending.ToSend(1, new NoteOff(0, 1, 0), why));
        List<Agenda.Due> taken =
                agenda.takeBack(p -> p instanceof Pending.ToSend send && send.message() instanceof NoteOn);
        assertThat(taken).extracting(Agenda.Due::dueNanos).containsExactly(10L, 20L);
        assertThat(agenda.nextNanos()).isEqualTo(15);
        assertThat(agenda.takeAll()).hasSize(1);
        assertThat(agenda.isEmpty()).isTrue();
    }

    @Test
    void all_of_it_can_be_so_much_later() {
        add(20, 2);
        add(10, 1);
        agenda = new Agenda(Agenda.shifted(agenda.state(), 100));
        assertThat(agenda.nextNanos()).isEqualTo(110);
        assertThat(agenda.takeFirst().what().cause().sinceNanos()).isEqualTo(100);
    }

    private void step(int device, String effect) {
        PlannedCall call =
                new PlannedCall(device, 1, effect, Effect.of(effect), List.of(), Optional.empty(), Map.of(), 0, 0, 0);
        agenda.add(10, new Pending.ToCall(call, why));
    }

    @Test
    void what_steps_one_list_of_one_machine_is_known() {
        add(5, 1);
        step(1, "steps page by +2");
        step(1, "steps verse by +1");
        step(2, "steps page by +3");
        step(1, "sets page to 4");
        step(1, "holds page");
        assertThat(Agenda.steps(agenda.state(), 1, "page"))
                .extracting(Effect::toString)
                .containsExactly("steps page by +2", "sets page to 4");
        assertThat(Agenda.steps(agenda.state(), 2, "page")).hasSize(1);
        assertThat(Agenda.steps(agenda.state(), 2, "verse")).isEmpty();
    }
}
