package underbaton.core.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.StringJoiner;
import java.util.stream.IntStream;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.InStep;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchRange;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Precautions;
import underbaton.core.rig.Precautions.UntoldFade;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.Standing;
import underbaton.core.rig.StepList;
import underbaton.core.rig.Wiring;
import underbaton.core.score.Score;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Filling;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Scale;

/**
 * Shows such as people write, made up by chance, the same one for the same seed: songs with cues on their beats, scenes by
 * hand with chains behind them, leads, settling, fades, waves, vamps and linked sections. {@link Machines} stands in for
 * their rig.
 */
final class PlayableShows {

    static final int LOOKS = 6;
    static final int SCENES = 4;
    static final int FADERS = 4;
    static final int LOOPS = 3;
    private static final int REELS = 3;
    static final int SONGS = 7;
    static final long FILM_NANOS = 90_000_000_000L;
    static final int SETS = 3;
    /** Each line of the patch has a channel of the module for itself. */
    static final int FIRST_LINE = 8;

    static final int LINES = 4;
    /** A note of the pit that gives GO. */
    static final int PAD = 20;

    private static final List<String> SHAPES = List.of("", ", by value", ", S-curve", ", equal power");

    private final Random random;
    private final boolean endless;
    /** With leads up to half a second, and tempi that change under linked sections. */
    private boolean wide;

    private Show show;
    private int number;

    private PlayableShows(long seed, boolean endless) {
        random = new Random(seed);
        this.endless = endless;
    }

    /** @param endless whether waves without an end are among it */
    static Show show(long seed, boolean endless) {
        return new PlayableShows(seed, endless).show();
    }

    static final int KEYS = 8;

    static Show wide(long seed) {
        PlayableShows shows = new PlayableShows(seed, true);
        shows.wide = true;
        return shows.show();
    }

    private int lead(int usual) {
        return wide ? random.nextInt(3) * random.nextInt(251) : usual;
    }

    private Show show() {
        show = Show.empty(1, "By chance");
        rig();
        int items = 2 + random.nextInt(4);
        for (int i = 0; i < items; i++) {
            if (random.nextInt(3) == 0) {
                scene(i);
            } else {
                song(i);
            }
        }
        return wide ? hands() : show;
    }

    /** A keyboard whose notes come to a module by the lines of patch sets, whose pedal swells it by a relay, and whose pad gives GO. */
    private void pit() {
        device("Pit", 7, 0, 0, List.of(), network());
        int pit = show.devices().get(show.devices().size() - 1).id();
        device("Module", FIRST_LINE, 0, 0, List.of(), network());
        int module = show.devices().get(show.devices().size() - 1).id();
        for (int set = 0; set < SETS; set++) {
            List<PatchLine> lines = IntStream.range(FIRST_LINE, FIRST_LINE + LINES)
                    .filter(l -> random.nextBoolean())
                    .mapToObj(l -> line(pit, module, l))
                    .toList();
            show = PatchBay.withNew(show, "Set " + set, new Wiring(lines, Set.of()));
        }
        Passage swell = new Passage.Written(
                module,
                new SpeechWording(Numbering.WIRE).read("control 7 to ?"),
                new Filling.Scaled(Scale.straight(0, 127, 127, 0)));
        listens("Swell", pit, new Pattern.Controller(11, Pattern.Way.WITHIN, 0, 127), new Reaction.PassOn(swell));
        listens("Pad", pit, new Pattern.Note(PAD, PAD, 1, 127, true), new Reaction.Give(Deed.GO));
    }

    private static PatchLine line(int from, int to, int channel) {
        PatchRange all = new PatchRange(0, 127);
        return new PatchLine(
                from,
                OptionalInt.empty(),
                to,
                OptionalInt.of(channel),
                Set.of(PatchKind.NOTES),
                all,
                new PatchRange(1, 127),
                all,
                all,
                0);
    }

    private void listens(String name, int from, Pattern to, Reaction does) {
        show = show.withListener(new Listener(0, name, Set.of(from), OptionalInt.empty(), to, does, 0, 0, false, true));
    }

    private Device anyThatSpeaks() {
        List<Device> speak =
                show.devices().stream().filter(d -> !d.phrases().isEmpty()).toList();
        return speak.get(random.nextInt(speak.size()));
    }

    /** Keys that call what cues call too, pressed, on and off, and while they are held. */
    private Show hands() {
        List<HandKey> keys = new ArrayList<>();
        int id = show.nextId();
        for (int i = 0; i < KEYS; i++) {
            keys.add(new HandKey(
                    id++,
                    i / 4,
                    i % 4,
                    "Key " + i,
                    Mark.NONE,
                    HandKey.Way.values()[i % HandKey.Way.values().length],
                    handCalls(),
                    i % HandKey.Way.values().length == 0 ? List.of() : handCalls(),
                    false));
        }
        HandPage page = new HandPage(id++, "Hands", 2, 4, keys);
        return new Show(
                show.id(),
                show.name(),
                show.revision(),
                id,
                show.devices(),
                show.items(),
                show.listeners(),
                List.of(page));
    }

    private List<Call> handCalls() {
        Device device = anyThatSpeaks();
        List<Phrase> plain = device.phrases().stream()
                .filter(p -> p.argument().isEmpty() && !p.says().hasTwoStates())
                .toList();
        return List.of(
                new Call(device.id(), plain.get(random.nextInt(plain.size())).id()));
    }

    // ---- the rig

    private void rig() {
        device("Lights", 0, lead(random.nextInt(3) * 40), 0, List.of(), network());
        for (int i = 0; i < LOOKS; i++) {
            phrase("Look " + i, "note " + i, "", "holds");
        }
        phrase("Flash", "note 20", "", "moment");
        device("Console", 1, 0, random.nextBoolean() ? 0 : 30, List.of(), network());
        for (int i = 0; i < SCENES; i++) {
            phrase("Scene " + i, "program " + i, "", "holds scene, takes along levels");
            leaves(i);
        }
        for (int i = 0; i < FADERS; i++) {
            phrase("Fader " + i, "control " + i + " to ?", "decibels", "levels fader " + i);
            phrase(
                    "Mute " + i,
                    "control %d to 127 on channel +1 | control %d to 0 on channel +1".formatted(i, i),
                    "",
                    "holds mute " + i);
        }
        phrase("Tap", "note 90", "", "moment");
        device("Player", 4, lead(random.nextInt(2) * 100), 0, List.of(), local());
        for (int i = 0; i < LOOPS; i++) {
            phrase("Loop " + i, "note " + (40 + i), "", "starts loop " + i);
            phrase("Stop loop " + i, "note off " + (40 + i), "", "stops loop " + i);
        }
        for (int i = 0; i < REELS; i++) {
            phrase("Reel " + i, "program " + i, "", "holds reel, takes along what runs");
        }
        phrase("Shot", "note 60 for 200 ms", "", "moment");
        phrase("Film", "control 20 to ?", "seconds 0 to 127", "starts film for 1:30");
        phrase("Film off", "control 21 to 0", "", "stops film");
        phrase("Silence", "note 70", "", "stops");
        device("Tablet", 5, lead(0), 0, List.of(new StepList("song", SONGS, 50)), network());
        phrase("Next", "note 48", "", "steps song by +1");
        phrase("Previous", "note 47", "", "steps song by -1");
        if (random.nextBoolean()) {
            phrase("Top", "note 50", "", "sets song to 1");
        }
        device("Keys", 6, 0, 20, List.of(), local());
        for (int i = 0; i < 4; i++) {
            phrase("Patch " + i, "program %d; after 20 ms control 80 to %d".formatted(i, i), "", "holds patch");
        }
        phrase("Expression", "control 11 to ?", "per cent", "levels expression");
        if (wide) {
            // Half of the consoles get what stands first in a cell first.
            Device console = show.devices().get(1);
            show = show.withDevice(
                    console.withPrecautions(new Precautions("", UntoldFade.AT_ONCE, random.nextBoolean())));
            goesByTheClock();
            pit();
        }
    }

    /** The tablet of one show in four; nothing else of the show changes by that. */
    private void goesByTheClock() {
        if (show.devices().get(0).leadMs() % 4 == 0) {
            Device tablet = show.devices().stream()
                    .filter(d -> d.name().equals("Tablet"))
                    .findFirst()
                    .orElseThrow();
            show = show.withDevice(
                    tablet.withInStep(new InStep(true, false, false, TimeCode.Rate.PAL_25, InStep.Vamping.GOES_BACK)));
        }
    }

    private static Connection network() {
        return new Connection.NetworkMidi("127.0.0.1", 5004);
    }

    /** Both machines on it share one line. */
    private static Connection local() {
        return new Connection.LocalMidi("Line");
    }

    private void device(String name, int channel, int lead, int settle, List<StepList> lists, Connection connection) {
        show = show.withDevice(new Device(
                0,
                name,
                Department.SOUND,
                connection,
                channel,
                Numbering.WIRE,
                lead,
                settle,
                Levels.of("−∞=0, −60=10, −20=50, −10=80, 0=100, 10=127", Numbering.WIRE),
                Optional.empty(),
                lists,
                List.of()));
    }

    /** Of every second scene people have written down where it leaves the faders. */
    private void leaves(int scene) {
        if (leaves(scene, 0) < 0) {
            return;
        }
        Device device = show.devices().get(show.devices().size() - 1);
        Phrase phrase = device.phraseNamed("Scene " + scene).orElseThrow();
        show = show.withPhrase(
                device.id(),
                phrase.withLeaves(IntStream.range(0, FADERS)
                        .mapToObj(f -> new Standing(new ControlChange(0, f, 0), leaves(scene, f)))
                        .toList()));
    }

    /** Where a scene leaves a fader, 0–127; −1 where nobody has written it down. */
    static int leaves(int scene, int fader) {
        return scene % 2 == 0 ? 20 + 10 * scene + 7 * fader : -1;
    }

    private void phrase(String name, String says, String argument, String effect) {
        Device device = show.devices().get(show.devices().size() - 1);
        show = show.withPhrase(
                device.id(),
                new Phrase(
                        0,
                        name,
                        new SpeechWording(Numbering.WIRE).read(says),
                        argument.isEmpty() ? Optional.empty() : Optional.of(Argument.of(argument)),
                        Effect.of(effect),
                        false,
                        false,
                        Remarks.NONE));
    }

    // ---- the book

    private void scene(int place) {
        show = show.withItem(new Item(0, ItemKind.SCENE, "Scene " + place, random.nextInt(60), List.of()), place);
        int cues = 1 + random.nextInt(6);
        for (int i = 0; i < cues; i++) {
            String start = i == 0 || random.nextInt(3) > 0
                    ? "by hand"
                    : random.nextBoolean() ? "with" : "after " + random.nextInt(4) + "." + random.nextInt(10);
            cue(start);
        }
    }

    private void song(int place) {
        StringJoiner score = new StringJoiner("\n");
        score.add("1 quarter = " + (80 + random.nextInt(100)));
        score.add("5 B Verse").add("9 C Chorus").add("13 D Verse 2 as B");
        if (random.nextBoolean()) {
            score.add("7 6/8").add("11 4/4");
        }
        if (wide && random.nextBoolean()) {
            score.add("13 quarter = " + (50 + random.nextInt(100)));
        }
        if (random.nextInt(3) == 0) {
            score.add("14 vamp 2 bars");
        }
        score.add("17 end");
        show = show.withItem(
                new Item(0, ItemKind.SONG, "Song " + place, 0, List.of())
                        .withScore(Optional.of(Score.of(score.toString()))),
                place);
        int bar = 1;
        int cues = 2 + random.nextInt(8);
        for (int i = 0; i < cues && bar < 17; i++) {
            boolean byHand = i == 0 ? random.nextBoolean() : random.nextInt(6) == 0;
            String start = byHand
                    ? "by hand"
                    : random.nextInt(5) == 0 ? "after 0.7" : "at " + bar + ":" + (1 + random.nextInt(3));
            cue(i == 0 && start.startsWith("after") ? "at 1:1" : start);
            bar += random.nextInt(3);
        }
    }

    private void cue(String start) {
        List<Call> calls = new ArrayList<>();
        int many = 1 + random.nextInt(3);
        for (int i = 0; i < many; i++) {
            calls.add(call());
        }
        int item = show.items().get(show.items().size() - 1).id();
        CueNumber at = CueNumber.of(Integer.toString(++number));
        show = show.withCue(item, new Cue(0, at, Start.of(start), "", calls, 0));
    }

    private Call call() {
        Device device = anyThatSpeaks();
        String typed =
                switch (device.name()) {
                    case "Lights" -> random.nextInt(6) == 0 ? "Flash" : "Look " + random.nextInt(LOOKS);
                    case "Console" ->
                        random.nextInt(5) == 0
                                ? "Scene " + random.nextInt(SCENES)
                                : random.nextInt(5) == 0
                                        ? "Mute " + random.nextInt(FADERS) + (random.nextBoolean() ? " on" : " off")
                                        : "Fader " + random.nextInt(FADERS) + " " + fade();
                    case "Player" -> player();
                    case "Tablet" -> random.nextInt(4) == 0 ? "Previous" : "Next";
                    case PatchBay.NAME -> "Set " + random.nextInt(SETS);
                    default ->
                        random.nextInt(3) == 0
                                ? "Expression " + random.nextInt(101) + " %"
                                : "Patch " + random.nextInt(4);
                };
        String late = random.nextInt(6) == 0 ? " @ " + random.nextInt(900) + " ms" : "";
        return Call.of(device, typed + late);
    }

    private String player() {
        return switch (random.nextInt(8)) {
            case 7 -> "Reel " + random.nextInt(REELS);
            case 0, 1 -> "Loop " + random.nextInt(LOOPS);
            case 2, 3 -> "Stop loop " + random.nextInt(LOOPS);
            case 4 -> "Shot";
            case 5 -> random.nextBoolean() ? "Film 0" : "Film off";
            default -> "Silence";
        };
    }

    private String fade() {
        String level = random.nextInt(6) == 0 ? "-inf" : -random.nextInt(40) + " dB";
        int kind = random.nextInt(4);
        if (kind == 0) {
            return level;
        }
        if (kind == 1) {
            String lasts = endless && random.nextBoolean() ? "" : ", for " + (1 + random.nextInt(4)) + " s";
            return (-10 - random.nextInt(10)) + " dB ± 5 dB sine every " + (1 + random.nextInt(3)) + " s" + lasts;
        }
        String then = random.nextInt(4) == 0 ? ", then Tap" : "";
        return level + " in " + (1 + random.nextInt(5)) + " s" + SHAPES.get(random.nextInt(SHAPES.size())) + then;
    }
}
