package underbaton.web.room;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Numbering;
import underbaton.standins.BandTablet;
import underbaton.standins.CameraSwitcher;
import underbaton.standins.FilmPlayer;
import underbaton.standins.FohLights;
import underbaton.standins.KeyboardsHost;
import underbaton.standins.Keyed;
import underbaton.standins.Model;
import underbaton.standins.PedalBoard;
import underbaton.standins.PlaybackMachine;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.RiverScreen;
import underbaton.standins.SoundConsole;
import underbaton.standins.SoundModules;
import underbaton.standins.SoundPlayer;
import underbaton.standins.StageKeyboard;
import underbaton.standins.StandIn;
import underbaton.standins.VideoServer;
import underbaton.standins.VocalTuning;
import underbaton.standins.WordsScreen;

/**
 * The stand-ins' states at one moment.
 *
 * @param clipSinceMillis how long ago the running clip was started, so that a page can count on by itself
 * @param code the time code in the picture of the river screen; empty for none
 * @param beat where the clock has brought the band's tablet
 * @param shotSinceMillis the same for the sound player's one-shot
 * @param cameras in order, the one on air true
 */
public record RoomView(
        List<StandIn> machines,
        FohLights.State lights,
        RiverScreen.State video,
        long clipSinceMillis,
        String code,
        WordsScreen.State words,
        List<Boolean> cameras,
        SoundConsole.State console,
        KeyboardsHost.State keys,
        String key,
        BandTablet.State tablet,
        BandTablet.Beat beat,
        SoundPlayer.State player,
        long shotSinceMillis,
        List<KeyRow> keyed) {

    /** A machine with keys of its own. @param shows what it shows now */
    public record KeyRow(String name, boolean on, List<String> keys, String shows) {}

    static RoomView of(RehearsalRoom room, Clock clock) {
        RiverScreen.State video = model(room, RiverScreen.class).state();
        SoundPlayer.State player = model(room, SoundPlayer.class).state();
        int onAir = model(room, CameraSwitcher.class).program();
        return new RoomView(
                room.standIns(),
                model(room, FohLights.class).state(),
                video,
                (clock.nanos() - video.startedNanos()) / 1_000_000,
                model(room, RiverScreen.class).code(),
                model(room, WordsScreen.class).state(),
                IntStream.rangeClosed(1, CameraSwitcher.CAMERAS)
                        .mapToObj(i -> i == onAir)
                        .toList(),
                model(room, SoundConsole.class).state(),
                model(room, KeyboardsHost.class).state(),
                model(room, VocalTuning.class).key(),
                model(room, BandTablet.class).state(),
                model(room, BandTablet.class).beat(),
                player,
                (clock.nanos() - player.shotNanos()) / 1_000_000,
                room.standIns().stream()
                        .filter(s -> s.model() instanceof Keyed)
                        .map(s -> new KeyRow(s.name(), s.isOn(), ((Keyed) s.model()).keys(), shows(s.model())))
                        .toList());
    }

    /** Which lamps of the pads are lit, and how: {@code pad 1 bright, pad 4 dim}. */
    private static String lamps(List<Integer> lamps) {
        return IntStream.range(0, lamps.size())
                .filter(i -> lamps.get(i) > 1)
                .mapToObj(i -> "pad " + (i + 1) + (lamps.get(i) > 64 ? " bright" : " dim"))
                .collect(Collectors.joining(", "));
    }

    private static String shows(Model model) {
        if (model instanceof PlaybackMachine playback) {
            PlaybackMachine.State state = playback.state();
            return (state.song() == 0 ? "no song" : "song " + state.song()) + (state.plays() ? ", playing" : "");
        }
        if (model instanceof FilmPlayer film) {
            return film.place() + (film.isRunning() ? ", running" : "");
        }
        if (model instanceof StageKeyboard keyboard) {
            return (keyboard.isLocal() ? "" : "local off") + notes(keyboard.sounding());
        }
        if (model instanceof VideoServer server) {
            return server.title().isEmpty() ? "no title" : "“" + server.title() + "”";
        }
        if (model instanceof PedalBoard board) {
            return lamps(board.lamps());
        }
        return model instanceof SoundConsole console && console.state().scene() > 0
                ? "scene " + console.state().scene()
                : "";
    }

    private static String notes(List<Integer> sounding) {
        return sounding.stream().map(n -> " " + Numbering.WIRE.note(n)).collect(Collectors.joining());
    }

    /** What the rack of sounds plays. */
    public List<SoundModules.Part> parts() {
        return machines.stream()
                .map(StandIn::model)
                .filter(SoundModules.class::isInstance)
                .map(SoundModules.class::cast)
                .findFirst()
                .orElseThrow()
                .parts();
    }

    /** Notes in words, with blanks between. */
    public String words(List<Integer> sounding) {
        return notes(sounding).strip();
    }

    /** Whether somebody has sorted the lighting desk's list. */
    public boolean sorted() {
        return machines.stream().map(StandIn::model).anyMatch(m -> m instanceof FohLights lights && lights.isSorted());
    }

    public boolean on(String name) {
        return machines.stream().anyMatch(m -> m.name().equals(name) && m.isOn());
    }

    private static <M extends Model> M model(RehearsalRoom room, Class<M> kind) {
        return room.standIns().stream()
                .map(StandIn::model)
                .filter(kind::isInstance)
                .map(kind::cast)
                .findFirst()
                .orElseThrow();
    }
}
