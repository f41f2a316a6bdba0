package underbaton.bench;

import java.io.IOException;
import javax.sound.midi.InvalidMidiDataException;

/** {@code ./baton bench NAME}: one measurement, its figures printed. */
final class Bench {

    private Bench() {}

    public static void main(String[] arguments) throws IOException, InterruptedException, InvalidMidiDataException {
        String name = arguments.length > 0 ? arguments[0] : "";
        if (name.equals("go") && arguments.length == 2) {
            GoBench.run(arguments[1]);
        } else if (name.equals("signals") && arguments.length == 2) {
            SignalBench.run(arguments[1]);
        } else if (name.equals("ears") && arguments.length == 2) {
            EarsBench.run(arguments[1]);
        } else if (name.equals("through") && arguments.length == 2) {
            ThroughBench.run(arguments[1]);
        } else if (name.equals("soak") && arguments.length == 3) {
            SoakBench.run(arguments[1], Integer.parseInt(arguments[2]));
        } else if (name.equals("views") && arguments.length == 3) {
            ViewsBench.run(arguments[1], arguments[2]);
        } else if (name.equals("copy")) {
            Copy.run();
        } else if (name.equals("import") && arguments.length == 2) {
            Importer.run(arguments[1]);
        } else if (name.equals("plan")) {
            PlanBench.run();
        } else if (name.equals("state")) {
            StateBench.run();
        } else if (name.equals("beat")) {
            BeatBench.run();
        } else if (name.equals("clock")) {
            ClockBench.run();
        } else {
            System.err.println(
                    "There is: ./baton bench go, pedal, relay, through, plan, state, beat, clock, views or soak");
            System.exit(1);
        }
    }
}
