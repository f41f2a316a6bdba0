package underbaton.core.engine.patch;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.pcollections.PMap;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.engine.patch.Tone.Key;
import underbaton.core.engine.patch.Tone.Kind;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.signal.Source;

/**
 * What sounds by what is played or passed on, while a step is taken: whatever sounds is owed its end, as often as it was begun, by
 * whatever way it came; a machine that cannot hear it now hears it when it is back. Not thread-safe, used once.
 */
public final class Sounds {

    private final StepContext step;
    private final Devices devices;
    private final Moves moves;
    private final Outgoing out;
    private Sounding sounding;

    /** Made anew for each step, of the parts that it asks. */
    public Sounds(StepContext step, Devices devices, Moves moves, Outgoing out, Sounding before) {
        this.step = step;
        this.devices = devices;
        this.moves = moves;
        this.out = out;
        this.sounding = before;
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public Sounding state() {
        return sounding;
    }

    // ---- what begins and ends

    /** What a hand begins at an output, or goes on holding otherwise. @param says what the output is told when it begins */
    void begin(Key hand, int value, Key place, ChannelMessage says, Cause cause) {
        Tone tone = sounding.at(place).heldBy(hand, value);
        boolean alone = tone.holders().size() == 1;
        int before = tone.said();
        int down = hand.kind() == Kind.PEDAL ? tone.most() : value;
        sounding = sounding.begun(hand, value, place, down);
        if (hand.kind() == Kind.NOTE || hand.kind() == Kind.BEND || alone || down != before) {
            say(place.deviceId(), hand.kind() == Kind.PEDAL ? place.message(down) : says, cause);
        }
    }

    /** One hand less holds it; with the last it ends. @param velocity of a note's release */
    void letGo(Key hand, Key place, int velocity, Cause cause) {
        Tone before = sounding.at(place);
        sounding = sounding.letGo(hand, place);
        Tone tone = sounding.at(place);
        if (tone.isFree()) {
            silence(place, before.begun(), velocity, cause);
        } else if (place.kind() == Kind.PEDAL && tone.most() != tone.said()) {
            sounding = sounding.with(place, tone.told(tone.most()));
            say(place.deviceId(), place.message(tone.most()), cause);
        }
    }

    private void silence(Key place, int begun, int velocity, Cause cause) {
        int times = place.kind() == Kind.NOTE ? begun : 1;
        for (int i = 0; i < times; i++) {
            say(place.deviceId(), place.end(velocity), cause);
        }
        if (!devices.hears(place.deviceId())) {
            sounding = sounding.owing(List.of(place));
        }
    }

    /**
     * A note that a relay passes on, which ends with the key that it came from.
     *
     * @param came as it was played
     * @param goes as it is passed on
     * @return whether that is to be said
     */
    public boolean passedOn(int sourceId, ChannelMessage came, int relayId, int deviceId, ChannelMessage goes) {
        Key hand = Key.of(sourceId, came).map(k -> k.passedOnBy(relayId)).orElse(null);
        if (hand == null || hand.kind() != Kind.NOTE) {
            return true;
        }
        Key place = Key.of(deviceId, goes).orElseThrow();
        if (!Tone.isEnd(goes)) {
            sounding = sounding.begun(hand, Tone.value(came), place, Tone.value(goes));
            return true;
        }
        boolean held = sounding.placesOf(hand).contains(place);
        sounding = held ? sounding.letGo(hand, place) : sounding;
        owe(deviceId, goes);
        return !sounding.tones().containsKey(place);
    }

    // ---- what ends for another reason

    /** Nothing that is played or passed on sounds any more; the lines stay. */
    public void silenceAll(Cause cause) {
        PMap<Key, Tone> tones = sounding.tones();
        sounding = sounding.silent();
        tones.forEach((place, tone) -> silence(place, tone.begun(), 0, cause));
    }

    /** A device is sent nothing from now on, so what sounds on it ends now; called while it is still sent what it is told. */
    public void quiet(int deviceId) {
        Cause cause = Cause.outside("out tonight", step.now());
        for (Map.Entry<Key, Tone> each : sounding.tones().entrySet()) {
            Key place = each.getKey();
            if (place.deviceId() == deviceId) {
                each.getValue().holders().keySet().forEach(hand -> sounding = sounding.letGo(hand, place));
                silence(place, each.getValue().begun(), 0, cause);
            }
        }
    }

    /** What hands hold ends with the input, or the relay, by which it came. */
    public void letGoOfLost() {
        for (Key hand : new ArrayList<>(sounding.places().keySet())) {
            boolean inputGone = hand.deviceId() != Source.OTHERS && !devices.hears(hand.deviceId());
            boolean relayGone = hand.relayId() != 0
                    && step.plan().listeners().stream().noneMatch(l -> l.id() == hand.relayId() && l.isRelay());
            if (inputGone || relayGone) {
                Cause cause = Cause.outside(inputGone ? "its input is away" : "its relay is gone", step.now());
                sounding.placesOf(hand).forEach(place -> letGo(hand, place, 0, cause));
            }
        }
    }

    // ---- what is owed

    /** A message has left that may end a note: one that its machine cannot hear now, it hears when it is back. */
    public void owe(int deviceId, Message end) {
        if (ChannelMessage.endsNote(end) && !devices.hears(deviceId)) {
            Key.of(deviceId, end).ifPresent(k -> sounding = sounding.owing(List.of(k)));
        }
    }

    /** A device is back, if it is: what should have ended while it was away ends now. */
    public void pay(int deviceId) {
        if (sounding.owed().isEmpty() || !devices.hears(deviceId)) {
            return;
        }
        Cause cause = Cause.outside("ended while it was away", step.now());
        for (Key place : sounding.owed()) {
            if (place.deviceId() == deviceId) {
                sounding = sounding.paid(place);
                if (!sounding.tones().containsKey(place)) {
                    say(deviceId, place.end(0), cause);
                }
            }
        }
    }

    /** What a keyboard says of its controls and programs is known of the machine, as if a cue had said it. */
    void say(int deviceId, ChannelMessage message, Cause cause) {
        if (message instanceof ControlChange change) {
            moves.set(deviceId, change);
        } else if (message instanceof ProgramChange) {
            step.plan()
                    .phraseSaying(deviceId, List.of(new Timed(0, message)))
                    .filter(p -> p.patch().isEmpty())
                    .ifPresent(p -> devices.chosen(
                            PlannedCall.of(step.plan().device(deviceId).orElseThrow(), p),
                            step.now(),
                            step.plan().stepLists(deviceId)));
        }
        out.play(deviceId, message, cause);
    }
}
