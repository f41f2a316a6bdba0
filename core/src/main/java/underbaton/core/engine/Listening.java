package underbaton.core.engine;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.HandKey;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Hearing;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Memory;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.SignalNumber;
import underbaton.core.signal.Source;

/** What comes in is held against the listeners, and each that takes it gives its order. */
abstract class Listening extends Relaying {

    private static final Optional<Hearing.Miss> NOT_OF_ITS_KIND = Optional.of(new Hearing.Miss(Hearing.NOT_NEAR, ""));

    /** In the place of a machine, where a listener's own second act is waited for. */
    private static final int NO_MACHINE = -1;

    Listening(PlaybackState s) {
        super(s);
    }

    abstract void carryOut(Order order);

    void hear(Order.Heard heard) {
        Source source = heard.source();
        Message message = heard.signal().message();
        String passed = play(source, message);
        Optional<Hearing> echo = hearing.withoutEcho(source, message, now);
        if (echo.isPresent()) {
            hearing = echo.get().after(source, message);
            tell(heard, List.of(), "", passed.isEmpty() ? "we said it ourselves a moment ago" : passed);
            return;
        }
        List<Listener> takers = new ArrayList<>();
        Listener nearest = null;
        Hearing.Miss least = NOT_OF_ITS_KIND.get();
        int playingItem = playing.map(p -> p.item().item().id()).orElse(0);
        int standbyItem =
                standby < plan.cues().size() ? plan.cues().get(standby).item().id() : 0;
        Set<Integer> seconds = new HashSet<>();
        Memory memory = hearing.memory(source, message);
        for (Listener listener : plan.listeners()) {
            Message meant = asMeant(listener, source, message);
            Optional<Hearing.Miss> miss = listener.pattern().speaksOf(meant)
                    ? hearing.missed(
                            listener,
                            source,
                            meant,
                            meant == message ? memory : hearing.memory(source, meant),
                            now,
                            playingItem,
                            standbyItem,
                            this::itemName)
                    : NOT_OF_ITS_KIND;
            if (miss.isEmpty() || endsWhatPassed(listener, source, message) || endsHeld(listener, source, message)) {
                takers.add(listener);
            } else if (isSecond(listener, source, message)) {
                takers.add(listener);
                seconds.add(listener.id());
            } else if (miss.get().nearness() > least.nearness()) {
                nearest = listener;
                least = miss.get();
            }
        }
        hearing = hearing.after(source, message);
        List<Outcome.Taken> taken = new ArrayList<>();
        for (Listener listener : takers) {
            hearing = hearing.took(listener.id(), now);
            boolean bySecond = seconds.contains(listener.id());
            taken.add(new Outcome.Taken(listener.id(), listener.name(), react(listener, heard, bySecond)));
        }
        boolean near = taken.isEmpty() && nearest != null;
        if (taken.isEmpty() && !passed.isEmpty()) {
            tell(heard, taken, "", passed);
            return;
        }
        tell(heard, taken, near ? nearest.name() : "", near ? least.why() : "");
    }

    private void tell(Order.Heard heard, List<Outcome.Taken> taken, String nearest, String why) {
        happenings.add(new Happening.Heard(new Outcome(heard.source(), heard.signal(), taken, nearest, why)));
    }

    private String itemName(int itemId) {
        return plan.item(itemId).map(i -> i.item().name()).orElse("an item that is gone");
    }

    /** @return what was done, in a few words */
    private String react(Listener listener, Order.Heard heard, boolean bySecond) {
        Reaction reaction = listener.reaction();
        if (reaction instanceof Reaction.Give give) {
            return give(listener, give.deed());
        }
        if (reaction instanceof Reaction.ToCue to) {
            return toCue(to, heard);
        }
        if (reaction instanceof Reaction.Play play) {
            return play(play, heard);
        }
        if (reaction instanceof Reaction.Fire fire) {
            return fire(listener, fire);
        }
        if (reaction instanceof Reaction.PassOn relay) {
            return passOn(listener, relay, heard.source(), heard.signal().message(), bySecond);
        }
        if (reaction instanceof Reaction.Hand touched) {
            boolean letsGo = endsHeld(listener, heard.source(), heard.signal().message());
            Order.Touch.How how = letsGo ? Order.Touch.How.LET_GO : Order.Touch.How.PRESS;
            String did = touch(touched.keyId(), how, "signal: " + listener.name() + ", ", listener.atOnce());
            boolean holds = !letsGo
                    && plan.key(touched.keyId())
                            .filter(k -> k.key().way() == HandKey.Way.HELD)
                            .isPresent()
                    && hand.keys().getOrDefault(touched.keyId(), false);
            hand = holds ? hand.heldBy(touched.keyId(), heard.source().deviceId()) : hand;
            return did;
        }
        Reaction.Arm arm = (Reaction.Arm) reaction;
        carryOut(new Order.Arm(arm.listenerIds(), arm.listens()));
        String others = plan.listeners().stream()
                .filter(l -> arm.listenerIds().contains(l.id()))
                .map(Listener::name)
                .collect(Collectors.joining(", "));
        String words = arm.listens() ? " armed" : " disarmed";
        return (others.isEmpty() ? "a listener that is gone" : others) + words;
    }

    private String give(Listener listener, Reaction.Deed deed) {
        Order order =
                switch (deed) {
                    case GO -> new Order.Go();
                    case BACK -> new Order.Back();
                    case NEXT -> new Order.Next();
                    case PAUSE -> new Order.PauseOrGoOn();
                    case RESUME -> new Order.Resume();
                    case HOLD -> new Order.Hold();
                    case RELEASE -> new Order.Release();
                    case TAP -> new Order.Tap();
                    case STOP_ALL -> new Order.StopAll();
                };
        if (deed == Reaction.Deed.STOP_ALL
                && !listener.atOnce()
                && !hand.guardWaitsAt(NO_MACHINE, listener.id(), now)) {
            hand = hand.guardAsked(NO_MACHINE, listener.id(), now);
            return deed.words() + ONCE_MORE;
        }
        boolean wasAsked = hand.waitsAt(now);
        carryOut(order);
        boolean asks = deed == Reaction.Deed.GO && !wasAsked && hand.waitsAt(now);
        return asks ? "GO: press again" : deed.words();
    }

    private String toCue(Reaction.ToCue to, Order.Heard heard) {
        Optional<Integer> listed = number(heard).flatMap(n -> to.table().stream()
                .filter(r -> r.number().equals(n))
                .map(Reaction.ToCue.Row::cueId)
                .findFirst());
        int fixed = listed.orElse(to.cueId());
        int index = fixed != 0 ? plan.indexOf(fixed) : numbered(heard, to.offset());
        if (index < 0) {
            return fixed != 0
                    ? "its cue is no longer in the book"
                    : number(heard)
                            .map(n -> "there is no cue " + shifted(n, to.offset()))
                            .orElse("no number came with it");
        }
        PlannedCue cue = plan.cues().get(index);
        carryOut(new Order.StandBy(cue.cueId()));
        if (to.fires()) {
            carryOut(new Order.Go());
        }
        return (to.fires() ? "GO " : "standby ") + cue.label();
    }

    private int numbered(Order.Heard heard, int offset) {
        Optional<CueNumber> wanted = number(heard).flatMap(n -> cueNumber(shifted(n, offset)));
        for (int i = 0; wanted.isPresent() && i < plan.cues().size(); i++) {
            PlannedCue cue = plan.cues().get(i);
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

    private String play(Reaction.Play play, Order.Heard heard) {
        int itemId = play.itemId();
        Optional<String> came = number(heard);
        Optional<PlannedItem> named = came.flatMap(name -> plan.items().stream()
                .filter(i -> i.item().name().equalsIgnoreCase(name.strip()))
                .findFirst());
        if (itemId == 0 && named.isPresent()) {
            itemId = named.get().item().id();
        } else if (itemId == 0) {
            OptionalInt nth = came.map(n -> shifted(n, play.offset()))
                    .filter(n -> n.matches("\\d{1,6}"))
                    .map(n -> OptionalInt.of(Integer.parseInt(n)))
                    .orElse(OptionalInt.empty());
            if (nth.isEmpty()
                    || nth.getAsInt() < 1
                    || nth.getAsInt() > plan.items().size()) {
                return came.map(c -> "there is no item " + shifted(c, play.offset()))
                        .orElse("no number came with it");
            }
            itemId = plan.items().get(nth.getAsInt() - 1).item().id();
        }
        Optional<PlannedItem> item = plan.item(itemId);
        if (item.isEmpty()) {
            return itemName(itemId);
        }
        if (play.section().isEmpty()) {
            carryOut(new Order.Play(itemId, 0));
            return "plays " + itemName(itemId);
        }
        OptionalLong at = item.get().sectionNanos(play.section());
        if (at.isEmpty()) {
            return itemName(itemId) + " has no section " + play.section();
        }
        carryOut(new Order.Play(itemId, at.getAsLong()));
        return "plays " + itemName(itemId) + " from " + play.section();
    }

    private String fire(Listener listener, Reaction.Fire fire) {
        Optional<Phrase> phrase = plan.device(fire.deviceId()).flatMap(d -> d.phrase(fire.phraseId()));
        if (phrase.isEmpty()) {
            return "its phrase is gone";
        }
        PlannedCall call = PlannedCall.of(plan.device(fire.deviceId()).orElseThrow(), phrase.get());
        if (mustWait(listener, call)) {
            return call.phrase() + ONCE_MORE;
        }
        make(call, now, now, Cause.outside("signal: " + listener.name(), now), false);
        return call.phrase();
    }

    private static Optional<String> number(Order.Heard heard) {
        return SignalNumber.name(heard.signal().message(), heard.source().numbering());
    }

    private static String shifted(String number, int offset) {
        return offset != 0 && number.matches("\\d{1,6}") ? Integer.toString(Integer.parseInt(number) + offset) : number;
    }
}
