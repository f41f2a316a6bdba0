package underbaton.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.engine.DryRun;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Position;
import underbaton.core.score.Score;

/** The dry run of a large show, whole and after one edit, at a quarter, half and all of its size. */
final class PlanBench {

    private static final int ITEMS = 150;
    private static final int CUES = 125;
    private static final int ROUNDS = 15;
    private static final int PHRASES = 40;
    private static final String SCORE =
            "1 quarter = 96\n17 quarter = 121\n33 6/8\n33 dotted quarter = 72 over 2 bars\n65 quarter = 132";

    private PlanBench() {}

    static void run() {
        System.out.println("Planning from cold memory and after an edit of one cue, ms; median and worst of " + ROUNDS);
        System.out.printf(
                "%8s %10s %10s %12s %12s %12s %12s%n", "items", "messages", "first", "whole", "worst", "edit", "worst");
        for (int items : new int[] {ITEMS / 3, 2 * ITEMS / 3, ITEMS}) {
            measure(items);
        }
    }

    private static void measure(int items) {
        long from = System.nanoTime();
        DryRun run = DryRun.of(Planner.plan(show(items)));
        double first = millisSince(from);
        long messages = run.messages().count();
        double[] whole = new double[ROUNDS];
        double[] edit = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            Show show = show(items);
            from = System.nanoTime();
            run = DryRun.of(Planner.plan(show));
            whole[i] = millisSince(from);
            Item item = show.items().get(i * 7 % items);
            Cue cue = item.cues().get(i);
            Start later = new Start.AtPosition(new Position(2 + i, 2, 0), 0);
            from = System.nanoTime();
            Show changed = show.withCue(item.id(), cue.withStart(later));
            DryRun after = DryRun.of(Planner.plan(changed, run.plan()), run);
            edit[i] = millisSince(from);
            if (after.messages().count() != messages) {
                throw new IllegalStateException("the edited show sends another number of messages");
            }
        }
        Arrays.sort(whole);
        Arrays.sort(edit);
        System.out.printf(
                "%8d %10d %10.1f %12.1f %12.1f %12.2f %12.2f%n",
                items, messages, first, whole[ROUNDS / 2], whole[ROUNDS - 1], edit[ROUNDS / 2], edit[ROUNDS - 1]);
    }

    private static double millisSince(long nanos) {
        return (System.nanoTime() - nanos) / 1e6;
    }

    /** Every cue on a beat, eight messages in each: a program, two controls and a note for either of two machines. */
    static Show show(int items) {
        List<Phrase> phrases = new ArrayList<>();
        for (int i = 0; i < PHRASES; i++) {
            phrases.add(new Phrase(
                    10 + i,
                    "Look " + i,
                    new SpeechWording(Numbering.WIRE)
                            .read("program %d; control %d to %d; control %d to %d; note %d"
                                    .formatted(i, i, i, i + 1, i, i)),
                    Optional.empty(),
                    Effect.HOLDS,
                    false,
                    false,
                    Remarks.NONE));
        }
        List<Device> devices = List.of(machine(1, "Machine", phrases), machine(2, "Other", others(phrases)));
        List<Item> all = new ArrayList<>();
        int id = 1000;
        for (int i = 0; i < items; i++) {
            List<Cue> cues = new ArrayList<>();
            for (int c = 0; c < CUES; c++) {
                Start start = new Start.AtPosition(new Position(1 + c / 2, 1 + c % 2, 0), 0);
                CueNumber number = CueNumber.of(Integer.toString(1 + i * CUES + c));
                int look = 10 + (c + i) % PHRASES;
                List<Call> calls = List.of(new Call(1, look), new Call(2, look + PHRASES));
                cues.add(new Cue(id++, number, start, "", calls, 0));
            }
            all.add(new Item(id++, ItemKind.SONG, "Song " + i, 0, Optional.of(Score.of(SCORE)), cues));
        }
        return new Show(1, "Large", 1, id, devices, all);
    }

    private static List<Phrase> others(List<Phrase> phrases) {
        return phrases.stream().map(p -> p.withId(p.id() + PHRASES)).toList();
    }

    private static Device machine(int id, String name, List<Phrase> phrases) {
        return new Device(
                id,
                name,
                Department.LIGHTS,
                new Connection.NetworkMidi("127.0.0.1", 5004),
                id - 1,
                Numbering.WIRE,
                40 * id,
                phrases);
    }
}
