package underbaton.core.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.pcollections.HashTreePMap;
import org.pcollections.TreePMap;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.engine.answer.Answers;
import underbaton.core.engine.call.Agenda;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.call.Corrections;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.key.HandCues;
import underbaton.core.engine.key.HandKeys;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.music.Cues;
import underbaton.core.engine.music.Holds;
import underbaton.core.engine.music.Jumps;
import underbaton.core.engine.music.Music;
import underbaton.core.engine.music.MusicState;
import underbaton.core.engine.operator.Operator;
import underbaton.core.engine.operator.OperatorInput;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.engine.out.WayOut;
import underbaton.core.engine.patch.Patched;
import underbaton.core.engine.patch.Patching;
import underbaton.core.engine.patch.Sounding;
import underbaton.core.engine.patch.Sounds;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedKey;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.StepList;

/**
 * The parts of the engine put together as far as a part's own test needs them, on a small show: {@link Shows#small()} with a console (a
 * fader, scenes that take levels along, a slow local port) and a tablet that is stepped on. Time passes only when the test says so.
 */
public final class PartsOnPaper {

    public static final long MS = 1_000_000;

    public final Show show;
    public final StepContext step;
    public final Operator operator;
    public final Devices devices;
    public final Outgoing out;
    public final Moves moves;
    public final Sounds sounds;
    public final Patching patching;
    public final Agenda agenda = new Agenda(TreePMap.empty());
    public final Calls calls;
    public final Corrections corrections;
    public final Music music;
    public final Cues cues;
    public final Jumps jumps;
    public final Holds holds;
    public final HandCues keys;
    /** What was said, for those who listen to themselves. */
    public final List<String> echoes = new ArrayList<>();

    public final Answers answers;
    private int read;

    public PartsOnPaper() {
        this(show());
    }

    public PartsOnPaper(Show show) {
        this.show = show;
        step = new StepContext(Planner.plan(show), 0, OptionalLong.empty());
        operator = new Operator(step, OperatorInput.FIRST);
        devices = new Devices(DeviceStates.NOTHING, HashTreePMap.empty());
        out = new Outgoing(step, WayOut.FREE, devices.levels(), (id, m, at) -> echoes.add(id + " " + m));
        moves = new Moves(step, devices, out, HashTreePMap.empty());
        sounds = new Sounds(step, devices, moves, out, Sounding.NOTHING);
        patching = new Patching(step, operator, devices.levels(), out, sounds, Patched.NOTHING);
        answers = new Answers(step, devices, moves, out, HashTreePMap.empty());
        calls = new Calls(step, devices, out, moves, sounds, patching, agenda, answers);
        corrections = new Corrections(step, devices, out, moves, sounds, agenda, calls);
        music = new Music(step, operator, MusicState.first(0));
        cues = new Cues(step, music, devices, calls);
        jumps = new Jumps(step, operator, music, cues, calls, moves, agenda);
        holds = new Holds(step, devices, moves, agenda, calls, music);
        keys = new HandCues(step, operator, devices, calls, HandKeys.UNTOUCHED);
    }

    /** The small show with the console and the tablet. */
    public static Show show() {
        Show show = Shows.small();
        show = show.withDevice(new Device(
                0, "Console", Department.SOUND, new Connection.LocalMidi("DIN"), 4, Numbering.WIRE, 0, List.of()));
        int console = last(show).id();
        show = show.withPhrase(
                console, phrase("Bed", "control 3 to ?", Optional.of(Argument.of("per cent")), Effect.LEVELS));
        show = show.withPhrase(
                console, phrase("Scene", "program 1", Optional.empty(), Effect.of("holds scene, takes along levels")));
        show = Shows.device(show, "Tablet", Department.WORDS, 5);
        show = show.withDevice(last(show).withStepLists(List.of(new StepList("song", 7, 50))));
        show = Shows.phrase(show, "Next", "note 48", Effect.of("steps song by +1"));
        return Shows.phrase(show, "Top", "note 50", Effect.of("sets song to 1"));
    }

    public static Phrase phrase(String name, String says, Optional<Argument> argument, Effect effect) {
        return new Phrase(
                0, name, new SpeechWording(Numbering.WIRE).read(says), argument, effect, false, false, Remarks.NONE);
    }

    private static Device last(Show show) {
        return show.devices().get(show.devices().size() - 1);
    }

    public int device(String name) {
        return show.devices().stream()
                .filter(d -> d.name().equals(name))
                .findFirst()
                .orElseThrow()
                .id();
    }

    /** As a cell of the book says it: {@code Bed 50 % in 2 s}. */
    public PlannedCall call(String device, String cell) {
        Device d = show.device(device(device)).orElseThrow();
        Show with = show.withCue(
                show.items().get(0).id(),
                new Cue(0, CueNumber.of("99"), Start.of("by hand"), "", List.of(Call.of(d, cell)), 0));
        return Planner.plan(with).cues().stream()
                .filter(c -> c.label().equals("99"))
                .findFirst()
                .orElseThrow()
                .calls()
                .get(0);
    }

    public void make(String device, String cell) {
        calls.make(call(device, cell), cue());
    }

    /** The first cue of the show. */
    public Cause cue() {
        return Cause.cue("1", step.plan().cues().get(0).cueId(), 0, step.now());
    }

    public PlannedKey key(int keyId) {
        return step.plan().key(keyId).orElseThrow();
    }

    /** Time goes on, and what was called before leaves in its time; moves and music are asked by their own tests. */
    public void pass(long ms) {
        long until = step.now() + ms * MS;
        while (agenda.nextNanos() <= until) {
            step.advance(agenda.nextNanos());
            calls.makeFirstPending();
        }
        step.advance(until);
    }

    /** {@code 91 24 7F @ 500}: bytes and ms, of all that has left since this was asked last. */
    public List<String> sent() {
        List<String> words = step.messages().subList(read, step.messages().size()).stream()
                .map(m -> ((MidiMessage) m.message()).encode().hex() + " @ " + m.dueNanos() / MS)
                .toList();
        read = step.messages().size();
        return words;
    }
}
