package underbaton.core.engine;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.Motion;
import underbaton.core.cue.Span;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Message;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedMotion;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Passed;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Scale;
import underbaton.core.signal.SignalNumber;
import underbaton.core.signal.Source;
import underbaton.core.signal.Translation;

/** What relays pass on, translated. */
abstract class Relaying extends Touching {

    private static final int FULL = 127;

    Relaying(PlaybackState s) {
        super(s);
    }

    // ---- what a relay takes that its pattern alone does not say

    /**
     * The message as a relay's pattern knows it: the lower half of a number of 14 bits stands for the higher, since the two are one
     * gesture.
     */
    Message asMeant(Listener listener, Source source, Message message) {
        boolean fine = listener.isRelay()
                && message instanceof ControlChange
                && listener.scale().map(Scale::fine).orElse(false)
                && listener.pattern() instanceof Pattern.Controller pattern
                && ((ControlChange) message).controller() == pattern.controller() + SignalNumber.LOWER_HALF;
        if (!fine) {
            return message;
        }
        ControlChange lower = (ControlChange) message;
        return new ControlChange(
                lower.channel(), lower.controller() - SignalNumber.LOWER_HALF, hearing.fine(source, lower) >> 7);
    }

    /** Whether it is the end of a note of which the beginning is passed on: no note stays behind, whatever was switched meanwhile. */
    boolean endsWhatPassed(Listener listener, Source source, Message message) {
        return listener.passage().orElse(null) instanceof Passage.Through && isRelease(listener, source, message);
    }

    /** Whether it is the end of what holds a hand cue that works while it is held. */
    boolean endsHeld(Listener listener, Source source, Message message) {
        return listener.reaction() instanceof Reaction.Hand touched
                && plan.key(touched.keyId())
                        .filter(k -> k.key().way() == HandKey.Way.HELD)
                        .isPresent()
                && hand.keys().getOrDefault(touched.keyId(), false)
                && isRelease(listener, source, message);
    }

    /** Whether a note that the listener takes is let go, or a controller falls below where it takes it. */
    private static boolean isRelease(Listener listener, Source source, Message message) {
        boolean ends = false;
        if (listener.pattern() instanceof Pattern.Note notes) {
            ends = ChannelMessage.endsNote(message) && notes.struck() && notes.isNear(message);
        } else if (listener.pattern() instanceof Pattern.Controller pedal && message instanceof ControlChange change) {
            ends = pedal.way() == Pattern.Way.PRESSED && pedal.isNear(message) && change.value() < pedal.from();
        }
        return ends
                && listener.hears(source)
                && (listener.channel().isEmpty()
                        || message instanceof ChannelMessage played
                                && listener.channel().getAsInt() == played.channel());
    }

    /** Whether it is the second signal of a relay, which then says anew what it said last. */
    boolean isSecond(Listener listener, Source source, Message message) {
        return listener.isRelay()
                && message instanceof ControlChange change
                && listener.scale()
                        .flatMap(Scale::second)
                        .filter(s -> s.deviceId() == source.deviceId()
                                && s.channel() == change.channel()
                                && s.controller() == change.controller())
                        .isPresent()
                && hearing.passed(listener.id()).number().isPresent()
                && hearing.isArmed(listener);
    }

    // ---- what it makes of it

    /** @return what was sent, in a few words, or why nothing was */
    String passOn(Listener relay, Reaction.PassOn what, Source source, Message message, boolean bySecond) {
        OptionalDouble number = bySecond ? hearing.passed(relay.id()).number() : number(relay, source, message);
        if (number.isPresent()) {
            hearing = hearing.passing(relay.id(), hearing.passed(relay.id()).heard(number.getAsDouble()));
        }
        Optional<Scale.Second> second = relay.scale().flatMap(Scale::second);
        int has = second.map(hearing::value).orElse(FULL);
        boolean gates = second.map(Scale.Second::gates).orElse(false);
        if (gates && !Controllers.isOn(has)) {
            return "its second signal is off";
        }
        OptionalDouble name = SignalNumber.name(message, source.numbering())
                .map(SignalNumber::read)
                .orElse(OptionalDouble.empty());
        try {
            Translation said = Translation.of(
                    what.passage(),
                    plan::device,
                    new Translation.Input(message, number, name, gates ? 1 : (double) has / FULL));
            return send(relay, said, source, message);
        } catch (Refusal cannot) {
            return cannot.getMessage();
        }
    }

    private OptionalDouble number(Listener relay, Source source, Message message) {
        Optional<Scale> scale = relay.scale();
        if (message instanceof ControlChange change && scale.map(Scale::fine).orElse(false)) {
            return OptionalDouble.of(hearing.fine(source, change));
        }
        return SignalNumber.amount(
                message, source.numbering(), scale.map(Scale::place).orElse(0));
    }

    private String send(Listener relay, Translation said, Source source, Message came) {
        Cause cause = Cause.outside("relay: " + relay.name(), now);
        int deviceId = said.device().id();
        Optional<Phrase> phrase = said.phrase().or(() -> sameAs(said));
        if (phrase.isEmpty()) {
            if (goesRound(relay, said)) {
                return stopped(relay);
            }
            boolean through = relay.passage().orElse(null) instanceof Passage.Through;
            if (through
                    && came instanceof ChannelMessage played
                    && said.messages().get(0).message() instanceof ChannelMessage goes
                    && !passedOn(source.deviceId(), played, relay.id(), deviceId, goes)) {
                return said.words();
            }
            said.said().forEach(m -> level(deviceId, m));
            for (Timed timed : said.messages()) {
                if (timed.atMs() == 0) {
                    emit(deviceId, timed.message(), now, now, cause, false);
                } else {
                    later(
                            now + timed.atMs() * 1_000_000L,
                            new PlaybackState.Later.ALaterMessage(deviceId, timed.message(), cause));
                }
            }
            return said.words();
        }
        PlannedCall call = PlannedCall.of(said.device(), phrase.get(), said.amount());
        if (mustWait(relay, call)) {
            return said.words() + ONCE_MORE;
        }
        Optional<Scale> scale = relay.scale();
        if (scale.isPresent() && call.levels().size() == 1) {
            return level(relay, scale.get(), said, call, cause, source);
        }
        if (goesRound(relay, said)) {
            return stopped(relay);
        }
        make(call, now, now, cause, false);
        return said.words();
    }

    /** The phrase that says just this, so that what the machine was told is known in whatever way it came. */
    private Optional<Phrase> sameAs(Translation said) {
        return plan.phraseSaying(said.device().id(), said.messages());
    }

    /** A guarded phrase wants two acts, unless its listener says otherwise. */
    boolean mustWait(Listener listener, PlannedCall call) {
        boolean waits =
                plan.isGuarded(call) && !listener.atOnce() && !hand.guardWaitsAt(call.deviceId(), call.phraseId(), now);
        if (waits) {
            hand = hand.guardAsked(call.deviceId(), call.phraseId(), now);
        }
        return waits;
    }

    // ---- a control that the book moves too

    private String level(Listener relay, Scale scale, Translation said, PlannedCall call, Cause cause, Source source) {
        Control control = call.levels().keySet().iterator().next();
        Level wanted = call.levels().get(control);
        Level stands = CatchUp.told(moves.get(control), levels.get(control), now);
        Passed passed = hearing.passed(relay.id());
        if (scale.meeting() == Scale.Meeting.PICK_UP
                && stands != null
                && !meets(passed, stands.exact(), wanted.exact())) {
            hearing = hearing.passing(relay.id(), passed.put(wanted.exact(), false));
            return said.words() + ": waits until it meets " + Amount.plain(Math.rint(stands.exact()));
        }
        hearing = hearing.passing(relay.id(), passed.put(wanted.exact(), true));
        if (goesRound(relay, said)) {
            return stopped(relay);
        }
        if (scale.meeting() == Scale.Meeting.LARGEST) {
            return hold(control, wanted, stands, said, cause, relay.id(), source.deviceId());
        }
        Optional<Message> open = PlannedCall.open(said.device(), said.phrase().orElseThrow());
        if (scale.smoothMs() > 0 && open.isPresent() && stands != null) {
            begin(smooth(scale, said, control, open.get()), now, cause);
        } else {
            make(call, now, now, cause, false);
        }
        return said.words();
    }

    /** A control that leads goes on; one that does not takes over where it passes the value, or is next to it. */
    private static boolean meets(Passed passed, double stands, double wanted) {
        if (passed.leads() && Math.abs(passed.exact().orElse(-1) - stands) < 1) {
            return true;
        }
        boolean passes = passed.exact().isPresent() && (passed.exact().getAsDouble() - stands) * (wanted - stands) <= 0;
        return passes || Math.abs(wanted - stands) <= 1;
    }

    /** What the book says stays known, so that letting go of the pedal falls back to it. */
    private String hold(
            Control control, Level wanted, Level stands, Translation said, Cause cause, int relayId, int sourceId) {
        HeldUp before = heldUp;
        heldUp = heldUp.with(control, relayId, new HeldUp.Hold(sourceId, wanted));
        Level book = stands == null ? wanted.at(0) : stands;
        if (stands != null && upTo(before, control, book) == upTo(heldUp, control, book)) {
            return said.words() + ": the book has it at more";
        }
        emit(control.deviceId(), wanted.at(upTo(heldUp, control, book)).message(), now, now, cause, false);
        return said.words();
    }

    /** Where a control is, held up, while the book has it somewhere. */
    private static double upTo(HeldUp by, Control control, Level book) {
        return Math.max(by.of(control).map(Level::exact).orElse(0.0), book.exact());
    }

    /** A hold ends with the relay that has made it, and with the machine whose signal it was; then the book's value is sent. */
    void letDownLost() {
        letDown(heldUp.without((relayId, hold) -> {
            boolean holds = plan.listeners().stream()
                    .anyMatch(l -> l.id() == relayId
                            && hearing.isArmed(l)
                            && l.scale()
                                    .filter(s -> s.meeting() == Scale.Meeting.LARGEST)
                                    .isPresent());
            return !holds || hold.sourceId() != Source.OTHERS && !isThere(hold.sourceId());
        }));
    }

    /** No relay holds anything up any more. */
    void letDownAll() {
        letDown(HeldUp.NOTHING);
    }

    private void letDown(HeldUp left) {
        HeldUp before = heldUp;
        heldUp = left;
        for (Control control : before.controls().keySet()) {
            Level book = CatchUp.told(moves.get(control), levels.get(control), now);
            Level was = before.of(control).orElseThrow();
            if (book == null) {
                // Nobody knows where the book would have it: it stays where it was held.
                levels.put(control, was);
            } else if (upTo(left, control, book) != upTo(before, control, book)) {
                Message message = book.at(upTo(left, control, book)).message();
                emit(control.deviceId(), message, now, now, Cause.outside("relay lets go", now), false);
            }
        }
    }

    private PlannedMotion smooth(Scale scale, Translation said, Control control, Message open) {
        Device device = said.device();
        Phrase phrase = said.phrase().orElseThrow();
        Argument argument = phrase.argument().orElseThrow();
        double target = said.amount().orElseThrow() instanceof Amount.Measure m ? m.value() : 0;
        Motion.Move move = new Motion.Move(Span.ofMillis(scale.smoothMs()), Motion.Shape.BY_VALUE, List.of(), 0);
        return new PlannedMotion(
                control,
                move,
                argument,
                device.levels(),
                open,
                target,
                scale.smoothMs() * 1_000_000L,
                0,
                Optional.empty());
    }

    // ---- loops

    private boolean goesRound(Listener relay, Translation said) {
        Passed passed = hearing.passed(relay.id());
        for (Message message : said.said().toList()) {
            passed = passed.sending(message, now);
        }
        boolean round = passed.goesRound();
        hearing = hearing.passing(relay.id(), round ? Passed.NOTHING : passed);
        return round;
    }

    private String stopped(Listener relay) {
        hearing = hearing.arming(relay.id(), false);
        String words = "stopped: it sent the same more than " + Passed.MOST_OF_THE_SAME
                + " times in a second, so something sends it back; let it listen to one machine or channel only, then arm it again";
        happenings.add(new Happening.Looped(relay.name(), words));
        return words;
    }
}
