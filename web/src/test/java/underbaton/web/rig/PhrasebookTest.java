package underbaton.web.rig;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Keyboard;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.KeyboardModifier;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
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
import underbaton.core.engine.Order;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.Wording;
import underbaton.standins.FohLights;
import underbaton.standins.RehearsalRoom;
import underbaton.web.UnderBaton;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** A phrasebook filled from the machine's own list, by keyboard alone, and kept right when that list changes. */
class PhrasebookTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Shows shows = baton.bean(Shows.class);
    private FohLights desk;
    private int show;
    private Page page;

    @BeforeEach
    void openRig() {
        desk = (FohLights) baton.bean(RehearsalRoom.class)
                .named("FOH lights")
                .orElseThrow()
                .model();
        desk.sort(false);
        Connection connection = new Connection.NetworkMidi("127.0.0.1", baton.standInPort(0));
        show = shows.create(
                        "Phrasebook test",
                        s -> s.withDevice(new Device(
                                0,
                                "FOH lights",
                                Department.LIGHTS,
                                connection,
                                0,
                                new Numbering(0, 0, -2),
                                0,
                                List.of())))
                .id();
        baton.bean(Stage.class).open(show);
        page = baton.open("/shows/" + show + "/rig");
        assertThat(page.locator(".machine-list li")).hasAttribute("data-reached", "true");
    }

    @AfterEach
    void away() {
        baton.bean(Stage.class).close();
        shows.delete(show);
        desk.sort(false);
    }

    /** Walks on with the tabulator until the thing has the focus, as someone without a mouse does. */
    private void tabTo(String selector) {
        for (int i = 0; i < 400; i++) {
            if ((Boolean) page.evaluate("s => document.activeElement.matches(s)", selector)) {
                return;
            }
            page.keyboard().press("Tab");
        }
        throw new AssertionError("the keyboard never came to " + selector);
    }

    private static List<String> fortyLooks() {
        return Stream.concat(
                        FohLights.LOOKS.stream().map(FohLights.Look::name),
                        IntStream.rangeClosed(25, 40).mapToObj(i -> "Spare look " + i))
                .toList();
    }

    private Device lights() {
        return shows.get(show).devices().get(0);
    }

    @Test
    void fortyLooksArePastedFiredAndMovedByKeyboardAlone() {
        tabTo(".list-rule [name=kind]");
        page.keyboard().type("b");
        tabTo("[command=show-modal][commandfor=paste]");
        page.keyboard().press("Enter");
        tabTo("#paste textarea");
        page.keyboard().insertText(String.join("\n", fortyLooks()));
        tabTo("#paste .main");
        page.keyboard().press("Enter");
        assertThat(page.locator(".preview")).containsText("40 changes");
        assertThat(page.locator(".preview .main")).isFocused();
        page.keyboard().press("Enter");
        assertThat(page.locator(".entry")).hasCount(40);
        assertThat(page.locator(".entry .bytes").nth(11)).hasText("90 0B 7F");

        tabTo(".entry");
        for (int i = 0; i < 11; i++) {
            page.keyboard().press("ArrowDown");
        }
        page.keyboard().press("f");
        until("look 12", () -> desk.state().number() == 12);
        assertThat(desk.state().look().name()).isEqualTo("Storm low");

        writeACueForEveryLook();
        page.reload();
        tabTo(".entry[data-name='House half']");
        page.keyboard().press("Enter");
        assertThat(page.locator(".blanks [name=name]")).isFocused();
        tabTo("[aria-label='Place of House half in the list']");
        page.keyboard().type("24");
        page.keyboard().press("Tab");
        assertThat(page.locator(".preview")).containsText("22 of the list change, 18 stay; 22 cues call those");
        String looked = page.locator(".preview").textContent();
        assertThat(IntStream.rangeClosed(3, 24))
                .allSatisfy(n -> assertThat(looked).containsPattern("\\b" + n + "\\b"));
        tabTo(".preview .main");
        page.keyboard().press("Enter");
        assertThat(page.locator(".entry b").nth(23)).hasText("House half");

        desk.move(2, 23);
        everyCueShowsItsLook();
    }

    @Test
    void aDeskThatSortedItselfIsFollowedByPastingItsListAnew() {
        tabTo(".list-rule [name=kind]");
        page.keyboard().type("b");
        pasteTheDesksList();
        assertThat(page.locator(".entry")).hasCount(24);
        writeACueForEveryLook();
        desk.sort(true);
        page.reload();
        pasteTheDesksList();
        everyCueShowsItsLook();
    }

    private void pasteTheDesksList() {
        page.locator("[command=show-modal][commandfor=paste]").click();
        page.locator("#paste textarea")
                .fill(desk.list().stream().map(FohLights.Look::name).collect(Collectors.joining("\n")));
        page.locator("#paste .main").click();
        page.locator(".preview .main").click();
        assertThat(page.locator(".preview")).hasCount(0);
    }

    @Test
    void aListThatCannotBeIsRefusedAndStaysWhereItWasTyped() {
        tabTo(".list-rule [name=kind]");
        page.keyboard().type("b");
        page.locator("[command=show-modal][commandfor=paste]").click();
        page.locator("#paste textarea").fill("1. Dark\n2. Amber\n3. dark");
        page.locator("#paste .main").click();
        assertThat(page.locator(".preview .notice")).containsText("Two lines say “dark”");
        assertThat(page.locator(".preview .main")).isDisabled();
        page.locator("[data-leave-preview]").click();
        assertThat(page.locator("#paste textarea")).hasValue("1. Dark\n2. Amber\n3. dark");
    }

    @Test
    void eachLineOfAPastedListCanBeChangedBeforeItIsTaken() {
        tabTo(".list-rule [name=kind]");
        page.keyboard().type("b");
        page.locator("[command=show-modal][commandfor=paste]").click();
        page.locator("#paste textarea").fill("Looks of the summer\n1 - Dark\n2 - Ambr\n4 - Blue\n5 - Spare");
        page.locator("#paste .main").click();
        assertThat(page.locator(".preview tbody tr")).hasCount(5);
        assertThat(page.locator("[name=ours]").first()).hasValue("-1");
        page.locator("[aria-label='Name of line 3']").fill("Amber");
        page.locator("[aria-label='Place of line 4']").fill("8");
        page.locator("[aria-label='What line 5 is']").selectOption("-1");
        page.locator("[aria-label='Place of line 4']").press("Enter");
        assertThat(page.locator(".preview tbody tr").nth(3)).containsText("added, note G−2");
        assertThat(page.locator(".preview tbody tr").nth(4)).containsText("is left out");
        page.locator(".preview .main").click();
        assertThat(page.locator(".entry .place")).hasText(new String[] {"1", "2", "8"});
        assertThat(page.locator(".entry .bytes")).hasText(new String[] {"90 00 7F", "90 01 7F", "90 07 7F"});

        page.locator("[command=show-modal][commandfor=paste]").click();
        page.locator("#paste textarea").fill("1 - Dark\n2 - Gold\n8 - Blue");
        page.locator("#paste .main").click();
        assertThat(page.locator(".preview tbody tr").nth(1)).containsText("was “Amber”");
        page.locator("[aria-label='What line 2 is']").selectOption("0");
        page.locator(".preview").getByText("Look once more").click();
        assertThat(page.locator(".preview .left-out")).containsText("its number calls “Gold” then");
        page.locator(".preview .main").click();
        assertThat(page.locator(".entry[data-name=Amber]")).containsText("its number calls “Gold” by now");
    }

    @Test
    void whoChangesHowAMachineCountsSaysWhatStays() {
        shows.edit(show, "phrases", s -> {
            Device device = s.devices().get(0);
            Numbering fromOne = device.numbering().withFirstProgram(1);
            List<Message> says = new SpeechWording(fromOne).read("program 3").messages();
            return s.withDevice(device.withNumbering(fromOne))
                    .withPhrase(device.id(), new Phrase(0, "Scene 3", says, Effect.HOLDS, false));
        });
        for (String keep : List.of("bytes", "printed")) {
            page.reload();
            page.locator(".ways > summary").click();
            String was = page.locator("[name=programs]").inputValue();
            page.locator("[name=programs]").selectOption(was.equals("1") ? "0" : "1");
            page.locator("#ways .main").click();
            assertThat(page.locator(".question")).containsText("Scene 3");
            page.locator("[data-keep=" + keep + "]").click();
            assertThat(page.locator(".question")).hasCount(0);
            assertThat(page.locator(".entry[data-name='Scene 3'] .says")).hasText("program 2");
            assertThat(page.locator(".entry[data-name='Scene 3'] .bytes"))
                    .hasText(keep.equals("bytes") ? "C0 02" : "C0 01");
        }
    }

    @Test
    void aPhraseIsWrittenByItsKindAndItsEffectByASentence() {
        page.keyboard().press("n");
        page.locator("#new-phrase [name=name]").fill("Flash");
        page.locator("[data-of-kind]").selectOption("note");
        page.locator("[data-part=note]").fill("E0");
        page.locator("[data-part=for]").fill("200");
        assertThat(page.locator("[name=says]")).hasValue("note E0 for 200 ms");
        page.locator("[data-another]").click();
        page.locator("[data-of-kind]").selectOption("control");
        page.locator("[data-part=number]").fill("7");
        assertThat(page.locator("[name=says]")).hasValue("note E0 for 200 ms; after 50 ms control 7 to ?");
        assertThat(page.locator("[name=unit]")).hasValue("per cent");
        page.locator("[data-part=to]").fill("100");
        page.locator("[name=unit]").selectOption("");
        page.locator("[data-effects]").selectOption("moment");
        assertThat(page.locator(".phrase-form [name=effect]")).hasValue("moment");
        page.locator(".phrase-form .main").click();
        assertThat(page.locator(".entry[data-name=Flash] .bytes")).containsText("90 1C 7F");
        assertThat(page.locator(".entry[data-name=Flash] .bytes")).containsText("B0 07 64");
        page.keyboard().press("Escape");
        page.locator(".entry[data-name=Flash]").focus();
        page.keyboard().press("Enter");
        assertThat(page.locator("[data-effects]")).hasValue("moment");
    }

    @Test
    void aHalfWrittenPhraseOutlivesALookElsewhere() {
        page.keyboard().press("n");
        page.locator("#new-phrase [name=name]").fill("Gold swe");
        page.locator("#new-phrase [name=says]").fill("note 1");
        page.locator("#new-phrase [name=mark]").selectOption("GREEN");
        page.navigate(baton.url("/shows/" + show + "/rig/new"));
        page.navigate(baton.url("/shows/" + show + "/rig"));
        assertThat(page.locator("#new-phrase [name=name]")).hasValue("Gold swe");
        assertThat(page.locator("#new-phrase [name=says]")).hasValue("note 1");
        assertThat(page.locator("#new-phrase [name=mark]")).hasValue("GREEN");
        page.locator("[data-leave]").click();
        page.reload();
        assertThat(page.locator(".phrases")).isVisible();
        assertThat(page.locator("#new-phrase [name=name]")).hasCount(0);
    }

    @Test
    void oneObservationSetsTheNumbering() {
        page.locator(".ways > summary").click();
        page.locator(".ruler summary").click();
        page.locator(".found [name=what]").selectOption("NOTE");
        page.locator(".found [name=sent]").fill("60");
        page.locator(".found [name=shown]").fill("H4");
        page.locator(".found button").click();
        assertThat(page.locator("#notice")).containsText("No way of counting shows “H4” for note 60");
        page.locator(".found [name=shown]").fill("C4");
        page.locator(".found button").click();
        // Sharps or flats: a white key does not tell.
        assertThat(page.locator("#notice")).containsText("2 ways of counting");
        assertThat(page.locator("#notice")).containsText("note 126");
        page.locator(".found [name=sent]").fill("126");
        page.locator(".found [name=shown]").fill("G♭9");
        page.locator(".found button").click();
        assertThat(page.locator("[name=octaves]")).hasValue("-1");
        assertThat(page.locator("[name=flats]")).hasValue("flats");
    }

    private void writeACueForEveryLook() {
        shows.edit(show, "a cue for every look", s -> {
            Show written = s.withItem(new Item(0, ItemKind.SCENE, "All looks", 0, List.of()), 0);
            int item = written.items().get(0).id();
            for (Phrase phrase : s.devices().get(0).phrases().subList(0, 24)) {
                int number = written.items().get(0).cues().size() + 1;
                written = written.withCue(
                        item,
                        new Cue(
                                0,
                                CueNumber.of("" + number),
                                Start.BY_HAND,
                                "Cue" + number + " " + phrase.name(),
                                List.of(new Call(1, phrase.id())),
                                0));
            }
            return written;
        });
    }

    /** Each cue names the look that was meant when it was written; the desk must show that one. */
    private void everyCueShowsItsLook() {
        for (Cue cue : shows.get(show).cues().toList()) {
            String meant = cue.what().replaceFirst("Cue\\d+ ", "");
            Phrase phrase = shows.get(show).phrase(cue.calls().get(0)).orElseThrow();
            assertThat(phrase.name()).isEqualTo(meant);
            baton.bean(Stage.class).performer(show).order(new Order.Fire(PlannedCall.of(lights(), phrase), "test"));
            until(
                    "the look of cue " + cue.number(),
                    () -> desk.state().look().name().equals(meant));
        }
    }

    /** The list that is chosen from keeps the focus through the drawing that its choice causes. */
    @Test
    void aChoiceIsTypedWithAllItsLettersThoughTheSheetIsDrawnAnew() {
        page.locator("#list-kind").focus();
        page.evaluate("window.before = document.getElementById('list-kind')");
        page.keyboard().type("by p", new Keyboard.TypeOptions().setDelay(60));
        assertThat(page.locator("#list-kind")).hasValue("PROGRAM");
        until("it is kept", () -> lights().list()
                .filter(l -> l.kind() == PositionList.Kind.PROGRAM)
                .isPresent());
        assertThat(page.locator("#list-first")).isVisible();
        assertThat(page.locator("#list-kind")).isFocused();
        assertThat(page.evaluate("window.before === document.getElementById('list-kind')"))
                .isEqualTo(true);
    }

    @Test
    void severalPhrasesAreChangedAtOnceAndTakenBackAtOnce() {
        for (String name : List.of("One", "Two", "Three", "Four")) {
            shows.edit(
                    show,
                    name,
                    s -> s.withPhrase(
                            lights().id(),
                            new Phrase(
                                    0,
                                    name,
                                    new Wording(Numbering.WIRE).read("note " + name.length()),
                                    Effect.HOLDS,
                                    false)));
        }
        page.reload();
        page.locator(".entry").first().focus();
        page.keyboard().press(" ");
        page.keyboard().press("ArrowDown");
        page.keyboard().press(" ");
        page.locator(".entry").nth(3).click(new Locator.ClickOptions().setModifiers(List.of(KeyboardModifier.CONTROL)));
        assertThat(page.locator(".several [data-count]")).hasText("3 phrases");
        page.locator(".several .main").click();
        assertThat(page.locator("#notice")).containsText("Say what shall change");
        page.locator(".several [name=effect]").fill("starts for 4:37");
        page.locator(".several [name=mark]").selectOption("GREEN");
        page.locator(".several [name=guarded]").selectOption("yes");
        page.locator(".several [name=group]").fill("Films");
        page.keyboard().press("Enter");
        assertThat(page.locator("h3.group")).hasText("Films");
        assertThat(lights().phrases())
                .extracting(p -> p.name() + " " + p.effect() + " " + p.remarks().mark() + " " + p.guarded())
                .containsExactlyInAnyOrder(
                        "One starts for 4:37 GREEN true",
                        "Two starts for 4:37 GREEN true",
                        "Three holds NONE false",
                        "Four starts for 4:37 GREEN true");
        assertThat(page.locator(".several")).isHidden();
        page.locator("body").press("Control+z");
        assertThat(page.locator("h3.group")).hasCount(0);
        assertThat(lights().phrases()).noneMatch(Phrase::guarded);
    }

    /** A scene that says where it leaves a fader: the fade behind it begins there; one that does not is marked in the Book. */
    @Test
    void aSceneSaysWhereItLeavesTheFaders() {
        shows.edit(show, "a console", s -> {
            Device device = s.devices().get(0);
            Device with = device.withPhrase(spoken("Scene 4", "program 4", "holds scene, takes along levels", ""))
                    .withPhrase(spoken("Bed", "control 7 to ?", "levels", "per cent"));
            Show filled = s.withPhrasebook(with).withItem(new Item(0, ItemKind.SCENE, "One", 0, List.of()), 0);
            Device is = filled.devices().get(0);
            for (String called : List.of("Scene 4", "Bed 20 % in 3 s")) {
                CueNumber number = CueNumber.of(called.startsWith("S") ? "1" : "2");
                Cue cue = new Cue(0, number, Start.BY_HAND, "", List.of(Call.of(is, called)), 0);
                filled = filled.withCue(filled.items().get(0).id(), cue);
            }
            return filled;
        });
        Page book = baton.open("/shows/" + show + "/book");
        assertThat(book.locator(".said.untold")).hasText("Bed → 20 % in 3 s");
        page.reload();
        page.locator(".entry").first().focus();
        page.keyboard().press("Enter");
        Locator form = page.locator(".phrase-form");
        form.locator("[name=leaves]").fill("Bed loud");
        form.locator(".main").click();
        assertThat(page.locator(".notice").first()).containsText("“loud” is no amount for this phrase");
        form.locator("[name=leaves]").fill("Bed 80 %");
        form.locator(".main").click();
        assertThat(page.locator(".entry").first()).containsText("takes along levels, 1 of them known");
        assertThat(book.locator(".said.untold")).hasCount(0);
    }

    private static Phrase spoken(String name, String says, String effect, String takes) {
        return new Phrase(
                0,
                name,
                new SpeechWording(Numbering.WIRE).read(says),
                takes.isEmpty() ? Optional.empty() : Optional.of(Argument.of(takes)),
                Effect.of(effect),
                false,
                false,
                Remarks.NONE);
    }

    /** German names of notes are read; what was made of them is said. */
    @Test
    void whatIsKeptInOtherWordsThanItWasTypedIsTold() {
        page.keyboard().press("n");
        page.locator(".blanks [name=name]").fill("Flash");
        page.locator(".blanks [name=says]").fill("note H2");
        page.keyboard().press("Enter");
        assertThat(page.locator(".toast")).hasText("“Flash” is kept as: note B2");
        page.locator(".blanks [name=name]").fill("Glow");
        page.locator(".blanks [name=says]").fill("note c3");
        page.keyboard().press("Enter");
        assertThat(page.locator(".entry")).hasCount(2);
        assertThat(page.locator(".toast")).hasCount(0);
    }
}
