package underbaton.core.rig;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.MachineControl.Command;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Argument.Unit;

/** Ready-made ways to fill a phrasebook quickly, after what machines of a sort commonly listen to. */
public enum Family {
    LOOKS_BY_NOTE(Counted.NOTE, "looks by note", "Looks", "Dark, Full and bright, Warm, Cold") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            return maker.each(names, (i, name) -> maker.plain(name, maker.note(i), Effect.HOLDS));
        }
    },
    SCENES_BY_PROGRAM(Counted.PROGRAM, "scenes by program", "Scenes", "Line check, Pre-show, Speech, Song") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            return maker.each(
                    names,
                    (i, name) -> maker.plain(name, maker.program(i), Effect.HOLDS.takingAlong(List.of(Along.LEVELS))));
        }
    },
    CLIPS_BY_NOTE(Counted.NOTE, "clips by note with a stop", "Clips", "Clip 1, Clip 2, Clip 3") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            // Common practice: clips from the second number on, and the stop below them; behind them where nothing is
            // below.
            int below = maker.first == 0 ? names.size() : -1;
            List<Phrase> phrases = maker.each(names, (i, name) -> maker.plain(name, maker.note(i), Effect.STARTS));
            phrases.add(0, maker.plain("Stop", maker.note(below), Effect.STOPS));
            return phrases;
        }
    },
    STRIPS_BY_CONTROLLER(
            Counted.CONTROL,
            "strips by controller: level, mute, pan on three channels",
            "Strips",
            "Vox 1, Vox 2, Bed") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            return Stream.of(
                            maker.each(
                                    names, (i, n) -> maker.open(n + " level", maker.control(i, 0), Unit.DECIBELS, n)),
                            maker.each(names, (i, n) -> maker.pair(n + " mute", maker.control(i, 1), n)),
                            maker.each(names, (i, n) -> maker.open(n + " pan", maker.control(i, 2), Unit.PAN, n)))
                    .flatMap(List::stream)
                    .toList();
        }
    },
    NEXT_AND_PREVIOUS(Counted.NOTE, "next and previous by note", "Steps", "") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            return maker.each(
                    List.of("Next", "Previous"),
                    (i, name) -> maker.plain(name, maker.note(i), new Effect(Effect.Kind.STEPS, "", i == 0 ? 1 : -1)));
        }
    },
    PLAYER_BY_MACHINE_CONTROL(
            Counted.NOTHING, "a player by machine control: start, stop, go to", "Player", "0:00, 1:30, 4:37") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            List<Phrase> phrases = maker.each(
                    names,
                    (i, name) ->
                            maker.plain("Go to " + name, MachineControl.locate(EVERYONE, place(name)), Effect.MOMENT));
            phrases.add(0, maker.plain("Start", MachineControl.of(EVERYONE, Command.PLAY), Effect.STARTS));
            phrases.add(1, maker.plain("Stop", MachineControl.of(EVERYONE, Command.STOP), Effect.STOPS));
            return phrases;
        }

        /** A time in the film, minutes and seconds. */
        private TimeCode place(String time) {
            Matcher m = Pattern.compile("(\\d{1,3}):([0-5]\\d)").matcher(time.strip());
            if (!m.matches()) {
                throw new Refusal("names", "“" + time + "” is no time in a film; write minutes and seconds: 1:30.");
            }
            int minutes = Integer.parseInt(m.group(1));
            return new TimeCode(TimeCode.Rate.PAL_25, minutes / 60, minutes % 60, Integer.parseInt(m.group(2)), 0);
        }
    },
    LIGHTING_BY_SHOW_CONTROL(Counted.NOTHING, "lighting by show control", "Cues of the desk", "1, 2, 3") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            List<Phrase> phrases = maker.each(names, (i, name) -> {
                String cue = name.matches("[\\d.]+") ? name : Integer.toString(i + 1);
                String called = name.equals(cue) ? "Desk cue " + cue : name;
                return maker.plain(called, showControl(ShowControl.Command.GO, cue), Effect.HOLDS);
            });
            phrases.add(maker.plain("Desk stop", showControl(ShowControl.Command.STOP, ""), Effect.MOMENT));
            phrases.add(maker.plain("Desk resume", showControl(ShowControl.Command.RESUME, ""), Effect.MOMENT));
            phrases.add(maker.plain("Desk all off", showControl(ShowControl.Command.ALL_OFF, ""), Effect.STOPS));
            return phrases;
        }

        private Message showControl(ShowControl.Command command, String cue) {
            return new ShowControl(1, ShowControl.LIGHTING, command, cue, "", "");
        }
    },
    SONGS_AND_SECTIONS(Counted.NOTE, "songs by bank note and sections by preset note", "Songs", "Song 1, Song 2") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            List<Phrase> phrases = maker.each(
                    names, (i, name) -> maker.plain(name, maker.note(i), new Effect(Effect.Kind.HOLDS, "song", 0)));
            List<String> sections = List.of("Intro", "Verse", "Chorus", "Bridge", "Outro");
            phrases.addAll(maker.each(
                    sections,
                    (i, name) -> maker.plain(
                            "Section " + name, maker.note(i, 1), new Effect(Effect.Kind.HOLDS, "section", 0))));
            return phrases;
        }
    },
    KEYS_BY_PROGRAM(Counted.PROGRAM, "keys by program: twelve keys, major and minor", "Keys", "") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            List<String> keys = List.of("C", "D♭", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B");
            List<String> all = Stream.of("major", "minor")
                    .flatMap(mode -> keys.stream().map(k -> "Key " + k + " " + mode))
                    .toList();
            return maker.each(
                    all, (i, name) -> maker.plain(name, maker.program(i), new Effect(Effect.Kind.HOLDS, "key", 0)));
        }
    },
    CAMERAS_BY_OSC(Counted.PLACE, "cameras by OSC", "Cameras", "1 wide, 2 close, 3 band") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            return maker.each(
                    names,
                    (i, name) -> maker.plain(
                            name,
                            new OscMessage("/camera/program", List.of(maker.places.place(maker.first + i))),
                            Effect.HOLDS));
        }
    },
    PATCHES_BY_PROGRAM(
            Counted.PROGRAM, "patches by program with switches by controller", "Patches", "Piano, Organ, Strings") {
        @Override
        List<Phrase> phrases(Maker maker, List<String> names) {
            List<Phrase> phrases = maker.each(
                    names, (i, name) -> maker.plain(name, maker.program(i), new Effect(Effect.Kind.HOLDS, "patch", 0)));
            phrases.add(maker.pair("Switch 1", new ControlChange(0, 80, 0), "Switch 1"));
            phrases.add(maker.pair("Switch 2", new ControlChange(0, 81, 0), "Switch 2"));
            phrases.add(maker.open("Expression", new ControlChange(0, 11, 0), Unit.PER_CENT, "Expression"));
            return phrases;
        }
    };

    private static final int FULL = 127;
    /** Level, mute and pan, each on a channel of its own. */
    private static final int PROPERTIES = 3;
    /** MIDI Machine Control, RP-013: all devices. */
    private static final int EVERYONE = 127;

    /** What the first number of a family is. */
    public enum Counted {
        NOTE("note"),
        PROGRAM("program"),
        CONTROL("control"),
        PLACE("place"),
        NOTHING("");

        private final String word;

        Counted(String word) {
            this.word = word;
        }

        /** As people say it; empty where nothing is counted. */
        public String word() {
            return word;
        }
    }

    private final Counted counted;
    private final String title;
    private final String heading;
    private final List<String> examples;

    Family(Counted counted, String title, String heading, String examples) {
        this.counted = counted;
        this.title = title;
        this.heading = heading;
        this.examples =
                Arrays.stream(examples.split(", ")).filter(e -> !e.isEmpty()).toList();
    }

    abstract List<Phrase> phrases(Maker maker, List<String> names);

    /** What its numbers are. */
    public Counted counted() {
        return counted;
    }

    /** As the form offers it. */
    public String title() {
        return title;
    }

    /** Names to begin with; empty where the family has its own. */
    public List<String> examples() {
        return examples;
    }

    /** Whether its phrases have names that people give, one a line. */
    public boolean wantsNames() {
        return !examples.isEmpty();
    }

    /** Those that the machine's connection can carry. */
    public static List<Family> fitting(Device device) {
        return Arrays.stream(values())
                .filter(f -> (f == CAMERAS_BY_OSC) != device.connection().carriesMidi())
                .toList();
    }

    /**
     * The machine with this family's phrases added.
     *
     * @param names in the machine's order, one a phrase; not looked at where the family has its own
     * @param first the first number as the machine prints it, of what the family counts; empty for the usual one
     * @throws Refusal when a name is taken, or the numbers do not suffice
     */
    public Device fill(Device device, List<String> names, String first) {
        int from = first.isBlank() ? this == CLIPS_BY_NOTE ? 1 : 0 : wire(device.numbering(), first.strip());
        Device filled = device;
        int last = device.channel() + (this == STRIPS_BY_CONTROLLER ? PROPERTIES - 1 : 0);
        if (last > 15) {
            throw new Refusal(
                    "channel",
                    "Level, mute and pan take three channels from the machine's own on, and there are 16; let it listen on"
                            + " channel 14 or lower.");
        }
        for (Phrase phrase : phrases(new Maker(heading, from, device.numbering()), names)) {
            filled = filled.withPhrase(phrase);
        }
        return filled;
    }

    private int wire(Numbering numbering, String first) {
        return switch (counted) {
            case NOTE -> numbering.wireNote(first);
            case PROGRAM -> numbering.wireProgram(first);
            case CONTROL -> number(first, "controller; these are 0 to 119");
            case PLACE -> numbering.placeFrom(number(first, "place; these are 0 to 127"));
            case NOTHING -> 0;
        };
    }

    private static int number(String typed, String what) {
        if (!typed.matches("\\d{1,3}") || Integer.parseInt(typed) > FULL) {
            throw new Refusal("first", "“" + typed + "” is no " + what + ".");
        }
        return Integer.parseInt(typed);
    }

    /** Makes the phrases of one family under its heading. */
    private record Maker(String heading, int first, Numbering places) {

        private interface One {
            Phrase make(int place, String name);
        }

        List<Phrase> each(List<String> names, One one) {
            return new ArrayList<>(IntStream.range(0, names.size())
                    .mapToObj(i -> one.make(i, names.get(i)))
                    .toList());
        }

        Phrase plain(String name, Message message, Effect effect) {
            return phrase(name, Speech.of(message), Optional.empty(), effect);
        }

        Phrase open(String name, Message message, Unit unit, String control) {
            Speech speech = new Speech(List.of(new Utterance(message, 0, 0, true)), List.of());
            return phrase(name, speech, Optional.of(Argument.in(unit)), new Effect(Effect.Kind.LEVELS, control, 0));
        }

        Phrase pair(String name, ControlChange control, String slot) {
            Message on = new ControlChange(control.channel(), control.controller(), FULL);
            Message off = new ControlChange(control.channel(), control.controller(), 0);
            Speech speech = new Speech(List.of(Utterance.of(on)), List.of(Utterance.of(off)));
            return phrase(name, speech, Optional.empty(), new Effect(Effect.Kind.HOLDS, slot, 0));
        }

        private Phrase phrase(String name, Speech speech, Optional<Argument> argument, Effect effect) {
            Remarks under = new Remarks(Remarks.Mark.NONE, "", heading);
            return new Phrase(0, name, speech, argument, effect, false, false, under);
        }

        Message note(int place) {
            return note(place, 0);
        }

        Message note(int place, int channel) {
            return new NoteOn(channel, within(first + place), FULL);
        }

        Message program(int place) {
            return new ProgramChange(0, within(first + place));
        }

        ControlChange control(int place, int channel) {
            int controller = within(first + place);
            if (Controllers.isMode(controller)) {
                throw new Refusal(
                        "names",
                        "Controllers end at 119; those above switch sounds off and modes on. Leave some names out, or begin"
                                + " lower.");
            }
            return new ControlChange(channel, controller, 0);
        }

        private static int within(int number) {
            if (number < 0 || number > FULL) {
                throw new Refusal("names", "There are 128 numbers, and these names need more; leave some out.");
            }
            return number;
        }
    }
}
