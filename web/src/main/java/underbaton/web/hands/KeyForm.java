package underbaton.web.hands;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import underbaton.core.cue.Call;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;
import underbaton.web.kernel.Typed;

/**
 * The blanks of a key, as they are typed.
 *
 * @param id 0 for a new one
 * @param name empty for that of what it calls first
 * @param page to which it belongs
 * @param guarded anything where it wants a second touch
 * @param on a line for each call: the machine's id, and behind a blank what it is told, as a cell of the Book says it
 * @param off likewise
 */
public record KeyForm(
        int id,
        int page,
        int row,
        int column,
        String name,
        Mark mark,
        HandKey.Way way,
        String guarded,
        String on,
        String off) {
    /** A blank that was not sent is an empty one. */
    public KeyForm {
        name = Typed.orEmpty(name);
        on = Typed.orEmpty(on);
        off = Typed.orEmpty(off);
    }

    /** One row of calls: what a machine is told. */
    public record KeyLine(int machine, String says) {}

    static KeyForm of(Show show, int page, HandKey key) {
        return new KeyForm(
                key.id(),
                page,
                key.row(),
                key.column(),
                key.name(),
                key.mark(),
                key.way(),
                key.guarded() ? "on" : null,
                lines(show, key.on()),
                lines(show, key.off()));
    }

    private static String lines(Show show, List<Call> calls) {
        return calls.stream().map(c -> c.deviceId() + " " + says(show, c)).collect(Collectors.joining("\n"));
    }

    static KeyForm fresh(int page, int row, int column) {
        return new KeyForm(0, page, row, column, "", Mark.NONE, HandKey.Way.PRESS, null, "", "");
    }

    static String says(Show show, Call call) {
        return show.device(call.deviceId()).map(call::tell).orElse("");
    }

    @Override
    public String name() {
        return name.isBlank() ? rows(on).get(0).says : name;
    }

    /** What it calls when it goes on, and a row to write into. */
    public List<KeyLine> onRows() {
        return rows(on);
    }

    public List<KeyLine> offRows() {
        return rows(off);
    }

    private static List<KeyLine> rows(String lines) {
        List<KeyLine> rows = new ArrayList<>();
        lines.lines().filter(l -> !l.isBlank()).forEach(l -> rows.add(said(l)));
        rows.add(new KeyLine(0, ""));
        return rows;
    }

    private static KeyLine said(String line) {
        int blank = line.indexOf(' ');
        String machine = blank < 0 ? line : line.substring(0, blank);
        return new KeyLine(Typed.number("machine", machine), blank < 0 ? "" : line.substring(blank + 1));
    }

    /** @throws Refusal naming what cannot be read */
    HandKey toKey(Show show) {
        return new HandKey(
                id, row, column, name(), mark, way, calls(show, "on", on), calls(show, "off", off), guarded != null);
    }

    private static List<Call> calls(Show show, String field, String lines) {
        List<Call> calls = new ArrayList<>();
        for (KeyLine said : rows(lines == null ? "" : lines)) {
            if (!said.says.isBlank()) {
                Device device = show.device(said.machine)
                        .orElseThrow(() -> new Refusal(field, "That machine is no longer in the rig; choose another."));
                calls.addAll(calls(field, device, said.says));
            }
        }
        return calls;
    }

    static List<Call> calls(String field, Device device, String says) {
        try {
            return Call.parts(says).stream().map(p -> Call.of(device, p)).toList();
        } catch (Refusal refused) {
            throw new Refusal(field, device.name() + ": " + refused.getMessage());
        }
    }
}
