package underbaton.core.cue;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import underbaton.core.cue.Motion.Move;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;

/** Counts the parts of a show anew and lets its calls follow. */
final class NumberedAnew {

    private final Show show;
    private final Map<Integer, Integer> counted = new HashMap<>();
    private int next;

    /** @param first the number that its first part gets */
    NumberedAnew(Show show, int first) {
        this.show = show;
        this.next = first;
    }

    Show show() {
        List<Device> devices = show.devices().stream().map(this::device).toList();
        List<Item> items = show.items().stream().map(this::item).toList();
        return new Show(show.id(), show.name(), 1, next, devices, items);
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
        return numbered.withCues(item.cues().stream()
                .map(c -> c.withId(count(c.id()))
                        .withVersion(0)
                        .withCalls(c.calls().stream().flatMap(this::call).toList()))
                .toList());
    }

    private Stream<Call> call(Call call) {
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
