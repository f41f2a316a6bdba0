package underbaton.core.cue;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import underbaton.core.cue.Motion.Move;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Reaction;

/** Counts the parts of a show anew and lets its calls follow. */
final class NumberedAnew {

    private final Show show;
    private final Map<Integer, Integer> counted = new HashMap<>();
    private final int first;
    private int next;

    /** @param first the number that its first part gets */
    NumberedAnew(Show show, int first) {
        this.show = show;
        this.first = first;
    }

    Show show() {
        List<Listener> left = show.listeners();
        while (true) {
            counted.clear();
            next = first;
            Show numbered = numbered(left);
            if (numbered.listeners().size() == left.size()) {
                return numbered;
            }
            // Who is left out has no number, and nobody points at it.
            Set<Integer> stay = numbered.listeners().stream().map(Listener::id).collect(Collectors.toSet());
            left = left.stream().filter(l -> stay.contains(counted.get(l.id()))).toList();
        }
    }

    private Show numbered(List<Listener> heard) {
        List<Device> numbered = show.devices().stream().map(this::device).toList();
        List<Device> devices =
                numbered.stream().map(d -> d.withLines(this::pointing)).toList();
        List<Item> items = show.items().stream().map(this::item).toList();
        List<Listener> listeners =
                heard.stream().map(l -> l.withId(count(l.id()))).toList();
        List<HandPage> hands = show.hands().stream().map(this::page).toList();
        // Listeners point at all the others.
        return new Show(
                show.id(),
                show.name(),
                1,
                next,
                devices,
                items,
                listeners.stream().flatMap(this::pointing).toList(),
                hands);
    }

    private int count(int id) {
        counted.put(id, next);
        return next++;
    }

    private Device device(Device device) {
        Device numbered = device.withId(count(device.id()));
        return numbered.withPhrases(
                device.phrases().stream().map(p -> p.withId(count(p.id()))).toList());
    }

    private Item item(Item item) {
        Item numbered = item.withId(count(item.id()));
        return numbered.withFollows(
                        item.follows().filter(f -> isThere(f.deviceId())).map(f -> f.of(now(f.deviceId()))))
                .withCues(item.cues().stream()
                        .map(c -> c.withId(count(c.id()))
                                .withVersion(0)
                                .withCalls(
                                        c.calls().stream().flatMap(this::call).toList()))
                        .toList());
    }

    private HandPage page(HandPage page) {
        return page.withId(count(page.id())).withEachKey(k -> k.withId(count(k.id()))
                .calling(
                        k.on().stream().flatMap(this::call).toList(),
                        k.off().stream().flatMap(this::call).toList()));
    }

    private Wiring pointing(Wiring wiring) {
        Wiring left = wiring.among(this::isThere);
        return new Wiring(
                left.lines().stream()
                        .map(l -> l.between(now(l.from()), now(l.to())))
                        .toList(),
                left.localOff().stream().map(this::now).collect(Collectors.toSet()));
    }

    /** One whose cue, item, phrase or machine is gone is left out. */
    private Stream<Listener> pointing(Listener listener) {
        boolean known = listener.from().stream().allMatch(this::isThere) && isThere(listener.itemId());
        return known
                ? reaction(listener.reaction()).map(r -> listener.pointing(
                                listener.from().stream().map(this::now).collect(Collectors.toSet()),
                                r,
                                now(listener.itemId()))
                        .withLight(listener.light()
                                .filter(l -> l.pointsTo().allMatch(this::isThere))
                                .map(l -> l.pointing(this::now))))
                : Stream.empty();
    }

    private Stream<Reaction> reaction(Reaction reaction) {
        if (reaction instanceof Reaction.ToCue to) {
            return isThere(to.cueId())
                    ? Stream.of(new Reaction.ToCue(
                            now(to.cueId()),
                            to.offset(),
                            to.table().stream()
                                    .filter(r -> isThere(r.cueId()))
                                    .map(r -> new Reaction.ToCue.Row(r.number(), now(r.cueId())))
                                    .toList(),
                            to.fires()))
                    : Stream.empty();
        }
        if (reaction instanceof Reaction.Play play) {
            return isThere(play.itemId())
                    ? Stream.of(new Reaction.Play(now(play.itemId()), play.offset(), play.section()))
                    : Stream.empty();
        }
        if (reaction instanceof Reaction.Fire fire) {
            return isThere(fire.deviceId()) && isThere(fire.phraseId())
                    ? Stream.of(new Reaction.Fire(now(fire.deviceId()), now(fire.phraseId())))
                    : Stream.empty();
        }
        if (reaction instanceof Reaction.Arm arm) {
            Set<Integer> left = arm.listenerIds().stream()
                    .filter(this::isThere)
                    .map(this::now)
                    .collect(Collectors.toSet());
            return left.isEmpty() ? Stream.empty() : Stream.of(new Reaction.Arm(left, arm.listens()));
        }
        if (reaction instanceof Reaction.Hand hand) {
            return isThere(hand.keyId()) ? Stream.of(new Reaction.Hand(now(hand.keyId()))) : Stream.empty();
        }
        if (reaction instanceof Reaction.PassOn relay) {
            return relay.passage().pointsTo().allMatch(this::isThere)
                    ? Stream.of(new Reaction.PassOn(relay.passage().pointing(this::now)))
                    : Stream.empty();
        }
        return Stream.of(reaction);
    }

    /** 0 stands for none, or for all who are no machine. */
    private boolean isThere(int id) {
        return id == 0 || counted.containsKey(id);
    }

    private int now(int id) {
        return id == 0 ? 0 : counted.get(id);
    }

    private Stream<Call> call(Call call) {
        if (call.isWords() && counted.containsKey(call.deviceId())) {
            return Stream.of(new Call(counted.get(call.deviceId()), 0, call.amount()));
        }
        Phrase phrase = show.phrase(call).orElse(null);
        if (phrase == null) {
            return Stream.empty();
        }
        return Stream.of(new Call(
                counted.get(call.deviceId()),
                counted.get(phrase.id()),
                call.amount(),
                call.motion().map(this::motion),
                call.offset()));
    }

    private Motion motion(Motion motion) {
        return motion instanceof Move m
                ? new Move(m.lasts(), m.shape(), m.points(), counted.getOrDefault(m.thenPhraseId(), 0))
                : motion;
    }
}
