package underbaton.core.signal;

import java.util.Collections;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import underbaton.core.rig.Refusal;

/**
 * What we do when a certain signal comes.
 *
 * @param id unique in the show
 * @param name as people call it, such as “pedal, right”
 * @param from the ids of the machines that are listened to, {@link Source#OTHERS} for those who are none; empty for all machines
 *     of the rig
 * @param channel 0–15; empty for any
 * @param pauseMs after it was taken, it takes nothing for so long, 0–60,000
 * @param itemId it listens only while that item plays or stands by; 0 for always
 * @param atOnce whether what wants a second act (a guarded phrase, stop all) is done at the first
 * @param listens whether it does; another listener may change that for tonight
 * @param light what its pad is told of it, where that has lights
 */
public record Listener(
        int id,
        String name,
        Set<Integer> from,
        OptionalInt channel,
        Pattern pattern,
        Reaction reaction,
        int pauseMs,
        int itemId,
        boolean atOnce,
        boolean listens,
        Optional<PadLight> light) {

    private static final int LONGEST_PAUSE = 60_000;

    public Listener {
        name = Refusal.requireName("name", name, 60);
        // In one order, so that equal listeners are equal files.
        from = Collections.unmodifiableSet(new TreeSet<>(from));
        if (channel.isPresent() && (channel.getAsInt() < 0 || channel.getAsInt() > 15)) {
            throw new Refusal("channel", "A MIDI channel is 1 to 16; choose one of these, or any.");
        }
        if (pauseMs < 0 || pauseMs > LONGEST_PAUSE) {
            throw new Refusal("pause", "A pause is 0 to 60,000 ms, not " + pauseMs + ".");
        }
    }

    /** One whose pad has no light. */
    public Listener(
            int id,
            String name,
            Set<Integer> from,
            OptionalInt channel,
            Pattern pattern,
            Reaction reaction,
            int pauseMs,
            int itemId,
            boolean atOnce,
            boolean listens) {
        this(id, name, from, channel, pattern, reaction, pauseMs, itemId, atOnce, listens, Optional.empty());
    }

    /** The same with the light of its pad, or without one. */
    public Listener withLight(Optional<PadLight> newLight) {
        return new Listener(id, name, from, channel, pattern, reaction, pauseMs, itemId, atOnce, listens, newLight);
    }

    /** The same under another id; 0 for one that is to be given its id. */
    public Listener withId(int newId) {
        return new Listener(newId, name, from, channel, pattern, reaction, pauseMs, itemId, atOnce, listens, light);
    }

    /** The same with the ids of its show's parts exchanged. */
    public Listener pointing(Set<Integer> machines, Reaction to, int item) {
        return new Listener(id, name, machines, channel, pattern, to, pauseMs, item, atOnce, listens, light);
    }

    /** Whether it passes on what it takes. */
    public boolean isRelay() {
        return reaction instanceof Reaction.PassOn;
    }

    /** What it passes on, where it does. */
    public Optional<Passage> passage() {
        return reaction instanceof Reaction.PassOn relay ? Optional.of(relay.passage()) : Optional.empty();
    }

    /** The scale of a relay that has one. */
    public Optional<Scale> scale() {
        return passage()
                .map(Passage::fills)
                .flatMap(f -> f instanceof Filling.Scaled scaled ? Optional.of(scaled.scale()) : Optional.empty());
    }

    /** Whether it listens to this source. */
    public boolean hears(Source source) {
        return from.isEmpty() ? source.deviceId() != Source.OTHERS : from.contains(source.deviceId());
    }
}
