package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.PatchBay;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.Phrase;

/** However it is played and whatever sets are loaded meanwhile, nothing goes on sounding, and nothing is cut that goes on. */
class PatchingPropertyTest {

    private static final int SEEDS = 20;
    private static final int CHANGES = 1000;

    @Test
    void nothing_hangs_after_a_thousand_changes_of_set_and_lines_that_stay_are_not_cut() {
        int carriedOver = 0;
        for (int seed = 0; seed < SEEDS; seed++) {
            PatchedPit pit = new PatchedPit(seed);
            List<Phrase> sets = PatchBay.sets(pit.show);
            for (int change = 0; change < CHANGES; change++) {
                for (int i = pit.random.nextInt(8); i > 0; i--) {
                    pit.playSomething();
                }
                Phrase next = sets.get(pit.random.nextInt(sets.size()));
                carriedOver += change(pit, next, "seed " + seed + ", change " + change);
            }
            new ArrayList<>(pit.down.keySet()).forEach(pit::letGo);
            assertThat(pit.plain).as("seed %d", seed).isEmpty();
            assertThat(pit.counting).as("seed %d", seed).isEmpty();
            assertThat(pit.state.sounding().sounds()).isFalse();
        }
        // The test would be empty if no note had ever been held over a change.
        assertThat(carriedOver).isGreaterThan(SEEDS * 100);
    }

    /** @return how many notes were carried over it */
    private static int change(PatchedPit pit, Phrase next, String where) {
        List<PatchLine> lines = next.patch().orElseThrow().kept().lines();
        Set<String> goOn = new TreeSet<>();
        Set<String> end = new TreeSet<>();
        pit.sounding.forEach((hand, places) -> {
            Set<String> carried = pit.notes(hand, lines);
            places.forEach(p -> (carried.contains(p) ? goOn : end).add(p));
            places.retainAll(carried);
        });
        end.removeAll(goOn);
        int from = pit.said.size();
        pit.load(next);
        Set<String> ended = new TreeSet<>();
        for (ScheduledMessage said : pit.said.subList(from, pit.said.size())) {
            if (said.message() instanceof NoteOff off) {
                ended.add(said.deviceId() + " note " + off.channel() + " " + off.note());
            }
            assertThat(said.message()).as("%s: a change begins no note", where).isNotInstanceOf(NoteOn.class);
        }
        assertThat(ended).as("%s: just these are ended", where).isEqualTo(end);
        assertThat(pit.plain).as("%s: these go on", where).containsAll(goOn);
        return goOn.size();
    }
}
