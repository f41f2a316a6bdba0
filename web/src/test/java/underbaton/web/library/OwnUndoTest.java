package underbaton.web.library;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.microsoft.playwright.Page;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import java.lang.reflect.Proxy;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Random;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.rig.Refusal;
import underbaton.web.UnderBaton;

/** Two people at two screens: each takes back what is theirs, and what the other did meanwhile stays. */
class OwnUndoTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final String ANN = "aaaaaaaaaaaaaaaa";
    private static final String BEN = "bbbbbbbbbbbbbbbb";

    private final Shows shows = baton.bean(Shows.class);
    private int show;

    @BeforeEach
    void begin() {
        show = shows.create("Own undo", s -> s.withItem(new Item(0, ItemKind.SCENE, "One", 0, List.of()), 0))
                .id();
    }

    @AfterEach
    void away() {
        shows.delete(show);
    }

    /** As if the calling thread were at a request of that browser. */
    private static <T> T as(String who, Supplier<T> does) {
        HttpServletRequest request = (HttpServletRequest) Proxy.newProxyInstance(
                OwnUndoTest.class.getClassLoader(),
                new Class<?>[] {HttpServletRequest.class},
                (proxy, method, given) ->
                        method.getName().equals("getCookies") ? new Cookie[] {new Cookie("baton-who", who)} : null);
        RequestContextHolder.setRequestAttributes(new ServletRequestAttributes(request));
        try {
            return does.get();
        } finally {
            RequestContextHolder.resetRequestAttributes();
        }
    }

    private void edit(String who, String what, UnaryOperator<Show> change) {
        as(who, () -> shows.edit(show, what, change));
    }

    private UnaryOperator<Show> cue(String number, String title) {
        return s -> {
            int id = s.cueNumbered(CueNumber.of(number)).map(Cue::id).orElse(0);
            return s.withCue(
                    s.items().get(0).id(), new Cue(id, CueNumber.of(number), Start.BY_HAND, title, List.of(), 0));
        };
    }

    private String cues() {
        List<String> all = new ArrayList<>();
        shows.get(show).cues().forEach(c -> all.add(c.number() + " " + c.what()));
        return String.join(", ", all);
    }

    private String undo(String who) {
        return as(who, () -> shows.undone(show));
    }

    @Test
    void eachTakesBackTheirOwnAndNotTheOthersNewerEdit() {
        edit(ANN, "add 1", cue("1", "Ann"));
        edit(BEN, "add 2", cue("2", "Ben"));
        assertThat(undo(ANN)).isEqualTo("Undone: add 1.");
        assertThat(cues()).isEqualTo("2 Ben");
        assertThat(as(ANN, () -> shows.redone(show))).isEqualTo("Done again: add 1.");
        assertThat(cues()).isEqualTo("1 Ann, 2 Ben");
        assertThat(undo(BEN)).isEqualTo("Undone: add 2.");
        assertThat(undo(BEN)).isEqualTo("Nothing to undo.");
        assertThat(cues()).isEqualTo("1 Ann");
    }

    @Test
    void whatTheOtherHasChangedSinceIsNotTakenFromThem() {
        edit(ANN, "add 1", cue("1", "Ann"));
        edit(BEN, "change 1", cue("1", "Ben"));
        assertThatThrownBy(() -> undo(ANN))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("cue 1 was changed since on another screen");
        assertThat(cues()).isEqualTo("1 Ben");
        undo(BEN);
        undo(ANN);
        assertThat(cues()).isEmpty();
    }

    @Test
    void whatCannotBeTakenBackByItselfDoesNotStandInTheWay() {
        edit(ANN, "add 1", cue("1", "Ann"));
        edit(ANN, "add 2", cue("2", "Ann"));
        edit(BEN, "change 2", cue("2", "Ben"));
        assertThatThrownBy(() -> undo(ANN)).hasMessageContaining("cue 2 was changed since");
        assertThat(undo(ANN)).isEqualTo("Undone: add 1.");
        assertThat(cues()).isEqualTo("2 Ben");
        undo(BEN);
        assertThat(undo(ANN)).isEqualTo("Undone: add 2.");
        assertThat(cues()).isEmpty();
    }

    @Test
    void whatTheHouseDidAnybodyTakesBack() {
        shows.edit(show, "by the house", cue("1", "House"));
        assertThat(undo(BEN)).isEqualTo("Undone: by the house.");
    }

    /** Ann takes all of hers back: what is left is what Ben alone would have written; and done again, it is all there. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void withEditsInTurnOfCuesOfTheirOwn(long seed) {
        Random random = new Random(seed);
        Deque<UnaryOperator<Show>> bens = new ArrayDeque<>();
        int anns = 0;
        for (int i = 0; i < 30; i++) {
            boolean ann = random.nextBoolean();
            UnaryOperator<Show> change = cue((ann ? 100 : 200) + random.nextInt(9) + "", "v" + i);
            edit(ann ? ANN : BEN, "edit " + i, change);
            anns += ann ? 1 : 0;
            if (!ann) {
                bens.add(change);
            }
        }
        Show all = shows.get(show);
        for (int i = 0; i < anns; i++) {
            undo(ANN);
        }
        int alone = shows.create("Alone", s -> s.withItem(new Item(0, ItemKind.SCENE, "One", 0, List.of()), 0))
                .id();
        bens.forEach(change -> shows.edit(alone, "ben", change));
        String left = cues();
        int here = show;
        show = alone;
        assertThat(left).isEqualTo(cues());
        shows.delete(alone);
        show = here;
        for (int i = 0; i < anns; i++) {
            as(ANN, () -> shows.redone(show));
        }
        assertThat(cues())
                .isEqualTo(String.join(
                        ", ", all.cues().map(c -> c.number() + " " + c.what()).toList()));
    }

    @Test
    void bothAreToldAtTheirScreens() {
        Page ann = baton.open("/shows/" + show + "/signals");
        Page ben = baton.browser();
        ben.navigate(baton.url("/shows/" + show + "/signals"));
        ben.waitForLoadState();
        String who = (String) ann.evaluate("() => /baton-who=(\\w+)/.exec(document.cookie)[1]");
        String other = (String) ben.evaluate("() => /baton-who=(\\w+)/.exec(document.cookie)[1]");
        assertThat(who).isNotEqualTo(other);
        edit(who, "add 1", cue("1", "Ann"));
        edit(other, "add 2", cue("2", "Ben"));
        assertThat(ann.locator("[data-step=undo]")).containsText("add 1");
        assertThat(ben.locator("[data-step=undo]")).containsText("add 2");
        ann.keyboard().press("Control+z");
        assertThat(ann.locator("#notice")).containsText("Undone: add 1.");
        assertThat(ben.locator("#notice")).containsText("On another screen: undo: add 1.");
        assertThat(cues()).isEqualTo("2 Ben");
    }

    /** The button must not go on offering what was just refused. */
    @Test
    void theNextStepStandsAtTheButtonWhenOneCouldNotBeTakenBack() {
        Page ann = baton.open("/shows/" + show + "/signals");
        String who = (String) ann.evaluate("() => /baton-who=(\\w+)/.exec(document.cookie)[1]");
        edit(who, "add 1", cue("1", "Ann"));
        edit(who, "add 2", cue("2", "Ann"));
        edit(BEN, "change 2", cue("2", "Ben"));
        assertThat(ann.locator("[data-step=undo]")).containsText("add 2");
        ann.keyboard().press("Control+z");
        assertThat(ann.locator("#notice")).containsText("cue 2 was changed since");
        assertThat(ann.locator("[data-step=undo]")).containsText("add 1");
    }
}
