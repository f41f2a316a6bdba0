package underbaton.standins;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;

/**
 * A lighting desk with eight lamps. A note with any velocity above 0 recalls the look at that place of its list, the
 * first look being note 0; other notes do nothing. Looks crossfade in their own time.
 */
public final class FohLights implements Model.Midi {

    /**
     * @param colours one a lamp, as {@code #rrggbb}
     * @param fadeMillis the crossfade into it
     */
    public record Look(String name, List<String> colours, int fadeMillis) {}

    /** @param number 1 for the first look of the list, as its display prints it; 0 when dark since switching on */
    public record State(int number, Look look) {}

    private static final int CHANNEL = 0;
    private static final Look DARK = look("Blackout", 400, "#000000");

    /** In the order in which the desk has them when it is new. */
    public static final List<Look> LOOKS = List.of(
            DARK,
            look("House open", 3000, "#ffd9a0", "#e8b878"),
            look("House half", 3000, "#7a5c38", "#6a4c2c"),
            look("Dusk, low", 4000, "#3a3566", "#27345e", "#2a2a50"),
            look(
                    "Lantern only",
                    2500,
                    "#000000",
                    "#000000",
                    "#1a0e04",
                    "#ffb347",
                    "#ffb347",
                    "#1a0e04",
                    "#000000",
                    "#000000"),
            look("Indigo wash", 2000, "#2b2f9c", "#3540b8"),
            look("Gold sweep", 1200, "#ffc53d", "#ffd97a", "#ffb020", "#ffe2a0"),
            look("Amber wash", 1500, "#ff9a2e", "#ffae52"),
            look("Moon on water", 3500, "#9fb8d8", "#c9d9ee", "#7f9cc4", "#b4c9e4"),
            look("River green", 2000, "#1f7a5c", "#2f9a78"),
            look("Storm flash", 150, "#ffffff", "#dfe8ff"),
            look("Storm low", 1000, "#1c2a3a", "#34465a"),
            look("Cold dawn", 5000, "#8fb0c8", "#c8bfd0", "#e8c8b8", "#f0d8b0"),
            look("Red warning", 600, "#b3261e", "#7a1410"),
            look("Deck white", 1000, "#f4efe4", "#e4ddd0"),
            look(
                    "Side blue",
                    1500,
                    "#1b4fae",
                    "#0f2a66",
                    "#0a1a40",
                    "#0a1a40",
                    "#0a1a40",
                    "#0a1a40",
                    "#0f2a66",
                    "#1b4fae"),
            look(
                    "Speech, warm",
                    1500,
                    "#3a2c1c",
                    "#8a6a40",
                    "#ffdca8",
                    "#fff0d4",
                    "#fff0d4",
                    "#ffdca8",
                    "#8a6a40",
                    "#3a2c1c"),
            look("Film, 20 %", 3000, "#2a2218", "#1c1610"),
            look("Bonfire", 800, "#ff6a1a", "#ff9d2e", "#e8480c", "#ffb84d"),
            look("Meadow", 2500, "#7fb04a", "#a8c860", "#d8d880", "#8fbc5a"),
            look("Violet hush", 3000, "#5a3a8c", "#7a4fae"),
            look("Full and bright", 800, "#fff4dc", "#fffaf0"),
            look("Candle line", 3500, "#5a3410", "#c87a28"),
            look("Curtain call", 700, "#ffe6b8", "#ffcf7a"));

    private volatile State state = new State(0, DARK);
    private volatile List<Look> list = LOOKS;

    private static Look look(String name, int fadeMillis, String... colours) {
        String[] eight = new String[8];
        for (int i = 0; i < eight.length; i++) {
            eight[i] = colours[i % colours.length];
        }
        return new Look(name, List.of(eight), fadeMillis);
    }

    @Override
    public void hear(MidiMessage message, long nanos) {
        lookCalledBy(message).ifPresent(note -> state = new State(note + 1, list.get(note)));
    }

    private static Optional<Integer> lookCalledBy(MidiMessage message) {
        return message instanceof NoteOn on && on.channel() == CHANNEL && on.velocity() > 0 && on.note() < LOOKS.size()
                ? Optional.of(on.note())
                : Optional.empty();
    }

    /** The desk's list as it stands now. */
    public List<Look> list() {
        return list;
    }

    /**
     * Somebody at the desk moves a look to another place of its list, and every number between shifts.
     *
     * @param from place of the look, 0 for the first
     * @param to where it goes
     */
    public void move(int from, int to) {
        List<Look> changed = new ArrayList<>(list);
        changed.add(to, changed.remove(from));
        list = List.copyOf(changed);
    }

    /** The desk sorts its list by name, as some do on their own; or puts it back as it was. */
    public void sort(boolean byName) {
        list = byName ? LOOKS.stream().sorted(Comparator.comparing(Look::name)).toList() : LOOKS;
    }

    public boolean isSorted() {
        return list != LOOKS;
    }

    public State state() {
        return state;
    }
}
