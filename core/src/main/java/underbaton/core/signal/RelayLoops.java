package underbaton.core.signal;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.IntStream;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Message;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;

/**
 * Finds relays that would hear what they have caused. Any machine may send back what it is told; so a relay hears another where that tells a machine what this one listens to there. What a relay
 * says is found by giving it examples of what it listens to.
 */
public final class RelayLoops {

    private final Map<Integer, Device> devices = new LinkedHashMap<>();
    private final Map<Listener, Collection<Addressed>> saying = new HashMap<>();

    private final Map<Connection, List<Device>> lines = new HashMap<>();

    private record Addressed(Device to, Message message) {}

    private RelayLoops(Collection<Device> devices) {
        devices.forEach(d -> this.devices.put(d.id(), d));
    }

    /**
     * @param listeners all of a show, the relay among them
     * @throws Refusal when what the relay causes comes round to itself, directly or through others, with what to change
     */
    public static void require(Listener relay, List<Listener> listeners, Collection<Device> devices) {
        List<Listener> round = new RelayLoops(devices).round(relay, listeners);
        if (round.isEmpty()) {
            return;
        }
        String others = String.join(
                "”, then “", round.stream().skip(1).map(Listener::name).toList());
        throw new Refusal(
                "device",
                (round.size() == 1
                                ? "“" + relay.name() + "” would hear what it says itself"
                                : "What “" + relay.name() + "” says would come round to it, through “" + others + "”")
                        + ". Let it listen to another machine or channel than the one it tells, or for another number.");
    }

    /** @return the relays of the shortest way round, the asked one first; empty when there is none */
    private List<Listener> round(Listener relay, List<Listener> listeners) {
        List<Listener> relays = listeners.stream().filter(Listener::isRelay).toList();
        Map<Listener, Listener> from = new HashMap<>();
        Deque<Listener> next = new ArrayDeque<>(List.of(relay));
        Set<Listener> seen = new HashSet<>();
        while (!next.isEmpty()) {
            Listener each = next.remove();
            for (Listener hearer : relays) {
                if (!isOnLine(hearer, each) || says(each).stream().noneMatch(s -> couldHear(hearer, s))) {
                    continue;
                }
                if (hearer.equals(relay)) {
                    return way(each, from);
                }
                if (seen.add(hearer)) {
                    from.put(hearer, each);
                    next.add(hearer);
                }
            }
        }
        return List.of();
    }

    private static List<Listener> way(Listener last, Map<Listener, Listener> from) {
        List<Listener> way = new ArrayList<>();
        for (Listener each = last; each != null; each = from.get(each)) {
            way.add(0, each);
        }
        return way;
    }

    /** Whether it listens to any machine on the line of the one that the other tells: most do not, and need no example. */
    private boolean isOnLine(Listener hearer, Listener relay) {
        Device told = devices.get(relay.passage().orElseThrow().deviceId());
        return told != null && onLineOf(told).stream().map(Source::of).anyMatch(hearer::hears);
    }

    private List<Device> onLineOf(Device told) {
        return lines.computeIfAbsent(told.connection(), line -> devices.values().stream()
                .filter(d -> d.connection().equals(line))
                .toList());
    }

    private boolean couldHear(Listener hearer, Addressed said) {
        boolean fromThere = Source.speaker(onLineOf(said.to), said.message)
                .map(Source::of)
                .filter(hearer::hears)
                .isPresent();
        boolean onChannel = hearer.channel().isEmpty()
                || !(said.message instanceof ChannelMessage m)
                || m.channel() == hearer.channel().getAsInt();
        return fromThere
                && onChannel
                && hearer.pattern().speaksOf(said.message)
                && (hearer.pattern().isNear(said.message)
                        || hearer.pattern()
                                .missed(said.message, Memory.NONE, said.to.numbering())
                                .isEmpty());
    }

    private Collection<Addressed> says(Listener relay) {
        return saying.computeIfAbsent(relay, this::examples);
    }

    private Collection<Addressed> examples(Listener relay) {
        Passage passage = relay.passage().orElseThrow();
        boolean keepsChannel =
                passage instanceof Passage.Through through && through.channel().isEmpty();
        int[] channels = relay.channel().isPresent()
                ? new int[] {relay.channel().getAsInt()}
                : keepsChannel ? IntStream.range(0, 16).toArray() : new int[] {0};
        Set<Addressed> all = new LinkedHashSet<>();
        for (Source source : sources(relay)) {
            for (int channel : channels) {
                for (Message example : Learning.examples(relay.pattern(), channel)) {
                    said(relay, passage, source, example)
                            .ifPresent(t -> t.said().forEach(m -> all.add(new Addressed(t.device(), m))));
                }
            }
        }
        return all;
    }

    /** Those that print their numbers differently may be understood differently. */
    private List<Source> sources(Listener relay) {
        List<Source> sources = new ArrayList<>();
        devices.values().stream()
                .filter(d -> relay.from().isEmpty() || relay.from().contains(d.id()))
                .filter(d -> sources.stream().noneMatch(s -> s.numbering().equals(d.numbering())))
                .forEach(d -> sources.add(Source.of(d)));
        return sources;
    }

    private Optional<Translation> said(Listener relay, Passage passage, Source source, Message example) {
        try {
            int place = relay.scale().map(Scale::place).orElse(0);
            OptionalDouble number = SignalNumber.amount(example, source.numbering(), place);
            OptionalDouble name = SignalNumber.name(example, source.numbering())
                    .map(SignalNumber::read)
                    .orElse(OptionalDouble.empty());
            return Optional.of(Translation.of(
                    passage,
                    id -> Optional.ofNullable(devices.get(id)),
                    new Translation.Input(example, number, name, 1)));
        } catch (Refusal saysNothing) {
            return Optional.empty();
        }
    }
}
