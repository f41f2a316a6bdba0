package underbaton.web.rig;

import java.util.List;
import java.util.stream.Stream;
import underbaton.core.rig.Numbering;

/** A few numbers of the wire in every way of counting, side by side. */
public record Ruler(List<Row> rows) {

    private static final List<Integer> MARKS = List.of(0, 1, 4, 9, 11, 28, 60, 64, 127);

    /**
     * @param wire 0–127
     * @param counted from 0 and from 1
     * @param banked with eight to a bank letter
     * @param perCent as a value, of 127
     * @param notes with note 0 called C−2, C−1 and C0
     */
    public record Row(int wire, List<String> counted, String banked, String perCent, List<String> notes) {}

    static Ruler drawn() {
        return new Ruler(MARKS.stream()
                .map(wire -> new Row(
                        wire,
                        Stream.of(0, 1)
                                .map(first -> new Numbering(first, first, 0).program(wire))
                                .toList(),
                        new Numbering(1, 0, 0).withBankSize(8).program(wire),
                        Numbering.WIRE.withValues(Numbering.Values.PER_CENT).value(wire),
                        Stream.of(-2, -1, 0)
                                .map(octave -> new Numbering(0, 0, octave).note(wire))
                                .toList()))
                .toList());
    }
}
