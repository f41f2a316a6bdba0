package underbaton.core.traffic;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import underbaton.core.midi.Bytes;

class TrafficTest {

    private static Entry entry(String meaning) {
        return new Entry(0, 0, Entry.Direction.OUT, 1, 1, "Lights", Bytes.NONE, meaning, "", 0, "");
    }

    @Test
    void theOldestFallOutAndNumbersGoOn() {
        Traffic traffic = new Traffic(3);
        traffic.continueAfter(100);
        for (int i = 1; i <= 5; i++) {
            traffic.add(entry("m" + i));
        }
        assertThat(traffic.after(0, 10)).extracting(Entry::meaning).containsExactly("m3", "m4", "m5");
        assertThat(traffic.after(0, 10)).extracting(Entry::number).containsExactly(103L, 104L, 105L);
        assertThat(traffic.after(104, 10)).extracting(Entry::meaning).containsExactly("m5");
        assertThat(traffic.after(0, 2)).extracting(Entry::meaning).containsExactly("m3", "m4");
        assertThat(traffic.last()).isEqualTo(105);
    }
}
