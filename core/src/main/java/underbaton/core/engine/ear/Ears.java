package underbaton.core.engine.ear;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import underbaton.core.engine.answer.Answers;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.StepContext;
import underbaton.core.engine.patch.Patching;
import underbaton.core.midi.Message;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon;
import underbaton.core.signal.Hearing;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Memory;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/**
 * What comes in, while a step is taken: it goes through the patch, then is held against the listeners, and each that takes it brings
 * about what it is for. Not thread-safe, used once.
 */
public final class Ears {

    private final StepContext step;
    private final Patching patching;
    private final Answers answers;
    private final Listeners listeners;
    private final Reactions reactions;

    /** Made anew for each step, of the parts that it asks. */
    public Ears(StepContext step, Patching patching, Answers answers, Listeners listeners, Reactions reactions) {
        this.step = step;
        this.patching = patching;
        this.answers = answers;
        this.listeners = listeners;
        this.reactions = reactions;
    }

    /**
     * @param playing the item that plays, 0 for none
     * @param standby the item of the standby cue, 0 for none
     */
    public void hear(Source source, Signal signal, int playing, int standby) {
        Message message = signal.message();
        answers.heard(source.deviceId(), message);
        String passed = patching.play(source, message);
        if (message == RealTime.CLOCK || message instanceof SystemCommon.QuarterFrame) {
            // It ticks, and is no signal: nobody listens to it, and no list is told of it.
            step.happens(new Happening.Ticked(source.deviceId()));
            return;
        }
        if (listeners.isEcho(source, message)) {
            listeners.remember(source, message);
            String why = passed.isEmpty() ? "we said it ourselves a moment ago" : passed;
            happens(new Outcome(source, signal, List.of(), "", why));
            return;
        }
        Takers takers = takers(
                source, message, new Listeners.Place(playing, standby, id -> Reactions.itemName(step.plan(), id)));
        listeners.remember(source, message);
        listeners.disturb(source, message);
        List<Outcome.Taken> taken = new ArrayList<>();
        for (Listener listener : takers.all) {
            listeners.took(listener);
            String did = reactions.to(listener, source, message, takers.bySecond.contains(listener.id()));
            taken.add(new Outcome.Taken(listener.id(), listener.name(), did));
        }
        if (taken.isEmpty() && !passed.isEmpty()) {
            happens(new Outcome(source, signal, taken, "", passed));
        } else if (taken.isEmpty() && takers.nearest.isPresent()) {
            happens(new Outcome(source, signal, taken, takers.nearest.get().name(), takers.why));
        } else {
            happens(new Outcome(source, signal, taken, "", ""));
        }
    }

    private void happens(Outcome outcome) {
        step.happens(new Happening.Heard(outcome));
    }

    /**
     * Who takes a signal.
     *
     * @param bySecond relays of which it is the second signal
     * @param nearest of those that do not take it, the one that nearly does
     * @param why it does not
     */
    private record Takers(List<Listener> all, Set<Integer> bySecond, Optional<Listener> nearest, String why) {}

    private Takers takers(Source source, Message message, Listeners.Place place) {
        List<Listener> all = new ArrayList<>();
        Set<Integer> bySecond = new HashSet<>();
        Optional<Listener> nearest = Optional.empty();
        Hearing.Miss least = new Hearing.Miss(Hearing.NOT_NEAR, "");
        Memory memory = listeners.memory(source, message);
        for (Listener listener : step.plan().listeners()) {
            Optional<Hearing.Miss> miss = listeners.missed(listener, source, message, memory, place);
            if (miss.isEmpty() || listeners.ends(listener, source, message)) {
                all.add(listener);
            } else if (listeners.isSecond(listener, source, message)) {
                all.add(listener);
                bySecond.add(listener.id());
            } else if (miss.get().nearness() > least.nearness()) {
                nearest = Optional.of(listener);
                least = miss.get();
            }
        }
        return new Takers(all, bySecond, nearest, least.why());
    }
}
