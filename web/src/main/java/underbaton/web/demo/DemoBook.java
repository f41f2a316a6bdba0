package underbaton.web.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.SceneLevels;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.follow.Following;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Answer;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.InStep;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.rig.Speech;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.StepList;
import underbaton.core.rig.Wording;
import underbaton.core.score.Score;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Filling;
import underbaton.core.signal.Learning;
import underbaton.core.signal.Listener;
import underbaton.core.signal.PadLight;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Scale;
import underbaton.core.signal.Source;
import underbaton.standins.RehearsalRoom;

/** Reads a demo show from its text: a line a device, phrase, item or cue, with bars between the fields. */
final class DemoBook {

    private static final String LOOPBACK = "127.0.0.1";

    private final int firstPort;
    private final String text;
    private Show show;

    /** @param firstPort of the stand-ins, which its devices are reached at */
    DemoBook(String resource, int firstPort) {
        this.firstPort = firstPort;
        try (InputStream in = DemoBook.class.getResourceAsStream(resource)) {
            text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    String name() {
        return text.lines()
                .filter(l -> l.startsWith("show "))
                .map(l -> l.substring(5))
                .findFirst()
                .orElseThrow();
    }

    /** Fills an empty show. */
    Show writeInto(Show empty) {
        show = empty;
        text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).forEach(this::line);
        return show;
    }

    private void line(String line) {
        List<String> fields =
                Arrays.stream(line.split("\\|")).map(String::strip).toList();
        String first = fields.get(0);
        if (first.startsWith("device ")) {
            device(first.substring(7), fields.get(1), fields.subList(2, fields.size()));
        } else if (first.startsWith("phrase ")) {
            phrase(first.substring(7), fields.get(1), fields.get(2), fields.size() > 3 ? fields.get(3) : "");
        } else if (first.startsWith("leaves ")) {
            leaves(first.substring(7), fields.get(1));
        } else if (first.startsWith("answer ")) {
            answer(first.substring(7), fields.get(1));
        } else if (first.startsWith("light ")) {
            light(first.substring(6), fields.get(1), fields.subList(2, 6));
        } else if (first.startsWith("item ")) {
            String[] length = fields.get(2).split(":");
            int seconds = Integer.parseInt(length[0]) * 60 + Integer.parseInt(length[1]);
            ItemKind kind = ItemKind.valueOf(first.substring(5).toUpperCase(Locale.ROOT));
            show = show.withItem(
                    new Item(0, kind, fields.get(1), seconds, List.of()).withScore(score(fields)),
                    show.items().size());
        } else if (first.startsWith("follows ")) {
            follows(first.substring(8));
        } else if (first.startsWith("listener ")) {
            listener(first.substring(9), fields.get(1), fields.get(2), fields.get(3));
        } else if (first.startsWith("relay ")) {
            relay(first.substring(6), fields.get(1), fields.get(2), fields.subList(3, fields.size()));
        } else if (first.startsWith("hands ")) {
            show = hands().page(show, rest(first, fields));
        } else if (first.startsWith("key ")) {
            show = hands().key(show, rest(first, fields));
        } else if (first.startsWith("set ")) {
            show = hands().set(show, rest(first, fields));
        } else if (!first.startsWith("show ")) {
            cue(fields);
        }
    }

    /** The item before goes by the time code of a machine, or by taps. */
    private void follows(String machine) {
        Item last = show.items().get(show.items().size() - 1);
        if (machine.equals("taps")) {
            Following taps = Following.of(0, Following.Kind.TAPS, TimeCode.Rate.PAL_25);
            show = show.withItem(last.withFollows(Optional.of(taps)), 0);
            return;
        }
        Following how = Following.of(named(machine).id(), Following.Kind.CODE, TimeCode.Rate.PAL_25);
        show = show.withItem(last.withFollows(Optional.of(how)), 0);
    }

    private DemoHands hands() {
        return new DemoHands(name -> named(name).id(), this::call);
    }

    /** The fields without the word that says what the line is. */
    private static List<String> rest(String first, List<String> fields) {
        List<String> rest = new ArrayList<>(fields);
        rest.set(0, first.substring(first.indexOf(' ') + 1));
        return rest;
    }

    /** The fourth field, its lines parted by slashes between blanks. */
    private static Optional<Score> score(List<String> fields) {
        return fields.size() < 4
                ? Optional.empty()
                : Optional.of(Score.of(fields.get(3).replace(" / ", "\n")));
    }

    private void device(String department, String name, List<String> settings) {
        int port = RehearsalRoom.portOf(firstPort, RehearsalRoom.NAMES.indexOf(name));
        Connection connection = new Connection.NetworkMidi(LOOPBACK, port);
        int channel = 0;
        int lead = 0;
        int firstProgram = 0;
        Levels levels = Levels.PUBLISHED;
        Optional<PositionList> list = Optional.empty();
        List<StepList> stepLists = List.of();
        InStep inStep = InStep.NOT;
        for (String setting : settings) {
            String value = setting.substring(setting.lastIndexOf(' ') + 1);
            if (setting.startsWith("osc")) {
                connection = new Connection.Osc(LOOPBACK, port, value);
            } else if (setting.startsWith("channel")) {
                channel = Numbering.wireChannel(Integer.parseInt(value));
            } else if (setting.startsWith("lead")) {
                lead = Integer.parseInt(value);
            } else if (setting.equals("list by note")) {
                list = Optional.of(new PositionList(PositionList.Kind.NOTE, 0));
            } else if (setting.startsWith("steps through")) {
                stepLists = StepList.read(setting.substring(13));
            } else if (setting.startsWith("clock")) {
                inStep = new InStep(true, false, false, InStep.NOT.rate(), InStep.Vamping.COUNTS_ON);
            } else if (setting.startsWith("time code")) {
                inStep = new InStep(false, true, false, TimeCode.Rate.PAL_25, InStep.Vamping.COUNTS_ON);
            } else if (setting.startsWith("levels")) {
                levels = Levels.of(setting.substring(6), Numbering.WIRE);
            } else {
                firstProgram = Integer.parseInt(value);
            }
        }
        show = show.withDevice(new Device(
                0,
                name,
                Department.valueOf(department),
                connection,
                channel,
                new Numbering(firstProgram, 0, -2),
                lead,
                0,
                levels,
                list,
                stepLists,
                Optional.empty(),
                Optional.of(inStep),
                List.of()));
    }

    private void phrase(String effect, String name, String says, String argument) {
        Device device = show.devices().get(show.devices().size() - 1);
        boolean guarded = effect.startsWith("guarded ");
        boolean listed = says.equals("listed");
        Speech speech = listed
                ? Speech.of(device.list().orElseThrow().at(0))
                : device.wording().read(says.replace('¦', '|'));
        show = show.withPhrase(
                device.id(),
                new Phrase(
                        0,
                        name,
                        speech,
                        argument.isEmpty() ? Optional.empty() : Optional.of(Argument.of(argument)),
                        Effect.of(effect.replace("guarded ", "")),
                        guarded,
                        listed,
                        Remarks.NONE));
    }

    /** @param phrases for on, off, once more, standby */
    private void light(String listener, String machine, List<String> phrases) {
        Device device = named(machine);
        List<Integer> ids = phrases.stream()
                .map(p -> device.phraseNamed(p).orElseThrow().id())
                .toList();
        Listener of = show.listeners().stream()
                .filter(l -> l.name().equals(listener))
                .findFirst()
                .orElseThrow();
        show = show.withListener(
                of.withLight(Optional.of(new PadLight(device.id(), ids.get(0), ids.get(1), ids.get(2), ids.get(3)))));
    }

    private void answer(String name, String says) {
        Device device = show.devices().get(show.devices().size() - 1);
        Phrase phrase = device.phraseNamed(name).orElseThrow();
        show = show.withPhrase(device.id(), phrase.withAnswer(Answer.read(says, device.wording())));
    }

    private void leaves(String scene, String levels) {
        Device device = show.devices().get(show.devices().size() - 1);
        Phrase phrase = device.phraseNamed(scene).orElseThrow();
        show = show.withPhrase(device.id(), phrase.withLeaves(SceneLevels.read(device, levels)));
    }

    // ---- signals, each learnt from what its machine says when it is touched

    private void listener(String name, String from, String touched, String does) {
        Reaction reaction = does.startsWith("cue ")
                ? new Reaction.ToCue(cueId(does.substring(4)), 0, true)
                : does.startsWith("hand ")
                        ? new Reaction.Hand(Hands.named(show, does.substring(5))
                                .orElseThrow()
                                .id())
                        : does.startsWith("phrase ")
                                ? fires(call(does.substring(7)))
                                : switch (does) {
                                    case "cue" -> new Reaction.ToCue(0, 0, true);
                                    case "item" -> new Reaction.Play(0, 0, "");
                                    default -> new Reaction.Give(Deed.valueOf(does));
                                };
        boolean number = does.equals("cue") || does.equals("item");
        listen(name, from, touched, number, reaction);
    }

    private static Reaction fires(Call call) {
        return new Reaction.Fire(call.deviceId(), call.phraseId());
    }

    /** @param rest the machine that is told, what it is told, and from which amount to which, or the names */
    private void relay(String name, String from, String touched, List<String> rest) {
        Device told = named(rest.get(0));
        String[] ends = rest.size() > 2 ? rest.get(2).split(" to ") : new String[0];
        Optional<Phrase> phrase = told.phraseNamed(rest.get(1));
        Passage passage;
        if (phrase.isPresent()) {
            Argument argument = phrase.get().argument().orElseThrow();
            double[] amounts = Arrays.stream(ends)
                    .mapToDouble(e -> ((Amount.Measure) argument.read(e, told.numbering(), told.levels())).value())
                    .toArray();
            Scale scale = new Scale(
                    0, false, 0, 127, amounts[0], amounts[1], 1, 0, 0, Optional.empty(), Scale.Meeting.PICK_UP);
            passage = new Passage.Says(told.id(), phrase.get().id(), new Filling.Scaled(scale));
        } else {
            List<String> names = Arrays.stream(rest.get(2).split(",")).toList();
            passage = new Passage.Written(
                    told.id(), new SpeechWording(told.numbering()).read(rest.get(1)), new Filling.Named(0, names, 1));
        }
        listen(name, from, touched, true, new Reaction.PassOn(passage));
    }

    /** @param from a machine, perhaps with a channel of its own: {@code Pedals and pads, channel 10} */
    private void listen(String name, String from, String touched, boolean whole, Reaction reaction) {
        String[] parts = from.split(", channel ");
        boolean others = parts[0].equals("others");
        Numbering numbering = others ? Numbering.WIRE : named(parts[0]).numbering();
        Pattern pattern = Learning.pattern(new Wording(numbering).read(touched).get(0), whole);
        show = show.withListener(new Listener(
                0,
                name,
                Set.of(others ? Source.OTHERS : named(parts[0]).id()),
                parts.length > 1
                        ? OptionalInt.of(Numbering.wireChannel(Integer.parseInt(parts[1])))
                        : OptionalInt.empty(),
                pattern,
                reaction,
                0,
                0,
                false,
                true));
    }

    private Device named(String name) {
        return show.devices().stream()
                .filter(d -> d.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new IllegalStateException("the demo has no machine " + name));
    }

    private int cueId(String number) {
        return show.cueNumbered(CueNumber.of(number)).orElseThrow().id();
    }

    private void cue(List<String> fields) {
        List<Call> calls = new ArrayList<>();
        for (String phrase : fields.get(3).split(";")) {
            calls.add(call(phrase.strip()));
        }
        int itemId = show.items().get(show.items().size() - 1).id();
        Cue cue = new Cue(0, CueNumber.of(fields.get(0)), Start.of(fields.get(1)), fields.get(2), calls, 0);
        boolean remarked = fields.size() > 5;
        show = show.withCue(itemId, remarked ? cue.withRemarks(Mark.of(fields.get(4)), fields.get(5)) : cue);
    }

    private Call call(String phrase) {
        String name = phrase.split("→")[0].strip();
        return show.devices().stream()
                .filter(d -> d.phraseNamed(name).isPresent())
                .findFirst()
                .map(d -> Call.of(d, phrase))
                .orElseThrow(() -> new IllegalStateException("the demo calls an unknown phrase: " + phrase));
    }
}
