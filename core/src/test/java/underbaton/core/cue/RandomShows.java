package underbaton.core.cue;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.FullFrame;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SysEx;
import underbaton.core.midi.SystemCommon;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Along;
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
import underbaton.core.rig.Precautions;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.Speech;
import underbaton.core.rig.Standing;
import underbaton.core.rig.StepList;
import underbaton.core.rig.Utterance;
import underbaton.core.score.BarMap.MeterMark;
import underbaton.core.score.BeatUnit;
import underbaton.core.score.Film;
import underbaton.core.score.Hold;
import underbaton.core.score.Meter;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.core.score.Section;
import underbaton.core.score.Tempo;
import underbaton.core.score.TempoMark;
import underbaton.core.score.Vamp;

/**
 * Shows with all that the constructors take, the same ones for the same seed: every kind of message, argument, start,
 * motion, section and film, and names that people should not give but may.
 */
public final class RandomShows {

    /** What has a meaning somewhere in what people type, or is rare in a text. */
    private static final List<String> TEXTS = List.of(
            "Reprise as Z",
            "B as A",
            "B as A without 1",
            " without 2, 3",
            "film 4:37",
            "vamp 3 bars",
            "1 4/4",
            "quarter = 120",
            "“quoted” \"twice\" 'thrice'",
            "a; b + c",
            "Über den Fluß – 川の渡し守 🛶",
            "two\nlines\r\nand\u2028more\u0085so",
            "tab\there, comma, “;”",
            "back\\slash \\n",
            "<b>&amp;</b>",
            "control 7 to ?",
            "@ 2 beats",
            "in 3 s, then Stop",
            "null",
            "-Infinity",
            "{\"a\": [1]}",
            "\u0001\u007F",
            "e\u0301\u202Ertl",
            "50 %: -3 dB");

    private final Random random;

    private RandomShows(long seed) {
        random = new Random(seed);
    }

    /** @param id of the show */
    public static Show show(int id, long seed) {
        return new RandomShows(seed).show(id);
    }

    private Show show(int id) {
        Show show = Show.empty(id, text(60) + " " + id);
        int devices = random.nextInt(4) + 1;
        for (int d = 0; d < devices; d++) {
            show = show.withDevice(device(d));
            show = withPhrases(show, show.devices().get(d));
        }
        int number = 0;
        for (int i = random.nextInt(4); i >= 0; i--) {
            show = show.withItem(
                    new Item(0, one(ItemKind.values()), "I" + text(90), random.nextInt(86_401), List.of()),
                    show.items().size());
            Item item = show.items().get(show.items().size() - 1);
            Optional<Score> score = random.nextBoolean() ? Optional.of(accepted(this::score)) : Optional.empty();
            OptionalInt code = random.nextBoolean() ? OptionalInt.of(random.nextInt(86_400)) : OptionalInt.empty();
            show = show.withItem(item.withScore(score).withCodeStart(code), 0);
            for (int c = random.nextInt(6); c > 0; c--) {
                show = show.withCue(item.id(), cue(show, ++number));
            }
        }
        for (int h = random.nextInt(3); h > 0; h--) {
            show = new RandomHands(this, random).withPage(show);
        }
        for (int s = random.nextInt(3); s > 0; s--) {
            show = new RandomHands(this, random).withSet(show);
        }
        for (int l = random.nextInt(4); l > 0; l--) {
            show = new RandomListeners(this, random).addedTo(show);
        }
        return show;
    }

    <T> T any(List<T> all) {
        return all.get(random.nextInt(all.size()));
    }

    /** Tries until the constructors accept. */
    static <T> T accepted(Supplier<T> made) {
        while (true) {
            try {
                return made.get();
            } catch (Refusal | IllegalArgumentException refused) {
                continue;
            }
        }
    }

    // ---- the rig

    private Device device(int place) {
        return new Device(
                0,
                "M" + place + text(50),
                one(Department.values()),
                connection(),
                random.nextInt(16),
                new Numbering(
                        random.nextInt(2),
                        random.nextBoolean() ? 0 : 5 + random.nextInt(124),
                        one(Numbering.Values.values()),
                        -random.nextInt(3),
                        random.nextBoolean(),
                        random.nextInt(2)),
                random.nextInt(10_001),
                random.nextInt(10_001),
                random.nextBoolean() ? Levels.PUBLISHED : levels(),
                random.nextBoolean()
                        ? Optional.empty()
                        : Optional.of(new PositionList(one(PositionList.Kind.values()), random.nextInt(100))),
                random.nextBoolean()
                        ? List.of()
                        : List.of(new StepList(text(40), 1 + random.nextInt(999), random.nextInt(10_001))),
                random.nextBoolean()
                        ? Optional.empty()
                        : Optional.of(new Precautions(
                                random.nextBoolean() ? "" : text(50),
                                one(Precautions.UntoldFade.values()),
                                random.nextBoolean())),
                random.nextBoolean()
                        ? Optional.empty()
                        : Optional.of(new InStep(
                                random.nextBoolean(),
                                random.nextBoolean(),
                                random.nextBoolean(),
                                one(TimeCode.Rate.values()),
                                one(InStep.Vamping.values()))),
                List.of());
    }

    private Connection connection() {
        return switch (random.nextInt(3)) {
            case 0 -> new Connection.NetworkMidi("desk-" + random.nextInt(9) + ".local", 1 + random.nextInt(65534));
            case 1 -> new Connection.LocalMidi("P" + text(150));
            default ->
                new Connection.Osc(
                        "::1",
                        1 + random.nextInt(65535),
                        random.nextBoolean() ? "" : "/ask",
                        one(Connection.Carrier.values()));
        };
    }

    private Levels levels() {
        List<Levels.Point> points = new ArrayList<>();
        points.add(new Levels.Point(random.nextBoolean() ? Double.NEGATIVE_INFINITY : -90.123456789, 0));
        for (int i = 1 + random.nextInt(5); i > 0; i--) {
            Levels.Point last = points.get(points.size() - 1);
            points.add(new Levels.Point(Math.max(-80, last.decibels()) + random.nextDouble() + 0.1, last.value() + 7));
        }
        return new Levels(points);
    }

    private Show withPhrases(Show show, Device device) {
        Show with = show;
        for (int p = random.nextInt(8); p >= 0; p--) {
            int place = p;
            Phrase phrase = accepted(() -> phrase(device, place));
            with = with.withPhrase(device.id(), phrase);
        }
        return with;
    }

    private Answer answer(boolean midi) {
        return new Answer(Utterance.of(midi ? message() : osc()), 50 + random.nextInt(59_951));
    }

    private Phrase phrase(Device device, int place) {
        boolean midi = device.connection().carriesMidi();
        boolean listed = midi && device.list().isPresent() && random.nextInt(4) == 0;
        Speech says = listed ? Speech.of(device.list().get().at(0)) : speech(midi);
        return new Phrase(
                0,
                "P" + place + text(50).replace(" + ", "+"),
                says,
                !listed && says.isOpen() && !says.hasTwoStates() ? Optional.of(argument()) : Optional.empty(),
                effect(),
                random.nextBoolean(),
                listed,
                new Remarks(one(Remarks.Mark.values()), text(200), text(40)),
                Optional.empty(),
                IntStream.range(0, random.nextInt(3))
                        .mapToObj(i -> new Standing(midi ? message() : osc(), random.nextDouble() * 127))
                        .toList(),
                random.nextInt(3) == 0 ? Optional.of(answer(midi)) : Optional.empty());
    }

    Speech speech(boolean midi) {
        boolean open = random.nextBoolean();
        List<Utterance> on = IntStream.rangeClosed(0, random.nextInt(3))
                .mapToObj(i -> accepted(() -> utterance(midi, open && i == 0)))
                .toList();
        return new Speech(on, !open && random.nextInt(4) == 0 ? List.of(utterance(midi, false)) : List.of());
    }

    private Utterance utterance(boolean midi, boolean open) {
        Message message = midi ? message() : osc();
        int length = message instanceof ChannelMessage.NoteOn && random.nextBoolean() ? random.nextInt(600_001) : 0;
        return new Utterance(message, random.nextInt(60_001), length, open);
    }

    private Message message() {
        int c = random.nextInt(16);
        return switch (random.nextInt(17)) {
            case 0 -> new ChannelMessage.NoteOn(c, seven(), seven());
            case 1 -> new ChannelMessage.NoteOff(c, seven(), seven());
            case 2 -> new ChannelMessage.PolyPressure(c, seven(), seven());
            case 3 -> new ChannelMessage.ControlChange(c, seven(), seven());
            case 4 -> new ChannelMessage.ProgramChange(c, seven());
            case 5 -> new ChannelMessage.BankProgram(c, random.nextInt(16384), seven());
            case 6 -> new ChannelMessage.ChannelPressure(c, seven());
            case 7 -> new ChannelMessage.PitchBend(c, random.nextInt(16384));
            case 8 -> new SystemCommon.QuarterFrame(random.nextInt(8), random.nextInt(16));
            case 9 -> new SystemCommon.SongPosition(random.nextInt(16384));
            case 10 -> new SystemCommon.SongSelect(seven());
            case 11 -> new SystemCommon.TuneRequest();
            case 12 -> one(RealTime.values());
            case 13 ->
                accepted(() -> new ShowControl(
                        seven(),
                        seven(),
                        one(ShowControl.Command.values()),
                        text("12.5", ""),
                        text("", "3"),
                        text("", "7"),
                        random.nextBoolean()
                                ? Optional.empty()
                                : Optional.of(new ShowControl.Time(timeCode(), random.nextInt(100)))));
            case 14 ->
                random.nextBoolean()
                        ? MachineControl.of(seven(), MachineControl.Command.STOP)
                        : MachineControl.locate(seven(), timeCode());
            case 15 -> new FullFrame(seven(), timeCode());
            default -> new SysEx(sevens(random.nextInt(20) == 0 ? 65_000 : random.nextInt(40)));
        };
    }

    private TimeCode timeCode() {
        return new TimeCode(one(TimeCode.Rate.values()), random.nextInt(24), random.nextInt(60), 59, 23);
    }

    private Bytes sevens(int length) {
        return Bytes.of(IntStream.range(0, length).map(i -> seven()).toArray());
    }

    private OscMessage osc() {
        List<Object> arguments = new ArrayList<>();
        for (int i = random.nextInt(4); i >= 0; i--) {
            arguments.add(oscValue(0));
        }
        return new OscMessage("/a/" + random.nextInt(9), arguments);
    }

    private Object oscValue(int depth) {
        return switch (random.nextInt(depth < 3 ? 16 : 14)) {
            case 0 -> random.nextInt();
            case 1 -> random.nextFloat() * 1e10f;
            case 2 -> (float) random.nextInt(10);
            case 3 -> Float.NEGATIVE_INFINITY;
            case 4 -> random.nextLong();
            case 5 -> random.nextGaussian();
            case 6 -> random.nextBoolean();
            case 7 -> one(OscMessage.Bare.values());
            case 8 -> (char) random.nextInt(128);
            case 9 -> new OscMessage.Symbol(text(50));
            case 10 -> new OscMessage.TimeTag(random.nextLong());
            case 11 -> new OscMessage.Colour(random.nextInt());
            case 12 -> new OscMessage.MidiOctets(random.nextInt());
            case 13 -> sevens(random.nextInt(9));
            case 14 -> List.of(oscValue(depth + 1), oscValue(depth + 1));
            default -> text(200);
        };
    }

    private Argument argument() {
        Argument.Unit unit = one(Argument.Unit.values());
        return random.nextBoolean() || unit == Argument.Unit.TEXT
                ? Argument.in(unit)
                : new Argument(unit, random.nextDouble(), 1);
    }

    private Effect effect() {
        Effect.Kind kind = one(Effect.Kind.values());
        return new Effect(
                kind,
                text(40),
                kind == Effect.Kind.STEPS ? -1 - random.nextInt(999) : random.nextInt(86_401),
                Stream.of(Along.values()).filter(a -> random.nextInt(4) == 0).toList());
    }

    // ---- the book

    private Cue cue(Show show, int number) {
        List<Call> calls = new ArrayList<>();
        for (Device device : show.devices()) {
            for (Phrase phrase : device.phrases()) {
                if (random.nextInt(3) == 0) {
                    calls.add(call(device, phrase));
                }
            }
        }
        BigDecimal value = new BigDecimal(number).add(new BigDecimal(random.nextInt(1000)).movePointLeft(3));
        return new Cue(0, new CueNumber(value), start(), text(200), calls, one(Remarks.Mark.values()), text(500), 0);
    }

    private Call call(Device device, Phrase phrase) {
        Optional<Amount> amount = phrase.argument()
                .map(a -> a.unit() == Argument.Unit.TEXT
                        ? new Amount.Text(text(200))
                        : new Amount.Measure(
                                random.nextInt(5) == 0 ? Double.NEGATIVE_INFINITY : random.nextGaussian() * 50));
        Optional<Motion> motion = random.nextInt(3) == 0 ? Optional.of(motion(device)) : Optional.empty();
        return new Call(device.id(), phrase.id(), amount, motion, span());
    }

    private Span span() {
        int counted = random.nextInt(3);
        return new Span(random.nextInt(7_200_001) - 3_600_000, counted == 1, counted == 2);
    }

    private Motion motion(Device device) {
        if (random.nextBoolean()) {
            int points = random.nextInt(5) == 0 ? 149 : random.nextInt(4);
            int then = random.nextBoolean()
                    ? 0
                    : device.phrases()
                            .get(random.nextInt(device.phrases().size()))
                            .id();
            return new Motion.Move(
                    span(),
                    one(Motion.Shape.values()),
                    IntStream.range(0, points)
                            .mapToObj(i -> new Motion.Point((i + random.nextDouble()) / points, random.nextGaussian()))
                            .toList(),
                    then);
        }
        return new Motion.Wave(
                one(Motion.Form.values()),
                random.nextDouble() * 20,
                span(),
                random.nextBoolean() ? Double.NEGATIVE_INFINITY : -random.nextDouble(),
                random.nextBoolean() ? Double.POSITIVE_INFINITY : random.nextDouble(),
                span());
    }

    private Start start() {
        return switch (random.nextInt(6)) {
            case 0 -> Start.BY_HAND;
            case 1 -> Start.WITH_PREVIOUS;
            case 2 -> new Start.AfterPrevious(random.nextInt(3_600_001));
            case 3 ->
                new Start.AtPosition(
                        new Position(random.nextInt(20_000), random.nextInt(33), random.nextInt(1920)),
                        random.nextInt(120_001) - 60_000);
            case 4 -> new Start.AtSection(letter(random.nextInt(26)), random.nextInt(1_999_999) - 999_999);
            default -> new Start.AtTime(random.nextInt(86_400_001));
        };
    }

    // ---- songs

    private Score score() {
        List<MeterMark> meters = new ArrayList<>(List.of(new MeterMark(1, meter())));
        int pickUp =
                random.nextBoolean() ? 0 : random.nextInt(meters.get(0).meter().barTicks());
        for (int i = random.nextInt(3); i > 0; i--) {
            meters.add(new MeterMark(2 + random.nextInt(12_000), meter()));
        }
        List<TempoMark> tempi = new ArrayList<>(List.of(TempoMark.at(0, tempo())));
        for (int i = random.nextInt(4); i > 0; i--) {
            tempi.add(new TempoMark(random.nextInt(500_000), tempo(), random.nextBoolean() ? 0 : random.nextInt(9000)));
        }
        List<Hold> holds = random.nextBoolean()
                ? List.of()
                : List.of(new Hold(random.nextInt(500_000), 1 + random.nextInt(600_000)));
        List<Film> films = random.nextBoolean()
                ? List.of()
                : List.of(new Film(1 + random.nextInt(11_000), 1 + random.nextInt(300_000), tempo(), text(60)));
        List<Vamp> vamps = random.nextBoolean()
                ? List.of()
                : List.of(new Vamp(1 + random.nextInt(11_000), 1 + random.nextInt(100), one(Vamp.Leave.values()), 99));
        int last = random.nextBoolean() ? 0 : 1 + random.nextInt(12_000);
        return new Score(pickUp, meters, tempi, holds, sections(), vamps, films, last);
    }

    private List<Section> sections() {
        List<Section> sections = new ArrayList<>();
        int bar = random.nextInt(3);
        for (int i = 0; i < random.nextInt(6); i++, bar += 1 + random.nextInt(3000)) {
            boolean again = i > 0 && sections.get(0).as().isEmpty() && random.nextBoolean();
            sections.add(new Section(
                    bar,
                    letter(i),
                    text(60),
                    again ? Optional.of(letter(0)) : Optional.empty(),
                    again && random.nextBoolean() ? List.of("1", "12.5") : List.of()));
        }
        return sections;
    }

    private static String letter(int i) {
        return (char) ('A' + i) + (i % 3 == 2 ? "2" : "");
    }

    private Meter meter() {
        return new Meter(1 + random.nextInt(32), 2 << random.nextInt(4));
    }

    private Tempo tempo() {
        return new Tempo(one(BeatUnit.values()), 1_000_000 + random.nextInt(998_999_999));
    }

    // ---- small things

    private int seven() {
        return random.nextInt(128);
    }

    @SafeVarargs
    final <T> T one(T... all) {
        return all[random.nextInt(all.length)];
    }

    String text(String... all) {
        return one(all);
    }

    /** Some of the odd texts, or nothing, or letters of any alphabet; at most so many characters. */
    String text(int most) {
        String text = Stream.generate(() -> random.nextInt(3) > 0
                        ? TEXTS.get(random.nextInt(TEXTS.size()))
                        : Character.toString(anyCharacter()))
                .limit(random.nextInt(4))
                .reduce("", String::concat);
        int end = Math.min(most, text.length());
        boolean half = end > 0 && end < text.length() && Character.isHighSurrogate(text.charAt(end - 1));
        return text.substring(0, half ? end - 1 : end).strip();
    }

    private int anyCharacter() {
        while (true) {
            int any = random.nextInt(Character.MAX_CODE_POINT + 1);
            if (any < Character.MIN_SURROGATE || any > Character.MAX_SURROGATE) {
                return any;
            }
        }
    }
}
