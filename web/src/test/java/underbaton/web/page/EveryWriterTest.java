package underbaton.web.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Show;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;

/** Two people at one thing, whatever it is: all that is sent to change a show is found by asking Spring. */
class EveryWriterTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    /** What tells from what a form was filled. */
    private static final Set<String> MARKS = Set.of("was", "version", "seen", "cells");

    private static final Map<String, String> FILLED_LONG_AGO =
            Map.of("was", "long ago", "version", "-7", "seen", "999999");

    /**
     * These say nothing over what somebody else has said: they add, copy, move by so much, take away what is known by its id or its mark,
     * go a step back, or set one switch as it is to stand.
     */
    private static final Pattern ACTS = Pattern.compile(".*/(undo|redo|copy|duplicate|delete|move|place|paste|take-down"
            + "|forget-down|except|drop|learn|load|keep|keep-as|put-back|local|several|numbers)"
            + "|/shows/\\{showId}/(patch|book/(cues|items|rows|list)|hands/pages|rig/devices(/file)?)"
            + "|/shows/\\{showId}/score/(files|take|\\{itemId}/snippets)"
            + "|/shows/\\{showId}/rig/devices/\\{deviceId}/(phrases(/families)?|phrases.csv|learn)");

    private static final Pattern FORM =
            Pattern.compile("<form[^>]*?\\b(?:hx-post|action)=\"([^\"]*)\".*?</form>", Pattern.DOTALL);
    private static final Pattern WAS = Pattern.compile("<input[^>]*?\\bname=\"was\"[^>]*>");
    private static final List<String> BY_SCRIPTS = List.of(
            "/shows/{showId}/book/cues/{cueId}/cell",
            "/shows/{showId}/book/remarks",
            "/shows/{showId}/score/{itemId}/section",
            "/shows/{showId}/score/{itemId}/text",
            "/shows/{showId}/score/{itemId}/write");
    private static final int TRIES = 400;

    private Shows shows;
    private int id;

    @BeforeEach
    void write() {
        shows = baton.bean(Shows.class);
        Show demo = shows.get(baton.show("The Ferryman’s Lantern"));
        id = shows.create("Every writer", s -> s.withContentOf(demo).renamed("Every writer"))
                .id();
    }

    @AfterEach
    void remove() {
        shows.delete(id);
    }

    private static boolean marked(AnyEdit.Edit edit) {
        return edit.path().contains("{mark}") || edit.names().stream().anyMatch(MARKS::contains);
    }

    @Test
    void whatSaysSomethingOverIsMarkedWithWhatItWasFilledFrom() {
        assertThat(AnyEdit.all(baton))
                .hasSizeGreaterThan(50)
                .filteredOn(edit -> !marked(edit) && !ACTS.matcher(edit.path()).matches())
                .isEmpty();
    }

    /** Whatever else is said in it, right or wrong: it is never kept, and at least once it is told why. */
    @Test
    void whatWasFilledFromSomethingElseIsToldAndNotKept() throws Exception {
        AnyEdit any = new AnyEdit(baton, id, 22);
        Set<String> untold = new TreeSet<>();
        for (AnyEdit.Edit opens : AnyEdit.all(baton)) {
            if (opens.path().endsWith("/book/list")) {
                any.send(opens);
            }
        }
        for (AnyEdit.Edit edit : AnyEdit.all(baton)) {
            if (!marked(edit) || edit.path().contains("{mark}")) {
                continue;
            }
            boolean told = false;
            for (int i = 0; i < TRIES && !told; i++) {
                Show before = shows.get(id);
                HttpResponse<String> answer = any.send(edit, FILLED_LONG_AGO);
                assertThat(shows.get(id))
                        .as("%s: %s", edit.path(), answer.body())
                        .isSameAs(before);
                told = answer.statusCode() >= 400
                        && answer.body().matches("(?s).*(Somebody changed|somebody has changed|was changed since).*");
            }
            if (!told) {
                untold.add(edit.path());
            }
        }
        assertThat(untold).isEmpty();
    }

    @Test
    void formsCarryTheirMark() throws Exception {
        AnyEdit any = new AnyEdit(baton, id, 23);
        Map<String, Pattern> marked = AnyEdit.all(baton).stream()
                .filter(e -> e.names().contains("was"))
                .collect(Collectors.toMap(
                        AnyEdit.Edit::path, e -> Pattern.compile(e.path().replaceAll("\\{[^}]*}", "\\\\d+"))));
        Set<String> seen = new TreeSet<>();
        formsOf(baton.get("/").body(), marked, seen);
        for (AnyEdit.Edit page : AnyEdit.pages(baton)) {
            for (int i = 0; i < 6; i++) {
                formsOf(any.open(page).body(), marked, seen);
            }
        }
        Set<String> formless = new TreeSet<>(marked.keySet());
        formless.removeAll(seen);
        assertThat(formless)
                .as("sent by the Book's and the Score's own scripts")
                .containsExactlyElementsOf(BY_SCRIPTS);
    }

    private static void formsOf(String page, Map<String, Pattern> marked, Set<String> seen) {
        Matcher forms = FORM.matcher(page);
        while (forms.find()) {
            marked.forEach((path, address) -> {
                if (address.matcher(forms.group(1)).matches()) {
                    Matcher was = WAS.matcher(forms.group());
                    assertThat(was.find()).as(forms.group()).isTrue();
                    if (!was.group().contains("value=\"\"")) {
                        seen.add(path);
                    }
                }
            });
        }
    }
}
