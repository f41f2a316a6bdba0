package underbaton.web.demo;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import underbaton.core.cue.Call;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Hands;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchRange;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.rig.Wiring;

/** Reads the hand cues and patch sets of a demo show's text. */
final class DemoHands {

    private final Function<String, Integer> machine;
    private final Function<String, Call> call;

    /** @param machine the id of a machine by its name @param call what a phrase in words calls */
    DemoHands(Function<String, Integer> machine, Function<String, Call> call) {
        this.machine = machine;
        this.call = call;
    }

    /** {@code Night | 3 by 4}. */
    Show page(Show show, List<String> fields) {
        String[] grid = fields.get(1).split(" by ");
        Show with = Hands.withPage(show, fields.get(0));
        HandPage page = with.hands().get(with.hands().size() - 1);
        return Hands.withGrid(with, page.id(), page.name(), Integer.parseInt(grid[0]), Integer.parseInt(grid[1]));
    }

    /** {@code Rain | held, guarded, sky | Rain on the roof | Rain out}, into the next free place of the last page. */
    Show key(Show show, List<String> fields) {
        HandPage page = show.hands().get(show.hands().size() - 1);
        int[] place = page.free().orElseThrow();
        List<String> ways = List.of(fields.get(1).split(", "));
        Mark mark = ways.stream()
                .filter(w -> List.of(Mark.values()).stream()
                        .anyMatch(m -> !w.isEmpty() && m.word().equals(w)))
                .findFirst()
                .map(Mark::of)
                .orElse(Mark.NONE);
        HandKey.Way way = ways.contains("held")
                ? HandKey.Way.HELD
                : ways.contains("on-off") ? HandKey.Way.ON_OFF : HandKey.Way.PRESS;
        return Hands.withKey(
                show,
                page.id(),
                new HandKey(
                        0,
                        place[0],
                        place[1],
                        fields.get(0),
                        mark,
                        way,
                        calls(fields.get(2)),
                        fields.size() > 3 ? calls(fields.get(3)) : List.of(),
                        ways.contains("guarded")));
    }

    private List<Call> calls(String words) {
        List<Call> calls = new ArrayList<>();
        for (String one : words.split(";")) {
            calls.add(call.apply(one.strip()));
        }
        return calls;
    }

    /** {@code Chorus | Keys 1 to Sound modules, channel 13, C3 to G8, +12 | local off Keys 2}. */
    Show set(Show show, List<String> fields) {
        List<PatchLine> lines = new ArrayList<>();
        Set<Integer> off = new HashSet<>();
        for (String field : fields.subList(1, fields.size())) {
            if (field.startsWith("local off ")) {
                off.add(machine.apply(field.substring(10)));
            } else {
                lines.add(line(show, field));
            }
        }
        return PatchBay.withNew(show, fields.get(0), new Wiring(lines, off));
    }

    private PatchLine line(Show show, String words) {
        String[] parts = words.split(", ");
        String[] ends = parts[0].split(" to ");
        int from = machine.apply(ends[0]);
        PatchLine line = PatchLine.open(from, machine.apply(ends[1]));
        Numbering numbering = show.device(from).orElseThrow().numbering();
        OptionalInt channel = OptionalInt.empty();
        PatchRange notes = line.notes();
        int transpose = 0;
        for (int i = 1; i < parts.length; i++) {
            if (parts[i].startsWith("channel ")) {
                channel = OptionalInt.of(Numbering.wireChannel(Integer.parseInt(parts[i].substring(8))));
            } else if (parts[i].contains(" to ")) {
                String[] range = parts[i].split(" to ");
                notes = new PatchRange(numbering.wireNote(range[0]), numbering.wireNote(range[1]));
            } else {
                transpose = Integer.parseInt(parts[i]);
            }
        }
        return new PatchLine(
                line.from(),
                line.fromChannel(),
                line.to(),
                channel,
                line.kinds(),
                notes,
                line.velocities(),
                line.controls(),
                line.programs(),
                transpose);
    }
}
