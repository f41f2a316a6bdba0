package underbaton.web.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import java.io.IOException;
import java.net.DatagramSocket;
import java.net.URLEncoder;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.rig.Device;
import underbaton.core.score.Score;
import underbaton.core.signal.Listener;
import underbaton.core.traffic.Traffic;
import underbaton.standins.BandTablet;
import underbaton.standins.CameraSwitcher;
import underbaton.standins.FohLights;
import underbaton.standins.KeyboardsHost;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.RiverScreen;
import underbaton.standins.SoundConsole;
import underbaton.standins.SoundPlayer;
import underbaton.standins.StandIn;
import underbaton.standins.VocalTuning;
import underbaton.standins.WordsScreen;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/**
 * A show played straight through by GO, and walks through it with orders over HTTP and Open Sound Control, each ended by a jump and the
 * sheet of the catch-up. What is compared is what the stand-ins do, which know bytes and packets; nothing of ours judges.
 */
class WalksOnTheWireTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int WALKS = Integer.getInteger("baton.wireWalks", 2);
    private static final long FIRST = Long.getLong("baton.wireWalk", 0);

    private static final String BOOK =
            """
            Scene | The slipway
            1 | by hand | House open; Reel 1 black; Song 1 Slipway; 2 wide; Scene 8 dialogue; Upright piano; Key C major; Rain out; Player level → −20 dB
            2 | by hand | Dusk, low; Reel 2 slow river; Clip 1; Next; Rain on the roof; Bed → −20 dB
            3 | by hand | Lantern only; Next; 1 Mara; Vox 1 → −5 dB
            4 | by hand | Stop; Rain out; Next song; Reel 3 town
            Song | Across
            10 | by hand | Indigo wash; Song 2 Is anyone across?; Scene 9 song; Reed organ; Key F major; Next song; Rain on the roof
            11 | at 2:1 | Gold sweep; Next; Vox 2 → −10 dB
            12 | at 3:1 | River green; 3 band; Clip 2; Bed → −30 dB
            13 | at 3:3 | Next; Low pad
            20 | by hand | Blackout; Blank; Stop; Rain out
            Scene | The landing
            21 | by hand | Cold dawn; Song 6 Cold dawn; Scene 12 bows; 4 river side; Bells; Key D minor; Next song
            22 | by hand | Candle line; Next; Rain on the roof; Player level → −10 dB
            23 | after 0.3 s | Next; Vox 1 → −40 dB
            24 | by hand | Curtain call; Previous; Vox 1 → 0 dB; Rain out
            """;

    private static final String SCORE = "1 quarter = 240\n4 end";
    private static final long QUIET_NANOS = 350_000_000;
    /** Two presses of one GO within less are one. */
    private static final long GO_MILLIS = 320;

    private static final Pattern SENDS = Pattern.compile("name=\"send\"[^>]*?\\svalue=\"([^\"]*)\"( checked)?");
    private static final Pattern SHOWN = Pattern.compile("name=\"shown\"[^>]*?\\svalue=\"([^\"]*)\"");

    private int id;
    private final Map<String, String> before = new LinkedHashMap<>();
    private final Map<String, String> after = new LinkedHashMap<>();
    private final List<String> given = new ArrayList<>();

    @BeforeEach
    void onTheDesk() throws Exception {
        Show lantern = baton.bean(Shows.class).get(baton.show("The Ferryman’s Lantern"));
        Show walked =
                baton.bean(Shows.class).create("Walked on the wire", empty -> written(empty.withContentFrom(lantern)));
        id = walked.id();
        baton.bean(RehearsalRoom.class).switchOn();
        baton.bean(Stage.class).open(id);
        allAreThere();
        // Somebody leafs back to the first song, by hand.
        for (int i = 1; i < BandTablet.SONGS.size(); i++) {
            ((BandTablet) model("Band tablet")).hear(new NoteOn(7, 47, 127), 0);
        }
        whereTheTabletStands();
    }

    @AfterEach
    void offTheDesk() throws Exception {
        baton.bean(RehearsalRoom.class).switchOn();
        baton.bean(Stage.class).close();
        baton.bean(Shows.class).delete(id);
    }

    /** The machines of a show, with a book of their own. */
    private static Show written(Show machines) {
        Show show = machines;
        for (Item item : machines.items()) {
            show = show.withoutItem(item.id());
        }
        for (Listener listener : machines.listeners()) {
            show = show.withoutListener(listener.id());
        }
        for (String line : BOOK.lines().toList()) {
            String[] fields = line.split(" \\| ");
            if (fields.length == 2) {
                ItemKind kind = fields[0].equals("Song") ? ItemKind.SONG : ItemKind.SCENE;
                Optional<Score> score = kind == ItemKind.SONG ? Optional.of(Score.of(SCORE)) : Optional.empty();
                Item item = new Item(0, kind, fields[1], 0, List.of()).withScore(score);
                show = show.withItem(item, show.items().size());
            } else {
                Show now = show;
                List<Call> calls = List.of(fields[2].split("; ")).stream()
                        .map(said -> call(now, said))
                        .toList();
                Cue cue = new Cue(0, CueNumber.of(fields[0]), Start.of(fields[1]), "", calls, 0);
                show = show.withCue(show.items().get(show.items().size() - 1).id(), cue);
            }
        }
        return show;
    }

    private static Call call(Show show, String said) {
        String name = said.split("→")[0].strip();
        return show.devices().stream()
                .filter(d -> d.phraseNamed(name).isPresent())
                .findFirst()
                .map(d -> Call.of(d, said))
                .orElseThrow();
    }

    // ---- the machines, as they are

    private static Object model(String name) {
        return baton.bean(RehearsalRoom.class).named(name).orElseThrow().model();
    }

    private static String looks() {
        RiverScreen.State river = ((RiverScreen) model("River screen")).state();
        WordsScreen.State words = ((WordsScreen) model("Words screen")).state();
        SoundConsole.State console = ((SoundConsole) model("Sound console")).state();
        SoundPlayer.State player = ((SoundPlayer) model("Sound player")).state();
        return String.join(
                "\n",
                "look " + ((FohLights) model("FOH lights")).state().number(),
                "reel " + river.reel() + (river.running() ? ", runs clip " + river.clip() : ""),
                "words " + (words.blank() ? "blank" : words.song() + ", page " + words.page()),
                "camera " + ((CameraSwitcher) model("Camera switcher")).program(),
                "scene " + console.scene()
                        + console.strips().stream()
                                .map(strip -> " " + strip.fader())
                                .collect(Collectors.joining()),
                "keys " + ((KeyboardsHost) model("Keys 2")).state().name(),
                "tuning " + ((VocalTuning) model("Vocal tuning")).key(),
                "tablet " + ((BandTablet) model("Band tablet")).state().song(),
                "player " + player.loop() + " " + player.level());
    }

    /** Nothing has left for a while, and no machine has changed. */
    private void quiet() {
        Traffic traffic = baton.bean(Traffic.class);
        AtomicLong last = new AtomicLong(-1);
        AtomicReference<String> looked = new AtomicReference<>("");
        AtomicLong since = new AtomicLong(System.nanoTime());
        until("all is quiet", () -> {
            String now = looks();
            long line = traffic.last();
            if (last.getAndSet(line) != line || !looked.getAndSet(now).equals(now)) {
                since.set(System.nanoTime());
            }
            boolean plays = baton.bean(Stage.class)
                    .playback(id)
                    .filter(s -> s.playing()
                                    .filter(p -> !p.paused() && !p.ahead().isEmpty())
                                    .isPresent()
                            || s.followOn().isPresent())
                    .isPresent();
            if (plays) {
                since.set(System.nanoTime());
            }
            return !plays && System.nanoTime() - since.get() > QUIET_NANOS;
        });
    }

    // ---- the orders

    private void ask(String path, String... fields) {
        HttpResponse<String> answer = baton.post("/shows/" + id + path, fields);
        assertThat(answer.statusCode())
                .as("%s %s: %s", path, List.of(fields), answer.body())
                .isEqualTo(204);
    }

    /** Some may be refused just then: those change nothing. */
    private void perhaps(String path, String... fields) {
        given.add(path + List.of(fields));
        HttpResponse<String> answer = baton.post("/shows/" + id + path, fields);
        assertThat(answer.statusCode())
                .as("%s %s: %s", path, List.of(fields), answer.body())
                .isIn(204, 400);
    }

    private void say(String address) throws IOException {
        given.add(address);
        try (DatagramSocket socket = new DatagramSocket()) {
            socket.send(baton.packet(address));
        }
    }

    private void whereTheTabletStands() {
        Device tablet = baton.bean(Shows.class).get(id).devices().stream()
                .filter(d -> d.name().equals("Band tablet"))
                .findFirst()
                .orElseThrow();
        int song = ((BandTablet) model("Band tablet")).state().song();
        ask("/desk/places", "device", "" + tablet.id(), "list", "song", "place", "" + song);
    }

    private void any(Random random) throws Exception {
        String cue = handCues().get(random.nextInt(handCues().size()));
        switch (random.nextInt(12)) {
            case 0 -> perhaps("/desk/back");
            case 1 -> perhaps("/desk/next");
            case 2 -> perhaps("/desk/hold");
            case 3 -> perhaps("/desk/pause");
            case 4 -> say("/baton/before");
            case 5 -> perhaps("/desk/jump", "number", cue);
            case 6 -> catchUp("cue " + cue, random.nextInt(3));
            case 7 -> perhaps("/desk/stop");
            case 8 -> catchUp(Integer.toString(1 + random.nextInt(3)), 9);
            case 9 -> off(random);
            default -> say("/baton/go");
        }
        Thread.sleep(random.nextInt(400));
    }

    /** A machine goes, something is sent without it, it comes back and is brought up. */
    private void off(Random random) throws Exception {
        List<String> names = List.of("FOH lights", "River screen", "Words screen", "Keys 2");
        StandIn machine = baton.bean(RehearsalRoom.class)
                .named(names.get(random.nextInt(names.size())))
                .orElseThrow();
        given.add(machine.name() + " off");
        machine.switchOff();
        say("/baton/go");
        Thread.sleep(random.nextInt(300));
        perhaps("/desk/hold");
        machine.switchOn();
        given.add("and on");
    }

    /** As the Desk does it: the sheet is drawn, and what it offers is sent. @param leftOut the place of a line that is not; past the end for none */
    private void catchUp(String to, int leftOut) {
        given.add("catch-up to " + to + " without " + leftOut);
        HttpResponse<String> sheet =
                baton.get("/shows/" + id + "/desk/catch-up?to=" + URLEncoder.encode(to, StandardCharsets.UTF_8));
        if (sheet.statusCode() != 200) {
            return;
        }
        List<String> fields = new ArrayList<>(List.of("to", to));
        Matcher shown = SHOWN.matcher(sheet.body());
        assertThat(shown.find()).as(sheet.body()).isTrue();
        fields.addAll(List.of("shown", shown.group(1)));
        int place = 0;
        for (Matcher line = SENDS.matcher(sheet.body()); line.find(); place++) {
            if (place != leftOut) {
                fields.addAll(List.of("send", line.group(1)));
            }
        }
        ask("/desk/catch-up", fields.toArray(String[]::new));
    }

    private static List<String> handCues() {
        return BOOK.lines()
                .filter(l -> l.contains("| by hand |"))
                .map(l -> l.split(" ")[0])
                .toList();
    }

    // ---- what it must come to

    @Test
    void theMachinesAreRightAfterEveryWalk() throws Exception {
        playedStraight();
        List<String> wrong = new ArrayList<>();
        for (long seed = FIRST; seed < FIRST + WALKS; seed++) {
            Random random = new Random(seed);
            given.clear();
            for (int i = 2 + random.nextInt(6); i > 0; i--) {
                any(random);
            }
            String cue = handCues().get(random.nextInt(handCues().size()));
            allAreThere();
            ask("/desk/hold");
            ask("/desk/jump", "number", cue);
            quiet();
            whereTheTabletStands();
            catchUp("standby", Integer.MAX_VALUE);
            quiet();
            String stood = looks();
            say("/baton/go");
            Thread.sleep(GO_MILLIS);
            quiet();
            String is = different(stood, before.getOrDefault(cue, stood)) + different(looks(), after.get(cue));
            if (!is.isEmpty()) {
                wrong.add("seed " + seed + ", cue " + cue + ": " + given + is);
            }
        }
        System.out.println(WALKS + " walks on the wire, " + wrong.size() + " wrong");
        assertThat(wrong).isEmpty();
    }

    private static String different(String is, String wanted) {
        List<String> right = wanted.lines().toList();
        List<String> now = is.lines().toList();
        return IntStream.range(0, right.size())
                .filter(i -> !now.get(i).equals(right.get(i)))
                .mapToObj(i -> "\n" + now.get(i) + " instead of " + right.get(i))
                .collect(Collectors.joining());
    }

    private void playedStraight() throws Exception {
        for (String cue : handCues()) {
            quiet();
            before.put(cue, looks());
            say("/baton/go");
            Thread.sleep(GO_MILLIS);
            quiet();
            after.put(cue, looks());
        }
        // What nobody had told them before the first cue is not known.
        before.remove(handCues().get(0));
    }

    private void allAreThere() {
        Stage stage = baton.bean(Stage.class);
        for (Device device : baton.bean(Shows.class).get(id).devices()) {
            until(device.name() + " is there", () -> stage.playback(id)
                    .filter(s -> !s.absent().containsKey(device.id())
                            || s.absent().get(device.id()).back())
                    .isPresent());
        }
        ask("/desk/bring-up");
    }
}
