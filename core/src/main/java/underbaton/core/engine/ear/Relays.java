package underbaton.core.engine.ear;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.operator.Operator;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.engine.patch.Sounds;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Passed;
import underbaton.core.signal.Passed.Came;
import underbaton.core.signal.Rounds;
import underbaton.core.signal.Scale;
import underbaton.core.signal.SignalNumber;
import underbaton.core.signal.Source;
import underbaton.core.signal.Translation;

/** What relays pass on, translated, while a step is taken. Not thread-safe, used once. */
public final class Relays {

    private static final int FULL = 127;
    private static final long SECOND = 1_000_000_000L;

    private final StepContext step;
    private final Operator operator;
    private final Outgoing out;
    private final Moves moves;
    private final Sounds sounds;
    private final Calls calls;
    private final Listeners listeners;
    private final SharedControls shared;

    /** Made anew for each step, of the parts that it asks. */
    public Relays(
            StepContext step,
            Operator operator,
            Outgoing out,
            Moves moves,
            Sounds sounds,
            Calls calls,
            Listeners listeners,
            SharedControls shared) {
        this.step = step;
        this.operator = operator;
        this.out = out;
        this.moves = moves;
        this.sounds = sounds;
        this.calls = calls;
        this.listeners = listeners;
        this.shared = shared;
    }

    /** A relay at work on a signal. */
    record Relaying(Listener relay, Source source, Message came, Cause cause) {}

    /**
     * @param bySecond whether the signal is the relay's second one
     * @return what was sent, in a few words, or why nothing was
     */
    String passOn(Listener relay, Source source, Message message, boolean bySecond) {
        Came came = new Came(source, message, bySecond, step.now());
        Passed passed = listeners.passed(relay);
        if (!bySecond && isHigherHalf(relay, message)) {
            listeners.passes(relay, passed.waitingFor(Optional.of(came)));
            return "waits for its lower half";
        }
        listeners.passes(relay, passed.waitingFor(Optional.empty()));
        return judge(relay, came);
    }

    /** Both halves of a number of 14 bits are one gesture: the higher one alone would send the control back first. */
    private static boolean isHigherHalf(Listener relay, Message message) {
        return message instanceof ControlChange change
                && change.controller() < SignalNumber.LOWER_HALF
                && relay.scale().map(Scale::fine).orElse(false);
    }

    /** It is passed on, unless it may have come round. */
    private String judge(Listener relay, Came came) {
        Passed passed = listeners.passed(relay);
        Rounds.Judged judged = passed.rounds().hears(step.now());
        listeners.passes(relay, passed.with(judged.next()));
        return switch (judged.verdict()) {
            case STOP -> stopped(relay, "stopped: it would hear itself");
            case KEEP -> {
                listeners.passes(relay, listeners.passed(relay).keeping(came));
                yield "kept back for a moment, to see whether it comes round";
            }
            case PASS -> {
                letGo(relay);
                yield say(relay, came);
            }
        };
    }

    /** What was kept back is said, in the order in which it came. */
    private void letGo(Listener relay) {
        Passed passed = listeners.passed(relay);
        listeners.passes(relay, passed.keepingNothing());
        passed.kept().forEach(came -> say(relay, came));
    }

    private String say(Listener relay, Came came) {
        if (listeners.passed(relay).isStopped()) {
            return "it has been stopped";
        }
        Passage passage = relay.passage().orElseThrow();
        Source source = came.source();
        Message message = came.message();
        Passed passed = listeners.passed(relay);
        OptionalDouble number = came.bySecond() ? passed.number() : listeners.number(relay, source, message);
        if (number.isPresent()) {
            listeners.passes(relay, passed.heard(number.getAsDouble()));
        }
        Optional<Scale.Second> second = relay.scale().flatMap(Scale::second);
        int has = second.map(listeners::value).orElse(FULL);
        boolean gates = second.map(Scale.Second::gates).orElse(false);
        if (gates && !Controllers.isOn(has)) {
            return "its second signal is off";
        }
        OptionalDouble name = SignalNumber.name(message, source.numbering())
                .map(SignalNumber::read)
                .orElse(OptionalDouble.empty());
        try {
            Translation said = Translation.of(
                    passage,
                    step.plan()::device,
                    new Translation.Input(message, number, name, gates ? 1 : (double) has / FULL));
            Cause cause = Cause.outside("relay: " + relay.name(), step.now());
            return send(new Relaying(relay, source, message, cause), said);
        } catch (Refusal cannot) {
            return cannot.getMessage();
        }
    }

    private String send(Relaying at, Translation said) {
        // The phrase that says just this, so that what the machine was told is known in whatever way it came.
        Optional<Phrase> phrase =
                said.phrase().or(() -> step.plan().phraseSaying(said.device().id(), said.messages()));
        if (phrase.isEmpty()) {
            return sendPlain(at, said);
        }
        PlannedCall call = PlannedCall.of(said.device(), phrase.get(), said.amount());
        if (mustWait(at.relay, call)) {
            return said.words() + Operator.ONCE_MORE;
        }
        Optional<Scale> scale = at.relay.scale();
        if (scale.isPresent() && call.levels().size() == 1) {
            return shared.move(at, said, call, () -> says(at.relay, said));
        }
        Optional<String> flood = says(at.relay, said);
        if (flood.isPresent()) {
            return flood.get();
        }
        calls.make(call, at.cause);
        return said.words();
    }

    /** What no phrase says. */
    private String sendPlain(Relaying at, Translation said) {
        int deviceId = said.device().id();
        Optional<Phrase> guarded = said.said()
                .flatMap(m -> step.plan().guardedSaying(deviceId, m).stream())
                .findFirst();
        if (guarded.isPresent()
                && !at.relay.atOnce()
                && !operator.mayDo(new Guarded.APhrase(deviceId, guarded.get().id()), true)) {
            return said.words() + Operator.ONCE_MORE;
        }
        if (deviceId == step.plan().patchBay()) {
            return "nothing: the patch bay has no set with that number";
        }
        Optional<String> flood = says(at.relay, said);
        if (flood.isPresent()) {
            return flood.get();
        }
        boolean through = at.relay.passage().orElse(null) instanceof Passage.Through;
        if (through
                && at.came instanceof ChannelMessage played
                && said.messages().get(0).message() instanceof ChannelMessage goes
                && !sounds.passedOn(at.source.deviceId(), played, at.relay.id(), deviceId, goes)) {
            return said.words();
        }
        said.said().forEach(m -> moves.set(deviceId, m));
        for (Timed timed : said.messages()) {
            if (timed.atMs() == 0) {
                out.emit(deviceId, timed.message(), at.cause);
            } else {
                calls.sendAt(step.now() + timed.atMs() * 1_000_000L, deviceId, timed.message(), at.cause);
            }
        }
        return said.words();
    }

    /** A guarded phrase wants two acts, unless its listener says otherwise. */
    boolean mustWait(Listener listener, PlannedCall call) {
        boolean guarded = !listener.atOnce() && step.plan().isGuarded(call);
        return !operator.mayDo(new Guarded.APhrase(call.deviceId(), call.phraseId()), guarded);
    }

    // ---- what waits, and what comes round

    /** When something that waits is due; far away when nothing is. */
    public long nextNanos() {
        long next = StepContext.NEVER;
        for (Passed passed : listeners.state().passed().values()) {
            next = Math.min(next, passed.nextNanos());
        }
        return next;
    }

    /** What waited until now. */
    public void due(long nanos) {
        for (Map.Entry<Integer, Passed> each : listeners.state().passed().entrySet()) {
            if (each.getValue().nextNanos() <= nanos) {
                step.plan().listeners().stream()
                        .filter(l -> l.id() == each.getKey() && l.isRelay())
                        .findFirst()
                        .ifPresentOrElse(relay -> due(relay, nanos), () -> gone(each.getKey(), each.getValue()));
            }
        }
    }

    private void due(Listener relay, long nanos) {
        Passed passed = listeners.passed(relay);
        if (passed.isStopped()) {
            long seconds = passed.stop().orElseThrow().quietNanos() / SECOND;
            listeners.arm(Set.of(relay.id()), true);
            listeners.passes(relay, passed.still(nanos, true));
            step.happens(
                    new Happening.Looped(relay.name(), "listens again: nothing has come for it for " + seconds + " s"));
            return;
        }
        Optional<Came> half = passed.half();
        if (!passed.kept().isEmpty()
                && passed.rounds().dueNanos(passed.kept().get(0).nanos()) <= nanos) {
            Rounds.Judged judged = passed.rounds().due();
            listeners.passes(relay, passed.with(judged.next()));
            if (judged.verdict() == Rounds.Verdict.STOP) {
                stopped(relay, "stopped: it would hear itself");
            } else {
                letGo(relay);
            }
        } else if (half.isPresent()) {
            listeners.passes(relay, passed.waitingFor(Optional.empty()));
            judge(relay, half.get());
        }
    }

    /** An edit took the relay away while something waited. */
    private void gone(int relayId, Passed passed) {
        listeners.forget(relayId);
        if (!passed.kept().isEmpty() || passed.half().isPresent()) {
            step.happens(new Happening.Looped(
                    "A relay that was taken away", "what it had kept back for a moment was not passed on"));
        }
    }

    /** @return why nothing was sent, where it says more than anybody has to say; else nothing */
    private Optional<String> says(Listener relay, Translation said) {
        Passed passed = listeners.passed(relay);
        Rounds rounds = passed.rounds().says(said.messages().get(0).message(), step.now());
        listeners.passes(relay, passed.with(rounds));
        return rounds.floods()
                ? Optional.of(stopped(relay, "stopped: it had more to say in a second than anybody has"))
                : Optional.empty();
    }

    private String stopped(Listener relay, String why) {
        Passed passed = listeners.passed(relay).stopped(step.now());
        listeners.arm(Set.of(relay.id()), false);
        listeners.passes(relay, passed);
        String words = why + "; it listens again when nothing has come for it for "
                + passed.stop().orElseThrow().quietNanos() / SECOND
                + " s. Let it listen to one machine or channel only";
        step.happens(new Happening.Looped(relay.name(), words));
        return words;
    }
}
