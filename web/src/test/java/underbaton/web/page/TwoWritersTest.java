package underbaton.web.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.rig.Wiring;
import underbaton.core.rig.Wording;
import underbaton.core.score.Score;
import underbaton.core.score.Section;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.web.UnderBaton;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.library.Shows;

/** Whoever keeps a form that was filled before somebody else changed the same thing is told, and changes nothing. */
class TwoWritersTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final HttpClient client = HttpClient.newHttpClient();
    private Shows shows;
    private int id;

    @BeforeEach
    void write() {
        shows = baton.bean(Shows.class);
        id = shows.create("Two writers", TwoWritersTest::filled).id();
    }

    @AfterEach
    void remove() {
        shows.delete(id);
    }

    private static Show filled(Show empty) {
        var says = new Wording(Numbering.WIRE).read("note 1");
        Device lights = new Device(
                0,
                "Lights",
                Department.LIGHTS,
                new Connection.NetworkMidi("127.0.0.1", 9),
                0,
                Numbering.WIRE,
                0,
                List.of());
        Show show = empty.withDevice(lights).withPhrase(1, new Phrase(0, "Look", says, Effect.HOLDS, false));
        Item song = new Item(0, ItemKind.SONG, "Song", 0, List.of())
                .withScore(Optional.of(Score.of("1 4/4\n1 quarter = 120\n9 A Verse")));
        return show.withItem(song, 0);
    }

    private Show show() {
        return shows.get(id);
    }

    private Item song() {
        return show().items().get(0);
    }

    private Device lights() {
        return show().devices().get(0);
    }

    private HttpResponse<String> post(String path, Map<String, String> fields) throws Exception {
        String form = fields.entrySet().stream()
                .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
        return client.send(
                HttpRequest.newBuilder(URI.create(baton.url("/shows/" + id + path)))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString(form))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    /**
     * @param was the mark with which the form was filled
     * @param elsewhere what somebody else does meanwhile
     */
    private void overtaken(String path, Map<String, String> fields, String was, UnaryOperator<Show> elsewhere)
            throws Exception {
        Map<String, String> marked = new LinkedHashMap<>(fields);
        marked.put("was", was);
        shows.edit(id, "elsewhere", elsewhere);
        Show before = show();
        HttpResponse<String> told = post(path, marked);
        assertThat(told.statusCode()).as(told.body()).isBetween(400, 499);
        assertThat(told.body()).contains("Somebody changed").contains("What you typed is still here");
        assertThat(show()).isSameAs(before);
        shows.undo(id);
        HttpResponse<String> taken = post(path, marked);
        assertThat(taken.statusCode()).as(taken.body()).isLessThan(400);
    }

    @Test
    void anItem() throws Exception {
        String was = Fingerprint.of(song().withCues(List.of()));
        overtaken(
                "/book/items/" + song().id(),
                Map.of("kind", "SONG", "name", "Mine", "score", "1 4/4"),
                was,
                s -> s.withItem(new Item(song().id(), ItemKind.SCENE, "Theirs", 0, List.of()), 0));
        assertThat(song().name()).isEqualTo("Mine");
    }

    @Test
    void aSectionThatIsThere() throws Exception {
        Section verse = song().score().orElseThrow().sections().get(0);
        overtaken(
                "/score/" + song().id() + "/section",
                Map.of("bar", "9", "letter", "A", "name", "Mine", "bars", "8"),
                Fingerprint.of(verse),
                s -> withSection(s, new Section(9, "A", "Theirs", Optional.empty(), List.of())));
        assertThat(song().score().orElseThrow().sections().get(0).name()).isEqualTo("Mine");
    }

    @Test
    void aSectionThatBothAreAboutToBegin() throws Exception {
        overtaken(
                "/score/" + song().id() + "/section",
                Map.of("bar", "17", "letter", "B", "name", "Mine", "bars", "8"),
                "none",
                s -> withSection(s, new Section(17, "C", "Theirs", Optional.empty(), List.of())));
        assertThat(song().score().orElseThrow().sections())
                .extracting(Section::name)
                .containsExactly("Verse", "Mine");
    }

    private Show withSection(Show show, Section section) {
        Score score = song().score().orElseThrow();
        List<Section> sections = new ArrayList<>(score.sections());
        sections.removeIf(s -> s.bar() == section.bar());
        sections.add(section);
        return show.withItem(song().withScore(Optional.of(score.withSections(sections))), 0);
    }

    @Test
    void howAListIsNumbered() throws Exception {
        overtaken(
                "/rig/devices/1/list",
                Map.of("kind", "PROGRAM", "first", "5"),
                Fingerprint.of(lights().list()),
                s -> s.withDevice(lights().withList(Optional.of(new PositionList(PositionList.Kind.NOTE, 0)))));
        assertThat(lights().list().orElseThrow().kind()).isEqualTo(PositionList.Kind.PROGRAM);
    }

    @Test
    void aListener() throws Exception {
        Listener pedal = new Listener(
                0,
                "Pedal",
                Set.of(),
                OptionalInt.empty(),
                Pattern.Controller.pressed(64),
                new Reaction.Give(Deed.GO),
                0,
                0,
                false,
                true);
        shows.edit(id, "a pedal", s -> s.withListener(pedal));
        Listener there = show().listeners().get(0);
        overtaken(
                "/signals",
                Map.ofEntries(
                        Map.entry("id", "" + there.id()),
                        Map.entry("name", "Mine"),
                        Map.entry("from", "rig"),
                        Map.entry("kind", "controller"),
                        Map.entry("low", "64"),
                        Map.entry("soft", "64"),
                        Map.entry("way", "PRESSED"),
                        Map.entry("does", "GO"),
                        Map.entry("pause", "0"),
                        Map.entry("item", "0"),
                        Map.entry("listens", "on")),
                Fingerprint.of(there),
                s -> s.withListener(there.pointing(Set.of(1), there.reaction(), 0)));
        assertThat(show().listeners().get(0).name()).isEqualTo("Mine");
    }

    @Test
    void aHandKeyAndItsPage() throws Exception {
        shows.edit(id, "a page", s -> Hands.withPage(s, "Rain"));
        int page = show().hands().get(0).id();
        Call look = new Call(1, lights().phrases().get(0).id());
        HandKey key = new HandKey(0, 0, 0, "Thunder", Mark.NONE, HandKey.Way.PRESS, List.of(look), List.of(), false);
        shows.edit(id, "a key", s -> Hands.withKey(s, page, key));
        HandKey there = show().hands().get(0).keys().get(0);
        overtaken(
                "/hands/keys",
                Map.ofEntries(
                        Map.entry("id", "" + there.id()),
                        Map.entry("page", "" + page),
                        Map.entry("row", "0"),
                        Map.entry("column", "0"),
                        Map.entry("name", "Mine"),
                        Map.entry("mark", "NONE"),
                        Map.entry("way", "PRESS"),
                        Map.entry("on", "1 Look"),
                        Map.entry("off", "")),
                Fingerprint.of(Optional.of(there)),
                s -> Hands.withKey(
                        s,
                        page,
                        new HandKey(
                                there.id(),
                                0,
                                0,
                                "Theirs",
                                Mark.GREEN,
                                HandKey.Way.PRESS,
                                there.on(),
                                List.of(),
                                false)));
        assertThat(show().hands().get(0).keys().get(0).name()).isEqualTo("Mine");
        HandPage grid = show().hands().get(0);
        overtaken(
                "/hands/pages/" + page,
                Map.of("name", "My rain", "rows", "4", "columns", "4"),
                Fingerprint.of(List.of(grid.name(), grid.rows(), grid.columns())),
                s -> Hands.withGrid(s, page, "Their rain", 3, 4));
        assertThat(show().hands().get(0).name()).isEqualTo("My rain");
    }

    @Test
    void markAndNoteOfACueAndTheNameOfAShow() throws Exception {
        shows.edit(id, "a cue", s -> underbaton.core.cue.Shows.cue(s, "1", "at 1:1", "Look"));
        Cue cue = song().cues().get(0);
        overtaken(
                "/book/remarks",
                Map.of("cues", "" + cue.id(), "mark", "GREEN", "note", "Mine"),
                "NONE",
                s -> s.withCuesExchanged(List.of(cue.withRemarks(Mark.NONE, "Theirs"))));
        assertThat(song().cues().get(0).note()).isEqualTo("Mine");
        String name = show().name();
        overtaken("/rename", Map.of("name", "My show of two"), name, s -> s.renamed("Their show of two"));
        assertThat(show().name()).isEqualTo("My show of two");
    }

    /** Several cells at once are held against what stood in each, not against the whole of their cues. */
    @Test
    void blocksOfCells() throws Exception {
        shows.edit(id, "a cue", s -> underbaton.core.cue.Shows.cue(s, "1", "at 1:1", "Look"));
        Cue cue = song().cues().get(0);
        shows.edit(id, "elsewhere", s -> s.withCue(song().id(), cue.withNumber(CueNumber.of("7"))));
        String cells = "[{\"cue\":%d,\"version\":%d,\"column\":\"what\",\"text\":\"%s\",\"was\":\"%s\"}]";
        HttpResponse<String> kept =
                post("/book/cells", Map.of("cells", cells.formatted(cue.id(), cue.version(), "Mine", cue.what())));
        assertThat(kept.statusCode()).as(kept.body()).isLessThan(400);
        Cue now = song().cues().get(0);
        assertThat(now.what()).isEqualTo("Mine");
        assertThat(now.number()).isEqualTo(CueNumber.of("7"));
        HttpResponse<String> told =
                post("/book/cells", Map.of("cells", cells.formatted(cue.id(), cue.version(), "Again", cue.what())));
        assertThat(told.body()).contains("Somebody changed cue 7 meanwhile");
        assertThat(song().cues().get(0).what()).isEqualTo("Mine");
    }

    /** By its place the second of two would have taken another line. */
    @Test
    void aPatchLineThatTwoPeopleTakeAwayIsOneLine() throws Exception {
        PatchLine first = PatchLine.open(1, 1);
        PatchLine second = new PatchLine(
                1,
                OptionalInt.of(3),
                1,
                OptionalInt.empty(),
                first.kinds(),
                first.notes(),
                first.velocities(),
                first.controls(),
                first.programs(),
                12);
        shows.edit(id, "a set", s -> PatchBay.withNew(s, "Set", new Wiring(List.of(first, second), Set.of())));
        int set = PatchBay.sets(show()).iterator().next().id();
        String path = "/patch/" + set + "/line/" + Fingerprint.of(first) + "/delete";
        assertThat(post(path, Map.of()).statusCode()).isEqualTo(200);
        assertThat(post(path, Map.of()).body()).contains("That line is gone, or somebody has changed it");
        assertThat(PatchBay.sets(show())
                        .iterator()
                        .next()
                        .patch()
                        .orElseThrow()
                        .kept()
                        .lines())
                .containsExactly(second);
    }

    @Test
    void aSnippetIsNotExchangedUnseen() throws Exception {
        shows.edit(id, "a cue", s -> underbaton.core.cue.Shows.cue(s, "1", "at 1:1", "Look"));
        int cue = song().cues().get(0).id();
        Map<String, String> fields = Map.of("name", "Two writers block", "cues", Integer.toString(cue));
        String path = "/score/" + song().id() + "/snippets";
        HttpResponse<String> kept = post(path, fields);
        assertThat(kept.statusCode()).as(kept.body()).isEqualTo(200);
        HttpResponse<String> again = post(path, fields);
        assertThat(again.statusCode()).isBetween(400, 499);
        assertThat(again.body()).contains("There is a snippet “Two writers block” already");
        String snippet =
                kept.body().replaceAll("(?s).*data-snippet=\"(\\d+)\"[^>]*>\\s*<td>\\s*<b>Two writers block.*", "$1");
        assertThat(post(path + "/" + snippet + "/delete", Map.of()).body()).doesNotContain("Two writers block");
    }
}
