package underbaton.standins;

import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import java.util.Optional;
import java.util.function.IntSupplier;
import java.util.stream.IntStream;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;

/** All stand-ins, each on its own port from a first one upwards, two ports apart. */
public final class RehearsalRoom implements AutoCloseable {

    /** The names that the demo shows' rigs give them, in the order of their ports. */
    public static final List<String> NAMES = List.of(
            "FOH lights",
            "River screen",
            "Words screen",
            "Camera switcher",
            "Sound console",
            "Keys 2",
            "Vocal tuning",
            "Band tablet",
            "Sound player",
            "Pedals and pads",
            "Playback machine",
            "Video server",
            "Keys 1",
            "Keys 3",
            "Sound modules",
            "Film player");

    private final List<StandIn> standIns;

    /**
     * @param firstPort of the first stand-in
     * @param listener the OSC port of whoever hears what they say by themselves; 0 for nobody
     * @param watcher called after any change on a wire's thread; must return at once
     */
    public RehearsalRoom(
            InetAddress bind, int firstPort, Clock clock, Loops loops, IntSupplier listener, Runnable watcher) {
        List<Model> models = List.of(
                new FohLights(),
                new RiverScreen(),
                new WordsScreen(),
                new CameraSwitcher(),
                new SoundConsole(),
                new KeyboardsHost(),
                new VocalTuning(),
                new BandTablet(),
                new SoundPlayer(),
                new PedalBoard(),
                new PlaybackMachine(loops),
                new VideoServer(),
                new StageKeyboard(10),
                new StageKeyboard(11),
                new SoundModules(),
                new FilmPlayer(loops, clock));
        standIns = IntStream.range(0, models.size())
                .mapToObj(i -> new StandIn(
                        NAMES.get(i), models.get(i), bind, portOf(firstPort, i), clock, loops, listener, watcher))
                .toList();
    }

    /** The port of the stand-in at a place of {@link #NAMES}. */
    public static int portOf(int firstPort, int place) {
        return firstPort + 2 * place;
    }

    public List<StandIn> standIns() {
        return standIns;
    }

    public Optional<StandIn> named(String name) {
        return standIns.stream().filter(s -> s.name().equals(name)).findFirst();
    }

    /** @throws IOException when a port is taken; those before it are on then */
    public void switchOn() throws IOException {
        for (StandIn standIn : standIns) {
            standIn.switchOn();
        }
    }

    @Override
    public void close() {
        standIns.forEach(StandIn::close);
    }
}
