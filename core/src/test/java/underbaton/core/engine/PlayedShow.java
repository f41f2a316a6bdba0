package underbaton.core.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;

/** A small show being played, order by order, and what was sent. */
abstract class PlayedShow {

    static final long MS = 1_000_000;
    static final long SECOND = 1_000 * MS;

    Show show = Shows.small();
    PlaybackState state;
    final List<ScheduledMessage> sent = new ArrayList<>();

    void song(String score, String... starts) {
        Item item = show.items().get(show.items().size() - 1);
        show = show.withItem(item.withScore(Optional.of(Score.of(score))), 0);
        int number = 20;
        for (String start : starts) {
            String[] parts = start.split("\\|");
            show = Shows.cue(
                    show,
                    "" + number++,
                    parts[0].strip(),
                    parts.length > 1 ? parts[1].strip().split(", ") : new String[] {"Amber"});
        }
    }

    void begin() {
        state = PlaybackState.of(Planner.plan(show), 0);
    }

    void order(Order order) {
        hear(Engine.step(state, Event.of(state.nowNanos(), order)));
    }

    void go() {
        order(new Order.Go());
    }

    void standBy(String number) {
        order(new Order.StandBy(id(number)));
    }

    int id(String number) {
        return show.cueNumbered(CueNumber.of(number)).orElseThrow().id();
    }

    void pass(long millis) {
        hear(Engine.step(state, Event.pass(state.nowNanos() + millis * MS)));
    }

    void hear(Step step) {
        state = step.next();
        sent.addAll(step.messages());
    }

    /** {@code cue 12 91 24 7F @ 500}: cause, bytes and ms. */
    List<String> sent() {
        List<String> words = sent.stream()
                .map(m -> m.cause().words() + " "
                        + ((MidiMessage) m.message()).encode().hex() + " @ " + m.dueNanos() / MS)
                .toList();
        sent.clear();
        return words;
    }

    String standby() {
        return state.standbyCue().map(c -> c.number().toString()).orElse("end");
    }

    Show fader(Show to) {
        Show with = Shows.device(to, "Console", Department.SOUND, 4);
        Device console = with.devices().get(with.devices().size() - 1);
        Phrase bed = new Phrase(
                0,
                "Bed",
                new SpeechWording(Numbering.WIRE).read("control 3 to ?"),
                Optional.of(Argument.of("per cent")),
                Effect.LEVELS,
                false,
                false,
                Remarks.NONE);
        return with.withPhrase(console.id(), bed);
    }

    void fade(String number, String start, String typed) {
        Device console = show.devices().get(show.devices().size() - 1);
        int item = show.items().get(show.items().size() - 1).id();
        show = show.withCue(
                item, new Cue(0, CueNumber.of(number), Start.of(start), "", List.of(Call.of(console, typed)), 0));
    }
}
