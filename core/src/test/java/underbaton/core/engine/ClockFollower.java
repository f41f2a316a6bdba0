package underbaton.core.engine;

import java.util.ArrayList;
import java.util.List;
import underbaton.core.midi.Bytes;

/** A machine that plays by the MIDI clock, as MIDI 1.0 has it; it knows bytes and nothing else. */
final class ClockFollower {

    private boolean runs;
    private int stopsInVain;
    private int next;
    private final List<String> wrong = new ArrayList<>();

    boolean runs() {
        return runs;
    }

    /** The clock that it expects next, 0 for the first of a song. */
    int next() {
        return next;
    }

    /** How often it was stopped while it stood: right for who does not know what it was told. */
    int stopsInVain() {
        return stopsInVain;
    }

    /** What it was told that makes no sense. */
    List<String> wrong() {
        return wrong;
    }

    /** @return the place of a clock that it plays; −1 for none */
    int hear(Bytes bytes) {
        switch (bytes.at(0)) {
            case 0xFA -> {
                begins();
                next = 0;
            }
            case 0xFB -> begins();
            case 0xFC -> {
                stopsInVain += runs ? 0 : 1;
                runs = false;
            }
            case 0xF2 -> {
                if (runs) {
                    wrong.add("moved while it runs");
                }
                next = 6 * (bytes.at(1) + 128 * bytes.at(2));
            }
            case 0xF8 -> {
                if (!runs) {
                    wrong.add("a clock while it stands");
                }
                return runs ? next++ : -1;
            }
            default -> wrong.add(bytes.hex());
        }
        return -1;
    }

    private void begins() {
        if (runs) {
            wrong.add("started twice");
        }
        runs = true;
    }
}
