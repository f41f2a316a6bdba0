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
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Wording;
import underbaton.core.score.Score;
import underbaton.core.score.Section;
import underbaton.web.UnderBaton;
import underbaton.web.shows.Shows;

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
        String snippet = kept.body().replaceAll("(?s).*data-snippet=\"(\\d+)\"[^>]*><td><b>Two writers block.*", "$1");
        assertThat(post(path + "/" + snippet + "/delete", Map.of()).body()).doesNotContain("Two writers block");
    }
}
