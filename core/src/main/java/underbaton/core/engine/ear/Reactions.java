package underbaton.core.engine.ear;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import underbaton.core.cue.CueNumber;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.key.HandCues;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.engine.operator.Operator;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.StepContext;
import underbaton.core.midi.Message;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.SignalNumber;
import underbaton.core.signal.Source;

/** What a listener brings about that takes a signal, while a step is taken. Not thread-safe, used once. */
public final class Reactions {

    private final StepContext step;
    private final Operator operator;
    private final Calls calls;
    private final HandCues keys;
    private final Listeners listeners;
    private final Relays relays;
    private final SharedControls shared;
    private final Deeds deeds;

    /** Made anew for each step, of the parts that it asks. */
    public Reactions(
            StepContext step,
            Operator operator,
            Calls calls,
            HandCues keys,
            Listeners listeners,
            Relays relays,
            SharedControls shared,
            Deeds deeds) {
        this.step = step;
        this.operator = operator;
        this.calls = calls;
        this.keys = keys;
        this.listeners = listeners;
        this.relays = relays;
        this.shared = shared;
        this.deeds = deeds;
    }

    private Plan plan() {
        return step.plan();
    }

    /** @return what was done, in a few words */
    String to(Listener listener, Source source, Message message, boolean bySecond) {
        Reaction reaction = listener.reaction();
        if (reaction instanceof Reaction.Give give) {
            return give(listener, give.deed());
        }
        if (reaction instanceof Reaction.ToCue to) {
            return toCue(to, number(source, message));
        }
        if (reaction instanceof Reaction.Play play) {
            return play(play, number(source, message));
        }
        if (reaction instanceof Reaction.Fire fire) {
            return fire(listener, fire);
        }
        if (reaction instanceof Reaction.PassOn) {
            return relays.passOn(listener, source, message, bySecond);
        }
        if (reaction instanceof Reaction.Hand touched) {
            boolean letsGo = listeners.endsHeld(listener, source, message);
            String by = "signal: " + listener.name() + ", ";
            KeyTouch how = letsGo ? KeyTouch.LET_GO : KeyTouch.PRESS;
            return keys.touch(touched.keyId(), how, by, listener.atOnce(), source.deviceId());
        }
        return arm((Reaction.Arm) reaction);
    }

    private String arm(Reaction.Arm arm) {
        listeners.arm(arm.listenerIds(), arm.listens());
        shared.letDownLost();
        String others = plan().listeners().stream()
                .filter(l -> arm.listenerIds().contains(l.id()))
                .map(Listener::name)
                .collect(Collectors.joining(", "));
        String words = arm.listens() ? " armed" : " disarmed";
        return (others.isEmpty() ? "a listener that is gone" : others) + words;
    }

    private String give(Listener listener, Deed deed) {
        boolean guarded = deed == Deed.STOP_ALL && !listener.atOnce();
        if (!operator.mayDo(new Guarded.AListener(listener.id()), guarded)) {
            return deed.words() + Operator.ONCE_MORE;
        }
        boolean wasAsked = operator.isSecondPress();
        deeds.give(deed);
        boolean asks = deed == Deed.GO && !wasAsked && operator.isSecondPress();
        return asks ? "GO: press again" : deed.words();
    }

    private String toCue(Reaction.ToCue to, Optional<String> number) {
        Optional<Integer> listed = number.flatMap(n -> to.table().stream()
                .filter(r -> r.number().equals(n))
                .map(Reaction.ToCue.Row::cueId)
                .findFirst());
        int fixed = listed.orElse(to.cueId());
        int index = fixed != 0 ? plan().indexOf(fixed) : numbered(number, to.offset());
        if (index < 0) {
            return fixed != 0
                    ? "its cue is no longer in the book"
                    : number.map(n -> "there is no cue " + shifted(n, to.offset()))
                            .orElse("no number came with it");
        }
        PlannedCue cue = plan().cues().get(index);
        deeds.standBy(cue.cueId());
        if (to.fires()) {
            deeds.give(Deed.GO);
        }
        return (to.fires() ? "GO " : "standby ") + cue.label();
    }

    private int numbered(Optional<String> number, int offset) {
        Optional<CueNumber> wanted = number.flatMap(n -> cueNumber(shifted(n, offset)));
        List<PlannedCue> cues = plan().cues();
        for (int i = 0; wanted.isPresent() && i < cues.size(); i++) {
            PlannedCue cue = cues.get(i);
            if (cue.copy().isEmpty() && cue.number().equals(wanted.get())) {
                return i;
            }
        }
        return -1;
    }

    private static Optional<CueNumber> cueNumber(String text) {
        try {
            return Optional.of(CueNumber.of(text));
        } catch (Refusal noNumber) {
            return Optional.empty();
        }
    }

    private String play(Reaction.Play play, Optional<String> number) {
        Optional<PlannedItem> item = play.itemId() == 0 ? named(number, play.offset()) : plan().item(play.itemId());
        if (item.isEmpty()) {
            return play.itemId() != 0
                    ? itemName(plan(), play.itemId())
                    : number.map(c -> "there is no item " + shifted(c, play.offset()))
                            .orElse("no number came with it");
        }
        int itemId = item.get().item().id();
        String name = itemName(plan(), itemId);
        if (play.section().isEmpty()) {
            deeds.play(itemId, 0);
            return "plays " + name;
        }
        OptionalLong at = item.get().sectionNanos(play.section());
        if (at.isEmpty()) {
            return name + " has no section " + play.section();
        }
        deeds.play(itemId, at.getAsLong());
        return "plays " + name + " from " + play.section();
    }

    /** The item that is called so, or the n-th. */
    private Optional<PlannedItem> named(Optional<String> came, int offset) {
        List<PlannedItem> items = plan().items();
        Optional<PlannedItem> named = came.flatMap(name -> items.stream()
                .filter(i -> i.item().name().equalsIgnoreCase(name.strip()))
                .findFirst());
        OptionalInt nth = came.map(n -> shifted(n, offset))
                .filter(n -> n.matches("\\d{1,6}"))
                .map(n -> OptionalInt.of(Integer.parseInt(n)))
                .orElse(OptionalInt.empty());
        boolean there = nth.isPresent() && nth.getAsInt() >= 1 && nth.getAsInt() <= items.size();
        return named.or(() -> there ? Optional.of(items.get(nth.getAsInt() - 1)) : Optional.empty());
    }

    static String itemName(Plan plan, int itemId) {
        return plan.item(itemId).map(i -> i.item().name()).orElse("an item that is gone");
    }

    private String fire(Listener listener, Reaction.Fire fire) {
        Optional<Device> device = plan().device(fire.deviceId());
        Optional<PlannedCall> call =
                device.flatMap(d -> d.phrase(fire.phraseId()).map(p -> PlannedCall.of(d, p)));
        if (call.isEmpty()) {
            return "its phrase is gone";
        }
        if (relays.mustWait(listener, call.get())) {
            return call.get().phrase() + Operator.ONCE_MORE;
        }
        calls.make(call.get(), Cause.outside("signal: " + listener.name(), step.now()));
        return call.get().phrase();
    }

    private static Optional<String> number(Source source, Message message) {
        return SignalNumber.name(message, source.numbering());
    }

    private static String shifted(String number, int offset) {
        return offset != 0 && number.matches("\\d{1,6}") ? Integer.toString(Integer.parseInt(number) + offset) : number;
    }
}
